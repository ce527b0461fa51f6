/** Least cost of one unit of every item, in value and in time. */
import type { Network } from "../network/network";

export interface LeastCost {
  /** Per item; Infinity: can't be had. */
  readonly cost: Float64Array;
  /** Per item the process that achieves it; −1: none. */
  readonly by: Int32Array;
  /** Items whose cheapest way leads through themselves (a circle that improves at every round). */
  readonly circular: ReadonlySet<number>;
}

export type Measure = "value" | "time";

/** What one run costs by itself: money plus the worth of its time, or its seconds. */
export function ownCost(network: Network, measure: Measure): Float64Array {
  if (measure === "time") return network.seconds;
  const perSecond = network.catalogue.pantry.labourPerHour / 3600;
  return network.money.map((money, p) => money + network.seconds[p] * perSecond);
}

const REOPEN = 40;
/** Relative improvement below which a cost counts as the same. */
const EPS = 1e-12;

/**
 * Label-correcting on a heap: a process that yields several units makes its output cheaper than its inputs, so an item may
 * settle more than once (Knuth 1977 needs superior functions; these are not). Every output bears the whole cost of the run:
 * cost(item) = min over processes of (own + sum of quantity × cost) / expected yield.
 *
 * Circles that get cheaper at every round converge only in the limit; items re-opened more than 40 times are handed to
 * policy iteration (Howard 1960), which solves the chosen circle as a linear system.
 *
 * @param own  cost of one run of every process by itself
 */
export function leastCost(network: Network, own: Float64Array): LeastCost {
  const { needs, uses, makes, neededBy, usedBy } = network;
  const n = network.items.length;
  const cost = new Float64Array(n).fill(Number.POSITIVE_INFINITY);
  const by = new Int32Array(n).fill(-1);
  const pops = new Uint16Array(n);
  const missing = new Int32Array(network.processes.length);
  const heap = new Heap(cost);
  let capped = false;

  const relax = (p: number) => {
    let t = own[p];
    for (let k = uses.ptr[p]; k < uses.ptr[p + 1]; k++) t += uses.qty[k] * cost[uses.to[k]];
    for (let k = makes.ptr[p]; k < makes.ptr[p + 1]; k++) {
      const c = t / makes.qty[k];
      const item = makes.to[k];
      if (!(c < cost[item] * (1 - EPS)) && !(c < Number.POSITIVE_INFINITY && cost[item] === Number.POSITIVE_INFINITY)) continue;
      cost[item] = c;
      by[item] = p;
      if (pops[item] <= REOPEN) heap.push(item);
      else capped = true;
    }
  };
  for (let p = 0; p < missing.length; p++) {
    missing[p] = needs.ptr[p + 1] - needs.ptr[p];
    if (missing[p] === 0) relax(p);
  }
  for (let item = heap.pop(); item >= 0; item = heap.pop()) {
    if (pops[item]++ === 0) {
      for (let k = neededBy.ptr[item]; k < neededBy.ptr[item + 1]; k++) if (--missing[neededBy.to[k]] === 0) relax(neededBy.to[k]);
    } else for (let k = usedBy.ptr[item]; k < usedBy.ptr[item + 1]; k++) if (missing[usedBy.to[k]] === 0) relax(usedBy.to[k]);
  }
  const circular = capped ? iteratePolicy(network, own, cost, by, missing) : new Set<number>();
  return { cost, by, circular };
}

/** Evaluates the chosen processes exactly, takes every better one, until none is. Changes `cost` and `by`. */
function iteratePolicy(network: Network, own: Float64Array, cost: Float64Array, by: Int32Array, missing: Int32Array): Set<number> {
  const { uses, makes } = network;
  const circular = new Set<number>();
  for (let round = 0; round < 200; round++) {
    circular.clear();
    for (const group of policyOrder(network, by)) {
      if (group.length > 1 || dependsOnItself(network, by, group[0])) {
        for (const i of group) circular.add(i);
        solveGroup(network, own, cost, by, group);
      } else {
        const [i] = group;
        const p = by[i];
        if (p >= 0) cost[i] = runCost(network, own, cost, p) / yieldOf(network, p, i);
      }
    }
    let better = false;
    for (let p = 0; p < missing.length; p++) {
      if (missing[p] > 0) continue;
      const t = runCost(network, own, cost, p);
      for (let k = makes.ptr[p]; k < makes.ptr[p + 1]; k++) {
        const item = makes.to[k];
        if (by[item] !== p && t / makes.qty[k] < cost[item] * (1 - 1e-10) - 1e-300) {
          by[item] = p;
          better = true;
        }
      }
    }
    if (!better) break;
  }
  return circular;

  function runCost(net: Network, base: Float64Array, c: Float64Array, p: number): number {
    let t = base[p];
    for (let k = net.uses.ptr[p]; k < net.uses.ptr[p + 1]; k++) t += uses.qty[k] * c[uses.to[k]];
    return t;
  }
}

/** Expected units of an item from one run. */
export function yieldOf(network: Network, p: number, item: number): number {
  const { ptr, to, qty } = network.makes;
  for (let k = ptr[p]; k < ptr[p + 1]; k++) if (to[k] === item) return qty[k];
  return 0;
}

