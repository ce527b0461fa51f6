import { describe, expect, it } from "vitest";
import type { Edit } from "../catalogue/edit";
import { setField } from "../catalogue/edit";
import { type Kind, withDefaults } from "../kinds/index";
import { newId } from "../schema/id";
import { item, kitchen, must, newItem, recipe } from "../testing/kitchen";
import { duplicateWith } from "./duplicate";
import { planMove } from "./move";
import { planTicks } from "./ticks";

const add = (kind: Kind, record: object) => ({ op: "add", kind, record }) as Edit;
const made = <K extends Kind>(kind: K, name: string, given: object = {}) =>
  withDefaults(kind, { id: newId(), key: name.toLowerCase(), name, ...given } as never);
const bite = made("stat", "Bite");
const keeps = made("field", "Keeps", { form: "duration", everywhere: false });
const maker = made("field", "Maker", { form: "text", everywhere: false });

const fare = made("type", "Fare", {
  stack: 10,
  own: { [keeps.id]: 200 },
  takes: { [keeps.id]: { required: null, min: 20, max: null } },
});
const tool = made("type", "Tool", {
  stack: 1,
  takes: { [maker.id]: { required: true, min: null, max: null } },
  measures: { [bite.id]: { required: null, min: null, max: null } },
});
const dried = made("type", "Dried", { parent: fare.id });
const heft = made("stat", "Heft");
const catalogue = must(kitchen(""), [
  ...[bite, heft].map((r) => add("stat", r)),
  ...[keeps, maker].map((r) => add("field", r)),
  ...[fare, tool, dried].map((r) => add("type", r)),
  add("item", newItem("Eel pie", { type: fare.id, own: { [keeps.id]: 400 }, stats: { [heft.id]: 2 } })),
  add("item", newItem("Dulse", { type: dried.id, stack: 5 })),
]);

describe("moving", () => {
  it("says for an item what it inherits otherwise, what is not taken there and what it must say", () => {
    const pie = item(catalogue, "Eel pie");
    const edits = [setField(catalogue, "item", pie.id, "type", tool.id)];
    const plan = planMove(catalogue, edits);
    expect(plan?.rows.map((r) => [r.what, r.before, r.after, r.is])).toEqual([
      ["stack limit", "10", "1", "inherits"],
      ["Heft", "2", "2", "not taken"],
      ["Keeps", "20s", "20s", "not taken"],
      ["Maker", "", "", "required"],
    ]);
    const next = must(catalogue, [...edits, ...(plan?.takeOff ?? [])]);
    expect(item(next, "Eel pie")).toMatchObject({ own: {}, stats: {} });
  });

  it("says for a type the same of every item under it, and nothing where nothing changes", () => {
    const away = planMove(catalogue, [setField(catalogue, "type", dried.id, "parent", tool.id)]);
    expect(away?.rows.map((r) => [r.item.name, r.what, r.is])).toEqual([
      ["Dulse", "Keeps", "inherits"],
      ["Dulse", "Maker", "required"],
    ]);
    const same = planMove(catalogue, [setField(catalogue, "item", item(catalogue, "Dulse").id, "type", fare.id)]);
    expect(same?.rows).toEqual([]);
    expect(planMove(catalogue, [setField(catalogue, "type", fare.id, "parent", dried.id)])).toBeNull();
  });
});

describe("another clock", () => {
  it("keeps the seconds, and says which durations no longer fall on whole ticks", () => {
    const start = must(kitchen("gather Eel in 20s\nSmoke: 1 Eel -> 1 Smoked eel in 1.5s"), [
      add("field", keeps),
      add("type", fare),
    ]);
    const eel = item(start, "Eel");
    const before = must(start, [setField(start, "item", eel.id, `own.${keeps.id}`, 7)]);
    const plan = planTicks(before, 10);
    expect(plan.rows.map((r) => [r.record.name, r.what, r.before, r.after, r.whole])).toEqual([
      ["Fare", "Keeps", "10 s", "10 s", true],
      ["Fare", "Keeps: minimum", "1 s", "1 s", true],
      ["Eel", "Keeps", "0.35 s", "0.4 s", false],
      ["Smoke", "time", "1.5 s", "1.5 s", true],
      ["Eel", "time", "20 s", "20 s", true],
    ]);
    const next = must(before, plan.edits);
    expect(next.pantry.ticksPerSecond).toBe(10);
    expect(recipe(next, "Smoke").ticks).toBe(15);
    expect(next.records.type.get(fare.id)?.takes[keeps.id].min).toBe(10);
  });
});

describe("a copy with all that belongs to it", () => {
  it("has its recipes, its salvage and its sources, each of its own", () => {
    const start = kitchen(
      "gather Eel in 20s\nbuy Smoked eel for 4\nSmoke: 2 Eel -> 1 Smoked eel in 30s\nsalvage Smoked eel -> 1 Eel\n1 Smoked eel -> 1 Eel pie",
    );
    const { edits, copy } = duplicateWith(start, item(start, "Smoked eel"));
    const next = must(start, edits);
    expect(item(next, "Smoked eel 2").id).toBe(copy.id);
    expect(next.records.recipe.size).toBe(start.records.recipe.size + 2);
    expect(next.records.source.size).toBe(start.records.source.size + 1);
    const names = [...next.records.recipe.values()].filter((r) => r.lines.some((l) => l.item === copy.id));
    expect(names.map((r) => [r.kind, r.lines.length])).toEqual([
      ["craft", 2],
      ["salvage", 2],
    ]);
    expect(new Set([...next.records.recipe.values()].map((r) => r.key)).size).toBe(next.records.recipe.size);
  });
});
