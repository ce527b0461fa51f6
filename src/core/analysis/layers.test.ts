import { describe, expect, it } from "vitest";
import { ALIVE, type Network, NetworkBuilder, type ProcessOf } from "../network/network";
import { seeded } from "../numbers/seeded";
import { type LayerRules, Layers, NEVER } from "./layers";

type Random = () => number;
const between = (random: Random, a: number, b: number) => a + Math.floor(random() * (b - a + 1));

function processOf(random: Random, items: number): ProcessOf {
  const some = (n: number) => [...new Set(Array.from({ length: n }, () => between(random, 0, items - 1)))];
  const [ins, outs] = [some(between(random, 0, 3)), some(between(random, 1, 2))];
  return {
    ins: { to: ins, qty: ins.map(() => (random() < 0.7 ? 1 : 0)) },
    outs: { to: outs, qty: outs.map(() => 1) },
    money: 0,
    seconds: 0,
    level: between(random, 0, 4),
    flags: ALIVE,
  };
}
const networkOf = (random: Random, items: number, processes: number): Network => {
  const builder = new NetworkBuilder(items);
  for (let p = 0; p < processes; p++) builder.add(processOf(random, items));
  return builder.build();
};

const rulesOf = (network: Network, usedOnly: boolean, own: readonly number[]): LayerRules => ({
  usedOnly,
  counts: (p) => (network.flags[p] & ALIVE) !== 0 && p % 7 !== 6,
  gives: (p, most) => Math.max(network.level[p] * 10, most) + 1,
  least: (item) => own[item] * 10,
  before: (p, q) => p < q,
});

/** Sweeps until nothing moves. */
function slowly(network: Network, rules: LayerRules): { value: number[]; by: number[] } {
  const { ins, outs, items, processes } = network;
  const value = new Array<number>(items).fill(NEVER);
  const given = (p: number) => {
    let most = 0;
    for (let k = ins.start[p]; k < ins.end[p]; k++)
      if (!rules.usedOnly || (ins.qty as Float64Array)[k] > 0) most = Math.max(most, value[ins.to[k]]);
    return most === NEVER ? NEVER : rules.gives(p, most);
  };
  for (let moved = true; moved; ) {
    moved = false;
    for (let p = 0; p < processes; p++)
      for (let k = outs.start[p]; k < outs.end[p]; k++) {
        const item = outs.to[k];
        const v = given(p);
        if (!rules.counts(p, item) || v === NEVER || Math.max(v, rules.least(item)) >= value[item]) continue;
        value[item] = Math.max(v, rules.least(item));
        moved = true;
      }
  }
  const by = value.map((v, item) => {
    const ways = Array.from({ length: processes }, (_, p) => p).filter(
      (p) => rules.counts(p, item) && network.yieldOf(p, item) > 0,
    );
    const best =
      v === NEVER ? ways : ways.filter((p) => given(p) !== NEVER && Math.max(given(p), rules.least(item)) === v);
    return best[0] ?? -1;
  });
  return { value, by };
}

describe("layers", () => {
  it.each([[false], [true]])(
    "are the least numbers that sweeping finds, with the same process for each (used only: %s)",
    (usedOnly) => {
      for (let seed = 1; seed <= 150; seed++) {
        const random = seeded(seed);
        const network = networkOf(random, 8, 14);
        const rules = rulesOf(
          network,
          usedOnly,
          Array.from({ length: 8 }, () => between(random, 0, 6)),
        );
        const truth = slowly(network, rules);
        const layers = new Layers(network, rules);
        expect({ seed, value: [...layers.value] }).toEqual({ seed, value: truth.value });
        expect({ seed, by: [...layers.by] }).toEqual({ seed, by: truth.by });
      }
    },
  );

  it("follow rewritten processes and items with other numbers of their own, and name what moved", () => {
    for (let seed = 1; seed <= 60; seed++) {
      const random = seeded(300 + seed);
      const network = networkOf(random, 9, 15);
      const own = Array.from({ length: 9 }, () => between(random, 0, 6));
      const rules = rulesOf(network, false, own);
      const layers = new Layers(network, rules);
      for (let n = 0; n < 12; n++) {
        const before = { value: [...layers.value], by: [...layers.by] };
        const doubtful = new Set<number>();
        const p = between(random, 0, 14);
        const outs = () => {
          for (let k = network.outs.start[p]; k < network.outs.end[p]; k++) doubtful.add(network.outs.to[k]);
        };
        outs();
        network.rewrite(p, random() < 0.3 ? null : processOf(random, 9));
        outs();
        const item = between(random, 0, 8);
        own[item] = between(random, 0, 6);
        doubtful.add(item);
        const moved = layers.rederive(doubtful);
        const truth = slowly(network, rules);
        expect({ seed, n, value: [...layers.value.subarray(0, 9)], by: [...layers.by.subarray(0, 9)] }).toEqual({
          seed,
          n,
          ...truth,
        });
        const other = own.flatMap((_, i) =>
          before.value[i] !== truth.value[i] || before.by[i] !== truth.by[i] ? [i] : [],
        );
        expect([...moved].sort()).toEqual(other.sort());
      }
    }
  });
});
