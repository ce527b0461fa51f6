/** Least cost of one unit of every item over all ways to get it, kept up to date as the network changes. */
import type { Endless } from "./endless";
import { ALIVE, type Network } from "../network/network";
import { type ChosenCosts, Circles } from "./circles";
import type { Reach } from "../network/reach";

export type Measure = "value" | "time";

export interface CostRules {
  /** What a run costs by itself: this times its money, plus the next times its seconds. */
  readonly perMoney: number;
  readonly perSecond: number;
  /** Processes with any of these flags don't count. */
  readonly without?: number;
  /** Only processes that fire count; absent: all. */
  readonly reach?: Pick<Reach, "missing">;
  /** Gifts count only for what comes no other way; absent: they count as all else does. */
  readonly endless?: Endless;
  /** Share of a run's cost that its output bears; below 1 for prices that must leave a margin. */
  readonly share?: number;
  /** Cost to begin with; Infinity where it is absent. */
  readonly start?: (item: number) => number;
  /** Takes a process out as soon as a circle through it gets cheaper at every round, instead of solving the circle. */
  readonly quarantine?: Set<number>;
}

/** Improvements of one item before its circle is solved as a system. */
const ROUNDS = 48;
/** Improvements before a circle is looked for that is to be taken out. */
const FEW_ROUNDS = 8;
/** Improvements after which an item's cost is left as it is. */
const MOST_ROUNDS = 40_000;
/** So often every line may be looked at, or so many lines in a small network, before costs are taken as they are. */
const MOST_PASSES = 300;
const LEAST_WORK = 2e8;
/** Where one in so many processes is queued, all are gone through for them. */
const DENSE = 64;
/** A number beyond those of all processes. */
const BEYOND = 2 ** 30 - 1;
/** Costs below this count as nothing, so that what halves at every round comes to an end. */
const NOTHING = 2 ** -500;
/**
 * cost(item) = min over processes of (own + Σ quantity × cost) / expected yield: every output bears the whole cost of a
 * run. The greatest fixed point of that operator in floating point, reached from above by label-correcting (a process
 * that yields several units makes its output cheaper than its inputs, so no order settles an item for good; Knuth 1977
 * needs functions that these are not). Sums run in the order of the rows, so the result is the same to the bit in
 * whatever order it was reached: after a change it equals the one from scratch.
 *
 * A circle that gets cheaper at every round converges only in the limit: where an item has improved 48 times, its circle
 * is solved at once.
 */
export class LeastCost implements ChosenCosts {
  /** Per item; Infinity: can't be had. */
  cost: Float64Array;
  /** Per item the process that achieves it; −1: none. */
  via: Int32Array;
  /** False where a circle came so near to even that it was left before it settled. */
  settled = true;
  // The rules as fields, so that objects of different shapes do not slow the innermost loops down.
  private readonly without: number;
  private readonly perMoney: number;
  private readonly perSecond: number;
  readonly share: number;
  private readonly reach: Pick<Reach, "missing"> | null;
  private readonly endless: Endless | null;
  private readonly aside: Set<number> | null;
  private improved: Uint16Array;
  private queued: Uint8Array;
  private queue: number[] = [];
  private doubtful: number[] = [];
  private readonly was = new Map<number, number>();
  private tracking = false;
  /** While processes are gone through in their order: the one that is looked at; those beyond it are still to come. */
  private at = BEYOND;
  /** In the first sweep of a network as it was built: whoever is to come is looked at anyway, and users ascend. */
  private allToCome = false;
  private readonly circles = new Circles(this);

