import { describe, expect, it } from "vitest";
import { solve } from "yalps";
import { recipeProcesses } from "../network/recipe-processes";
import { sourceProcesses } from "../network/source-processes";
import { netYield } from "../network/expected";
import type { ProcessSpec } from "../network/process";
import { seeded } from "../numbers/seeded";
import { toNumber } from "../numbers/fraction";
import { randomPantry } from "../testing/random";
import { at, read } from "../testing/told";
import { planFor } from "./plan";
import { type Readings, readingsOf } from "./readings";
import { steadyCost } from "./steady";

const reused = (r: Readings, name: string) => steadyCost(r, "value", at(r, name))?.cost;
const plain = (r: Readings, name: string) => r.value.cost[at(r, name)];

describe("what one more costs where everything that comes back is used again", () => {
  const CANTEEN = "buy Cap for 2\nbuy Canteen for 8\n";
  const FILL = "Fill: 1 Canteen -> 1 Full canteen\n";

  it("is the same however it is written that a canteen comes back", () => {
    const ways = [
      `${CANTEEN}${FILL}Cook: 3 Cap + 1 Full canteen -> 1 Soup + 1 Canteen`,
      `${CANTEEN}${FILL}set Full canteen vessel = Canteen\nCook: 3 Cap + 1 Full canteen -> 1 Soup`,
      `${CANTEEN}${FILL}Cook: 3 Cap -> 1 Soup using Full canteen`,
      `${CANTEEN}${FILL}Full canteen are water\nset Full canteen vessel = Canteen\nCook: 3 Cap + 1 any water -> 1 Soup`,
      `${CANTEEN}Cook: 3 Cap + 1 Canteen -> 1 Soup + 1 Canteen`,
    ];
    for (const way of ways) expect(reused(read(way), "Soup"), way).toBeCloseTo(6, 9);
    expect(plain(read(ways[0]), "Soup")).toBe(14);
  });

  it("counts what is used up for good: an hour of light is the oil of six fillings", () => {
    const r = read(
      "buy Oil for 3\nbuy Lamp for 20\nFill: 1 Lamp + 1 Oil -> 1 Lit lamp\nBurn: 1 Lit lamp -> 10 Light + 1 Lamp\nWork: 60 Light -> 1 Hour",
    );
    expect(reused(r, "Hour")).toBeCloseTo(18, 9);
    expect(plain(r, "Hour")).toBe(6 * 23);
  });

  it("gives nothing for what no one uses", () => {
    const r = read("buy Eel for 10\nbuy Skin for 3\nGut: 1 Eel -> 1 Fillet + 1 Skin");
    expect([reused(r, "Fillet"), plain(r, "Fillet")]).toEqual([10, 10]);
    // Where the skin is used as well, it need not be bought.
    const both = read(
      "buy Eel for 10\nbuy Skin for 3\nGut: 1 Eel -> 1 Fillet + 1 Skin\nWrap: 1 Fillet + 1 Skin -> 1 Roll",
    );
    expect([plain(both, "Roll"), reused(both, "Roll")]).toEqual([13, 10]);
    // And what is left over then is bought for no more than the rest needs.
    const half = read(
      "buy Eel for 10\nbuy Skin for 3\nGut: 1 Eel -> 1 Fillet + 2 Skin 25%\nWrap: 1 Fillet + 1 Skin -> 1 Roll",
    );
    expect(reused(half, "Roll")).toBeCloseTo(10 + 0.5 * 3, 9);
  });

  it("chooses another way where that uses what comes back", () => {
    const r = read(
      "buy Wax for 5\nbuy Comb for 7\nDrip: 1 Comb -> 1 Candle wax + 1 Honey\nMelt: 1 Wax -> 1 Candle wax\nbuy Honey for 4\nSet: 1 Candle wax + 1 Honey -> 1 Mead light",
    );
    expect([plain(r, "Mead light"), reused(r, "Mead light")]).toEqual([9, 7]);
  });

  it("is nothing where there is nothing to pay, and not known of what can't be had", () => {
    const r = read(
      "gather Reed\nWeave: 1 Reed -> 1 Mat + 1 Straw\nThatch: 1 Mat + 1 Straw -> 1 Roof\n1 Ghost -> 1 Sheet",
    );
    expect(reused(r, "Roof")).toBe(0);
    expect(steadyCost(r, "value", at(r, "Sheet"))).toBe(null);
  });

  it("is not computed where too much takes part, and takes no room for it", () => {
    const many = Array.from({ length: 900 }, (_, k) => `Boil${k}x: 1 Brine${k}x -> 1 Brine${k + 1}x + 1 Bittern`);
    const r = read(`buy Brine0x for 1\n${many.join("\n")}\nMix: 1 Brine900x + 1 Bittern -> 1 Tonic`);
    const before = process.memoryUsage().heapUsed;
    expect(steadyCost(r, "value", at(r, "Tonic"))).toBeNull();
    // A row for each would take six megabytes.
    expect(process.memoryUsage().heapUsed - before).toBeLessThan(3e6);
  });

  it("is what a plan costs for each of very many", () => {
    const r = read(
      "buy Oil for 3\nbuy Lamp for 20\nFill: 1 Lamp + 1 Oil -> 1 Lit lamp\nBurn: 1 Lit lamp -> 10 Light + 1 Lamp\nWork: 60 Light -> 1 Hour",
    );
    const plan = planFor(r, { make: new Map([[at(r, "Hour"), 500]]) });
    if ("no" in plan) throw new Error("no plan");
    expect(plan.value / 500).toBeCloseTo(reused(r, "Hour") as number, 9);
  });

  it("is what a linear programme over the recipes says, in value and in time, on random pantries", () => {
    let [lower, asked] = [0, 0];
    for (let seed = 1; seed <= 120; seed++) {
      const r = readingsOf(randomPantry(seeded(seed), 4 + (seed % 14)));
      for (const measure of ["value", "time"] as const)
        for (let i = 0; i < r.network.items; i++) {
          const found = steadyCost(r, measure, i);
          const cost = r[measure].cost[i];
          expect(found === null).toBe(!Number.isFinite(cost));
          if (!found) continue;
          const least = oracle(r, measure, i);
          expect(Math.abs(found.cost - least)).toBeLessThan(1e-6 * Math.max(1, least));
          expect(found.cost).toBeLessThanOrEqual(cost * (1 + 1e-12));
          asked++;
          if (found.cost < cost * (1 - 1e-9)) lower++;
        }
    }
    expect(asked).toBeGreaterThan(1000);
    expect(lower).toBeGreaterThan(50);
  });
});

