import { expect, it } from "vitest";
import { roundedTo, tidy } from "./tidy";

it("leaves what people would have reckoned", () => {
  expect(tidy(0.1 + 0.2)).toBe(0.3);
  expect(Object.is(tidy(-0), 0)).toBe(true);
  expect(roundedTo(38.08, 5)).toBe(40);
  expect(roundedTo(1.15, 0.1)).toBe(1.2);
  expect(Object.is(roundedTo(-0.2, 1), 0)).toBe(true);
  expect(roundedTo(0.1 + 0.2, 0)).toBe(0.3);
});