  constructor(
    readonly network: Network,
    readonly rules: CostRules,
  ) {
    const { items, processes } = network;
    this.without = rules.without ?? 0;
    this.perMoney = rules.perMoney;
    this.perSecond = rules.perSecond;
    this.share = rules.share ?? 1;
    this.reach = rules.reach ?? null;
    this.endless = rules.endless ?? null;
    this.aside = rules.quarantine ?? null;
    this.cost = new Float64Array(items).fill(Number.POSITIVE_INFINITY);
    if (rules.start) for (let i = 0; i < items; i++) this.cost[i] = rules.start(i);
    this.via = new Int32Array(items).fill(-1);
    this.improved = new Uint16Array(items);
    this.queued = new Uint8Array(processes).fill(1);
    this.allToCome = network.consumers.asBuilt;
    this.sweep();
    this.allToCome = false;
    this.looked = 0;
    this.run();
    this.improved.fill(0);
    this.tracking = true;
  }

  /** What a run costs by itself. */
  own(p: number): number {
    return this.network.money[p] * this.perMoney + this.network.seconds[p] * this.perSecond;
  }
  counts(p: number): boolean {
    const flags = this.network.flags[p];
    return (
      (flags & ALIVE) !== 0 &&
      (flags & this.without) === 0 &&
      (this.aside === null || !this.aside.has(p)) &&
      (this.reach === null || this.reach.missing[p] === 0)
    );
  }

  /** Whether a process that counts is no way to an item all the same. */
  shuts(p: number, item: number): boolean {
    return this.endless?.shuts(p, item) ?? false;
  }

  /** What a run costs with everything it uses up. */
  runCost(p: number): number {
    const { start, end, to, qty } = this.network.ins;
    const { cost } = this;
    let t = this.own(p);
    for (let k = start[p], e = end[p]; k < e; k++) {
      const q = (qty as Float64Array)[k];
      if (q !== 0) t += q * cost[to[k]];
    }
    return t;
  }

  /** What an output costs by its process: k is its place in the rows of outputs, t the cost of a run. */
  bears(k: number, t: number): number {
    const { qty } = this.network.outs;
    let c = t / (qty as Float64Array)[k];
    if (this.share !== 1) c *= this.share;
    return c < NOTHING ? 0 : c;
  }

  private relax(p: number): void {
    const { network, cost, via } = this;
    if (!this.counts(p)) return;
    const t = this.runCost(p);
    if (!(t < Number.POSITIVE_INFINITY)) return;
    const { start, end, to } = network.outs;
    for (let k = start[p], e = end[p]; k < e; k++) {
      const item = to[k];
      const c = this.bears(k, t);
      if (!(c < cost[item]) || this.shuts(p, item)) continue;
      if (this.tracking && !this.was.has(item)) this.was.set(item, cost[item]);
      cost[item] = c;
      via[item] = p;
      const times = ++this.improved[item];
      if (this.aside) {
        if (times % FEW_ROUNDS === 0) this.circles.breakAt(item, this.aside);
      } else if (times % ROUNDS === 0 && times < MOST_ROUNDS) this.circles.solveAt(item);
      if (times >= MOST_ROUNDS) {
        this.settled = false;
        this.improved[item] = MOST_ROUNDS;
      } else this.wake(item);
    }
  }

  /** Lowers an item's cost to a bound from above. */
  lower(item: number, bound: number): void {
    const { cost } = this;
    const c = bound < NOTHING ? 0 : bound;
    if (!(c < cost[item])) return;
    if (this.tracking && !this.was.has(item)) this.was.set(item, cost[item]);
    cost[item] = c;
    this.wake(item);
  }

  /** Puts everything that uses an item up for another look. */
  private wake(item: number): void {
    const { start, end, to } = this.network.consumers;
    const { at } = this;
    for (let k = start[item], e = end[item]; k < e; k++) {
      if (to[k] <= at) this.push(to[k]);
      else if (this.allToCome) return;
      else this.queued[to[k]] = 1;
    }
  }
  private push(p: number): void {
    if (this.queued[p]) return;
    this.queued[p] = 1;
    this.queue.push(p);
  }

