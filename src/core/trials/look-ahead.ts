/**
 * The first tick at which a formula over a character comes to zero, or to something else, while nothing happens.
 *
 * Between events resources move in one direction, so that a name stands between its values at both ends of a stretch of
 * time. Interval arithmetic (Moore 1966) says of most stretches that nothing is to be found in them; others are halved.
 */
import type { Budget } from "../budget/budget";
import { interval, type Interval } from "../formulas/ranges";
import type { Formula } from "../formulas/formula";

/** A formula that can be asked at any tick up to the next event. */
export interface Timed {
  readonly tree: Formula | null;
  /** The value of a name at a tick. */
  nameAt(name: string, tick: number): number;
  /** The value of the formula at a tick; 0 where it is no number. */
  valueAt(tick: number): number;
}

/** Steps of one look at a formula, and of the range of one. */
const LOOK = 5;
const RANGE = 20;

/**
 * @param zero  true: the first tick at which it comes to 0; false: at which it does not
 * @returns -1 where there is none from `from` up to `to`
 * @throws TooMany where the budget is used up
 */
export function firstTick(of: Timed, zero: boolean, from: number, to: number, budget: Budget): number {
  let length = to - from + 1;
  for (let low = from; low <= to; ) {
    length = Math.min(length, to - low + 1);
    if (length > 1) {
      budget.take(RANGE);
      if (mayBe(of, zero, low, low + length - 1)) length = Math.floor(length / 2);
      else {
        low += length;
        length *= 2;
      }
      continue;
    }
    budget.take(LOOK);
    if ((of.valueAt(low) === 0) === zero) return low;
    low++;
    length = 2;
  }
  return -1;
}

function mayBe(of: Timed, zero: boolean, from: number, to: number): boolean {
  if (!of.tree) return true;
  const known = new Map<string, Interval>();
  const { low, high } = interval(of.tree, (name) => {
    let span = known.get(name);
    if (!span) {
      const [a, b] = [of.nameAt(name, from), of.nameAt(name, to)];
      span = { low: Math.min(a, b), high: Math.max(a, b) };
      known.set(name, span);
    }
    return span;
  });
  // What is no number counts as 0.
  if (!Number.isFinite(low) || !Number.isFinite(high)) return true;
  return zero ? low <= 0 && high >= 0 : low !== 0 || high !== 0;
}
