/**
 * Costs and trials take the same runs: of random recipes and sources the mean of many rolls is what the network takes a
 * run to be, the mean of the exact chances too, and a roll is refused for what the network needs, and for nothing else.
 */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { expectedOf } from "../analysis/chances";
import type { Catalogue } from "../catalogue/catalogue";
import type { Item, Recipe, Source } from "../kinds/index";
import { type Line, line } from "../notation/line";
import { boxOfLines } from "../network/box";
import { expected } from "../network/expected";
import type { ProcessSpec } from "../network/process";
import { recipeProcesses } from "../network/recipe-processes";
import { sourceProcesses } from "../network/source-processes";
import { useProcesses } from "../network/use-processes";
import { linesFor, makerOf } from "../process/maker";
import { fuelOf, tagOf, vesselIn } from "../process/node";
import type { Id } from "../schema/id";
import { idOf, tried, withMore, withUses } from "../testing/tryout";
import { distributionOf } from "./chance-box";
import { make, makingProblem, run } from "./craft";
import { Play } from "./play";
import { buy } from "./shop";

const ROLLS = 20_000;
const PLENTY = 1e6;
const SECOND = 10;
const [fish, oven, peaty, shells, deft] = ["fish", "oven", "peaty", "shells", "Deftness"].map(idOf);

interface World {
  readonly recipe: Partial<Recipe>;
  readonly source: Partial<Source>;
  /** What is taken for any fish, and at which station any oven is. */
  readonly member: "Bass" | "Potted eel";
  readonly station: "Fine oven" | null;
}

const range = fc.constantFrom([1, 1], [2, 2], [1, 3], [0.5, 1.5], [0.25, 0.5], [2, 2.5]);
const chance = fc.constantFrom(1, 1, 0.5, 0.1);
const named = (role: Line["role"], ...names: readonly string[]) =>
  fc
    .tuple(fc.constantFrom(...names), range, chance)
    .map(([name, [min, max], p]) => line(role, idOf(name), min, max, p));
const anyOf = (role: Line["role"], tag: Id, min = 1, max = min): Line => {
  const { item: _, ...rest } = line(role, tag, min, max);
  return { ...rest, any: tag };
};
const apart = { selector: (l: Line) => l.item } as const;
const taken = fc.uniqueArray(named("ingredient", "Kelp", "Salt", "Tar pot", "Peat"), { maxLength: 3, ...apart });
const whole = fc.boolean();
const tool = fc
  .tuple(fc.constantFrom("Knife", "Cased saw"), fc.constantFrom(1, 2), fc.constantFrom(null, 3, 10))
  .map(([name, n, uses]) => line("tool", idOf(name), n, n, 1, uses));
const drawn = fc.tuple(fc.constantFrom(1, 3), range, range).map(([times, one, other]) => {
  const draw = { group: 1, times, of: 10 };
  return [
    { ...line("output", idOf("Shell"), one[0], one[1]), draw: { ...draw, weight: 3 } },
    { ...line("output", idOf("Cork"), other[0], other[1]), draw: { ...draw, weight: 5 } },
  ];
});
const given = fc
  .tuple(
    fc.uniqueArray(named("output", "Pie", "Broth", "Kelp", "Cinder"), { minLength: 1, maxLength: 3, ...apart }),
    fc.option(drawn, { freq: 2, nil: [] }),
    fc.constantFrom(undefined, 0.02, -0.03),
  )
  .map(([all, more, share]): Line[] => [
    ...all.map((l, k) => (k === 0 && share ? { ...l, bonus: { share, stat: deft } } : l)),
    ...more,
  ]);
const tables = fc.constantFrom([], [{ table: idOf("Finds"), times: 2 }]);
const fee = fc.constantFrom({}, { fee: 2, feeCurrency: shells });
const station = fc.constantFrom([], [line("station", idOf("Fine oven"))], [anyOf("station", oven)]);
const asksFish = fc.option(
  range.map(([min, max]) => anyOf("ingredient", fish, min, max)),
  { freq: 2, nil: null },
);
const recipe = fc
  .record({ taken, whole, tool: fc.option(tool, { nil: null }), given, station, asksFish, fee, tables })
  .chain((parts) =>
    fc
      .record({
        ticks: fc.constantFrom(0, 90),
        heat: fc.constantFrom(0, 50, 330),
        batch: fc.constantFrom(null, null, 4),
        level: fc.constantFrom(null, 3),
        taughtBy: fc.constantFrom(null, idOf("Notes")),
      })
      .map((clauses) => ({
        ...clauses,
        ...parts.fee,
        tables: parts.tables,
        lines: [
          ...parts.taken.map((l) => (parts.whole ? { ...l, whole: true } : l)),
          ...(parts.asksFish ? [parts.asksFish] : []),
          ...(parts.tool ? [parts.tool] : []),
          ...parts.station,
          ...parts.given,
        ] as Line[],
      })),
  );
