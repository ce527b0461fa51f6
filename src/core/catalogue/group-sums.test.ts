import { expect, it } from "vitest";
import type { Edit } from "./edit";
import { type Item, withDefaults } from "../kinds/index";
import { newId } from "../schema/id";
import { kitchen, must, newItem } from "../testing/kitchen";
import { groupSums } from "./group-sums";

const [fish, keeps] = ["fish", "keeps"].map((name) => withDefaults("tag", { id: newId(), key: name, name }));
const fare = withDefaults("type", { id: newId(), key: "fare", name: "Fare", level: 10 });
const catalogue = must(kitchen(""), [
  ...[fish, keeps].map((record): Edit => ({ op: "add", kind: "tag", record })),
  { op: "add", kind: "type", record: fare },
  ...[
    newItem("Eel pie", { type: fare.id, tags: [fish.id, keeps.id], sell: 30 }),
    newItem("Crab boil", { type: fare.id, tags: [fish.id], sell: 12.5 }),
    newItem("Rope", { level: 2 }),
  ].map((record): Edit => ({ op: "add", kind: "item", record })),
]);
const groups = (by: Parameters<typeof groupSums>[2]) =>
  groupSums(catalogue, catalogue.records.item.values(), by, [(item: Item) => item.sell]).map((g) => [
    g.key,
    g.name,
    g.count,
    g.sums[0].sum,
    g.sums[0].of,
  ]);

it("counts and sums the items of each group, tags one by one, inherited levels too", () => {
  expect(groups("type")).toEqual([
    ["fare", "Fare", 2, 42.5, 2],
    [null, "–", 1, 0, 0],
  ]);
  expect(groups("tag")).toEqual([
    ["fish", "fish", 2, 42.5, 2],
    ["keeps", "keeps", 1, 30, 1],
    [null, "–", 1, 0, 0],
  ]);
  expect(groups("level")).toEqual([
    ["2", "2", 1, 0, 0],
    ["10", "10", 2, 42.5, 2],
  ]);
  expect(groups("status")).toEqual([["ready", "ready", 3, 42.5, 2]]);
  expect(groups("rarity")).toEqual([[null, "–", 3, 42.5, 2]]);
});
