import { describe, expect, it } from "vitest";
import type { Edit } from "../catalogue/edit";
import { around } from "../catalogue/surroundings";
import { withDefaults } from "../kinds/index";
import { formatRecipe } from "../notation/format";
import { newId } from "../schema/id";
import { item, kitchen, must, newItem } from "../testing/kitchen";
import { type BulkPlan, type BulkRequest, planBulk } from "./bulk";

const stat = withDefaults("stat", { id: newId(), key: "vigour", name: "Vigour" });
const fare = withDefaults("type", { id: newId(), key: "fare", name: "Fare", stack: 10, stats: { [stat.id]: 4 } });
const catalogue = must(kitchen(""), [
  { op: "add", kind: "stat", record: stat },
  { op: "add", kind: "type", record: fare },
  ...[
    newItem("Eel pie", { sell: 34, type: fare.id }),
    newItem("Crab boil", { sell: 12.5 }),
    newItem("Barm"),
    newItem("Skiff", { sell: 900_000_000 }),
  ].map((record): Edit => ({ op: "add", kind: "item", record })),
]);
const all = [...catalogue.records.item.values()];
const ask = (path: string, action: BulkRequest["action"], typed = "", step = ""): BulkPlan =>
  planBulk(catalogue, "item", all, { path, action, typed, step });
const told = (plan: BulkPlan) =>
  plan.ok ? plan.rows.map((r) => `${r.record.name}: ${r.before} → ${r.after ?? r.message}`) : plan.message;

describe("the same done to many", () => {
  it("raises prices by a share and rounds them to a step; what has no price keeps none", () => {
    expect(told(ask("sell", "raise by percent", "12", "5"))).toEqual([
      "Eel pie: 34 → 40",
      "Crab boil: 12.5 → 15",
      expect.stringContaining("Skiff: 900000000 → 1008000000 is outside"),
    ]);
    expect(told(ask("sell", "multiply by", "0,5")).slice(0, 2)).toEqual(["Eel pie: 34 → 17", "Crab boil: 12.5 → 6.25"]);
    expect(told(ask("sell", "add", "0.1"))?.[1]).toBe("Crab boil: 12.5 → 12.6");
  });

  it("writes what is asked for, but for what is refused, in edits that can be applied", () => {
    const plan = ask("sell", "raise by percent", "12", "5");
    if (!plan.ok) throw new Error(plan.message);
    expect(plan.same).toBe(1);
    const next = must(catalogue, plan.edits);
    expect(["Eel pie", "Crab boil", "Barm", "Skiff"].map((name) => item(next, name).sell)).toEqual([
      40,
      15,
      null,
      900_000_000,
    ]);
  });

  it("reckons with what is inherited, and puts back to it what is cleared", () => {
    expect(told(ask("stack", "multiply by", "2"))).toEqual(["Eel pie: 10 → 20"]);
    expect(told(ask(`stats.${stat.id}`, "add", "1"))).toEqual(["Eel pie: 4 → 5"]);
    expect(told(ask("sell", "clear"))).toEqual(["Eel pie: 34 → ", "Crab boil: 12.5 → ", "Skiff: 900000000 → "]);
    expect(ask("stack", "clear")).toMatchObject({ ok: true, rows: [], same: 4, edits: [] });
  });

  it("sets names, words and lists, and makes what a name may make", () => {
    expect(told(ask("status", "set to", "retired"))).toHaveLength(4);
    const tagged = ask("tags", "set to", "food, new label");
    if (!tagged.ok) throw new Error(tagged.message);
    const next = must(catalogue, tagged.edits);
    expect(next.records.tag.size).toBe(2);
    expect(item(next, "Barm").tags).toHaveLength(2);
  });

  it("says what is wrong with what was asked", () => {
    expect(told(ask("sell", "add", "some"))).toContain(
      "“some” isn't a number. Enter digits with a point for decimals, such as 2.5.",
    );
    expect(told(ask("sell", "add", "1", "-2"))).toContain(
      "“-2” isn't a step to round to. Enter a number such as 5 or 0.25, or leave it empty.",
    );
    expect(told(ask("name", "add", "1"))).toBe("This works only with numbers.");
    expect(told(ask("status", "set to", "lost"))).toContain(
      "“lost” isn't an option. Choose stub, draft, ready or retired.",
    );
    expect(told(ask("nothing", "clear"))).toBe("Choose what to change.");
    expect(told(ask("name", "clear"))).toEqual(expect.arrayContaining([expect.stringContaining("Enter a name")]));
  });
});

