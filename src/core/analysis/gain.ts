/** Gaining loops: recipes that, run in some whole numbers, leave more than before and less of nothing. */
import type { Id } from "../catalogue/records";
import { rounds } from "../network/components";
import { netYield, type Network } from "../network/network";
import { add, type Fraction, fraction, fromNumber, multiply, sign, subtract, toNumber, wholeMultiples, ZERO } from "../numbers/fraction";
import { leastCost } from "./cost";
import { type Column, exactly, rowsOf, searchCircle, totalNet } from "./loop-search";
import type { Obtainable } from "./obtainable";

export interface Gain {
  /** Whole numbers of runs, the smallest that were found; drop any process and it stops gaining. */
  readonly runs: readonly { readonly process: number; readonly times: bigint }[];
  /** Exact expected net of one round; every entry is above zero, all other items come out even. */
  readonly net: readonly { readonly item: number; readonly amount: Fraction }[];
  /** True when it gains even in the worst draw of every chance and range. */
  readonly certain: boolean;
  /** True when every process in it can be reached in a new world. */
  readonly live: boolean;
  /** Expected seconds of one round. */
  readonly seconds: number;
}

export interface GainReport {
  readonly gains: readonly Gain[];
  /** Processes that together come round without loss and without gain, one such group a circle where nothing gains. */
  readonly even: readonly (readonly number[])[];
  /** False where the search stopped at its limits: there may be more loops than those reported. */
  readonly complete: boolean;
}

/**
 * A gaining loop is x ≥ 0 over recipes with S x ≥ 0 and S x ≠ 0, S the exact expected net yields (Farkas: either that, or
 * prices p > 0 with pᵀS ≤ 0 certify that there is none). Recipes with a fee can't take part: nothing makes money back here.
 *
 * 1. Drop recipes that use something no remaining recipe makes, and those that only lead from one circle into another:
 *    if there is a gain at all, there is one inside a single circle.
 * 2. In every circle look for minimal supports, or for prices that prove there is none (loop-search.ts).
 * 3. Find small whole multiplicities, verify them in exact fractions.
 */
export function gains(network: Network, reach: Obtainable): GainReport {
  const { alive, free } = candidates(network);
  const found: Gain[] = free.map((p) => proof(network, reach, [columnOf(network, p)], [1n]));
  const even: number[][] = [];
  let complete = true;
  const closed = circles(network, alive);
  const worth = closed.length ? roughWorth(network) : null;
  for (const circle of closed) {
    const result = searchCircle({ ...network, column: (p) => columnOf(network, p) }, circle.processes, (item) => worth?.[item] ?? 1);
    if (!result.complete) complete = false;
    for (const support of result.gaining) found.push(proof(network, reach, support, multiplicities(support)));
    if (result.even) even.push(result.even.map((c) => c.process));
  }
  const size = (g: Gain) => g.runs.reduce((t, r) => t + Number(r.times), 0);
  return { gains: found.sort((a, b) => a.runs.length - b.runs.length || size(a) - size(b)), even, complete };
}

/** Least costs with a little for every run and second, so that nothing is free; 1 for what can't be had. */
function roughWorth(network: Network): Float64Array {
  const { cost } = leastCost(network, network.money.map((money, p) => money + 0.01 * network.seconds[p] + 0.001));
  return cost.map((c) => (Number.isFinite(c) && c > 0 ? Math.min(Math.max(c, 1e-100), 1e200) : 1));
}

const columnOf = (network: Network, process: number): Column => ({
  process,
  net: new Map([...netYield(network.processes[process])].map(([id, q]) => [network.index.get(id) as number, q])),
});

/**
 * Recipes that could go round (alive), and those that gain by themselves: they take something in and are left with no net
 * use. An entry is missing from the network's rows only where it is exactly zero, so this asks no fractions.
 */
function candidates(network: Network): { alive: Uint8Array; free: number[] } {
  const { uses, makes, processes } = network;
  const alive = new Uint8Array(processes.length);
  const free: number[] = [];
  for (let p = 0; p < alive.length; p++) {
    if (processes[p].of === "source" || !network.consumes[p] || network.money[p] > 0 || makes.ptr[p] === makes.ptr[p + 1]) continue;
    if (uses.ptr[p] === uses.ptr[p + 1]) free.push(p);
    else alive[p] = 1;
  }
  prune(network, alive);
  return { alive, free };
}

/** Takes out recipes that use an item no recipe left makes, until nothing changes. */
function prune(network: Network, alive: Uint8Array): void {
  const { uses, makes, usedBy } = network;
  const makers = new Int32Array(network.items.length);
  for (let p = 0; p < alive.length; p++) if (alive[p]) for (let k = makes.ptr[p]; k < makes.ptr[p + 1]; k++) makers[makes.to[k]]++;
  const dead: number[] = [];
  const kill = (p: number) => {
    alive[p] = 0;
    dead.push(p);
  };
  for (let p = 0; p < alive.length; p++) {
    if (!alive[p]) continue;
    for (let k = uses.ptr[p]; k < uses.ptr[p + 1]; k++)
      if (makers[uses.to[k]] === 0) {
        kill(p);
        break;
      }
  }
  for (let p = dead.pop(); p !== undefined; p = dead.pop())
    for (let k = makes.ptr[p]; k < makes.ptr[p + 1]; k++) {
      const item = makes.to[k];
      if (--makers[item] > 0) continue;
      for (let u = usedBy.ptr[item]; u < usedBy.ptr[item + 1]; u++) if (alive[usedBy.to[u]]) kill(usedBy.to[u]);
    }
}

