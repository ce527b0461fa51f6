import { describe, expect, it } from "vitest";
import { seeded } from "../numbers/seeded";
import { kitchen, recipe } from "../testing/kitchen";
import { expectedOf, perRun, repeated } from "./chances";
import { byChance, chanceOf, outcomes, quantile, runsUntil } from "./outcomes";

const CRATE = kitchen("Break: 1 Crate -> 1..3 Plank + 1 Nail 50% + 2 draws { 5: 2 Rope | 1: 1 Float | 4: nothing } + 1 Lid");
const { lines } = recipe(CRATE, "Break");
const of = (name: string) => [...CRATE.item.values()].find((i) => i.name === name)?.id as string;

describe("what comes by chance", () => {
  it("leaves out what every run gives alike, and what is taken", () => {
    expect(outcomes(lines, 1)?.map((o) => CRATE.item.get(o.item)?.name)).toEqual(["Plank", "Nail", "Rope", "Float"]);
    expect(lines.filter(byChance)).toHaveLength(4);
    const fixed = recipe(kitchen("Boil: 6 Brine -> 3 Salt"), "Boil");
    expect(outcomes(fixed.lines, 1)).toEqual([]);
  });

  it("is told for one run as it is by hand", () => {
    const [plank, nail, rope, float] = outcomes(lines, 1) ?? [];
    expect(plank).toMatchObject({ expected: 2, none: 0, low: 1, middle: 2, high: 3 });
    expect(nail).toMatchObject({ expected: 0.5, none: 0.5, low: 0, middle: 0, high: 1 });
    expect(rope.expected).toBeCloseTo(2, 12);
    expect(rope.none).toBeCloseTo(0.25, 12);
    expect(float.none).toBeCloseTo(0.81, 12);
    expect(chanceOf(lines, of("Float"), 2, 1)).toBeCloseTo(0.01, 12);
  });

  it("says how many runs it takes to be sure", () => {
    // No float in n crates: 0.81ⁿ.
    expect(runsUntil(lines, of("Float"), 1, 0.9)).toBe(Math.ceil(Math.log(0.1) / Math.log(0.81)));
    expect(runsUntil(lines, of("Nail"), 1, 0.5)).toBe(1);
    expect(runsUntil(lines, of("Nail"), 1, 0.99)).toBe(7);
    expect(runsUntil(lines, of("Crate"), 1, 0.9)).toBeNull();
  });

  it("has quantiles that at least that share of seeded players stay at or below, and fewer one step lower", () => {
    const random = seeded(8);
    const runs = 12;
    const players = 20_000;
    const ropes = Array.from({ length: players }, () => {
      let sum = 0;
      for (let n = 0; n < 2 * runs; n++) if (random() < 0.5) sum += 2;
      return sum;
    });
    const rope = (outcomes(lines, runs) ?? []).find((o) => o.item === of("Rope"));
    const share = (most: number) => ropes.filter((r) => r <= most).length / players;
    for (const [at, amount] of [[0.1, rope?.low], [0.5, rope?.middle], [0.9, rope?.high]] as [number, number][]) {
      expect(share(amount)).toBeGreaterThan(at - 0.012);
      expect(share(amount - 2)).toBeLessThan(at + 0.012);
    }
  });

  it("keeps its mean between its quantiles where both ends are far off", () => {
    const d = repeated(perRun(lines, of("Plank")), 200);
    expect(quantile(d, 0.1)).toBeLessThan(expectedOf(d));
    expect(quantile(d, 0.9)).toBeGreaterThan(expectedOf(d));
    expect(quantile(d, 1)).toBeLessThanOrEqual(600);
  });

  it("gives up politely where amounts are too many to be told apart", () => {
    const wide = recipe(kitchen("Sift: 1 Silt -> 0.0001..99 Gold dust"), "Sift");
    expect(outcomes(wide.lines, 1)).toBeNull();
    expect(runsUntil(wide.lines, "x", 1, 0.9)).toBeNull();
    expect(chanceOf(wide.lines, wide.lines[1].item, 1, 1)).toBeNull();
  });
});
