import { describe, expect, it } from "vitest";
import { ALL_TRIALS } from "../checks/trial-fails";
import { Budget, TooMany } from "../budget/budget";
import { innerFirst, means, tablesInThemselves, withoutBack } from "../network/box";
import { least } from "../checks/tables";
import { withDefaults } from "../kinds/index";
import { line } from "../notation/line";
import { nth, STALLS, stall } from "../testing/stalls";
import { roller } from "../trials/chance-box";
import { oddsOf } from "../trials/opening";
import { runTrial, TRIAL_STEPS } from "../trials/run";
import { Engine } from "./engine";

/** Tables of a stall, with the first of them. */
function tablesOf(name: string, share = 1) {
  const { catalogue } = stall(name, share);
  const tables = catalogue.records.table;
  return { tables, first: tables.get(nth("table", 0)) as NonNullable<ReturnType<typeof tables.get>> };
}
const runOf = (name: string, n = 0) => {
  const { catalogue } = stall(name);
  const budget = new Budget(TRIAL_STEPS);
  const trial = catalogue.records.trial.get(nth("trial", n));
  if (!trial) throw new Error("no trial");
  return { ...runTrial(catalogue, trial, budget), spent: budget.spent };
};

describe("what plays is bounded in steps", () => {
  it("keeps a billion of something in as many steps as one of it", () => {
    const run = runOf("a billion of what does not stack");
    expect([run.ok, run.play?.bag.stacks.length, run.spent < 100]).toEqual([true, 1, true]);
  });

  it("stops tables within tables at the budget, says where, and has not gone beyond", () => {
    const run = runOf("tables nested thirty deep, drawn a thousand times");
    expect([run.ok, run.stopped, run.failed]).toEqual([false, true, 1]);
    expect(run.message).toBe("Stopped at 0s: it needs more than 2,000,000 steps.");
    expect(run.spent).toBeLessThan(TRIAL_STEPS * 1.01);
  });

  it("waits for a billion ticks in a handful of looks", () => {
    const run = runOf("waits during which something must hold");
    expect([run.ok, run.spent < 1_000]).toEqual([true, true]);
  });

  it("uses what has no cooldown once a tick, and stops at the budget", () => {
    const run = runOf("a use without cooldown, whenever it can");
    expect([run.stopped, run.spent < TRIAL_STEPS * 1.01]).toEqual([true, true]);
    expect(run.play?.moments.every((m, k, all) => k === 0 || m.tick > all[k - 1].tick)).toBe(true);
  });

  it("gives all trials of a pantry one budget, in the order of their keys, whatever was edited before", () => {
    const { catalogue, edit } = stall("a use without cooldown, whenever it can");
    const engine = new Engine(catalogue);
    const notRun = () => engine.model().findings.filter((f) => f.rule === "trial-not-run");
    expect(notRun()).toHaveLength(20);
    expect(notRun().filter((f) => f.message.includes("was stopped"))).toHaveLength(ALL_TRIALS / TRIAL_STEPS);
    engine.change([edit]);
    expect(notRun().map((f) => f.message)).toEqual(
      new Engine(engine.catalogue).model().findings.flatMap((f) => (f.rule === "trial-not-run" ? f.message : [])),
    );
    // The first one made short leaves its steps to the fourth.
    const steps = catalogue.records.trial.get(nth("trial", 0))?.steps.slice(0, 1);
    engine.change([{ op: "set", kind: "trial", id: nth("trial", 0), field: "steps", from: null, to: steps } as never]);
    const { model } = { model: new Engine(engine.catalogue).model() };
    expect(engine.model().findings).toEqual(model.findings);
  });

  it("looks at each table once, however often and deep it stands in others", () => {
    const twice = tablesOf("tables that name the next one twice", 0.25);
    expect(innerFirst(twice.first, twice.tables)).toHaveLength(100);
    expect(means(twice.first, twice.tables, 0).get(`item:${nth("item", 0)}`)).toBe(2 ** 100);
    expect(least(twice.first, twice.tables, 0, () => 1)).toBe(2 ** 100);
    const chain = tablesOf("a chain of tables");
    expect(innerFirst(chain.first, chain.tables)).toHaveLength(20_000);
    expect(tablesInThemselves(chain.tables).size).toBe(0);
    expect(() => roller(chain.first, chain.tables, 0, [], new Budget(1e6))).toThrow(TooMany);
  });

  it("sees the size of draws and ranges before anything is made of them", () => {
    const weights = Array.from({ length: 60 }, (_, k) => 1 + k * k);
    expect(() =>
      withoutBack(
        weights,
        weights.map(() => 1),
        30,
      ),
    ).toThrow(TooMany);
    const wide = { what: { is: "item", item: nth("item", 0) }, min: 0.001, max: 1e6, from: null, to: null } as const;
    const odds = oddsOf({ always: [wide], chances: [], draws: [] }, new Map(), 0, 1);
    expect(odds).toMatchObject({ things: [], untold: [`item:${nth("item", 0)}`] });
  });

  it("draws without putting back as often on average by integration as by telling states apart", () => {
    const content = (n: number) => ({
      what: { is: "item", item: nth("item", n) },
      min: 1,
      max: 1,
      from: null,
      to: null,
    });
    const box = (entries: number, times: number) => ({
      always: [],
      chances: [],
      draws: [
        {
          times,
          back: false,
          entries: Array.from({ length: entries }, (_, k) => ({ weight: 1 + 3 * k, ...content(k) })),
        },
      ],
    });
    // Twelve weights are told apart; the same with so many light ones beside them that no one can be integrated.
    const exact = means(box(8, 3) as never, new Map(), 0);
    const sum = [...exact.values()].reduce((a, b) => a + b, 0);
    expect(sum).toBeCloseTo(3, 12);
    for (const entries of [30, 60, 150]) {
      const all = [...means(box(entries, 9) as never, new Map(), 0).values()];
      expect(all.reduce((a, b) => a + b, 0)).toBeCloseTo(9, 6);
      expect(all.every((p, k) => p <= 1 && (k === 0 || p >= all[k - 1]))).toBe(true);
    }
  });
});

