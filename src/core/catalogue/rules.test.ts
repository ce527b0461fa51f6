import { describe, expect, it } from "vitest";
import { item, kitchen, line, must, newItem } from "../testing/kitchen";
import { byKey } from "./keys";
import { lineage } from "./tree";
import { recordsWith, referrersTo } from "./references";
import type { Edit } from "./edit";
import { newId, type Id } from "../schema/id";
import {
  withDefaults,
  type Item,
  type ItemType,
  KINDS,
  kindWord,
  type Rarity,
  type Recipe,
  type Stat,
} from "../kinds/index";
import { issuesOf } from "./rules";

const base = kitchen(
  "gather River eel in 80s\nbuy Salt for 1\nSmoke: 2 River eel + 1 Salt -> 2 Smoked eel at Shed using Knife in 90s\nsalvage Smoked eel -> 1 River eel",
);
const eel = item(base, "River eel");
const id = () => newId();
const faults = (kind: (typeof KINDS)[number], record: object) =>
  issuesOf(base, kind, record as never).map((f) => `${f.path}: ${f.message}`);
const with_ = (part: Partial<Item>) => faults("item", { ...eel, ...part });

describe("a record may be written", () => {
  it("as it stands, whatever its kind", () => {
    for (const kind of KINDS)
      for (const record of base.records[kind].values()) expect(issuesOf(base, kind, record)).toEqual([]);
    // These are about a check, and say which.
    const needs: { readonly [kind: string]: object } = {
      severity: { key: "dead_end" },
      decision: { rule: "dead-end" },
    };
    for (const kind of KINDS) {
      const fresh = { id: id(), key: "fresh_one", name: "Fresh one", ...needs[kind] };
      expect(faults(kind, withDefaults(kind, fresh as never)), kind).toEqual([]);
    }
  });

  it.each<[string, Partial<Item>, string]>([
    ["an empty name", { name: "" }, "name: Enter a name with at least one letter."],
    ["a name with a space at its end", { name: "Eel " }, "name: Remove the spaces at the beginning or end."],
    ["a name too long", { name: "e".repeat(121) }, "name: It has 121 characters; the maximum is 120."],
    [
      "a key in capitals",
      { key: "River_Eel" },
      "key: “River_Eel” isn't a key. Use lower-case letters, digits and single “_” between them, such as coarse_salt.",
    ],
    ["a level between two", { level: 1.5 }, "level: 1.5 isn't a whole number."],
    ["no number at all", { sell: Number.NaN }, "sell: “NaN” isn't a number."],
    ["an endless number", { buy: Number.POSITIVE_INFINITY }, "buy: “Infinity” isn't a number."],
    ["a negative price", { sell: -1 }, "sell: -1 is outside the range 0 to 1000000000."],
    ["text for a number", { mass: "heavy" as never }, "mass: “heavy” isn't a number."],
    [
      "a status of another kind",
      { status: "done" as never },
      "status: “done” isn't an option. Use stub, draft, ready or retired.",
    ],
    [
      "a type that is not there",
      { type: "nosuchtype00" as Id },
      "type: There is no type “nosuchtype00” in this pantry.",
    ],
    [
      "a tag that is not there",
      { tags: ["nosuchtag000" as Id] },
      "tags: There is no tag “nosuchtag000” in this pantry.",
    ],
    [
      "a stat that is not there",
      { stats: { nosuchstat00: 3 } },
      "stats.nosuchstat00: There is no stat “nosuchstat00” in this pantry.",
    ],
    ["stats that are no object", { stats: [] as never }, "stats: Expected an object of stats and their values."],
    ["an id that is none", { id: "eel" as Id }, "id: An id is 12 characters of 0-9 and a-z."],
  ])("but not with %s", (_, part, message) => {
    expect(with_(part)).toEqual([message]);
  });

  it("but not with a field no one knows", () => {
    expect(with_({ rarty: 1 } as never)[0]).toContain(
      "rarty: An item has no field “rarty”. Its fields: key, name, type",
    );
  });

  it("but not with the same tag twice", () => {
    const tag = withDefaults("tag", { id: id(), key: "fish", name: "fish" });
    const tagged = must(base, [{ op: "add", kind: "tag", record: tag }]);
    expect(issuesOf(tagged, "item", { ...eel, tags: [tag.id, tag.id] })[0].message).toBe(
      "The list contains an entry twice.",
    );
  });

  it.each([
    ["a colour with opacity", "rarity", { colour: "#11223300" }, "isn't an opaque colour"],
    ["a colour by name", "rarity", { colour: "red" }, "isn't an opaque colour"],
    ["six grains", "rarity", { rank: 6 }, "rank: 6 is outside the range 1 to 5."],
    [
      "a stat that is better sideways",
      "stat",
      { better: "sideways" },
      "better: “sideways” isn't an option. Use higher, lower or neither.",
    ],
    ["a worthless currency", "currency", { worth: 0 }, "worth: 0 is outside the range 0.000001 to 1000000000."],
    ["half a tick", "recipe", { ticks: 0.5 }, "ticks: 0.5 isn't a whole number."],
    [
      "a source with ingredients",
      "source",
      { lines: [line("ingredient", eel.id)] },
      "lines.1.role: “ingredient” isn't an option. Use output.",
    ],
    ["a line of no item", "recipe", { lines: [line("output", "nosuchitem00" as Id)] }, "There is no item"],
    [
      "wear on an ingredient",
      "recipe",
      { lines: [line("ingredient", eel.id, 1, 1, 1, 9)] },
      "Only a tool has a number of uses",
    ],
    [
      "wear of nothing",
      "recipe",
      { lines: [line("tool", eel.id, 1, 1, 1, 0)] },
      "lines.1.uses: 0 is outside the range 1 to 1000000000.",
    ],
    [
      "an amount too small to count with",
      "recipe",
      { lines: [line("output", eel.id, 1e-300)] },
      "lines.1.min: 1e-300 is too small. Use 0, or at least 0.000000001.,lines.1.max: 1e-300 is too small. Use 0, or at least 0.000000001.",
    ],
    [
      "a chance too small to count with",
      "recipe",
      { lines: [line("output", eel.id, 1, 1, 1e-12)] },
      "1e-12 is too small",
    ],
    [
      "a negative amount",
      "recipe",
      { lines: [line("ingredient", eel.id, -1)] },
      "lines.1.min: -1 is outside the range 0 to 1000000000.,lines.1.max: -1 is outside the range 0 to 1000000000.",
    ],
    [
      "an endless amount",
      "recipe",
      { lines: [line("ingredient", eel.id, Number.POSITIVE_INFINITY)] },
      "lines.1.min: “Infinity” isn't a number.,lines.1.max: “Infinity” isn't a number.",
    ],
    [
      "no number as a chance",
      "recipe",
      { lines: [line("output", eel.id, 1, 1, Number.NaN)] },
      "lines.1.chance: “NaN” isn't a number.",
    ],
    [
      "more lines than fit",
      "recipe",
      { lines: Array.from({ length: 201 }, () => line("output", eel.id)) },
      "201 lines; at most 200 fit",
    ],
    ["lines that are no list", "recipe", { lines: {} }, "Expected a list of lines"],
  ] as const)("but not with %s", (_, kind, part, message) => {
    const record = { ...withDefaults(kind, { id: id(), key: "x", name: "X" } as never), ...part } as
      | Rarity
      | Stat
      | Recipe;
    expect(faults(kind, record).join()).toContain(message);
  });

  it("though a chance above 1 or a backward range may: the checks report those", () => {
    expect(
      faults(
        "recipe",
        withDefaults("recipe", { id: id(), key: "x", name: "X", lines: [line("output", eel.id, 3, 1, 1.5)] }),
      ),
    ).toEqual([]);
  });

  it("and a pantry's settings are held to their ranges", () => {
    expect(issuesOf(base, "pantry", base.pantry)).toEqual([]);
    expect(
      issuesOf(base, "pantry", { ...base.pantry, ticksPerSecond: 0, labourPerHour: -1 }).map((f) => f.path),
    ).toEqual(["ticksPerSecond", "labourPerHour"]);
  });

  it("names every kind in one and many", () => {
    expect(KINDS.map((k) => kindWord(k, true))).toEqual([
      "currencies",
      "rarities",
      "stats",
      "tags",
      "slots",
      "cooldown groups",
      "contexts",
      "fields",
      "constants",
      "resources",
      "signals",
      "exclusive groups",
      "types",
      "items",
      "recipes",
      "salvage rules",
      "drop tables",
      "sources",
      "conditions",
      "uses",
      "test characters",
      "trials",
      "word lists",
      "series",
      "saved views",
      "import mappings",
      "severities",
      "saved points",
      "decisions",
      "scenarios",
    ]);
  });
});

