import { describe, expect, it } from "vitest";
import { readingsOf } from "../analysis/readings";
import type { Catalogue } from "../catalogue/catalogue";
import { type Edit, setField } from "../catalogue/edit";
import { item, kitchen, line, must, newItem, recipe } from "../testing/kitchen";
import { newId } from "../schema/id";
import { CHECK_SETTINGS, RULE_IDS } from "../checklist/index";
import { addRecipes, wordsOf } from "../editing/recipes";
import { Engine } from "../engine/engine";
import { definition, withDefaults } from "../kinds/index";
import { readLines } from "../notation/text";
import { CHECKS, findingsOf } from "./index";
import { editsOf } from "./fixes";
import { NOT_BEGUN } from "./not-begun";

const find = (catalogue: Catalogue, rule: string) =>
  findingsOf(catalogue, readingsOf(catalogue)).filter((f) => f.rule === rule);
const messages = (catalogue: Catalogue, rule: string) => find(catalogue, rule).map((f) => f.message);

/** Applies the n-th ready-made fix of the only finding of a rule and returns what the rule still says. */
function fixed(catalogue: Catalogue, rule: string, n = 0): string[] {
  const [finding] = find(catalogue, rule);
  const fix = finding.fixes[n];
  if (fix.do === "open") throw new Error(`fix ${n} of ${rule} only opens a record`);
  return messages(must(catalogue, editsOf(catalogue, fix)), rule);
}

const clean =
  "gather Eel in 20s\nbuy Salt for 1\n2 Eel + 1 Salt -> 1 Smoked eel in 30s\nsalvage Smoked eel -> 1 Eel 40%";