  private run(): void {
    this.circles.begin();
    this.left = Math.max(LEAST_WORK, MOST_PASSES * this.network.ins.to.length);
    while (this.queue.length) {
      const round = this.queue;
      this.queue = [];
      if (round.length * DENSE > this.network.processes) this.sweep();
      else for (const p of round) this.look(p);
    }
  }

  /**
   * Looks at everything that is queued in the order of the network, in which most of what goes in comes before what it is
   * made into: so most are looked at once, when all of it is known.
   */
  private sweep(): void {
    const { queued } = this;
    const { processes } = this.network;
    for (let p = 0; p < processes; p++) {
      if (queued[p] === 0) continue;
      this.at = p;
      this.look(p);
    }
    this.at = BEYOND;
  }

  private look(p: number): void {
    this.queued[p] = 0;
    // Costs that are not settled by then are bounds from above, and flagged.
    if (this.left < 0) this.settled = false;
    else this.relax(p);
    const lines = this.network.ins.end[p] - this.network.ins.start[p];
    this.left -= lines;
    this.looked += lines + 1;
  }
  private left = Number.POSITIVE_INFINITY;
  /** Steps of the work done so far: processes looked at, with what goes in. */
  looked = 0;

  /** Before processes change (their rows, their own cost, or whether they count): what they gave is in doubt. */
  overdelete(ps: Iterable<number>): void {
    const { start, end, to } = this.network.outs;
    for (const p of ps) {
      if (p >= this.queued.length) continue;
      for (let k = start[p]; k < end[p]; k++) if (this.via[to[k]] === p) this.doubtful.push(to[k]);
    }
  }

  /**
   * After they changed. @param ps  processes that changed or that count now
   * @returns items whose cost moved, with what it was
   */
  rederive(ps: Iterable<number>): Map<number, number> {
    this.widen();
    const { cost, via } = this;
    const { consumers, outs, producers, ins } = this.network;
    const qty = ins.qty as Float64Array;
    // What rests on what is in doubt is in doubt: forget its cost, then find it again from what is left.
    const open = this.doubtful;
    this.doubtful = [];
    const forgotten: number[] = [];
    for (let i = open.pop(); i !== undefined; i = open.pop()) {
      if (via[i] < 0) continue;
      if (!this.was.has(i)) this.was.set(i, cost[i]);
      cost[i] = this.rules.start ? this.rules.start(i) : Number.POSITIVE_INFINITY;
      via[i] = -1;
      forgotten.push(i);
      for (let k = consumers.start[i]; k < consumers.end[i]; k++) {
        const p = consumers.to[k];
        if (this.usesUp(p, i, qty))
          for (let m = outs.start[p]; m < outs.end[p]; m++) if (via[outs.to[m]] === p) open.push(outs.to[m]);
      }
    }
    for (const i of forgotten) for (let k = producers.start[i]; k < producers.end[i]; k++) this.push(producers.to[k]);
    for (const p of ps) this.push(p);
    this.run();
    const moved = new Map<number, number>();
    for (const [i, before] of this.was) {
      this.improved[i] = 0;
      if (cost[i] !== before) moved.set(i, before);
    }
    this.was.clear();
    return moved;
  }

  private usesUp(p: number, item: number, qty: Float64Array): boolean {
    const { start, end, to } = this.network.ins;
    for (let k = start[p]; k < end[p]; k++) if (to[k] === item) return qty[k] > 0;
    return false;
  }

  private widen(): void {
    const { items, processes } = this.network;
    if (this.cost.length < items) {
      const size = Math.ceil(items * 1.25);
      const cost = new Float64Array(size).fill(Number.POSITIVE_INFINITY);
      const via = new Int32Array(size).fill(-1);
      if (this.rules.start) for (let i = this.cost.length; i < size; i++) cost[i] = this.rules.start(i);
      cost.set(this.cost);
      via.set(this.via);
      [this.cost, this.via, this.improved] = [cost, via, new Uint16Array(size)];
    }
    if (this.queued.length < processes) this.queued = new Uint8Array(Math.ceil(processes * 1.25));
  }
}
