/** Lines that were once read as something else without a word. */
import { around } from "../catalogue/surroundings";
import { describe, expect, it } from "vitest";
import { emptyCatalogue } from "../catalogue/catalogue";
import { apply } from "../catalogue/apply";
import type { Edit } from "../catalogue/edit";
import { exactNumber } from "../numbers/decimal";
import { must, newItem, pantry, shells } from "../testing/kitchen";
import { formatRecipe } from "./format";
import { LONGEST_LINE } from "./reader";
import { parseLine } from "./parser";
import { recipeFrom, wordsOf } from "../editing/recipes";
import { NewNames } from "../editing/new-names";

const names = ["River eel", "Coarse salt", "Rope", "Oakum", "Eel40%"];
const stocked = must(emptyCatalogue(pantry()), [
  { op: "add", kind: "currency", record: shells },
  ...names.map((name, i): Edit => ({ op: "add", kind: "item", record: newItem(name, { key: `k_${i}` }) })),
]);
const read = (text: string) => parseLine(text, wordsOf(stocked));
const errors = (text: string) =>
  read(text)
    .issues.filter((r) => r.severity === "error")
    .map((r) => [text.slice(r.from, r.to), r.message]);
const canonical = (text: string) => {
  const parsed = read(text);
  expect(parsed.issues.filter((r) => r.severity === "error")).toEqual([]);
  const writing = new NewNames(stocked);
  const recipe = recipeFrom(parsed, writing);
  const outcome = apply(stocked, [...writing.edits, { op: "add", kind: "recipe", record: recipe }]);
  if (!outcome.ok) throw new Error(outcome.issues[0].message);
  return formatRecipe(around(outcome.catalogue), recipe);
};

describe("a line is refused where it says", () => {
  it.each([
    ["Rope -> Oakum in 5 5", "5", "found “5”"],
    ["Rope -> Oakum in 1 30", "30", "found “30”"],
    ["Rope -> Oakum in 2 5m", "5m", "found “5m”"],
    ["Rope -> Oakum in 0.00000001", "0.00000001", "whole ticks"],
    ["Rope -> Oakum in 1e13", "1e13", "Expected a duration"],
    [
      "2 River eel + 1 Coarse salt: 1 Rope -> 1 Oakum",
      "2 River eel + 1 Coarse salt",
      "The part before a colon is the recipe's name",
    ],
    ["2 Rope: 1 Rope -> 1 Oakum", "2 Rope", "The part before a colon"],
    ["Rope -> Oakum fee 2 shellss", "shellss", "is not a currency"],
    ["Rope -> Oakum fee 1e999", "1e999", "A fee is at most"],
    ['Rope -> Oakum using River eel lasting 5 "uses"', "uses", "Expected"],
    ["Rope -> Oakum using River eel lasting 1e12", "1e12", "the number of runs"],
    [
      "Rope -> 2 draws { 1000000: nothing | 1: Rope | 1: nothing }",
      "2 draws { 1000000: nothing | 1: Rope | 1: nothing }",
      "The weights of nothing",
    ],
    ["Rope -> Oakum 10001%", "10001%", "above 10000%"],
    ["3 Rope 1e400% -> Oakum", "1e400%", "A chance is at most"],
    ["1e400 Rope -> Oakum", "1e400", "A quantity is at most"],
    ["0.10000000000000000000001 Rope -> Oakum", "0.10000000000000000000001", "at most 15 digits"],
    ["1e-12 Rope -> Oakum", "1e-12", "too small"],
    ["Rope -> Oakum 0.00000000001%", "0.00000000001%", "too small"],
    ["Rope -> Pe\u200bat", "Pe\u200bat", "invisible character"],
    ["Rope -> \ud83d", "\ud83d", "half of a character"],
    ['"\u0000": Rope -> Oakum', '"\u0000"', "control character"],
    [`${"x".repeat(121)}: Rope -> Oakum`, "x".repeat(121), "the maximum is 120"],
  ])("%j", (text, at, message) => {
    const found = errors(text).find(
      ([span, why]) => why.includes(message) && span.replaceAll('"', "").includes(at.replaceAll('"', "")),
    );
    expect(found, JSON.stringify(errors(text))).toBeDefined();
  });

  it("refuses more entries than a recipe holds, and more characters than are read", () => {
    expect(errors(`${Array.from({ length: 201 }, () => "Rope").join(" + ")} -> Oakum`)[0][1]).toContain(
      "202 entries; the maximum for a recipe is 200.",
    );
    expect(errors("x".repeat(LONGEST_LINE + 1))[0][1]).toContain(`the maximum is ${LONGEST_LINE}`);
  });

  it("tells a bounded part of what is wrong with a long line, and covers the rest with a remark", () => {
    const text = `Rope -> Oakum ${"at ".repeat(20_000)}`;
    const { issues } = read(text);
    expect(issues.length).toBeLessThanOrEqual(101);
    expect(Math.max(...issues.map((r) => r.to))).toBe(text.length);
    expect(read(":".repeat(20_000)).ok).toBe(false);
    expect(read(Array.from({ length: 10_000 }, (_, k) => `word${k}`).join(" ")).ok).toBe(false);
  });
});

describe("a line keeps what it says", () => {
  it.each([
    ["Rope -> Oakum fee 0 shells", "1 Rope -> 1 Oakum fee 0 shells"],
    ["Rope -> Oakum fee 2 shell", "1 Rope -> 1 Oakum fee 2 shells"],
    ["Rope -> Oakum in 1m 30s", "1 Rope -> 1 Oakum in 90s"],
    ["Rope -> Oakum in 5 s", "1 Rope -> 1 Oakum in 5s"],
    ["Rope -> Oakum using River eel lasting 5 uses", "1 Rope -> 1 Oakum using River eel lasting 5"],
    ["Smoke eel: Rope -> Oakum", "Smoke eel: 1 Rope -> 1 Oakum"],
    ["Rope -> 2 River eel 40%", "1 Rope -> 2 River eel 40%"],
    ["Rope -> 1 % eel 5", '1 Rope -> 1 "% eel 5"'],
  ])("%j is %j", (text, expected) => {
    if (text.includes("% eel")) expect(canonical('Rope -> 1 "% eel 5"')).toBe(expected);
    else expect(canonical(text)).toBe(expected);
  });

  it("does not take a chance for the end of a name", () => {
    const parsed = read("Rope -> Eel 40%");
    expect(parsed.entries[1]).toMatchObject({ name: "Eel", item: null, chance: 0.4 });
    expect(read("Rope -> Eel40%").entries[1].name).toBe("Eel40%");
  });

  it("says of a time and a fee of nothing that they are none", () => {
    expect(read("Rope -> Oakum in 0s fee 0").issues.map((r) => r.message)).toEqual([
      "A time of 0 is left out.",
      "A fee of 0 is left out.",
    ]);
  });
});

describe("a decimal", () => {
  it("is read to its last digit or not at all", () => {
    expect(["0.1", "1e3", "0.30000000000000004", "007", "1e-7"].map(exactNumber)).toEqual([
      0.1, 1000, 0.30000000000000004, 7, 1e-7,
    ]);
    expect(
      [
        "1e400",
        "1e-400",
        "0.1000000000000000000001",
        "9".repeat(41),
        "x",
        "",
        "-1",
        "1e9999999",
        "0x10",
        "Infinity",
      ].map(exactNumber),
    ).toEqual(Array.from({ length: 10 }, () => null));
  });
});
