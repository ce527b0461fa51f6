/** A clause is one file and one entry of the list: everything else follows. */
import { describe, expect, it, vi } from "vitest";

vi.mock("./list", async (original) => {
  const { CLAUSES } = await original<typeof import("./list")>();
  const { clause, readWhole } = await import("./clause");
  const { number } = await import("../schema/number");
  const rules = { min: 0, max: 20, whole: true, optional: true } as const;
  const hands = clause({
    word: "hands",
    what: "The hands",
    fields: { hands: number({ ...rules, title: "Hands", help: "How many must pull at once." }) },
    ofVariant: { hands: number(rules) },
    none: "0",
    placeholder: "one",
    read(r) {
      const count = readWhole(r, 0, 20, "how many must pull", "2");
      return count === null ? null : { hands: count };
    },
    write: ({ hands: count }) => (count ? String(count) : null),
    draw: ({ hands: count }) => `${count} hands`,
    run({ hands: count }, terms) {
      terms.ticks /= count ?? 1;
    },
    better: (a, b) => (b.hands ?? 0) - (a.hands ?? 0),
  });
  return { CLAUSES: [...CLAUSES, hands] };
});

const { kitchen, recipe } = await import("../testing/kitchen");
const { around } = await import("../catalogue/surroundings");
const { definition } = await import("../kinds/index");
const { waysOf } = await import("../kinds/ways");
const { formatRecipe } = await import("../notation/format");
const { parseLine } = await import("../notation/parser");
const { words } = await import("../notation/parsed");
const { exportBundle } = await import("../exchange/bundle");
const { bundleSchema } = await import("../exchange/schema");
const { compile, processAt } = await import("../network/compile");
const { betterInAny, drawnClauses } = await import("./all");

describe("a clause that is added", () => {
  const line =
    "Haul: 2 Rope -> 1 Net in 60s level 2 hands 4 | Quick: using Winch hands 2 | Alone: using Capstan hands 0";
  const catalogue = kitchen(["gather Rope", "gather Winch", "gather Capstan", line].join("\n"));
  const haul = recipe(catalogue, "Haul");
  const values = waysOf(haul) as unknown as { readonly hands: number | null }[];

  it("is read and written in the line, held to its rules, and is what a variant overrides", () => {
    expect(formatRecipe(around(catalogue), haul)).toBe(line);
    expect(values.map(({ hands }) => hands)).toEqual([4, 2, 0]);
    const wrong = parseLine("2 Rope -> 1 Net hands many", words(around(catalogue)));
    expect(wrong.issues[0].message).toBe("Expected how many must pull: a whole number up to 20, such as 2.");
    const twice = parseLine("2 Rope -> 1 Net hands 2 hands 3", words(around(catalogue)));
    expect(twice.issues[0].message).toBe("The hands appears twice. Keep one.");
    expect(drawnClauses({ ...parseLine(line, words(around(catalogue))) }, around(catalogue))).toContain("4 hands");
    expect(betterInAny(waysOf(haul)[1], haul)).toBe(true);
  });

  it("is a field of the record, of the table of recipes, of the bundle and of its schema", () => {
    expect(definition("recipe").shape.columns.map((c) => c.name)).toContain("hands");
    const bundle = JSON.parse(exportBundle(catalogue)) as {
      recipes: { hands?: number; variants: { hands?: number }[] }[];
    };
    expect([bundle.recipes[0].hands, bundle.recipes[0].variants[0].hands]).toEqual([4, 2]);
    expect(JSON.stringify(bundleSchema())).toContain('"hands"');
  });

  it("counts in what a run takes", () => {
    const compiled = compile(catalogue);
    const ticks = compiled.processesOf("recipe", haul.id).map((p) => processAt(compiled, p).spec.ticks);
    expect(ticks[0] / catalogue.pantry.ticksPerSecond).toBe(15);
  });
});
