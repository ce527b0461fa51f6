import { describe, expect, it } from "vitest";
import { seeded } from "../numbers/seeded";
import { at, label, nameAt, read } from "../testing/told";
import { type Plan, planFor } from "./plan";
import type { Readings } from "./readings";

type Amounts = Record<string, number>;
const numbered = (r: Readings, amounts: Amounts) =>
  new Map(Object.entries(amounts).map(([name, n]) => [at(r, name), n]));
function plan(
  r: Readings,
  make: Amounts,
  options: { stock?: Amounts; confidence?: number; measure?: "value" | "time" } = {},
): Plan {
  const found = planFor(r, {
    make: numbered(r, make),
    stock: numbered(r, options.stock ?? {}),
    confidence: options.confidence,
    measure: options.measure,
  });
  if ("no" in found) throw new Error(`no ${found.no}: ${nameAt(r, found.item)}`);
  return found;
}
const named = (r: Readings, map: ReadonlyMap<number, number>) =>
  Object.fromEntries([...map].map(([i, n]) => [nameAt(r, i), Number(n.toFixed(9))]));
const steps = (r: Readings, p: Plan) => p.steps.map((s) => `${s.runs} ${label(r, s.process)}`);

describe("a plan", () => {
  const text =
    "Fell: nothing -> 1 Bark in 1s\nbuy Log for 4\nbuy Nail for 0.5\nSaw: 1 Log -> 4 Plank in 10s at Bench\ngather Bench\nBox: 6 Plank + 8 Nail -> 1 Crate in 30s at Bench fee 2 shells";

  it("runs whole numbers, shares what is left over, and lists what to buy", () => {
    const r = read(text);
    const p = plan(r, { Crate: 3, Plank: 1 });
    expect(named(r, p.shopping)).toEqual({ Log: 5, Nail: 24 });
    expect(steps(r, p)).toEqual(expect.arrayContaining(["5 Saw", "3 Box"]));
    expect(steps(r, p).indexOf("5 Saw")).toBeLessThan(steps(r, p).indexOf("3 Box"));
    expect(named(r, p.left)).toEqual({ Plank: 1 });
    expect(p.value).toBe(5 * 4 + 24 * 0.5 + 3 * 2);
    expect(p.seconds).toBe(5 * 10 + 3 * 30);
    expect(named(r, p.busy)).toEqual({ Bench: 140 });
    expect(named(r, p.needed)).toEqual({ Bench: 1 });
    expect(p.best).toBe(true);
  });

  it("takes from the stock first, and counts what it took", () => {
    const r = read(text);
    const p = plan(r, { Crate: 1 }, { stock: { Plank: 5, Nail: 100, Bench: 1 } });
    expect(named(r, p.shopping)).toEqual({ Log: 1 });
    expect(named(r, p.taken)).toEqual({ Plank: 2, Nail: 8 });
    expect(p.needed.size).toBe(0);
    expect(plan(r, { Crate: 2 }, { stock: { Crate: 2 } }).steps).toEqual([]);
  });

  it("brings what the first run needs and gives back, though it is left over in the end", () => {
    const dough = read("gather Dough\nProve: 1 Dough -> 3 Dough");
    const p = plan(dough, { Dough: 3 }, { stock: {} });
    // Gathered here; where nothing gives the first one, it is brought.
    expect(named(dough, p.needed)).toEqual({});
    const leaven = read("gather Flour\nProve: 1 Dough + 1 Flour -> 3 Dough\nbuy Dough for 50");
    const fed = planFor(leaven, { make: numbered(leaven, { Dough: 4 }) });
    if ("no" in fed) throw new Error("no plan");
    expect(steps(leaven, fed)).toEqual(expect.arrayContaining(["2 Prove"]));
    expect([named(leaven, fed.needed), named(leaven, fed.left)]).toEqual([{ Dough: 1 }, {}]);
    // Of three that go in two come back: one is lost, two are brought beside it, and no more for several runs.
    const pie = read("buy Eel for 2\nBake: 3 Eel -> 2 Eel + 1 Pie");
    for (const n of [1, 4]) {
      const baked = plan(pie, { Pie: n });
      expect([named(pie, baked.shopping), named(pie, baked.needed)]).toEqual([{ Eel: n }, { Eel: 2 }]);
    }
    expect(named(pie, plan(pie, { Pie: 1 }, { stock: { Eel: 2 } }).needed)).toEqual({ Eel: 1 });
    // What an earlier step leaves is there for a later one.
    const jar = read("buy Brine for 1\nOpen: 1 Brine -> 1 Jar + 1 Salt\nStir: 1 Salt -> 1 Relish using Jar");
    expect(named(jar, plan(jar, { Relish: 1 }).needed)).toEqual({});
    const two = read("gather Log\ngather Hook\nPull: 1 Log -> 1 Root using 2 Hook");
    expect(named(two, plan(two, { Root: 3 }).needed)).toEqual({ Hook: 2 });
  });

  it("finds a mix of recipes that no single cheapest way gives", () => {
    // One big batch of ten and a single: eleven of each alone would be dearer.
    const r = read("buy Ore for 1\nBatch: 10 Ore -> 10 Bar fee 5 shells\nSingle: 1 Ore -> 1 Bar fee 2 shells");
    const p = plan(r, { Bar: 11 });
    expect(steps(r, p).sort()).toEqual(["1 Batch", "1 Single", "11 Ore"].sort());
    expect(p.value).toBe(11 + 5 + 2);
  });

  it("takes time and heat for whole batches, and no more of what goes in", () => {
    const r = read(
      "buy Dough for 1\nbuy Peat for 4\ngather Oven\nset Peat burns = 40s\nBake: 1 Dough -> 1 Loaf at Oven in 60s burning 40s batch 8",
      { labourPerHour: 3600 },
    );
    const one = plan(r, { Loaf: 1 });
    // One loaf takes as long as eight: 1 + 60 + a peat for 4.
    expect([one.value, one.seconds]).toEqual([65, 60]);
    expect(named(r, one.shopping)).toEqual({ Dough: 1, Peat: 1 });
    const nine = plan(r, { Loaf: 9 });
    expect([nine.value, nine.seconds]).toEqual([9 + 120 + 8, 120]);
    expect(named(r, nine.busy)).toEqual({ Oven: 120 });
    expect(nine.left.size).toBe(0);
  });

  it("plans chances by expectation, or with a confidence", () => {
    const r = read("buy Eel for 1\nSkin: 1 Eel -> 1 Skin 50%");
    expect(plan(r, { Skin: 3 }).value).toBe(6);
    // P(at least 3 of n halves) ≥ 0.9 from n = 9, ≥ 0.99 from n = 14.
    expect(plan(r, { Skin: 3 }, { confidence: 0.9 }).value).toBe(9);
    expect(plan(r, { Skin: 3 }, { confidence: 0.99 }).value).toBe(14);
  });

  it("wears out whole tools, and plans in time as well as in value", () => {
    const r = read(
      "buy Knife for 9\nbuy Eel for 1\nGut: 1 Eel -> 1 Fillet using Knife lasting 4 in 5s\ngather Fillet in 60s",
    );
    const p = plan(r, { Fillet: 5 }, { measure: "time" });
    expect(named(r, p.shopping)).toEqual({ Knife: 2, Eel: 5 });
    expect(named(r, p.left)).toEqual({ Knife: 0.75 });
    expect(plan(r, { Fillet: 5 }).value).toBe(0);
  });

  it("says why there is none, and opens a circle in which the cheapest way goes round forever", () => {
    const r = read(
      "1 Ghost -> 1 Lens\nbuy Salt for 1000\nbuy Sack for 2\nA: 1 Salt + 1 Sack -> 1 Brine\nB: 1 Brine -> 1.2 Salt",
    );
    expect(planFor(r, { make: new Map([[at(r, "Lens"), 1]]) })).toEqual({ no: "way", item: at(r, "Lens") });
    // Every round of A and B leaves salt over: once begun with salt that was bought.
    expect(steps(r, plan(r, { Brine: 1 })).sort()).toEqual(["1 A", "1 Salt", "1 Sack"].sort());
    expect(plan(r, { Brine: 1 }).value).toBe(1002);
    expect(planFor(r, { make: new Map([[at(r, "Lens"), 1]]), stock: new Map([[at(r, "Lens"), 2]]) })).toMatchObject({
      steps: [],
    });
  });

  it("is the optimum of an exhaustive search, and never dearer than rounding up for each need, on small random pantries", () => {
    let [mixed, shown] = [0, 0];
    for (let seed = 1; seed <= 150; seed++) {
      const random = seeded(seed);
      const between = (a: number, b: number) => a + Math.floor(random() * (b - a + 1));
      const rows = ["buy A for 3", "buy B for 2"];
      const below: Record<string, string[]> = { C: ["A", "B"], D: ["A", "B", "C"] };
      for (const made of ["C", "D"])
        for (let w = between(1, 2); w > 0; w--) {
          const part = below[made][Math.floor(random() * below[made].length)];
          rows.push(
            `${made}${w}: ${between(1, 3)} ${part} -> ${between(1, 4)} ${made}${random() < 0.3 ? " + 1 B" : ""} fee ${between(0, 4)} shells`,
          );
        }
      const r = read(rows.join("\n"));
      const want = { C: between(0, 3), D: between(1, 4) };
      const p = plan(r, want);
      const best = exhaustive(r, numbered(r, want));
      if (p.best) shown++;
      // Where the cheapest numbers would need something before it is made, the plan is another and does not claim to be
      // best.
      if (p.best) expect({ seed, value: Number(p.value.toFixed(6)) }).toEqual({ seed, value: Number(best.toFixed(6)) });
      else expect(p.value).toBeGreaterThanOrEqual(best - 1e-9);
      const naive = [...numbered(r, want)].reduce((t, [i, n]) => t + roundedUp(r, i, n), 0);
      expect(p.value).toBeLessThanOrEqual(naive + 1e-9);
      if (p.value < naive - 1e-9) mixed++;
    }
    expect(mixed).toBeGreaterThan(20);
    expect(shown).toBeGreaterThan(140);
  });
});

