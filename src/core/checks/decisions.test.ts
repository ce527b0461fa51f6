import { describe, expect, it } from "vitest";
import brackwater from "../../demo/brackwater-reach.json";
import { type Catalogue, emptyCatalogue } from "../catalogue/catalogue";
import { type Edit, setField } from "../catalogue/edit";
import { Engine } from "../engine/engine";
import { exportBundle } from "../exchange/bundle";
import { planImport } from "../exchange/read";
import { type Decision, withDefaults } from "../kinds/index";
import { isDay } from "../kinds/decision";
import { type Id, newId } from "../schema/id";
import { item, kitchen, must, pantry, recipe } from "../testing/kitchen";
import type { Finding } from "./check";
import { dayOf, Decisions, judge, printOfDecision, standingOf, targetOf, withoutFinding } from "./decisions";

const TODAY = "2026-06-01";
const BEGUN = "gather Eel in 20s\nbuy Salt for 1\n1 Salt -> 2 Brine\nset Brine sell = 9\n";
const findings = (catalogue: Catalogue): readonly Finding[] => new Engine(catalogue).model().findings;
const decide = (catalogue: Catalogue, given: Partial<Decision>): Catalogue => {
  const id = newId();
  const record = withDefaults("decision", {
    id,
    key: `d_${catalogue.records.decision.size}`,
    name: "Decision",
    ...given,
  });
  return must(catalogue, [{ op: "add", kind: "decision", record }]);
};
/** A decision about the only finding of a rule. */
function about(catalogue: Catalogue, rule: string, given: Partial<Decision> = {}): Catalogue {
  const [finding, ...more] = findings(catalogue).filter((f) => f.rule === rule);
  expect(more, rule).toEqual([]);
  return decide(catalogue, { ...targetOf(finding), ...given });
}
const open = (catalogue: Catalogue, today = TODAY) =>
  judge(catalogue, findings(catalogue), today).open.map((f) => `${f.rule}: ${f.about[0]?.name}`);
const accepted = (catalogue: Catalogue, today = TODAY) =>
  judge(catalogue, findings(catalogue), today).accepted.map((f) => `${f.rule}: ${f.about[0]?.name}`);

