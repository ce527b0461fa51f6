/** What is out of reach and why: circles with no way in, and the few places whose repair would bring an item back. */
import { before, type Compiled } from "../network/compile";
import { Heap } from "../numbers/heap";
import { type Loop, stuckLoops } from "./loops";
import type { Reach } from "../network/reach";

export interface Cause {
  /** Items nothing makes, or an item of each closed circle. */
  readonly leaves: readonly number[];
  /** The process that would work if the leaves could be had; −1: nothing makes the item. */
  readonly by: number;
  /** True where no smaller set would do: it was shown, not assumed. */
  readonly smallest: boolean;
}

/** Links that are gone through per item when a smaller set is looked for, by how many items are out of reach. */
const STEPS = [
  { upTo: 1_000, steps: 20_000 },
  { upTo: 5_000, steps: 3_000 },
  { upTo: 30_000, steps: 1_000 },
  { upTo: Number.POSITIVE_INFINITY, steps: 300 },
] as const;
/**
 * How much more a derivation weighs for each recipe in it, so that of equal sets the shorter way counts and none goes
 * round.
 */
const STEP = 1 + 2 ** -20;

/**
 * For each item out of reach a small set of leaf causes whose repair would unblock it. A leaf is an item that nothing
 * makes,
 * or an item of a closed circle, which then counts as the place to break it.
 *
 * First a bound: process by process with the fewest causes counted as a sum (Knuth 1977), where a cause shared by two
 * inputs
 * counts twice; from what that finds, whatever can be left out is. A set of one is the optimum; for larger ones every
 * single
 * leaf behind the item is tried, and every pair where three or more were needed, as far as a budget goes. Where all
 * smaller
 * sizes were tried without success (sets of two and three) the set is the optimum; otherwise it is a bound: the
 * question is
 * NP-hard (a hitting set).
 *
 * In proportion to the part of the network that is out of reach; after a change, to what lies downstream of it there.
 */
export class Causes {
  readonly of = new Map<number, Cause>();
  /** Circles with no way in, smallest first. */
  stuck: readonly Loop[] = [];
  private readonly weight = new Map<number, number>();
  private readonly by = new Map<number, number>();
  /** Leaves at the end of the lightest way. */
  private readonly bound = new Map<number, readonly number[]>();
  private readonly breaks = new Set<number>();
  private steps: number = STEPS[0].steps;

  constructor(
    private readonly compiled: Compiled,
    private readonly reach: Reach,
  ) {
    this.rederive(this.all());
  }

  /** Few items that would open all circles with no way in. */
  get opening(): number[] {
    return this.stuck.flatMap((l) => l.opening);
  }

  private *all(): Generator<number> {
    for (let i = 0; i < this.compiled.network.items; i++) if (this.lost(i)) yield i;
  }
  private lost(i: number): boolean {
    return !this.reach.items[i] && this.compiled.nodeOf(i) !== null;
  }
  private key(i: number): string {
    return this.compiled.keyOf(i);
  }
  private byKey = (a: number, b: number): number => (this.key(a) < this.key(b) ? -1 : 1);

  /** Looks at everything again: keys of items moved, by which leaves are ordered. */
  again(): Set<number> {
    return this.rederive([...this.all(), ...this.of.keys()]);
  }

  /**
   * @param doubtful  items that came within reach or went out of it, and all that processes which changed make or made
   * @returns items whose cause was looked for again, or who have none any more
   */
  rederive(doubtful: Iterable<number>): Set<number> {
    const { consumers, outs, items } = this.compiled.network;
    const near = new Set<number>(doubtful);
    for (const i of near) {
      if (i >= items) continue;
      for (let k = consumers.start[i]; k < consumers.end[i]; k++) {
        const p = consumers.to[k];
        for (let m = outs.start[p]; m < outs.end[p]; m++) if (this.lost(outs.to[m])) near.add(outs.to[m]);
      }
    }
    const lost: number[] = [];
    for (const i of near) {
      const known = this.of.delete(i);
      for (const map of [this.weight, this.by, this.bound]) map.delete(i);
      this.breaks.delete(i);
      if (this.lost(i)) lost.push(i);
      else if (!known) near.delete(i);
    }
    if (!near.size) return near;
    const circles = stuckLoops(this.compiled, lost);
    for (const { breaks } of circles) for (const i of breaks) this.breaks.add(i);
    const gone = (l: Loop) => l.items.some((i) => near.has(i));
    this.stuck = [...this.stuck.filter((l) => !gone(l)), ...circles].sort(
      (a, b) => a.items.length - b.items.length || this.byKey(a.items[0], b.items[0]),
    );
    const order = this.weigh(new Set(lost));
    // How far a smaller set is looked for depends on how much is out of reach: then for all alike.
    const { steps } = STEPS.find((s) => this.weight.size <= s.upTo) as (typeof STEPS)[number];
    const everyone = steps !== this.steps;
    this.steps = steps;
    for (const i of order) this.bound.set(i, this.leavesOf(i));
    const again = everyone ? [...this.weight.keys()] : order;
    for (const i of again) {
      this.of.set(i, {
        ...this.smaller(i, [...(this.bound.get(i) as readonly number[])].sort(this.byKey)),
        by: this.by.get(i) ?? -1,
      });
      near.add(i);
    }
    return near;
  }