describe("checks", () => {
  it("find nothing in a clean pantry", () => {
    const catalogue = kitchen(clean);
    const priced = must(catalogue, [setField(catalogue, "item", item(catalogue, "Smoked eel").id, "sell", 500)]);
    expect(findingsOf(priced, readingsOf(priced))).toEqual([]);
  });

  it("have ids of their own and say at least one way to fix for every finding", () => {
    expect(new Set(CHECKS.map((c) => c.id)).size).toBe(CHECKS.length);
    const messy = kitchen(
      `${clean}\n1 Ghost -> 1 Eel pie\nX: 1 Loop a -> 2 Loop b\nY: 1 Loop b -> 1 Loop a\n1 Eel -> 1 Shed at Shed\n1 Eel -> 1 eelpie 150%`,
    );
    const findings = findingsOf(messy, readingsOf(messy)).filter((f) => !NOT_BEGUN.includes(f.rule));
    expect(findings.length).toBeGreaterThan(7);
    for (const f of findings) expect(f.fixes.length, f.message).toBeGreaterThan(0);
    expect(new Set(findings.map((f) => f.fingerprint)).size).toBe(findings.length);
  });

  it("stand in the checklist, in its order, each with settings that are a pantry's", () => {
    expect(CHECKS.map((c) => c.id)).toEqual(RULE_IDS);
    expect(Object.keys(CHECK_SETTINGS)).toEqual([
      "priceFloor",
      "salvageCeiling",
      "uptimeCeiling",
      "crateFloor",
      "crateCeiling",
      "wareTimes",
      "combinationOrder",
    ]);
    for (const [name, field] of Object.entries(CHECK_SETTINGS)) expect(definition("pantry").fields[name]).toBe(field);
  });

  it("know a finding again by its subject, whoever else comes to be named in it", () => {
    const one = kitchen(`${clean}\n1 Tar + 1 Eel -> 1 Tarred eel`);
    const tar = must(one, [setField(one, "item", item(one, "Tar").id, "status", "ready")]);
    const two = must(
      tar,
      addRecipes(
        tar,
        readLines("2 Tar -> 1 Pitch", wordsOf(tar)).map((l) => l.parsed),
      ),
    );
    const [before, after] = [find(tar, "missing-input"), find(two, "missing-input")];
    expect([before.length, after.length]).toEqual([1, 1]);
    expect(after[0].about.length).toBe(before[0].about.length + 1);
    expect(after[0].message).not.toBe(before[0].message);
    expect(after[0].fingerprint).toBe(before[0].fingerprint);
  });

  it("report a stub that is used, until someone defines it, and offer the name that was meant", () => {
    const catalogue = kitchen(clean);
    const stub = newItem("Smokd eel", { status: "stub" });
    const broken = must(catalogue, [
      { op: "add", kind: "item", record: stub },
      setField(catalogue, "recipe", recipe(catalogue, "Salvage smoked eel").id, "lines", [
        line("ingredient", stub.id),
        line("output", item(catalogue, "Eel").id, 1, 1, 0.4),
      ] as never),
    ]);
    expect(messages(broken, "stub-in-use")).toEqual([
      "Smokd eel is used by 1 recipe but is only a stub without a definition.",
    ]);
    expect(fixed(broken, "stub-in-use", 1)).toEqual([]);
    expect(messages(must(broken, [setField(broken, "item", stub.id, "status", "draft")]), "stub-in-use")).toEqual([]);
  });

  it("report an input that nothing provides, and what that puts out of reach", () => {
    const catalogue = kitchen(`${clean}\n1 Ship's glass -> 1 Lens\n2 Lens -> 1 Spyglass`);
    expect(messages(catalogue, "missing-input")).toEqual([
      "Ship's glass is needed by 1 recipe, but nothing makes, gathers or sells it.",
    ]);
    expect(messages(catalogue, "unobtainable")).toEqual([
      "Lens is unobtainable: give Ship's glass a source.",
      "Ship's glass is unobtainable: nothing makes, gathers or sells it.",
      "Spyglass is unobtainable: give Ship's glass a source, or make Lens obtainable.",
    ]);
    expect(fixed(catalogue, "missing-input")).toEqual([]);
  });

  it("report a loop with no way in, and a station that needs itself, each once", () => {
    const stuck = kitchen("1 Adze -> 1 Boat\n1 Boat -> 1 Adze");
    expect(messages(stuck, "stuck-loop")).toEqual([
      "Adze and Boat can only be made from each other, so the first one can't be made.",
    ]);
    expect(messages(stuck, "needs-itself")).toEqual([]);
    expect(fixed(stuck, "stuck-loop")).toEqual([]);
    const self = kitchen("gather Timber\n4 Timber -> 1 Boatshed at Boatshed");
    expect(messages(self, "needs-itself")).toEqual([
      "Boatshed can only be made with Boatshed itself, so the first one can't be made.",
    ]);
    expect(messages(self, "stuck-loop")).toEqual([]);
    expect(fixed(self, "needs-itself")).toEqual([]);
  });

  it("prove a gaining loop, and offer a mildest change that closes it", () => {
    const catalogue = kitchen("gather Eel\nSmoke: 2 Eel -> 1 Smoked eel\nPick apart: salvage Smoked eel -> 3 Eel");
    const [finding] = find(catalogue, "gaining-loop");
    expect(finding.message).toBe("2 recipes give 1 Eel from nothing every round: Smoke once and Pick apart once.");
    expect(finding.evidence).toMatchObject({ type: "loop", chance: 1, live: true, net: [{ amount: "1" }] });
    expect(finding.fixes[0].message).toBe("Pick apart: give 2 Eel instead of 3");
    for (const n of [0, 1, 2]) expect(fixed(catalogue, "gaining-loop", n)).toEqual([]);
  });

  it("report a price below cost, with the price that would do", () => {
    const catalogue = kitchen("buy Salt for 2\n3 Salt -> 1 Salt lick");
    const priced = must(catalogue, [setField(catalogue, "item", item(catalogue, "Salt lick").id, "sell", 5)]);
    expect(messages(priced, "price-below-cost")).toEqual(["Salt lick sells for 5.00 but costs 6.00 to make."]);
    expect(fixed(priced, "price-below-cost")).toEqual([]);
    expect(
      messages(
        must(catalogue, [setField(catalogue, "item", item(catalogue, "Salt lick").id, "sell", 6)]),
        "price-below-cost",
      ),
    ).toEqual([]);
  });

  it("report salvage worth more than the item, priced without salvage", () => {
    const catalogue = kitchen("buy Rope for 4\nbuy Crate for 10\nsalvage Crate -> 3 Rope");
    expect(messages(catalogue, "salvage-over-cost")).toEqual([
      "Salvaging Crate returns 12.00 on average; it cost 10.00, 120% of it.",
    ]);
    expect(fixed(catalogue, "salvage-over-cost")).toEqual([]);
    expect(messages(kitchen("buy Crate for 10\nsalvage Crate -> 3 Rope + 1 Brass"), "salvage-over-cost")).toEqual([]);
    expect(messages(kitchen("buy Rope for 5\nbuy Crate for 10\nsalvage Crate -> 2 Rope"), "salvage-over-cost")).toEqual(
      [],
    );
  });

  it("report the same inputs for different results, unless station, tool or amounts tell them apart", () => {
    const base = "gather Rope\ngather Tar\n2 Rope + 1 Tar -> 1 Fender";
    expect(messages(kitchen(`${base}\n1 Tar + 2 Rope -> 1 Mop`), "same-inputs")).toEqual([
      "2 Rope and 1 Tar make two different items: Fender and Mop.",
    ]);
    for (const other of [
      "2 Rope + 1 Tar -> 1 Mop at Ropewalk",
      "2 Rope + 1 Tar -> 1 Mop using Knife",
      "3 Rope + 1 Tar -> 1 Mop",
      "2 Rope + 1 Tar -> 1 Fender",
    ])
      expect(messages(kitchen(`${base}\n${other}`), "same-inputs")).toEqual([]);
  });

  it("report names that differ only in case or spacing, and merge them", () => {
    const catalogue = kitchen("gather Eel skin");
    const twin = must(catalogue, [{ op: "add", kind: "item", record: newItem("Eelskin", { key: "eelskin_2" }) }]);
    expect(messages(twin, "near-names")).toEqual([
      "Eel skin and Eelskin differ only in case or spacing but are 2 different items.",
    ]);
    expect(fixed(twin, "near-names")).toEqual([]);
  });

  it.each([
    ["1 Eel -> 1 Skin 150%", "Skin has Skin with a chance of 150%; the maximum is 100%."],
    ["1 Eel -> 1 Skin 0%", "Skin has Skin with a chance of 0%, so it never happens."],
    ["1 Eel -> 3..1 Skin", "Skin has Skin with a range of 3 to 1, which is reversed."],
    ["0 Eel -> 1 Skin", "Skin has Eel with a quantity of 0."],
  ])("report numbers out of range in %s", (row, sentence) => {
    const catalogue = kitchen(`gather Eel\n${row}`);
    expect(messages(catalogue, "out-of-range")).toEqual([sentence]);
    expect(fixed(catalogue, "out-of-range")).toEqual([]);
  });

  it("leave retired recipes alone", () => {
    const catalogue = kitchen("gather Eel\nSmoke: 2 Eel -> 1 Smoked eel\nPick apart: salvage Smoked eel -> 3 Eel");
    expect(
      messages(
        must(catalogue, [setField(catalogue, "recipe", recipe(catalogue, "Pick apart").id, "status", "retired")]),
        "gaining-loop",
      ),
    ).toEqual([]);
  });

  it("find a stat outside its range on an item and on a type, and after the range was narrowed", () => {
    const vigour = withDefaults("stat", { id: newId(), key: "vigour", name: "Vigour", form: "whole", min: 0, max: 50 });
    const fare = withDefaults("type", { id: newId(), key: "fare", name: "Fare", stats: { [vigour.id]: 60 } });
    const start = must(kitchen(clean), [
      { op: "add", kind: "stat", record: vigour },
      { op: "add", kind: "type", record: fare },
    ]);
    const eel = item(start, "Eel").id;
    const catalogue = must(start, [setField(start, "item", eel, `stats.${vigour.id}`, 40)]);
    expect(messages(catalogue, "stat-out-of-range")).toEqual(["Fare has Vigour 60, but it must be at most 50."]);
    expect(fixed(catalogue, "stat-out-of-range")).toEqual([]);

    const engine = new Engine(catalogue);
    const narrower = [setField(catalogue, "stat", vigour.id, "max", 30)];
    const narrowed = must(catalogue, narrower);
    engine.follow(narrowed, narrower);
    const found = engine.model().findings.filter((f) => f.rule === "stat-out-of-range");
    expect(found.map((f) => f.message).sort()).toEqual([
      "Eel has Vigour 40, but it must be at most 30.",
      "Fare has Vigour 60, but it must be at most 30.",
    ]);
    expect(found).toEqual(find(narrowed, "stat-out-of-range"));
  });

  it("find a tag that recipes ask for and nothing has, and follow who gets it", () => {
    const bare = kitchen("gather Grain\nMill: 1 Grain -> 1 Meal at any quern");
    expect(messages(bare, "nothing-tagged")).toEqual(["No item has the tag quern, but Mill takes any quern."]);
    const engine = new Engine(bare);
    const tag = [...bare.records.tag.keys()][0];
    const grain = item(bare, "Grain").id;
    const told = () => engine.model().findings.flatMap((f) => (f.rule === "nothing-tagged" ? [f.message] : []));
    const change = (edits: readonly Edit[]) => engine.change(edits).outcome.ok;
    expect(change([setField(engine.catalogue, "item", grain, "tags", [tag])])).toBe(true);
    expect(told()).toEqual([]);
    expect(change([setField(engine.catalogue, "item", grain, "status", "retired")])).toBe(true);
    expect(told()).toHaveLength(1);
    expect(change([setField(engine.catalogue, "recipe", recipe(bare, "Mill").id, "status", "retired")])).toBe(true);
    expect(told()).toEqual([]);
  });

  it("find what comes beside a result in more than a stack, and follow the stack and the recipe", () => {
    const heap = kitchen("gather Shell\nCrush: 1 Shell -> 1 Lime + 20..60 Grit\nShake: 1 Shell -> 60 Grit + 1 Lime");
    const grit = item(heap, "Grit").id;
    const tight = must(heap, [setField(heap, "item", grit, "stack", 50)]);
    expect(messages(heap, "over-stack")).toEqual([]);
    expect(messages(tight, "over-stack")).toEqual(["Crush gives up to 60 Grit as a by-product, but a stack holds 50."]);
    expect(fixed(tight, "over-stack")).toEqual([]);
    const engine = new Engine(heap);
    const told = () => engine.model().findings.filter((f) => f.rule === "over-stack").length;
    const change = (edits: readonly Edit[]) => expect(engine.change(edits).outcome.ok).toBe(true);
    change([setField(engine.catalogue, "item", grit, "stack", 50)]);
    expect(told()).toBe(1);
    // The same on average: no cost moves, and yet it fits.
    const crush = recipe(heap, "Crush");
    const even = crush.lines.map((l) => (l.item === grit ? { ...l, min: 40, max: 40 } : l));
    change([setField(engine.catalogue, "recipe", crush.id, "lines", even as never)]);
    expect(told()).toBe(0);
  });

  it("find a retired item that is still needed or given, but not one that is only taken apart", () => {
    const catalogue = kitchen(clean);
    const retire = (name: string) =>
      must(catalogue, [setField(catalogue, "item", item(catalogue, name).id, "status", "retired")]);
    expect(messages(retire("Eel"), "retired-in-use")).toEqual([
      "Eel is retired, but 1 recipe needs it, 1 recipe makes it and 1 source gives it.",
    ]);
    expect(fixed(retire("Smoked eel"), "retired-in-use")).toEqual([]);
    const old = retire("Smoked eel");
    const unmade = must(old, [setField(old, "recipe", recipe(old, "Smoked eel").id, "status", "retired")]);
    expect(messages(unmade, "retired-in-use")).toEqual([]);
  });

  it("find rarities of one rank, and a higher one of which less is expected", () => {
    const rarity = (name: string, rank: number, power: number, price: number) =>
      ({
        op: "add",
        kind: "rarity",
        record: withDefaults("rarity", { id: newId(), key: name.toLowerCase(), name, rank, power, price }),
      }) as const;
    const start = must(kitchen(clean), [rarity("Daily", 1, 1, 1), rarity("Sound", 2, 2, 2)]);
    expect(messages(start, "rarity-ladder")).toEqual([]);
    const wrong = must(start, [rarity("Prized", 2, 3, 3), rarity("Storied", 4, 4, 1.5)]);
    expect(messages(wrong, "rarity-ladder")).toEqual([
      "Sound and Prized have the same rank, 2.",
      "Storied ranks above Prized, but its price factor is lower: 1.5 against 3.",
      "Storied ranks above Sound, but its price factor is lower: 1.5 against 2.",
    ]);
  });

  it("find colours that are lost by day or by night, and offer one that is not", () => {
    const type = (name: string, colour: string) =>
      ({
        op: "add",
        kind: "type",
        record: withDefaults("type", { id: newId(), key: name.toLowerCase(), name, colour }),
      }) as const;
    const lost = (colour: string) => must(kitchen(clean), [type("Kelp", "#2c6e8f"), type("Foam", colour)]);
    expect(find(lost("#fdfdfd"), "faint-colour").map((f) => f.about[0].name)).toEqual(["Foam"]);
    expect(find(lost("#10202a"), "faint-colour")).toHaveLength(1);
    expect(fixed(lost("#fdfdfd"), "faint-colour")).toEqual([]);
    expect(fixed(lost("#10202a"), "faint-colour")).toEqual([]);
  });

  it("find names that are the same but for spacing in every kind of record", () => {
    const slot = (name: string, key: string) =>
      ({ op: "add", kind: "slot", record: withDefaults("slot", { id: newId(), key, name }) }) as const;
    const catalogue = must(kitchen(clean), [slot("Left hand", "left"), slot("lefthand", "left_2")]);
    expect(messages(catalogue, "near-names")).toEqual([
      "Left hand and lefthand differ only in case or spacing but are 2 different slots.",
    ]);
  });
});
