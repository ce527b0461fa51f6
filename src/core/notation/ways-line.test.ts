/** Variants, patterns, combinations, heat, vessels and tables in the line: read as they are written, and refused with a place. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { emptyCatalogue } from "../catalogue/catalogue";
import type { Edit } from "../catalogue/edit";
import { around } from "../catalogue/surroundings";
import { recipeFrom, wordsOf } from "../editing/recipes";
import { NewNames } from "../editing/new-names";
import { type Recipe, withDefaults } from "../kinds/index";
import { same } from "../schema/json";
import { newId } from "../schema/id";
import { must, newItem, pantry, shells } from "../testing/kitchen";
import { formatParsed, formatRecipe } from "./format";
import type { Line, Variant } from "./line";
import { parseLine } from "./parser";
import { cellAt, NO_GRID, PAIR } from "./places";

// Names that are words of the language, signs, and parts of each other.
const names = [
  "Rope",
  "Tar",
  "Rope ladder",
  "Kept",
  "Whole cloth",
  "Burning oil",
  "Pattern book",
  "A, B",
  "Knife [old]",
  "Table",
];
const tags = ["fish", "whole", "ordered goods"];
const tables = ["Wreck finds", "Surf"];
const stats = ["Deftness", "Sea legs", "per cent"];
const catalogue = must(emptyCatalogue(pantry()), [
  { op: "add", kind: "currency", record: shells },
  ...names.map((name): Edit => ({ op: "add", kind: "item", record: newItem(name) })),
  ...tags.map(
    (name, n): Edit => ({
      op: "add",
      kind: "tag",
      record: withDefaults("tag", { id: newId(), key: `tag_${n}`, name }),
    }),
  ),
  ...stats.map(
    (name, n): Edit => ({
      op: "add",
      kind: "stat",
      record: withDefaults("stat", { id: newId(), key: `stat_${n}`, name }),
    }),
  ),
  ...tables.map(
    (name, n): Edit => ({
      op: "add",
      kind: "table",
      record: withDefaults("table", { id: newId(), key: `table_${n}`, name }),
    }),
  ),
]);
const items = [...catalogue.records.item.keys()];
const statIds = [...catalogue.records.stat.keys()];
const tagIds = [...catalogue.records.tag.keys()];
const tableIds = [...catalogue.records.table.keys()];
const read = (line: string) => parseLine(line, wordsOf(catalogue));
const brief = (line: string) => {
  const parsed = read(line);
  return parsed.ok
    ? formatParsed(around(catalogue), parsed)
    : parsed.issues.find((i) => i.severity === "error")?.message;
};

const item = fc.constantFrom(...items);
const quantity = fc.constantFrom(1, 2, 0.5);
const plain = (role: "ingredient" | "output" | "station" | "tool") =>
  fc
    .record({
      item,
      n: quantity,
      whole: fc.boolean(),
      any: fc.option(fc.constantFrom(...tagIds)),
      chance: fc.constantFrom(1, 1, 0.25, 0),
      bonus: fc.option(fc.record({ share: fc.constantFrom(0.02, -0.005, 1), stat: fc.constantFrom(...statIds) })),
    })
    .map(
      ({ item: of, n, whole, any, chance, bonus }): Line =>
        ({
          role,
          ...(any && role !== "output" ? { any } : { item: of }),
          min: role === "station" ? 1 : n,
          max: role === "station" ? 1 : n,
          chance: role === "output" && (chance > 0 || (bonus?.share ?? 0) > 0) ? chance : 1,
          ...(role === "output" && bonus && (bonus.share < 0 || chance < 1) ? { bonus } : {}),
          uses: role === "tool" && n === 2 ? 40 : null,
          ...(whole && role === "ingredient" && !any ? { whole } : {}),
        }) as Line,
    );
const some = (role: Parameters<typeof plain>[0], least = 0) =>
  fc.array(plain(role), { minLength: least, maxLength: 2 });
const variant = fc
  .record({
    name: fc.constantFrom("", "Fine", "At last"),
    lines: fc.tuple(some("ingredient"), some("output"), some("station"), some("tool")).map((all) => all.flat()),
    ticks: fc.option(fc.constantFrom(0, 20, 600)),
    heat: fc.option(fc.constantFrom(0, 40)),
    batch: fc.option(fc.constantFrom(1, 12)),
    fee: fc.option(fc.constantFrom(0, 2)),
    paid: fc.boolean(),
    level: fc.option(fc.nat(20)),
    taughtBy: fc.option(item),
  })
  .map(({ paid, ...v }): Variant => ({ ...v, feeCurrency: v.fee !== null && v.fee > 0 && paid ? shells.id : null }))
  .filter(({ name: _, feeCurrency: __, ...v }) =>
    Object.values(v).some((x) => (Array.isArray(x) ? x.length : x !== null)),
  );

/** Things in a grid: each with its own bits, so that no two stand in one place. */
const placed = fc
  .array(fc.option(fc.tuple(fc.nat(items.length - 1), fc.boolean())), { minLength: 1, maxLength: 9 })
  .map((cells) => {
    const lines: Line[] = [];
    for (const [k, cell] of cells.entries()) {
      if (!cell) continue;
      const [of, kept] = cell;
      const role = kept ? ("tool" as const) : ("ingredient" as const);
      const bit = cellAt(Math.floor(k / 3), k % 3);
      const there = lines.findIndex((l) => l.item === items[of] && l.role === role);
      const cellsOf = (there < 0 ? 0 : (lines[there].cells ?? 0)) | bit;
      const n = there < 0 ? 1 : lines[there].min + 1;
      const line: Line = { role, item: items[of], min: n, max: n, chance: 1, uses: null, cells: cellsOf };
      if (there < 0) lines.push(line);
      else lines[there] = line;
    }
    return { lines, width: Math.min(3, cells.length), height: Math.ceil(cells.length / 3) };
  })
  .filter(({ lines }) => lines.length > 0);

