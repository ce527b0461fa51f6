/** What was sent to do harm, each by itself; the fuzzers look for more. */
import { describe, expect, it } from "vitest";
import { item, kitchen, line, must, newItem, recipe } from "../testing/kitchen";
import { byKey } from "./keys";
import { referrersTo } from "./references";
import { tooDeep, type Tree, treeOf } from "./tree";
import { apply } from "./apply";
import { type Edit, setField, valueAt } from "./edit";
import { newId, type Id } from "../schema/id";
import { withDefaults } from "../kinds/index";
import { MOST_DEPTH } from "../schema/limits";
import { shapedEdits } from "./shape";

const base = kitchen("gather River eel in 80s\nbuy Salt for 1\nSmoke: 2 River eel + 1 Salt -> 2 Smoked eel");
const [eel, salt, smoke] = [item(base, "River eel"), item(base, "Salt"), recipe(base, "Smoke")];
const messageOf = (...edits: object[]): string => {
  const outcome = apply(base, edits as Edit[]);
  return outcome.ok
    ? "taken"
    : [
        ...outcome.issues.map((i) => `${i.path}: ${i.message}`),
        ...outcome.conflicts.map((c) => `${c.field}: ${c.message}`),
      ].join(" | ");
};
const withLine = (part: object) =>
  messageOf(setField(base, "recipe", smoke.id, "lines", [{ ...line("output", eel.id), ...part }] as never));

describe("a line from outside", () => {
  it.each([
    ["a key that is a statement", { 'recipe: ") values (1); --': 1 }, "A line has no field"],
    ["a key of the table", { recipe: "another00000" }, "A line has no field “recipe”"],
    ["its place", { position: 3 }, "A line has no field “position”"],
    [
      "a draw with more in it",
      { draw: { group: 1, times: 1, weight: 1, of: 1, bonus: 1 } },
      "A draw has no field “bonus”",
    ],
    [
      "a draw of next to nothing",
      { draw: { group: 1, times: 1, weight: 0, of: 1e-300 } },
      "more than 6 decimal places",
    ],
    ["a draw of nothing at all", { draw: { group: 1, times: 1, weight: 0, of: 0 } }, "sum to a number above 0"],
    [
      "a draw mostly of nothing",
      { draw: { group: 1, times: 1, weight: 1, of: 2_000_000 } },
      "lines: The remaining weight of nothing is above the maximum of 1000000.",
    ],
    ["a draw that is undefined", { draw: undefined }, "Expected a draw"],
    ["minus nothing", { min: -0 }, "lines.1.min: -0 isn't allowed. Use 0."],
  ])("may not have %s", (_, part, expected) => {
    expect(withLine(part)).toContain(expected);
  });

  it("is refused where it is none", () => {
    expect(messageOf(setField(base, "recipe", smoke.id, "lines", [null] as never))).toBe("lines.1: Expected a line.");
  });
});

describe("a field named by the language", () => {
  it.each([
    "constructor",
    "toString",
    "__proto__",
    "valueOf",
    "hasOwnProperty",
    "stats.constructor",
    "stats.__proto__",
    "stats.",
    "id",
    "stats",
  ])("%s is none", (field) => {
    expect(messageOf({ op: "set", kind: "item", id: eel.id, field, from: null, to: 3 })).toContain("has no field");
    expect(valueAt("item", eel, field === "id" || field === "stats" ? "x" : field)).toBeNull();
  });
});

