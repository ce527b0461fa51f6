import { expect, test } from "vitest";
import { icon, unknownIcons } from "./icons";

test("icons that don't exist are known, whatever they are called", async () => {
  expect(await icon("yarn")).toContain("<svg");
  expect(await icon("no-such-thing")).toBeNull();
  expect(await unknownIcons(["yarn", "no-such-thing", "constructor", "__proto__", "no-such-thing"])).toEqual([
    "no-such-thing",
    "constructor",
    "__proto__",
  ]);
  expect(await unknownIcons([])).toEqual([]);
});
