/** Edits that are held, not made: they go into a bundle and come back as they were. */
import { describe, expect, it } from "vitest";
import demo from "../../demo/brackwater-reach.json";
import { emptyCatalogue, recordsOf } from "../catalogue/catalogue";
import { apply } from "../catalogue/apply";
import type { Edit, Value } from "../catalogue/edit";
import { exportBundle } from "../exchange/bundle";
import { planImport } from "../exchange/read";
import { type AnyRecord, definition, KINDS, withDefaults } from "../kinds/index";
import { item, kitchen, must, newItem, pantry, recipe, SMOKEHOUSE } from "../testing/kitchen";
import { editsIn, editsText, MOST_HELD, THIS_PANTRY } from "./edits";
import { newId } from "./id";
import { valueAt, pathOf } from "./record";

const scenario = (edits: readonly object[], name = "Dearer salt") =>
  withDefaults("scenario", {
    id: newId(),
    key: name.toLowerCase().replaceAll(" ", "_"),
    name,
    edits: editsText(edits),
  });
const empty = () => emptyCatalogue(pantry());
const imported = (text: string) => {
  const into = empty();
  const plan = planImport(into, text);
  expect(plan.issues).toEqual([]);
  return must(into, plan.edits);
};

describe("the edits of a scenario", () => {
  it("of every field of every record of the demo come back from a bundle, and can be made there", () => {
    let world = imported(JSON.stringify(demo));
    // Each scenario puts every field of some records to what a new record has and back to what it is.
    let count = 0;
    for (const kind of KINDS) {
      if (kind === "scenario") continue;
      const edits: Edit[] = [];
      for (const record of [...recordsOf(world, kind).values()].slice(0, 40) as AnyRecord[]) {
        const of = definition(kind);
        for (const [name, { parts, initial }] of Object.entries(of.fields)) {
          const paths = parts ? parts.names((record as never)[name]).map((part) => `${name}.${part}`) : [name];
          for (const field of paths) {
            const at = pathOf(of, field);
            if (!at) throw new Error(field);
            const value = valueAt(record, at) as Value;
            const to = parts || initial === undefined ? null : (initial as Value);
            edits.push({ op: "set", kind, id: record.id, field, from: value, to });
          }
        }
        edits.push({ op: "remove", kind, record: record as never });
      }
      count += edits.length;
      if (edits.length)
        world = must(world, [
          { op: "add", kind: "scenario", record: scenario(edits.slice(0, MOST_HELD), `All of ${kind}`) },
        ]);
    }
    expect(count).toBeGreaterThan(5_000);
    const text = exportBundle(world);
    const back = imported(text);
    expect(exportBundle(back)).toBe(text);
    // What is read again names the records of the new pantry.
    for (const { edits, name } of back.records.scenario.values())
      for (const edit of editsIn(edits) as Edit[])
        if (edit.kind === "pantry") expect(edit).toMatchObject({ op: "set", id: THIS_PANTRY });
        else if (edit.op === "set") {
          const record = (back.records[edit.kind as "item"] as ReadonlyMap<string, object>).get(edit.id);
          expect(record, name).toBeTruthy();
          const at = pathOf(definition(edit.kind), edit.field);
          expect(at && valueAt(record as object, at), `${name} ${edit.field}`).toEqual(edit.from);
        } else {
          const there = (back.records[edit.kind as "item"] as ReadonlyMap<string, object>).get(edit.record.id);
          expect(edit.record, name).toEqual(there);
        }
  });

  it("name what they add, and leave out what is about a removed record", () => {
    const world = kitchen(SMOKEHOUSE);
    const pie = newItem("Eel pie");
    const bake = { ...recipe(world, "Smoke"), id: newId(), key: "bake", name: "Bake" };
    const lines = bake.lines.map((l) => (l.role === "output" ? { ...l, item: pie.id } : l));
    const held = must(world, [
      {
        op: "add",
        kind: "scenario",
        record: scenario([
          { op: "add", kind: "item", record: pie },
          { op: "add", kind: "recipe", record: { ...bake, lines } },
          { op: "set", kind: "item", id: pie.id, field: "sell", from: null, to: 9 },
          { op: "set", kind: "item", id: newId(), field: "sell", from: null, to: 9 },
          { op: "set", kind: "pantry", id: world.pantry.id, field: "labourPerHour", from: 1, to: 2 },
        ]),
      },
    ]);
    const back = imported(exportBundle(held));
    const [{ edits }] = back.records.scenario.values();
    const read = editsIn(edits) as Edit[];
    expect(read.map((e) => `${e.op} ${e.kind}`)).toEqual(["add item", "add recipe", "set item", "set pantry"]);
    expect(read[3]).toMatchObject({ id: THIS_PANTRY, to: 2 });
    const made = must(back, read.slice(0, 3));
    expect(item(made, "Eel pie").sell).toBe(9);
    expect(recipe(made, "Bake").lines.some((l) => l.item === item(made, "Eel pie").id)).toBe(true);
  });

  it.each<[string, string, RegExp]>([
    ["no JSON", "price of salt: 3", /Expected a list of edits as JSON/],
    ["no list", '{"op":"set"}', /Expected a list of edits/],
    ["edits of another shape", '[{"op":"set","kind":"item"}]', /This field is missing/],
    ["scenarios in scenarios", '[{"op":"remove","kind":"scenario","record":{"id":"000000000001"}}]', /isn't a kind/],
    ["spaces", "[ ]", /Expected \[\]/],
  ])("are refused with %s", (_, edits, message) => {
    const world = kitchen(SMOKEHOUSE);
    const outcome = apply(world, [{ op: "add", kind: "scenario", record: { ...scenario([]), edits } }]);
    expect(outcome.ok ? "" : outcome.issues.map((i) => i.message).join(" ")).toMatch(message);
  });

  it("are refused with more than one scenario holds", () => {
    const world = kitchen(SMOKEHOUSE);
    const one = { op: "set", kind: "item", id: item(world, "Salt").id, field: "sell", from: null, to: 9 };
    const many = scenario(Array.from({ length: MOST_HELD + 1 }, () => one));
    const outcome = apply(world, [{ op: "add", kind: "scenario", record: many }]);
    expect(outcome.ok ? "" : outcome.issues[0].message).toMatch(/a scenario holds at most 2000/);
  });

  it.each<[string, object, RegExp]>([
    ["a record that is nowhere", { set: "stat", of: "no_such", field: "name", from: "A", to: "B" }, /no_such/],
    ["a field that is nowhere", { set: "item", of: "salt", field: "shine", from: 1, to: 2 }, /isn't a field of item/],
    [
      "a field in parts as a whole",
      { set: "item", of: "salt", field: "stats", from: 1, to: 2 },
      /isn't a field of item/,
    ],
    ["nothing to do", { of: "salt" }, /Expected an edit with set, add or remove/],
    ["another member", { add: "item", record: { key: "a" }, why: "so" }, /why/],
    ["a kind that is none", { add: "__proto__", record: { key: "a" } }, /isn't a kind/],
  ])("in a bundle are refused with %s", (_, edit, message) => {
    const bundle = JSON.parse(exportBundle(kitchen(SMOKEHOUSE)));
    bundle.scenarios = [{ key: "one", name: "One", edits: [edit] }];
    const plan = planImport(empty(), JSON.stringify(bundle));
    expect(plan.issues.map((i) => `${i.path}: ${i.message}`).join(" ")).toMatch(message);
  });
});
