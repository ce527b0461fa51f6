import { flows } from "../network/process";
import { describe, expect, it } from "vitest";
import { seeded } from "../numbers/seeded";
import { kitchen, recipe } from "../testing/kitchen";
import { expectedOf, perRun, repeated, work } from "./chances";
import { byChance, chanceOf, outcomes, quantile, runsUntil } from "./outcomes";

const CRATE = kitchen(
  "Break: 1 Crate -> 1..3 Plank + 1 Nail 50% + 2 draws { 5: 2 Rope | 1: 1 Float | 4: nothing } + 1 Lid",
);
const { lines } = recipe(CRATE, "Break");
const of = (name: string) => [...CRATE.records.item.values()].find((i) => i.name === name)?.id as string;

describe("what comes by chance", () => {
  it("leaves out what every run gives alike, and what is taken", () => {
    expect(outcomes(lines, 1)?.map((o) => CRATE.records.item.get(o.item)?.name)).toEqual([
      "Plank",
      "Nail",
      "Rope",
      "Float",
    ]);
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
    for (const [at, amount] of [
      [0.1, rope?.low],
      [0.5, rope?.middle],
      [0.9, rope?.high],
    ] as [number, number][]) {
      expect(share(amount)).toBeGreaterThan(at - 0.012);
      expect(share(amount - 2)).toBeLessThan(at + 0.012);
    }
  });

  it("keeps its mean between its quantiles where both ends are far off", () => {
    const d = repeated(perRun(flows(lines), of("Plank")), 200);
    expect(quantile(d, 0.1)).toBeLessThan(expectedOf(d));
    expect(quantile(d, 0.9)).toBeGreaterThan(expectedOf(d));
    expect(quantile(d, 1)).toBeLessThanOrEqual(600);
  });

  it("says about how much where amounts are too many to be told apart", () => {
    const wide = recipe(kitchen("Sift: 1 Silt -> 0.0001..99 Salt dust"), "Sift");
    const { item } = flows(wide.lines)[1];
    const [once] = outcomes(wide.lines, 1);
    expect(once).toMatchObject({ about: true, none: 0 });
    expect(once.expected).toBeCloseTo(49.5, 3);
    const [often] = outcomes(wide.lines, 400);
    // A uniform variable up to 99 has a standard deviation of 99 / √12, and 400 of them one of 20 times that.
    const deviation = (20 * 99) / Math.sqrt(12);
    expect(often.low).toBeCloseTo(400 * 49.5 - 1.28155 * deviation, -1);
    expect(often.high).toBeCloseTo(400 * 49.5 + 1.28155 * deviation, -1);
    expect(runsUntil(wide.lines, item, 1, 0.9)).toBe("unknown");
    expect(chanceOf(wide.lines, item, 1, 1)).toBeNull();
  });

  it("ends soon however many draws of however many amounts are asked for", () => {
    const wide = recipe(
      kitchen("Sift: 1 Silt -> 1000 draws { 1: 1..60 Salt | 3: 1..60 Brine | 1: nothing } + 1..60000 Salt"),
      "Sift",
    );
    const began = performance.now();
    const found = outcomes(wide.lines, 10_000, work(2e7));
    expect(found.map((o) => o.about)).toEqual([true, true]);
    expect(found[1].expected).toBeCloseTo(10_000 * 1000 * 0.6 * 30.5, 0);
    expect(found[1].none).toBe(0);
    // Seconds, not minutes: a bound on steps that was forgotten would show even on the slowest machine.
    expect(performance.now() - began).toBeLessThan(5_000);
  });
});
