/** Small pantries with answers computed by hand: what a designer would check on paper. */
import type { Source } from "../kinds/index";
import { describe, expect, it } from "vitest";
import { findingsOf } from "../checks";
import { show } from "../numbers/fraction";
import { SALVAGE } from "../network/network";
import { processAt } from "../network/compile";
import { at, nameAt, partsOf, processesIn, read } from "../testing/told";
import type { Readings } from "./readings";
import { salvageReturn } from "./salvage";

const rules = (r: Readings) => findingsOf(r.catalogue, r).map((f) => f.rule);

describe("costs on paper", () => {
  const cases: [string, string, string, number, number][] = [
    ["a chain of two", "buy Log for 4\n1 Log -> 2 Plank\n3 Plank -> 1 Crate", "Crate", 6, 0],
    ["the cheaper of shop and recipe", "buy Log for 4\nbuy Crate for 5\n2 Log -> 1 Crate", "Crate", 5, 0],
    ["a recipe that beats the shop", "buy Log for 1\nbuy Crate for 5\n2 Log -> 1 Crate", "Crate", 2, 0],
    ["a yield below one", "buy Ore for 3\n1 Ore -> 1 Bar 25%", "Bar", 12, 0],
    ["a range of outputs", "buy Sack for 8\n1 Sack -> 0..4 Grain", "Grain", 4, 0],
    ["a range of inputs", "buy Rope for 2\n1..3 Rope -> 1 Net", "Net", 4, 0],
    ["an ingredient with a chance", "buy Net for 10\nbuy Eel for 1\n1 Eel + 1 Net 10% -> 1 Trap", "Trap", 2, 0],
    ["an ingredient named twice", "buy Salt for 2\n1 Salt + 2 Salt -> 1 Lick", "Lick", 6, 0],
    [
      "a fee in another recipe",
      "buy Eel for 2\n1 Eel -> 1 Fillet fee 3 shells\n2 Fillet -> 1 Pie fee 1 shells",
      "Pie",
      11,
      0,
    ],
    [
      "gathering and two stations' time",
      "gather 2 Kelp in 30s\n4 Kelp -> 1 Ash in 20s\n2 Ash -> 1 Lye in 10s",
      "Lye",
      0,
      170,
    ],
    [
      "a tool made by recipe, worn by tenths",
      "buy Iron for 30\n1 Iron -> 1 Knife\nbuy Eel for 1\n1 Eel -> 1 Fillet using Knife lasting 10",
      "Fillet",
      4,
      0,
    ],
    [
      "two tools at once, one for ever",
      "buy ReadModel for 50\nbuy Knife for 20\nbuy Eel for 1\n1 Eel -> 1 Fillet using Knife lasting 10 + ReadModel",
      "Fillet",
      3,
      0,
    ],
    [
      "three knives at once",
      "buy Knife for 20\nbuy Eel for 1\n1 Eel -> 1 Fillet using 3 Knife lasting 10",
      "Fillet",
      7,
      0,
    ],
    [
      "a crock that mostly container returned",
      "buy Fish for 2\nbuy Crock for 30\n3 Fish + 1 Crock -> 1 Paste + 1 Crock 90%",
      "Paste",
      9,
      0,
    ],
    ["a circle with a dear way in", "buy A for 100\nbuy C for 1\n1 A + 1 C -> 1 B\n1 B -> 1 A\n2 C -> 1 B", "A", 2, 0],
    [
      "a longer way round that is cheaper",
      "buy Ore for 10\n1 Ore -> 1 Bar\n1 Ore -> 4 Dust\n3 Dust -> 1 Bar",
      "Bar",
      7.5,
      0,
    ],
    ["something free", "buy Free for 0\n3 Free -> 1 Thing", "Thing", 0, 0],
  ];
  it.each(cases)("%s", (_, text, name, value, seconds) => {
    const r = read(text);
    expect(r.value.cost[at(r, name)]).toBeCloseTo(value, 9);
    expect(r.time.cost[at(r, name)]).toBeCloseTo(seconds, 9);
    const parts = partsOf(r, "value", name);
    expect([...(parts?.base ?? []), ...(parts?.work ?? [])].reduce((t, p) => t + p.cost, 0)).toBeCloseTo(value, 9);
  });

  it("chooses differently in value and in time", () => {
    const r = read("gather Eel in 100s\nbuy Eel for 5\n1 Eel -> 1 Pie in 10s");
    expect(r.value.cost[at(r, "Pie")]).toBe(0);
    expect(r.time.cost[at(r, "Pie")]).toBe(10);
    expect(
      (["value", "time"] as const).map(
        (measure) => (processAt(r.compiled, r.by(measure, at(r, "Eel"))).record as Source).kind,
      ),
    ).toEqual(["gathering", "shop"]);
  });

  it("counts in ticks whatever the pantry's clock", () => {
    for (const ticksPerSecond of [1, 20, 60]) {
      const r = read("gather Eel in 30s\n1 Eel -> 1 Pie in 15s", { ticksPerSecond });
      expect(r.time.cost[at(r, "Pie")]).toBeCloseTo(45);
    }
  });

  it("names steps and base materials", () => {
    const r = read("buy A for 1\nbuy B for 1\n1 A -> 1 C\n1 C + 1 B -> 1 D\n1 D + 1 A -> 1 E");
    expect(r.steps(at(r, "E"))).toBe(3);
    expect(partsOf(r, "value", "E")?.base).toHaveLength(2);
    expect(r.steps(at(r, "A"))).toBe(0);
    expect(partsOf(r, "value", "A")?.base).toHaveLength(1);
  });
});

