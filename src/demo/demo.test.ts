import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { readingsOf } from "../core/analysis/readings";
import { CHECKS, findingsOf } from "../core/checks";
import { judge, withoutFinding } from "../core/checks/decisions";
import { editsOf } from "../core/checks/fixes";
import { apply } from "../core/catalogue/apply";
import { emptyCatalogue } from "../core/catalogue/catalogue";
import { held } from "../core/catalogue/inheritance";
import { usesOf } from "../core/catalogue/uses";
import { planTicks } from "../core/editing/ticks";
import { exportBundle } from "../core/exchange/bundle";
import { planImport } from "../core/exchange/read";
import { PANTRY_DEFAULTS } from "../core/kinds/index";
import { processAt } from "../core/network/compile";
import { must, pantry } from "../core/testing/kitchen";
import { processesOf } from "../core/testing/told";
import demo from "./brackwater-reach.json";
import { generate } from "./generate";

const open = (bundle: object) => {
  const empty = emptyCatalogue(pantry());
  const plan = planImport(empty, JSON.stringify(bundle));
  expect(plan.issues).toEqual([]);
  return must(empty, plan.edits);
};

describe("Brackwater Reach", () => {
  const catalogue = open(demo);
  const readings = readingsOf(catalogue);
  const findings = findingsOf(catalogue, readings);

  it("has findings of at most twenty words each", () => {
    const words = (message: string) => message.split(/\s+/).filter((w) => /[\p{L}\p{N}]/u.test(w)).length;
    expect(findings.map((f) => f.message).filter((message) => words(message) > 20)).toEqual([]);
  });

  it("is as large as a designer would believe", () => {
    const recipes = [...catalogue.records.recipe.values()];
    expect(catalogue.records.item.size).toBeGreaterThanOrEqual(150);
    expect(recipes.filter((r) => r.kind === "craft").length).toBeGreaterThanOrEqual(100);
    expect(recipes.filter((r) => r.kind === "salvage").length).toBeGreaterThanOrEqual(40);
    expect(recipes.filter((r) => r.kind === "pattern").length).toBeGreaterThanOrEqual(12);
    expect(recipes.filter((r) => r.kind === "combine").length).toBeGreaterThanOrEqual(9);
    expect(recipes.filter((r) => r.variants.length).length).toBeGreaterThanOrEqual(4);
    expect(recipes.filter((r) => r.heat > 0).length).toBeGreaterThanOrEqual(4);
    expect(catalogue.records.source.size).toBeGreaterThanOrEqual(45);
    expect(recipes.length).toBeGreaterThanOrEqual(130);
    const { use, condition, table, subject, trial, type } = catalogue.records;
    const usable = [...catalogue.records.item.values()].map((item) => [item, usesOf(catalogue, item)] as const);
    expect(usable.filter(([, uses]) => uses.some((u) => u.fate === "used up")).length).toBeGreaterThanOrEqual(25);
    expect(usable.filter(([, uses]) => uses.some((u) => u.effects.some((e) => e.does.is === "draw"))).length).toBe(7);
    const worn = [...catalogue.records.item.values()].filter((item) => held(catalogue, item, "slot").value !== null);
    expect(worn.length).toBeGreaterThanOrEqual(20);
    expect([use.size, condition.size, table.size, subject.size, trial.size]).toEqual([38, 13, 10, 5, 9]);
    expect(type.size).toBeGreaterThan(10);
    expect([...new Set([...catalogue.records.field.values()].map((f) => f.form))].length).toBeGreaterThanOrEqual(5);
  });

  it("holds one planted fault for every check, and nothing else", () => {
    const counts = Object.fromEntries(CHECKS.map((c) => [c.id, findings.filter((f) => f.rule === c.id).length]));
    expect(counts).toEqual({
      // It has begun: these are of new pantries.
      "no-sources": 0,
      "no-recipes": 0,
      "no-prices": 0,
      "gaining-loop": 1,
      "stub-in-use": 1,
      "missing-input": 1,
      "nothing-tagged": 1,
      "stuck-loop": 1,
      "station-unbuildable": 1,
      unlearnable: 1,
      "burner-cold": 1,
      "supply-short": 1,
      "pattern-conflict": 1,
      "needs-itself": 1,
      "out-of-range": 1,
      "stat-out-of-range": 1,
      "value-out-of-range": 1,
      "choice-gone": 1,
      unobtainable: 10,
      "price-below-cost": 1,
      "salvage-over-cost": 1,
      "trial-fails": 1,
      // It would make every opening of the demo work as long as a trial may.
      "trial-not-run": 0,
      "usable-for-ever": 1,
      "use-nowhere": 1,
      "use-without-effect": 1,
      "always-on": 1,
      "used-up-in-vain": 1,
      "cooldown-overridden": 1,
      "resource-nobody-has": 1,
      "restores-too-much": 1,
      "never-matters": 1,
      "display-differs": 1,
      "condition-never-ends": 1,
      "condition-unapplied": 1,
      "opposite-conditions": 1,
      "against-better": 1,
      "container-pays": 1,
      "entry-never-comes": 1,
      "table-in-itself": 1,
      "formula-faults": 1,
      "worn-without-slot": 1,
      "slot-unfit": 1,
      "gated-above": 1,
      "variant-unreachable": 1,
      "variant-no-more": 1,
      outdone: 1,
      "ware-too-dear": 1,
      "salvage-drifted": 1,
      "combines-one-way": 1,
      "vessel-forgotten": 1,
      "container-twice": 1,
      "fuel-unburnt": 1,
      "draw-never-comes": 1,
      "same-inputs": 1,
      "over-stack": 1,
      "retired-in-use": 1,
      "placeholder-gone": 1,
      "link-astray": 1,
      "field-empty": 1,
      "field-twice": 1,
      "not-of-type": 1,
      "dead-end": 1,
      orphan: 1,
      "no-description": 1,
      "no-icon": 1,
      "rarity-ladder": 1,
      "faint-colour": 1,
      "near-names": 1,
    });
    const readme = readFileSync("src/demo/README.md", "utf8");
    for (const c of CHECKS) expect(readme).toContain(`\`${c.id}\``);
  });

  it("has ten findings accepted and three assigned, and decisions about nothing else", () => {
    const { accepted, open, decisions } = judge(catalogue, findings, "2026-01-01");
    expect(accepted.map((f) => f.rule).sort()).toEqual([
      "combines-one-way",
      "container-pays",
      "cooldown-overridden",
      "faint-colour",
      "fuel-unburnt",
      "outdone",
      "over-stack",
      "rarity-ladder",
      "same-inputs",
      "ware-too-dear",
    ]);
    const assigned = open.flatMap((f) => {
      const person = decisions.about(f.fingerprint, f.size).assigned?.person;
      return person ? [`${f.rule} ${person}`] : [];
    });
    expect(assigned.sort()).toEqual(["missing-input Tam", "no-icon Oda", "trial-fails Wren"]);
    expect(withoutFinding(catalogue, findings)).toEqual([]);
    expect(findings.filter((f) => f.severity === "note").map((f) => f.rule)).toEqual(["no-description", "no-icon"]);
  });

  it("offers only fixes that are not refused", () => {
    let tried = 0;
    for (const finding of findings)
      for (const fix of finding.fixes) {
        const edits = editsOf(catalogue, fix);
        if (!edits.length) continue;
        tried++;
        const outcome = apply(catalogue, edits);
        expect(
          outcome.ok ? [] : [...outcome.issues, ...outcome.conflicts],
          `${finding.message} ${fix.message}`,
        ).toEqual([]);
      }
    expect(tried).toBeGreaterThan(50);
  });

  it("keeps every duration where its clock counts otherwise, at whatever depth it stands", () => {
    const bundle = exportBundle(catalogue);
    const said = (text: string) => {
      // Durations of the designers' fields are in ticks there.
      const inSeconds = (name: string, value: unknown) => (["own", "takes"].includes(name) ? undefined : value);
      const { pantry, ...all } = JSON.parse(text, inSeconds) as { pantry: { ticksPerSecond?: number } };
      return { clock: pantry.ticksPerSecond ?? PANTRY_DEFAULTS.ticksPerSecond, all };
    };
    const plan = planTicks(catalogue, catalogue.pantry.ticksPerSecond * 2);
    const finer = must(catalogue, plan.edits);
    // A bundle writes times in seconds: but for the clock it says the same.
    expect(said(exportBundle(finer)).clock).toBe(said(bundle).clock * 2);
    expect(said(exportBundle(finer)).all).toEqual(said(bundle).all);
    expect(plan.rows.every((r) => r.whole)).toBe(true);
    const kinds = new Set(plan.rows.map((r) => r.kind));
    for (const kind of ["recipe", "source", "use", "condition", "cooldown", "trial", "item"])
      expect([...kinds], kind).toContain(kind);
    // And back again it is the pantry that it was.
    const back = must(finer, planTicks(finer, catalogue.pantry.ticksPerSecond).edits);
    expect(exportBundle(back)).toEqual(bundle);
  });

  it("has one gaining loop: five yarn woven, seven unravelled", () => {
    const [loop] = findings.filter((f) => f.rule === "gaining-loop");
    expect(loop.evidence).toMatchObject({
      type: "loop",
      chance: 1,
      live: true,
      net: [{ of: { key: "hemp_yarn" }, amount: "2" }],
    });
    expect(
      loop.about
        .filter((r) => r.kind === "recipe")
        .map((r) => r.key)
        .sort(),
    ).toEqual(["unravel_sailcloth", "weave_sailcloth"]);
  });
});

