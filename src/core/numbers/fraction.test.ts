import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  add,
  compare,
  divide,
  fraction,
  fromNumber,
  fromPercent,
  multiply,
  show,
  subtract,
  toNumber,
  toPercent,
  wholeMultiples,
} from "./fraction";

describe("fractions", () => {
  it("keeps the decimal that was typed: 0.1 + 0.2 is 0.3", () => {
    expect(add(fromNumber(0.1), fromNumber(0.2))).toEqual(fromNumber(0.3));
  });

  it("reads small and large decimals, exponents included", () => {
    expect(show(fromNumber(1e-7))).toBe("1/10000000");
    expect(show(fromNumber(2.5e21))).toBe("2500000000000000000000");
    expect(show(fromNumber(-0.125))).toBe("-1/8");
  });

  it("refuses what is no number", () => {
    expect(() => fromNumber(Number.NaN)).toThrow(RangeError);
    expect(() => fraction(1n, 0n)).toThrow(RangeError);
    expect(() => divide(fromNumber(1), fromNumber(0))).toThrow(RangeError);
  });

  it("obeys the field laws", () => {
    const f = fc.tuple(fc.bigInt(-999n, 999n), fc.bigInt(1n, 999n)).map(([n, d]) => fraction(n, d));
    fc.assert(
      fc.property(f, f, f, (a, b, c) => {
        expect(multiply(a, add(b, c))).toEqual(add(multiply(a, b), multiply(a, c)));
        expect(subtract(add(a, b), b)).toEqual(a);
        expect(compare(a, b)).toBe(-compare(b, a) + 0);
      }),
    );
  });

  it("turns percents into chances and back as they were typed", () => {
    for (const [percent, chance] of [
      [7, 0.07],
      [0.07, 0.0007],
      [33.3, 0.333],
      [1e-7, 1e-9],
      [29, 0.29],
      [110, 1.1],
    ]) {
      expect(fromPercent(percent)).toBe(chance);
      expect(toPercent(chance)).toBe(percent);
    }
  });

  it("scales to the smallest whole numbers", () => {
    expect(wholeMultiples([fraction(1n, 2n), fraction(1n, 3n)])).toEqual([3n, 2n]);
    expect(wholeMultiples([fraction(4n), fraction(6n)])).toEqual([2n, 3n]);
  });

  it("turns terms too large for a number into the right ratio", () => {
    expect(toNumber(fraction(3n * 10n ** 400n + 1n, 10n ** 400n))).toBeCloseTo(3);
  });
});
