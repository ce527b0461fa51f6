import { expect, it } from "vitest";
import { contrast, leastContrast, madeVisible } from "./contrast";

it("gives the contrasts that the standard gives", () => {
  expect(contrast("#000000", "#ffffff")).toBe(21);
  expect(contrast("#ffffff", "#ffffff")).toBe(1);
  expect(contrast("#777777", "#ffffff")).toBeCloseTo(4.48, 2);
  expect(contrast("#ffffff", "#777777")).toBe(contrast("#777777", "#ffffff"));
});

it("takes a colour just as far towards grey as it takes to be seen on every ground", () => {
  const grounds = ["#ffffff", "#000000"];
  expect(madeVisible("#a0245e", grounds, 1.5)).toBe("#a0245e");
  for (const faint of ["#ffffff", "#000000", "#fffff0"]) {
    const seen = madeVisible(faint, grounds, 1.5);
    expect(leastContrast(seen, grounds)).toBeGreaterThanOrEqual(1.5);
    expect(leastContrast(seen, grounds)).toBeLessThan(2);
  }
  expect(madeVisible("#ffffff", grounds, 20)).toBe("#808080");
});
