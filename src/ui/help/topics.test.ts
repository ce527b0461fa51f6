import { describe, expect, it } from "vitest";
import demo from "../../demo/brackwater-reach.json";
import { around } from "@/core/catalogue/surroundings";
import { wordsOf } from "@/core/editing/recipes";
import { emptyCatalogue } from "@/core/catalogue/catalogue";
import { planImport } from "@/core/exchange/read";
import { readFormula } from "@/core/formulas/field";
import { parseLine } from "@/core/notation/parser";
import { parseSteps } from "@/core/notation/trial-line";
import { parseUse } from "@/core/notation/use-line";
import { must, pantry } from "@/core/testing/kitchen";
import { TOPICS, topicsFor } from "./topics";

const empty = emptyCatalogue(pantry());
const catalogue = must(empty, planImport(empty, JSON.stringify(demo)).edits);

describe("the examples of the help", () => {
  const errorsOf: { readonly [language: string]: (line: string) => readonly string[] } = {
    recipe: (line) => messages(parseLine(line, wordsOf(catalogue)).issues),
    use: (line) => messages(parseUse(line, around(catalogue), () => null).issues),
    trial: (line) => messages(parseSteps(line, around(catalogue)).issues),
    formula: (line) => {
      const read = readFormula(line, "bearer", around(catalogue));
      return "message" in read ? [read.message] : [];
    },
  };
  const messages = (issues: readonly { readonly severity: string; readonly message: string }[]) =>
    issues.map((i) => `${i.severity}: ${i.message}`);

  it.each(TOPICS.flatMap((t) => (t.language ? t.entries.map((e) => [t.language as string, e.what]) : [])))(
    "are lines of the demo without a remark: %s, %s",
    (language, line) => {
      expect(errorsOf[language](line)).toEqual([]);
    },
  );

  it("are found by every word of a search, wherever they belong", () => {
    expect(topicsFor("checks", "cooldown seconds").flatMap((t) => t.entries.map((e) => e.what))).toEqual([
      "Eat: restores 42 Vigour, cooldown 20s, used up",
    ]);
    expect(topicsFor("checks", "no such thing")).toEqual([]);
    expect(topicsFor("checks", "").some((t) => t.title === "Trial steps")).toBe(false);
    expect(topicsFor("tasting", "").some((t) => t.title === "Trial steps")).toBe(true);
  });
});
