import { expect, it } from "vitest";
import { within } from "./width";

it("keeps the sheet as wide as can be used, whatever the browser kept", () => {
  expect(within(500.4)).toBe(500);
  expect([10, 1e9].map(within)).toEqual([340, 680]);
  expect([null, "wide", Number.NaN, Number.POSITIVE_INFINITY, {}].map(within)).toEqual([384, 384, 384, 384, 384]);
});
