import { flows } from "../network/process";
import { describe, expect, it } from "vitest";
import { Findings } from "../checks/findings";
import { CHECKS } from "../checks";
import type { Check } from "../checks/check";
import { kitchen } from "../testing/kitchen";
import { fromNumber } from "../numbers/fraction";
import { Budget, TooMany } from "../budget/budget";
import { work } from "./chances";
import { Engine } from "../engine/engine";
import { chanceOfGain, moments } from "./luck";
import { searchLoops } from "./loop-search";
import { outcomes, runsUntil } from "./outcomes";
import { Readings } from "./readings";

const open = (text: string) => new Engine(kitchen(text)).model();

describe("a pantry opens whatever its loops draw", () => {
  it.each([
    ["a range of a hundred thousand", "gather A\nX: 1 A -> 1..100000 B\nY: 1 B -> 1 A"],
    ["a range in thousandths", "gather A\nX: 1 A -> 0..1000.001 B\nY: 1 B -> 1 A"],
    ["a range to a thousand millions in hundredths", "gather A\nX: 1 A -> 0.01..1000000000 B\nY: 1 B -> 1 A"],
    ["two wide ranges", "gather A\nX: 1 A -> 1..65000 B\nY: 1 B -> 1..65000 A"],
    ["four wide outputs", "gather A\nX: 1 A -> 1..1000 B + 1..1000 C + 1..1000 D + 1..1000 A"],
    [
      "twenty times a thousand draws",
      `gather A0\n${Array.from({ length: 20 }, (_, k) => `R${k}: 1 A${k} -> 1000 draws { 1: 1..9 A${(k + 1) % 20} | 1: nothing }`).join("\n")}`,
    ],
  ])("%s", (_, text) => {
    const model = open(text);
    const [loop] = model.findings.filter((f) => f.rule === "gaining-loop");
    // Where amounts grow past all numbers within a round, the search says that it did not come to an end.
    if (!loop) expect(model.complete).toBe(false);
    else if (loop.evidence.type === "loop") expect(loop.evidence.chance >= 0 && loop.evidence.chance <= 1).toBe(true);
    expect(loop?.evidence.type ?? "loop").toBe("loop");
  });

  it("says about how often a round gains where it can't be told exactly", () => {
    const { lines } = [...kitchen("R: 1 A -> 0..100000 A").records.recipe.values()][0];
    const luck = chanceOfGain([{ lines: flows(lines), times: 1n }], []);
    expect(luck.exact).toBe(false);
    // Only 0 loses and 1 comes out even: one in fifty thousand.
    expect(luck.chance).toBeGreaterThan(0.99);
    expect(moments({ low: fromNumber(1), step: fromNumber(1), count: 3 })).toEqual({ first: 2, second: 14 / 3 });
  });
});

describe("work is bounded by steps", () => {
  it("ends a table of chances with what is about right", () => {
    const { lines } = [
      ...kitchen("R: 1 A -> 10 draws { 1: 1..6 Salt | 3: 1..6 Brine | 1: nothing }").records.recipe.values(),
    ][0];
    expect(outcomes(lines, 10, work(1_000)).map((o) => o.about)).toEqual([true, true]);
    expect(outcomes(lines, 10, work(1e7)).map((o) => o.about)).toEqual([false, false]);
    expect(runsUntil(lines, flows(lines)[1].item, 1, 0.9, work(1_000))).toBe("unknown");
  });

  it("ends a search for loops as incomplete, never as clean", () => {
    const row = (net: [number, number][]) => new Map(net.map(([r, q]) => [r, fromNumber(q)]));
    const nets = [
      row([
        [0, -1],
        [1, 2],
      ]),
      row([
        [1, -1],
        [0, 1],
      ]),
    ];
    const found = searchLoops({
      first: [0, 1],
      column: (c) => {
        if (c === 1) throw new TooMany("enough");
        return { process: c, net: nets[c] };
      },
      near: (c) => [...nets[c]].map(([r, q]) => [r, Number(q.n)]),
      producers: (r) => [1 - r],
      consumers: (r) => [r],
      worth: () => 1,
      fixed: () => false,
    });
    expect(found.complete).toBe(false);
    const steps = new Budget(2);
    steps.take(2);
    expect(() => steps.take(1)).toThrow(TooMany);
    expect(() => new Budget(5).take(Number.NaN)).toThrow(TooMany);
  });
});

describe("a check that can't be computed", () => {
  it("is a finding, and the others stand", () => {
    const catalogue = kitchen("gather Eel\nSmoke: 1 Eel -> 1 Smoked eel");
    const broken: Check = {
      id: "broken",
      title: "Broken",
      severity: "error",
      per: ["recipe"],
      at: () => {
        throw new Error("a cog came loose");
      },
    } as never;
    const found = [...new Findings([broken, ...CHECKS], { catalogue, readings: new Readings(catalogue) }).all()];
    expect(found.find((f) => f.rule === ("broken" as never))).toMatchObject({
      rule: "broken",
      severity: "warning",
      message: "“broken” could not be computed for Smoke: a cog came loose",
      about: [{ kind: "recipe" }],
    });
    expect(found.length).toBe(
      [...new Findings(CHECKS, { catalogue, readings: new Readings(catalogue) }).all()].length + 1,
    );
  });
});
