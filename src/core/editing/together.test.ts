import { describe, expect, it } from "vitest";
import { around } from "../catalogue/surroundings";
import { formatRecipe } from "../notation/format";
import { item, kitchen, must } from "../testing/kitchen";
import { givingTimes } from "./together";

describe("several recipes of one item", () => {
  it("give so many times as much, in every way and in nothing else", () => {
    const catalogue = kitchen(
      "A: 1 Clay -> 3 Brick + 1 Dust | -> 4..6 Brick using Mould\nB: 2 Clay -> 1 Brick 50%\nC: 1 Brick -> 1 Dust",
    );
    const edits = givingTimes(catalogue, [...catalogue.records.recipe.values()], item(catalogue, "Brick").id, 0.1);
    const after = must(catalogue, edits);
    expect([...after.records.recipe.values()].map((r) => formatRecipe(around(after), r))).toEqual([
      "A: 1 Clay -> 0.3 Brick + 1 Dust | -> 0.4..0.6 Brick using Mould",
      "B: 2 Clay -> 0.1 Brick 50%",
      "C: 1 Brick -> 1 Dust",
    ]);
    expect(edits).toHaveLength(3);
  });
});
