import { describe, expect, it } from "vitest";
import { setField } from "../catalogue/edit";
import { item, kitchen, must } from "../testing/kitchen";
import { read } from "../testing/told";
import { glanceOf } from "./glance";
import { type Readings, readingsOf } from "./readings";

const name = (r: Readings) => (id: string) => r.catalogue.records.item.get(id as never)?.name ?? "";

describe("the pantry at a glance", () => {
  const r = read(
    "gather Brine\ngather Peat\ngather Eel\nSalt: 6 Brine + 1 Peat -> 3 Salt\nSmoke: 1 Eel + 1 Salt -> 1 Smoked eel\nPie: 2 Smoked eel -> 1 Pie\nPray: 1 Ghost -> 1 Wonder\ngather Pebble\nSkip: 1 Pebble -> 1 Ripple",
  );
  const glance = glanceOf(r);

  it("has its tiers by the recipes behind each item, those out of reach last", () => {
    expect(glance.tiers.map((t) => [t.steps, t.count])).toEqual([
      [0, 4],
      [1, 2],
      [2, 1],
      [3, 1],
      [null, 2],
    ]);
    expect(glance.tiers[1].items.map(name(r))).toEqual(["Salt", "Ripple"]);
  });

  it("says what goes with an item: without brine there is no salt, no smoked eel and no pie", () => {
    const lost = Object.fromEntries(glance.pillars.map(({ item: id, lost: n }) => [name(r)(id), n]));
    expect(lost).toEqual({ Brine: 3, Peat: 3, Salt: 2, Eel: 2, "Smoked eel": 1, Pebble: 1 });
  });

  it("finds what ends nowhere, what stands apart, and loops", () => {
    expect(glance.deadEnds.items.map(name(r)).sort()).toEqual(["Pie", "Ripple"]);
    expect(glance.islands.map((of) => of.items.map(name(r)).sort().join()).sort()).toEqual([
      "Ghost,Wonder",
      "Pebble,Ripple",
    ]);
    expect(glance.loops).toEqual({ gaining: 0, even: 0, stuck: 0 });
    const sold = kitchen("gather Pebble");
    const told = glanceOf(readingsOf(must(sold, [setField(sold, "item", item(sold, "Pebble").id, "sell", 2)])));
    expect(told.deadEnds.count).toBe(0);
    expect(glanceOf(read("A: 1 X -> 2 Y\nB: 1 Y -> 1 X")).loops.gaining).toBe(1);
  });
});
