import { describe, expect, it } from "vitest";
import { setField } from "../catalogue/edit";
import { item, kitchen, must } from "../testing/kitchen";
import { seeded } from "../numbers/seeded";
import { randomPantry } from "../testing/random";
import { costByLevel } from "./cost-by-level";
import { originsOf } from "./origins";
import { breakdown } from "./breakdown";
import { levelOf } from "./progression";
import { type Readings, readingsOf } from "./readings";
import { itemsIn } from "../testing/told";

const number = (readings: Readings, name: string): number =>
  readings.compiled.numberOf(item(readings.compiled.catalogue, name).id) as number;

describe("what an item costs at a level", () => {
  it("falls where a cheaper way opens, also further down", () => {
    const readings = readingsOf(
      kitchen("buy Salt for 4\nfine: 1 Brine -> 1 Salt level 6\nbuy Brine for 1\n2 Salt -> 1 Brick level 3"),
    );
    const steps = (name: string) => costByLevel(readings, number(readings, name)).steps.map((s) => [s.level, s.value]);
    expect(steps("Salt")).toEqual([
      [0, 4],
      [6, 1],
    ]);
    expect(steps("Brick")).toEqual([
      [3, 8],
      [6, 2],
    ]);
    expect(steps("Brine")).toEqual([[0, 1]]);
  });

  it("begins at the item's own level, whatever makes it", () => {
    const plain = kitchen("buy Salt for 4\nfine: 1 Brine -> 1 Salt level 6\nbuy Brine for 1");
    const catalogue = must(plain, [setField(plain, "item", item(plain, "Salt").id, "level", 5)]);
    const readings = readingsOf(catalogue);
    expect(costByLevel(readings, number(readings, "Salt")).steps.map((s) => [s.level, s.value])).toEqual([
      [5, 4],
      [6, 1],
    ]);
  });

  it("is nothing for what can't be had, and ends at the least cost of all", () => {
    const readings = readingsOf(kitchen("buy Salt for 4\n1 Glass -> 1 Lens"));
    expect(costByLevel(readings, number(readings, "Lens"))).toEqual({ steps: [], more: false });
    for (let seed = 1; seed <= 30; seed++) {
      const random = readingsOf(randomPantry(seeded(seed), 12));
      for (const i of itemsIn(random)) {
        const { steps } = costByLevel(random, i);
        const last = steps.at(-1);
        expect(last?.value ?? Number.POSITIVE_INFINITY, `seed ${seed}`).toBeCloseTo(random.value.cost[i], 9);
        if (last) expect(steps[0].level, `seed ${seed}`).toBe(levelOf(random, i));
      }
    }
  });
});

describe("where a cost comes from", () => {
  it("is the largest base material with its share, or nothing but the work of the recipes", () => {
    const catalogue = kitchen(
      "buy Salt for 4\nbuy Clay for 1\nbuild: 2 Salt + 2 Clay -> 1 Brick\nfire: 1 Clay -> 1 Tile fee 9 shells\ngather Reed\nknot: 2 Reed -> 1 Mat fee 3 shells",
    );
    const readings = readingsOf(catalogue);
    const { origins, more } = originsOf(readings);
    const names = origins.map(([of, from, share]) => [
      catalogue.records.item.get(of)?.name,
      from && catalogue.records.item.get(from)?.name,
      share,
    ]);
    expect(names.sort()).toEqual([
      ["Brick", "Salt", 0.8],
      ["Clay", "Clay", 1],
      ["Mat", null, 1],
      ["Salt", "Salt", 1],
      ["Tile", "Clay", 0.1],
    ]);
    expect(more).toBe(false);
  });

  it("has the share that the item's own breakdown gives", () => {
    for (let seed = 1; seed <= 20; seed++) {
      const readings = readingsOf(randomPantry(seeded(seed), 12));
      for (const [of, from, share] of originsOf(readings).origins) {
        const i = readings.compiled.numberOf(of) as number;
        const parts = breakdown(readings.value, (k) => readings.by("value", k), i);
        const base = parts?.base.find((b) => readings.compiled.idOf(b.item) === from)?.cost;
        const work = parts?.work.reduce((sum, w) => sum + w.cost, 0);
        expect(((from ? base : work) ?? Number.NaN) / readings.value.cost[i], `seed ${seed}`).toBeCloseTo(share, 9);
      }
    }
  });

  it("follows an edit: a dearer price makes another material the largest", () => {
    const before = kitchen("buy Salt for 4\nbuy Clay for 1\nbuild: 2 Salt + 2 Clay -> 1 Brick");
    const source = [...before.records.source.values()].find((s) =>
      s.lines.some((l) => l.item === item(before, "Clay").id),
    );
    const after = must(before, [setField(before, "source", source?.id as never, "price", 9)]);
    const brick = (of: typeof before) =>
      originsOf(readingsOf(of)).origins.find(([id]) => id === item(of, "Brick").id)?.[1];
    expect([brick(before), brick(after)]).toEqual([item(before, "Salt").id, item(before, "Clay").id]);
  });
});