  /**
   * The lightest derivation of some items out of reach; all they rest on among the others is known.
   * @returns them from light to heavy
   */
  private weigh(lost: ReadonlySet<number>): number[] {
    const { compiled, weight, by, reach } = this;
    const { ins, outs, consumers, producers } = compiled.network;
    const heap = new Heap();
    const missing = new Map<number, number>();
    const settled = new Set<number>();
    const put = (item: number, w: number, process: number) => {
      const known = weight.get(item) ?? Number.POSITIVE_INFINITY;
      if (!lost.has(item) || w > known) return;
      if (w < known) heap.push(w, item);
      else if (!before(compiled, process, by.get(item) as number)) return;
      weight.set(item, w);
      by.set(item, process);
    };
    const fire = (p: number) => {
      let sum = 0;
      for (let k = ins.start[p]; k < ins.end[p]; k++)
        if (!reach.items[ins.to[k]]) sum += weight.get(ins.to[k]) ?? Number.POSITIVE_INFINITY;
      if (sum < Number.MAX_VALUE / 2) for (let m = outs.start[p]; m < outs.end[p]; m++) put(outs.to[m], sum * STEP, p);
    };
    for (const i of lost) {
      if (this.breaks.has(i) || producers.start[i] === producers.end[i]) put(i, 1, -1);
      for (let k = producers.start[i]; k < producers.end[i]; k++) {
        const p = producers.to[k];
        if (missing.has(p)) continue;
        let n = 0;
        for (let m = ins.start[p]; m < ins.end[p]; m++) if (lost.has(ins.to[m])) n++;
        missing.set(p, n);
        if (n === 0) fire(p);
      }
    }
    for (let i = heap.pop(); i >= 0; i = heap.pop()) {
      if (settled.has(i)) continue;
      settled.add(i);
      for (let k = consumers.start[i]; k < consumers.end[i]; k++) {
        const p = consumers.to[k];
        const n = missing.get(p);
        if (n === undefined) continue;
        missing.set(p, n - 1);
        if (n === 1) fire(p);
      }
    }
    // Sums beyond all numbers: such an item stands for itself.
    for (const i of lost)
      if (!settled.has(i)) {
        weight.set(i, Number.MAX_VALUE);
        by.set(i, -1);
        settled.add(i);
      }
    return [...settled];
  }

  private leavesOf(i: number): readonly number[] {
    const { ins } = this.compiled.network;
    const p = this.by.get(i) as number;
    if (p < 0) return [i];
    const below: (readonly number[])[] = [];
    for (let k = ins.start[p]; k < ins.end[p]; k++)
      if (!this.reach.items[ins.to[k]]) below.push(this.bound.get(ins.to[k]) as readonly number[]);
    return below.length === 1 ? below[0] : [...new Set(below.flat())];
  }

  private smaller(item: number, bound: readonly number[]): { leaves: readonly number[]; smallest: boolean } {
    if (bound.length <= 1) return { leaves: bound, smallest: true };
    let { steps } = this;
    const { consumers, outs, producers, ins } = this.compiled.network;
    const { missing } = this.reach;
    const behind = new Set([item]);
    for (const at of behind) {
      for (let k = producers.start[at]; k < producers.end[at]; k++) {
        const p = producers.to[k];
        steps -= ins.end[p] - ins.start[p];
        for (let m = ins.start[p]; m < ins.end[p]; m++) if (this.lost(ins.to[m])) behind.add(ins.to[m]);
      }
      if (--steps < 0) return { leaves: bound, smallest: false };
    }
    let leaves = bound;
    for (let k = leaves.length - 1; leaves.length > 1 && k >= 0; k--) {
      const fewer = leaves.filter((_, j) => j !== k);
      if (unblocks(fewer)) leaves = fewer;
    }
    if (leaves.length <= 1) return { leaves, smallest: true };
    const others = [...behind]
      .filter((i) => i !== item && ((this.by.get(i) as number) < 0 || this.breaks.has(i)))
      .sort(this.byKey);
    for (const leaf of others) if (unblocks([leaf])) return { leaves: [leaf], smallest: true };
    if (leaves.length === 2 || steps < 0) return { leaves, smallest: steps >= 0 };
    for (const [n, a] of others.entries())
      for (const b of others.slice(n + 1)) {
        if (unblocks([a, b])) return { leaves: [a, b], smallest: true };
        if (steps < 0) return { leaves, smallest: false };
      }
    return { leaves, smallest: leaves.length === 3 };

    /** Would the item be within reach if these were? Past the budget: no. */
    function unblocks(given: readonly number[]): boolean {
      const have = new Set(given);
      const left = new Map<number, number>();
      for (const at of have) {
        if (at === item) return true;
        steps -= 1 + consumers.end[at] - consumers.start[at];
        if (steps < 0) return false;
        for (let k = consumers.start[at]; k < consumers.end[at]; k++) {
          const p = consumers.to[k];
          const n = (left.get(p) ?? missing[p]) - 1;
          left.set(p, n);
          if (n === 0)
            for (let m = outs.start[p]; m < outs.end[p]; m++) if (behind.has(outs.to[m])) have.add(outs.to[m]);
        }
      }
      return false;
    }
  }
}
