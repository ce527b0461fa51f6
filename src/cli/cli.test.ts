import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { pictureName } from "../store/picture-name";
import { freshDatabase } from "../store/testing/database";

let dir = "";
let database: Awaited<ReturnType<typeof freshDatabase>>;
beforeAll(async () => {
  dir = mkdtempSync(join(tmpdir(), "salty-"));
  database = await freshDatabase();
});
afterAll(async () => {
  rmSync(dir, { recursive: true, force: true });
  await database.drop();
});

const salty = (...args: string[]) => {
  const { status, stdout, stderr } = spawnSync(process.execPath, ["bin/salty.mjs", ...args], {
    encoding: "utf8",
    env: { ...process.env, DATABASE_URL: database.url },
  });
  return { status, stdout, stderr };
};
const file = (name: string, content: unknown): string => {
  const path = join(dir, name);
  writeFileSync(path, typeof content === "string" ? content : JSON.stringify(content));
  return path;
};
const bundle = (part: object) => ({ format: "salty-pantry-bundle", version: 1, ...part });
const gaining = bundle({
  sources: [
    { key: "weir", gives: ["river_eel"], time: 20 },
    { key: "stall", kind: "shop", gives: ["salt"], price: 2 },
  ],
  items: [{ key: "river_eel" }, { key: "salt" }, { key: "smoked_eel" }, { key: "eel_skin" }, { key: "brine" }],
  recipes: [
    { key: "smoke", line: "2 River eel + 1 Salt -> 2 Smoked eel in 90s" },
    { key: "unsmoke", line: "salvage Smoked eel -> 1 Brine + 1 Eel skin 80%" },
    { key: "render", line: "4 Eel skin + 5 Brine -> 5 River eel + 3 Salt" },
  ],
});
/** Items that no check has anything to say of. */
const shown = { icon: "eel", description: "For tests." };
const FINE = [
  { key: "eel", ...shown },
  { key: "eel_pie", ...shown },
  { key: "crumb", sell: 4, ...shown },
];
const clean = bundle({
  items: [{ key: "eel" }],
  sources: [{ key: "weir", gives: [{ item: "eel", quantity: [1, 3] }], time: 20 }],
  recipes: [
    { key: "pie", line: "2 Eel -> 1 Eel pie in 30s" },
    { key: "define", line: "1 Eel pie -> 1 Crumb" },
  ],
});

describe("salty check", () => {
  it("prints a gaining loop with whole multiplicities and the exact net", () => {
    const { status, stdout } = salty("check", file("gaining.json", gaining), "--format", "json");
    expect(status).toBe(1);
    const { findings } = JSON.parse(stdout) as {
      findings: { rule: string; severity: string; about: object[]; evidence: Record<string, unknown> }[];
    };
    const [loop] = findings.filter((f) => f.rule === "gaining-loop");
    expect(loop.evidence).toMatchObject({
      type: "loop",
      runs: [
        { recipe: "render", times: 2 },
        { recipe: "smoke", times: 5 },
        { recipe: "unsmoke", times: 10 },
      ],
      net: [{ item: "salt", amount: "1" }],
      certain: false,
      live: true,
    });
    expect(loop.about).toContainEqual({ kind: "recipe", key: "smoke" });
  });

  it("ends with 0, 1 or 2 as the level asks", () => {
    const noted = file("stub.json", clean);
    expect(salty("check", noted).status).toBe(1);
    const fine = file("fine.json", { ...clean, items: FINE });
    expect(salty("check", fine)).toMatchObject({ status: 0, stdout: "No findings.\n" });
    const warned = file("warned.json", {
      ...clean,
      items: [{ key: "eel" }, { key: "eel_pie" }, { key: "crumb" }, { key: "other", name: "E EL" }],
      sources: [...((clean as { sources?: object[] }).sources ?? []), { key: "w2", gives: ["other"] }],
    });
    expect(salty("check", warned).status).toBe(0);
    expect(salty("check", warned, "--fail-on", "warning").status).toBe(1);
  });

  it("says file, place and reason of what it can't read", () => {
    expect(salty("check", join(dir, "nowhere.json"))).toMatchObject({ status: 2 });
    const broken = salty("check", file("broken.json", '{\n"format": oops}'));
    expect(broken.status).toBe(2);
    expect(broken.stderr).toMatch(/broken\.json: line 2, column 11: This is not JSON/);
    const wrong = salty(
      "check",
      file("wrong.json", bundle({ items: [{ key: "a", type: "nope" }], recipes: [{ line: "1 A ->" }] })),
    );
    expect(wrong.stderr).toContain("wrong.json: items[0].type: There is no type “nope”.");
    expect(wrong.stderr).toContain("wrong.json: recipes[0].line, column 7: Expected what it makes.");
    expect(salty("check", file("c.json", clean), "--format", "xml")).toMatchObject({ status: 2 });
    expect(salty("frobnicate")).toMatchObject({ status: 2 });
    expect(salty()).toMatchObject({ status: 2 });
    expect(salty("--help")).toMatchObject({ status: 0 });
  });
});