/** Circles whose recipes take everything from within. Changes `alive`. */
function circles(network: Network, alive: Uint8Array): { items: number[]; processes: number[] }[] {
  for (;;) {
    const groups = rounds(network, network.usedBy, alive);
    const inside = new Uint8Array(alive.length);
    const closed = groups.map(({ items, processes }) => {
      const own = new Set(items);
      const kept = processes.filter((p) => {
        for (let k = network.uses.ptr[p]; k < network.uses.ptr[p + 1]; k++) if (!own.has(network.uses.to[k])) return false;
        return true;
      });
      for (const p of kept) inside[p] = 1;
      return { items, processes: kept };
    });
    let changed = false;
    for (let p = 0; p < alive.length; p++) if (alive[p] && !inside[p]) { alive[p] = 0; changed = true; }
    if (!changed) return closed.filter((c) => c.processes.length > 0);
    prune(network, alive);
  }
}

/** Whole numbers of runs for a minimal support: tried from small sums upwards, else a vertex of the exact programme. */
function multiplicities(support: readonly Column[]): bigint[] {
  const rows = [...rowsOf(support).values()].map((row) => row.map(toNumber));
  const k = support.length;
  let tries = 0;
  for (let total = k; total <= 60 && k <= 8 && tries < 30_000; total++) {
    const parts = new Array<number>(k).fill(1);
    const place = (at: number, left: number): number[] | null => {
      if (tries++ > 30_000) return null;
      if (at === k - 1) {
        parts[at] = left;
        const near = rows.every((row) => row.reduce((t, q, j) => t + q * parts[j], 0) > -1e-9);
        return near && gainsWith(support, parts.map(BigInt)) ? [...parts] : null;
      }
      for (let n = 1; n <= left - (k - 1 - at); n++) {
        parts[at] = n;
        const hit = place(at + 1, left - n);
        if (hit) return hit;
      }
      return null;
    };
    const hit = place(0, total);
    if (hit) return hit.map(BigInt);
  }
  return wholeMultiples(exactly(support, totalNet) as Fraction[]);
}

function netOf(support: readonly Column[], times: readonly bigint[]): Map<number, Fraction> {
  const net = new Map<number, Fraction>();
  support.forEach((column, k) => {
    for (const [item, q] of column.net) net.set(item, add(net.get(item) ?? ZERO, multiply(q, fraction(times[k]))));
  });
  return net;
}

const gainsWith = (support: readonly Column[], times: readonly bigint[]): boolean => {
  const signs = [...netOf(support, times).values()].map(sign);
  return signs.every((s) => s >= 0) && signs.some((s) => s > 0);
};

/** The processes in the order in which a player would run them: each uses what the one before it makes, where that can be. */
function inOrder(support: readonly Column[]): number[] {
  const rest = new Set(support.map((_, k) => k));
  const order: number[] = [];
  const follows = (k: number, after: Column) => [...support[k].net].some(([item, q]) => q.n < 0n && (after.net.get(item)?.n ?? 0n) > 0n);
  const first = support.reduce((best, c, k) => (c.process < support[best].process ? k : best), 0);
  for (let k: number | undefined = first; k !== undefined; ) {
    order.push(k);
    rest.delete(k);
    const here: Column = support[k];
    k = [...rest].find((j) => follows(j, here)) ?? [...rest][0];
  }
  return order;
}

/** @throws Error when the exact sum does not bear the claim out: a fault of this file, never of the data */
function proof(network: Network, reach: Obtainable, support: readonly Column[], times: readonly bigint[]): Gain {
  if (!gainsWith(support, times)) throw new Error("A gaining loop failed its proof.");
  const net = [...netOf(support, times)].filter(([, q]) => sign(q) > 0).map(([item, amount]) => ({ item, amount }));
  const seconds = support.reduce((t, { process }, k) => t + network.seconds[process] * Number(times[k]), 0);
  return {
    runs: inOrder(support).map((k) => ({ process: support[k].process, times: times[k] })),
    net,
    certain: worstCase(network, support, times),
    live: support.every(({ process }) => reach.processes[process]),
    seconds,
  };
}

/** Does it gain when every range and chance falls out against the player? */
function worstCase(network: Network, support: readonly Column[], times: readonly bigint[]): boolean {
  const net = new Map<Id, Fraction>();
  support.forEach(({ process }, k) => {
    for (const line of network.processes[process].record.lines) {
      if (line.role === "station" || (line.role === "tool" && line.uses === null)) continue;
      const runs = fraction(times[k]);
      let amount = line.role === "output" ? (line.chance >= 1 ? fromNumber(Math.min(line.min, line.max)) : ZERO) : line.chance > 0 ? fromNumber(Math.max(line.min, line.max)) : ZERO;
      if (line.uses !== null) amount = multiply(amount, fraction(1n, BigInt(line.uses)));
      const delta = multiply(amount, runs);
      net.set(line.item, line.role === "output" ? add(net.get(line.item) ?? ZERO, delta) : subtract(net.get(line.item) ?? ZERO, delta));
    }
  });
  const signs = [...net.values()].map(sign);
  return signs.every((s) => s >= 0) && signs.some((s) => s > 0);
}
