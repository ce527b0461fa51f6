import { describe, expect, it } from "vitest";
import type { Catalogue } from "../catalogue/catalogue";
import { type Edit, invert, setField } from "../catalogue/edit";
import { type Rarity, withDefaults } from "../kinds/index";
import { newId } from "../schema/id";
import { item, kitchen, must, recipe } from "../testing/kitchen";
import { newSeries, planSeries, roman, type SeriesRule } from "./series";
import { type Series, seriesOf } from "./series-of";

const bite = withDefaults("stat", { id: newId(), key: "bite", name: "Bite" });
const rarities: Rarity[] = [1, 2, 3].map((rank) =>
  withDefaults("rarity", { id: newId(), key: `r${rank}`, name: `R${rank}`, rank }),
);
const start = must(kitchen("buy Bog iron for 2\nForge: 2 Bog iron -> 1 Knife"), [
  { op: "add", kind: "stat", record: bite },
  ...rarities.map((record): Edit => ({ op: "add", kind: "rarity", record })),
]);
const knife = item(start, "Knife");
const catalogue = must(start, [
  setField(start, "item", knife.id, "sell", 10),
  setField(start, "item", knife.id, "level", 2),
  setField(start, "item", knife.id, "rarity", rarities[0].id),
  setField(start, "item", knife.id, `stats.${bite.id}`, 4),
]);
const rule = (field: string, how: SeriesRule["how"], by: string, round: number | null = null): SeriesRule => ({
  field: field === "bite" ? "" : field,
  stat: field === "bite" ? bite.id : null,
  own: null,
  how,
  by,
  round,
});
const series = (given: Partial<Series> = {}, on: Catalogue = catalogue): Series => ({
  ...newSeries(on, item(on, "Knife")),
  rules: [rule("sell", "multiply", "1.5", 5), rule("level", "add", "3"), rule("bite", "formula", "before + step")],
  recipe: "1 {before} + {n} Bog iron -> 1 {this} in 30s",
  ...given,
});

