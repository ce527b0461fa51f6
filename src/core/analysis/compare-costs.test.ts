import { describe, expect, it } from "vitest";
import { item, kitchen } from "../testing/kitchen";
import { compareCosts } from "./compare-costs";
import { itemCosts } from "./item-costs";
import { readingsOf } from "./readings";

describe("two items' costs", () => {
  const catalogue = kitchen(
    "buy Salt for 4\nbuy Clay for 1\nbuild: 2 Salt + 2 Clay -> 1 Brick\nfire: 3 Clay -> 1 Tile fee 9 shells\n1 Glass -> 1 Lens",
  );
  const readings = readingsOf(catalogue);
  const of = (name: string) => {
    const costs = itemCosts(readings, item(catalogue, name).id);
    if (!costs) throw new Error(name);
    return costs;
  };

  it("are compared by base material and work, the largest difference first, and add up on both sides", () => {
    const parts = compareCosts(of("Brick"), of("Tile")) ?? [];
    expect(parts.map((p) => [p.item && catalogue.records.item.get(p.item)?.name, p.one.cost, p.other.cost])).toEqual([
      [null, 0, 9],
      ["Salt", 8, 0],
      ["Clay", 2, 3],
    ]);
    expect(parts.find((p) => p.one.cost === 2)?.other.quantity).toBe(3);
    for (const [side, name] of [
      ["one", "Brick"],
      ["other", "Tile"],
    ] as const)
      expect(parts.reduce((sum, p) => sum + p[side].cost, 0)).toBeCloseTo(of(name).value?.cost ?? Number.NaN, 12);
  });

  it("are not compared where one can't be had", () => {
    expect(compareCosts(of("Brick"), of("Lens"))).toBeNull();
  });
});