describe("a record from outside", () => {
  it("says every text, and no null for one", () => {
    expect(messageOf(setField(base, "item", eel.id, "description", null))).toBe(
      "description: Expected text, not “null”.",
    );
    expect(messageOf(setField(base, "item", eel.id, "icon", null))).toBe("taken");
  });

  it("may not lack its name, nor hold what no one can print", () => {
    expect(messageOf({ op: "add", kind: "item", record: { id: newId(), key: "cork" } })).toBe(
      "name: This field is missing.",
    );
    expect(
      messageOf({
        op: "add",
        kind: "rarity",
        record: { id: newId(), key: "sound", name: "Sound", colour: { toString: 1 } },
      }),
    ).toContain("colour: an object isn't an opaque colour. Use six hex digits, such as #2c6e8f.");
  });

  it("keeps what was stored before a rule came, and is held to it where it is written", () => {
    const old = { ...eel, name: "Pe\u200bat" };
    const stored = { ...base, item: base.records.item.with(new Map([[eel.id, old]])) };
    expect(apply(stored, [setField(stored, "item", eel.id, "level", 3)]).ok).toBe(true);
    expect(apply(stored, [setField(stored, "item", eel.id, "name", "Pe\u200bats")]).ok).toBe(false);
  });

  it("may not take a key by standing before its holder, nor the same key twice in one change", () => {
    const taken = "is already used by another item";
    expect(messageOf(setField(base, "item", eel.id, "key", salt.key))).toContain(taken);
    expect(messageOf(setField(base, "item", salt.id, "key", eel.key))).toContain(taken);
    expect(
      messageOf(
        { op: "add", kind: "item", record: newItem("Cork") },
        { op: "add", kind: "item", record: newItem("Cork") },
      ),
    ).toContain(taken);
    expect(
      messageOf(setField(base, "item", eel.id, "key", "x_1"), setField(base, "item", salt.id, "key", "x1")),
    ).toContain(taken);
  });

  it("may take a key that is given up in the same change, and is found by it then", () => {
    const swapped = must(base, [
      setField(base, "item", eel.id, "key", salt.key),
      setField(base, "item", salt.id, "key", eel.key),
    ]);
    expect([byKey(swapped, "item", salt.key)?.id, byKey(swapped, "item", eel.key)?.id]).toEqual([eel.id, salt.id]);
    expect(byKey(base, "item", salt.key)?.id).toBe(salt.id);
    const freed = must(base, [setField(base, "item", eel.id, "key", "free")]);
    expect(must(freed, [{ op: "add", kind: "item", record: newItem("New", { key: eel.key }) }]).records.item.size).toBe(
      base.records.item.size + 1,
    );
  });
});

describe("the settings of a pantry", () => {
  it("are those of this pantry only", () => {
    expect(
      messageOf({ op: "set", kind: "pantry", id: newId(), field: "name", from: base.pantry.name, to: "Mine" }),
    ).toContain("another pantry");
    expect(messageOf(setField(base, "pantry", base.pantry.id, "key", "../../etc"))).toContain(
      "key: “../../etc” isn't a key. Use lower-case letters, digits and single “_” between them, such as coarse_salt.",
    );
    expect(messageOf(setField(base, "pantry", base.pantry.id, "name", "   "))).toContain("at least one letter");
  });
});

describe("types", () => {
  const types = (parents: readonly (number | null)[]) => {
    const ids = parents.map(() => newId());
    return parents.map((p, k) =>
      withDefaults("type", { id: ids[k], key: `t_${k}`, name: `T ${k}`, parent: p === null ? null : ids[p] }),
    );
  };
  const add = (list: readonly ReturnType<typeof types>[number][]): Edit[] =>
    list.map((record) => ({ op: "add", kind: "type", record }));

  it("go a bounded way down, also when a branch moves", () => {
    const chain = types(Array.from({ length: MOST_DEPTH + 1 }, (_, k) => (k ? k - 1 : null)));
    expect(messageOf(...add(chain))).toContain(`nested at most ${MOST_DEPTH} deep`);
    const two = must(base, add([...types(Array.from({ length: 20 }, (_, k) => (k ? k - 1 : null)))]));
    const [first] = [...two.records.type.values()];
    const more = types(Array.from({ length: 20 }, (_, k) => (k ? k - 1 : null))).map((t) => ({
      ...t,
      key: `u_${t.key}`,
    }));
    const both = must(two, add(more));
    const outcome = apply(both, [setField(both, "type", first.id, "parent", more[19].id)]);
    expect(outcome.ok ? "" : outcome.issues[0].message).toContain(
      "Types can be nested at most 32 deep. Choose a type closer to the top.",
    );
    expect(tooDeep(both, "type", treeOf("type") as Tree).size).toBe(0);
  });

  it("are never their own ancestors, however many stand between", () => {
    const ring = types([2, 0, 1]);
    expect(messageOf(...add(ring))).toContain("its own ancestor");
  });
});

