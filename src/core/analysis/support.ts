/**
 * Exact answers over a support, a few columns: vertices of { x ≥ 0, Sx ≥ 0, sum x ≤ 1 }, and the smallest part of a
 * support that still does what it did.
 */
import {
  add,
  divide,
  effort,
  type Fraction,
  multiply,
  negate,
  ONE,
  sign,
  subtract,
  toNumber,
  ZERO,
} from "../numbers/fraction";
import type { Budget } from "../budget/budget";
import { approximate, EXACT, maximise } from "./simplex";

/** A process with its exact net yield per item. */
export interface Column {
  readonly process: number;
  readonly net: ReadonlyMap<number, Fraction>;
}

/** Columns that a programme in fractions may have. */
export const MOST_EXACT = 16;

/** Rows of the exact system over a support: item → coefficients. */
export function rowsOf(support: readonly Column[]): Map<number, Fraction[]> {
  const rows = new Map<number, Fraction[]>();
  support.forEach(({ net }, k) => {
    for (const [item, q] of net) {
      let row = rows.get(item);
      if (!row) {
        row = support.map(() => ZERO);
        rows.set(item, row);
      }
      row[k] = q;
    }
  });
  return rows;
}

type SupportGoal = (k: number, rows: ReadonlyMap<number, Fraction[]>) => Fraction;

/**
 * A point of { x ≥ 0, Sx ≥ 0, sum x ≤ 1 } where the goal is above zero, exactly; null when there is none. Above 16
 * columns
 * the basis is one that floats choose, and a "none" is theirs.
 */
export function exactly(support: readonly Column[], goal: SupportGoal, steps?: Budget): Fraction[] | null {
  const rows = rowsOf(support);
  const table = [...rows.values()];
  const goals = support.map((_, k) => goal(k, rows));
  if (support.length <= MOST_EXACT) {
    const best = maximise(
      EXACT,
      [...table.map((row) => row.map(negate)), support.map(() => ONE)],
      [...table.map(() => ZERO), ONE],
      goals,
      { steps },
    );
    return best && sign(best.value) > 0 ? best.x : null;
  }
  const near = table.map((row) => row.map((v) => -toNumber(v)));
  for (const row of near) {
    const most = Math.max(...row.map(Math.abs));
    for (let k = 0; k < row.length; k++) row[k] /= most;
  }
  const guess = approximate(near, goals.map(toNumber), steps);
  if (!guess || guess.last <= 1e-9) return null;
  const x = vertex(support.length, [...table, null], guess.basis, (k, row) => (row === null ? ONE : row[k]), steps);
  if (!x || x.some((v) => sign(v) < 0) || table.some((row) => sign(sum(row.map((v, k) => multiply(v, x[k])))) < 0))
    return null;
  return sign(sum(goals.map((g, k) => multiply(g, x[k])))) > 0 ? x : null;
}

export const sum = (terms: readonly Fraction[]): Fraction => terms.reduce(add, ZERO);

/** The exact solution that a basis stands for: the last row sums to 1, every other row without slack to 0. */
export function vertex<R>(
  n: number,
  rows: readonly R[],
  basis: readonly number[],
  entry: (k: number, row: R) => Fraction,
  steps?: Budget,
): Fraction[] | null {
  const { inside, tight } = split(n, rows, basis);
  const solved = solveExactly(
    tight.map((row) => [...inside.map((k) => entry(k, row)), row === rows[rows.length - 1] ? ONE : ZERO]),
    steps,
  );
  if (!solved) return null;
  const x = new Array<Fraction>(n).fill(ZERO);
  inside.forEach((k, i) => {
    x[k] = solved[i];
  });
  return x;
}

/** The columns in a basis, and the rows whose slack is not. */
export function split<R>(n: number, rows: readonly R[], basis: readonly number[]): { inside: number[]; tight: R[] } {
  const loose = new Set(basis);
  return {
    inside: Array.from({ length: n }, (_, k) => k).filter((k) => loose.has(k)),
    tight: rows.filter((_, r) => !loose.has(n + r)),
  };
}

/** What a unit of column k leaves over all items: above zero over a support that loses nothing, it gains. */
export const totalNet: SupportGoal = (k, rows) => [...rows.values()].reduce((t, row) => add(t, row[k]), ZERO);

/**
 * The smallest part of a support that still reaches above zero, by leaving out one process after the other; null: it
 * never did.
 */
export function shrink(
  support: readonly Column[],
  goal: SupportGoal,
  { must, steps }: { readonly must?: Column; readonly steps?: Budget } = {},
): Column[] | null {
  const index = new Map(support.map((c, k) => [c.process, k]));
  const reach = (part: readonly Column[]): Fraction[] | null =>
    part.length
      ? exactly(part, (k, rows) => goal(must ? (index.get(part[k].process) as number) : k, rows), steps)
      : null;
  let x = reach(support);
  if (!x) return null;
  let kept = support.filter((_, k) => sign((x as Fraction[])[k]) > 0);
  for (let k = kept.length - 1; k >= 0; k--) {
    if (kept[k].process === must?.process) continue;
    x = reach(kept.filter((_, j) => j !== k));
    if (!x) continue;
    const [chosen, fewer] = [x, kept.filter((_, j) => j !== k)];
    kept = fewer.filter((_, j) => sign(chosen[j]) > 0);
    k = kept.length;
  }
  return kept;
}

/** Solves a system given as rows with the right side last; null where it has no single solution. */
export function solveExactly(rows: Fraction[][], steps?: Budget): Fraction[] | null {
  const n = rows.length;
  if (rows.some((row) => row.length !== n + 1)) return null;
  const left = rows.map((row) => [...row]);
  for (let c = 0; c < n; c++) {
    const r = left.findIndex((row, k) => k >= c && sign(row[c]) !== 0);
    if (r < 0) return null;
    [left[c], left[r]] = [left[r], left[c]];
    const pivot = left[c];
    const each = steps ? effort(pivot[c]) : 0;
    const filled = pivot.reduce((n, v) => (sign(v) === 0 ? n : n + 1), 0);
    for (let k = 0; k < n; k++) {
      if (k === c || sign(left[k][c]) === 0) continue;
      steps?.take(each * filled);
      const factor = divide(left[k][c], pivot[c]);
      for (let j = c; j <= n; j++)
        if (sign(pivot[j]) !== 0) left[k][j] = subtract(left[k][j], multiply(factor, pivot[j]));
    }
  }
  return left.map((row, c) => divide(row[n], row[c]));
}
