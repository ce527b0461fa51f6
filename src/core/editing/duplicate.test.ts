import { expect, it } from "vitest";
import { apply } from "../catalogue/apply";
import { LONGEST_NAME } from "../schema/limits";
import { item, kitchen, must, newItem } from "../testing/kitchen";
import { usesOf } from "../catalogue/uses";
import { tried, withUses } from "../testing/tryout";
import { duplicateOf, duplicateWith } from "./duplicate";

it("gives a copy the next free name and a key of its own, and keeps everything else", () => {
  let catalogue = kitchen("1 River eel -> 1 Smoked eel");
  const eel = item(catalogue, "River eel");
  for (const name of ["River eel 2", "River eel 3"]) {
    const copy = duplicateOf(catalogue, "item", item(catalogue, "River eel"));
    expect(copy).toEqual({ ...eel, id: copy.id, key: name.toLowerCase().replaceAll(" ", "_"), name });
    catalogue = must(catalogue, [{ op: "add", kind: "item", record: copy }]);
  }
  expect(duplicateOf(catalogue, "item", item(catalogue, "River eel 2")).name).toBe("River eel 4");
});

it("gives an item's copy uses of its own, which leave the first one's as they were", () => {
  const pies = withUses(tried({ resource: { Vigour: {} }, item: { Pie: {} } }), {
    Pie: ["Eat: restores 5 Vigour", "Throw: drains 1 Vigour, on one foe"],
  });
  const pie = item(pies, "Pie");
  const { copy, edits } = duplicateWith(pies, pie);
  const after = must(pies, edits);
  const said = (of: typeof pie) => usesOf(after, of).map((u) => [u.name, u.effects, u.use.item]);
  expect(said(copy).map(([name]) => name)).toEqual(["Eat", "Throw"]);
  expect(said(copy).map(([, effects]) => effects)).toEqual(said(pie).map(([, effects]) => effects));
  expect([...said(copy), ...said(pie)].map(([, , of]) => of)).toEqual([copy.id, copy.id, pie.id, pie.id]);
});

it("never makes a name that is too long", () => {
  const long = newItem("a".repeat(LONGEST_NAME));
  const catalogue = must(kitchen(""), [{ op: "add", kind: "item", record: long }]);
  const copy = duplicateOf(catalogue, "item", long);
  expect(copy.name).toHaveLength(LONGEST_NAME);
  expect(apply(catalogue, [{ op: "add", kind: "item", record: copy }]).ok).toBe(true);
});