describe("removing very many records", () => {
  it("asks once who refers to them", () => {
    const items = Array.from({ length: 2_000 }, (_, k) => newItem(`Cork ${k}`));
    const full = must(
      base,
      items.map((record): Edit => ({ op: "add", kind: "item", record })),
    );
    const used = withDefaults("recipe", {
      id: newId(),
      key: "r",
      name: "R",
      lines: [line("output", items[7].id), line("ingredient", items[9].id)],
    });
    const next = must(full, [{ op: "add", kind: "recipe", record: used }]);
    expect(
      [...referrersTo(next, "item", new Map(items.map((i) => [i.id, i])))].map((r) => [r.id, r.record.name, r.field]),
    ).toEqual([
      [items[7].id, "R", "lines"],
      [items[9].id, "R", "lines"],
    ]);
    const outcome = apply(
      next,
      items.map((record): Edit => ({ op: "remove", kind: "item", record })),
    );
    expect(outcome.ok ? [] : outcome.issues.map((f) => f.message)).toEqual([
      "Cork 7 is still used by R. Remove it there first, or retire it.",
      "Cork 9 is still used by R. Remove it there first, or retire it.",
    ]);
    expect(
      must(next, [
        { op: "remove", kind: "recipe", record: used },
        ...items.map((record): Edit => ({ op: "remove", kind: "item", record })),
      ]).records.item.size,
    ).toBe(base.records.item.size);
  });
});

describe("the shape of edits", () => {
  const places = (value: unknown) => {
    const shaped = shapedEdits(value);
    return "edits" in shaped ? [] : shaped.issues.map((m) => m.path);
  };
  const set = { op: "set", kind: "item", id: "abcdefghijkl", field: "level", from: null, to: 3 };

  it.each([
    ["no list", { edits: 1 }, ["edits"]],
    ["an empty one", [], ["edits"]],
    ["a list in a list", [[]], ["edits[0]"]],
    ["null", [null], ["edits[0]"]],
    ["a pantry to add", [{ op: "add", kind: "pantry", record: { id: "abcdefghijkl" } }], ["edits[0].kind"]],
    ["a record without an id", [{ op: "add", kind: "tag", record: {} }], ["edits[0].record.id"]],
    [
      "an id of twelve entries",
      [{ op: "add", kind: "tag", record: { id: [..."abcdefghijkl"] } }],
      ["edits[0].record.id"],
    ],
    ["a line beside an item", [{ ...set, line: 1 }], ["edits[0].line"]],
    [
      "own __proto__",
      [
        JSON.parse(
          '{"op":"set","kind":"item","id":"abcdefghijkl","field":"level","from":1,"to":2,"__proto__":{"a":1}}',
        ),
      ],
      ["edits[0].__proto__"],
    ],
    ["no value", [{ op: "set", kind: "item", id: "abcdefghijkl", field: "level", from: 1 }], ["edits[0].to"]],
    [
      "a value ten thousand deep",
      [{ ...set, to: JSON.parse(`${"[".repeat(10_000)}${"]".repeat(10_000)}`) }],
      ["edits[0].to"],
    ],
    ["more than fit", Array.from({ length: 50_001 }, () => ({})), ["edits"]],
  ])("is refused for %s", (_, value, expected) => {
    expect(places(value)).toEqual(expected);
  });

  it("is told for the first few of very many", () => {
    expect(places(Array.from({ length: 40_000 }, () => ({}))).length).toBe(20);
    expect(places([set])).toEqual([]);
  });
});

describe("a change with very much wrong in it", () => {
  it("tells a bounded part of it", () => {
    const outcome = apply(
      base,
      Array.from(
        { length: 5_000 },
        (_, k): Edit => ({
          op: "add",
          kind: "item",
          record: { ...newItem(`Cork ${k}`), name: 3, level: "x" } as never,
        }),
      ),
    );
    if (outcome.ok) throw new Error("taken");
    expect(outcome.issues.length).toBe(200);
    expect(newId() as Id).toHaveLength(12);
  });
});
