import { around } from "../catalogue/surroundings";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { add, fromNumber, toNumber } from "../numbers/fraction";
import { emptyCatalogue } from "../catalogue/catalogue";
import type { Edit } from "../catalogue/edit";
import { newId } from "../schema/id";
import { withDefaults, type Item, type Recipe } from "../kinds/index";
import { isWeight, line } from "./line";
import { kitchen, must, newItem, pantry, recipe, shells } from "../testing/kitchen";
import { formatGiven, formatLines, formatParsed, formatRecipe, formatUnnamed } from "./format";
import { parseLine } from "./parser";
import { addRecipes, recipeFrom, rewriteRecipe, wordsOf } from "../editing/recipes";
import type { Id } from "../schema/id";
import { Completions } from "./completion";
import { readLines } from "./text";
import { NewNames } from "../editing/new-names";

const names = [
  "River eel",
  "Coarse salt",
  "Smoked eel",
  "Eel skin",
  "Smokehouse",
  "Gutting knife",
  "Eel",
  "Jar at sea",
  "3-ply rope",
  "Oilskin coat",
];
const stocked = must(emptyCatalogue(pantry()), [
  { op: "add", kind: "currency", record: shells },
  ...names.map((name): Edit => ({ op: "add", kind: "item", record: newItem(name) })),
]);
const read = (text: string) => parseLine(text, wordsOf(stocked));
const brief = (text: string) =>
  read(text).entries.map(
    (e) =>
      `${e.role} ${e.min}..${e.max} ${e.name}${e.chance === 1 ? "" : ` ${e.chance}`}${e.uses ? ` /${e.uses}` : ""}`,
  );