describe("salty cost", () => {
  it("prints value, time, the chosen process and a breakdown that adds up, for the quantity asked", () => {
    const path = file(
      "cost.json",
      bundle({
        sources: [
          { key: "stall", kind: "shop", gives: ["log"], price: 4 },
          { key: "weir", gives: [{ item: "nail", quantity: 4 }], time: 8 },
        ],
        recipes: [
          { key: "saw", line: "1 Log -> 4 Plank in 10s" },
          { key: "box", line: "6 Plank + 8 Nail -> 1 Box fee 3 sh" },
        ],
        currencies: [{ key: "sh" }],
      }),
    );
    const { status, stdout } = salty("cost", path, "box=10", "--format", "json");
    expect(status).toBe(0);
    const cost = JSON.parse(stdout) as {
      value: number;
      time: number;
      quantity: number;
      process: object;
      breakdown: { base: { item: string; quantity: number; cost: number }[]; work: { cost: number }[] };
    };
    expect(cost).toMatchObject({
      item: "box",
      quantity: 10,
      value: 90,
      time: 310,
      process: { kind: "recipe", key: "box" },
    });
    expect(cost.breakdown.base).toContainEqual(expect.objectContaining({ item: "log", quantity: 15, cost: 60 }));
    expect([...cost.breakdown.base, ...cost.breakdown.work].reduce((t, p) => t + p.cost, 0)).toBeCloseTo(90, 9);
  });

  it("offers the nearest name, and says when an item can't be had", () => {
    const path = file("near.json", clean);
    expect(salty("cost", path, "ele")).toMatchObject({ status: 2 });
    expect(salty("cost", path, "eel pei").stderr).toContain("Did you mean");
    expect(salty("cost", path, "eel=-1").status).toBe(2);
    expect(salty("cost", path).status).toBe(2);
    const out = file("out.json", bundle({ items: [{ key: "lens" }] }));
    expect(salty("cost", out, "lens")).toMatchObject({ status: 0, stdout: "Lens is unobtainable.\n" });
    expect(JSON.parse(salty("cost", out, "lens", "--format", "json").stdout)).toMatchObject({
      value: null,
      time: null,
      process: null,
    });
  });
});

describe("salty plan", () => {
  const path = () =>
    file(
      "plan.json",
      bundle({
        sources: [
          { key: "stall", kind: "shop", gives: ["log"], price: 4 },
          { key: "weir", gives: [{ item: "nail", quantity: 4 }], time: 8 },
          { key: "shed", gives: ["bench"] },
        ],
        recipes: [
          { key: "saw", line: "1 Log -> 4 Plank at Bench in 10s" },
          { key: "box", line: "6 Plank + 8 Nail -> 1 Box fee 3 sh" },
        ],
        currencies: [{ key: "sh" }],
      }),
    );

  it("prints whole runs in order, the shopping list, what is left over and how long stations are busy", () => {
    const { status, stdout } = salty("plan", path(), "box=3", "--format", "json");
    expect(status).toBe(0);
    const plan = JSON.parse(stdout) as { steps: { key: string; runs: number }[] };
    expect(plan).toMatchObject({
      value: 5 * 4 + 3 * 3,
      seconds: 6 * 8 + 5 * 10,
      best: true,
      shopping: expect.arrayContaining([
        { item: "log", quantity: 5 },
        { item: "nail", quantity: 24 },
      ]),
      left: [{ item: "plank", quantity: 2 }],
      needed: [{ item: "bench", quantity: 1 }],
      stations: [{ station: "bench", seconds: 50 }],
    });
    expect(plan.steps.map((s) => `${s.runs} ${s.key}`)).toEqual(
      expect.arrayContaining(["5 stall", "6 weir", "5 saw", "3 box"]),
    );
    const text = salty("plan", path(), "box=3", "--stock", "plank=100,nail=24").stdout;
    expect(text).toContain("taken from stock: 18 Plank and 24 Nail");
    expect(text).toContain("taken from stock: 18 Plank and 24 Nail");
  });

  it("says what is wrong with what was asked", () => {
    expect(salty("plan", path()).status).toBe(2);
    expect(salty("plan", path(), "box", "--confidence", "2").stderr).toContain("between 0 and 1");
    expect(salty("plan", path(), "bxo").stderr).toContain("Did you mean");
    expect(salty("plan", path(), "box", "--stock", "plank=-1").status).toBe(2);
    const lens = file("lens.json", bundle({ items: [{ key: "lens" }] }));
    expect(salty("plan", lens, "lens")).toMatchObject({ status: 0, stdout: "Lens is unobtainable.\n" });
  });
});

