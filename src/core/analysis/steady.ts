/**
 * What one more of an item costs in a steady state in which everything that comes back is used again: the least c·x over
 * runs x ≥ 0 that give one more of it and of nothing less (a linear programme). What no one uses is worth nothing.
 */
import { Budget, TooMany } from "../budget/budget";
import type { Measure } from "./cost";
import type { Readings } from "./readings";
import { type Field, maximise } from "./simplex";

/** Most processes of one programme, and its steps; beyond them costs stay as they are without reuse. */
const MOST_COLUMNS = 400;
const STEPS = 4e8;
const TINY = 1e-11;

const FLOAT: Field<number> = {
  zero: 0,
  one: 1,
  sub: (a, b) => a - b,
  mul: (a, b) => a * b,
  div: (a, b) => a / b,
  effort: () => 1,
  sign: (a) => (a > TINY ? 1 : a < -TINY ? -1 : 0),
};

export interface SteadyCost {
  /** Of one more. */
  readonly cost: number;
  /** Runs of each process for it that takes part in reuse; of no process where nothing is used again. */
  readonly runs: ReadonlyMap<number, number>;
}

/**
 * @returns null where the item can't be had, or where too much takes part in it
 * @throws never
 */
export function steadyCost(readings: Readings, measure: Measure, item: number): SteadyCost | null {
  const plain = readings[measure];
  if (!Number.isFinite(plain.cost[item])) return null;
  const columns = behind(readings, item);
  if (!columns) return null;
  const inside = withReuse(readings, columns, item);
  if (!inside.has(item)) return { cost: plain.cost[item], runs: new Map() };
  const { ins, outs } = readings.network;
  const rows = [...inside];
  const placeOf = new Map(rows.map((i, k) => [i, k]));
  const isGiven = (p: number, k: number) => placeOf.has(outs.to[k]) && !plain.shuts(p, outs.to[k]);
  const processes = columns.filter((p) => {
    for (let k = outs.start[p]; k < outs.end[p]; k++) if (isGiven(p, k)) return true;
    return false;
  });
  // Before anything is made for them: a row for each of ten thousand would take gigabytes.
  if (processes.length > MOST_COLUMNS) return null;
  const programme: number[][] = [];
  const prices: number[] = [];
  for (const p of processes) {
    const row = new Array<number>(rows.length).fill(0);
    let price = plain.own(p);
    for (let k = outs.start[p]; k < outs.end[p]; k++)
      if (isGiven(p, k)) row[placeOf.get(outs.to[k]) as number] += (outs.qty as Float64Array)[k];
    for (let k = ins.start[p]; k < ins.end[p]; k++) {
      const amount = (ins.qty as Float64Array)[k];
      const at = placeOf.get(ins.to[k]);
      if (at !== undefined) row[at] -= amount;
      else if (amount > 0) price += amount * plain.cost[ins.to[k]];
    }
    programme.push(row);
    prices.push(price);
  }
  // The dual: prices under which no process gains, and the item's own as high as it goes.
  const goal = rows.map((i) => Number(i === item));
  try {
    const found = maximise(FLOAT, programme, prices, goal, { limit: 5_000, steps: new Budget(STEPS) });
    if (!found) return null;
    const runs = new Map(found.duals.flatMap((n, k) => (n > 1e-9 ? [[processes[k], n] as const] : [])));
    // What differs by rounding only is the same.
    const cost = found.value < plain.cost[item] * (1 - 1e-9) ? Math.max(0, found.value) : plain.cost[item];
    return { cost, runs };
  } catch (thrown) {
    if (thrown instanceof TooMany) return null;
    throw thrown;
  }
}

/** Every process that can take part in having an item; null: too many. */
function behind({ network, reach, value }: Readings, item: number): number[] | null {
  const { ins, producers } = network;
  const seen = new Set([item]);
  const found = new Set<number>();
  for (const i of seen)
    for (let k = producers.start[i]; k < producers.end[i]; k++) {
      const p = producers.to[k];
      if (found.has(p) || !value.counts(p) || !reach.fires(p) || value.shuts(p, i)) continue;
      if (found.size === MOST_FOUND) return null;
      found.add(p);
      for (let m = ins.start[p]; m < ins.end[p]; m++) if ((ins.qty as Float64Array)[m] > 0) seen.add(ins.to[m]);
    }
  return [...found];
}
/** Processes that are looked through for reuse; most of them stay outside the programme. */
const MOST_FOUND = 20_000;

/**
 * Items whose cost reuse can change: what comes beside something else that is needed, and all that is made of it. The
 * others cost what they cost without. Empty where too many processes give them.
 */
function withReuse({ network }: Readings, columns: readonly number[], item: number): Set<number> {
  const { ins, outs } = network;
  const needed = new Set([item]);
  for (const p of columns)
    for (let k = ins.start[p]; k < ins.end[p]; k++) if ((ins.qty as Float64Array)[k] > 0) needed.add(ins.to[k]);
  const users = new Map<number, number[]>();
  const inside = new Set<number>();
  for (const p of columns) {
    const gives: number[] = [];
    for (let k = outs.start[p]; k < outs.end[p]; k++) if (needed.has(outs.to[k])) gives.push(outs.to[k]);
    if (gives.length > 1) for (const i of gives) inside.add(i);
    for (let k = ins.start[p]; k < ins.end[p]; k++) {
      if (!((ins.qty as Float64Array)[k] > 0)) continue;
      const there = users.get(ins.to[k]);
      if (there) there.push(p);
      else users.set(ins.to[k], [p]);
    }
  }
  for (const i of inside)
    for (const p of users.get(i) ?? [])
      for (let k = outs.start[p]; k < outs.end[p]; k++) if (needed.has(outs.to[k])) inside.add(outs.to[k]);
  return inside;
}
