import { describe, expect, it } from "vitest";
import { readEntry } from "../editing/entry";
import { type Item, type ItemType, type OwnField, withDefaults } from "../kinds/index";
import { newId } from "../schema/id";
import { fieldAt, pathOf } from "../schema/record";
import { definition } from "../kinds/index";
import { item, kitchen, must } from "../testing/kitchen";
import { apply } from "./apply";
import type { Catalogue } from "./catalogue";
import { setField } from "./edit";
import { demandOn, fieldsOfItem, statsOfItem } from "./fields";
import { heldOwn } from "./inheritance";
import { around } from "./surroundings";

const field = (name: string, given: Partial<OwnField>): OwnField =>
  withDefaults("field", { id: newId(), key: name.toLowerCase().replace(/ /g, "_"), name, ...given });
const type = (name: string, given: Partial<ItemType> = {}): ItemType =>
  withDefaults("type", { id: newId(), key: name.toLowerCase(), name, ...given });

const smell = field("Smell", { form: "choice", options: ["salty", "smoky", "none to speak of"], order: 2 });
const keeps = field("Keeps for", { form: "duration", everywhere: false, order: 1 });
const served = field("Served with", { form: "links", to: "item" });
const seller = field("Sold where", { form: "text", of: "source" });

/** A pantry whose preserves keep, and whose smoked ones keep longer. */
function preserves(): { catalogue: Catalogue; preserve: ItemType; smoked: ItemType; eel: Item } {
  const preserve = type("Preserve", {
    own: { [keeps.id]: 1200 },
    takes: { [keeps.id]: { required: true, min: 100, max: null } },
  });
  const smoked = type("Smoked", {
    parent: preserve.id,
    takes: { [keeps.id]: { required: null, min: null, max: 4000 } },
  });
  const before = kitchen("gather Eel in 20s\nbuy Salt for 1\n2 Eel + 1 Salt -> 1 Smoked eel in 30s");
  const eel = item(before, "Smoked eel");
  const catalogue = must(before, [
    ...[smell, keeps, served, seller].map((record) => ({ op: "add" as const, kind: "field" as const, record })),
    ...[preserve, smoked].map((record) => ({ op: "add" as const, kind: "type" as const, record })),
    setField(before, "item", eel.id, "type", smoked.id),
  ]);
  return { catalogue, preserve, smoked, eel: item(catalogue, "Smoked eel") };
}
const write = (catalogue: Catalogue, of: Item, path: string, text: string): Catalogue => {
  const read = readEntry(catalogue, "item", of.id, path, text);
  if ("message" in read) throw new Error(read.message);
  return must(catalogue, read.edits);
};
const shown = (catalogue: Catalogue, of: Item, path: string): string => {
  const at = pathOf(definition("item"), path);
  const record = catalogue.records.item.get(of.id) as Item;
  const id = path.slice(4);
  return at && Object.hasOwn(record.own, id)
    ? fieldAt(at, around(catalogue)).format(record.own[id], around(catalogue))
    : "";
};

