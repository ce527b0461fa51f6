import { describe, expect, it } from "vitest";
import type { Catalogue } from "../catalogue/catalogue";
import { around } from "../catalogue/surroundings";
import { saidIn, usesOf, usesSaidBy } from "../catalogue/uses";
import type { Item, ItemType, Use } from "../kinds/index";
import { formatUse } from "../notation/use-line";
import { must } from "../testing/kitchen";
import { idOf, tried, withUses } from "../testing/tryout";
import { addUse, overrideUse, readUseLine, rewriteUse } from "./uses";

/** Fare is eaten; broth is fare that is sipped; a cup and a bowl of it are items. */
const base = withUses(
  withUses(
    tried({
      type: { Fare: { cooldown: idOf("Meal") }, Broth: { parent: idOf("Fare") } },
      cooldown: { Meal: { ticks: 300 } },
      resource: { Vigour: {} },
      stat: { Grip: {} },
      condition: { Warm: {} },
      item: { Pie: { type: idOf("Fare") }, Cup: { type: idOf("Broth") }, Bowl: { type: idOf("Broth") }, Crock: {} },
    }),
    { Fare: ["Eat: restores 10 Vigour, used up, needs level 2"] },
    "type",
  ),
  { Broth: ["Sip: restores 4 Vigour, Warm 5s"] },
  "type",
  { varies: idOf("Eat Fare") },
);
const item = (of: Catalogue, name: string) => of.records.item.get(idOf(name)) as Item;
const type = (of: Catalogue, name: string) => of.records.type.get(idOf(name)) as ItemType;
const uses = (of: Catalogue, name: string) => usesOf(of, item(of, name));
const line = (of: Catalogue, use: Use) => formatUse(use, around(of));

describe("the uses of an item", () => {
  it("are those of its types, of which a nearer one takes the place of the one it varies", () => {
    const [eat] = uses(base, "Pie");
    expect([eat.name, eat.inherited, eat.level, eat.fate]).toEqual(["Eat", true, 2, "used up"]);
    const [sip, ...more] = uses(base, "Cup");
    expect(more).toEqual([]);
    // Its effects are its own, the level and what becomes of it those of the use it varies.
    expect([sip.name, sip.level, sip.fate, sip.effects.length, sip.group]).toEqual([
      "Sip",
      2,
      "used up",
      2,
      idOf("Meal"),
    ]);
    expect(saidIn(sip.chain, "level")?.by.name).toBe("Eat");
    expect(saidIn(sip.chain, "told")).toBe(null);
  });

  it("say otherwise in part, are taken away, and are put back as the type says", () => {
    const [sip] = uses(base, "Cup");
    const varied = must(base, overrideUse(base, item(base, "Cup"), sip.use));
    const [same] = uses(varied, "Cup");
    expect([same.inherited, same.effects, same.level]).toEqual([false, sip.effects, 2]);
    const longer = must(varied, rewriteUse(varied, same.use, "Sip: ready in 9s, needs level 7") ?? []);
    const [other] = uses(longer, "Cup");
    expect([other.wait, other.level, other.effects]).toEqual([90, 7, sip.effects]);
    // The bowl is as it was.
    expect([uses(longer, "Bowl")[0].wait, uses(longer, "Bowl")[0].level]).toEqual([null, 2]);
    const away = must(base, overrideUse(base, item(base, "Cup"), sip.use, true));
    expect(uses(away, "Cup")).toEqual([]);
    expect(usesOf(away, item(away, "Cup"), true)).toHaveLength(1);
    const back = must(longer, [{ op: "remove", kind: "use", record: other.use }]);
    expect(uses(back, "Cup")[0]).toMatchObject({ inherited: true, level: 2 });
  });

  it("follow when an item changes its type, and when a use of a type is another", () => {
    const moved = must(base, [
      { op: "set", kind: "item", id: idOf("Cup"), field: "type", from: idOf("Broth"), to: idOf("Fare") },
    ]);
    expect(uses(moved, "Cup").map((u) => u.name)).toEqual(["Eat"]);
    const [eat] = usesSaidBy(base, idOf("Fare"));
    const edited = must(base, rewriteUse(base, eat, "Eat: restores 10 Vigour, kept, needs level 4") ?? []);
    expect([uses(edited, "Pie")[0].fate, uses(edited, "Cup")[0].fate, uses(edited, "Cup")[0].level]).toEqual([
      "kept",
      "kept",
      4,
    ]);
  });
});

describe("a line that is typed", () => {
  it("becomes the edits of what it says otherwise, each by itself", () => {
    const [eat] = usesSaidBy(base, idOf("Fare"));
    expect(rewriteUse(base, eat, line(base, eat))).toEqual([]);
    expect(rewriteUse(base, eat, "Eat: restores 10 Vigour, used up, needs level 3, needs Grip 4")).toEqual([
      { op: "set", kind: "use", id: eat.id, field: "level", from: 2, to: 3 },
      { op: "set", kind: "use", id: eat.id, field: `least.${idOf("Grip")}`, from: null, to: 4 },
    ]);
    expect(rewriteUse(base, eat, "Eat: restores 10 Vigor")).toBe(null);
  });

  it("gives an item or a type a use with a key of its own, and makes stubs of items that it names again", () => {
    const made = addUse(base, item(base, "Pie"), "Wrap: gives 2 Paper parcel, kept");
    const next = must(base, made?.edits ?? []);
    const [, wrap] = uses(next, "Pie");
    expect([wrap.use.key, line(next, wrap.use)]).toEqual(["wrap_pie", "Wrap: gives 2 Paper parcel, kept"]);
    expect([...next.records.item.values()].find((i) => i.name === "Paper parcel")?.status).toBe("stub");
    const typed = addUse(base, type(base, "Fare"), "Throw: drains 1 Vigour, on one foe");
    expect(uses(must(base, typed?.edits ?? []), "Bowl").map((u) => u.name)).toEqual(["Sip", "Throw"]);
    expect(addUse(base, item(base, "Pie"), "no colon")).toBe(null);
    expect(readUseLine(base, "Eat: sings").issues[0].severity).toBe("error");
  });
});
