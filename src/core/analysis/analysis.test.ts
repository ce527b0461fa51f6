import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { processAt } from "../network/compile";
import { toNumber } from "../numbers/fraction";
import { at, itemsIn, label, nameAt, partsOf, processesIn, processesOf, read, told, toldEven } from "../testing/told";
import { NEVER } from "./layers";
import type { Readings } from "./readings";

const value = (r: Readings, name: string) => r.value.cost[at(r, name)];
const time = (r: Readings, name: string) => r.time.cost[at(r, name)];

describe("least cost", () => {
  it("takes the cheaper of two recipes, and counts what a batch yields", () => {
    const r = read(
      "buy Log for 4\nbuy Plank for 1.5\nSaw: 1 Log -> 4 Plank\nBox: 6 Plank -> 1 Crate\nRaft: 3 Log -> 1 Crate",
    );
    expect(value(r, "Plank")).toBe(1);
    expect(value(r, "Crate")).toBe(6);
  });

  it("measures time over gathering and recipes, and lets the worth of an hour turn time into value", () => {
    const text = "gather 2 Kelp in 30s\n3 Kelp -> 1 Kelp broth in 20s fee 1 shells";
    expect(time(read(text), "Kelp broth")).toBeCloseTo(65);
    expect(value(read(text), "Kelp broth")).toBe(1);
    expect(value(read(text, { labourPerHour: 3600 }), "Kelp broth")).toBeCloseTo(66);
  });

  it("expects ranges at their middle and divides by chances", () => {
    const r = read("buy Crate for 10\nsalvage Crate -> 1..3 Rope + 1 Brass 40%");
    expect(value(r, "Rope")).toBe(5);
    expect(value(r, "Brass")).toBe(25);
  });

  it("credits a returned crock, so fish paste costs its fish and labour only", () => {
    const r = read(
      "buy Fish for 2\nbuy Stone crock for 30\n3 Fish + 1 Stone crock -> 1 Fish paste + 1 Stone crock fee 1 shells",
    );
    expect(value(r, "Fish paste")).toBe(7);
  });

  it("charges a tool by its wear and a lasting tool not at all", () => {
    const r = read(
      "buy Eel for 2\nbuy Knife for 50\nbuy ReadModel for 99\nGut: 1 Eel -> 1 Fillet using Knife lasting 25 + ReadModel",
    );
    expect(value(r, "Fillet")).toBe(4);
  });

  it("follows costs through a circle without going round it for nothing", () => {
    const r = read("buy Salt for 3\nDissolve: 1 Salt -> 1 Brine\nBoil: 2 Brine -> 1 Salt fee 1 shells");
    expect(value(r, "Salt")).toBe(3);
    expect(value(r, "Brine")).toBe(3);
  });

  it("solves a circle that gets cheaper at every round instead of approaching it", () => {
    // Salt = (Salt + Sack) / 1.2 through Brine: 0.2 Salt for one Sack.
    const r = read("buy Salt for 1000\nbuy Sack for 2\nA: 1 Salt + 1 Sack -> 1 Brine\nB: 1 Brine -> 1.2 Salt");
    expect(value(r, "Salt")).toBeCloseTo(10, 9);
    expect(value(r, "Brine")).toBeCloseTo(12, 9);
    expect(["Brine", "Salt", "Sack"].map((n) => partsOf(r, "value", n)?.circular)).toEqual([true, true, false]);
    expect(["Brine", "Salt"].map((n) => r.steps(at(r, n)))).toEqual([null, null]);
  });

  it("leaves what can't be had without a cost", () => {
    const r = read("1 Ship's glass -> 1 Lens");
    expect(value(r, "Lens")).toBe(Number.POSITIVE_INFINITY);
    expect(r.by("value", at(r, "Lens"))).toBe(-1);
  });

  it("is no dearer and no cheaper than value iteration on small random pantries", () => {
    fc.assert(
      fc.property(randomPantry(6, 9), (text) => {
        const r = read(text);
        const { cost } = r.value;
        const round = r.ways.value.some((v, i) => v === NEVER && Number.isFinite(cost[i]));
        const slow = valueIteration(r);
        for (let i = 0; i < cost.length; i++) {
          if (!Number.isFinite(slow[i])) expect(cost[i]).toBe(Number.POSITIVE_INFINITY);
          else if (round || r.gain.gains.length) expect(cost[i]).toBeLessThanOrEqual(slow[i] * 1.0001 + 1e-3);
          else expect(cost[i]).toBeCloseTo(slow[i], 6);
        }
      }),
      { numRuns: 300 },
    );
  });
});

