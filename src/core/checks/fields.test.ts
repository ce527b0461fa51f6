/** The checks of what items must have: fields, stats, links, and what players see. */
import { describe, expect, it } from "vitest";
import type { Catalogue } from "../catalogue/catalogue";
import { setField } from "../catalogue/edit";
import { Engine } from "../engine/engine";
import { readingsOf } from "../analysis/readings";
import { type AnyRecord, type Item, type Kind, withDefaults } from "../kinds/index";
import { type Id, newId } from "../schema/id";
import { item, kitchen, must } from "../testing/kitchen";
import { findingsOf } from "./index";
import { editsOf } from "./fixes";
import { NOT_BEGUN } from "./not-begun";

const add = (kind: Kind, record: object) => ({ op: "add" as const, kind, record: record as AnyRecord });
const made = <K extends Kind>(kind: K, name: string, given: object = {}) =>
  withDefaults(kind, { id: newId(), key: name.toLowerCase(), name, ...given } as never);

const smell = made("field", "Smell", { form: "choice", options: ["salty", "smoky"] });
const keeps = made("field", "Keeps", { form: "whole", everywhere: false, min: 0, max: 100 });
const pairs = made("field", "Pairs", { form: "link", to: "item" });
const bite = made("stat", "Bite");
const heft = made("stat", "Heft");

/** A smoked eel that says everything it must. */
function world(): { catalogue: Catalogue; eel: Id; salt: Id; preserve: Id } {
  const before = kitchen(
    "gather Eel in 20s\nbuy Salt for 1\n2 Eel + 1 Salt -> 1 Smoked eel in 30s\nsalvage Smoked eel -> 1 Eel 40%",
  );
  const preserve = made("type", "Preserve", {
    icon: "crock",
    takes: { [keeps.id]: { required: true, min: 10, max: 50 } },
    measures: { [bite.id]: { required: true, min: null, max: 9 } },
  });
  const eel = item(before, "Smoked eel").id;
  const catalogue = must(before, [
    ...[smell, keeps, pairs].map((record) => add("field", record)),
    ...[bite, heft].map((record) => add("stat", record)),
    add("type", preserve),
    ...[
      ["type", preserve.id],
      [`own.${keeps.id}`, 20],
      [`own.${smell.id}`, "smoky"],
      [`stats.${bite.id}`, 3],
    ].map(([path, to]) => setField(before, "item", eel, path as string, to as never)),
    setField(before, "item", item(before, "Salt").id, `stats.${heft.id}`, 1),
  ]);
  return { catalogue, eel, salt: item(catalogue, "Salt").id, preserve: preserve.id };
}
const found = (catalogue: Catalogue) => findingsOf(catalogue, readingsOf(catalogue));
const messages = (catalogue: Catalogue) =>
  found(catalogue).flatMap((f) => (NOT_BEGUN.includes(f.rule) ? [] : [`${f.rule}: ${f.message}`]));
const set = (catalogue: Catalogue, id: Id, path: string, to: unknown, kind: Kind = "item") =>
  must(catalogue, [setField(catalogue, kind, id, path, to as never)]);