/** Each need by itself, rounded up on its cheapest way. */
function roundedUp(r: Readings, item: number, units: number): number {
  if (units <= 0) return 0;
  const p = r.chosen("value", item);
  const n = Math.ceil(units / r.network.yieldOf(p, item) - 1e-9);
  const { ins } = r.network;
  let cost = n * r.value.own(p);
  for (let k = ins.start[p]; k < ins.end[p]; k++) cost += roundedUp(r, ins.to[k], n * (ins.qty as Float64Array)[k]);
  return cost;
}

/** All numbers of runs of the recipes up to a bound; what is bought follows from them. */
function exhaustive(r: Readings, want: ReadonlyMap<number, number>): number {
  const { network } = r;
  const recipes = Array.from({ length: network.processes }, (_, p) => p).filter(
    (p) => network.ins.start[p] < network.ins.end[p],
  );
  const sources = Array.from({ length: network.processes }, (_, p) => p).filter((p) => !recipes.includes(p));
  let best = Number.POSITIVE_INFINITY;
  const times = recipes.map(() => 0);
  const go = (k: number, cost: number): void => {
    if (cost >= best) return;
    if (k < recipes.length) {
      for (times[k] = 0; times[k] <= 8; times[k]++) go(k + 1, cost + times[k] * r.value.own(recipes[k]));
      times[k] = 0;
      return;
    }
    const net = new Map([...want].map(([i, n]) => [i, -n]));
    recipes.forEach((p, j) => {
      for (const [side, lists] of [
        [-1, network.ins],
        [1, network.outs],
      ] as const)
        for (let m = lists.start[p]; m < lists.end[p]; m++)
          net.set(lists.to[m], (net.get(lists.to[m]) ?? 0) + side * times[j] * (lists.qty as Float64Array)[m]);
    });
    let whole = cost;
    for (const [i, n] of net) {
      if (n >= 0) continue;
      const source = sources.find((p) => network.yieldOf(p, i) > 0);
      if (source === undefined) return;
      whole += Math.ceil(-n / network.yieldOf(source, i)) * r.value.own(source);
    }
    best = Math.min(best, whole);
  };
  go(0, 0);
  return best;
}