const source = fc
  .tuple(given, tables, fc.constantFrom(0, 40), fc.constantFrom(0, 3))
  .map(([lines, from, ticks, price]) => ({ lines, tables: from, ticks, price, currency: price ? shells : null }));
const world: fc.Arbitrary<World> = fc.record({
  recipe,
  source,
  member: fc.constantFrom("Bass", "Potted eel"),
  station: fc.constantFrom("Fine oven", null),
});

const pantryOf = (of: World): Catalogue =>
  tried(
    {
      stat: { Deftness: { maker: 10 } },
      currency: { shells: {} },
      tag: { fish: {}, oven: {}, peaty: {} },
      item: {
        ...Object.fromEntries(
          ["Kelp", "Salt", "Pie", "Broth", "Shell", "Cork", "Cinder", "Crock", "Pot"].map((n) => [n, {}]),
        ),
        "Tar pot": { vessel: idOf("Pot") },
        Bass: { tags: [fish] },
        "Potted eel": { tags: [fish], vessel: idOf("Crock") },
        Knife: {},
        Case: {},
        "Cased saw": { vessel: idOf("Case") },
        "Plain oven": { tags: [oven] },
        "Fine oven": { tags: [oven], pace: 0.5, extra: 0.25, fuel: peaty },
        Peat: { tags: [peaty], burns: 20 * SECOND, ash: idOf("Cinder"), ashes: 0.5 },
        Notes: {},
      },
      table: {
        Finds: {
          always: [{ what: { is: "item", item: idOf("Shell") }, min: 1, max: 2, from: null, to: null }],
          chances: [{ chance: 0.3, what: { is: "item", item: idOf("Cork") }, min: 2, max: 2, from: null, to: null }],
        },
      },
      recipe: { Cook: of.recipe },
      source: { Wrack: of.source },
      subject: { Mara: { level: 5, stats: { [deft]: "10" } } },
    } as Parameters<typeof tried>[0],
    { ticksPerSecond: SECOND },
  );

const usable = tried(
  {
    currency: { shells: {}, marks: { worth: 4 } },
    item: Object.fromEntries(["Crate", "Kelp", "Salt", "Shell", "Cork", "Rope", "Crock"].map((n) => [n, {}])),
    table: {
      Finds: {
        always: [{ what: { is: "item", item: idOf("Shell") }, min: 1, max: 2, from: null, to: null }],
        draws: [
          {
            times: 2,
            back: true,
            entries: [
              { weight: 1, what: { is: "item", item: idOf("Cork") }, min: 1, max: 3, from: null, to: null },
              { weight: 4, what: { is: "nothing" }, min: 1, max: 1, from: null, to: null },
            ],
          },
        ],
      },
    },
    subject: { Mara: { level: 5 } },
  } as Parameters<typeof tried>[0],
  { ticksPerSecond: SECOND },
);
const effect = fc.constantFrom(
  "gives 2 Rope",
  "35% gives Rope",
  "draws 2 from Finds",
  "10% draws from Finds",
  "takes 3 Kelp",
  "50% takes 2 Salt",
  "charges 4 shells",
  "25% charges 2 shells",
);
const fate = fc.constantFrom(
  "used up",
  "3 used up",
  "lasts 4 uses",
  "kept",
  "used up, leaves Crock",
  "lasts 4 uses, leaves Crock",
);
const useLine = fc
  .tuple(fc.uniqueArray(effect, { minLength: 1, maxLength: 5 }), fate)
  .map(([effects, becomes]) => `Open: ${[...effects, becomes].join(", ")}`);
const ware = fc.record({
  item: fc.constantFrom(idOf("Rope"), idOf("Crock")),
  amount: fc.constantFrom(1, 3, 0.5),
  price: fc.constantFrom(0, 2, 7.5),
  currency: fc.constant(null),
  stock: fc.constantFrom(null, 1, 4),
  restock: fc.constant(null),
  level: fc.constantFrom(null, 3),
});

