/** The least whole number per item where a process gives more than the greatest of what it needs; kept up to date. */
import type { Network } from "../network/network";
import { Heap } from "../numbers/heap";

export const NEVER = 2 ** 31 - 1;

export interface LayerRules {
  /** True where only what a process uses up counts, not what it merely needs. */
  readonly usedOnly: boolean;
  /** Whether a process counts for an output. */
  counts(p: number, item: number): boolean;
  /** What a process gives when the greatest of what it needs is this (0: it needs nothing). Always more than that. */
  gives(p: number, most: number): number;
  /** The item's own number, below which it can't come. */
  least(item: number): number;
  /** Which of two processes counts where both give the same. */
  before(p: number, q: number): boolean;
}

/**
 * The functions grow along every derivation, so items settle in the order of their numbers (Knuth 1977). After a change
 * only
 * items whose number differs, and those that need them, are looked at again (Ramalingam and Reps 1996).
 */
export class Layers {
  /** Per item; NEVER: no derivation. */
  value: Int32Array;
  /** Per item the process that gives it; where there is no derivation the first that counts, −1: none. */
  by: Int32Array;

  constructor(
    private readonly network: Network,
    private readonly rules: LayerRules,
  ) {
    const { ins, outs, consumers, processes } = network;
    const qty = ins.qty as Float64Array;
    const value = new Int32Array(network.items).fill(NEVER);
    const by = new Int32Array(network.items).fill(-1);
    [this.value, this.by] = [value, by];
    const missing = new Int32Array(processes);
    const done = new Uint8Array(network.items);
    const heap = new Heap();
    const fire = (p: number, most: number) => {
      let given = -1;
      for (let k = outs.start[p]; k < outs.end[p]; k++) {
        const item = outs.to[k];
        if (!rules.counts(p, item)) continue;
        if (given < 0) given = rules.gives(p, most);
        const v = Math.max(given, rules.least(item));
        if (v < value[item]) heap.push(v, item);
        else if (v > value[item] || !rules.before(p, by[item])) continue;
        value[item] = v;
        by[item] = p;
      }
    };
    for (let p = 0; p < processes; p++) {
      for (let k = ins.start[p]; k < ins.end[p]; k++) if (!rules.usedOnly || qty[k] > 0) missing[p]++;
      if (missing[p] === 0) fire(p, 0);
    }
    for (let item = heap.pop(); item >= 0; item = heap.pop()) {
      if (done[item]) continue;
      done[item] = 1;
      for (let k = consumers.start[item]; k < consumers.end[item]; k++) {
        const p = consumers.to[k];
        if (rules.usedOnly && !this.usesUp(p, item)) continue;
        if (--missing[p] === 0) fire(p, value[item]);
      }
    }
    for (let i = 0; i < network.items; i++) if (value[i] === NEVER) by[i] = this.derived(i).by;
  }

  private usesUp(p: number, item: number): boolean {
    const { start, end, to, qty } = this.network.ins;
    for (let k = start[p]; k < end[p]; k++) if (to[k] === item) return (qty as Float64Array)[k] > 0;
    return false;
  }

  /**
   * @param doubtful  items one of whose processes changed, or counts now or no longer
   * @returns items whose number or process moved
   */
  rederive(doubtful: Iterable<number>): Set<number> {
    const { network, rules } = this;
    this.widen();
    const { value, by } = this;
    const { consumers, outs, items } = network;
    const right = new Map<number, { value: number; by: number }>();
    const heap = new Heap();
    const was = new Map<number, { value: number; by: number }>();
    const keep = (i: number) => {
      if (!was.has(i)) was.set(i, { value: value[i], by: by[i] });
    };
    const look = (i: number) => {
      const now = this.derived(i);
      if (now.value === value[i]) {
        right.delete(i);
        if (now.by !== by[i]) {
          keep(i);
          by[i] = now.by;
        }
        return;
      }
      right.set(i, now);
      heap.push(Math.min(now.value, value[i]), i);
    };
    const lookBehind = (i: number) => {
      for (let k = consumers.start[i]; k < consumers.end[i]; k++) {
        const p = consumers.to[k];
        if (rules.usedOnly && !this.usesUp(p, i)) continue;
        for (let m = outs.start[p]; m < outs.end[p]; m++) look(outs.to[m]);
      }
    };
    for (const i of doubtful) if (i < items) look(i);
    for (let i = heap.pop(); i >= 0; i = heap.pop()) {
      const now = right.get(i);
      if (!now || heap.last !== Math.min(now.value, value[i])) continue;
      keep(i);
      if (now.value < value[i]) {
        right.delete(i);
        value[i] = now.value;
        by[i] = now.by;
        lookBehind(i);
      } else {
        value[i] = NEVER;
        by[i] = -1;
        look(i);
        lookBehind(i);
      }
    }
    const moved = new Set<number>();
    for (const [i, before] of was) if (before.value !== value[i] || before.by !== by[i]) moved.add(i);
    return moved;
  }

  /** What an item's processes give it as things stand. */
  private derived(item: number): { value: number; by: number } {
    const { producers, ins } = this.network;
    const { rules, value } = this;
    const qty = ins.qty as Float64Array;
    let best = NEVER;
    let by = -1;
    let any = -1;
    for (let k = producers.start[item]; k < producers.end[item]; k++) {
      const p = producers.to[k];
      if (!rules.counts(p, item)) continue;
      if (any < 0 || rules.before(p, any)) any = p;
      let most = 0;
      for (let m = ins.start[p]; m < ins.end[p]; m++)
        if ((!rules.usedOnly || qty[m] > 0) && value[ins.to[m]] > most) most = value[ins.to[m]];
      if (most === NEVER) continue;
      const v = Math.max(rules.gives(p, most), rules.least(item));
      if (v < best || (v === best && rules.before(p, by))) [best, by] = [v, p];
    }
    return { value: best, by: best === NEVER ? any : by };
  }

  private widen(): void {
    if (this.value.length >= this.network.items) return;
    const size = Math.ceil(this.network.items * 1.25);
    const value = new Int32Array(size).fill(NEVER);
    const by = new Int32Array(size).fill(-1);
    value.set(this.value);
    by.set(this.by);
    [this.value, this.by] = [value, by];
  }
}
