import { describe, expect, it } from "vitest";
import type { Catalogue } from "../catalogue/catalogue";
import { type Edit, setField } from "../catalogue/edit";
import { item, kitchen } from "../testing/kitchen";
import { Engine } from "./engine";

describe("the history of a cost", () => {
  const world = kitchen("buy Salt for 4\n2 Salt -> 1 Brick\nbuy Eel for 1");
  const price = (now: Catalogue, name: string, to: number): Edit => {
    const source = [...now.records.source.values()].find((s) => s.lines.some((l) => l.item === item(now, name).id));
    return setField(now, "source", source?.id as never, "price", to);
  };

  it("has every revision at which it became another, and leaves the engine where it was", () => {
    const engine = new Engine(world);
    const first = engine.revision;
    const changes: { revision: number; edits: readonly Edit[] }[] = [];
    const change = (make: (now: Catalogue) => Edit[]) => {
      const { outcome } = engine.change(make(engine.catalogue));
      if (outcome.ok) changes.push({ revision: engine.revision, edits: outcome.edits });
    };
    change((now) => [price(now, "Salt", 5)]);
    change((now) => [price(now, "Eel", 3)]);
    change((now) => [price(now, "Salt", 6)]);
    const before = engine.model();
    const brick = item(world, "Brick").id;
    expect(engine.costHistory(brick, changes)?.map((c) => [c.revision, c.value])).toEqual([
      [first + 3, 12],
      [first + 1, 10],
      [first, 8],
    ]);
    expect(engine.model()).toEqual(before);
    expect(engine.costHistory(brick, [])?.map((c) => [c.revision, c.value])).toEqual([[first + 3, 12]]);
  });

  it("goes back over two changes that start everything again, and no further", () => {
    const engine = new Engine(world);
    const first = engine.revision;
    const changes: { revision: number; edits: readonly Edit[] }[] = [];
    for (const worth of [60, 120, 180, 240]) {
      const { outcome } = engine.change([
        setField(engine.catalogue, "pantry", world.pantry.id, "labourPerHour", worth),
      ]);
      if (outcome.ok) changes.push({ revision: engine.revision, edits: outcome.edits });
    }
    expect(changes.length).toBe(4);
    const before = engine.model();
    // Eel is bought, so that its cost stays; what is gone back over ends at the second change from the end.
    const eel = item(world, "Eel").id;
    expect(engine.costHistory(eel, changes)?.map((c) => c.revision)).toEqual([first + 2]);
    expect(engine.model()).toEqual(before);
  });

  it("begins where the item was not there yet, and is not told of changes that don't fit", () => {
    const engine = new Engine(world);
    const { outcome } = engine.change([
      { op: "remove", kind: "recipe", record: [...world.records.recipe.values()][0] },
    ]);
    const edits = outcome.ok ? outcome.edits : [];
    const brick = item(world, "Brick").id;
    const history = engine.costHistory(brick, [{ revision: engine.revision, edits }]);
    expect(history?.map((c) => c.value)).toEqual([null, 8]);
    const before = engine.model();
    // The price was never set to 99.
    const odd: Edit = { op: "set", kind: "item", id: item(world, "Eel").id, field: "sell", from: 3, to: 99 };
    expect(engine.costHistory(brick, [{ revision: engine.revision, edits: [odd] }])).toBeNull();
    expect(engine.model()).toEqual(before);
  });
});
