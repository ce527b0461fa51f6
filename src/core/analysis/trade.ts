/** What could be part of a gaining loop: processes and sales as columns, items and currencies as rows. */
import { type Compiled, currencyAt, processAt } from "../network/compile";
import { netYield } from "../network/expected";
import {
  add,
  compare,
  divide,
  type Fraction,
  fraction,
  fromNumber,
  multiply,
  negate,
  sign,
  toNumber,
  ZERO,
} from "../numbers/fraction";
import { Conversions, type Turn, turnOf } from "./conversions";
import type { Nets } from "./column-field";
import { type Column, exactly, shrink } from "./support";
import type { Budget } from "../budget/budget";
import type { Prices } from "./prices";
/** What is run: a process, or the sale of an item. */
export type LoopStep =
  | { readonly run: "process"; readonly process: number }
  | { readonly run: "sale"; readonly item: number; readonly currency: number };
/** What is left over: an item, or money of a currency. */
export type Balance =
  | { readonly of: "item"; readonly item: number }
  | { readonly of: "currency"; readonly currency: number };

/** Rows are items, then currencies. */
export const rowOfCurrency = (compiled: Compiled, currency: number): number => compiled.network.items + currency;
export const thingAt = ({ network }: Compiled, row: number): Balance =>
  row < network.items ? { of: "item", item: row } : { of: "currency", currency: row - network.items };

export function netOfProcess(compiled: Compiled, p: number): Map<number, Fraction> {
  const { spec } = processAt(compiled, p);
  const net = new Map([...netYield(spec.lines)].map(([id, q]) => [compiled.numberOf(id) as number, q]));
  if (spec.price > 0)
    net.set(rowOfCurrency(compiled, currencyAt(compiled, spec.currency)), negate(fromNumber(spec.price)));
  return net;
}

/** Purchases first, then crafts, then salvages. */
const ORDER = { source: 0, craft: 1, salvage: 2, use: 3, burn: 3, any: 3 } as const;

/** The processes and sales that could be part of a loop: rows are items and currencies, columns processes and sales. */
export class Trade implements Nets {
  readonly first: number[];
  /** Columns of more than one thing that gain by themselves once exact turns are free. */
  readonly alone: Column[] = [];
  private readonly columns = new Map<number, Column>();
  private readonly exact = new Map<number, Column>();
  private readonly turns: Conversions;
  /** Things that count as one, by the one they count as. */
  private readonly tied = new Map<number, number[]>();
  /** Columns that are no longer looked at. */
  private readonly gone: Set<number>;
  /** By item and row of money, the process that buys it for least. */
  private readonly cheapest = new Map<number, Map<number, { readonly process: number; readonly price: Fraction }>>();

  constructor(
    private readonly compiled: Compiled,
    private readonly prices: Prices,
  ) {
    this.turns = new Conversions(this.pairsOf());
    this.gone = new Set(this.turns.dropped);
    for (const thing of this.turns.things()) {
      const { root } = this.turns.root(thing);
      this.tied.set(root, [...(this.tied.get(root) ?? []), thing]);
    }
    const merging = new Set<number>();
    for (const root of this.tied.keys())
      for (const c of [...this.producers(root), ...this.consumers(root)]) merging.add(c);
    for (const c of merging) {
      const signs = new Set([...this.column(c).net.values()].map(sign));
      if (signs.has(-1)) continue;
      merging.delete(c);
      this.gone.add(c);
      if (signs.has(1)) this.alone.push(this.netOf(c));
    }
    this.first = [
      ...new Set([...merging, ...prices.violators, ...[...prices.sold].flatMap((i) => [...this.sales(i)])]),
    ].filter((c) => !this.gone.has(c) && (c >= compiled.network.processes || !this.isOutbid(c)));
  }