describe("breakdown", () => {
  it("counts every base material, fee and hour", () => {
    const r = read(
      "buy Log for 4\nbuy Nail for 0.5\nSaw: 1 Log -> 4 Plank\nBox: 6 Plank + 8 Nail -> 1 Crate fee 2 shells",
    );
    const b = partsOf(r, "value", "Crate");
    expect(b?.base.map((x) => [nameAt(r, x.item), x.quantity, x.cost])).toEqual([
      ["Log", 1.5, 6],
      ["Nail", 8, 4],
    ]);
    expect(b?.work.map((x) => [label(r, x.process), x.runs, x.cost])).toEqual([
      ["Box", 1, 2],
      ["Saw", 1.5, 0],
    ]);
    expect(r.steps(at(r, "Crate"))).toBe(2);
  });

  it("adds up to the cost for every item of small random pantries, circles included", () => {
    fc.assert(
      fc.property(randomPantry(6, 9), (text) => {
        const r = read(text);
        for (const [measure, least] of [
          ["value", r.value],
          ["time", r.time],
        ] as const)
          for (let i = 0; i < least.cost.length; i++) {
            const b = partsOf(r, measure, nameAt(r, i));
            if (!b) expect(least.cost[i]).toBe(Number.POSITIVE_INFINITY);
            else {
              const sum = [...b.base, ...b.work].reduce((t, x) => t + x.cost, 0);
              expect(Math.abs(sum - least.cost[i])).toBeLessThanOrEqual(1e-6 * (1 + least.cost[i]));
            }
          }
      }),
      { numRuns: 200 },
    );
  });
});

describe("obtainable", () => {
  it("needs ingredients, tools and stations alike", () => {
    const r = read(
      "gather Eel\n1 Eel -> 1 Smoked eel at Smokehouse\n1 Eel -> 1 Fillet using Knife\n1 Eel -> 1 Eel broth",
    );
    expect(["Smoked eel", "Fillet", "Eel broth"].map((n) => r.reach.items[at(r, n)])).toEqual([0, 0, 1]);
    expect(r.causes.get(at(r, "Smoked eel"))?.leaves.map((i) => nameAt(r, i))).toEqual(["Smokehouse"]);
  });

  it("names the fewest causes among the alternatives", () => {
    const r = read(
      "gather Eel\n1 Amber + 1 Pearl -> 1 Charm\n1 Coral + 1 Eel -> 1 Charm\n1 Charm -> 1 Chain of charms",
    );
    expect(r.causes.get(at(r, "Chain of charms"))?.leaves.map((i) => nameAt(r, i))).toEqual(["Coral"]);
  });

  it("is the same as trying again and again on small random pantries", () => {
    fc.assert(
      fc.property(randomPantry(7, 10), (text) => {
        const r = read(text);
        const had = new Set<string>();
        for (let before = -1; before < had.size; ) {
          before = had.size;
          for (const { spec } of processesIn(r).map((p) => processAt(r.compiled, p)))
            if (spec.lines.every((l) => l.role === "output" || had.has(l.item)))
              for (const l of spec.lines) if (l.role === "output") had.add(l.item);
        }
        for (const i of itemsIn(r)) expect(r.reach.items[i] === 1).toBe(had.has(r.compiled.idOf(i) as string));
        for (let i = 0; i < r.reach.items.length; i++)
          expect(Number.isFinite(r.value.cost[i])).toBe(r.reach.items[i] === 1);
      }),
      { numRuns: 300 },
    );
  });
});