describe("large pantries", () => {
  it("are the same for the same seed", () => {
    expect(JSON.stringify(generate({ items: 300, seed: 4 }))).toBe(JSON.stringify(generate({ items: 300, seed: 4 })));
    expect(JSON.stringify(generate({ items: 300, seed: 5 }))).not.toBe(
      JSON.stringify(generate({ items: 300, seed: 4 })),
    );
  });

  it("have no gaining loop but the planted ones, and all of those are found", () => {
    const clean = readingsOf(open(generate({ items: 3000, seed: 1 })));
    expect(clean.gain.gains).toEqual([]);
    expect(clean.gain.complete).toBe(true);
    const planted = open(generate({ items: 3000, seed: 2, loops: 5 }));
    const seeds = [...planted.records.recipe.values()].filter((r) => r.key.startsWith("planted_")).map((r) => r.key);
    expect(seeds.length).toBeGreaterThan(2);
    const { gain, compiled } = readingsOf(planted);
    const found = new Set(gain.gains.flatMap((g) => processesOf(g).map((p) => processAt(compiled, p).record.key)));
    expect(seeds.filter((key) => !found.has(key))).toEqual([]);
    for (const g of gain.gains)
      expect(processesOf(g).some((p) => processAt(compiled, p).record.key.startsWith("planted_"))).toBe(true);
  });
});
