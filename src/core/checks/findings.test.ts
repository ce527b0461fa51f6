import { describe, expect, it } from "vitest";
import { follow } from "../testing/read-model";
import brackwater from "../../demo/brackwater-reach.json";
import { Engine } from "../engine/engine";
import { planImport } from "../exchange/read";
import { type Edit, setField } from "../catalogue/edit";
import { type Catalogue, emptyCatalogue, withRecords } from "../catalogue/catalogue";
import type { AnyRecord } from "../kinds/index";
import type { Id } from "../schema/id";
import { item, kitchen, must, newItem, pantry, recipe } from "../testing/kitchen";
import { type Finding, FindingCache, ref } from "./check";
import { Findings } from "./findings";
import { nearNames } from "./near-names";
import { CHECKS } from "./index";
import { severitiesOf } from "./severities";
import { written } from "./written";

const messages = (engine: Engine, rule: string) =>
  engine.model().findings.flatMap((f) => (f.rule === rule ? [f.message] : []));
const add = (record: AnyRecord): Edit => ({ op: "add", kind: "item", record });

describe("findings that are followed", () => {
  it("come and go with the groups that records join and leave", () => {
    const engine = new Engine(kitchen("gather Grey eel\ngather Salt"));
    expect(messages(engine, "near-names")).toEqual([]);
    const [second, third] = [newItem("grey  eel", { key: "eel_2" }), newItem("GREY EEL", { key: "eel_3" })];
    const first = engine.change([add(second)]).ripple;
    expect(first?.put.filter((f) => f.rule === "near-names")).toHaveLength(1);
    // A third one is another finding about the same name, in place of the first.
    const next = engine.change([add(third)]).ripple;
    expect(next?.drop).toHaveLength(1);
    expect(messages(engine, "near-names")).toEqual([
      expect.stringContaining(
        "grey  eel, GREY EEL and Grey eel differ only in case or spacing but are 3 different items.",
      ),
    ]);
    engine.change([setField(engine.catalogue, "item", third.id, "name", "Brown eel")]);
    expect(messages(engine, "near-names")).toEqual([
      expect.stringContaining("grey  eel and Grey eel differ only in case or spacing but are 2 different items."),
    ]);
    engine.change([{ op: "remove", kind: "item", record: engine.catalogue.records.item.get(second.id) as AnyRecord }]);
    expect(messages(engine, "near-names")).toEqual([]);
  });

  it("are counted as they are told, change after change", () => {
    const engine = new Engine(kitchen("gather Grey eel\ngather Salt\nSmoke: 2 Grey eel, 1 Peat -> 1 Smoked eel"));
    const agree = () => {
      const told = new Map<string, number>();
      for (const { rule } of engine.model().findings) told.set(rule, (told.get(rule) ?? 0) + 1);
      expect(new Map([...engine.counts()].sort())).toEqual(new Map([...told].sort()));
      return told;
    };
    expect(agree().size).toBeGreaterThan(1);
    engine.change([add(newItem("grey  eel", { key: "eel_2", status: "ready" }))]);
    expect(agree().get("near-names")).toBe(1);
    engine.change([setField(engine.catalogue, "item", item(engine.catalogue, "Salt").id, "name", "Tar")]);
    agree();
  });

  it("move with a recipe from one group to another", () => {
    const engine = new Engine(kitchen("gather A\ngather B\nOne: 2 A -> 1 X\nTwo: 2 A -> 1 Y\nThree: 2 B -> 1 Z"));
    expect(messages(engine, "same-inputs")).toEqual([expect.stringContaining("One and Two")]);
    const two = recipe(engine.catalogue, "Two");
    engine.change([
      setField(
        engine.catalogue,
        "recipe",
        two.id,
        "lines",
        recipe(engine.catalogue, "Three").lines.map((l) =>
          l.role === "output" ? { ...l, item: item(engine.catalogue, "Y").id } : l,
        ) as never,
      ),
    ]);
    expect(messages(engine, "same-inputs")).toEqual([expect.stringMatching(/Th?ree and T|Two and Three/)]);
    engine.change([setField(engine.catalogue, "recipe", two.id, "status", "retired")]);
    expect(messages(engine, "same-inputs")).toEqual([]);
  });

  it("are told apart where their common ground merely has the same number", () => {
    const catalogue = kitchen("gather Salt");
    const all = withRecords(catalogue, {
      item: catalogue.records.item.with(
        new Map(
          ["salt", "Tar", "tar", "Cork"].map((name, n) => [
            `twelve00000${n}` as Id,
            newItem(name, { id: `twelve00000${n}` as Id, key: `x${n}` }),
          ]),
        ),
      ),
    });
    const context = { catalogue: all, readings: new Engine(all).readings };
    const found = [...new Findings([nearNames], context, () => 1).all()];
    expect(found.map((f: Finding) => f.about.map((r) => r.name))).toEqual(
      [["Salt", "salt"].sort(), ["Tar", "tar"]].map((names) => expect.arrayContaining(names)),
    );
    expect(found).toHaveLength(2);
  });

  it("keep their fingerprint while only the numbers in the sentence move, and say so as put, not as new", () => {
    const engine = new Engine(kitchen("buy Salt for 4\nPickle: 2 Salt -> 1 Pickled eel"));
    const eel = item(engine.catalogue, "Pickled eel");
    const opened = engine.change([setField(engine.catalogue, "item", eel.id, "sell", 5)]).ripple;
    const [finding] = opened?.put ?? [];
    expect(opened?.moved.opened).toBeDefined();
    const cheaper = engine.change([setField(engine.catalogue, "item", eel.id, "sell", 3)]).ripple;
    expect(cheaper?.put.map((f) => f.fingerprint)).toEqual([finding.fingerprint]);
    expect(cheaper?.put[0].message).not.toBe(finding.message);
    expect(cheaper?.drop).toEqual([]);
    const fixed = engine.change([setField(engine.catalogue, "item", eel.id, "sell", 9)]).ripple;
    expect(fixed?.drop).toEqual([finding.fingerprint]);
  });

  it("say other names when those move, of what they are about and of what they only mention", () => {
    const engine = new Engine(
      kitchen("gather Eel\nOne: 2 Eel -> 1 Pie\nTwo: 2 Eel -> 1 Broth\nLoop: 1 Rope -> 2 Rope + 1 Oakum"),
    );
    const messages = () =>
      engine
        .model()
        .findings.flatMap((f) => [f.message, ...f.fixes.map((x) => x.message)])
        .join("\n");
    expect(messages()).toContain("2 Eel make two different items");
    expect(messages()).toContain("1 Oakum");
    for (const [from, to] of [
      ["Eel", "Grey eel"],
      ["Oakum", "Old rope"],
      ["Pie", "Eel pie"],
    ]) {
      engine.change([setField(engine.catalogue, "item", item(engine.catalogue, from).id, "name", to)]);
      expect(engine.model().findings).toEqual(new Engine(engine.catalogue).model().findings);
    }
    expect(messages()).toContain("2 Grey eel make two different items");
    expect(messages()).toContain("1 Old rope");
  });

  it("name records only; their lines are written by the names of the moment", () => {
    const catalogue = kitchen("gather A\nOne: 2 A -> 1 X\nTwo: 2 A -> 1 Y");
    const lines = (c: Catalogue) =>
      new Engine(c)
        .model()
        .findings.flatMap((f) => (f.evidence.type === "lines" ? f.evidence.recipes.map((r) => written(c, r)) : []));
    expect(lines(catalogue)).toEqual(["One: 2 A -> 1 X", "Two: 2 A -> 1 Y"]);
    // Another item of that name: it can only be written by its key now.
    expect(lines(must(catalogue, [add(newItem("x", { key: "other" }))]))[0]).toBe("One: 2 A -> 1 X");
    expect(lines(must(catalogue, [add(newItem("X", { key: "other" }))]))[0]).toBe("One: 2 A -> 1 x");
  });

  it("keep the name that is used most, as uses come, teach and retire", () => {
    const engine = new Engine(
      kitchen(
        "gather Salt eel\ngather Flour\nPie: 1 Salt eel -> 1 Pie\nOne: 1 Flour -> 1 Bread\nTwo: 2 Flour -> 1 Cake\nThree: 3 Flour -> 1 Bun",
      ),
    );
    const other = newItem("Salteel", { key: "other" });
    let { ripple } = engine.change([add(other)]);
    let model = engine.model();
    const three = (field: string, to: string) =>
      ["One", "Two", "Three"].map((name) =>
        setField(engine.catalogue, "recipe", recipe(engine.catalogue, name).id, field, to),
      );
    const keeps = () =>
      model.findings.flatMap((f) =>
        f.fixes.flatMap((x) => (x.do === "merge" ? [engine.catalogue.records.item.get(x.keep)?.name] : [])),
      );
    expect(keeps()).toEqual(["Salt eel"]);
    for (const [field, to, kept] of [
      ["taughtBy", other.id, "Salteel"],
      ["status", "retired", "Salt eel"],
      ["status", "ready", "Salteel"],
    ]) {
      ({ ripple } = engine.change(three(field, to)));
      model = follow(model, ripple as NonNullable<typeof ripple>);
      expect(keeps()).toEqual([kept]);
      expect(model).toEqual(new Engine(engine.catalogue).model());
    }
  });

  it("say what a purchase and a sale are for", () => {
    const catalogue = kitchen("buy Salt for 1.5\nPot: 2 Salt -> 1 Brine");
    const priced = must(catalogue, [setField(catalogue, "item", item(catalogue, "Brine").id, "sell", 7.5)]);
    const loop = new Engine(priced).model().findings.find((f) => f.rule === "gaining-loop")?.evidence;
    expect(loop?.type === "loop" && loop.runs.map((r) => written(priced, r.of)).sort()).toEqual([
      "Pot: 2 Salt -> 1 Brine",
      "buy 1 Salt for 1.50",
      "sell 1 Brine for 7.50",
    ]);
    const places = kitchen("gather 2 Eel\nbuy Salt for 3");
    const told = [...places.records.source.values()].map((s) =>
      written(places, { kind: "source", id: s.id, key: s.key, name: s.name }),
    );
    expect(told).toEqual(["gather 2 Eel", "buy 1 Salt for 3.00"]);
    const [salt] = [...places.records.source.values()].slice(1);
    const ware = {
      item: salt.lines[0].item as Id,
      amount: 2,
      price: 5,
      currency: null,
      stock: null,
      restock: null,
      level: null,
    };
    const shop = must(places, [
      setField(places, "source", salt.id, "lines", [] as never),
      setField(places, "source", salt.id, "wares", [ware] as never),
    ]);
    expect(written(shop, { kind: "source", id: salt.id, key: salt.key, name: salt.name })).toBe("buy 2 Salt for 5.00");
    expect(written(priced, { kind: "tag", id: "000000000000" as Id, key: "gone", name: "gone" })).toBe("gone");
  });

  it("hold one check as well as all of them", () => {
    const catalogue = kitchen("1 Ghost -> 1 Lens\nbuy Rope for 2\nTie: 2 Rope -> 1 Net\nsalvage Net -> 3 Rope");
    const { readings } = new Engine(catalogue);
    const all = [...new Findings(CHECKS, { catalogue, readings }).all()].map((f) => f.fingerprint).sort();
    const each = CHECKS.flatMap((check) =>
      [...new Findings([check], { catalogue, readings }).all()].map((f) => f.fingerprint),
    ).sort();
    expect(each).toEqual(all);
    expect(new Set(all).size).toBe(all.length);
    expect(all.length).toBeGreaterThan(3);
  });
});