describe("designers' fields", () => {
  it("belong to every item, or to those whose types take them, in their order", () => {
    const { catalogue, eel } = preserves();
    expect(fieldsOfItem(catalogue, eel).map((f) => f.name)).toEqual(["Served with", "Keeps for", "Smell"]);
    expect(fieldsOfItem(catalogue, item(catalogue, "Salt")).map((f) => f.name)).toEqual(["Served with", "Smell"]);
  });

  it("are inherited from type to type until an item says otherwise, and put back", () => {
    const { catalogue, preserve, eel } = preserves();
    expect(heldOwn(catalogue, eel, keeps.id)).toEqual({ value: 1200, from: "inherited", type: preserve });
    const longer = write(catalogue, eel, `own.${keeps.id}`, "2m");
    expect(heldOwn(longer, item(longer, "Smoked eel"), keeps.id)).toEqual({ value: 2400, from: "own" });
    const back = write(longer, eel, `own.${keeps.id}`, "");
    expect(item(back, "Smoked eel").own).toEqual({});
  });

  it("ask of an item what the nearest type says of each, and of stats only what types list", () => {
    const { catalogue, preserve, smoked, eel } = preserves();
    expect(demandOn(catalogue, eel, "takes", keeps.id)).toEqual({ required: true, min: 100, max: 4000, type: smoked });
    expect(demandOn(catalogue, preserve, "takes", keeps.id)).toMatchObject({ min: 100, max: null });
    expect(statsOfItem(catalogue, eel)).toBeNull();
  });

  it("read what is typed as their form asks, and write it so that it is read back", () => {
    const { catalogue, eel } = preserves();
    const typed: [OwnField, string, string][] = [
      [smell, "SMOKY", "smoky"],
      [keeps, "90s", "90s"],
      [served, "2 Salt, eel", "2 Salt, Eel"],
    ];
    for (const [of, text, as] of typed) {
      const next = write(catalogue, eel, `own.${of.id}`, text);
      expect(shown(next, eel, `own.${of.id}`)).toBe(as);
      expect(write(next, eel, `own.${of.id}`, as).records.item.get(eel.id)).toEqual(next.records.item.get(eel.id));
    }
    const refuse = (of: OwnField, text: string) => readEntry(catalogue, "item", eel.id, `own.${of.id}`, text);
    expect(refuse(smell, "smo")).toEqual({
      message: "“smo” isn't an option. Choose salty, smoky or none to speak of. Did you mean smoky?",
    });
    expect(refuse(smell, "sweet")).toEqual({
      message: "“sweet” isn't an option. Choose salty, smoky or none to speak of.",
    });
    expect(refuse(keeps, "a while")).toMatchObject({
      message: expect.stringContaining(
        "“a while” isn't a duration. Use 90s, 1m30s or 1800t, in whole ticks (20 per second).",
      ),
    });
  });

  it("take each form, and refuse what is none of it", () => {
    const forms: [Partial<OwnField>, string, unknown, string][] = [
      [{ form: "text" }, "old rope", "old rope", ""],
      [{ form: "whole" }, "12", 12, "1.5"],
      [{ form: "decimal" }, "0.25", 0.25, "much"],
      [{ form: "percent" }, "40%", 0.4, "much"],
      [{ form: "yes or no" }, "yes", true, "perhaps"],
      [{ form: "colour" }, "#2C6E8F", "#2c6e8f", "sea green"],
      [{ form: "file" }, "sounds/crock open.ogg", "sounds/crock open.ogg", "../secrets.txt"],
      [{ form: "file" }, "a/b.png", "a/b.png", "C:\\tar.png"],
      [{ form: "choice", options: [] }, "", null, "anything"],
    ];
    for (const [given, text, value, wrong] of forms) {
      const of = field("X", given);
      const { catalogue, eel } = preserves();
      const next = must(catalogue, [{ op: "add", kind: "field", record: of }]);
      const path = `own.${of.id}`;
      if (text) expect(write(next, eel, path, text).records.item.get(eel.id)?.own[of.id]).toEqual(value);
      if (wrong) expect(readEntry(next, "item", eel.id, path, wrong)).toHaveProperty("message");
    }
  });

  it("hold every value that is written to their form, whoever writes it", () => {
    const { catalogue, eel } = preserves();
    const outcome = (path: string, to: unknown) => {
      const got = apply(catalogue, [setField(catalogue, "item", eel.id, path, to as never)]);
      return got.ok ? "" : got.issues[0]?.message;
    };
    expect(outcome(`own.${keeps.id}`, "soon")).toMatch(/^Keeps for: “soon” isn't a number\.$/);
    expect(outcome(`own.${smell.id}`, 3)).toMatch(/^Smell: /);
    expect(outcome(`own.${served.id}`, [{ kind: "tag", id: eel.id, amount: 1 }])).toMatch(/no tag/);
    expect(outcome(`own.${served.id}`, [{ kind: "item", id: eel.id, amount: 1 }])).toBe("");
    expect(outcome(`own.${seller.id}`, "Reach market")).toMatch(/is a field of a source, not of a item|not of an item/);
    expect(outcome("own.nobody000000", 1)).toMatch(/There is no field/);
    expect(outcome(`own.${keeps.id}`, { toString: 1 })).toMatch(
      /^Expected text, a number, yes or no, or a list of links\.$/,
    );
    expect(outcome(`own.${served.id}`, [])).toMatch(/^An empty list isn't a value\. Leave it out\.$/);
  });

  it("can't become another form while values of the old one stand", () => {
    const { catalogue, eel } = preserves();
    const said = write(catalogue, eel, `own.${smell.id}`, "smoky");
    const outcome = apply(said, [setField(said, "field", smell.id, "form", "whole")]);
    expect(outcome).toMatchObject({ ok: false, issues: [{ kind: "item", id: eel.id, path: `own.${smell.id}` }] });
    const both = apply(said, [
      setField(said, "field", smell.id, "form", "whole"),
      setField(said, "item", eel.id, `own.${smell.id}`, 4),
    ]);
    expect(both.ok).toBe(true);
  });

  it("are not removed while something still says them", () => {
    const { catalogue } = preserves();
    const outcome = apply(catalogue, [{ op: "remove", kind: "field", record: keeps }]);
    expect(outcome).toMatchObject({ ok: false });
  });
});
