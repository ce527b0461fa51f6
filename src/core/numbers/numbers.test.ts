import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { list, sayCost, sayMove, sayPercent, sayQuantity } from "./format";
import { formatTicks, parseTicks, saySeconds } from "./ticks";

describe("durations", () => {
  it.each([
    ["90s", 1800],
    ["1m30s", 1800],
    ["1800t", 1800],
    ["90", 1800],
    ["0.5s", 10],
    ["2h", 144_000],
  ])("reads %s as %i ticks at 20 a second", (text, ticks) => {
    expect(parseTicks(text, 20)).toBe(ticks);
  });

  it("refuses what is no duration, or falls between two ticks", () => {
    for (const text of ["", "soon", "-5s", "90x", "1.5t"]) expect(parseTicks(text, 20)).toBeNull();
    expect(parseTicks("0.01s", 20)).toBeNull();
  });

  it("writes what it reads back", () => {
    fc.assert(
      fc.property(fc.nat(10_000_000), fc.constantFrom(1, 20, 30, 60), (ticks, rate) => {
        expect(parseTicks(formatTicks(ticks, rate), rate)).toBe(ticks);
      }),
    );
  });

  it("says play time as a person would", () => {
    expect(saySeconds(112)).toBe("1 min 52 s");
    expect(saySeconds(3.25)).toBe("3.3 s");
    expect(saySeconds(3600 * 3 + 300)).toBe("3 h 5 min");
    expect(saySeconds(Number.POSITIVE_INFINITY)).toBe("never");
  });
});

describe("numbers in sentences", () => {
  it("shows cents, and never a false zero", () => {
    expect(sayCost(4.175)).toBe("4.17");
    expect(sayCost(0)).toBe("0.00");
    expect(sayCost(0.0042)).toBe("0.0042");
    expect(sayCost(12345.5)).toBe("12,345.50");
    expect(sayCost(Number.POSITIVE_INFINITY)).toBe("–");
  });

  it("gives a move its sign", () => {
    expect(sayMove(10, 11.8)).toBe("+18%");
    expect(sayMove(10, 9.65)).toBe("−3.5%");
    expect(sayMove(Number.POSITIVE_INFINITY, 3)).toBe("now obtainable");
    expect(sayMove(3, Number.POSITIVE_INFINITY)).toBe("now unobtainable");
  });

  it("joins and shortens lists", () => {
    expect(list(["a", "b", "c"])).toBe("a, b and c");
    expect(list(["a", "b", "c", "d", "e"])).toBe("a, b, c and 2 more");
    expect(sayPercent(0.4)).toBe("40%");
    expect(sayQuantity(0.30000000000000004)).toBe("0.3");
  });
});
