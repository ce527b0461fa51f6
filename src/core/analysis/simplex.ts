/** Maximise c·x subject to A x ≤ b, x ≥ 0 with b ≥ 0: a dense tableau over any ordered field. */
import { divide, effort, type Fraction, multiply, ONE, sign, subtract, ZERO } from "../numbers/fraction";
import type { Budget } from "../budget/budget";

export interface Field<T> {
  readonly zero: T;
  readonly one: T;
  sub(a: T, b: T): T;
  mul(a: T, b: T): T;
  div(a: T, b: T): T;
  /** Budget that one operation with it counts as. */
  effort(a: T): number;
  /** Sign of a, where the field's own idea of "as good as zero" is 0. */
  sign(a: T): number;
}

export const EXACT: Field<Fraction> = { effort, zero: ZERO, one: ONE, sub: subtract, mul: multiply, div: divide, sign };

export interface Optimum<T> {
  readonly value: T;
  readonly x: T[];
  /** One price per row: how much a unit more of its right side would add. */
  readonly duals: T[];
}

/**
 * Bland's rule never cycles, also where many right sides are 0, as they are here. Exact in fractions; meant for few
 * columns.
 * @returns null when the optimum is unbounded or the pivots run past `limit`
 */
export function maximise<T>(
  f: Field<T>,
  a: readonly (readonly T[])[],
  b: readonly T[],
  c: readonly T[],
  { limit = 20_000, steps }: { readonly limit?: number; readonly steps?: Budget } = {},
): Optimum<T> | null {
  const m = a.length;
  const n = c.length;
  const width = n + m + 1;
  const table = a.map((row, r) => [...row, ...Array.from({ length: m }, (_, k) => (k === r ? f.one : f.zero)), b[r]]);
  const goal: T[] = [...c, ...Array.from({ length: m + 1 }, () => f.zero)];
  const basis = Array.from({ length: m }, (_, r) => n + r);
  for (let pivots = 0; ; pivots++) {
    if (pivots > limit) return null;
    let enter = -1;
    for (let k = 0; k < width - 1 && enter < 0; k++) if (f.sign(goal[k]) > 0) enter = k;
    if (enter < 0) break;
    let leave = -1;
    let ratio = f.zero;
    for (let r = 0; r < m; r++) {
      if (f.sign(table[r][enter]) <= 0) continue;
      const t = f.div(table[r][width - 1], table[r][enter]);
      const order = leave < 0 ? -1 : f.sign(f.sub(t, ratio));
      if (order < 0 || (order === 0 && basis[r] < basis[leave])) {
        leave = r;
        ratio = t;
      }
    }
    if (leave < 0) return null;
    const row = table[leave];
    const pivot = row[enter];
    const each = steps ? f.effort(pivot) * row.reduce((n, v) => (v === f.zero ? n : n + 1), 0) : 0;
    for (let k = 0; k < width; k++) if (row[k] !== f.zero) row[k] = f.div(row[k], pivot);
    for (const other of [...table, goal]) {
      const factor = other[enter];
      if (other === row || f.sign(factor) === 0) continue;
      steps?.take(each);
      for (let k = 0; k < width; k++) if (row[k] !== f.zero) other[k] = f.sub(other[k], f.mul(factor, row[k]));
      other[enter] = f.zero;
    }
    basis[leave] = enter;
  }
  const x = Array.from({ length: n }, () => f.zero);
  basis.forEach((k, r) => {
    if (k < n) x[k] = table[r][width - 1];
  });
  return { value: f.sub(f.zero, goal[width - 1]), x, duals: goal.slice(n, n + m).map((d) => f.sub(f.zero, d)) };
}

export interface Guess {
  readonly x: number[];
  readonly duals: number[];
  /** Variables of the final basis: below n those asked for, from n on the slack of a row, the last row's included. */
  readonly basis: number[];
  /** Dual of the last row. */
  readonly last: number;
}

/**
 * The same in floats, for systems A x ≤ 0 with one last row Σ x ≤ 1, whose zeros make nearly every pivot degenerate:
 * right
 * sides are lifted by amounts too small to matter, all different, and among pivots nearly as good the largest is taken
 * (Harris 1973). An answer is a guess to be verified. @returns null when it does not settle
 */
export function approximate(a: readonly (readonly number[])[], c: readonly number[], steps?: Budget): Guess | null {
  const n = c.length;
  const m = a.length + 1;
  const width = n + m + 1;
  const table = Array.from({ length: m }, (_, r) => {
    const row = new Float64Array(width);
    for (let k = 0; k < n; k++) row[k] = r < a.length ? a[r][k] : 1;
    row[n + r] = 1;
    row[width - 1] = r < a.length ? 1e-8 * (1 + ((r * 0.6180339887498949) % 1)) : 1;
    return row;
  });
  const goal = new Float64Array(width);
  goal.set(c);
  const basis = Array.from({ length: m }, (_, r) => n + r);
  for (let pivots = 0; pivots < 20 * (n + m); pivots++) {
    let enter = -1;
    for (let k = 0, most = 1e-9; k < width - 1; k++) if (goal[k] > most) [enter, most] = [k, goal[k]];
    if (enter < 0) {
      const x = new Array<number>(n).fill(0);
      basis.forEach((k, r) => {
        if (k < n) x[k] = table[r][width - 1];
      });
      return {
        x,
        duals: Array.from({ length: m - 1 }, (_, r) => Math.max(0, -goal[n + r])),
        basis,
        last: Math.max(0, -goal[n + m - 1]),
      };
    }
    let least = Number.POSITIVE_INFINITY;
    for (const row of table)
      if (row[enter] > 1e-9) least = Math.min(least, (Math.max(0, row[width - 1]) + 1e-11) / row[enter]);
    let leave = -1;
    for (let r = 0; r < m; r++)
      if (
        table[r][enter] > 1e-9 &&
        Math.max(0, table[r][width - 1]) / table[r][enter] <= least &&
        (leave < 0 || table[r][enter] > table[leave][enter])
      )
        leave = r;
    if (leave < 0) return null;
    const row = table[leave];
    const pivot = row[enter];
    steps?.take(m + width);
    for (let k = 0; k < width; k++) row[k] /= pivot;
    for (const other of [...table, goal]) {
      const factor = other[enter];
      if (other === row || factor === 0) continue;
      steps?.take(width);
      for (let k = 0; k < width; k++) other[k] -= factor * row[k];
      other[enter] = 0;
    }
    basis[leave] = enter;
  }
  return null;
}