describe("loops", () => {
  it("proves a gain that only several recipes give together, in whole runs", () => {
    const r = read(
      "gather River eel\nbuy Salt for 1\nSmoke: 2 River eel + 1 Salt -> 2 Smoked eel\nUnsmoke: salvage Smoked eel -> 1 Brine + 1 Eel skin 80%\nRender: 4 Eel skin + 5 Brine -> 5 River eel + 3 Salt",
    );
    expect(told(r)).toEqual(["2 Render + 5 Smoke + 10 Unsmoke => 1 Salt"]);
    expect(r.gain.gains[0]).toMatchObject({ live: true });
    expect(r.gain.gains[0].luck().chance).toBeGreaterThan(0.3);
    expect(r.gain.gains[0].luck().chance).toBeLessThan(0.9);
  });

  it("calls a loop that gives back exactly everything even, not gaining", () => {
    const r = read(
      "gather Rope\nSplit: 1 Rope -> 3 Yarn\nLay: 3 Yarn -> 1 Rope\nA: 1 Rope -> 1 Net 10%\nB: salvage Net -> 10 Rope",
    );
    expect(told(r)).toEqual([]);
    expect(r.loops.map((l) => l.verdict)).toEqual(["even", "even"]);
    expect(toldEven(r).sort()).toEqual(["1 Lay + 1 Split", "10 A + 1 B"]);
  });

  it("sees a gain of one in a thousand and no gain in decimals that only look like one", () => {
    expect(told(read("A: 1 X -> 0.999 Y\nB: 1 Y -> 1.002 X"))).toHaveLength(1);
    expect(told(read("A: 0.1 X + 0.2 X -> 0.3 Y\nB: 0.3 Y -> 0.3 X"))).toEqual([]);
    expect(told(read("A: 3 X -> 0.3 Y 10%\nB: 0.1 Y -> 10 X"))).toEqual([]);
  });

  it("counts a recipe that gives back all it takes and something more", () => {
    expect(told(read("buy Crock for 5\nStir: 1 Crock -> 1 Paste + 1 Crock"))).toEqual(["1 Stir => 1 Paste"]);
    expect(told(read("gather Seed\nSow: 1 Seed -> 2 Seed"))).toEqual(["1 Sow => 1 Seed"]);
  });

  it("finds no gain where a tool wears out, a fee is due, or only a lasting tool is needed", () => {
    expect(told(read("buy Knife for 9\nnothing -> 1 Chip using Knife lasting 10"))).toEqual([]);
    expect(told(read("1 X -> 2 X fee 1 shells"))).toEqual([]);
    expect(told(read("buy Bucket for 9\nDraw: nothing -> 1 Water using Bucket"))).toEqual([]);
  });

  it("sees that a worn tool can be made from what it makes", () => {
    const r = read("buy Knife for 9\nCarve: nothing -> 1 Chip using Knife lasting 10\nWhittle: 9 Chip -> 1 Knife");
    expect(told(r)).toEqual(["9 Carve + 1 Whittle => 1/10 Knife"]);
  });

  it("reports every one of several loops that share a recipe, each minimal", () => {
    const r = read("gather X\nMake: 2 X -> 1 A\nS1: salvage A -> 3 X\nS2: salvage A -> 1 B\nS3: 1 B -> 4 X");
    expect(told(r).sort()).toEqual(["1 Make + 1 S1 => 1 X", "1 Make + 1 S2 + 1 S3 => 2 X"]);
  });

  it("tells a live loop from one that no one can start", () => {
    const r = read("A: 1 X -> 2 Y\nB: 1 Y -> 1 X");
    expect(r.gain.gains[0].live).toBe(false);
    expect(r.loops.map((l) => l.verdict)).toContain("stuck");
  });

  it("tells a stuck loop from items that only wait for something missing", () => {
    const r = read(
      "1 Adze -> 1 Boatshed\n1 Boatshed -> 1 Adze\n1 Ship's glass -> 1 Lens\n1 Lens -> 1 Spyglass\nsalvage Spyglass -> 1 Lens 50%",
    );
    const stuck = r.loops.filter((l) => l.verdict === "stuck");
    expect(stuck.map((l) => l.items.map((i) => nameAt(r, i)).sort())).toEqual([["Adze", "Boatshed"]]);
    expect(stuck[0].byTool).toBe(false);
    expect(r.loops.map((l) => l.verdict)).toEqual(["stuck", "lossy"]);
  });

  it("sees a station that is built at itself", () => {
    const r = read("gather Timber\n4 Timber -> 1 Boatshed at Boatshed");
    expect(
      r.loops.filter((l) => l.verdict === "stuck" && l.byTool).map((l) => l.items.map((i) => nameAt(r, i))),
    ).toEqual([["Boatshed"]]);
  });

  it("agrees with brute force over small whole runs on small random pantries", () => {
    fc.assert(
      fc.property(randomPantry(4, 5), (text) => {
        const r = read(text);
        for (const g of r.gain.gains) {
          expect(g.net.every((n) => n.amount.n > 0n)).toBe(true);
          expect(
            bruteGain(
              r,
              processesOf(g),
              g.runs.map((x) => Number(x.times)),
            ),
          ).toBe(true);
        }
        if (!r.gain.gains.length) expect(bruteSearch(r, 5)).toBeNull();
      }),
      { numRuns: 400 },
    );
  });

  it("certifies a long clean chain with salvage, and finds the one loop planted in it", () => {
    const rows = ["gather M0 in 10s"];
    for (let i = 1; i <= 400; i++) rows.push(`C${i}: 2 M${i - 1} -> 1 M${i}`, `S${i}: salvage M${i} -> 1 M${i - 1}`);
    expect(told(read(rows.join("\n")))).toEqual([]);
    rows.push("Planted: salvage M200 -> 3 M199");
    expect(told(read(rows.join("\n")))).toEqual(["1 C200 + 1 Planted => 1 M199"]);
  });
});

