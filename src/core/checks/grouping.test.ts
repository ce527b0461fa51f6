import { describe, expect, it } from "vitest";
import { withDefaults } from "../kinds/index";
import type { Id } from "../schema/id";
import { item, kitchen, must } from "../testing/kitchen";
import { setField } from "../catalogue/edit";
import type { Evidence, Finding, Ref } from "./check";
import { Decisions } from "./decisions";
import { findingRows, GROUPINGS, type GroupedBy, groupFindings, isGrouping } from "./grouping";

const catalogue = kitchen("gather Eel in 20s\nSmoke: 2 Eel + 4 Salt -> 1 Smoked eel");
const ref = (name: string): Ref => {
  const { id, key } = item(catalogue, name);
  return { kind: "item", id, key, name };
};
let n = 0;
const finding = (
  rule: string,
  severity: "error" | "warning",
  about: readonly Ref[],
  evidence: Evidence = { type: "names", names: [] },
): Finding => ({
  rule,
  severity,
  about,
  message: `${about[0]?.name ?? "It"} fails ${rule}.`,
  evidence,
  fixes: [],
  fingerprint: `f${n++}`,
});
const cause = (...names: string[]): Evidence => ({ type: "cause", leaves: names.map(ref), path: [] });
const UNDECIDED = new Decisions(catalogue, "2026-01-01");
const told = (by: GroupedBy, findings: readonly Finding[], from = catalogue) =>
  groupFindings(from, findings, by, new Decisions(from, "2026-01-01")).map(
    (g) => `${g.title} ${g.findings.length}/${g.counts.error}`,
  );

const [eel, salt, smoked] = ["Eel", "Salt", "Smoked eel"].map(ref);
const recipe: Ref = { kind: "recipe", id: "recipe000001" as Id, key: "smoke", name: "Smoke" };
const FINDINGS = [
  finding("missing-input", "error", [salt]),
  finding("unobtainable", "error", [smoked], cause("Salt")),
  finding("near-names", "warning", [smoked]),
  finding("unobtainable", "error", [eel], cause("Salt", "Smoked eel")),
  finding("dead-end", "warning", [eel]),
  finding("out-of-range", "error", [recipe]),
  finding("scale", "warning", []),
];

describe("findings in groups", () => {
  it("are grouped by severity and by rule, in the order of the rules", () => {
    expect(told("severity", FINDINGS)).toEqual(["Errors 4/4", "Warnings 3/0"]);
    expect(told("rule", FINDINGS.slice(0, 4))).toEqual([
      "Input that nothing provides 1/1",
      "Unobtainable item 2/2",
      expect.stringMatching(/ 1\/0$/),
    ]);
    expect(told("rule", [])).toEqual([]);
  });

  it("are grouped by record, most errors first, then the most findings, then as they came", () => {
    expect(told("record", FINDINGS)).toEqual(["Smoked eel 2/1", "Eel 2/1", "Salt 1/1", "Smoke 1/1", "The pantry 1/0"]);
  });

  it("are grouped by the type of an item, otherwise by the kind", () => {
    const type = withDefaults("type", { id: "type00000001" as Id, key: "fare", name: "Fare" });
    const typed = must(must(catalogue, [{ op: "add", kind: "type", record: type }]), [
      setField(catalogue, "item", eel.id, "type", type.id),
    ]);
    expect(told("type", FINDINGS, typed)).toEqual([
      "Items without a type 3/2",
      "Fare 2/1",
      "Recipes 1/1",
      "The pantry 1/0",
    ]);
  });

  it("are grouped by what causes them, together with the finding about the cause itself", () => {
    expect(told("cause", FINDINGS)).toEqual([
      "Because of Salt 2/2",
      "Because of Salt, Smoked eel 1/1",
      "No common cause 4/1",
    ]);
    // The same leaves in another order are the same cause.
    const [group, ...others] = groupFindings(
      catalogue,
      [
        finding("unobtainable", "error", [eel], cause("Salt", "Eel")),
        finding("unobtainable", "error", [salt], cause("Eel", "Salt")),
      ],
      "cause",
      UNDECIDED,
    );
    expect([group.findings.length, others]).toEqual([2, []]);
  });

  it("lose none, keep their order, and take names from outside only as they are listed", () => {
    for (const by of Object.keys(GROUPINGS) as GroupedBy[]) {
      const groups = groupFindings(catalogue, FINDINGS, by, UNDECIDED);
      expect(new Set(groups.map((g) => g.key)).size).toBe(groups.length);
      expect(groups.flatMap((g) => g.findings).length).toBe(FINDINGS.length);
      for (const { findings } of groups) expect([...findings]).toEqual(FINDINGS.filter((f) => findings.includes(f)));
    }
    expect(["rule", "constructor", "__proto__", ""].map(isGrouping)).toEqual([true, false, false, false]);
    expect(told("rule", [finding("toString", "error", [])])).toEqual(["toString 1/1"]);
  });

  it("are rows of a table", () => {
    expect(findingRows([FINDINGS[0], FINDINGS[6]], UNDECIDED)).toEqual([
      ["severity", "rule", "kind", "key", "name", "finding", "assigned to", "accepted", "fingerprint"],
      ["error", "missing-input", "item", "salt", "Salt", "Salt fails missing-input.", "", "", FINDINGS[0].fingerprint],
      ["warning", "scale", "", "", "", "It fails scale.", "", "", FINDINGS[6].fingerprint],
    ]);
  });
});
