/** A pantry as many games have it opens whole, and holds just the loops that were made in it. */
import { describe, expect, it } from "vitest";
import { conflictOf, liesOf, Members } from "../core/analysis/patterns";
import { apply } from "../core/catalogue/apply";
import { type Catalogue, emptyCatalogue } from "../core/catalogue/catalogue";
import { setField } from "../core/catalogue/edit";
import { Engine } from "../core/engine/engine";
import { planImport } from "../core/exchange/read";
import { pantry } from "../core/testing/kitchen";
import { toldEven } from "../core/testing/told";
import { families } from "./families";

function opened(): Catalogue {
  const empty = emptyCatalogue(pantry({ labourPerHour: 60 }));
  const plan = planImport(empty, JSON.stringify(families()));
  expect(plan.issues).toEqual([]);
  const outcome = apply(empty, plan.edits);
  if (!outcome.ok) throw new Error(JSON.stringify(outcome.issues));
  return outcome.catalogue;
}

describe("a game of families", () => {
  const catalogue = opened();
  const engine = new Engine(catalogue);
  const rules = (of: Engine) =>
    new Set(of.model().findings.flatMap(({ rule }) => (rule.startsWith("no-") || rule === "dead-end" ? [] : [rule])));

  it("is within reach, and comes round only where metals are split and joined", () => {
    expect([...rules(engine)]).toEqual(["same-inputs"]);
    const { readings } = engine;
    expect(readings.gain.gains).toEqual([]);
    expect(readings.gain.complete).toBe(true);
    expect(toldEven(readings)).toHaveLength(24);
  });

  it("has no two patterns that can't be told apart, pair by pair, until there are", () => {
    const patterns = [...catalogue.records.recipe.values()].filter((r) => r.kind === "pattern");
    expect(patterns.length).toBeGreaterThan(700);
    const sized = new Map<number, typeof patterns>();
    for (const p of patterns) sized.set(p.lines.length, [...(sized.get(p.lines.length) ?? []), p]);
    // Every pair of some, where the check looks only at what takes the same things.
    const members = Members.in(catalogue);
    const some = patterns.filter((_, k) => k % 5 === 0).map((p) => liesOf(p, members));
    for (const [k, a] of some.entries()) for (const b of some.slice(k + 1)) expect(conflictOf(a, b)).toBe(null);
    const [door, other] = ["door_3", "hatch_9"].map((key) => {
      const made = [...catalogue.records.item.values()].find((i) => i.key === key);
      return patterns.find((p) =>
        p.lines.some((l) => l.role === "output" && l.item === made?.id),
      ) as (typeof patterns)[0];
    });
    const outputs = other.lines.filter((l) => l.role === "output");
    const lines = [...door.lines.filter((l) => l.role !== "output"), ...outputs];
    const outcome = apply(catalogue, [
      setField(catalogue, "recipe", other.id, "lines", lines as never),
      setField(catalogue, "recipe", other.id, "grid", door.grid as never),
    ]);
    if (!outcome.ok) throw new Error("refused");
    engine.follow(outcome.catalogue, outcome.edits);
    const found = engine.model().findings.filter((f) => f.rule === "pattern-conflict");
    expect(found.map((f) => f.about.map((r) => r.id).sort())).toEqual([[door.id, other.id].sort()]);
  });
});
