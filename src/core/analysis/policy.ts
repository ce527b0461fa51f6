/** One chosen process per item: the order in which what it uses comes first, and the circles in it. */
import type { Network } from "../network/network";

/**
 * Items grouped so that whatever an item's chosen process uses up comes before it; circles form one group (Tarjan
 * 1972).
 */
export function policyOrder(network: Network, by: (item: number) => number, from: readonly number[]): number[][] {
  const { start, end, to } = network.ins;
  const qty = network.ins.qty as Float64Array;
  const order = new Map<number, number>();
  const low = new Map<number, number>();
  const next = new Map<number, number>();
  const done = new Set<number>();
  const groups: number[][] = [];
  const path: number[] = [];
  const open: number[] = [];
  for (const root of from) {
    if (order.has(root)) continue;
    path.push(root);
    while (path.length) {
      const v = path[path.length - 1];
      const p = by(v);
      if (!order.has(v)) {
        low.set(v, order.size);
        order.set(v, order.size);
        next.set(v, p < 0 ? 0 : start[p]);
        open.push(v);
      }
      let deeper = false;
      let k = next.get(v) as number;
      for (const stop = p < 0 ? 0 : end[p]; k < stop; k++) {
        if (qty[k] === 0) continue;
        const w = to[k];
        if (!order.has(w)) {
          path.push(w);
          deeper = true;
          break;
        }
        if (!done.has(w) && (low.get(w) as number) < (low.get(v) as number)) low.set(v, low.get(w) as number);
      }
      next.set(v, k);
      if (deeper) continue;
      path.pop();
      if (low.get(v) !== order.get(v)) continue;
      const group: number[] = [];
      for (let w = open.pop() as number; ; w = open.pop() as number) {
        done.add(w);
        group.push(w);
        if (w === v) break;
      }
      groups.push(group);
    }
  }
  return groups;
}

/**
 * Solves a square linear system given as rows with one or more right sides last (Gauss with partial pivoting).
 * @returns a solution per right side; null: singular
 */
export function solve(rows: Float64Array[], sides = 1): Float64Array[] | null {
  const n = rows.length;
  const width = n + sides;
  for (let c = 0; c < n; c++) {
    let best = c;
    for (let r = c + 1; r < n; r++) if (Math.abs(rows[r][c]) > Math.abs(rows[best][c])) best = r;
    if (Math.abs(rows[best][c]) < 1e-14) return null;
    [rows[c], rows[best]] = [rows[best], rows[c]];
    const pivot = rows[c];
    for (let r = c + 1; r < n; r++) {
      const f = rows[r][c] / pivot[c];
      if (f !== 0) for (let k = c; k < width; k++) rows[r][k] -= f * pivot[k];
    }
  }
  return Array.from({ length: sides }, (_, side) => {
    const x = new Float64Array(n);
    for (let r = n - 1; r >= 0; r--) {
      let t = rows[r][n + side];
      for (let k = r + 1; k < n; k++) t -= rows[r][k] * x[k];
      x[r] = t / rows[r][r];
    }
    return x;
  });
}
