import { readFileSync } from "node:fs";
import Ajv from "ajv/dist/2020";
import { describe, expect, it } from "vitest";
import demo from "../../demo/brackwater-reach.json";
import { emptyCatalogue } from "../catalogue/catalogue";
import { item, kitchen, must, newItem, pantry, recipe } from "../testing/kitchen";
import { exportBundle } from "./bundle";
import { planImport } from "./read";
import { bundleSchema } from "./schema";

const empty = () => emptyCatalogue(pantry());
const bundle = (part: object) => JSON.stringify({ format: "salty-pantry-bundle", version: 1, ...part });
const taken = (text: string) => {
  const into = empty();
  const plan = planImport(into, text);
  expect(plan.issues).toEqual([]);
  return must(into, plan.edits);
};
const problems = (text: string) => planImport(empty(), text).issues.map((p) => `${p.path}: ${p.message}`);

describe("the bundle", () => {
  it("is the same to the byte after export, import and export", () => {
    const first = exportBundle(taken(JSON.stringify(demo)));
    expect(exportBundle(taken(first))).toBe(first);
    const kitchenware = exportBundle(
      kitchen(
        "gather 1..3 Kelp + 1 Shell 20% in 30s\nbuy Crock for 5\nsalvage Crock -> 1 Clay 50% using Hammer lasting 9 at Bench in 7t fee 0.1 shells",
      ),
    );
    expect(exportBundle(taken(kitchenware))).toBe(kitchenware);
  });

  it("changes nothing when it is imported twice", () => {
    const once = taken(JSON.stringify(demo));
    const again = planImport(once, exportBundle(once));
    expect(again).toMatchObject({ edits: [], added: 0, changed: 0, issues: [] });
  });

  it("fits its JSON Schema, as do the demo and every shorthand", () => {
    const validate = new Ajv({ strict: true, strictRequired: false, allErrors: true, allowUnionTypes: true }).compile(
      JSON.parse(readFileSync("docs/bundle.schema.json", "utf8")) as object,
    );
    const shorthand = {
      format: "salty-pantry-bundle",
      version: 1,
      items: [{ name: "Eel" }],
      recipes: [
        "2 Eel -> 1 Pie",
        { line: "salvage Pie -> 1 Eel", key: "unpie" },
        { key: "r", ingredients: ["eel"], outputs: [{ item: "pie", quantity: [1, 2], chance: 0.5 }], fee: 2, time: 30 },
      ],
      sources: [{ name: "Weir", gives: ["eel"], time: "30s" }],
    };
    for (const value of [demo, JSON.parse(exportBundle(taken(JSON.stringify(demo)))), shorthand])
      expect(validate(value), JSON.stringify(validate.errors?.slice(0, 3))).toBe(true);
    expect(validate({ format: "salty-pantry-bundle", version: 1, items: [{ key: "a", rarty: "x" }] })).toBe(false);
    taken(JSON.stringify(shorthand));
  });

  it("has a JSON Schema that is the one in the docs: npx salty schema > docs/bundle.schema.json", () => {
    expect(JSON.parse(readFileSync("docs/bundle.schema.json", "utf8"))).toEqual(bundleSchema());
  });

  it("takes a recipe structured or as a line, and makes stubs of names that exist nowhere", () => {
    const c = taken(
      bundle({
        items: [{ key: "river_eel" }],
        recipes: [
          { key: "smoke", line: "Smoke eel: 2 River eel -> 2 Smoked eel in 90s" },
          "salvage Smoked eel -> 1 Eel skin",
          {
            key: "bait",
            ingredients: [{ item: "river_eel", quantity: 0.5 }],
            outputs: [{ item: "cut_bait", quantity: [1, 3], chance: 0.25 }],
            tools: [{ item: "knife", uses: 9 }],
          },
        ],
      }),
    );
    expect(recipe(c, "Smoke eel")).toMatchObject({ key: "smoke", ticks: 1800, status: "ready" });
    expect(recipe(c, "Bait").lines).toMatchObject([
      { role: "ingredient", min: 0.5 },
      { role: "output", min: 1, max: 3, chance: 0.25 },
      { role: "tool", uses: 9 },
    ]);
    expect(item(c, "River eel").status).toBe("ready");
    expect(["Smoked eel", "Eel skin", "Cut bait", "Knife"].map((n) => item(c, n).status)).toEqual([
      "stub",
      "stub",
      "stub",
      "stub",
    ]);
  });

  it("refuses what stands twice, with its place: the second list would replace the first in silence", () => {
    const bundle = (rest: string) => `\uFEFF{"format":"salty-pantry-bundle","version":1,\n${rest}}`;
    expect(problems(bundle('"items":[{"key":"eel"}],\n"items":[]'))).toEqual([
      "line 3, column 1: “items” appears twice in the same object. Remove one of them.",
    ]);
    expect(problems(bundle('"items":[{"key":"eel","name":"Eel",\n  "name":"Elver"}]'))[0]).toContain(
      "line 3, column 3: “name” appears twice in the same object. Remove one of them.",
    );
  });

  it("says line and column where it is no JSON", () => {
    expect(problems('{\n "format": "salty-pantry-bundle",\n oops }')[0]).toMatch(/^line 3, column 2: This is not JSON/);
    expect(problems("[1]")[0]).toContain("one JSON object");
    expect(problems("{}")[0]).toContain("format: Expected");
    expect(problems('{"format":"salty-pantry-bundle","version":7}')[0]).toContain(
      "version: This program reads version 1",
    );
  });

  it("reports every fault with its place, and plans nothing then", () => {
    const text = bundle({
      itmes: [],
      items: [{ key: "eel", rarty: "x" }, { key: "EEL" }, { key: "crock", type: "vesel", stack: 0 }, 7],
      types: [{ key: "vessel", name: "Vessel" }],
      recipes: [
        { key: "a", line: "2 Eel -> " },
        { key: "b", outputs: [{ item: "eel", quantity: "two" }], tme: 3 },
        { key: "c", line: "1 Eel -> 1 Pie", time: 3 },
      ],
    });
    const plan = planImport(empty(), text);
    expect(plan.edits).toEqual([]);
    expect(problems(text)).toEqual([
      "itmes: Unknown field. Did you mean items?",
      "items[3]: Expected an object.",
      "items[1].key: The key “EEL” appears twice. Keys are unique within a kind, ignoring case and “_”.",
      "recipes[0].line, column 9: Expected what it makes.",
      "items[0].rarty: Unknown field. Did you mean rarity?",
      "items[2].type: There is no type “vesel”. Did you mean vessel?",
      "recipes[1].tme: Unknown field. Did you mean time?",
      "recipes[1].outputs[0].quantity: Expected a number, or a range of two such as [1, 3].",
      'recipes[2].time: The line already contains this. Use either "time" or the line.',
    ]);
    expect(problems(bundle({ items: [{ key: "crock", stack: 0 }] }))).toEqual([
      "items[0].stack: 0 is outside the range 1 to 1000000.",
    ]);
  });

  it("merges by key, and removes what it does not name only when asked", () => {
    const c = taken(bundle({ items: [{ key: "eel", sell: 2 }, { key: "cork" }] }));
    const text = bundle({ items: [{ key: "eel", sell: 3 }, { key: "tar" }] });
    expect(planImport(c, text)).toMatchObject({ added: 1, changed: 1, removed: 0 });
    const replaced = planImport(c, text, { replace: true });
    expect(replaced).toMatchObject({ added: 1, changed: 1, removed: 1 });
    expect([...must(c, replaced.edits).records.item.values()].map((i) => i.key).sort()).toEqual(["eel", "tar"]);
  });

  it("sets only the fields it names of a record that is there, and all of them when it replaces", () => {
    const c = taken(
      bundle({
        items: [{ key: "eel", name: "River eel", sell: 2, level: 3 }],
        recipes: [{ key: "pie", name: "Bake pie", line: "2 River eel -> 1 Pie in 90s" }],
      }),
    );
    const text = bundle({ items: [{ key: "eel", sell: 3 }], recipes: [{ key: "pie", time: "60s" }] });
    const merged = planImport(c, text);
    expect(merged.edits.map((e) => (e.op === "set" ? [e.field, e.to] : e.op))).toEqual([
      ["sell", 3],
      ["ticks", 1200],
    ]);
    const replaced = planImport(
      c,
      bundle({ items: [{ key: "eel", sell: 3 }, { key: "pie" }], recipes: [{ key: "pie", line: "1 eel -> 1 pie" }] }),
      { replace: true },
    );
    expect(item(must(c, replaced.edits), "River eel")).toMatchObject({ sell: 3, level: null });
  });

  it("sorts records by key whatever the order they were made in", () => {
    const [a, b] = [newItem("Anchor"), newItem("Bell")];
    const both = [
      [a, b],
      [b, a],
    ].map((list) =>
      exportBundle(
        must(
          emptyCatalogue({ ...pantry(), id: a.id }),
          list.map((record) => ({ op: "add" as const, kind: "item" as const, record })),
        ),
      ),
    );
    expect(both[0]).toBe(both[1]);
  });
});

