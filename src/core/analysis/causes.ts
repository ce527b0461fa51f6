/** Why items can't be had: the few places whose repair would bring them within reach. */
import { before, type Compiled } from "../network/compile";
import type { Reach } from "./reach";

export interface Cause {
  /** Items nothing makes, or one item of each closed circle. */
  readonly leaves: readonly number[];
  /** The process that would work if the leaves could be had; −1: nothing makes the item. */
  readonly by: number;
  /** True where no smaller set would do: it was shown, not assumed. */
  readonly smallest: boolean;
}

/** Sets of leaves that are tried out per item when looking for a smaller one. */
const TRIES = 60;

/**
 * For each item out of reach a small set of leaf causes whose repair would unblock it. A leaf is an item that nothing makes,
 * or (circle) an item of a closed circle, which then counts as the place to break it.
 *
 * First a bound: process by process with the fewest causes counted as a sum (Knuth 1977), where a cause shared by two inputs
 * counts twice; from what that finds, whatever can be left out is. A set of one is the optimum; for larger ones every single
 * leaf behind the item is tried, and every pair where three or more were needed, as far as 60 tries go. Where they are
 * exhausted without success for all smaller sizes (sets of two and three) the set is the optimum; otherwise it is a bound:
 * the question is NP-hard (a hitting set).
 *
 * In proportion to the part of the network that is out of reach.
 */
export function causes(compiled: Compiled, reach: Reach, circles: readonly (readonly number[])[]): Map<number, Cause> {
  const { network } = compiled;
  const key = (i: number) => compiled.catalogue.item.get(compiled.items[i] as never)?.key ?? "";
  const byKey = (a: number, b: number) => (key(a) < key(b) ? -1 : 1);
  const { ins, outs, users, makers } = network;
  const lost: number[] = [];
  for (let i = 0; i < network.items; i++) if (!reach.items[i]) lost.push(i);
  const weight = new Map<number, number>();
  const by = new Map<number, number>();
  const missing = new Map<number, number>();
  const total = new Map<number, number>();
  const layers: number[][] = [[], []];
  const put = (item: number, w: number, process: number) => {
    const known = weight.get(item) ?? Number.POSITIVE_INFINITY;
    if (reach.items[item] || w > known) return;
    if (w === known) {
      const other = by.get(item) as number;
      if (process >= 0 && other >= 0 && before(compiled, process, other)) by.set(item, process);
      return;
    }
    by.set(item, process);
    weight.set(item, w);
    (layers[w] ??= []).push(item);
  };
  for (const i of lost) if (makers.start[i] === makers.end[i]) put(i, 1, -1);
  const settled = new Set<number>();
  const settle = () => {
    for (let w = 1; w < layers.length; w++) {
      for (const item of layers[w] ?? []) {
        if (settled.has(item) || weight.get(item) !== w) continue;
        settled.add(item);
        for (let k = users.start[item]; k < users.end[item]; k++) {
          const p = users.to[k];
          const sum = (total.get(p) ?? 0) + w;
          total.set(p, sum);
          const left = (missing.get(p) ?? reach.missing[p]) - 1;
          missing.set(p, left);
          if (left === 0) for (let m = outs.start[p]; m < outs.end[p]; m++) put(outs.to[m], sum, p);
        }
      }
      layers[w] = [];
    }
  };
  settle();
  const breaks = new Set<number>();
  for (const circle of circles) {
    if (circle.some((i) => settled.has(i))) continue;
    breaks.add(circle[0]);
    put(circle[0], 1, -1);
    settle();
  }
  const found = new Map<number, Cause>();
  for (const i of lost) {
    const leaves = new Set<number>();
    const seen = new Set([i]);
    for (const at of seen) {
      const p = by.get(at) ?? -1;
      if (p < 0) leaves.add(at);
      else for (let k = ins.start[p]; k < ins.end[p]; k++) if (!reach.items[ins.to[k]]) seen.add(ins.to[k]);
    }
    const { set, smallest } = smaller(i, [...leaves].sort(byKey));
    found.set(i, { leaves: set, by: by.get(i) ?? -1, smallest });
  }
  return found;

  /** Would the item be within reach if these were? */
  function unblocks(item: number, given: readonly number[]): boolean {
    const have = new Set(given);
    const left = new Map<number, number>();
    for (const at of have) {
      if (at === item) return true;
      for (let k = users.start[at]; k < users.end[at]; k++) {
        const p = users.to[k];
        const n = (left.get(p) ?? reach.missing[p]) - 1;
        left.set(p, n);
        if (n === 0) for (let m = outs.start[p]; m < outs.end[p]; m++) if (!reach.items[outs.to[m]]) have.add(outs.to[m]);
      }
    }
    return false;
  }

  function smaller(item: number, bound: readonly number[]): { set: readonly number[]; smallest: boolean } {
    let set = bound;
    for (let k = set.length - 1; set.length > 1 && k >= 0; k--) {
      const fewer = set.filter((_, j) => j !== k);
      if (unblocks(item, fewer)) set = fewer;
    }
    if (set.length <= 1) return { set, smallest: true };
    const behind = leavesBehind(item);
    let tries = 0;
    for (const leaf of behind) {
      if (tries++ >= TRIES) return { set, smallest: false };
      if (unblocks(item, [leaf])) return { set: [leaf], smallest: true };
    }
    if (set.length === 2) return { set, smallest: true };
    for (const [n, a] of behind.entries())
      for (const b of behind.slice(n + 1)) {
        if (tries++ >= TRIES) return { set, smallest: false };
        if (unblocks(item, [a, b])) return { set: [a, b], smallest: true };
      }
    return { set, smallest: set.length === 3 };
  }

  /** All leaves from which the item could be reached, as far as they are tried. */
  function leavesBehind(item: number): number[] {
    const leaves: number[] = [];
    const seen = new Set([item]);
    for (const at of seen) {
      if (at !== item && ((by.get(at) ?? -1) < 0 || breaks.has(at))) leaves.push(at);
      for (let k = makers.start[at]; k < makers.end[at]; k++) {
        const p = makers.to[k];
        for (let m = ins.start[p]; m < ins.end[p]; m++) if (!reach.items[ins.to[m]]) seen.add(ins.to[m]);
      }
      if (seen.size > 2000) break;
    }
    return leaves.sort(byKey);
  }
}
