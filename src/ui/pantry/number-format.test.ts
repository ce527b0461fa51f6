import { expect, test } from "vitest";
import { keepFormat, keptFormat, usualFormat } from "./number-format";

test("is the browser's until someone says otherwise", () => {
  expect(["en-GB", "de-DE", "fr-FR", "de-CH"].map(usualFormat)).toEqual(["point", "comma", "comma", "point"]);
  const kept = new Map<string, string>();
  const storage = {
    getItem: (name: string) => kept.get(name) ?? null,
    setItem: (name: string, value: string) => void kept.set(name, value),
  };
  expect(keptFormat(storage)).toBe(usualFormat());
  keepFormat("comma", storage);
  expect(keptFormat(storage)).toBe("comma");
});

test("is the browser's where nothing can be kept, or something else was", () => {
  const broken = {
    getItem: () => {
      throw new Error("no storage here");
    },
    setItem: () => {
      throw new Error("no storage here");
    },
  };
  keepFormat("comma", broken);
  expect(keptFormat(broken)).toBe(usualFormat());
  expect(keptFormat({ getItem: () => "roman" })).toBe(usualFormat());
  expect(keptFormat(null)).toBe(usualFormat());
});
