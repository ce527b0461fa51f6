/**
 * Prices under which no process gains: the certificate that a pantry has no gaining loop, and where it does not hold.
 */
import { Heap } from "../numbers/heap";
import type { Compiled } from "../network/compile";
import { ALIVE, FREE, GAINS } from "../network/network";
import { LeastCost } from "./cost";
import type { Reach } from "../network/reach";
import { relax } from "./relaxation";

/** Share of its inputs' worth that every process must lose under the prices, so that rounding can't hide a gain. */
export const MARGIN = 2 ** -16;
/** How often the dearest output of a process is lowered before it is left as it is. */
const LOWERINGS = 8;
/** Seeds that a repaired set of prices may have beyond twice those it began with. */
const MORE = 8;
/** Moves of prices for each process, from scratch; and after a change. */
const [MOVES, MOST_MOVES] = [12, 4_000];
/** Processes that are gone through when a circle of prices is looked for. */
const TRACED = 100;

/**
 * Prices p > 0 with pᵀS ≤ 0 prove that no combination of processes gains (Farkas), S the net yields with money as a row
 * of
 * its own whose price is 1 a value unit. They start as least costs with a margin, where what comes from outside has a
 * price
 * that nothing sold can reach. Where the outputs of a process are worth more than its inputs less the margin, its most
 * valuable output is lowered to that; a process lowered 8 times is a violator. Every gaining combination contains a
 * violator or the sale of an item that is listed in `sold`. Where that leaves false ones, relaxation may prove that
 * there are none.
 */
export class Prices {
  /** Per item, above zero. */
  price: Float64Array;
  /** Processes that gain under the prices, or come so near that only fractions can tell. */
  readonly violators = new Set<number>();
  /** Items that sell for more than their price, or so near to it. */
  readonly sold = new Set<number>();
  private start: Float64Array;
  /** The prices lie within the range that would do, not along its border; null: it was not tried. */
  private relaxed: boolean | null = null;
  /** Seeds past which a repair no longer pays. */
  private readonly most: number;
  private readonly above: number;
  /** False where no process takes money: then no loop leads through a sale. */
  readonly trades: boolean;

  constructor(
    private readonly compiled: Compiled,
    reach: Reach,
    /** Items that would open the circles with no way in. */
    opening: Iterable<number> = [],
  ) {
    const { network, sells } = compiled;
    const { flags, seconds, outs } = network;
    const qty = outs.qty as Float64Array;
    this.trades = this.wouldTrade();
    const above = this.trades ? 64 * sells.reduce((most, s) => Math.max(most, s), 0) : 0;
    this.above = above;
    const start = new Float64Array(network.items).fill(Number.POSITIVE_INFINITY);
    for (let p = 0; p < network.processes; p++) {
      if ((flags[p] & (ALIVE | FREE)) !== (ALIVE | FREE)) continue;
      const own = 0.01 + 0.01 * seconds[p];
      for (let k = outs.start[p]; k < outs.end[p]; k++)
        start[outs.to[k]] = Math.min(start[outs.to[k]], own / qty[k] + above);
    }
    // Where nothing leads in, prices begin at what would have to be given: what nothing makes, and what opens a closed
    // circle.
    for (let i = 0; i < network.items; i++)
      if (!reach.items[i] && network.producers.start[i] === network.producers.end[i])
        start[i] = Math.min(start[i], 1 + above);
    // The latter are dear, so that what they are made of and salvaged into fits below them.
    for (const i of opening) start[i] = Math.min(start[i], 1e6 * (1 + above));
    const least = new LeastCost(network, {
      perMoney: 1,
      perSecond: 0,
      without: FREE | GAINS,
      share: 1 - 2 * MARGIN,
      start: (i) => start[i],
      quarantine: this.violators,
    });
    const { cost, settled } = least;
    // Least costs that settled leave a process with one output its margin, where none of them is replaced here.
    let asFound = settled;
    for (let i = 0; i < network.items; i++) {
      const c = cost[i];
      if (c >= 1e-100 && c <= 1e200) continue;
      asFound = false;
      cost[i] = Number.isFinite(c) ? Math.min(Math.max(c, 1e-100), 1e200) : 1 + above;
    }
    this.price = cost;
    this.start = cost.slice();
    const open: number[] = [];
    for (let p = 0; p < network.processes; p++) {
      if (asFound && outs.end[p] - outs.start[p] === 1) continue;
      if (this.takesPart(p) && !this.violators.has(p) && !this.loses(p)) open.push(p);
    }
    this.lower(open);
    if (this.trades) for (let i = 0; i < network.items; i++) this.judgeSale(i);
    this.most = MORE + 2 * (this.violators.size + this.sold.size);
  }