const dependsOnItself = (network: Network, by: Int32Array, item: number): boolean => {
  const p = by[item];
  if (p < 0) return false;
  const { ptr, to } = network.uses;
  for (let k = ptr[p]; k < ptr[p + 1]; k++) if (to[k] === item) return true;
  return false;
};

/** Items grouped so that whatever an item's chosen process uses comes before it; circles form one group. */
export function policyOrder(network: Network, by: Int32Array, from?: readonly number[]): number[][] {
  const { ptr, to } = network.uses;
  const n = network.items.length;
  const order = new Int32Array(n).fill(-1);
  const low = new Int32Array(n);
  const next = new Int32Array(n);
  const done = new Uint8Array(n);
  const groups: number[][] = [];
  const path: number[] = [];
  const open: number[] = [];
  let clock = 0;
  const roots = from ?? Array.from({ length: n }, (_, i) => i);
  for (const root of roots) {
    if (order[root] >= 0) continue;
    path.push(root);
    while (path.length) {
      const v = path[path.length - 1];
      const p = by[v];
      if (order[v] < 0) {
        order[v] = low[v] = clock++;
        next[v] = p < 0 ? 0 : ptr[p];
        open.push(v);
      }
      let deeper = false;
      const end = p < 0 ? 0 : ptr[p + 1];
      while (next[v] < end) {
        const w = to[next[v]];
        if (order[w] < 0) {
          path.push(w);
          deeper = true;
          break;
        }
        if (!done[w] && low[w] < low[v]) low[v] = low[w];
        next[v]++;
      }
      if (deeper) continue;
      path.pop();
      if (low[v] === order[v]) {
        const group: number[] = [];
        for (let w = open.pop() as number; ; w = open.pop() as number) {
          done[w] = 1;
          group.push(w);
          if (w === v) break;
        }
        groups.push(group);
      }
    }
  }
  return groups;
}

function solveGroup(network: Network, own: Float64Array, cost: Float64Array, by: Int32Array, group: readonly number[]): void {
  const place = new Map(group.map((item, r) => [item, r]));
  const rows = group.map((item, r) => {
    const row = new Float64Array(group.length + 1);
    const p = by[item];
    const per = yieldOf(network, p, item);
    row[r] += 1;
    row[group.length] = own[p] / per;
    for (let k = network.uses.ptr[p]; k < network.uses.ptr[p + 1]; k++) {
      const q = network.uses.qty[k] / per;
      const c = place.get(network.uses.to[k]);
      if (c === undefined) row[group.length] += q * cost[network.uses.to[k]];
      else row[c] -= q;
    }
    return row;
  });
  const x = solve(rows);
  if (x) group.forEach((item, r) => { cost[item] = Math.max(0, x[r]); });
}

/** Solves a square linear system given as rows with the right side last (Gauss with partial pivoting); null: singular. */
export function solve(rows: Float64Array[]): Float64Array | null {
  const n = rows.length;
  for (let c = 0; c < n; c++) {
    let best = c;
    for (let r = c + 1; r < n; r++) if (Math.abs(rows[r][c]) > Math.abs(rows[best][c])) best = r;
    if (Math.abs(rows[best][c]) < 1e-14) return null;
    [rows[c], rows[best]] = [rows[best], rows[c]];
    const pivot = rows[c];
    for (let r = c + 1; r < n; r++) {
      const f = rows[r][c] / pivot[c];
      if (f !== 0) for (let k = c; k <= n; k++) rows[r][k] -= f * pivot[k];
    }
  }
  const x = new Float64Array(n);
  for (let r = n - 1; r >= 0; r--) {
    let t = rows[r][n];
    for (let k = r + 1; k < n; k++) t -= rows[r][k] * x[k];
    x[r] = t / rows[r][r];
  }
  return x;
}

/** A binary heap of items by their current cost; pushing an item again moves it up. */
class Heap {
  private readonly items: number[] = [];
  private readonly place: Int32Array;
  constructor(private readonly key: Float64Array) {
    this.place = new Int32Array(key.length).fill(-1);
  }
  push(item: number): void {
    if (this.place[item] < 0) {
      this.place[item] = this.items.length;
      this.items.push(item);
    }
    this.up(this.place[item]);
  }
  /** The cheapest item, −1 when empty. */
  pop(): number {
    const { items, place } = this;
    if (!items.length) return -1;
    const top = items[0];
    const last = items.pop() as number;
    place[top] = -1;
    if (items.length) {
      items[0] = last;
      place[last] = 0;
      this.down(0);
    }
    return top;
  }
  private up(at: number): void {
    const { items, place, key } = this;
    const item = items[at];
    while (at > 0) {
      const parent = (at - 1) >> 1;
      if (key[items[parent]] <= key[item]) break;
      items[at] = items[parent];
      place[items[at]] = at;
      at = parent;
    }
    items[at] = item;
    place[item] = at;
  }
  private down(at: number): void {
    const { items, place, key } = this;
    const item = items[at];
    for (let child = 2 * at + 1; child < items.length; child = 2 * at + 1) {
      if (child + 1 < items.length && key[items[child + 1]] < key[items[child]]) child++;
      if (key[items[child]] >= key[item]) break;
      items[at] = items[child];
      place[items[at]] = at;
      at = child;
    }
    items[at] = item;
    place[item] = at;
  }
}