const base = fc.record({
  name: fc.constantFrom("Own", "pattern", "A | B", "With [brackets]"),
  ticks: fc.constantFrom(0, 90),
  heat: fc.constantFrom(0, 1200),
  batch: fc.option(fc.constantFrom(2, 50)),
  outputs: some("output", 1),
  rest: fc.tuple(some("station"), some("tool")).map((all) => all.flat()),
  tables: fc.array(fc.record({ table: fc.constantFrom(...tableIds), times: fc.constantFrom(1, 3) }), { maxLength: 2 }),
  variants: fc.array(variant, { maxLength: 3 }),
  lies: fc.record({ shifted: fc.boolean(), mirrored: fc.boolean(), turned: fc.boolean() }),
});
const recipe = fc.oneof(
  fc.tuple(base, some("ingredient")).map(([b, taken]) => ({ ...b, kind: "craft" as const, grid: NO_GRID, taken })),
  fc.tuple(base, placed, some("ingredient")).map(([b, { lines, width, height }, loose]) => ({
    ...b,
    kind: "pattern" as const,
    grid: { width, height, ...b.lies },
    taken: [...lines, ...loose],
  })),
  fc.tuple(base, fc.nat(items.length - 1), fc.nat(items.length - 1), fc.nat(2)).map(([b, one, two, kept]) => ({
    ...b,
    kind: "combine" as const,
    grid: { ...NO_GRID, width: 2, height: 1, mirrored: b.lies.mirrored },
    taken: [one, two].map(
      (of, k): Line => ({
        role: kept === k + 1 ? "tool" : "ingredient",
        item: items[of],
        min: 1,
        max: 1,
        chance: 1,
        uses: null,
        cells: PAIR[k],
      }),
    ),
  })),
);