  private wouldTrade(): boolean {
    const { network, sells } = this.compiled;
    let takes = false;
    for (let p = 0; p < network.processes && !takes; p++)
      takes = network.money[p] > 0 && (network.flags[p] & ALIVE) !== 0;
    return takes && sells.some((s) => s > 0);
  }

  /** True for processes that could be part of a loop of several. */
  takesPart(p: number): boolean {
    return (this.compiled.network.flags[p] & (ALIVE | FREE | GAINS)) === ALIVE;
  }

  /** One pass over every process: true where the prices prove that nothing gains. */
  prove(): boolean {
    for (let p = 0; p < this.compiled.network.processes; p++) if (this.takesPart(p) && !this.loses(p)) return false;
    if (!this.trades) return true;
    return this.compiled.sells.every((sells, i) => !(sells > this.price[i] * (1 - MARGIN)));
  }

  private loses(p: number): boolean {
    const { ins, outs, money } = this.compiled.network;
    const { price } = this;
    const [inQty, outQty] = [ins.qty as Float64Array, outs.qty as Float64Array];
    let taken = money[p];
    for (let k = ins.start[p], e = ins.end[p]; k < e; k++) taken += inQty[k] * price[ins.to[k]];
    let given = 0;
    for (let k = outs.start[p], e = outs.end[p]; k < e; k++) given += outQty[k] * price[outs.to[k]];
    return given <= taken * (1 - MARGIN);
  }

  /**
   * Looks once for prices without violators, where lowering left some: takes about as long as the least costs.
   * @returns whether they were found, and are taken: then nothing gains
   */
  relax(): boolean {
    if (this.relaxed !== null) return false;
    const { network } = this.compiled;
    const [before, price] = [this.price, this.start.slice()];
    const found = relax(network, price, {
      first: Array.from({ length: network.processes }, (_, p) => p),
      margin: MARGIN,
      takesPart: (p) => this.takesPart(p),
      mayBePutAside: (p) => this.violators.has(p),
      floor: this.floor,
      most: MOVES * network.processes,
    });
    this.price = price;
    this.relaxed = found !== null && [...found.aside].every((p) => this.loses(p)) && this.prove();
    if (this.relaxed) {
      this.violators.clear();
      this.sold.clear();
    } else this.price = before;
    return this.relaxed;
  }

  /** Below this an item would sell for more than its price. */
  private readonly floor = (item: number): number => (this.trades ? this.compiled.sells[item] * (1 + 2 * MARGIN) : 0);

  private lower(queue: number[]): void {
    const { ins, outs, consumers, money } = this.compiled.network;
    const { price, start, violators } = this;
    const [inQty, outQty] = [ins.qty as Float64Array, outs.qty as Float64Array];
    const lowered = new Map<number, number>();
    /** The process that lowered an item last. */
    const parent = new Map<number, number>();
    // Cheap ones first: what goes in is mostly cheaper than what comes out, so that a process is looked at again when
    // all that goes into it has been lowered, and not after each of these.
    const waiting = new Set<number>();
    const heap = new Heap();
    const push = (p: number) => {
      if (waiting.has(p)) return;
      waiting.add(p);
      heap.push(this.takenFrom(start, p), p);
    };
    for (const p of queue) push(p);
    for (let p = heap.pop(); p >= 0; p = heap.pop()) {
      waiting.delete(p);
      const times = lowered.get(p) ?? 0;
      if (violators.has(p) || !this.takesPart(p)) continue;
      let taken = money[p];
      for (let k = ins.start[p]; k < ins.end[p]; k++) taken += inQty[k] * price[ins.to[k]];
      let [given, best, dearest] = [0, -1, 0];
      for (let k = outs.start[p]; k < outs.end[p]; k++) {
        const worth = outQty[k] * price[outs.to[k]];
        given += worth;
        if (worth > dearest) [best, dearest] = [k, worth];
      }
      if (given <= taken * (1 - MARGIN) || best < 0) continue;
      if (times >= LOWERINGS || (times > 0 && this.leadsBack(p, parent))) {
        violators.add(p);
        continue;
      }
      lowered.set(p, times + 1);
      const item = outs.to[best];
      parent.set(item, p);
      const wanted = (dearest - (given - taken * (1 - 2 * MARGIN))) / outQty[best];
      const floor = Math.max(start[item] / 1000, this.floor(item));
      price[item] = Math.min(price[item], Math.max(wanted, floor));
      for (let k = consumers.start[item]; k < consumers.end[item]; k++)
        if (!violators.has(consumers.to[k])) push(consumers.to[k]);
      push(p);
    }
    for (const p of violators) if (this.loses(p)) violators.delete(p);
  }