describe("salty draws", () => {
  const path = () =>
    file(
      "draws.json",
      bundle({
        items: [{ key: "crate" }, { key: "plank" }, { key: "nail" }, { key: "float" }],
        recipes: [
          { key: "break", line: "Break: salvage Crate -> 2 Plank + 1 Nail 50% + 2 draws { 1: 1 Float | 9: nothing }" },
          { key: "boil", line: "Boil: 2 Plank -> 1 Nail" },
        ],
        sources: [{ key: "weir", gives: [{ item: "crate", quantity: [1, 3] }] }],
      }),
    );

  it("tells what runs give of each thing that comes by chance, and how many runs it takes", () => {
    const { status, stdout } = salty("draws", path(), "break=4", "--format", "json");
    expect(status).toBe(0);
    const told = JSON.parse(stdout) as {
      runs: number;
      outcomes: { item: string; expected: number; none: number; runs: object[] }[];
    };
    expect(told.runs).toBe(4);
    expect(told.outcomes.map((o) => o.item)).toEqual(["nail", "float"]);
    expect(told.outcomes[0]).toMatchObject({
      expected: 2,
      none: 0.0625,
      runs: [
        { confidence: 0.5, runs: 1 },
        { confidence: 0.9, runs: 4 },
        { confidence: 0.99, runs: 7 },
      ],
    });
    expect(told.outcomes[1].none).toBeCloseTo(0.9 ** 8, 12);
    const text = salty("draws", path(), "Break=4", "--of", "float=2", "--confidence", "0.95").stdout;
    expect(text).toContain("Float: 0.8 on average");
    expect(text).toContain("at least 2: 18.6895%");
    expect(text).not.toContain("Nail");
    expect(salty("draws", path(), "weir").stdout).toContain("Crate: 2 on average");
    expect(salty("draws", path(), "boil").stdout).toContain("nothing is random");
  });

  it("says what is wrong with what was asked", () => {
    expect(salty("draws", path()).status).toBe(2);
    expect(salty("draws", path(), "braek").stderr).toContain("Did you mean");
    expect(salty("draws", path(), "break=1.5").stderr).toContain("isn't a number of runs");
    expect(salty("draws", path(), "break", "--of", "crate").stderr).toContain("does not give Crate");
    expect(salty("draws", path(), "break", "--confidence", "1").stderr).toContain("between 0 and 1");
  });
});

