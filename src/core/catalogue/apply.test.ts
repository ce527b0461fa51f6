import anyAscii from "any-ascii";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { item, kitchen, line, must, newItem, recipe, shells } from "../testing/kitchen";
import type { Catalogue } from "./catalogue";
import { held, heldStat } from "./inheritance";
import { apply } from "./apply";
import { difference, type Edit, invert, setField } from "./edit";
import { same } from "../schema/json";
import { normalise, KeyAllocator, keyFrom, nearest, transliterateBy } from "../schema/names";
import { newId, type Id } from "../schema/id";
import { withDefaults, KINDS } from "../kinds/index";
import { tellChange } from "../history/telling";

const base = kitchen("gather 2 River eel in 80s\nbuy Salt for 1\nSmoke: 2 River eel + 1 Salt -> 2 Smoked eel in 90s");
const records = (c: Catalogue) =>
  Object.fromEntries(KINDS.map((k) => [k, Object.fromEntries(c.records[k] as ReadonlyMap<Id, object>)]));
const refused = (c: Catalogue, edits: readonly Edit[]) => {
  const outcome = apply(c, edits);
  if (outcome.ok) throw new Error("was not refused");
  return outcome;
};

describe("a change", () => {
  it("is taken back by its inverse, whatever it was", () => {
    const stat = withDefaults("stat", { id: newId(), key: "vigour", name: "Vigour" });
    const start = must(base, [{ op: "add", kind: "stat", record: stat }]);
    const items = [...start.records.item.values()];
    const edit = fc.oneof(
      fc
        .tuple(
          fc.nat(items.length - 1),
          fc.constantFrom("name", "description", "note"),
          fc.string({ minLength: 1, maxLength: 8 }).map((s) => `x${s}x`),
        )
        .map(
          ([i, field, to]): ((c: Catalogue) => Edit) =>
            (c) =>
              setField(c, "item", items[i].id, field, to),
        ),
      fc
        .tuple(
          fc.nat(items.length - 1),
          fc.constantFrom("level", "stack", "sell"),
          fc.option(fc.integer({ min: 1, max: 99 })),
        )
        .map(
          ([i, field, to]): ((c: Catalogue) => Edit) =>
            (c) =>
              setField(c, "item", items[i].id, field, to),
        ),
      fc.tuple(fc.nat(items.length - 1), fc.option(fc.integer())).map(
        ([i, to]): ((c: Catalogue) => Edit) =>
          (c) =>
            setField(c, "item", items[i].id, `stats.${stat.id}`, to),
      ),
      fc.constant((): Edit => ({ op: "add", kind: "item", record: newItem("Kelp", { key: `kelp_${newId()}` }) })),
    );
    fc.assert(
      fc.property(fc.array(edit, { maxLength: 8 }), (makers) => {
        let now = start;
        const done: Edit[] = [];
        for (const make of makers) {
          const outcome = apply(now, [make(now)]);
          if (!outcome.ok) continue;
          done.push(...outcome.edits);
          now = outcome.catalogue;
        }
        expect(records(must(now, invert(done)))).toEqual(records(start));
      }),
    );
  });

  it("leaves the catalogue it came from untouched", () => {
    const before = JSON.stringify(records(base));
    must(base, [setField(base, "item", item(base, "Salt").id, "name", "Coarse salt")]);
    expect(JSON.stringify(records(base))).toBe(before);
  });

  it("merges edits of different fields and refuses the same field with both values", () => {
    const salt = item(base, "Salt");
    const hers = setField(base, "item", salt.id, "level", 3);
    const his = setField(base, "item", salt.id, "sell", 2);
    const both = must(must(base, [hers]), [his]);
    expect(both.records.item.get(salt.id)).toMatchObject({ level: 3, sell: 2 });
    const outcome = refused(both, [setField(base, "item", salt.id, "level", 5)]);
    expect(outcome.conflicts).toMatchObject([{ field: "level", base: null, yours: 5, theirs: 3, name: "Salt" }]);
  });

  it("takes an edit that says what stands there already as done", () => {
    const edit = setField(base, "item", item(base, "Salt").id, "level", 3);
    const outcome = apply(must(base, [edit]), [edit]);
    expect(outcome).toMatchObject({ ok: true, edits: [] });
  });

  it("writes all or nothing", () => {
    const outcome = refused(base, [
      setField(base, "item", item(base, "Salt").id, "level", 3),
      setField(base, "item", item(base, "River eel").id, "stack", 0),
    ]);
    expect(outcome.issues).toMatchObject([{ path: "stack", message: "0 is outside the range 1 to 1000000." }]);
  });

  it("refuses references to nothing, keys that are taken, and fields that do not exist", () => {
    const salt = item(base, "Salt");
    expect(refused(base, [setField(base, "item", salt.id, "type", "nowherenower")]).issues[0].message).toContain(
      "There is no type",
    );
    expect(
      refused(base, [{ op: "add", kind: "item", record: newItem("Salt", { key: "SALT".toLowerCase() }) }]).issues[0]
        .message,
    ).toContain("The key “salt” is already used by another item. Use a free one, such as salt_2.");
    expect(refused(base, [setField(base, "item", salt.id, "wieght", 1)]).issues[0].message).toContain(
      "no field “wieght”",
    );
    expect(refused(base, [setField(base, "item", salt.id, "name", "  ")]).issues[0].path).toBe("name");
    expect(
      refused(base, [
        setField(base, "recipe", recipe(base, "Smoke").id, "lines", [
          { ...line("ingredient", salt.id), min: -1 },
        ] as never),
      ]).issues[0].message,
    ).toContain("-1 is outside the range 0 to 1000000000.");
    expect(
      refused(base, [
        setField(base, "recipe", recipe(base, "Smoke").id, "lines", [
          { ...line("ingredient", salt.id), max: Number.NaN },
        ] as never),
      ]).issues[0].message,
    ).toContain("“NaN” isn't a number.");
  });

  it("keeps a record that others refer to", () => {
    expect(refused(base, [{ op: "remove", kind: "item", record: item(base, "Salt") }]).issues[0].message).toContain(
      "still used by 2 records",
    );
    expect(refused(base, [{ op: "remove", kind: "currency", record: shells }]).issues[0].message).toContain(
      "still used",
    );
  });

  it("refuses to remove what someone changed meanwhile", () => {
    const extra = newItem("Cork");
    const there = must(base, [{ op: "add", kind: "item", record: extra }]);
    const changed = must(there, [setField(there, "item", extra.id, "level", 2)]);
    expect(refused(changed, [{ op: "remove", kind: "item", record: extra }]).conflicts[0].message).toContain(
      "was changed since",
    );
  });

  it("refuses a type that would be its own ancestor", () => {
    const a = withDefaults("type", { id: newId(), key: "a", name: "A" });
    const b = withDefaults("type", { id: newId(), key: "b", name: "B", parent: a.id });
    const tree = must(base, [
      { op: "add", kind: "type", record: a },
      { op: "add", kind: "type", record: b },
    ]);
    expect(refused(tree, [setField(tree, "type", a.id, "parent", b.id)]).issues[0].message).toContain(
      "its own ancestor",
    );
  });
});