  /** What a run takes in, by some prices. */
  private takenFrom(prices: Float64Array, p: number): number {
    const { ins, money } = this.compiled.network;
    let taken = money[p];
    for (let k = ins.start[p]; k < ins.end[p]; k++) taken += (ins.qty as Float64Array)[k] * prices[ins.to[k]];
    return taken;
  }

  /** True where a process was made to gain by its own earlier lowering: a circle of prices. */
  private leadsBack(p: number, parent: ReadonlyMap<number, number>): boolean {
    const { ins } = this.compiled.network;
    const seen = new Set([p]);
    for (const q of seen) {
      for (let k = ins.start[q]; k < ins.end[q]; k++) {
        const by = (ins.qty as Float64Array)[k] > 0 ? parent.get(ins.to[k]) : undefined;
        if (by === p) return true;
        if (by !== undefined && seen.size < TRACED) seen.add(by);
      }
    }
    return false;
  }

  private judgeSale(i: number): void {
    if (this.compiled.sells[i] > this.price[i] * (1 - MARGIN)) this.sold.add(i);
    else this.sold.delete(i);
  }

  /** True where nothing can gain, by these prices and in spite of rounding. */
  get clean(): boolean {
    return this.violators.size === 0 && this.sold.size === 0;
  }

  /**
   * Makes the prices hold after processes or sell prices changed; items that are new get a price first. Prices only
   * fall, so
   * that in time more seems to gain than does: past twice as many violators as at first they are better found from scratch.
   * @returns false where they must be
   */
  repair(processes: Iterable<number>, items: Iterable<number>): boolean {
    const { network, sells } = this.compiled;
    const [ps, is] = [[...processes], [...items]];
    // A first fee or a first sell price makes money something that can go round.
    if (!this.trades && (ps.some((p) => network.money[p] > 0) || is.some((i) => sells[i] > 0)) && this.wouldTrade())
      return false;
    if (network.items > this.price.length) this.widen();
    for (const p of ps) this.violators.delete(p);
    const open: number[] = [];
    for (const p of ps) if (this.takesPart(p) && !this.loses(p)) open.push(p);
    if (open.length && !this.relaxed) this.lower(open);
    else if (open.length) {
      const found = relax(network, this.price, {
        first: open,
        margin: MARGIN,
        takesPart: (p) => this.takesPart(p) && !this.violators.has(p),
        mayBePutAside: () => true,
        floor: this.floor,
        most: MOST_MOVES,
      });
      if (!found) return false;
      for (const p of found.aside) if (!this.loses(p)) this.violators.add(p);
      for (const p of this.violators) if (this.loses(p)) this.violators.delete(p);
    }
    if (this.trades) for (const i of is) this.judgeSale(i);
    return this.violators.size + this.sold.size <= this.most;
  }

  /** An item that is new is worth what its cheapest process takes, else as much as what comes from outside. */
  private widen(): void {
    const { network } = this.compiled;
    const old = this.price.length;
    const [price, start] = [new Float64Array(network.items + 64), new Float64Array(network.items + 64)];
    price.set(this.price);
    start.set(this.start);
    [this.price, this.start] = [price, start];
    const { producers, ins } = network;
    price.fill(1 + this.above, old);
    for (let i = old; i < network.items; i++) {
      for (let k = producers.start[i]; k < producers.end[i]; k++) {
        const p = producers.to[k];
        if (!this.takesPart(p)) continue;
        let taken = network.money[p];
        for (let m = ins.start[p]; m < ins.end[p]; m++) taken += (ins.qty as Float64Array)[m] * price[ins.to[m]];
        if (taken > 0) price[i] = Math.min(price[i], (taken * (1 - 2 * MARGIN)) / network.yieldOf(p, i));
      }
    }
    start.set(price.subarray(old), old);
  }
}