describe("the line of every way", () => {
  it("is read back as the recipe that was written, whatever it says", () => {
    const kinds = new Set<string>();
    fc.assert(
      fc.property(recipe, ({ taken, outputs, rest, lies: _, ...of }) => {
        const original: Recipe = withDefaults("recipe", {
          id: newId(),
          key: "own",
          ...of,
          lines: [...taken, ...outputs, ...rest],
        });
        const line = formatRecipe(around(catalogue), original);
        const parsed = parseLine(line, wordsOf(catalogue));
        expect(
          parsed.issues.filter((i) => i.severity !== "note"),
          line,
        ).toEqual([]);
        const back = recipeFrom(parsed, new NewNames(catalogue));
        const { name, kind, grid, ticks, heat, batch, tables: from, variants } = back;
        expect(
          {
            name,
            kind,
            grid,
            ticks,
            heat,
            batch,
            from,
            variants: variants.map((v) => ({ ...v, lines: byRole(v.lines) })),
          },
          line,
        ).toEqual({
          name: original.name,
          kind: original.kind,
          grid: original.grid,
          ticks: original.ticks,
          heat: original.heat,
          batch: original.batch,
          from: original.tables,
          variants: original.variants.map((v) => ({ ...v, lines: byRole(v.lines) })),
        });
        expect(same(byRole(back.lines), byRole(original.lines)), line).toBe(true);
        expect(formatRecipe(around(catalogue), { ...back, name: original.name })).toBe(line);
        kinds.add(`${kind}${variants.length > 0}`);
      }),
      { numRuns: 1500 },
    );
    expect(kinds.size).toBe(6);
  });

  it("says what is wrong where it is wrong", () => {
    for (const [line, message] of [
      ["combine Rope -> 1 Tar", "A combination takes two items, joined by +."],
      ["combine 2 Rope + Tar -> 1 Tar", "A place has exactly one item. Leave out amounts and chances."],
      ["combine Rope + Tar + Tar -> 1 Tar", "A combination takes two items, joined by +."],
      ["pattern [Rope, Tar -> 1 Tar", "or ] to end the pattern"],
      ["pattern Rope -> 1 Tar", "Expected a pattern in brackets"],
      ["pattern [Rope Tar] -> 1 Tar", "Separate the items of a pattern with a comma."],
      ["pattern [Rope,,Tar] -> 1 Tar", "Expected an item, or - for nothing."],
      ["pattern [Rope, Rope, Rope, Rope, Rope, Rope] -> 1 Tar", "at most 5 rows of 5 places"],
      ["pattern [Rope; Rope; Rope; Rope; Rope; Rope] -> 1 Tar", "at most 5 rows of 5 places"],
      ["1 Rope -> 1 Tar |", "A variant changes something: a tool, station, amount, time, fee or level."],
      [
        "1 Rope -> 1 Tar | using nothing",
        "A variant can't drop what its recipe needs. Write the recipe without it and add it in a variant.",
      ],
      ["1 Rope -> 1 Tar ordered", "Only combinations have an order: combine Flint + Brass file -> 1 Spark ordered."],
      ["1 Rope -> 1 Tar kept", "Only certain inputs can be kept"],
      ["1 any fish whole -> 1 Tar", "Only a named ingredient can be taken whole"],
      ["1 Rope -> 2 table Nowhere", "Expected the name of a drop table"],
      ["1 Rope -> 1 Tar | -> 1 table Surf", "uses the drop tables of its recipe"],
      ["1 Rope -> 1 Tar burning soon", "Expected a duration"],
      ["1 Rope or Tar -> 1 Log", "For one of several items, use “any”"],
      ["1 Rope -> 1 Tar at Rope or Tar", "For one of several items, use “any”"],
      ["1 Rope and Tar -> 1 Log", "Join them with +."],
      ["1 Rope -> 1 Tar 5% plus 2%", "Expected “per” and a stat"],
      ["1 Rope -> 1 Tar 5% plus 2% per Courage", "Expected a stat after “per”"],
      ["1 Rope -> 1 Tar 5% per Deftness", "“per” follows a chance"],
      ["1 Rope -> 1 Tar 5% plus 0% per Deftness", "more than 0% and at most 100%"],
      ["1 Rope 5% plus 2% per Deftness -> 1 Tar", "Only outputs can depend"],
      ["1 Rope -> draw { 1: Tar plus 2% per Deftness | 1: nothing }", "have a weight, not a chance"],
      ["1 Rope -> 1 Tar batch 1.5", "Expected how many are made at once"],
      ["1 Rope -> 1 Tar batch", "Expected how many are made at once"],
      ["1 Rope | 1 Tar", "Expected -> and the outputs"],
      ["1 Rope -> 1 Tar | -> 2 Tar -> 3 Tar", "only one ->"],
    ])
      expect(brief(line), line).toContain(message);
  });

  it("takes what people type, and writes it the one way", () => {
    expect(brief("1 Kept kept + 2 Rope -> 1 Tar")).toBe('2 Rope -> 1 Tar using "Kept"'.replace('"Kept"', '"Kept"'));
    expect(brief("PATTERN [ rope ,rope;tar,. ] Mirrored => 1 Rope ladder")).toBe(
      "pattern [Rope, Rope; Tar, -] mirrored -> 1 Rope ladder",
    );
    expect(brief("combine rope + tar KEPT -> tar ORDERED in 1 min")).toBe(
      "combine Rope + Tar kept -> 1 Tar ordered in 60s",
    );
    expect(brief("1 Rope -> 2 Tar | USING Tar → 3 Tar in 5 sec | level 4")).toBe(
      "1 Rope -> 2 Tar | -> 3 Tar using Tar in 5s | level 4",
    );
    expect(brief("1 Rope -> 1 Tar 5% + 2% per deftness BATCH 12")).toBe(
      "1 Rope -> 1 Tar 5% plus 2% per Deftness batch 12",
    );
    expect(brief("1 Rope -> 1 Tar 30 % -0,5% per Sea legs + 2 Rope batch 1")).toBe(
      "1 Rope -> 1 Tar 30% minus 0.5% per Sea legs + 2 Rope",
    );
    expect(brief("1 Rope -> table surf + 1,5 Tar")).toBe("1 Rope -> 1.5 Tar + table Surf");
  });

  it("ends in an answer for anything that is made of its words", () => {
    const word = fc.constantFrom(
      ..."[ ] ; , - | -> + : pattern combine salvage ordered kept whole shifted turned burning using at in table any 2 5% Rope Tar fish plus minus per Deftness batch".split(
        " ",
      ),
    );
    fc.assert(
      fc.property(fc.array(word, { maxLength: 22 }), (words) => {
        const line = words.join(" ");
        const parsed = read(line);
        if (!parsed.ok) return parsed.issues.some((i) => i.severity === "error");
        const written = formatParsed(around(catalogue), parsed);
        const again = read(written);
        expect(again.ok, `${line}\n${written}`).toBe(true);
        expect(formatParsed(around(catalogue), again), line).toBe(written);
        return true;
      }),
      { numRuns: 4000 },
    );
  });
});

const ORDER = ["ingredient", "output", "station", "tool"];
/** Lines in the order in which they are written. */
const byRole = (lines: readonly Line[]) =>
  lines
    .map((l) => JSON.stringify(Object.entries(l).sort(([a], [b]) => (a < b ? -1 : 1))))
    .sort(
      (a, b) =>
        ORDER.findIndex((r) => a.includes(`"${r}"`)) - ORDER.findIndex((r) => b.includes(`"${r}"`)) || (a < b ? -1 : 1),
    );