describe("an accepted finding", () => {
  const world = kitchen(BEGUN);

  it("is no longer open, however the record is renamed, and is open again without the decision", () => {
    expect(open(world)).toContain("dead-end: Eel");
    const decided = about(world, "dead-end");
    expect(open(decided)).not.toContain("dead-end: Eel");
    expect(accepted(decided)).toEqual(["dead-end: Eel"]);
    const eel = item(world, "Eel").id;
    const renamed = must(decided, [
      setField(decided, "item", eel, "name", "Silver eel"),
      setField(decided, "item", eel, "key", "silver_eel"),
    ]);
    expect(accepted(renamed)).toEqual(["dead-end: Silver eel"]);
    const [decision] = decided.records.decision.values();
    expect(open(must(decided, [{ op: "remove", kind: "decision", record: decision }]))).toContain("dead-end: Eel");
  });

  it("holds until the last day or revision it was accepted for", () => {
    const byDay = about(world, "dead-end", { untilDay: "2026-06-01" });
    expect(accepted(byDay, "2026-06-01")).toHaveLength(1);
    expect(accepted(byDay, "2026-06-02")).toEqual([]);
    const byRevision = about(world, "dead-end", { untilRevision: world.revision + 1 });
    expect(accepted(byRevision)).toHaveLength(1);
    const later = must(byRevision, [setField(byRevision, "item", item(world, "Salt").id, "description", "Grey.")]);
    expect(accepted(later)).toEqual([]);
    const finding = findings(later).find((f) => f.rule === "dead-end") as Finding;
    expect(new Decisions(later, TODAY).about(finding.fingerprint).lapsed).toBeDefined();
  });

  it("is back when its number is worse than what was accepted, and not when it is better", () => {
    // Two salt at 1 make one brick that costs 2 and sells for 1.
    const cheap = kitchen("buy Salt for 1\n2 Salt -> 1 Brick\nset Brick sell = 1");
    const [finding] = findings(cheap).filter((f) => f.rule === "price-below-cost");
    expect(finding.size).toBe(2);
    const decided = about(cheap, "price-below-cost", { atMost: finding.size });
    const brick = item(decided, "Brick").id;
    const priced = (sell: number) => accepted(must(decided, [setField(decided, "item", brick, "sell", sell)]));
    expect(accepted(decided)).toEqual(["price-below-cost: Brick"]);
    expect(priced(1.5)).toEqual(["price-below-cost: Brick"]);
    expect(priced(0.5)).toEqual([]);
    expect(standingOf({ untilDay: "", untilRevision: null, atMost: 2 }, 1, TODAY, 2 + 1e-12)).toBe("holds");
  });

  it("may be all of a check about the items of a type and of the types below it, or with a tag", () => {
    const [fare, smoked] = [newId(), newId()];
    const type = (id: Id, name: string, parent: Id | null): Edit => ({
      op: "add",
      kind: "type",
      record: withDefaults("type", { id, key: name.toLowerCase(), name, parent }),
    });
    const eel = item(world, "Eel").id;
    const typed = must(world, [
      type(fare, "Fare", null),
      type(smoked, "Smoked", fare),
      setField(world, "item", eel, "type", smoked),
    ]);
    expect(accepted(decide(typed, { rule: "dead-end", scope: "type", type: fare }))).toEqual(["dead-end: Eel"]);
    const above = must(typed, [setField(typed, "item", eel, "type", fare)]);
    expect(accepted(decide(above, { rule: "dead-end", scope: "type", type: smoked }))).toEqual([]);
    const fish = newId();
    const tagged = must(world, [
      { op: "add", kind: "tag", record: withDefaults("tag", { id: fish, key: "fish", name: "fish" }) },
      setField(world, "item", eel, "tags", [fish]),
    ]);
    expect(accepted(decide(tagged, { rule: "dead-end", scope: "tag", tag: fish }))).toEqual(["dead-end: Eel"]);
    expect(accepted(decide(tagged, { rule: "no-icon", scope: "tag", tag: fish }))).toEqual([]);
  });

  it("of a recipe counts as one of what the recipe makes first", () => {
    const loops = kitchen("gather Salt in 1s\nboil: 1 Salt -> 2 Brine\ndry: 1 Brine -> 1 Salt");
    const fish = newId();
    const brine = item(loops, "Brine").id;
    const tagged = must(loops, [
      { op: "add", kind: "tag", record: withDefaults("tag", { id: fish, key: "wet", name: "wet" }) },
      setField(loops, "item", brine, "tags", [fish]),
    ]);
    expect(recipe(tagged, "boil")).toBeDefined();
    expect(open(tagged)).toContain("gaining-loop: boil");
    expect(open(decide(tagged, { rule: "gaining-loop", scope: "tag", tag: fish }))).not.toContain("gaining-loop: boil");
  });

  it("that is only assigned stays open and has its person", () => {
    const decided = about(world, "dead-end", { what: "assigned", person: "Wren" });
    expect(open(decided)).toContain("dead-end: Eel");
    const { decisions } = judge(decided, [], TODAY);
    const print = printOfDecision([...decided.records.decision.values()][0]);
    expect(decisions.about(print).assigned?.person).toBe("Wren");
    expect(decisions.about("dead-end:other")).toEqual({});
  });

  it("is listed apart once no check reports it", () => {
    const decided = about(world, "dead-end");
    expect(withoutFinding(decided, findings(decided))).toEqual([]);
    const sold = must(decided, [setField(decided, "item", item(world, "Eel").id, "sell", 3)]);
    expect(withoutFinding(sold, findings(sold)).map((d) => d.rule)).toEqual(["dead-end"]);
  });

  it("is no news: neither when it appears nor when it goes", () => {
    const decided = about(world, "dead-end");
    const engine = new Engine(decided);
    const eel = item(world, "Eel").id;
    const sold = engine.change([setField(decided, "item", eel, "sell", 3)]);
    expect([sold.ripple?.drop, sold.ripple?.moved.closed]).toEqual([[`dead-end:${eel}`], 0]);
    const back = engine.change([setField(engine.catalogue, "item", eel, "sell", null)]);
    expect([back.ripple?.put.length, back.ripple?.moved.opened]).toEqual([1, 0]);
    expect(new Engine(decided).openCounts().warnings).toBe(new Engine(world).openCounts().warnings - 1);
  });
});

