/**
 * Bundles with something wrong in them: refused with places, or taken as the rules take them; whatever is taken can be
 * opened and comes out again.
 */
import { describe, expect } from "vitest";
import { readModelOf } from "../src/core/testing/read-model";
import { emptyCatalogue } from "../src/core/catalogue/catalogue";
import { apply } from "../src/core/catalogue/apply";
import { newId } from "../src/core/schema/id";
import { exportBundle } from "../src/core/exchange/bundle";
import { bundlePantry, planImport } from "../src/core/exchange/read";
import { kitchen, pantry } from "../src/core/testing/kitchen";
import { type Json, mutated } from "./hostile";
import { fuzz, pick } from "./rounds";

const there = kitchen(
  "gather 1..3 Kelp + 1 Shell 20% in 30s\nbuy Crock for 5\nsalvage Crock -> 1 Clay 50% using Hammer lasting 9 at Bench in 7t fee 0.1 shells\nBreak: 1 Crate -> 2 draws { 3: 1 Rope | 1: nothing }",
);
const whole = JSON.parse(exportBundle(there)) as Json;
const short: Json = {
  format: "salty-pantry-bundle",
  version: 1,
  pantry: { name: "Brackwater" },
  currencies: [{ name: "shells" }],
  types: [{ key: "fare" }],
  stats: [{ key: "vigour" }],
  items: [{ name: "Eel", type: "fare", stats: { vigour: 3 } }],
  recipes: [
    "2 Eel -> 1 Pie in 5s",
    { line: "salvage Pie -> 1 Eel" },
    {
      key: "r",
      ingredients: ["eel"],
      outputs: [{ item: "pie", quantity: [1, 2], chance: 0.5 }],
      fee: { amount: 2, currency: "shells" },
      time: 30,
    },
  ],
  sources: [{ name: "Weir", gives: ["eel"], time: "30s" }],
};

describe("bundles", () => {
  fuzz("are refused with places or taken whole", (random) => {
    const json = mutated(random, pick(random, [whole, short]));
    const text = JSON.stringify(json);
    const into = pick(random, [emptyCatalogue(pantry()), there]);
    const plan = planImport(into, text, { replace: random() < 0.3 });
    for (const { path, message } of [...plan.issues, ...plan.notes])
      expect([typeof path, typeof message, path.length < 400, message.length < 2000]).toEqual([
        "string",
        "string",
        true,
        true,
      ]);
    if (plan.issues.length) {
      expect(plan.edits).toEqual([]);
      return;
    }
    const outcome = apply(into, plan.edits);
    if (!outcome.ok)
      throw new Error(`A plan without issues was refused: ${outcome.issues.map((f) => f.message).join(" ")}`);
    const bundle = json as { [name: string]: Json };
    const { settings, issues } = bundlePantry(bundle);
    expect(issues).toEqual([]);
    expect(apply(emptyCatalogue({ id: newId(), ...settings }), []).ok).toBe(true);
    expect(readModelOf(outcome.catalogue).revision).toBe(outcome.catalogue.revision);
    const out = exportBundle(outcome.catalogue);
    expect(planImport(outcome.catalogue, out)).toMatchObject({ issues: [], edits: [] });
  });
});
