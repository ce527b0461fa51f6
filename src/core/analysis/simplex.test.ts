import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { compare, type Fraction, fraction, fromNumber, toNumber } from "../numbers/fraction";
import { EXACT, type Field, maximise } from "./simplex";

const FLOAT: Field<number> = {
  effort: () => 1,
  zero: 0,
  one: 1,
  sub: (a, b) => a - b,
  mul: (a, b) => a * b,
  div: (a, b) => a / b,
  sign: (a) => (a > 1e-11 ? 1 : a < -1e-11 ? -1 : 0),
};

const exact = (rows: number[][]) => rows.map((r) => r.map((n) => fromNumber(n)));

describe("the tableau", () => {
  it("solves the textbook's two products on three machines", () => {
    // 3x + 5y with x ≤ 4, 2y ≤ 12, 3x + 2y ≤ 18.
    const a = [
      [1, 0],
      [0, 2],
      [3, 2],
    ];
    const best = maximise(FLOAT, a, [4, 12, 18], [3, 5]);
    expect(best?.value).toBeCloseTo(36);
    expect(best?.x[0]).toBeCloseTo(2);
    expect(best?.x[1]).toBeCloseTo(6);
    expect(best?.duals.map((d) => Number(d.toFixed(9)))).toEqual([0, 1.5, 1]);
  });

  it("gives exact fractions where the answer is one", () => {
    const best = maximise(
      EXACT,
      exact([
        [3, 1],
        [1, 3],
      ]),
      [1, 1].map((n) => fromNumber(n)),
      [1, 1].map((n) => fromNumber(n)),
    );
    expect(best?.value).toEqual(fraction(1n, 2n));
    expect(best?.x).toEqual([fraction(1n, 4n), fraction(1n, 4n)]);
  });

  it("stays at zero where nothing gains, and says when nothing bounds the goal", () => {
    expect(maximise(FLOAT, [[1]], [1], [-1])?.value).toBe(0);
    expect(maximise(FLOAT, [[-1]], [1], [1])).toBeNull();
  });

  it("does not go round forever where many right sides are zero", () => {
    // Beale's example cycles under the largest-coefficient rule.
    const a = [
      [0.25, -60, -0.04, 9],
      [0.5, -90, -0.02, 3],
      [0, 0, 1, 0],
    ];
    const best = maximise(
      EXACT,
      exact(a),
      [0, 0, 1].map((n) => fromNumber(n)),
      [0.75, -150, 0.02, -6].map((n) => fromNumber(n)),
    );
    expect(toNumber(best?.value as Fraction)).toBeCloseTo(0.05);
  });

  it("finds the same optimum in floats and in fractions, with duals that prove it", () => {
    const number = fc.integer({ min: -4, max: 6 });
    const problem = fc.tuple(fc.integer({ min: 1, max: 4 }), fc.integer({ min: 1, max: 4 })).chain(([m, n]) =>
      fc.record({
        a: fc.array(fc.array(number, { minLength: n, maxLength: n }), { minLength: m, maxLength: m }),
        b: fc.array(fc.nat(9), { minLength: m, maxLength: m }),
        c: fc.array(number, { minLength: n, maxLength: n }),
      }),
    );
    fc.assert(
      fc.property(problem, ({ a, b, c }) => {
        const rows = [...a, c.map(() => 1)];
        const right = [...b, 10];
        const best = maximise(EXACT, exact(rows), right.map(fromNumber), c.map(fromNumber));
        const near = maximise(FLOAT, rows, right, c);
        if (!best || !near) throw new Error("bounded by construction");
        expect(near.value).toBeCloseTo(toNumber(best.value), 7);
        // Weak duality, met with equality: Σ b·y = c·x, and no column is worth more than its price.
        const priced = best.duals.reduce((t, y, r) => t + toNumber(y) * right[r], 0);
        expect(priced).toBeCloseTo(toNumber(best.value), 7);
        for (const y of best.duals) expect(compare(y, fraction(0n))).toBeGreaterThanOrEqual(0);
        for (let k = 0; k < c.length; k++)
          expect(best.duals.reduce((t, y, r) => t + toNumber(y) * rows[r][k], 0)).toBeGreaterThanOrEqual(c[k] - 1e-9);
      }),
      { numRuns: 300 },
    );
  });
});
