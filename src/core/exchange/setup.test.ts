import { readFileSync } from "node:fs";
import { expect, it } from "vitest";
import { emptyCatalogue } from "../catalogue/catalogue";
import { must, pantry } from "../testing/kitchen";
import { planImport } from "./read";
import { setupOf } from "./setup";

it("makes a pantry of another one's setup, without its items and without stubs", () => {
  const demo = JSON.parse(readFileSync("src/demo/brackwater-reach.json", "utf8"));
  demo.types[0].own = { served_with: [{ item: "smoked_eel" }], smell: "salty" };
  const empty = emptyCatalogue(pantry());
  const plan = planImport(empty, setupOf(JSON.stringify(demo)));
  expect(plan.issues).toEqual([]);
  const { records, pantry: settings } = must(empty, plan.edits);
  expect(settings.name).toBe("Test");
  expect([records.item.size, records.recipe.size, records.source.size]).toEqual([0, 0, 0]);
  for (const kind of ["type", "field", "stat", "rarity", "tag", "slot", "wordlist", "view"] as const)
    expect(records[kind].size, kind).toBe(demo[kind === "rarity" ? "rarities" : `${kind}s`].length);
});