describe("what can be done to many", () => {
  const glow = withDefaults("field", { id: newId(), key: "glows", name: "Glows for", form: "duration" });
  const word = withDefaults("field", { id: newId(), key: "maker", name: "Maker", form: "text" });
  const [fish, keeps] = ["fish", "keeps"].map((name) => withDefaults("tag", { id: newId(), key: name, name }));
  const more = must(catalogue, [
    ...[glow, word].map((record): Edit => ({ op: "add", kind: "field", record })),
    ...[fish, keeps].map((record): Edit => ({ op: "add", kind: "tag", record })),
  ]);
  const plan = (path: string, action: BulkRequest["action"], typed = "", given: Partial<BulkRequest> = {}, on = more) =>
    planBulk(on, "item", on.records.item.values(), { path, action, typed, step: "", ...given });
  const done = (path: string, action: BulkRequest["action"], typed = "", given = {}, on = more) => {
    const made = plan(path, action, typed, given, on);
    if (!made.ok) throw new Error(made.message);
    return must(on, made.edits);
  };

  it("reckons a value from the columns of each item, and says why it has none", () => {
    expect(told(plan("buy", "reckon as", "sell price * 1.5 + Vigour", { step: "1" }))).toEqual([
      "Eel pie:  → 55",
      "Crab boil:  → Vigour has no value here.",
      "Barm:  → sell price has no value here.",
      "Skiff:  → Vigour has no value here.",
    ]);
    expect(told(plan("buy", "reckon as", "sel price"))).toMatch(/Did you mean sell price/);
    const cost = new Map([["cost", (r: { name: string }) => (r.name === "Barm" ? 7 : null)]]);
    const worked = planBulk(
      more,
      "item",
      all,
      { path: "sell", action: "reckon as", typed: "cost * 2", step: "" },
      cost,
    );
    expect(told(worked)).toContain("Barm:  → 14");
    expect(item(done(`own.${glow.id}`, "reckon as", "sell price * 1.01"), "Eel pie").own[glow.id]).toBe(34);
  });

  it("copies another column, number to number and else as it is written", () => {
    expect(item(done("buy", "copy from", "sell"), "Crab boil").buy).toBe(12.5);
    const named = done(`own.${word.id}`, "copy from", "type");
    expect(item(named, "Eel pie").own[word.id]).toBe("Fare");
    expect(item(named, "Barm").own).toEqual({});
    expect(told(plan("sell", "copy from", "nothing"))).toBe("Choose the column to copy.");
  });

  it("replaces a text in texts, as it stands and not as a pattern", () => {
    const said = done("description", "set to", "Salted. Twice ($&).");
    const next = done("description", "replace", "Salted.", { other: "Smoked $& ." }, said);
    expect(item(next, "Barm").description).toBe("Smoked $& . Twice ($&).");
    expect(told(plan("sell", "replace", "1"))).toMatch(/^This action isn't available for this field of items\.$/);
  });

  it("adds tags and takes them out, each once", () => {
    const tagged = done("tags", "add to", "fish, keeps");
    expect(item(done("tags", "add to", "fish", {}, tagged), "Barm").tags).toEqual([fish.id, keeps.id]);
    expect(item(done("tags", "take out", "fish", {}, tagged), "Barm").tags).toEqual([keeps.id]);
    const made = done("tags", "add to", "festival");
    expect([...made.records.tag.values()].map((t) => t.name)).toContain("festival");
  });
});

describe("the lines of many recipes", () => {
  const book = kitchen(
    "gather Eel\nEel are fish\nSmoke: 2 Eel + 0.1 Salt -> 1 Smoked eel + 1 Skin 50% at Shed | -> 2 Smoked eel using Knife\n" +
      "Pie: 3 Eel -> 1 Pie\nlabelled: pattern [Eel, Salt] -> 1 Charm\nUnpick: salvage Pie -> 1 Eel",
  );
  const ask = (action: BulkRequest["action"], typed: string, other = "") =>
    planBulk(book, "recipe", book.records.recipe.values(), { path: "lines", action, typed, other, step: "" });
  const lines = (plan: BulkPlan) => {
    if (!plan.ok) throw new Error(plan.message);
    const next = must(book, plan.edits);
    return [...next.records.recipe.values()].map((r) => formatRecipe(around(next), r));
  };

  it("give and take so many times as much, exactly and in all of their ways; patterns stay as they lie", () => {
    expect(lines(ask("multiply what goes in by", "3"))).toEqual([
      "Smoke: 6 Eel + 0.3 Salt -> 1 Smoked eel + 1 Skin 50% at Shed | -> 2 Smoked eel using Knife",
      "9 Eel -> 1 Pie",
      "labelled: pattern [Eel, Salt] -> 1 Charm",
      "Unpick: salvage 3 Pie -> 1 Eel",
    ]);
    const given = ask("multiply what comes out by", "0,5");
    expect(lines(given)[0]).toBe(
      "Smoke: 2 Eel + 0.1 Salt -> 0.5 Smoked eel + 0.5 Skin 50% at Shed | -> 1 Smoked eel using Knife",
    );
    expect(told(given)).toHaveLength(4);
    expect(told(ask("multiply what comes out by", "0"))).toContain(
      "“0” isn't a number above 0. Enter one such as 2 or 0.5.",
    );
  });

  it("take something instead of something else, by name or as any with a tag", () => {
    expect(lines(ask("exchange", "eel", "any fish"))).toEqual([
      "Smoke: 2 any fish + 0.1 Salt -> 1 Smoked eel + 1 Skin 50% at Shed | -> 2 Smoked eel using Knife",
      "3 any fish -> 1 Pie",
      "labelled: pattern [any fish, Salt] -> 1 Charm",
      // What comes out is always an item.
      "Unpick: salvage 1 Pie -> 1 Eel",
    ]);
    expect(lines(ask("exchange", "Knife", "Fine knife"))[0]).toContain("using Fine knife");
    const plan = ask("exchange", "Knife", "Shed");
    expect(plan.ok && plan.same).toBe(3);
    expect(told(ask("exchange", "Nowhere", "Eel"))).toContain("No recipe contains");
    expect(told(ask("exchange", "any tool", "Eel"))).toContain("No recipe contains");
    expect(told(ask("exchange", "Eel", " "))).toContain("Enter an item, or “any” and a tag.");
  });

  it("are not set, cleared or copied as a whole", () => {
    for (const action of ["set to", "clear", "copy from", "replace", "add"] as const)
      expect(ask(action, "1").ok, action).toBe(false);
    expect(
      planBulk(book, "recipe", book.records.recipe.values(), { path: "ticks", action: "add", typed: "40", step: "" }),
    ).toMatchObject({ same: 0 });
  });
});