describe("reading a recipe line", () => {
  it("reads quantities, chances, station, tool with wear, time and fee", () => {
    const line =
      "2 River eel + 1 Coarse salt -> 2 Smoked eel + 1 Eel skin 40% at Smokehouse using Gutting knife lasting 50 in 90s fee 2 shells";
    expect(brief(line)).toEqual([
      "ingredient 2..2 River eel",
      "ingredient 1..1 Coarse salt",
      "output 2..2 Smoked eel",
      "output 1..1 Eel skin 0.4",
      "station 1..1 Smokehouse",
      "tool 1..1 Gutting knife /50",
    ]);
    expect(read(line)).toMatchObject({
      ok: true,
      kind: "craft",
      ticks: 1800,
      fee: 2,
      feeCurrency: shells.id,
      label: null,
    });
  });

  it("reads salvage with a range, and the recipe's own name before a colon", () => {
    expect(read("Unpick coat: salvage Oilskin coat -> 1..3 Eel skin")).toMatchObject({
      ok: true,
      kind: "salvage",
      label: "Unpick coat",
    });
    expect(brief("salvage Oilskin coat -> 1..3 Eel skin")).toEqual([
      "ingredient 1..1 Oilskin coat",
      "output 1..3 Eel skin",
    ]);
  });

  it("matches names without regard to case and spacing, longest first, keys too", () => {
    expect(brief("2 RIVER   eel + coarsesalt -> 1 smoked_eel")).toEqual([
      "ingredient 2..2 River eel",
      "ingredient 1..1 Coarse salt",
      "output 1..1 Smoked eel",
    ]);
    expect(brief("1 Jar at sea -> 1 Eel at Smokehouse")).toEqual([
      "ingredient 1..1 Jar at sea",
      "output 1..1 Eel",
      "station 1..1 Smokehouse",
    ]);
    expect(brief("3-ply rope -> 2 3-ply rope")).toEqual(["ingredient 1..1 3-ply rope", "output 2..2 3-ply rope"]);
  });

  it("turns an unknown name into a stub with a remark that offers the nearest names", () => {
    const parsed = read("2 River eel -> 1 Smokd eel");
    expect(parsed.ok).toBe(true);
    expect(parsed.entries[1]).toMatchObject({ item: null, name: "Smokd eel" });
    expect(parsed.issues[0]).toMatchObject({
      severity: "warning",
      path: "column 18",
      from: 17,
      to: 26,
      suggestions: ["Smoked eel"],
    });
  });

  it.each([
    ["", "Expected an ingredient", 0],
    ["2 River eel", "Expected ->", 11],
    ["2 River eel -> ", "Expected what it makes", 14],
    ["2 River eel + -> 1 Eel", "Expected an ingredient", 14],
    ["1,500 River eel -> 1 Eel", "could be 1500 or 1.5", 0],
    ["River eel 2 -> 1 Eel", "looks like “River eel” with an amount", 0],
    ["River eel -> 1 Eel in soon", "Expected a duration", 22],
    ["River eel -> 1 Eel in 90s in 30s", "appears twice", 26],
    ["River eel -> 1 Eel fee 2 pearls", "is not a currency", 25],
    ["River eel -> 1 Eel -> 1 Eel skin", "only one ->", 19],
    ["River eel -> 1 Eel at Smokehouse 40%", "can't have a chance", 33],
    ["River eel -> 1 Eel using Gutting knife lasting long", "the number of runs", 47],
    ['River eel -> 1 "Eel', "not closed", 15],
    ["#fish x3 -> 1 Eel", "is written “any” and the name of the tag", 0],
    ["2 any -> 1 Eel", "Expected the name of a tag after “any”", 6],
    ["1 Eel -> any fish", "Only inputs can be any item with a tag", 9],
    ["River eel -> 1 Eel 40% 20%", "found “20%”", 23],
    ["salvage nothing -> 1 Eel", "Enter the item to salvage", 24],
    ["Eel -> 2 draws { 2 River eel }", "Expected a weight and a colon", 17],
    ["Eel -> 2 draws { 1: River eel", "Expected | and the next", 29],
    ["Eel -> 1.5 draws { 1: River eel }", "a whole number from 1 to 1000", 7],
    ["Eel -> draw { 0: River eel }", "a weight above 0", 7],
    ["Eel -> draw { 1: nothing }", "at least one entry", 7],
    ["Eel -> draw { 1: River eel 40% }", "a weight, not a chance", 17],
    ["draw { 1: River eel } -> Eel", "Only outputs", 0],
    ["Eel -> River eel level high", "Expected a level", 23],
    ["Eel -> River eel taught Coarse salt", "Expected “by” and the item", 24],
    ["Eel -> River eel level 2 level 3", "appears twice", 25],
  ])("refuses %j with its place", (text, message, from) => {
    const parsed = read(text);
    expect(parsed.ok).toBe(false);
    const error = parsed.issues.find((r) => r.severity === "error" && r.message.includes(message));
    expect(error, JSON.stringify(parsed.issues)).toBeDefined();
    expect(error?.from).toBe(from);
  });

  it("ignores nothing: every chunk is in an entry, a clause or a remark", () => {
    const chunk = fc.constantFrom(
      "2",
      "River",
      "eel",
      "Eel",
      "+",
      "->",
      "at",
      "using",
      "in",
      "fee",
      "90s",
      "40%",
      "1..3",
      "shells",
      "Coarse salt",
      ":",
      '"Eel"',
      "lasting",
      "7",
      "nonsense",
      "salvage",
      "draws",
      "{",
      "|",
      "}",
      "5:",
      "nothing",
      "level",
      "taught",
      "by",
    );
    fc.assert(
      fc.property(fc.array(chunk, { maxLength: 18 }), (chunks) => {
        const parsed = read(chunks.join(" "));
        if (!parsed.ok) return;
        const said = JSON.stringify(parsed) + parsed.entries.map((e) => e.name).join(" ");
        for (const c of chunks.filter((c) => c === "nonsense")) expect(said).toContain(c);
        // What was accepted writes back to a line that means the same.
        const writing = new NewNames(stocked);
        const written = recipeFrom(parsed, writing);
        const next = must(stocked, writing.edits);
        const again = parseLine(formatRecipe(around(next), written), wordsOf(next));
        expect(again.ok).toBe(true);
        expect(recipeFrom(again, new NewNames(next))).toMatchObject({
          ...regroup(written),
          id: expect.anything(),
          key: expect.anything(),
        });
      }),
      { numRuns: 400 },
    );
  });
});

const regroup = (r: Recipe): Recipe => ({
  ...r,
  lines: ["ingredient", "output", "station", "tool"].flatMap((role) => r.lines.filter((l) => l.role === role)),
});

