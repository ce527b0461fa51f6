/** Pantries that are small to write and long to work out: every construct, at random sizes and in random company. */
import { describe, expect } from "vitest";
import { apply } from "../src/core/catalogue/apply";
import { type Catalogue, catalogueOf, recordsOf } from "../src/core/catalogue/catalogue";
import { Engine } from "../src/core/engine/engine";
import type { AnyRecord, Kind } from "../src/core/kinds/index";
import { pantry } from "../src/core/testing/kitchen";
import { STALLS, stall } from "../src/core/testing/stalls";
import { ALL_TRIALS } from "../src/core/checks/trial-fails";
import { Budget } from "../src/core/budget/budget";
import { runTrial, TRIAL_STEPS } from "../src/core/trials/run";
import { fuzz, type Random } from "./rounds";

const names = Object.keys(STALLS);
const pick = <T>(random: Random, of: readonly T[]): T => of[Math.floor(random() * of.length)];

/** Two stalls in one pantry: what both number alike is that of the first. */
function together(a: Catalogue, b: Catalogue): Catalogue {
  return catalogueOf(1, pantry(), (kind: Kind): readonly AnyRecord[] => [
    ...new Map([...recordsOf(b, kind), ...recordsOf(a, kind)] as [string, AnyRecord][]).values(),
  ]);
}

describe("stalls", () => {
  fuzz("any two of them together are opened, followed and within their steps", (random) => {
    const [one, other] = [pick(random, names), pick(random, names)];
    const first = stall(one, 0.01 + 0.04 * random());
    const catalogue = together(first.catalogue, stall(other, 0.01 + 0.04 * random()).catalogue);
    const engine = new Engine(catalogue);
    const trials = [...catalogue.records.trial.values()];
    let spent = 0;
    for (const trial of trials.slice(0, 3)) {
      const budget = new Budget(TRIAL_STEPS);
      runTrial(catalogue, trial, budget);
      expect(budget.spent, `${one} with ${other}`).toBeLessThan(TRIAL_STEPS * 1.01);
      spent += budget.spent;
    }
    expect(spent).toBeLessThanOrEqual(ALL_TRIALS * 1.01);
    const outcome = apply(catalogue, [first.edit]);
    if (!outcome.ok) return;
    engine.follow(outcome.catalogue, outcome.edits);
    const anew = new Engine(outcome.catalogue).model();
    const followed = engine.model();
    expect(JSON.stringify(followed.figures), `${one} with ${other}`).toBe(JSON.stringify(anew.figures));
    const told = (model: typeof anew) => model.findings.map((f) => f.message);
    // Which of very many loops are named may differ where the search stopped at its limits.
    if (followed.complete && anew.complete) expect(told(followed), `${one} with ${other}`).toEqual(told(anew));
  });
});
