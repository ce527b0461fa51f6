import { describe, expect, it } from "vitest";
import type { Edit } from "../catalogue/edit";
import { withDefaults } from "../kinds/index";
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
  plan.ok ? plan.rows.map((r) => `${r.record.name}: ${r.before} → ${r.after ?? r.says}`) : plan.says;

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
    if (!plan.ok) throw new Error(plan.says);
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
    if (!tagged.ok) throw new Error(tagged.says);
    const next = must(catalogue, tagged.edits);
    expect(next.records.tag.size).toBe(2);
    expect(item(next, "Barm").tags).toHaveLength(2);
  });

  it("says what is wrong with what was asked", () => {
    expect(told(ask("sell", "add", "some"))).toContain("“some” is not a number");
    expect(told(ask("sell", "add", "1", "-2"))).toContain("“-2” is no step");
    expect(told(ask("name", "add", "1"))).toBe("Only numbers can be reckoned with.");
    expect(told(ask("status", "set to", "lost"))).toContain("“lost” is none of");
    expect(told(ask("nothing", "clear"))).toBe("Choose what is to be changed.");
    expect(told(ask("name", "clear"))).toEqual(expect.arrayContaining([expect.stringContaining("A name is needed")]));
  });
});
