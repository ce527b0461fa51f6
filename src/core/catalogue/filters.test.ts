import { describe, expect, it } from "vitest";
import { withDefaults } from "../kinds/index";
import { newId } from "../schema/id";
import { kitchen, must } from "../testing/kitchen";
import {
  type Condition,
  formatConditions,
  keyedPath,
  pathByKey,
  readConditions,
  type Seen,
  type TESTS,
  testOf,
} from "./filters";

const cell = (given: Partial<Seen>): Seen => ({
  text: "",
  number: null,
  from: "own",
  over: false,
  out: false,
  ...given,
});
const holds = (test: keyof typeof TESTS, typed: string, given: Partial<Seen>): boolean | string => {
  const made = testOf(test).ready(typed);
  return "message" in made ? made.message : made(cell(given));
};

describe("conditions on columns", () => {
  it("hold of what they name and of nothing else", () => {
    const cases: [keyof typeof TESTS, string, Partial<Seen>, boolean][] = [
      ["has", "EEL", { text: "Smoked eel" }, true],
      ["has", "cod", { text: "Smoked eel" }, false],
      ["is", "fish, weed", { text: "keeps, Weed" }, true],
      ["is", "fish", { text: "fishy" }, false],
      ["is", "Kept fare", { text: "kept fare" }, true],
      ["least", "10", { number: 10 }, true],
      ["least", "10", { number: 9.9 }, false],
      ["most", "1,5", { number: 1.5 }, true],
      ["between", "10..20", { number: 20 }, true],
      ["between", "10..20", { number: 21 }, false],
      ["between", "-5 .. 5", { number: null }, false],
      ["missing", "", { from: "none" }, true],
      ["missing", "", { from: "own", text: "x" }, false],
      ["said", "", { from: "inherited", text: "x" }, true],
      ["inherited", "", { from: "inherited" }, true],
      ["overridden", "", { from: "own", over: true }, true],
      ["overridden", "", { from: "own" }, false],
      ["out", "", { out: true }, true],
    ];
    for (const [test, typed, given, is] of cases) expect(holds(test, typed, given), `${test} ${typed}`).toBe(is);
  });

  it("say why what was typed is none", () => {
    expect(holds("least", "many", {})).toBe(
      "“many” isn't a number. Enter digits with a point for decimals, such as 2.5.",
    );
    expect(holds("between", "10", {})).toBe("“10” isn't a range. Enter two numbers such as 10..20.");
    expect(holds("between", "1..2..3", {})).toMatch(
      /^“1\.\.2\.\.3” isn't a range\. Enter two numbers such as 10\.\.20\.$/,
    );
  });

  it("come out of an address as they went in, and nothing comes of what is none", () => {
    const conditions: Condition[] = [
      { column: "sell", test: "between", value: "10..20" },
      { column: "stats.vigour", test: "missing", value: "" },
      { column: "name", test: "has", value: "eel; or\\ not" },
    ];
    expect(formatConditions(conditions.slice(0, 2))).toBe("sell between 10..20; stats.vigour missing");
    expect(readConditions(formatConditions(conditions))).toEqual(conditions);
    for (const text of ["", ";;", "sell", "sell eats 4", "sell toString 4", "sell constructor"])
      expect(readConditions(text)).toEqual([]);
    expect(readConditions("a missing;".repeat(100))).toHaveLength(20);
  });

  it("name columns by key, and find them again", () => {
    const stat = withDefaults("stat", { id: newId(), key: "vigour", name: "Vigour" });
    const catalogue = must(kitchen(""), [{ op: "add", kind: "stat", record: stat }]);
    expect(keyedPath(catalogue, "item", `stats.${stat.id}`)).toBe("stats.vigour");
    expect(pathByKey(catalogue, "item", "stats.vigour")).toBe(`stats.${stat.id}`);
    for (const path of ["sell", "cost", "stats.nobody", "toString.x", "own.x"])
      expect(pathByKey(catalogue, "item", path)).toBe(path);
  });
});
