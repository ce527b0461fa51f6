import { expect, it } from "vitest";
import { withDefaults } from "../kinds/index";
import { seeded } from "../numbers/seeded";
import { newId, type Id } from "../schema/id";
import { keyFrom } from "../schema/names";
import { kitchen, must, newItem } from "../testing/kitchen";
import { setField } from "./edit";
import { itemsOfType, type TypeNode, typeTree } from "./types";

const type = (name: string, parent: Id | null = null) =>
  withDefaults("type", { id: newId(), key: keyFrom(name, "type"), name, parent });

it("knows the items of each type, whatever changes type, comes and goes", () => {
  const random = seeded(3);
  const types = ["Fare", "Gear", "Cordage"].map((name) => type(name));
  let catalogue = must(
    kitchen(""),
    types.map((record) => ({ op: "add" as const, kind: "type" as const, record })),
  );
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
  for (let n = 0; n < 300; n++) {
    const items = [...catalogue.records.item.values()];
    const to = pick([...types.map((t) => t.id), null]);
    if (items.length < 20 || random() < 0.3)
      catalogue = must(catalogue, [{ op: "add", kind: "item", record: newItem(`Thing ${n}`, { type: to }) }]);
    else if (random() < 0.4) catalogue = must(catalogue, [{ op: "remove", kind: "item", record: pick(items) }]);
    else catalogue = must(catalogue, [setField(catalogue, "item", pick(items).id, "type", to)]);
    for (const id of [...types.map((t) => t.id), null])
      expect([...itemsOfType(catalogue, id)].sort()).toEqual(
        [...catalogue.records.item.values()].flatMap((i) => (i.type === id ? [i.id] : [])).sort(),
      );
  }
});

it("puts types under one another by name, each with the items of all under it", () => {
  const goods = type("Goods");
  const [fare, gear] = [type("Fare", goods.id), type("Gear", goods.id)];
  const kept = type("Kept fare", fare.id);
  const catalogue = must(kitchen(""), [
    ...[goods, gear, fare, kept].map((record) => ({ op: "add" as const, kind: "type" as const, record })),
    ...[kept.id, kept.id, fare.id, gear.id].map((of, n) => ({
      op: "add" as const,
      kind: "item" as const,
      record: newItem(`Thing ${n}`, { type: of }),
    })),
  ]);
  const told = (nodes: readonly TypeNode[]): unknown[] =>
    nodes.map((n) => [catalogue.records.type.get(n.id)?.name, n.level, n.items, told(n.children)]);
  expect(told(typeTree(catalogue))).toEqual([
    [
      "Goods",
      1,
      4,
      [
        ["Fare", 2, 3, [["Kept fare", 3, 2, []]]],
        ["Gear", 2, 1, []],
      ],
    ],
  ]);
  expect(typeTree(kitchen(""))).toEqual([]);
});