describe("draws and unlocks", () => {
  it("come out of a bundle as they went in, and say the same as the line", () => {
    const c = taken(
      bundle({
        items: ["crate", "rope", "cleat", "chart"].map((key) => ({ key })),
        recipes: [
          {
            key: "a",
            kind: "salvage",
            ingredients: ["crate"],
            draws: [{ times: 3, entries: [{ weight: 5, item: "rope", quantity: 2 }, { item: "cleat" }], nothing: 0.5 }],
            level: 4,
            taughtBy: "chart",
          },
          {
            key: "b",
            line: "B: salvage 1 Crate -> 3 draws { 5: 2 Rope | 1: 1 Cleat | 0.5: nothing } level 4 taught by Chart",
          },
        ],
        sources: [{ key: "wreck", gives: ["crate"], draws: [{ entries: ["chart"], nothing: 9 }] }],
      }),
    );
    const [a, b] = [...c.records.recipe.values()];
    expect(a.lines).toEqual(b.lines);
    expect(a.lines[1].draw).toEqual({ group: 1, times: 3, weight: 5, of: 6.5 });
    expect([a.level, a.taughtBy]).toEqual([b.level, b.taughtBy]);
    const text = exportBundle(c);
    expect(exportBundle(taken(text))).toBe(text);
    expect(JSON.parse(text).sources[0].draws).toEqual([{ entries: [{ weight: 1, item: "chart" }], nothing: 9 }]);
  });

  it("are refused with their place", () => {
    expect(
      problems(
        bundle({
          items: [{ key: "rope" }],
          sources: [
            { key: "s", draws: [{ times: 0.5, entries: [{ weight: -1, item: "rope" }], noting: 2 }, { entries: [] }] },
          ],
        }),
      ),
    ).toEqual([
      "sources[0].draws[0].noting: Unknown field. Did you mean nothing?",
      "sources[0].draws[0].entries[0].weight: A weight is a number from 0 to 1000000 with at most six decimal places.",
      'sources[0].draws[1]: Expected an object such as { "times": 3, "entries": [{ "weight": 5, "item": "rope" }], "nothing": 1 }.',
    ]);
    expect(
      problems(
        bundle({ items: [{ key: "rope" }], sources: [{ key: "s", draws: [{ times: 0.5, entries: ["rope"] }] }] }),
      ),
    ).toEqual(["sources[0].gives.1.draw.times: 0.5 isn't a whole number."]);
  });
});
