/** Which items a player can have at all. */
import { ALIVE, type Network } from "./network";

/**
 * Least fixed point by forward chaining with a counter per process (Dowling and Gallier 1984): ingredients, tools,
 * stations
 * and teaching items alike must be at hand. Linear in the number of lines; a change costs what depends on it (delete
 * what
 * rested on it, derive again: Gupta, Mumick and Subrahmanian 1993).
 */
export class Reach {
  /** Per item 1 when it can be had. */
  items: Uint8Array;
  /** Per item the process that first gave it, −1: none. Following it always ends at sources: a well-founded proof. */
  first: Int32Array;
  /** Per process the number of things it needs that can't be had; dead processes never fire. */
  missing: Int32Array;
  private doubtful: number[] = [];
  private readonly come: number[] = [];

  /**
   * @param given  items taken as obtainable from the start (1), for "what if we had …"
   * @param counting  whether to keep the order in which things come within reach
   */
  constructor(
    private readonly network: Network,
    given?: Uint8Array,
    counting = false,
  ) {
    const { ins, consumers, flags } = network;
    this.items = new Uint8Array(network.items);
    this.first = new Int32Array(network.items).fill(-1);
    this.missing = new Int32Array(network.processes);
    const { missing, items, first } = this;
    const { start: outStart, end: outEnd, to: outTo } = network.outs;
    const queue = new Int32Array(network.items);
    const order = new Int32Array(network.processes);
    let [head, tail, fired] = [0, 0, 0];
    if (given)
      for (let i = 0; i < given.length; i++)
        if (given[i]) {
          items[i] = 1;
          queue[tail++] = i;
        }
    const { start, end } = ins;
    const { start: userStart, end: userEnd, to: userTo } = consumers;
    for (let p = 0; p < missing.length; p++) {
      missing[p] = end[p] - start[p];
      if (missing[p] !== 0 || !(flags[p] & ALIVE)) continue;
      order[fired++] = p;
      for (let k = outStart[p]; k < outEnd[p]; k++) {
        const o = outTo[k];
        if (items[o]) continue;
        items[o] = 1;
        first[o] = p;
        queue[tail++] = o;
      }
    }
    while (head < tail) {
      const item = queue[head++];
      for (let k = userStart[item]; k < userEnd[item]; k++) {
        const p = userTo[k];
        if (--missing[p] !== 0) continue;
        order[fired++] = p;
        for (let m = outStart[p]; m < outEnd[p]; m++) {
          const o = outTo[m];
          if (items[o]) continue;
          items[o] = 1;
          first[o] = p;
          queue[tail++] = o;
        }
      }
    }
    if (counting) this.ordered = { items: queue.subarray(0, tail), processes: order.subarray(0, fired) };
  }
  private readonly ordered: { readonly items: Int32Array; readonly processes: Int32Array } | null = null;

  /** True when everything the process needs can be had. */
  fires = (p: number): boolean => this.missing[p] === 0 && (this.network.flags[p] & ALIVE) !== 0;

  /**
   * Items and processes in the order in which they came within reach, the others last; where it was counted, and before
   * any change.
   */
  order(): { items: Int32Array; processes: Int32Array } {
    if (!this.ordered) throw new Error("The order was not counted.");
    const { network } = this;
    const whole = (some: Int32Array, n: number) => {
      const all = new Int32Array(n);
      const seen = new Uint8Array(n);
      all.set(some);
      for (const x of some) seen[x] = 1;
      let at = some.length;
      for (let x = 0; x < n; x++) if (!seen[x]) all[at++] = x;
      return all;
    };
    const { items, processes } = this.ordered;
    return { items: whole(items, network.items), processes: whole(processes, network.processes) };
  }

  /** Before processes are rewritten: what rested on them is in doubt. */
  overdelete(ps: readonly number[]): void {
    const { outs } = this.network;
    for (const p of ps) {
      if (p >= this.missing.length) continue;
      for (let k = outs.start[p]; k < outs.end[p]; k++)
        if (this.first[outs.to[k]] === p) this.doubtful.push(outs.to[k]);
    }
  }

  /**
   * After they were rewritten.
   * @returns items that are now within reach or no longer, and processes that now fire or no longer do (those given,
   *   too);
   * what merely came back by another way is not among them
   */
  rederive(ps: readonly number[]): { items: number[]; processes: Set<number> } {
    const { network } = this;
    const { ins, outs, consumers, producers } = network;
    this.widen();
    const { items, first, missing } = this;
    const was = new Map<number, number>();
    const rewritten = new Set(ps);
    /** Whether others fired before. */
    const fired = new Map<number, boolean>();
    for (const p of ps) {
      missing[p] = 0;
      for (let k = ins.start[p]; k < ins.end[p]; k++) if (!items[ins.to[k]]) missing[p]++;
    }
    // Take away whatever rests on what is in doubt. Counters of rewritten processes follow, too.
    const open = this.doubtful;
    this.doubtful = [];
    for (let i = open.pop(); i !== undefined; i = open.pop()) {
      if (!items[i]) continue;
      items[i] = 0;
      first[i] = -1;
      was.set(i, 1);
      for (let k = consumers.start[i]; k < consumers.end[i]; k++) {
        const p = consumers.to[k];
        if (missing[p]++ > 0) continue;
        if (!fired.has(p)) fired.set(p, true);
        for (let m = outs.start[p]; m < outs.end[p]; m++)
          if (items[outs.to[m]] && first[outs.to[m]] === p) open.push(outs.to[m]);
      }
    }
    // Derive again from what still fires, then forwards.
    const fire = (p: number) => {
      for (let k = outs.start[p]; k < outs.end[p]; k++) this.put(outs.to[k], p, was);
    };
    for (const p of rewritten) if (this.fires(p)) fire(p);
    for (const i of [...was.keys()]) {
      if (items[i]) continue;
      for (let k = producers.start[i]; k < producers.end[i]; k++)
        if (this.fires(producers.to[k])) {
          this.put(i, producers.to[k], was);
          break;
        }
    }
    for (let at = 0; at < this.come.length; at++) {
      const i = this.come[at];
      for (let k = consumers.start[i]; k < consumers.end[i]; k++) {
        const p = consumers.to[k];
        if (--missing[p] > 0 || !(network.flags[p] & ALIVE)) continue;
        if (!fired.has(p)) fired.set(p, false);
        fire(p);
      }
    }
    this.come.length = 0;
    const changed: number[] = [];
    for (const [i, before] of was) if (items[i] !== before) changed.push(i);
    const turned = new Set(ps);
    for (const [p, before] of fired) if (this.fires(p) !== before) turned.add(p);
    return { items: changed, processes: turned };
  }

  private put(item: number, by: number, was: Map<number, number>): void {
    if (this.items[item]) return;
    if (!was.has(item)) was.set(item, 0);
    this.items[item] = 1;
    this.first[item] = by;
    this.come.push(item);
  }

  private widen(): void {
    const { network } = this;
    if (this.items.length < network.items) {
      const size = Math.ceil(network.items * 1.25);
      const [items, first] = [new Uint8Array(size), new Int32Array(size).fill(-1)];
      items.set(this.items);
      first.set(this.first);
      [this.items, this.first] = [items, first];
    }
    if (this.missing.length < network.processes) {
      const missing = new Int32Array(Math.ceil(network.processes * 1.25));
      missing.set(this.missing);
      this.missing = missing;
    }
  }
}