/** Pantry text with up to `items` items and `recipes` recipes, sources for some. */
function randomPantry(items: number, recipes: number): fc.Arbitrary<string> {
  const name = fc.nat(items - 1).map((i) => `Item${i}`);
  const quantity = fc.constantFrom("1", "2", "3", "1..2", "0.5");
  const entry = fc.tuple(quantity, name).map((t) => t.join(" "));
  const output = fc
    .tuple(quantity, name, fc.constantFrom("", "", "", " 50%", " 10%"))
    .map(([q, n, c]) => `${q} ${n}${c}`);
  const recipe = fc
    .tuple(
      fc.array(entry, { minLength: 1, maxLength: 3 }),
      fc.array(output, { minLength: 1, maxLength: 2 }),
      fc.option(name),
      fc.nat(20),
      fc.constantFrom("", "", " fee 1 shells"),
    )
    .map(
      ([ins, outs, tool, s, fee]) =>
        `${ins.join(" + ")} -> ${outs.join(" + ")}${tool ? ` using ${tool}` : ""} in ${s}s${fee}`,
    );
  const source = fc.tuple(name, fc.integer({ min: 1, max: 9 })).map(([n, price]) => `buy ${n} for ${price}`);
  return fc
    .tuple(fc.array(source, { maxLength: 3 }), fc.array(recipe, { maxLength: recipes }))
    .map(([s, r]) => [...s, ...r].join("\n"));
}

/** Bellman's sweep over all processes until nothing moves. */
function valueIteration(r: Readings): Float64Array {
  const { ins, outs, items, processes } = r.network;
  const cost = new Float64Array(items).fill(Number.POSITIVE_INFINITY);
  const [used, made] = [ins.qty as Float64Array, outs.qty as Float64Array];
  for (let sweep = 0; sweep < 3000; sweep++)
    for (let p = 0; p < processes; p++) {
      let t = r.value.own(p);
      for (let k = ins.start[p]; k < ins.end[p]; k++)
        if (!Number.isFinite(cost[ins.to[k]])) t = Number.POSITIVE_INFINITY;
      for (let k = ins.start[p]; k < ins.end[p] && Number.isFinite(t); k++) t += used[k] * cost[ins.to[k]];
      for (let k = outs.start[p]; k < outs.end[p]; k++) cost[outs.to[k]] = Math.min(cost[outs.to[k]], t / made[k]);
    }
  return cost;
}

function bruteGain(r: Readings, processes: number[], times: number[]): boolean {
  const net = new Map<string, number>();
  processes.forEach((p, k) => {
    for (const l of processAt(r.compiled, p).spec.lines) {
      const wear = l.role === "tool" ? (l.uses ? 1 / l.uses : 0) : l.role === "station" ? 0 : 1;
      const q = ((l.min + l.max) / 2) * l.chance * wear * times[k];
      net.set(l.item, (net.get(l.item) ?? 0) + (l.role === "output" ? q : -q));
    }
  });
  const nets = [...net.values()];
  return nets.every((q) => q > -1e-9) && nets.some((q) => q > 1e-9);
}

function bruteSearch(r: Readings, most: number): number[] | null {
  const recipes = processesIn(r).filter((p) => {
    const { kind, spec } = processAt(r.compiled, p);
    return kind === "recipe" && spec.price === 0;
  });
  const times = recipes.map(() => 0);
  const go = (at: number): number[] | null => {
    if (at === recipes.length) return bruteGain(r, recipes, times) ? [...times] : null;
    for (times[at] = 0; times[at] <= most; times[at]++) {
      const hit = go(at + 1);
      if (hit) return hit;
    }
    times[at] = 0;
    return null;
  };
  return go(0);
}

it("turns proofs into numbers a person can read", () => {
  const [gain] = read("A: 2 X -> 1 Y\nB: 1 Y -> 2 X + 1 Z 25%").gain.gains;
  expect(toNumber(gain.net[0].amount)).toBe(0.25);
});
