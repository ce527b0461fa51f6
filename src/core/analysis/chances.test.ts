import { flows } from "../network/process";
import { runsFor } from "../testing/runs";
import { describe, expect, it } from "vitest";
import type { Line } from "../notation/line";
import { seeded } from "../numbers/seeded";
import { item, kitchen, recipe } from "../testing/kitchen";
import { toNumber } from "../numbers/fraction";
import { atLeast, chanceOfNone, type Distribution, expectedOf, perRun, rangeOf, repeated } from "./chances";
import { chanceOfGain } from "./luck";
import { TooMany } from "../budget/budget";
import { read } from "../testing/told";

const linesOf = (text: string): { lines: readonly Line[]; id: (name: string) => string } => {
  const c = kitchen(`R: ${text}`);
  return { lines: recipe(c, "R").lines, id: (name) => item(c, name).id };
};
const of = (text: string, name: string, runs = 1): Distribution => {
  const { lines, id } = linesOf(text);
  return repeated(perRun(flows(lines), id(name)), runs);
};
const told = (d: Distribution) =>
  Object.fromEntries(
    [...d.p].flatMap((p, k) =>
      p > 1e-15 ? [[Number(((d.from + k) * toNumber(d.step)).toFixed(9)), Number(p.toFixed(12))]] : [],
    ),
  );

describe("what one run gives", () => {
  it.each([
    ["a fixed amount", "1 Net -> 2 Rope", { 2: 1 }],
    ["a chance", "1 Net -> 2 Rope 25%", { 0: 0.75, 2: 0.25 }],
    ["a range, all whole numbers alike", "1 Net -> 1..4 Rope", { 1: 0.25, 2: 0.25, 3: 0.25, 4: 0.25 }],
    ["a range in tenths, as it was typed", "1 Net -> 0.1..0.4 Rope", { 0.1: 0.25, 0.2: 0.25, 0.3: 0.25, 0.4: 0.25 }],
    ["two lines of the same item", "1 Net -> 1 Rope 50% + 2 Rope 50%", { 0: 0.25, 1: 0.25, 2: 0.25, 3: 0.25 }],
    ["one draw", "1 Crate -> 1 draw { 5: 2 Rope | 3: 1 Cleat | 2: nothing }", { 0: 0.5, 2: 0.5 }],
    ["two draws", "1 Crate -> 2 draws { 1: 1 Rope | 1: 3 Rope }", { 2: 0.25, 4: 0.5, 6: 0.25 }],
    ["a range within a draw", "1 Crate -> 1 draw { 2: 1..2 Rope | 2: nothing }", { 0: 0.5, 1: 0.25, 2: 0.25 }],
    ["what is taken, too", "2 Rope -> 3 Rope 50%", { "-2": 0.5, 1: 0.5 }],
    ["a chance above certain counts as certain", "1 Net -> 1 Rope 140%", { 1: 1 }],
  ])("%s", (_, text, expected) => {
    expect(told(of(text, "Rope"))).toEqual(expected);
  });

  it("wears a tool evenly", () => {
    expect(told(of("1 Eel -> 1 Fillet using Knife lasting 4", "Knife"))).toEqual({ "-0.25": 1 });
  });

  it("counts the steps of a range by the decimals that were typed", () => {
    expect(rangeOf(1, 3).count).toBe(3);
    expect(rangeOf(0.5, 1.5).count).toBe(11);
    expect(rangeOf(3, 1).count).toBe(3);
    expect(() => of("1 Net -> 0..1000000000 Rope", "Rope")).toThrow(TooMany);
  });
});

