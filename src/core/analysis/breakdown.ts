/** How much of every base material, fee and time goes into one unit along the cheapest way. */
import { SOURCE } from "../network/network";
import type { LeastCost } from "./cost";
import { policyOrder, solve } from "./policy";

export interface Breakdown {
  /** Units of each item whose cheapest way is a source, with what they contribute to the cost. */
  readonly base: readonly {
    readonly item: number;
    readonly process: number;
    readonly quantity: number;
    readonly cost: number;
  }[];
  /** Runs of each recipe and what the runs themselves add: fees and the worth of time (or the time). */
  readonly work: readonly { readonly process: number; readonly runs: number; readonly cost: number }[];
  /** Units of every item on the way, the item itself among them. */
  readonly demand: ReadonlyMap<number, number>;
  /** Where the cheapest way goes round through the item itself. */
  readonly circular: boolean;
}

/**
 * Demand is followed from the item through the chosen processes; a circle is solved as a linear system. The parts add
 * up to
 * the item's least cost (but for the rounding of the sum).
 * @param by  the process chosen for each item
 * @returns null for an item that can't be had
 */
export function breakdown(least: LeastCost, by: (item: number) => number, item: number): Breakdown | null {
  if (by(item) < 0) return null;
  const { network } = least;
  const { ins, flags } = network;
  const qty = ins.qty as Float64Array;
  const groups = policyOrder(network, by, [item]).reverse();
  const demand = new Map<number, number>([[item, 1]]);
  let circular = false;
  for (const group of groups) {
    const round = group.length > 1 || usesItself(group[0]);
    if (round) spread(group);
    if (round && group.includes(item)) circular = true;
    const own = new Set(group);
    for (const i of group) {
      const p = by(i);
      const runs = (demand.get(i) ?? 0) / network.yieldOf(p, i);
      for (let k = ins.start[p]; k < ins.end[p]; k++)
        if (qty[k] > 0 && !own.has(ins.to[k])) demand.set(ins.to[k], (demand.get(ins.to[k]) ?? 0) + runs * qty[k]);
    }
  }
  const base: { item: number; process: number; quantity: number; cost: number }[] = [];
  const work = new Map<number, { process: number; runs: number; cost: number }>();
  for (const [i, quantity] of demand) {
    const p = by(i);
    const runs = quantity / network.yieldOf(p, i);
    if (flags[p] & SOURCE) base.push({ item: i, process: p, quantity, cost: runs * least.own(p) });
    else {
      const row = work.get(p) ?? { process: p, runs: 0, cost: 0 };
      work.set(p, { process: p, runs: row.runs + runs, cost: row.cost + runs * least.own(p) });
    }
  }
  const costly = <T extends { cost: number }>(rows: T[]) => rows.sort((a, b) => b.cost - a.cost);
  return { base: costly(base), work: costly([...work.values()]), demand, circular };

  function usesItself(i: number): boolean {
    const p = by(i);
    for (let k = ins.start[p]; k < ins.end[p]; k++) if (ins.to[k] === i && qty[k] > 0) return true;
    return false;
  }

  /** Turns the demand that enters a circle into the demand within it. */
  function spread(group: readonly number[]): void {
    const place = new Map(group.map((i, r) => [i, r]));
    const rows = group.map((i, r) => {
      const row = new Float64Array(group.length + 1);
      row[r] = 1;
      row[group.length] = demand.get(i) ?? 0;
      return row;
    });
    for (const [i, r] of place) {
      const p = by(i);
      const per = network.yieldOf(p, i);
      for (let k = ins.start[p]; k < ins.end[p]; k++) {
        const c = qty[k] > 0 ? place.get(ins.to[k]) : undefined;
        if (c !== undefined) rows[c][r] -= qty[k] / per;
      }
    }
    const x = solve(rows)?.[0];
    if (x) for (const [i, r] of place) demand.set(i, x[r]);
  }
}
