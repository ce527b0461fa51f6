/** How much of every base material, fee and time goes into one unit along the cheapest way. */
import type { Network } from "../network/network";
import { type LeastCost, policyOrder, solve, yieldOf } from "./cost";

export interface Breakdown {
  /** Units of each item whose cheapest way is a source, with what they contribute to the cost. */
  readonly base: readonly { readonly item: number; readonly process: number; readonly quantity: number; readonly cost: number }[];
  /** Runs of each recipe and what the runs themselves add: fees and the worth of time (or the time). */
  readonly work: readonly { readonly process: number; readonly runs: number; readonly cost: number }[];
  /** Longest chain of recipes from a source to the item. */
  readonly steps: number;
}

/**
 * Demand is followed from the item through the chosen processes; a circle is solved as a linear system. The parts add up to
 * the item's least cost (but for the rounding of the sum).
 * @returns null for an item that can't be had
 */
export function breakdown(network: Network, own: Float64Array, least: LeastCost, item: number): Breakdown | null {
  if (least.by[item] < 0) return null;
  const { uses } = network;
  const groups = policyOrder(network, least.by, [item]).reverse();
  const demand = new Map<number, number>([[item, 1]]);
  for (const group of groups) {
    if (group.length > 1) spread(network, least, group, demand);
    for (const i of group) {
      const runs = (demand.get(i) ?? 0) / yieldOf(network, least.by[i], i);
      for (let k = uses.ptr[least.by[i]]; k < uses.ptr[least.by[i] + 1]; k++) {
        const w = uses.to[k];
        if (!group.includes(w)) demand.set(w, (demand.get(w) ?? 0) + runs * uses.qty[k]);
      }
    }
  }
  const base: { item: number; process: number; quantity: number; cost: number }[] = [];
  const work = new Map<number, { process: number; runs: number; cost: number }>();
  for (const [i, quantity] of demand) {
    const p = least.by[i];
    const runs = quantity / yieldOf(network, p, i);
    if (network.processes[p].of === "source") base.push({ item: i, process: p, quantity, cost: runs * own[p] });
    else {
      const row = work.get(p) ?? { process: p, runs: 0, cost: 0 };
      work.set(p, { process: p, runs: row.runs + runs, cost: row.cost + runs * own[p] });
    }
  }
  const costly = <T extends { cost: number }>(rows: T[]) => rows.sort((a, b) => b.cost - a.cost);
  return { base: costly(base), work: costly([...work.values()]), steps: stepsTo(network, least, item) };
}

/** Turns the demand that enters a circle into the demand within it. */
function spread(network: Network, least: LeastCost, group: readonly number[], demand: Map<number, number>): void {
  const place = new Map(group.map((i, r) => [i, r]));
  const rows = group.map((i, r) => {
    const row = new Float64Array(group.length + 1);
    row[r] = 1;
    row[group.length] = demand.get(i) ?? 0;
    return row;
  });
  for (const [i, r] of place) {
    const p = least.by[i];
    const per = yieldOf(network, p, i);
    for (let k = network.uses.ptr[p]; k < network.uses.ptr[p + 1]; k++) {
      const c = place.get(network.uses.to[k]);
      if (c !== undefined) rows[c][r] -= network.uses.qty[k] / per;
    }
  }
  const x = solve(rows);
  if (x) for (const [i, r] of place) demand.set(i, x[r]);
}

const stepsTo = (network: Network, least: LeastCost, item: number): number => depths(network, least, [item]).steps[item];

/** Per item the longest chain of recipes behind it (sources count 0), for the given roots or all. */
export function depths(network: Network, least: LeastCost, roots?: readonly number[]): { steps: Int32Array } {
  const steps = new Int32Array(network.items.length);
  const { ptr, to } = network.uses;
  for (const group of policyOrder(network, least.by, roots)) {
    let most = 0;
    let recipe = false;
    for (const i of group) {
      const p = least.by[i];
      if (p < 0 || network.processes[p].of === "source") continue;
      recipe = true;
      for (let k = ptr[p]; k < ptr[p + 1]; k++) most = Math.max(most, steps[to[k]]);
    }
    for (const i of group) steps[i] = recipe ? most + group.length : 0;
  }
  return { steps };
}

/** Number of distinct base materials behind every item. One walk per item over its own chain. */
export function baseCounts(network: Network, least: LeastCost): Int32Array {
  const counts = new Int32Array(network.items.length);
  const stamp = new Int32Array(network.items.length).fill(-1);
  const { ptr, to } = network.uses;
  const open: number[] = [];
  for (let root = 0; root < counts.length; root++) {
    if (least.by[root] < 0) continue;
    open.push(root);
    stamp[root] = root;
    for (let i = open.pop(); i !== undefined; i = open.pop()) {
      const p = least.by[i];
      if (network.processes[p].of === "source") counts[root]++;
      else
        for (let k = ptr[p]; k < ptr[p + 1]; k++)
          if (stamp[to[k]] !== root) {
            stamp[to[k]] = root;
            open.push(to[k]);
          }
    }
  }
  return counts;
}