describe("who refers to whom", () => {
  it("is found for every kind of reference", () => {
    const stat = withDefaults("stat", { id: id(), key: "vigour", name: "Vigour" });
    const rarity = withDefaults("rarity", { id: id(), key: "sound", name: "Sound" });
    const tag = withDefaults("tag", { id: id(), key: "fish", name: "fish" });
    const parent = withDefaults("type", { id: id(), key: "goods", name: "Goods" });
    const type = withDefaults("type", {
      id: id(),
      key: "fare",
      name: "Fare",
      parent: parent.id,
      stats: { [stat.id]: 1 },
    });
    const pie = newItem("Pie", { type: type.id, rarity: rarity.id, tags: [tag.id], stats: { [stat.id]: 2 } });
    const edits: Edit[] = [
      [stat, "stat"],
      [rarity, "rarity"],
      [tag, "tag"],
      [parent, "type"],
      [type, "type"],
      [pie, "item"],
    ].map(([record, kind]) => ({ op: "add", kind, record }) as Edit);
    const c = must(base, edits);
    const users = (kind: (typeof KINDS)[number], of: Id) =>
      [...referrersTo(c, kind, new Set([of]))].map((u) => `${u.record.name}.${u.field}`).sort();
    expect(users("stat", stat.id)).toEqual(["Fare.stats", "Pie.stats"]);
    expect(users("rarity", rarity.id)).toEqual(["Pie.rarity"]);
    expect(users("tag", tag.id)).toEqual(["Pie.tags"]);
    expect(users("type", parent.id)).toEqual(["Fare.parent"]);
    expect(users("type", type.id)).toEqual(["Pie.type"]);
    expect(users("item", eel.id)).toEqual(["River eel.lines", "Salvage Smoked eel.lines", "Smoke.lines"]);
    expect(users("currency", [...c.records.currency.keys()][0])).toEqual(["Salt.price"]);
    expect(users("recipe", [...c.records.recipe.keys()][0])).toEqual([]);
    expect(lineage(c, type.id).map((t: ItemType) => t.name)).toEqual(["Fare", "Goods"]);
    expect(lineage(c, null)).toEqual([]);
  });

  it("is found by role, and records by key without regard to form", () => {
    expect([...recordsWith(base, "recipe", eel.id, ["ingredient"])].map((r) => r.name)).toEqual(["Smoke"]);
    expect([...recordsWith(base, "recipe", eel.id, ["output"])].map((r) => r.name)).toEqual(["Salvage Smoked eel"]);
    expect(byKey(base, "item", "RIVER eel")?.id).toBe(eel.id);
    expect(byKey(base, "item", "nobody")).toBeUndefined();
  });
});
