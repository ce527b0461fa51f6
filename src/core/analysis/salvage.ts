/** What taking an item apart gives back, against what the item cost. */
import type { Network } from "../network/network";
import { leastCost } from "./cost";

export interface SalvageReturn {
  readonly process: number;
  /** Value of what one run takes in, fee included; Infinity when it can't be had without salvage. */
  readonly cost: number;
  /** Expected value of what one run gives. */
  readonly back: number;
  /** Outputs that only salvage provides: they have no price of their own and count nothing. */
  readonly unpriced: readonly number[];
}

/**
 * Expected return of every salvage recipe. Everything is priced as if there were no salvage, so that a return is never
 * measured by itself. One least-cost run.
 */
export function salvageReturns(network: Network, own: Float64Array): SalvageReturn[] {
  const isSalvage = network.processes.map((p) => p.of === "recipe" && p.record.kind === "salvage");
  if (!isSalvage.includes(true)) return [];
  const { cost } = leastCost(network, own.map((c, p) => (isSalvage[p] ? Number.POSITIVE_INFINITY : c)));
  const { uses, makes } = network;
  return isSalvage.flatMap((salvage, process) => {
    if (!salvage) return [];
    let taken = network.money[process];
    for (let k = uses.ptr[process]; k < uses.ptr[process + 1]; k++) taken += uses.qty[k] * cost[uses.to[k]];
    let back = 0;
    const unpriced: number[] = [];
    for (let k = makes.ptr[process]; k < makes.ptr[process + 1]; k++) {
      if (Number.isFinite(cost[makes.to[k]])) back += makes.qty[k] * cost[makes.to[k]];
      else unpriced.push(makes.to[k]);
    }
    return [{ process, cost: taken, back, unpriced }];
  });
}