describe("a decision", () => {
  it("goes through a bundle by key, also when what it is about was removed", () => {
    const empty = emptyCatalogue(pantry());
    const demo = must(empty, planImport(empty, JSON.stringify(brackwater)).edits);
    const some = findings(demo).filter((f) => f.about.length > 0);
    let decided = demo;
    for (const finding of some.slice(0, 30)) {
      const target = targetOf(finding);
      expect(target, finding.message).not.toBeNull();
      decided = decide(decided, { ...target, person: "Wren", reason: "As intended." });
    }
    const gone = { kind: "item", id: newId() };
    decided = decide(decided, { rule: "dead-end", about: `${gone.kind}:${gone.id}` });
    const text = exportBundle(decided);
    expect(text).toContain('"about": "item:-"');
    const other = emptyCatalogue(pantry());
    const again = planImport(other, text);
    expect(again.issues.filter((i) => i.severity === "error")).toEqual([]);
    const copy = must(other, again.edits);
    expect(copy.records.item.size).toBe(demo.records.item.size);
    const judged = judge(copy, findings(copy), TODAY);
    const before = judge(decided, findings(decided), TODAY);
    expect(judged.accepted.map((f) => f.message).sort()).toEqual(before.accepted.map((f) => f.message).sort());
    expect(judged.accepted.length).toBeGreaterThanOrEqual(30);
    expect(exportBundle(copy)).toBe(text);
  });

  it("is about every finding of the demo that it is made for, and no other", () => {
    const empty = emptyCatalogue(pantry());
    const demo = must(empty, planImport(empty, JSON.stringify(brackwater)).edits);
    for (const finding of findings(demo)) {
      const target = targetOf(finding);
      if (target) expect(printOfDecision(target)).toBe(finding.fingerprint);
    }
  });

  it("is refused with a reason for an unknown check, a day that does not exist, or nothing to apply to", () => {
    const world = kitchen(BEGUN);
    const refused = (given: Partial<Decision>): string => {
      const record = withDefaults("decision", { id: newId(), key: "d", name: "D", rule: "dead-end", ...given });
      const { outcome } = new Engine(world).change([{ op: "add", kind: "decision", record }]);
      return outcome.ok ? "" : outcome.issues.map((i) => i.message).join(" ");
    };
    expect(refused({ about: `item:${newId()}` })).toBe("");
    expect(refused({ rule: "constructor" })).toMatch(/No check is called “constructor”/);
    expect(refused({ untilDay: "2026-02-30" })).toMatch(/“2026-02-30” isn't a day/);
    expect(refused({ scope: "type" })).toMatch(/Choose the type/);
    expect(refused({ scope: "tag" })).toMatch(/Choose the tag/);
    expect(refused({ about: "__proto__:abcdefghijkl" })).toMatch(/isn't a kind of record/);
    expect(refused({ about: "item:nope" })).toMatch(/isn't the id of a record/);
    expect(refused({ about: 5 as never })).toMatch(/Expected text/);
    expect(refused({ about: Array.from({ length: 201 }, () => `item:${newId()}`).join(", ") })).toMatch(
      /maximum is 200/,
    );
    expect([isDay("2024-02-29"), isDay("2025-02-29"), isDay("2025-1-1"), isDay("")]).toEqual([
      true,
      false,
      false,
      false,
    ]);
    expect(dayOf(new Date(2026, 0, 9, 23, 59))).toBe("2026-01-09");
  });
});

describe("what is new since a revision", () => {
  it("is what the checks find now and not then, and the engine is where it was afterwards", () => {
    const world = kitchen(BEGUN);
    const engine = new Engine(world);
    const eel = item(world, "Eel").id;
    const edits: Edit[] = [];
    const change = (make: (now: Catalogue) => Edit[]) => {
      const { outcome } = engine.change(make(engine.catalogue));
      if (outcome.ok) edits.push(...outcome.edits);
    };
    change((now) => [setField(now, "item", eel, "sell", 3)]);
    change((now) => [setField(now, "item", item(now, "Salt").id, "icon", null)]);
    change((now) => [setField(now, "item", eel, "description", "")]);
    const before = engine.model();
    const since = engine.since(edits);
    expect(since?.added.map((print) => print.split(":")[0]).sort()).toEqual(["no-description", "no-icon"]);
    expect(since?.gone.map((f) => f.message)).toEqual([
      "Eel is a dead end: no recipe takes it, no one buys it, and it has no use.",
    ]);
    expect(engine.model()).toEqual(before);
    expect(engine.since([])).toEqual({ added: [], gone: [], moreGone: 0 });
    // What was never done can't be taken back.
    const twice = { op: "remove", kind: "item", record: item(world, "Eel") } as const;
    expect(engine.since([twice])).toBeNull();
    expect(engine.model()).toEqual(before);
  });
});
