/** What taking an item apart gives back, against what the item cost. */
import type { Readings } from "./readings";

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
 * Expected return of a salvage recipe. Everything is priced as if there were no salvage, so that a return is never
 * measured
 * by itself.
 */
export function salvageReturn({ network, bare }: Readings, process: number): SalvageReturn {
  const { ins, outs } = network;
  const { cost } = bare;
  let taken = network.money[process];
  for (let k = ins.start[process]; k < ins.end[process]; k++)
    if ((ins.qty as Float64Array)[k] > 0) taken += (ins.qty as Float64Array)[k] * cost[ins.to[k]];
  let back = 0;
  const unpriced: number[] = [];
  for (let k = outs.start[process]; k < outs.end[process]; k++) {
    if (Number.isFinite(cost[outs.to[k]])) back += (outs.qty as Float64Array)[k] * cost[outs.to[k]];
    else unpriced.push(outs.to[k]);
  }
  return { process, cost: taken, back, unpriced };
}
