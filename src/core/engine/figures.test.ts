import { describe, expect, it } from "vitest";
import { apply } from "../catalogue/apply";
import { type Edit, setField } from "../catalogue/edit";
import { seeded } from "../numbers/seeded";
import { item, kitchen, must, newItem, recipe } from "../testing/kitchen";
import { randomEdits, randomPantry } from "../testing/random";
import { at, read } from "../testing/told";
import { FigureTable } from "./figures";
import { Readings, readingsOf } from "../analysis/readings";

describe("figures in flat arrays", () => {
  it("say what an item costs, by what, over how many recipes and from which level", () => {
    const r = read("gather Eel in 30s\nSmoke: 2 Eel -> 1 Smoked eel in 60s level 4\n1 Ghost -> 1 Lens", {
      labourPerHour: 3600,
    });
    const table = new FigureTable(r);
    expect(table.at(at(r, "Smoked eel"))).toEqual({
      value: 120,
      time: 120,
      by: recipe(r.catalogue, "Smoke").id,
      steps: 1,
      level: 4,
    });
    expect(table.at(at(r, "Lens"))).toEqual({ value: null, time: null, by: null, steps: null, level: null });
    expect(table.at(r.network.items)).toBeNull();
    expect([...table.all()]).toHaveLength(4);
  });

  it("follow items that come, go and come again", () => {
    const r = read("gather Eel in 30s");
    const table = new FigureTable(r);
    const kelp = newItem("Kelp");
    const told: (readonly [string, boolean, boolean])[][] = [];
    for (const edit of [
      { op: "add", kind: "item", record: kelp },
      { op: "remove", kind: "item", record: kelp },
      { op: "add", kind: "item", record: kelp },
    ] as Edit[]) {
      const next = must(r.catalogue, [edit]);
      told.push(table.follow(r, r.advance(next, [edit])).map(([id, then, now]) => [id, then !== null, now !== null]));
    }
    expect(told).toEqual([[[kelp.id, false, true]], [[kelp.id, true, false]], [[kelp.id, false, true]]]);
    expect([...table.all()].map(([id]) => id).sort()).toEqual([kelp.id, item(r.catalogue, "Eel").id].sort());
  });

  it("tell what moved between two networks with numbers of their own", () => {
    const before = kitchen("gather Eel in 30s\nSmoke: 2 Eel -> 1 Smoked eel\ngather Kelp in 10s");
    const after = must(before, [setField(before, "recipe", recipe(before, "Smoke").id, "ticks", 600)]);
    const [old, now] = [new FigureTable(readingsOf(before)), new FigureTable(readingsOf(after))];
    const moved = [...now.since(old)];
    expect(moved.map(([id]) => id)).toEqual([item(before, "Smoked eel").id]);
    expect([moved[0][1]?.time, moved[0][2]?.time]).toEqual([60, 90]);
    expect([...now.since(now)]).toEqual([]);
  });

  it("are after any changes what they are from scratch", () => {
    for (let n = 0; n < 8; n++) {
      const random = seeded(700 + n);
      const readings = new Readings(randomPantry(random, 10));
      const table = new FigureTable(readings);
      for (let k = 0; k < 8; k++) {
        const outcome = apply(readings.catalogue, randomEdits(random, readings.catalogue));
        if (!outcome.ok) continue;
        const delta = readings.advance(outcome.catalogue, outcome.edits);
        if (delta.anew) break;
        table.follow(readings, delta);
        expect(new Map(table.all())).toEqual(new Map(new FigureTable(readingsOf(readings.catalogue)).all()));
      }
    }
  });
});