describe("a check that gives a number for what it says", () => {
  const marking = CHECKS.flatMap((check) => ("per" in check && check.mark ? [check] : []));
  const empty = emptyCatalogue(pantry());
  const demo = must(empty, planImport(empty, JSON.stringify(brackwater)).edits);

  it("gives one where it finds something, and another wherever that says something else", () => {
    expect(marking.map((c) => c.id)).toEqual(expect.arrayContaining(["no-icon", "no-description"]));
    const engine = new Engine(demo);
    const { readings } = engine;
    for (const check of marking) {
      const said = new Map<number, string>();
      for (const kind of check.per)
        for (const record of demo.records[kind].values()) {
          const context = { catalogue: demo, readings, told: new FindingCache(), severities: severitiesOf(demo) };
          const found = [...check.at(context, record as never, kind)];
          const mark = check.mark?.(record as never, context);
          expect(found.length, `${check.id} of ${record.name}`).toBe(mark === null ? 0 : 1);
          for (const { subject, with: others } of found) {
            expect([subject, others]).toEqual([ref(demo, kind, record.id), undefined]);
            said.set(mark as number, JSON.stringify(found));
          }
          if (mark !== null) expect(JSON.stringify(found)).toBe(said.get(mark as number));
        }
      expect(said.size).toBeGreaterThan(0);
    }
  });

  it("tells it again after a new name, and drops it when it is fixed", () => {
    const engine = new Engine(kitchen("gather Grey eel"));
    const eel = item(engine.catalogue, "Grey eel").id;
    const bare = ["no-description", "no-icon"];
    const told = (edits: readonly Edit[]) =>
      engine.change(edits).ripple?.put.flatMap((f) => (bare.includes(f.rule) ? [f.message] : []));
    const set = (field: string, value: unknown) => setField(engine.catalogue, "item", eel, field, value as never);
    expect(told([set("description", ""), set("icon", null)])).toHaveLength(2);
    expect(told([set("name", "River eel")])).toEqual(["River eel has no description.", "River eel has no icon."]);
    // Found again after a change of the whole pantry, it is still there and is not told again.
    const anew = engine.change([setField(engine.catalogue, "pantry", engine.catalogue.pantry.id, "labourPerHour", 5)]);
    expect(anew.outcome.ok).toBe(true);
    expect(anew.ripple?.drop.filter((print) => bare.includes(print.split(":")[0]))).toEqual([]);
    expect(anew.ripple?.put.filter((f) => bare.includes(f.rule))).toEqual([]);
    // What changes nothing of what they say is not told again.
    expect(told([set("sell", 3)])).toEqual([]);
    expect(engine.change([set("description", "Slow and fat.")]).ripple?.drop).toContain(`no-description:${eel}`);
  });
});