describe("many runs", () => {
  it("are the binomial distribution where each run is a chance", () => {
    const d = of("1 Net -> 1 Rope 30%", "Rope", 20);
    let choose = 1;
    for (let k = 0; k <= 20; k++) {
      expect(d.p[k - d.from]).toBeCloseTo(choose * 0.3 ** k * 0.7 ** (20 - k), 14);
      choose = (choose * (20 - k)) / (k + 1);
    }
    expect(chanceOfNone(d)).toBeCloseTo(0.7 ** 20, 16);
    expect(atLeast(d, 1)).toBeCloseTo(1 - 0.7 ** 20, 14);
    expect(expectedOf(d)).toBeCloseTo(6, 10);
  });

  it("keep their expectation and weight over thousands of runs", () => {
    const d = of("1 Crate -> 3 draws { 5: 1..3 Rope | 1: nothing } + 2 Rope 40%", "Rope", 3000);
    expect(d.p.reduce((t, p) => t + p, 0)).toBeCloseTo(1, 10);
    expect(expectedOf(d)).toBeCloseTo(3000 * (3 * 2 * (5 / 6) + 0.8), 5);
  });

  it("agree with a seeded simulation of ranges, chances and draws together", () => {
    const d = of("1 Crate -> 0..2 Rope 60% + 2 draws { 3: 1 Rope | 1: 4 Rope | 2: nothing }", "Rope", 5);
    const random = seeded(9);
    const rounds = 60_000;
    const seen = new Map<number, number>();
    for (let r = 0; r < rounds; r++) {
      let sum = 0;
      for (let n = 0; n < 5; n++) {
        if (random() < 0.6) sum += Math.floor(random() * 3);
        for (let k = 0; k < 2; k++) {
          const drawn = random() * 6;
          sum += drawn < 3 ? 1 : drawn < 4 ? 4 : 0;
        }
      }
      seen.set(sum, (seen.get(sum) ?? 0) + 1);
    }
    for (const [amount, n] of seen) {
      const p = d.p[amount - d.from];
      expect(Math.abs(n / rounds - p)).toBeLessThan(5 * Math.sqrt((p * (1 - p)) / rounds) + 1e-4);
    }
  });
});

describe("how many runs", () => {
  it("are the fewest that give enough with the confidence", () => {
    const { lines, id } = linesOf("1 Net -> 1 Rope 10%");
    // 1 − 0.9^n ≥ 0.9 from n = 22, ≥ 0.99 from n = 44.
    expect(runsFor(lines, id("Rope"), 1, 0.9)).toBe(22);
    expect(runsFor(lines, id("Rope"), 1, 0.99)).toBe(44);
    expect(runsFor(lines, id("Rope"), 0, 0.99)).toBe(0);
    for (const [k, confidence] of [
      [3, 0.9],
      [7, 0.5],
      [2, 0.999],
    ] as const) {
      const n = runsFor(lines, id("Rope"), k, confidence) as number;
      const one = perRun(flows(lines), id("Rope"));
      expect(atLeast(repeated(one, n), k)).toBeGreaterThanOrEqual(confidence);
      expect(atLeast(repeated(one, n - 1), k)).toBeLessThan(confidence);
    }
  });

  it("are none where it never comes", () => {
    const { lines, id } = linesOf("1 Net -> 1 Rope 0%");
    expect(runsFor(lines, id("Rope"), 1, 0.9)).toBeNull();
    expect(runsFor(lines, id("Net"), 1, 0.9)).toBeNull();
  });
});

describe("the chance that a round gains", () => {
  const luck = (text: string) => read(text).gain.gains[0].luck();
  it.each([
    ["always, in the worst draw", "A: 1 X -> 1 Y\nB: 1 Y -> 2..3 X", 1],
    ["always, as each alternative gives something", "A: 1 X -> 1 Y\nB: 1 Y -> 1 X + 1 draw { 1: 1 U | 1: 1 V }", 1],
    ["as often as the chance", "A: 1 X -> 1 Y\nB: 1 Y -> 4 X 30%", 0.3],
    ["only where both come", "A: 1 X -> 1 Y\nB: 1 Y -> 2 X 60% + 1 X 50%", 0.6],
    ["by its draw", "A: 1 X -> 1 Y\nB: 1 Y -> 1 draw { 1: 5 X | 3: nothing }", 0.25],
  ])("%s", (_, text, chance) => {
    expect(luck(text).chance).toBeCloseTo(chance, 12);
    expect(luck(text).exact).toBe(true);
  });

  it("is estimated where there are too many outcomes, near to what it is", () => {
    const { lines, id } = linesOf("1 X -> 1..9 X 25%");
    const exact = atLeast(repeated(perRun(flows(lines), id("X")), 60), 1e-9);
    const guess = chanceOfGain([{ lines: flows(lines), times: 60n }], []);
    expect(Math.abs(guess.chance - exact)).toBeLessThan(0.05);
    const large = chanceOfGain([{ lines: flows(lines), times: 5000n }], []);
    expect(large).toMatchObject({ exact: false });
    expect(large.chance).toBeGreaterThan(0.99);
  });
});