  stepOf(c: number): LoopStep {
    const { processes, items } = this.compiled.network;
    if (c < processes) return { run: "process", process: c };
    return { run: "sale", item: (c - processes) % items, currency: Math.floor((c - processes) / items) };
  }
  /** The sales of an item, one for each currency in which it is paid. */
  private *sales(item: number): Generator<number> {
    const { processes, items } = this.compiled.network;
    if (!this.prices.trades || !(this.compiled.sells[item] > 0)) return;
    for (const currency of this.salesOf(item).keys()) yield processes + currency * items + item;
  }
  private readonly paid = new Map<number, ReadonlyMap<number, number>>();
  private salesOf(item: number): ReadonlyMap<number, number> {
    let sales = this.paid.get(item);
    if (!sales) {
      sales = this.compiled.salesOf(item);
      this.paid.set(item, sales);
    }
    return sales;
  }

  *producers(row: number): Generator<number> {
    const { producers, items, processes } = this.compiled.network;
    if (row >= items) {
      const currency = row - items;
      for (let i = 0; i < items; i++)
        if (this.prices.trades && this.compiled.sells[i] > 0 && this.salesOf(i).has(currency))
          yield processes + currency * items + i;
      return;
    }
    for (const i of this.tied.get(row) ?? [row])
      for (let k = producers.start[i]; k < producers.end[i]; k++)
        if (this.counts(producers.to[k])) yield producers.to[k];
  }
  /** No one asks who takes money: its price stays. */
  *consumers(row: number): Generator<number> {
    const { consumers, items } = this.compiled.network;
    if (row >= items) return;
    for (const i of this.tied.get(row) ?? [row]) {
      for (let k = consumers.start[i]; k < consumers.end[i]; k++)
        if (this.counts(consumers.to[k])) yield consumers.to[k];
      yield* this.sales(i);
    }
  }
  private counts(p: number): boolean {
    return this.prices.takesPart(p) && !this.gone.has(p) && !this.isOutbid(p);
  }

  /**
   * Whether a process only buys an item for money of which another, alone too, buys no less for the same: whatever gains
   * with it gains no less with the other. So a market of many shops is searched as one with the cheapest of each.
   */
  private isOutbid(p: number): boolean {
    const item = this.boughtAlone(p);
    if (item < 0) return false;
    let best = this.cheapest.get(item);
    if (!best) {
      best = new Map();
      this.cheapest.set(item, best);
      const { producers } = this.compiled.network;
      for (let k = producers.start[item]; k < producers.end[item]; k++) {
        const q = producers.to[k];
        if (this.boughtAlone(q) !== item || !this.prices.takesPart(q)) continue;
        const { row, price } = this.bought(q, item);
        const there = best.get(row);
        const less = there && compare(price, there.price);
        if (less === undefined || less < 0 || (less === 0 && this.idOf(q) < this.idOf(there?.process as number)))
          best.set(row, { process: q, price });
      }
    }
    return best.get(this.bought(p, item).row)?.process !== p;
  }
  /** The item that a process buys for money alone; −1: it does something else too. */
  private boughtAlone(p: number): number {
    const { ins, outs, money } = this.compiled.network;
    if (!(money[p] > 0) || outs.end[p] - outs.start[p] !== 1) return -1;
    for (let k = ins.start[p]; k < ins.end[p]; k++) if ((ins.qty as Float64Array)[k] > 0) return -1;
    return outs.to[outs.start[p]];
  }
  /** What one of the item costs by such a process, and in money of which row. */
  private bought(p: number, item: number): { readonly row: number; readonly price: Fraction } {
    const { net } = this.netOf(p);
    const row = [...net.keys()].find((r) => r !== item) as number;
    return { row, price: divide(negate(net.get(row) as Fraction), net.get(item) as Fraction) };
  }
  private idOf(p: number): string {
    return `${this.compiled.processId(p)} ${this.compiled.behind(p)?.part}`;
  }
  fixed(row: number): boolean {
    return row >= this.compiled.network.items;
  }

  near(c: number): [number, number][] {
    const { network } = this.compiled;
    const { ins, outs, money } = network;
    const touches = ({ start, end, to }: typeof ins) => {
      for (let k = start[c]; k < end[c]; k++) if (this.turns.counted(to[k])) return true;
      return false;
    };
    if (c >= network.processes || money[c] > 0 || (this.turns.any && (touches(ins) || touches(outs))))
      return [...this.column(c).net].map(([row, q]) => [row, toNumber(q)]);
    const near: [number, number][] = [];
    for (let k = ins.start[c]; k < ins.end[c]; k++)
      if ((ins.qty as Float64Array)[k] > 0) near.push([ins.to[k], -(ins.qty as Float64Array)[k]]);
    for (let k = outs.start[c]; k < outs.end[c]; k++) near.push([outs.to[k], (outs.qty as Float64Array)[k]]);
    return near;
  }

