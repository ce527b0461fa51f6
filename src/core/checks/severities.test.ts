import { describe, expect, it } from "vitest";
import type { Catalogue } from "../catalogue/catalogue";
import { type Edit, setField } from "../catalogue/edit";
import { RULE_IDS, ruleKey, ruleOfKey } from "../checklist/index";
import { Engine } from "../engine/engine";
import { withDefaults } from "../kinds/index";
import { newId } from "../schema/id";
import { follow, readModelOf } from "../testing/read-model";
import { item, kitchen, must } from "../testing/kitchen";
import { severitiesOf, severityIn } from "./severities";

const set = (rule: string, severity: "off" | "note" | "warning" | "error"): Edit => ({
  op: "add",
  kind: "severity",
  record: withDefaults("severity", { id: newId(), key: ruleKey(rule), name: rule, severity }),
});
const WORLD = "gather Eel in 20s\nbuy Salt for 1\n1 Salt -> 2 Brine\nset Brine sell = 9";
const of = (catalogue: Catalogue, rule: string) =>
  new Engine(catalogue)
    .model()
    .findings.filter((f) => f.rule === rule)
    .map((f) => f.severity);

describe("the severity of a check", () => {
  const world = kitchen(WORLD);

  it("is its own until the pantry sets another, and off runs it not at all", () => {
    expect(of(world, "dead-end")).toEqual(["warning"]);
    expect(of(must(world, [set("dead-end", "error")]), "dead-end")).toEqual(["error"]);
    expect(of(must(world, [set("dead-end", "note")]), "dead-end")).toEqual(["note"]);
    const off = must(world, [set("dead-end", "off")]);
    expect(of(off, "dead-end")).toEqual([]);
    expect(new Engine(off).counts().get("dead-end")).toBeUndefined();
    expect(severityIn(severitiesOf(off), "dead-end")).toBe("off");
  });

  it("is followed: every change of one gives what is found from scratch", () => {
    // Also for checks that keep only a number for what they say.
    const engine = new Engine(must(world, [setField(world, "item", item(world, "Eel").id, "description", "")]));
    let model = readModelOf(engine.catalogue);
    for (const rule of ["dead-end", "no-description", "near-names", "unobtainable"])
      for (const severity of ["error", "off", "note", "warning"] as const) {
        const there = [...engine.catalogue.records.severity.values()].find((r) => r.key === ruleKey(rule));
        const edit: Edit = there
          ? setField(engine.catalogue, "severity", there.id, "severity", severity)
          : set(rule, severity);
        const { ripple } = engine.change([edit]);
        model = follow(model, ripple as NonNullable<typeof ripple>);
        expect(model.findings, `${rule} ${severity}`).toEqual(new Engine(engine.catalogue).model().findings);
      }
  });

  it("counts for how many errors and warnings there are", () => {
    const before = new Engine(world).openCounts();
    expect(new Engine(must(world, [set("dead-end", "error")])).openCounts()).toEqual({
      errors: before.errors + 1,
      warnings: before.warnings - 1,
    });
    expect(new Engine(must(world, [set("dead-end", "note")])).openCounts()).toEqual({
      errors: before.errors,
      warnings: before.warnings - 1,
    });
  });

  it("has the key of its check, and no other", () => {
    for (const rule of RULE_IDS) expect(ruleOfKey(ruleKey(rule))).toBe(rule);
    const { outcome } = new Engine(world).change([set("constructor", "off")]);
    expect(outcome.ok ? "" : outcome.issues[0].message).toMatch(/No check is called “constructor”/);
  });
});

describe("a pantry that has only begun", () => {
  const rules = (catalogue: Catalogue) => new Set(new Engine(catalogue).model().findings.map((f) => f.rule));

  it("says once that it has no source, no recipe or no price, in place of every item", () => {
    const sourceless = kitchen("1 Salt -> 2 Brine\n1 Brine -> 1 Cake\n1 Cake -> 1 Block");
    expect([...rules(sourceless)]).toEqual(expect.arrayContaining(["no-sources", "no-prices"]));
    for (const rule of ["unobtainable", "missing-input", "dead-end"]) expect(rules(sourceless)).not.toContain(rule);
    expect(rules(kitchen("gather Eel in 20s\nset Eel sell = 2"))).toContain("no-recipes");
    expect(rules(kitchen(""))).toEqual(new Set());
  });

  it("lists them as soon as it has one, and when it is taken away they go again", () => {
    const engine = new Engine(kitchen("buy Eel for 2\n1 Salt -> 2 Brine\nset Brine sell = 9"));
    expect([...rules(engine.catalogue)]).toEqual(expect.arrayContaining(["unobtainable", "missing-input"]));
    const [source] = engine.catalogue.records.source.values();
    for (const edit of [
      { op: "remove", kind: "source", record: source },
      { op: "add", kind: "source", record: source },
    ] as const) {
      engine.change([edit]);
      expect(engine.model().findings).toEqual(new Engine(engine.catalogue).model().findings);
      expect(rules(engine.catalogue).has("no-sources")).toBe(edit.op === "remove");
    }
  });
});