describe("loops on paper", () => {
  const gain = (text: string) => {
    const r = read(text);
    return r.gain.gains.map((g) => ({
      runs: g.runs.map((x) => Number(x.times)),
      net: g.net.map((n) => `${show(n.amount)} ${n.thing.of === "item" ? nameAt(r, n.thing.item) : "money"}`),
      certain: g.luck().chance === 1,
      live: g.live,
    }));
  };

  it.each([
    ["salvage gives what went in", "gather Rope\nTie: 2 Rope -> 1 Net\nsalvage Net -> 2 Rope"],
    ["a chance that averages below even", "gather Rope\nTie: 2 Rope -> 1 Net\nsalvage Net -> 3 Rope 60%"],
    ["a range that averages even", "gather Rope\nTie: 2 Rope -> 1 Net\nsalvage Net -> 1..3 Rope"],
    ["a third that is not quite a third", "gather X\nA: 3 X -> 1 Y\nB: 1 Y -> 2.999999 X"],
    ["tool wear eats the gain", "gather X\nbuy T for 9\nA: 1 X -> 1 Y using T lasting 10\nB: 1 Y -> 1.1 X"],
    ["a material that only sources give", "gather X\ngather Salt\nA: 1 X + 1 Salt -> 2 Y\nB: 1 Y -> 1 X"],
    ["a fee in the circle", "gather X\nA: 1 X -> 2 Y fee 1 shells\nB: 1 Y -> 1 X"],
    ["two lossy circles that share an item", "gather A\nP: 2 A -> 1 B\nQ: 1 B -> 1 A\nR: 3 A -> 1 C\nS: 1 C -> 2 A"],
    ["a retired way back", "gather A\nP: 1 A -> 1 B\nQ: 1 B -> 1 A"],
  ])("no gain: %s", (_, text) => {
    expect(gain(text)).toEqual([]);
    expect(rules(read(text))).not.toContain("gaining-loop");
  });

  it.each([
    ["one too many", "gather Rope\nTie: 2 Rope -> 1 Net\nCut: salvage Net -> 3 Rope", [1, 1], ["1 Rope"], true],
    [
      "a chance that averages above even",
      "gather Rope\nTie: 2 Rope -> 1 Net\nCut: salvage Net -> 4 Rope 60%",
      [1, 1],
      ["2/5 Rope"],
      false,
    ],
    [
      "a range that averages above even",
      "gather Rope\nTie: 2 Rope -> 1 Net\nCut: salvage Net -> 2..3 Rope",
      [1, 1],
      ["1/2 Rope"],
      false,
    ],
    ["a hair above even", "gather X\nA: 3 X -> 1 Y\nB: 1 Y -> 3.000001 X", [1, 1], ["1/1000000 X"], true],
    ["only after several runs", "gather X\nA: 5 X -> 2 Y\nB: 3 Y -> 8 X", [3, 2], ["1 X"], true],
    ["through three recipes", "gather X\nA: 2 X -> 1 Y\nB: 2 Y -> 3 Z\nC: 1 Z -> 1.5 X", [2, 1, 3], ["1/2 X"], true],
    [
      "a by-product that is pure profit",
      "gather X\nA: 1 X -> 1 Y + 1 Shell 10%\nB: 1 Y -> 1 X",
      [1, 1],
      ["1/10 Shell"],
      false,
    ],
    [
      "tool wear that is made good",
      "gather X\nbuy T for 9\nA: 1 X -> 1 Y using T lasting 10\nB: 1 Y -> 1 X + 1 T 20%",
      [1, 1],
      ["1/10 T"],
      false,
    ],
  ] as const)("a gain: %s", (_, text, runs, net, certain) => {
    expect(gain(text)).toEqual([{ runs: [...runs], net: [...net], certain, live: true }]);
  });

  it("needs two side outputs that feed each other: no single cycle gains", () => {
    // Each recipe alone loses; A's by-product feeds B and B's feeds A.
    const r = gain("gather X\ngather Y\nA: 2 X -> 1 X + 2 Y\nB: 2 Y -> 1 Y + 2 X");
    expect(r).toHaveLength(1);
    expect(r[0].runs.length).toBe(2);
  });

  it("stays right with awkward decimals", () => {
    expect(gain("gather X\nA: 0.7 X -> 0.1 Y\nB: 0.1 Y -> 0.7 X")).toEqual([]);
    expect(gain("gather X\nA: 0.7 X -> 0.1 Y\nB: 0.1 Y -> 0.7000001 X")).toHaveLength(1);
    expect(gain("gather X\nA: 1.1 X -> 3.3 Y\nB: 3 Y -> 1 X")).toEqual([]);
  });
});