describe("a series", () => {
  it("makes steps by its rules, each made of the one before, as one change", () => {
    const plan = planSeries(catalogue, series({ rules: [...series().rules, rule("rarity", "add", "1")] }), 4);
    expect(plan.messages).toEqual([]);
    expect(plan.steps.map((s) => [s.n, s.name, ...s.cells.map((c) => c.after)])).toEqual([
      [2, "Knife II", "15", "5", "6", "R2"],
      [3, "Knife III", "25", "8", "9", "R3"],
      [4, "Knife IV", "35", "11", "13", "R3"],
      [5, "Knife V", "50", "14", "18", "R3"],
    ]);
    const next = must(catalogue, plan.edits);
    expect(item(next, "Knife III")).toMatchObject({ key: "knife_iii", sell: 25, level: 8, stats: { [bite.id]: 9 } });
    const made = [...next.records.recipe.values()].find((r) =>
      r.lines.some((l) => l.item === item(next, "Knife III").id && l.role === "output"),
    );
    expect(made?.lines.map((l) => [l.role, l.item, l.min])).toEqual([
      ["ingredient", item(next, "Knife II").id, 1],
      ["ingredient", item(next, "Bog iron").id, 3],
      ["output", item(next, "Knife III").id, 1],
    ]);
    expect(seriesOf(next, item(next, "Knife V").id)?.name).toBe("Knife series");
    expect(must(next, invert(plan.edits)).records.item.size).toBe(catalogue.records.item.size);
  });

  it("stays one: a step more, and other rules, say what differs and change only that", () => {
    const first = must(catalogue, planSeries(catalogue, series(), 2).edits);
    const kept = seriesOf(first, knife.id) as Series;
    const more = planSeries(first, kept, 3);
    expect(more.steps.map((s) => [s.name, s.there])).toEqual([
      ["Knife II", true],
      ["Knife III", true],
      ["Knife IV", false],
    ]);
    expect(more.edits.filter((e) => e.op === "add").map((e) => e.kind)).toEqual(["item", "recipe"]);
    const dearer = planSeries(first, { ...kept, rules: [rule("sell", "add", "7")] }, 2);
    expect(dearer.steps[0].cells).toEqual([{ label: "sell price", before: "15", after: "17" }]);
    expect(must(first, dearer.edits).records.item.size).toBe(first.records.item.size);
    const named = planSeries(first, { ...kept, names: "{name} of rank {n}", recipe: "" }, 2);
    const after = must(first, named.edits);
    expect([...after.records.item.values()].map((i) => i.name)).toContain("Knife of rank 3");
    const slower = planSeries(first, { ...kept, recipe: "1 {before} -> 1 {this} in 60s" }, 2);
    expect(must(first, slower.edits).records.recipe.size).toBe(first.records.recipe.size);
    expect(planSeries(first, kept, 2).edits).toEqual([]);
  });

  it("names by numbers, words and word lists, and never what is taken", () => {
    const weather = withDefaults("wordlist", {
      id: newId(),
      key: "weather",
      name: "Weather",
      words: ["Calm", "Squall", "Gale"],
    });
    const calm = must(catalogue, [
      { op: "add", kind: "wordlist", record: weather },
      { op: "add", kind: "item", record: { ...knife, id: newId(), key: "calm_knife", name: "Calm knife" } },
    ]);
    const names = (pattern: string, given: Partial<Series> = {}) => {
      const plan = planSeries(calm, series({ names: pattern, rules: [], recipe: "", ...given }), 2);
      return plan.steps.map((s) => s.messages[0] ?? s.name);
    };
    expect(names("{name} {n}")).toEqual(["Knife 2", "Knife 3"]);
    expect(names("{word} {name}", { words: ["Keen", "Grim"] })).toEqual(["Keen Knife", "Grim Knife"]);
    expect(names("{word} {name}", { words: ["Keen"] })[1]).toBe("There is no word for step 3: the list has 1.");
    expect(names("{Weather} knife")).toEqual(["Squall knife", "Gale knife"]);
    expect(names("Calm knife")[0]).toBe("The name “Calm knife” is already used.");
    expect(names("{Moods} knife")[0]).toMatch(/^\{Moods\} isn't name, n, roman, word or the name of a word list\.$/);
    expect(names("  ")[0]).toMatch(/empty name/);
    expect(Array.from({ length: 12 }, (_, k) => roman(k + 1)).join(" ")).toBe("I II III IV V VI VII VIII IX X XI XII");
  });

  it("says of each rule and each step what keeps it from being written, and then writes nothing", () => {
    const messages = (rules: SeriesRule[], recipe = "") => {
      const plan = planSeries(catalogue, series({ rules, recipe }), 2);
      expect(plan.edits).toEqual([]);
      return [...plan.messages, ...plan.steps.flatMap((s) => s.messages)];
    };
    expect(messages([rule("sell", "add", "lots")])).toEqual([
      "sell price: “lots” isn't a number. Enter digits with a point for decimals, such as 2.5.",
    ]);
    expect(messages([rule("description", "add", "2")])).toEqual([
      "description: only numbers can be increased or multiplied.",
    ]);
    expect(messages([rule("mass", "add", "2")])).toEqual(["mass: Knife has no value to start from."]);
    expect(messages([rule("name", "add", "2")])[0]).toMatch(/no field “name”/);
    expect(messages([rule("sell", "formula", "sel * 2")])[0]).toMatch(/Did you mean/);
    expect(messages([rule("sell", "list", "12")])).toEqual(["sell price: the list has no entry for step 3."]);
    expect(messages([rule("level", "multiply", "1000")])[0]).toMatch(/^level: 2000 is outside the range 0 to 1000\.$/);
    expect(messages([], "2 {before} -> ")[0]).toMatch(/^Knife II: /);
  });

  it("takes a pasted column for each step, of names too", () => {
    const plan = planSeries(
      catalogue,
      series({ rules: [rule("sell", "list", "12; 14,5"), rule("rarity", "list", "R2, R3")], recipe: "" }),
      2,
    );
    expect(plan.steps.map((s) => s.cells.map((c) => c.after))).toEqual([
      ["12", "R2"],
      ["14.5", "R3"],
    ]);
  });

  it("is told where its first item is gone", () => {
    expect(planSeries(catalogue, { ...series(), first: newId() }, 2).messages).toEqual([
      "The first item of the series was removed.",
    ]);
    expect(recipe(catalogue, "Forge").lines).toHaveLength(2);
  });
});