  /**
   * Processes among the violators and beside them that turn one thing into one other: only those can be violators for being
   * exact.
   */
  private pairsOf(): Turn[] {
    const { compiled, prices } = this;
    const { ins, outs, consumers, money } = compiled.network;
    const single = (p: number) => {
      let n = 0;
      for (let k = ins.start[p]; k < ins.end[p]; k++) if ((ins.qty as Float64Array)[k] > 0) n++;
      return n === 1 && outs.end[p] - outs.start[p] === 1 && !(money[p] > 0);
    };
    const near = new Set<number>();
    for (const p of prices.violators) {
      if (!single(p)) continue;
      near.add(p);
      const made = outs.to[outs.start[p]];
      for (let k = consumers.start[made]; k < consumers.end[made]; k++)
        if (prices.takesPart(consumers.to[k]) && single(consumers.to[k])) near.add(consumers.to[k]);
    }
    const id = (p: number) => compiled.processId(p);
    return [...near]
      .sort((a, b) => (id(a) < id(b) ? -1 : 1))
      .flatMap((p) => turnOf(p, netOfProcess(compiled, p)) ?? []);
  }

  /** A support with the exact turns that it needs, of which nothing can be left out. */
  lifted(support: readonly Column[], steps: Budget): Column[] {
    const own = support.map((c) => this.netOf(c.process));
    if (!this.turns.any) return own;
    const times = support.length === 1 ? [fraction(1n)] : (exactly(support, () => fraction(1n), steps) as Fraction[]);
    const net = new Map<number, Fraction>();
    own.forEach((column, k) => {
      for (const [row, q] of column.net) net.set(row, add(net.get(row) ?? ZERO, multiply(q, times[k])));
    });
    const turns = this.turns.makeUp(net).map((t) => this.netOf(t.process));
    if (!turns.length) return own;
    const all = [...own, ...turns];
    return shrink(all, (k) => (k < own.length ? fraction(1n) : ZERO), { steps }) ?? all;
  }

  evenPairs(): Column[][] {
    return this.turns.pairs.map((pair) => pair.map((t) => this.netOf(t.process)));
  }

  /** With things that exact turns tie together counted as one. */
  column(c: number): Column {
    if (!this.turns.any) return this.netOf(c);
    let column = this.columns.get(c);
    if (!column) {
      column = { process: c, net: this.turns.merged(this.netOf(c).net) };
      this.columns.set(c, column);
    }
    return column;
  }

  /** As it is. */
  private netOf(c: number): Column {
    let column = this.exact.get(c);
    if (!column) {
      const step = this.stepOf(c);
      const net =
        step.run === "process"
          ? netOfProcess(this.compiled, step.process)
          : new Map([
              [step.item, fraction(-1n)],
              [
                rowOfCurrency(this.compiled, step.currency),
                fromNumber(this.salesOf(step.item).get(step.currency) ?? 0),
              ],
            ]);
      column = { process: c, net };
      this.exact.set(c, column);
    }
    return column;
  }

  worth(row: number): number {
    const { network, catalogue, currencies } = this.compiled;
    if (row < network.items) return this.prices.price[row];
    const id = currencies[row - network.items];
    return (id === null ? null : catalogue.records.currency.get(id)?.worth) ?? 1;
  }

  /**
   * Purchases first, then crafts, salvages and sales, each by key: the same order whatever the numbers of the processes
   * are.
   */
  inRecordOrder(support: readonly Column[]): Column[] {
    const key = (c: Column) => {
      const step = this.stepOf(c.process);
      if (step.run === "sale") return `4${this.compiled.nodeOf(step.item)} ${step.currency}`;
      const { spec, record } = processAt(this.compiled, step.process);
      return `${ORDER[spec.sort]}${record.key}`;
    };
    return [...support].sort((a, b) => (key(a) < key(b) ? -1 : 1));
  }
}
