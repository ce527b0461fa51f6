import { describe, expect, it } from "vitest";
import type { Edit } from "../catalogue/edit";
import { withDefaults } from "../kinds/index";
import { newId, type Id } from "../schema/id";
import { item, kitchen, must, newItem, recipe } from "../testing/kitchen";
import { releaseEverywhere, replaceEverywhere, usersOf } from "./replace";

const add = (kind: Edit["kind"], record: object) => ({ op: "add", kind, record }) as Edit;
const made = <K extends "stat" | "tag" | "type">(kind: K, key: string, more: object = {}) =>
  withDefaults(kind, { id: newId(), key, name: key, ...more } as Parameters<typeof withDefaults<K>>[1]);

describe("one record in the place of another", () => {
  it("stands in every line, as a teacher, and in every role; then the other can be taken out", () => {
    const start = kitchen(
      "gather Eel in 20s\nSmoke: 2 Eel + 1 Salt -> 1 Smoked eel at Shed using Knife in 30s\nMend: 1 Knife -> 1 Blade",
    );
    const hook = newItem("Hook");
    const smoke = recipe(start, "Smoke");
    const knife = item(start, "Knife").id;
    const catalogue = must(start, [
      add("item", hook),
      { op: "set", kind: "recipe", id: smoke.id, field: "taughtBy", from: null, to: knife },
    ]);
    expect(
      usersOf(catalogue, "item", knife)
        .map((u) => u.record.name)
        .sort(),
    ).toEqual(["Mend", "Smoke"]);
    const edits = replaceEverywhere(catalogue, "item", knife, hook.id);
    const next = must(catalogue, [...edits, { op: "remove", kind: "item", record: item(catalogue, "Knife") }]);
    expect(
      usersOf(next, "item", hook.id)
        .map((u) => u.record.name)
        .sort(),
    ).toEqual(["Mend", "Smoke"]);
    expect(recipe(next, "Smoke").taughtBy).toBe(hook.id);
    expect(recipe(next, "Smoke").lines.find((l) => l.role === "tool")?.item).toBe(hook.id);
  });

  it("keeps its own value of a stat where both are said, and is named once in a set", () => {
    const [vigour, zest] = [made("stat", "vigour"), made("stat", "zest")];
    const [fish, prey] = [made("tag", "fish"), made("tag", "prey")];
    const both = newItem("Eel", { stats: { [vigour.id]: 4, [zest.id]: 9 }, tags: [fish.id, prey.id] });
    const one = newItem("Crab", { stats: { [vigour.id]: 7 }, tags: [fish.id] });
    const catalogue = must(kitchen(""), [
      ...[vigour, zest].map((r) => add("stat", r)),
      ...[fish, prey].map((r) => add("tag", r)),
      add("item", both),
      add("item", one),
    ]);
    const next = must(catalogue, [
      ...replaceEverywhere(catalogue, "stat", vigour.id, zest.id),
      ...replaceEverywhere(catalogue, "tag", fish.id, prey.id),
    ]);
    expect(item(next, "Eel")).toMatchObject({ stats: { [zest.id]: 9 }, tags: [prey.id] });
    expect(item(next, "Crab")).toMatchObject({ stats: { [zest.id]: 7 }, tags: [prey.id] });
    expect(usersOf(next, "stat", vigour.id)).toEqual([]);
  });

  it("does not come to stand under itself in a tree", () => {
    const goods = made("type", "goods");
    const fare = made("type", "fare", { parent: goods.id });
    const kept = made("type", "kept", { parent: fare.id });
    const catalogue = must(
      kitchen(""),
      [goods, fare, kept].map((r) => add("type", r)),
    );
    const next = must(catalogue, replaceEverywhere(catalogue, "type", fare.id, kept.id));
    expect(next.records.type.get(kept.id)?.parent).toBe(goods.id);
    const up = must(catalogue, replaceEverywhere(catalogue, "type", fare.id, goods.id));
    expect(up.records.type.get(kept.id)?.parent).toBe(goods.id);
  });

  it("changes nothing where nothing refers to it", () => {
    const catalogue = kitchen("gather Eel in 20s");
    expect(replaceEverywhere(catalogue, "item", "nobody000000" as Id, item(catalogue, "Eel").id)).toEqual([]);
  });
});

describe("a record taken out wherever it stands", () => {
  it("leaves its users without it: a tag, a stat, a field with its values and demands, a link", () => {
    const [vigour, fish] = [made("stat", "vigour"), made("tag", "fish")];
    const field = (name: string, given: object) =>
      withDefaults("field", { id: newId(), key: name, name, ...given } as never);
    const [smell, pairs] = [field("smell", { form: "text" }), field("pairs", { form: "links", to: "item" })];
    const salt = newItem("Salt");
    const tar = newItem("Tar");
    const link = (id: Id) => ({ kind: "item", id, amount: 1 });
    const eel = newItem("Eel", {
      stats: { [vigour.id]: 4 },
      tags: [fish.id],
      own: { [smell.id]: "old", [pairs.id]: [link(salt.id), link(tar.id)] },
    });
    const fare = made("type", "fare", { takes: { [smell.id]: { required: true, min: null, max: null } } });
    const catalogue = must(kitchen(""), [
      ...[smell, pairs].map((r) => add("field", r)),
      add("stat", vigour),
      add("tag", fish),
      add("type", fare),
      ...[salt, tar, eel].map((r) => add("item", r)),
    ]);
    const without = (kind: "stat" | "tag" | "field" | "item", record: { readonly id: Id }) =>
      must(catalogue, [
        ...(releaseEverywhere(catalogue, kind, record.id) ?? []),
        { op: "remove", kind, record: catalogue.records[kind].get(record.id) } as Edit,
      ]);
    expect(item(without("stat", vigour), "Eel").stats).toEqual({});
    expect(item(without("tag", fish), "Eel").tags).toEqual([]);
    const bare = without("field", smell);
    expect(Object.keys(item(bare, "Eel").own)).toEqual([pairs.id]);
    expect(bare.records.type.get(fare.id)?.takes).toEqual({});
    expect(item(without("item", salt), "Eel").own[pairs.id]).toEqual([link(tar.id)]);
    const none = must(without("item", salt), []);
    expect(releaseEverywhere(none, "item", tar.id)).toHaveLength(1);
  });

  it("is not offered where a line would have nothing in its place", () => {
    const catalogue = kitchen("2 Eel -> 1 Smoked eel");
    expect(releaseEverywhere(catalogue, "item", item(catalogue, "Eel").id)).toBeNull();
  });
});