const returns = (r: Readings) =>
  processesIn(r)
    .filter((p) => r.network.flags[p] & SALVAGE)
    .map((p) => salvageReturn(r, p));

describe("salvage on paper", () => {
  it("prices both sides as if there were no salvage", () => {
    const r = read(
      "buy Rope for 4\nbuy Iron for 6\nMake: 2 Rope + 1 Iron -> 1 Hook\nsalvage Hook -> 1 Rope + 1 Iron 50% + 1 Rust",
    );
    const [back] = returns(r);
    expect(back).toMatchObject({ cost: 14, back: 7 });
    expect(back.unpriced.map((i) => nameAt(r, i))).toEqual(["Rust"]);
  });

  it("counts the fee on the side of what goes in", () => {
    const r = read("buy Hook for 10\nbuy Iron for 6\nsalvage Hook -> 1 Iron fee 2 shells");
    expect(returns(r)[0]).toMatchObject({ cost: 12, back: 6 });
  });

  it("says nothing of pantries without salvage", () => {
    const r = read("buy Hook for 10");
    expect(returns(r)).toEqual([]);
  });
});

describe("reach on paper", () => {
  const out = (text: string) => {
    const r = read(text);
    return [...r.causes]
      .map(
        ([i, c]) =>
          `${nameAt(r, i)} ← ${c.leaves
            .map((l) => nameAt(r, l))
            .sort()
            .join("+")}`,
      )
      .sort();
  };
  it.each([
    [
      "a missing ingredient two steps down",
      "gather A\n1 A + 1 Ghost -> 1 B\n1 B -> 1 C",
      ["B ← Ghost", "C ← Ghost", "Ghost ← Ghost"],
    ],
    ["the way with fewer causes", "1 G1 + 1 G2 -> 1 B\n1 G3 -> 1 B", ["B ← G3", "G1 ← G1", "G2 ← G2", "G3 ← G3"]],
    ["two causes at once", "1 G1 + 1 G2 -> 1 B", ["B ← G1+G2", "G1 ← G1", "G2 ← G2"]],
    ["a tool nobody has", "gather A\n1 A -> 1 B using Ghost", ["B ← Ghost", "Ghost ← Ghost"]],
    ["a closed circle is its own cause", "1 A -> 1 B\n1 B -> 1 A", ["A ← A", "B ← A"]],
    ["a chance of nothing makes nothing", "gather A\n1 A -> 1 B 0%", ["B ← B"]],
    ["nothing, where all is well", "gather A\n1 A -> 1 B at A", []],
  ])("%s", (_, text, expected) => {
    expect(out(text)).toEqual(expected);
  });
});
