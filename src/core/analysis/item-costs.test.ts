import { describe, expect, it } from "vitest";
import { emptyCatalogue } from "../catalogue/catalogue";
import { setField } from "../catalogue/edit";
import { Engine } from "../engine/engine";
import { withDefaults } from "../kinds/index";
import { type Id, newId } from "../schema/id";
import { item, kitchen, must, pantry as pantryOf } from "../testing/kitchen";
import { itemCosts } from "./item-costs";
import { readingsOf } from "./readings";

const pantry = kitchen(
  "gather 2 River eel in 20s\nbuy Salt for 3\nSmoke: 2 River eel + 1 Salt -> 1 Smoked eel in 30s fee 1 shells\nUnsmoke: salvage Smoked eel -> 1 Salt + 1 Eel skin 50%\n1 Ship's glass -> 1 Lens",
  { labourPerHour: 360 },
);
const readings = readingsOf(pantry);
const of = (name: string) => itemCosts(readings, item(pantry, name).id);
const id = (name: string) => item(pantry, name).id;

describe("what one item costs", () => {
  it("is told in both measures, with parts that add up", () => {
    // Two eels are one run of 20 s, 2 in value at 0.1 a second; salt 3; smoking 30 s and a shell, 4.
    const costs = of("Smoked eel");
    expect(costs?.value?.cost).toBeCloseTo(9, 12);
    expect(costs?.time?.cost).toBeCloseTo(50, 12);
    for (const side of [costs?.value, costs?.time])
      expect([...(side?.base ?? []), ...(side?.work ?? [])].reduce((t, p) => t + p.cost, 0)).toBeCloseTo(
        side?.cost ?? Number.NaN,
        12,
      );
    expect(costs?.value?.base.map((b) => [b.item, b.quantity])).toEqual([
      [id("Salt"), 1],
      [id("River eel"), 2],
    ]);
    expect(costs?.value?.work).toMatchObject([{ runs: 1, cost: 4 }]);
    expect(costs?.value?.by.kind).toBe("recipe");
    expect(costs?.value?.base.map((b) => b.by.kind)).toEqual(["source", "source"]);
  });

  it("compares every way but salvage: cheapest first, its level, and what it alone needs", () => {
    const brick = kitchen(
      "buy Clay for 2\nbuy Brick for 5\ngather Mould\nA: 2 Clay -> 1 Brick in 60s level 3\nB: 3 Clay -> 2 Brick using Mould | -> 3 Brick using Ghost mould",
    );
    const { ways } = itemCosts(readingsOf(brick), item(brick, "Brick").id) ?? { ways: [] };
    const told = ways.map((w) => [w.name, w.value, w.time, w.amount, w.level, w.alone.length]);
    expect(told).toEqual([
      ["B", 3, 0, 2, 0, 1],
      ["A", 4, 60, 1, 3, 0],
      ["Brick", 5, 0, 1, 0, 0],
      ["B, using Ghost mould", null, null, 3, null, 1],
    ]);
    expect(ways[0].alone).toEqual([item(brick, "Mould").id]);
  });

  it("names what salvage gives back, and what has no price of its own", () => {
    const [salvage] = of("Smoked eel")?.salvages ?? [];
    expect(salvage).toMatchObject({ cost: 9, back: 3, unpriced: [id("Eel skin")] });
    expect(of("Salt")?.salvages).toEqual([]);
  });

  it("is nothing for what can't be had, and no answer for what isn't there", () => {
    expect(of("Lens")).toMatchObject({ value: null, time: null });
    expect(itemCosts(readings, "nosuchitem00" as Id)).toBeNull();
  });

  it("says from which level on, and what asks for it", () => {
    const gated = kitchen(
      "gather Eel\ngather Salt\nCure: 1 Eel + 1 Salt -> 1 Cured eel level 7\nBake: 1 Cured eel -> 1 Pie\nServe: 1 Pie -> 1 Supper",
    );
    const why = (name: string, of = gated) => itemCosts(readingsOf(of), item(of, name).id)?.level;
    const names = (level: ReturnType<typeof why>) =>
      level && [level.level, level.by.kind, ...level.path.map((i) => gated.records.item.get(i)?.name)];
    expect(why("Eel")).toBeNull();
    expect(names(why("Cured eel"))).toEqual([7, "recipe", "Cured eel", "Cured eel"]);
    expect(names(why("Supper"))).toEqual([7, "recipe", "Supper", "Pie", "Cured eel", "Cured eel"]);
    const own = must(gated, [setField(gated, "item", item(gated, "Supper").id, "level", 9)]);
    expect(why("Supper", own)).toMatchObject({ level: 9, by: { kind: "item", id: item(gated, "Supper").id } });
  });

  it("can be sent as it is", () => expect(JSON.parse(JSON.stringify(of("Smoked eel")))).toEqual(of("Smoked eel")));

  it("is nothing for items that came after a pantry without recipes was opened", () => {
    const engine = new Engine(emptyCatalogue(pantryOf()));
    for (const n of [1, 2, 3, 4]) {
      const record = withDefaults("item", { id: newId(), key: `float_${n}`, name: `Float ${n}` });
      expect(engine.change([{ op: "add", kind: "item", record }]).outcome.ok).toBe(true);
      expect(itemCosts(engine.readings, record.id)).toEqual({
        ways: [],
        value: null,
        time: null,
        level: null,
        salvages: [],
      });
    }
  });
});