describe("the canonical line", () => {
  it("quotes where a plain name would be read otherwise, and uses the key where two names are the same", () => {
    const odd = [
      "in",
      "Salt",
      "Salt at Sea",
      "50% off",
      'The "best" jar',
      "+1 hook",
      "salvage kit",
      "Tar:",
      "Twin",
      "twin",
    ];
    const catalogue = must(
      stocked,
      odd.map((name, i): Edit => ({ op: "add", kind: "item", record: newItem(name, { key: `odd_${i}` }) })),
    );
    for (const item of catalogue.records.item.values()) {
      const written = withDefaults("recipe", {
        id: newId(),
        key: "r",
        name: "Plain",
        lines: [line("ingredient", item.id, 2), line("output", item.id, 1), line("station", item.id)],
      });
      const text = formatRecipe(around(catalogue), written);
      const parsed = parseLine(text, wordsOf(catalogue));
      expect(parsed.issues, text).toEqual([]);
      expect(parsed.entries.map((e) => e.item)).toEqual([item.id, item.id, item.id]);
    }
  });

  const amount = fc.oneof(fc.nat(99), fc.double({ min: 1e-9, max: 1e6, noNaN: true }), fc.constantFrom(0.1, 1.5, 1e-7));
  const record = fc
    .record({
      kind: fc.constantFrom("craft" as const, "salvage" as const),
      name: fc.constantFrom("Smoke eel", "Odd: one", 'With "quotes"', "salvage", "in the way"),
      ticks: fc.nat(100_000),
      fee: fc.constantFrom(0, 2, 0.25),
      rows: fc.array(
        fc.tuple(
          fc.constantFrom("ingredient" as const, "output" as const, "tool" as const, "station" as const),
          fc.nat(names.length - 1),
          amount,
          amount,
          fc.double({ min: 0, max: 1, noNaN: true }),
          fc.option(fc.integer({ min: 1, max: 500 })),
        ),
        { maxLength: 8 },
      ),
      level: fc.option(fc.nat(60)),
      teacher: fc.option(fc.nat(names.length - 1)),
      draws: fc.array(
        fc.record({
          times: fc.integer({ min: 1, max: 9 }),
          nothing: fc
            .nat(2_000_000_000)
            .map((n) => n / 1e6)
            .filter(isWeight),
          entries: fc.array(
            fc.tuple(
              fc.nat(names.length - 1),
              amount,
              amount,
              fc.oneof(fc.integer({ min: 1, max: 9 }), fc.constantFrom(0.1, 0.25)),
            ),
            { minLength: 1, maxLength: 4 },
          ),
        }),
        { maxLength: 2 },
      ),
    })
    .map(({ kind, name, ticks, fee, rows, level, teacher, draws }): Recipe => {
      const items: Item[] = [...stocked.records.item.values()];
      const lines = rows.map(([role, i, a, b, chance, uses]) =>
        role === "station"
          ? line(role, items[i].id)
          : line(
              role,
              items[i].id,
              Math.min(a, b),
              Math.max(a, b),
              role === "tool" ? 1 : Number(chance.toFixed(4)),
              role === "tool" ? uses : null,
            ),
      );
      for (const [g, { times, nothing, entries }] of draws.entries()) {
        const of = toNumber(entries.reduce((t, [, , , w]) => add(t, fromNumber(w)), fromNumber(nothing)));
        for (const [i, a, b, weight] of entries)
          lines.push({
            ...line("output", items[i].id, Math.min(a, b), Math.max(a, b)),
            draw: { group: g + 1, times, weight, of },
          });
      }
      const whole = kind === "salvage" ? [line("ingredient", items[0].id), ...lines] : lines;
      return regroup(
        withDefaults("recipe", {
          id: newId(),
          key: "r",
          name,
          kind,
          ticks,
          fee,
          feeCurrency: fee === 2 ? shells.id : null,
          level,
          taughtBy: teacher === null ? null : items[teacher].id,
          lines: whole,
          status: "ready",
        }),
      );
    });

  it("is read back as the same recipe, and written again as the same line", () => {
    fc.assert(
      fc.property(record, (original) => {
        const text = formatRecipe(around(stocked), original);
        const parsed = parseLine(text, wordsOf(stocked));
        expect(
          parsed.issues.filter((r) => r.severity === "error"),
          text,
        ).toEqual([]);
        const back = recipeFrom(parsed, new NewNames(stocked));
        expect({ ...back, id: original.id, key: original.key }).toEqual(original);
        expect(formatRecipe(around(stocked), back)).toBe(text);
      }),
      { numRuns: 500 },
    );
  });
});