describe("inheritance", () => {
  it("climbs the tree of types, and shows where a value comes from", () => {
    const stat = withDefaults("stat", { id: newId(), key: "keeps", name: "Keeps" });
    const fare = withDefaults("type", { id: newId(), key: "fare", name: "Fare", stack: 10, stats: { [stat.id]: 1 } });
    const kept = withDefaults("type", {
      id: newId(),
      key: "kept",
      name: "Kept fare",
      parent: fare.id,
      stats: { [stat.id]: 30 },
    });
    const eel = newItem("Smoked eel", { type: kept.id });
    const own = newItem("Eel pie", { type: kept.id, stack: 1, stats: { [stat.id]: 2 } });
    const c = must(base, [
      { op: "add", kind: "stat", record: stat },
      ...[fare, kept].map((record): Edit => ({ op: "add", kind: "type", record })),
      ...[eel, own].map((record): Edit => ({ op: "add", kind: "item", record: { ...record, key: `${record.key}_x` } })),
    ]);
    expect(held(c, eel, "stack")).toMatchObject({ value: 10, from: "inherited", type: fare });
    expect(heldStat(c, eel, stat.id)).toMatchObject({ value: 30, from: "inherited", type: kept });
    expect(held(c, own, "stack")).toEqual({ value: 1, from: "own" });
    expect(heldStat(c, own, stat.id)).toEqual({ value: 2, from: "own" });
    expect(held(c, eel, "mass")).toEqual({ value: null, from: "none" });
  });
});

describe("names", () => {
  it("fold case, spaces, Unicode forms and apostrophes", () => {
    expect(normalise("Ship’s  GLASS")).toBe(normalise("ship's glass"));
    expect(normalise("ﬁne salt")).toBe("finesalt");
  });
  it("make keys, and free ones", () => {
    transliterateBy((text) => text);
    expect(keyFrom("Crème de l'Anguille (large)", "item")).toBe("creme_de_languille_large");
    expect(keyFrom("塩", "item")).toBe("item");
    expect(keyFrom("🦀", "item")).toBe("item");
    expect(keyFrom(`${"a".repeat(79)} b`, "item")).toBe("a".repeat(79));
    transliterateBy(anyAscii);
    expect(keyFrom("Соль", "item")).toBe("sol");
    expect(keyFrom("海盐", "item")).toBe("haiyan");
    const keys = new KeyAllocator((normalised) => normalised === "salt" || normalised === "salt2");
    expect([keys.next("salt"), keys.next("salt"), keys.next("tar")]).toEqual(["salt_3", "salt_4", "tar"]);
  });
  it("offer what was probably meant", () => {
    expect(nearest("cosre salt", ["Coarse salt", "Cork", "Clay"])).toEqual(["Coarse salt"]);
    expect(nearest("zzz", ["Coarse salt"])).toEqual([]);
  });
});

describe("telling", () => {
  it("says a change in one sentence", () => {
    const smoke = recipe(base, "Smoke");
    const lines = smoke.lines.map((l) => (l.role === "output" ? { ...l, min: 3, max: 3 } : l));
    expect(tellChange(base, [setField(base, "recipe", smoke.id, "lines", lines as never)])).toBe(
      "Smoke: Smoked eel 2 → 3",
    );
    expect(tellChange(base, [setField(base, "item", item(base, "Salt").id, "sell", 2.5)])).toBe(
      "Sell price of Salt nothing → 2.5",
    );
    expect(
      tellChange(base, difference("recipe", smoke, { ...smoke, ticks: 1200, status: "draft", note: "slow" })),
    ).toBe("3 edits in recipes");
  });
  it("compares values whatever the order of their keys", () => {
    expect(same({ a: 1, b: [1, { c: 2 }] }, { b: [1, { c: 2 }], a: 1 })).toBe(true);
    expect(same({ a: 1 }, { a: 1, b: undefined })).toBe(false);
  });
});