describe("checks of what items have", () => {
  it("find nothing where everything is said as asked", () => {
    expect(messages(world().catalogue)).toEqual([]);
  });

  it("find what is required and empty, of fields and of stats", () => {
    const { catalogue, eel } = world();
    expect(messages(set(set(catalogue, eel, `own.${keeps.id}`, null), eel, `stats.${bite.id}`, null))).toEqual(
      [
        "field-empty: Smoked eel has no Bite, which every ready item of its type requires.",
        "field-empty: Smoked eel has no Keeps, which every ready item of its type requires.",
        "orphan: Nothing uses the stat Bite.",
      ].slice(0, 2),
    );
    expect(messages(set(set(catalogue, eel, `own.${keeps.id}`, null), eel, "status", "draft"))).toEqual([]);
  });

  it("find a value that two records share in a unique field, whatever its case, until one has another", () => {
    const { catalogue, eel, salt } = world();
    const stall = made("field", "Stall", { form: "text", unique: true });
    const both = [eel, salt].reduce(
      (c, id, n) => set(c, id, `own.${stall.id}`, n ? "quay 7" : "Quay 7"),
      must(catalogue, [add("field", stall)]),
    );
    expect(messages(both)).toEqual(["field-twice: Salt and Smoked eel have the same Stall: quay 7."]);
    expect(messages(set(both, salt, `own.${stall.id}`, "Quay 8"))).toEqual([]);
    expect(messages(set(both, salt, "name", "Bay salt"))).toEqual([
      "field-twice: Bay salt and Smoked eel have the same Stall: quay 7.",
    ]);
    expect(messages(set(both, stall.id, "unique", false, "field"))).toEqual([]);
  });

  it("say once what very many share, and follow an edit of one of them", () => {
    const stall = made("field", "Stall", { form: "text", unique: true });
    const crates = Array.from({ length: 5_000 }, (_, n) =>
      add("item", made("item", `Crate ${n}`, { key: `crate_${n}`, status: "ready", own: { [stall.id]: "Quay 7" } })),
    );
    const engine = new Engine(must(kitchen("gather Eel in 20s"), [add("field", stall), ...crates]));
    expect(engine.counts().get("field-twice")).toBe(1);
    const one = item(engine.catalogue, "Crate 17");
    const { ripple } = engine.change([setField(engine.catalogue, "item", one.id, `own.${stall.id}`, "Quay 8")]);
    expect(ripple?.put.map((f) => f.message)).toEqual(["Crate 0, Crate 1 and 4997 more have the same Stall: Quay 7."]);
  });

  it("find a value beyond the range of its type, or of its field, and bring it back into it", () => {
    const { catalogue, eel, preserve } = world();
    const beyond = set(catalogue, eel, `own.${keeps.id}`, 60);
    expect(messages(beyond)).toEqual([
      "value-out-of-range: Smoked eel has Keeps 60, but items of type Preserve must have at most 50.",
    ]);
    const [finding] = found(beyond);
    expect(messages(must(beyond, editsOf(beyond, finding.fixes[0])))).toEqual([]);
    const wide = set(beyond, preserve, `takes.${keeps.id}`, { required: true, min: null, max: null }, "type");
    expect(messages(wide)).toEqual([]);
    expect(messages(set(wide, eel, `own.${keeps.id}`, 101))[0]).toMatch(
      /^value-out-of-range: Smoked eel has Keeps 101, but it must have at most 100\.$/,
    );
    expect(messages(set(catalogue, eel, `stats.${bite.id}`, 12))[0]).toMatch(
      /^value-out-of-range: Smoked eel has Bite 12, but items of type Preserve must have at most 9\.$/,
    );
  });

  it("find a choice whose word is gone, and offer the nearest", () => {
    const { catalogue, eel } = world();
    const gone = set(catalogue, smell.id, "options", ["salty", "smokey"], "field");
    expect(messages(gone)).toEqual(["choice-gone: Smoked eel has Smell “smoky”, which is no longer an option."]);
    const [finding] = found(gone);
    expect(item(must(gone, editsOf(gone, finding.fixes[0])), "Smoked eel").own[smell.id]).toBe("smokey");
    expect(messages(must(gone, editsOf(gone, finding.fixes[1])))).toEqual([]);
    expect(eel).toBe(item(gone, "Smoked eel").id);
  });

  it("find a link to a retired item, or to one of another type than the field asks for", () => {
    const { catalogue, eel, salt, preserve } = world();
    const linked = set(catalogue, eel, `own.${pairs.id}`, [{ kind: "item", id: salt, amount: 1 }]);
    expect(messages(linked)).toEqual([]);
    expect(messages(set(linked, pairs.id, "ofType", preserve, "field"))).toEqual([
      "link-astray: Smoked eel names Salt as Pairs, but it is not a Preserve.",
    ]);
    expect(messages(set(linked, salt, "status", "retired")).filter((s) => s.startsWith("link"))).toEqual([
      "link-astray: Smoked eel names Salt as Pairs, but it is retired.",
    ]);
  });

  it("find a stat or field that the type does not take, and take it off", () => {
    const { catalogue, eel, salt } = world();
    const more = set(set(catalogue, eel, `stats.${heft.id}`, 2), salt, `own.${keeps.id}`, 20);
    expect(messages(more)).toEqual([
      "not-of-type: Salt has a value for Keeps, but it has no type with it.",
      "not-of-type: Smoked eel has a value for Heft, but Preserve does not have it.",
    ]);
    expect(messages(found(more).reduce((c, f) => must(c, f.fixes.length ? editsOf(c, f.fixes[0]) : []), more))).toEqual(
      [],
    );
  });

  it("find what is good for nothing, used by nothing, not described or without a picture", () => {
    const { catalogue, eel } = world();
    const extra = must(catalogue, [add("tag", made("tag", "Odd")), add("slot", made("slot", "Belt"))]);
    expect(messages(extra)).toEqual([
      "slot-unfit: No item is worn on Belt.",
      "orphan: The tag Odd is not used anywhere.",
    ]);
    expect(messages(set(set(catalogue, eel, "description", " "), eel, "icon", null))).toEqual([
      "no-description: Smoked eel has no description.",
    ]);
    const salt = item(catalogue, "Salt").id;
    expect(messages(set(catalogue, salt, "icon", null))).toEqual(["no-icon: Salt has no icon."]);
    const begun = kitchen("gather Eel in 20s\nbuy Salt for 1\nSalt -> 2 Brine");
    const idle = set(begun, item(begun, "Brine").id, "sell", 0.5);
    expect(messages(idle).filter((s) => !s.startsWith("orphan"))).toEqual([
      "dead-end: Eel is a dead end: no recipe takes it, no one buys it, and it has no use.",
    ]);
    expect(messages(set(idle, item(idle, "Eel").id, "sell", 2)).filter((s) => !s.startsWith("orphan"))).toEqual([]);
  });

  it("follow every edit of a type, a field, a stat or a tag as if all were looked at again", () => {
    const { catalogue, eel, salt, preserve } = world();
    const engine = new Engine(catalogue);
    const told = new Map(found(catalogue).map((f) => [f.fingerprint, f.message]));
    const tag = made("tag", "Odd");
    const stall = made("field", "Stall", { form: "text", unique: true });
    const fresh = made("item", "Tar", { status: "ready", icon: "crock", description: "Black." });
    const crates = Array.from({ length: 12 }, (_, n) =>
      made("item", `Crate ${n}`, {
        key: `crate_${n}`,
        icon: "crock",
        description: "Full.",
        own: { [stall.id]: "Quay 7" },
      }),
    );
    const recordAt = (id: Id) => engine.catalogue.records.item.get(id) as Item;
    const steps = [
      () => [
        setField(engine.catalogue, "type", preserve, `takes.${keeps.id}`, {
          required: true,
          min: 30,
          max: null,
        } as never),
      ],
      () => [setField(engine.catalogue, "field", smell.id, "options", ["salty"] as never)],
      () => [setField(engine.catalogue, "field", smell.id, "required", true)],
      () => [add("tag", tag)],
      () => [setField(engine.catalogue, "item", salt, "tags", [tag.id] as never)],
      () => [setField(engine.catalogue, "item", salt, "tags", [] as never)],
      () => [setField(engine.catalogue, "type", preserve, "icon", null)],
      () => [setField(engine.catalogue, "item", eel, "icon", null)],
      () => [setField(engine.catalogue, "item", eel, "type", null)],
      () => [
        setField(engine.catalogue, "item", eel, `own.${pairs.id}`, [{ kind: "item", id: salt, amount: 1 }] as never),
      ],
      () => [setField(engine.catalogue, "item", salt, "status", "retired")],
      () => [setField(engine.catalogue, "field", smell.id, "everywhere", false)],
      () => [add("field", stall), add("item", fresh)],
      () => [setField(engine.catalogue, "item", salt, `own.${stall.id}`, "Quay 7")],
      () => [setField(engine.catalogue, "item", eel, `own.${stall.id}`, "quay 7")],
      () => [setField(engine.catalogue, "item", fresh.id, `own.${stall.id}`, "Quay 7")],
      () => [setField(engine.catalogue, "item", salt, "name", "Bay salt")],
      // Many come to a few at once, and go again.
      () => crates.map((record) => add("item", record)),
      () => crates.map(({ id }) => ({ op: "remove" as const, kind: "item" as const, record: recordAt(id) })),
      () => crates.slice(0, 2).map((record) => add("item", record)),
      () => crates.slice(2).map((record) => add("item", record)),
      () => crates.slice(1).map(({ id }) => setField(engine.catalogue, "item", id, `own.${stall.id}`, null)),
      () => [setField(engine.catalogue, "item", eel, `own.${stall.id}`, "Quay 8")],
      () => [setField(engine.catalogue, "field", stall.id, "unique", false)],
      () => [setField(engine.catalogue, "field", stall.id, "unique", true)],
      () => [
        { op: "remove" as const, kind: "item" as const, record: engine.catalogue.records.item.get(fresh.id) as Item },
      ],
    ];
    for (const [k, edits] of steps.entries()) {
      const { outcome, ripple } = engine.change(edits());
      expect(outcome.ok, String(k)).toBe(true);
      for (const f of ripple?.put ?? []) told.set(f.fingerprint, f.message);
      for (const print of ripple?.drop ?? []) told.delete(print);
      expect([...told.values()].sort(), `step ${k}`).toEqual(
        found(engine.catalogue)
          .map((f) => f.message)
          .sort(),
      );
    }
  });
});