describe("a search for loops", () => {
  it("is not made again for an edit elsewhere, whatever it left open", () => {
    const { catalogue } = stall("vessels in a ring", 0.1);
    const [apart, made] = [nth("zz", 0), nth("zz", 1)];
    const add = (kind: string, record: object) => ({ op: "add", kind, record }) as never;
    const engine = new Engine(catalogue);
    engine.change([
      add("item", withDefaults("item", { id: apart, key: "apart", name: "Apart" })),
      add("item", withDefaults("item", { id: made, key: "made", name: "Made" })),
      add(
        "source",
        withDefaults("source", { id: apart, key: "apart", name: "Apart", lines: [line("output", apart)], ticks: 20 }),
      ),
      add(
        "recipe",
        withDefaults("recipe", {
          id: made,
          key: "made",
          name: "Made",
          lines: [line("ingredient", apart, 2), line("output", made)],
        }),
      ),
    ]);
    const before = engine.readings.gain;
    expect(before.complete && !before.gains.length && !before.even.length).toBe(false);
    const lines = (n: number) => [line("ingredient", apart, n), line("output", made)];
    engine.change([{ op: "set", kind: "recipe", id: made, field: "lines", from: lines(2), to: lines(3) } as never]);
    expect(engine.readings.gain).toBe(before);
    // Where something seems to gain beyond that, it is made again.
    const back = [line("ingredient", made), line("output", apart, 4)];
    engine.change([
      add("recipe", withDefaults("recipe", { id: nth("zz", 2), key: "back", name: "Back", lines: back })),
    ]);
    expect(engine.readings.gain).not.toBe(before);
  });
});

describe("every shape that asked for much work", () => {
  it.each(Object.keys(STALLS))("%s: can be opened and followed, as opened anew", (name) => {
    const { catalogue, edit } = stall(name, 0.05);
    const engine = new Engine(catalogue);
    const { outcome } = engine.change([edit]);
    expect(outcome.ok).toBe(true);
    expect(JSON.parse(JSON.stringify(engine.model()))).toEqual(
      JSON.parse(JSON.stringify(new Engine(engine.catalogue).model())),
    );
  });
});