describe("a plan with what comes back", () => {
  it("uses it again: one lamp is filled six times, and one flask serves four broths", () => {
    const r = read(
      "buy Oil for 3\nbuy Lamp for 20\nFill: 1 Lamp + 1 Oil -> 1 Lit lamp\nBurn: 1 Lit lamp -> 10 Light + 1 Lamp\nWork: 60 Light -> 1 Hour",
    );
    const p = plan(r, { Hour: 1 });
    expect(steps(r, p)).toEqual(["6 Oil", "6 Fill", "6 Burn", "1 Work"]);
    expect(p.steps.map((s) => s.turns)).toEqual([undefined, 6, 6, undefined]);
    expect([p.value, named(r, p.needed), named(r, p.left)]).toEqual([18, { Lamp: 1 }, {}]);
    // A lamp that is there already need not be brought.
    const there = plan(r, { Hour: 1 }, { stock: { Lamp: 1 } });
    expect([there.value, named(r, there.needed), named(r, there.taken)]).toEqual([18, {}, {}]);
    const flask = read(
      "buy Kelp for 2\nbuy Flask for 9\nDip: 1 Flask -> 1 Full flask\nset Full flask vessel = Flask\n3 Kelp + 1 Full flask -> 1 Broth",
    );
    expect(named(flask, plan(flask, { Broth: 4 }).needed)).toEqual({ Flask: 1 });
    expect(plan(flask, { Broth: 4 }).value).toBe(24);
    // As few as will do: three bottles for a punch of three, however often it is mixed.
    const punch = read(
      "gather Ginger\ngather Holly\nbuy Bottle for 4\n3 Ginger + 1 Bottle -> 1 Cordial\n2 Holly + 1 Bottle -> 1 Syrup\nset Cordial vessel = Bottle\nset Syrup vessel = Bottle\n2 Cordial + 1 Syrup -> 4 Punch",
    );
    expect(named(punch, plan(punch, { Punch: 20 }).needed)).toEqual({ Bottle: 3 });
    // Of what is wanted itself nothing is brought, nor where what goes round grows.
    expect(plan(flask, { "Full flask": 2 }).value).toBe(18);
    const dough = read(
      "buy Salt for 1000\nbuy Sack for 2\nA: 1 Salt + 1 Sack -> 1 Brine\nB: 1 Brine -> 1.2 Salt\nC: 5 Brine -> 1 Pan",
    );
    expect(named(dough, plan(dough, { Pan: 1 }).needed)).toEqual({});
    // Very many turns are followed no further than they repeat themselves.
    expect(plan(r, { Hour: 100_000 }).value).toBe(1_800_000);
  });

  it("lists under what is left over what comes beside, and not as something to gather", () => {
    const r = read("buy Eel for 2\ngather 1 Kelp + 2 Shell in 60s\n1 Eel + 1 Kelp -> 1 Pie");
    const p = plan(r, { Pie: 3 });
    expect(named(r, p.shopping)).toEqual({ Eel: 3, Kelp: 3 });
    expect(named(r, p.left)).toEqual({ Shell: 6 });
  });

  it("counts a gift once, however many need it", () => {
    const r = read("give 3 Chart\n2 Chart -> 1 Map\n2 Chart -> 1 Log book");
    expect(planFor(r, { make: numbered(r, { Map: 1, "Log book": 1 }) })).toMatchObject({ no: "more" });
    expect(plan(r, { Map: 1 }).value).toBe(0);
  });
});