describe("salty import and export", () => {
  it("give back the same bytes, keep every record, and check the database's pantry", () => {
    const path = file("demo.json", readFileSync("src/demo/brackwater-reach.json", "utf8"));
    expect(salty("import", path, "--dry").stdout).toContain("Nothing was saved");
    expect(salty("import", path)).toMatchObject({ status: 0 });
    const first = join(dir, "first.json");
    expect(salty("export", first)).toMatchObject({ status: 0 });
    expect(salty("import", first).stdout).toContain("0 records new, 0 changed");
    expect(salty("import", first, "--pantry", "copy").stdout).toContain("Revision 1");
    const second = salty("export", "-", "--pantry", "copy").stdout;
    expect(second.replace('"key": "copy"', '"key": "brackwater_reach"')).toBe(readFileSync(first, "utf8"));
    expect(salty("check", "db:brackwater_reach").status).toBe(1);
    expect(salty("check", "db:nowhere")).toMatchObject({ status: 2 });
    expect(salty("export", join(dir, "x.json"))).toMatchObject({ status: 2 });
  });

  it("write nothing from a bundle with faults", () => {
    const before = salty("export", "-", "--pantry", "brackwater_reach").stdout;
    const bad = salty(
      "import",
      file(
        "bad.json",
        bundle({
          pantry: { key: "brackwater_reach" },
          items: [
            { key: "cork", sell: 9 },
            { key: "tar", sell: "much" },
          ],
        }),
      ),
    );
    expect(bad.status).toBe(2);
    expect(bad.stderr).toContain("items[1].sell: “much” isn't a number.");
    expect(salty("export", "-", "--pantry", "brackwater_reach").stdout).toBe(before);
  });

  it("take pictures of a pantry's own along, and tell the icons that no one knows", () => {
    const base64 = btoa('<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0h9"></path></svg>');
    const name = pictureName(Buffer.from(base64, "base64"));
    const items = [
      { key: "jar", icon: name },
      { key: "lid", icon: "no-such-icon" },
    ];
    const of = (key: string, part: object) => file(`${key}.json`, bundle({ pantry: { key }, items, ...part }));
    const brought = salty("import", of("drawn", { pictures: [{ name, base64 }] }));
    expect(brought).toMatchObject({
      status: 0,
      stdout: "drawn: 2 records new, 0 changed, 0 the same, 1 picture. Revision 1.\n",
    });
    expect(brought.stderr).toContain("items[1].icon: There is no icon called “no-such-icon”");
    expect(brought.stderr).not.toContain(name);
    expect(JSON.parse(salty("export", "-", "--pantry", "drawn").stdout).pictures).toEqual([{ name, base64 }]);
    expect(salty("import", of("bare", {})).stderr).toContain(`items[0].icon: There is no picture called “${name}”`);
    const wrong = salty("import", of("wrong", { pictures: [{ name, base64: btoa("<svg></svg>") }] }));
    expect(wrong.stderr).toContain("pictures[0].name: This file is not the picture");
    const table = file("icons.csv", "Name,Icon\nMug,no-mug\nCup,eel\n");
    expect(salty("import", table, "--pantry", "bare").stderr).toContain("There is no icon called “no-mug”.");
  });

  it("generate large pantries from a seed", () => {
    const out = join(dir, "large.json");
    expect(salty("generate", out, "--items", "200", "--seed", "7")).toMatchObject({ status: 0 });
    expect((JSON.parse(readFileSync(out, "utf8")) as { items: unknown[] }).items).toHaveLength(200);
  });
});

describe("salty import and export of tables", () => {
  it("bring a table in by a mapping, refuse what can't be read with its place, and take out what a view shows", () => {
    const pantry = bundle({
      pantry: { key: "tables", name: "Tables" },
      types: [{ key: "fare", name: "Fare" }],
      items: [
        { key: "eel", name: "Eel", type: "fare", sell: 2, description: "Long." },
        { key: "rope", name: "Rope" },
      ],
      mappings: [{ key: "stall", name: "Stall list", columns: "Ware = name\nFor = sell", decimal: "," }],
      views: [{ key: "bare", name: "Bare", query: "where=description+missing", columns: "name sell:90 cost" }],
    });
    expect(salty("import", file("tables.json", pantry)).status).toBe(0);
    const list = file("stall.csv", "Ware;For;Stand\nEel;2,5;4\nSalt;1,25;4\nTar;lots;2\n");
    const args = ["--pantry", "tables", "--map", "Stall list"];
    const refusedRows = join(dir, "refused.csv");
    const strict = salty("import", list, ...args, "--refused", refusedRows);
    expect(strict.status).toBe(2);
    expect(strict.stderr).toContain("row 4, For: “lots” isn't a number with “,” as decimal separator.");
    expect(strict.stderr).toContain("the column “Stand” is skipped");
    expect(readFileSync(refusedRows, "utf8")).toContain('Tar,lots,2,"For: “lots” isn');
    const skipping = salty("import", list, ...args, "--skip");
    expect([skipping.status, skipping.stdout]).toEqual([
      1,
      "tables: 1 new, 1 changed, 0 the same, 1 rejected. Revision 2.\n",
    ]);
    const out = join(dir, "bare.csv");
    expect(salty("export", out, "--pantry", "tables", "--view", "Bare").stdout).toBe(
      `2 rows of tables at revision 2 written to ${out}.\n`,
    );
    expect(readFileSync(out, "utf8")).toBe("\ufeffKey,Name,Sell price,Cost\r\nrope,Rope,,\r\nsalt,Salt,1.25,\r\n");
    const book = join(dir, "all.xlsx");
    expect(salty("export", book, "--pantry", "tables").status).toBe(0);
    expect(salty("import", book, "--pantry", "tables", "--dry").stderr).toBe("");
    expect(salty("import", book, "--pantry", "tables", "--dry").stdout).toBe(
      "tables: 0 new, 0 changed, 3 the same, 0 rejected. Nothing was saved (--dry).\n",
    );
    expect(salty("import", list, ...args.slice(0, 2), "--map", "nobody").stderr).toContain(
      "There is no mapping “nobody”",
    );
    expect(salty("export", out, "--kind", "boat").stderr).toContain("“boat” isn't a kind of record");
  });
});