/** The one process that this world's bag leads to. */
function specOf(catalogue: Catalogue, { member, station: at }: World): ProcessSpec {
  const vessel = member === "Bass" ? null : idOf("Crock");
  const { recipe: recipes } = catalogue.records;
  const cook = recipes.get(idOf("Cook")) as Recipe;
  const anyOven = cook.lines.some((l) => l.any === oven);
  const fits = recipeProcesses(cook, catalogue).filter(
    (spec) =>
      !spec.chosen?.length &&
      spec.lines.every(({ item }) => tagOf(item) !== fish || vesselIn(item) === vessel) &&
      spec.lines.every((l) => l.role !== "station" || !anyOven || (tagOf(l.item) === null) === (at !== null)),
  );
  expect(fits).toHaveLength(1);
  return fits[0];
}
/** What one run of a process changes, on average; a tag is the member, heat is peat. */
function changesOf(spec: ProcessSpec, member: string): Map<Id, number> {
  const sums = new Map<Id, number>();
  const add = (id: Id, n: number) => sums.set(id, (sums.get(id) ?? 0) + n);
  for (const l of spec.lines) {
    const n = expected(l) * (l.role === "output" ? 1 : -1);
    if (fuelOf(l.item) !== undefined) {
      add(idOf("Peat"), n / 20);
      add(idOf("Cinder"), (-n / 20) * 0.5);
    } else add(tagOf(l.item) === null ? l.item : idOf(member), n);
  }
  return sums;
}

/** All that a recipe could take, in plenty; of what can stand for another only one. */
const kitFor = ({ member, station: at }: World): { [id: Id]: number } => {
  const all = ["Kelp", "Salt", "Tar pot", "Knife", "Cased saw", "Peat", "Notes", member, ...(at ? [at] : [])];
  return Object.fromEntries(all.map((name) => [idOf(name), PLENTY]));
};
function playIn(catalogue: Catalogue, kit: { readonly [id: Id]: number }, level = 5, purse = PLENTY): Play {
  const mara = catalogue.records.subject.get(idOf("Mara"));
  if (!mara) throw new Error("Nobody plays.");
  return new Play(catalogue, { subject: { ...mara, level, kit, money: { [shells]: purse } }, supplied: true, seed: 7 });
}
const amountsIn = (play: Play): Map<Id, number> => {
  const all = new Map<Id, number>(play.bag.money);
  for (const { item, count, slots } of play.bag.stacks) all.set(item, (all.get(item) ?? 0) + count * slots);
  return all;
};

/** Rolls many times and holds the mean of every change against what is expected, within its confidence interval. */
function agrees(
  play: Play,
  once: () => { readonly ok: boolean },
  changes: ReadonlyMap<Id, number>,
  ticks: number,
): void {
  const sums = new Map<Id, { sum: number; squares: number }>();
  let before = amountsIn(play);
  for (let k = 0; k < ROLLS; k++) {
    const outcome = once();
    if (!outcome.ok) throw new Error(JSON.stringify(outcome));
    const after = amountsIn(play);
    for (const id of new Set([...before.keys(), ...after.keys()])) {
      const by = (after.get(id) ?? 0) - (before.get(id) ?? 0);
      const there = sums.get(id) ?? { sum: 0, squares: 0 };
      sums.set(id, { sum: there.sum + by, squares: there.squares + by * by });
    }
    before = after;
  }
  for (const id of new Set([...sums.keys(), ...changes.keys()])) {
    const { sum, squares } = sums.get(id) ?? { sum: 0, squares: 0 };
    const found = sum / ROLLS;
    const error = Math.sqrt(Math.max(0, squares / ROLLS - found * found) / ROLLS);
    // What wears out, burns or goes in batches comes in steps: one step more or less is left at the end.
    expect(Math.abs(found - (changes.get(id) ?? 0)), `${id}: ${found}, ${changes.get(id)}`).toBeLessThan(
      5 * error + 5 / ROLLS + 1e-6,
    );
  }
  expect(play.tick / ROLLS).toBeCloseTo(ticks, 2);
}

const runs = { numRuns: Number(process.env.WORLDS ?? 5), seed: Number(process.env.SEED ?? 3) };

