import { describe, expect, it } from "vitest";
import { seeded } from "../numbers/seeded";
import { kitchen, must, newItem } from "../testing/kitchen";
import { recordAt } from "./catalogue";
import { setField } from "./edit";
import { findRecords } from "./search";

const catalogue = must(
  kitchen("Smoke eel: 1 River eel -> 1 Smoked eel"),
  ["Stone crock", "Eel skin", "Tarred rope", "Rope", "Rope boots", "Crock stone"].map((name) => ({
    op: "add" as const,
    kind: "item" as const,
    record: newItem(name),
  })),
);
const found = (typed: string, most = 9, on = catalogue) =>
  findRecords(on, typed, most).map(({ kind, id }) => recordAt(on, kind, id)?.name);

describe("a record is found", () => {
  it.each([
    ["by its name, before those that begin with it", "rope", ["Rope", "Rope boots", "Tarred rope"]],
    ["whatever the case and the spaces", "EELSKIN", ["Eel skin"]],
    ["by a word within", "crock", ["Crock stone", "Stone crock"]],
    ["by its words in any order, partly typed", "eel smo", ["Smoked eel", "Smoke eel"]],
    ["with letters turned round, rather than one that it begins with", "rope botos", ["Rope boots"]],
    ["by one misspelt word of several", "crokc", ["Crock stone", "Stone crock"]],
    ["by a misspelt word beside another one", "stoen cro", ["Crock stone", "Stone crock"]],
  ])("%s", (_, typed, names) => {
    expect(found(typed)).toEqual(names);
  });

  it("only where something is like it", () => {
    expect(found("zzzzqqq")).toEqual([]);
    expect(found("  ")).toEqual([]);
  });

  it("as it is called now, whatever came, went and was renamed", () => {
    const random = seeded(8);
    let now = catalogue;
    for (let n = 0; n < 200; n++) {
      const items = [...now.records.item.values()];
      const any = items[Math.floor(random() * items.length)];
      if (items.length < 30) now = must(now, [{ op: "add", kind: "item", record: newItem(`Float ${n}`) }]);
      else if (!any.name.startsWith("Float")) continue;
      else if (random() < 0.3) now = must(now, [setField(now, "item", any.id, "name", `Float ${n} of glass`)]);
      else now = must(now, [{ op: "remove", kind: "item", record: any }]);
      const floats = [...now.records.item.values()].map((i) => i.name).filter((name) => name.startsWith("Float"));
      expect(found("float", 99, now).sort()).toEqual(floats.sort());
    }
  });
});
