/** Numbers and names in the lines of uses and trials. */
import { describe, expect, it } from "vitest";
import { around } from "../catalogue/surroundings";
import type { NumberFormat } from "../numbers/decimal";
import { withDefaults } from "../kinds/index";
import { newId } from "../schema/id";
import { kitchen, must } from "../testing/kitchen";
import { parseSteps } from "./trial-line";
import { parseUse } from "./use-line";

const vigour = withDefaults("resource", { id: newId(), key: "vigour", name: "Vigour" });
const pantry = must(kitchen("gather Rope\ngather Glass bottle\ngather Oakum"), [
  { op: "add", kind: "resource", record: vigour },
]);
const typing = (numbers?: NumberFormat) => ({ ...around(pantry), numbers });
const use = (line: string, numbers?: NumberFormat) => {
  const { use: read, issues } = parseUse(`Eat: ${line}`, typing(numbers), newId);
  const [said] = issues;
  return [read?.effects[0]?.amount ?? null, said ? `${said.severity}: ${said.message}` : "", said?.suggestions ?? []];
};
const got = (line: string, numbers?: NumberFormat) => {
  const { steps, issues } = parseSteps(line, typing(numbers));
  return [steps?.[0]?.does.amount ?? null, issues[0]?.message ?? "", issues[0]?.suggestions ?? []];
};

describe("a number in a line", () => {
  it.each<[string, NumberFormat | undefined, unknown[]]>([
    ["restores 1.500 Vigour", undefined, ["1.5", "note: “1.500” is read as 1.5.", []]],
    ["restores 1,500 Vigour", "point", ["1500", "note: “1,500” is read as 1500.", []]],
    ["restores 1,500 Vigour", "comma", ["1.5", "note: “1,500” is read as 1.5.", []]],
    [
      "restores 1,500 Vigour",
      undefined,
      [null, "error: “1,500” could be two numbers. Enter 1500 or 1.5.", ["1500", "1.5"]],
    ],
    [
      "restores 1.500 Vigour",
      "comma",
      [null, "error: “1.500” could be two numbers. Enter 1500 or 1.5.", ["1500", "1.5"]],
    ],
    ["restores 1,5 Vigour", undefined, ["1.5", "note: “1,5” is read as 1.5.", []]],
    ["restores 2 Vigour", undefined, ["2", "", []]],
  ])("%j of one who writes a %s", (line, numbers, is) => {
    expect(use(line, numbers)).toEqual(is);
  });

  it("is the same in a trial", () => {
    expect(got("get 1,000 Oakum", "point")).toEqual([1000, "“1,000” is read as 1000.", []]);
    expect(got("get 1,000 Oakum")).toEqual([null, "“1,000” could be two numbers. Enter 1000 or 1.", ["1000", "1"]]);
    expect(got("get 3 Oakum")).toEqual([3, "", []]);
  });
});

describe("a name in a line", () => {
  it("that is known is never part of a new one for what stands beside it", () => {
    expect(use("gives Rope 5")[2]).toEqual(["5 Rope", '"Rope 5"']);
    expect(use("gives ½ Rope")[2]).toEqual(["0.5 Rope", '"½ Rope"']);
    expect(use("gives Rope x5")[2]).toEqual(["5 Rope", '"Rope x5"']);
    expect(use("gives 3 Rope, leaves Glass bottle 5t")[2]).toEqual(["Glass bottle", '"Glass bottle 5t"']);
    expect(use("restores 5 kg Vigour")[2]).toEqual(["Vigour"]);
    expect(got("get Oakum 5")[2]).toEqual(["5 Oakum", '"Oakum 5"']);
  });
  it("that is new and looks like a slip must be quoted", () => {
    expect(use("gives Cask 7 b")[1]).toContain(
      "error: “Cask 7 b” isn't in the pantry and contains a digit, sign or unit. To use it as a new name, put it in quotes.",
    );
    expect(use('gives "Cask 7 b"')[1]).toContain("becomes a stub");
  });
});