describe("what a run is", () => {
  it("to costs is what it is when it is rolled, for recipes and sources", () => {
    fc.assert(
      fc.property(world, (of) => {
        const catalogue = pantryOf(of);
        const spec = specOf(catalogue, of);
        const changes = changesOf(spec, of.member);
        if (spec.currency !== null) changes.set(spec.currency, -spec.price);
        const play = playIn(catalogue, kitFor(of));
        const cook = catalogue.records.recipe.get(idOf("Cook")) as Recipe;
        agrees(play, () => make(play, cook), changes, spec.ticks);

        const wrack = catalogue.records.source.get(idOf("Wrack")) as Source;
        const [gathered] = sourceProcesses(wrack, catalogue);
        const found = changesOf(gathered, of.member);
        if (gathered.currency !== null) found.set(gathered.currency, -gathered.price);
        const other = playIn(catalogue, {});
        agrees(other, () => run(other, wrack), found, gathered.ticks);
      }),
      runs,
    );
  }, 300_000);

  it("to costs is what it is when it is used, and what is bought is what costs take a ware to be", () => {
    fc.assert(
      fc.property(fc.tuple(useLine, ware), ([text, sold]) => {
        const catalogue = withUses(
          withMore(usable, { source: { Chandler: { kind: "shop", currency: shells, wares: [sold] } } }),
          {
            Crate: [text],
          },
        );
        const crate = catalogue.records.item.get(idOf("Crate")) as Item;
        const kit = { [crate.id]: PLENTY, [idOf("Kelp")]: PLENTY, [idOf("Salt")]: PLENTY };
        const play = playIn(catalogue, kit);
        const specs = useProcesses(crate, catalogue);
        const changes = new Map<Id, number>();
        for (const spec of specs) {
          for (const [id, n] of changesOf(spec, "Bass")) changes.set(id, n);
          if (spec.currency !== null) changes.set(spec.currency, -spec.price);
        }
        // A use that neither gives nor leaves anything is no way to have something.
        if (specs.length) agrees(play, () => play.use(crate.id), changes, specs[0].ticks);
        else expect(text).not.toMatch(/gives|draws/);

        const shop = catalogue.records.source.get(idOf("Chandler")) as Source;
        const [offer] = sourceProcesses(shop, catalogue).filter((spec) => spec.ware);
        const buyer = playIn(catalogue, {}, offer.level);
        expect(buy(buyer, sold.item, sold.amount, shop)).toEqual({ ok: true });
        expect(buyer.bag.count(sold.item)).toBeCloseTo(changesOf(offer, "Bass").get(sold.item) ?? Number.NaN, 12);
        expect(PLENTY - (buyer.bag.money.get(shells) ?? 0)).toBeCloseTo(offer.price, 9);
        if (offer.level > 0) expect(buy(playIn(catalogue, {}, offer.level - 1), sold.item, 1, shop).ok).toBe(false);
        if (offer.limit !== undefined)
          for (let k = 1; k <= offer.limit; k++)
            expect(buy(buyer, sold.item, sold.amount, shop).ok, `${k} of ${offer.limit}`).toBe(k < offer.limit);
      }),
      runs,
    );
  }, 300_000);

  it("by its exact chances is on average what it is to costs", () => {
    fc.assert(
      fc.property(world, (of) => {
        const catalogue = pantryOf(of);
        const { table } = catalogue.records;
        const wrack = catalogue.records.source.get(idOf("Wrack")) as Source;
        const changes = changesOf(sourceProcesses(wrack, catalogue)[0], of.member);
        const box = boxOfLines(linesFor(wrack.lines, makerOf(catalogue)), wrack.tables);
        for (const [id, n] of changes)
          expect(expectedOf(distributionOf(box, `item:${id}`, table, 5))).toBeCloseTo(n, 12);
      }),
      { numRuns: 60, seed: 5 },
    );
  });

  it("is refused for exactly what costs need", () => {
    fc.assert(
      fc.property(world, (of) => {
        const catalogue = pantryOf(of);
        const cook = catalogue.records.recipe.get(idOf("Cook")) as Recipe;
        const spec = specOf(catalogue, of);
        const least = new Map<Id, number>(of.station ? [[idOf(of.station), 1]] : []);
        for (const l of spec.lines) {
          if (l.role !== "ingredient" && l.role !== "tool") continue;
          // Heat is of a whole batch, and a fuel burns as a whole.
          const isHeat = fuelOf(l.item) !== undefined;
          const id = isHeat ? idOf("Peat") : tagOf(l.item) === null ? l.item : idOf(of.member);
          const n = isHeat ? Math.ceil((l.max * (spec.batch ?? 1)) / 20) : l.max;
          least.set(id, (least.get(id) ?? 0) + n);
        }
        for (const id of spec.needs) least.set(id, 1);
        const problem = (kit: ReadonlyMap<Id, number>, level = spec.level, purse = spec.price) =>
          makingProblem(playIn(catalogue, Object.fromEntries(kit), level, purse), cook);
        expect(problem(least)).toBeNull();
        for (const [id, n] of least)
          if (id !== idOf("Fine oven"))
            expect(problem(new Map([...least, [id, spec.needs.includes(id) ? 0 : n - 0.01]]))).not.toBeNull();
        if (spec.level > 0) expect(problem(least, spec.level - 1)).toMatch(/needs level/);
        if (spec.currency !== null) expect(problem(least, spec.level, spec.price - 1)).toMatch(/shells/);
      }),
      { numRuns: 300, seed: 11 },
    );
  });
});