describe("writing lines", () => {
  it("makes one stub for a name that is new in several lines, and free keys for everything", () => {
    const parsed = readLines(
      "1 Eel -> 1 Net float\n\n// a comment\n1 Net float -> 2 Eel\n1 Eel skin -> 1 Eel",
      wordsOf(stocked),
    ).map((l) => l.parsed);
    const next = must(stocked, addRecipes(stocked, parsed));
    expect(next.records.item.size).toBe(stocked.records.item.size + 1);
    expect([...next.records.recipe.values()].map((r) => r.key)).toEqual(["net_float", "eel", "eel_2"]);
    expect([...next.records.item.values()].at(-1)).toMatchObject({ name: "Net float", status: "stub" });
  });

  it("rewrites a recipe with one edit per field that differs", () => {
    const catalogue = kitchen("gather River eel\nSmoke: 2 River eel -> 1 Smoked eel in 90s");
    const before = recipe(catalogue, "Smoke");
    const edits = rewriteRecipe(
      catalogue,
      before,
      parseLine("Smoke: 2 River eel -> 1 Smoked eel in 60s", wordsOf(catalogue)),
    );
    expect(edits).toEqual([{ op: "set", kind: "recipe", id: before.id, field: "ticks", from: 1800, to: 1200 }]);
  });

  it("completes the name at the cursor, also in the middle of a line", () => {
    const completions = new Completions();
    for (const name of names) completions.put(name as Id, name);
    const offers = (text: string) => completions.at(text, text.length)?.names;
    expect(offers("2 Riv")).toEqual(["River eel"]);
    expect(offers("2 River eel + 1 coa")).toEqual(["Coarse salt", "Oilskin coat"]);
    expect(offers("2 River eel -> 1 Eel at smo")).toEqual(["Smoked eel", "Smokehouse"]);
    expect(offers("2 River eel")).toBeUndefined();
    expect(completions.at("1 Sm -> 1 Eel", 4)).toMatchObject({ from: 2, to: 4 });
    completions.take("River eel" as Id);
    completions.put("Coarse salt" as Id, "Bay salt");
    expect(offers("2 Riv")).toBeUndefined();
    expect(offers("2 coa")).toEqual(["Oilskin coat"]);
    // Shorter ones first, and no more than are shown.
    for (let n = 0; n < 30; n++) completions.put(`f${n}` as Id, `Float ${"o".repeat(30 - n)}`);
    expect(completions.at("1 flo", 5, {}, 3)?.names).toEqual(["Float o", "Float oo", "Float ooo"]);
    // Behind per stands a stat, and nothing else.
    const stats = ["Deftness", "Deep water", "Grip"];
    const typed = "1 Eel -> 1 Pearl 5% plus 2% per de";
    expect(completions.at(typed, typed.length, { stats })).toEqual({
      from: typed.length - 2,
      to: typed.length,
      names: ["Deep water", "Deftness"],
    });
    expect(completions.at(`${typed}ftness`, typed.length + 6, { stats })).toBe(null);
  });

  it("writes back what was read, names that are new included, so that a form and a line can be two views of one text", () => {
    for (const line of [
      "2 River eel + 1 Coarse salt -> 2 Smoked eel + 1 Eel skin 40% at Smokehouse using Gutting knife lasting 50 in 90s fee 2 shells",
      "Unpick coat: salvage 1 Oilskin coat -> 1..3 Eel skin",
      "nothing -> 1 Brand new thing",
      '1 Tarred line + 3 "2 by 4" -> 1 "Kelp at dawn" at Smokehouse + Cellar using 2 Gutting knife',
      '"At: last": 1 Eel -> nothing fee 0.5',
      "salvage 1 Wreck crate -> 3 draws { 5: 2 Smoked eel | 3: 1 Brass cleat | 0.5: 1..2 Eel | 1: nothing } + 1 Eel skin using Gutting knife",
      "1 Eel -> 1 draw { 1: 1 Eel skin } level 12 taught by Old chart",
    ]) {
      expect(formatParsed(around(stocked), read(line))).toBe(line);
      expect(formatParsed(around(stocked), read(formatParsed(around(stocked), read(line))))).toBe(line);
    }
    expect(formatParsed(around(stocked), read("2 river eel->smoked_eel in 90"))).toBe(
      "2 River eel -> 1 Smoked eel in 90s",
    );
    expect(formatParsed(around(stocked), read("eel->2 draws{5:2 Eel skin|0.5: nothing|1:nothing}"))).toBe(
      "1 Eel -> 2 draws { 5: 2 Eel skin | 1.5: nothing }",
    );
  });

  it("is written without its name, and lines by themselves", () => {
    const c = kitchen("gather 2..3 Eel\nSmoke: 2 Eel + 1 Salt -> 1 Smoked eel in 30s level 4");
    const smoke = recipe(c, "Smoke");
    const [source] = [...c.records.source.values()];
    expect(formatUnnamed(around(c), smoke)).toBe("2 Eel + 1 Salt -> 1 Smoked eel in 30s level 4");
    expect(formatLines(around(c), smoke.lines)).toBe("2 Eel + 1 Salt -> 1 Smoked eel");
    expect(formatGiven(around(c), source.lines)).toBe("2..3 Eel");
    expect(formatGiven(around(c), [])).toBe("");
  });
});
