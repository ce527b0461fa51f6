import { around } from "../catalogue/surroundings";
import { describe, expect, it } from "vitest";
import { Engine } from "../engine/engine";
import { readingsOf } from "../analysis/readings";
import type { Catalogue } from "../catalogue/catalogue";
import { invert, setField } from "../catalogue/edit";
import { formatRecipe } from "../notation/format";
import { item, kitchen, must, recipe } from "../testing/kitchen";
import type { Fix } from "./check";
import { replaceEverywhere } from "../editing/replace";
import { closeLoop, newSource, setLines } from "./fixes";

const messagesOf = (fixes: readonly Fix[]) => fixes.map((f) => f.message);
const apply = (c: Catalogue, fix: Fix) => must(c, fix.do === "edit" ? fix.edits : []);
const gains = (c: Catalogue) => readingsOf(c).gain.gains.length;

describe("closing a loop", () => {
  it("lowers the quantity as little as closes it", () => {
    const c = kitchen("gather X\nMake: 4 X -> 1 A\nBreak: salvage A -> 9 X");
    const fixes = closeLoop(c, [...c.records.recipe.values()]);
    expect(messagesOf(fixes)[0]).toBe("Break: give 4 X instead of 9");
    expect(messagesOf(fixes)).toContain("Break: 9 X at 40% instead of 100%");
    for (const fix of fixes) {
      const fixed = apply(c, fix);
      expect(gains(fixed), fix.message).toBe(0);
      expect(gains(must(fixed, invert(fix.do === "edit" ? fix.edits : [])))).toBe(1);
    }
  });

  it("lowers the top of a range, and its bottom with it where it must", () => {
    const c = kitchen("gather X\nMake: 2 X -> 1 A\nBreak: salvage A -> 2..6 X");
    const fix = closeLoop(c, [...c.records.recipe.values()]).find((f) => f.message.includes("give"));
    expect(fix?.message).toBe("Break: give 2 X instead of 2 to 6");
    expect(gains(apply(c, fix as Fix))).toBe(0);
  });

  it("tries each recipe's outputs, gentlest first", () => {
    const c = kitchen("gather X\nMake: 10 X -> 10 A\nBreak: salvage A -> 1.05 X");
    const fixes = closeLoop(c, [...c.records.recipe.values()]);
    expect(messagesOf(fixes)[0]).toMatch(/^Break: (give 1 X instead of 1.05|1.05 X at 95%)/);
    for (const fix of fixes) expect(gains(apply(c, fix)), fix.message).toBe(0);
  });
});

describe("closing a loop that hands something back", () => {
  it("leaves what is only handed back alone, where another way closes it", () => {
    const c = kitchen("gather X\ngather Rope\nThere: 2 X + 1 Rope -> 2 Y + 1 Rope\nBack: 2 Y -> 3 X");
    const fixes = closeLoop(c, [...c.records.recipe.values()]);
    expect(messagesOf(fixes).slice(0, 2).sort()).toEqual([
      "Back: give 2 X instead of 3",
      "There: 2 Y at 65% instead of 100%",
    ]);
    expect(messagesOf(fixes).slice(0, 2).join()).not.toContain("Rope");
    for (const fix of fixes) expect(gains(apply(c, fix))).toBe(0);
  });
});

describe("closing a loop through money", () => {
  it("lowers the one sell price to what comes out even", () => {
    const c = kitchen("buy Salt for 2\nPickle: 3 Salt -> 1 Brine pot");
    const dear = must(c, [setField(c, "item", item(c, "Brine pot").id, "sell", 7.5)]);
    const [loop] = new Engine(dear).model().findings;
    expect(messagesOf(loop.fixes)).toEqual([
      "Sell Brine pot for 6.00 instead of 7.50",
      "Open Brine pot and lower its sell price",
      "Retire Pickle",
      "Open Salt",
    ]);
    expect(gains(apply(dear, loop.fixes[0]))).toBe(0);
    expect(readingsOf(apply(dear, loop.fixes[0])).gain.even).toHaveLength(1);
  });
});

describe("ready-made edits", () => {
  const c = kitchen(
    "gather Eel skin\nbuy Eelskin for 1\nStitch: 3 Eelskin -> 1 Glove using Eelskin\nTan: 1 Eel skin -> 1 Leather",
  );

  it("replace one item by another everywhere, and nowhere else", () => {
    const next = must(c, replaceEverywhere(c, "item", item(c, "Eelskin").id, item(c, "Eel skin").id));
    expect(formatRecipe(around(next), recipe(next, "Stitch"))).toBe("Stitch: 3 Eel skin -> 1 Glove using Eel skin");
    expect(next.records.recipe.get(recipe(c, "Tan").id)).toBe(c.records.recipe.get(recipe(c, "Tan").id));
    expect([...next.records.source.values()].every((s) => s.lines[0].item === item(c, "Eel skin").id)).toBe(true);
    expect(replaceEverywhere(c, "item", item(c, "Glove").id, item(c, "Leather").id)).toHaveLength(1);
  });

  it("make a source with a name and key of its own, half a minute a run", () => {
    const source = newSource(c, item(c, "Glove").id);
    expect(source).toMatchObject({ name: "Gather Glove", key: "gather_glove", kind: "gathering", ticks: 600 });
    const twice = must(c, [{ op: "add", kind: "source", record: source }]);
    expect(newSource(twice, item(c, "Glove").id).key).toBe("gather_glove_2");
  });

  it("set lines with what they replace", () => {
    const tan = recipe(c, "Tan");
    expect(setLines(c, "recipe", tan.id, [])).toEqual({
      op: "set",
      kind: "recipe",
      id: tan.id,
      field: "lines",
      from: tan.lines,
      to: [],
    });
  });
});