/** The same from the records: every process as a column, every thing as a row. */
function oracle(r: Readings, measure: "value" | "time", item: number): number {
  const { catalogue } = r.compiled;
  const specs: ProcessSpec[] = [
    ...[...catalogue.records.recipe.values()].flatMap((recipe) => recipeProcesses(recipe, catalogue)),
    ...[...catalogue.records.source.values()].flatMap((source) => sourceProcesses(source, catalogue)),
  ].filter((spec) =>
    [...spec.lines.flatMap((l) => (l.role === "output" ? [] : [l.item])), ...spec.needs].every(
      (node) => r.reach.items[r.compiled.numberOf(node) as number],
    ),
  );
  const variables = Object.fromEntries(
    specs.map((spec, k) => {
      const column: { [row: string]: number } = { cost: own(spec) };
      for (const [node, n] of netYield(spec.lines)) column[node] = toNumber(n);
      return [`p${k}`, column];
    }),
  );
  const rows = new Set(specs.flatMap((spec) => [...netYield(spec.lines).keys()]));
  const wanted = r.compiled.nodeOf(item) as string;
  const constraints = Object.fromEntries([...rows].map((node) => [node, { min: node === wanted ? 1 : 0 }]));
  const { status, result } = solve({ direction: "minimize", objective: "cost", constraints, variables });
  if (status !== "optimal") throw new Error(status);
  return result;

  function own({ price, currency, ticks }: ProcessSpec): number {
    const { pantry, records } = catalogue;
    const seconds = ticks / pantry.ticksPerSecond;
    const worth = currency === null ? 1 : (records.currency.get(currency)?.worth ?? 1);
    const { perMoney, perSecond } = r[measure].rules;
    return price * worth * perMoney + seconds * perSecond;
  }
}
