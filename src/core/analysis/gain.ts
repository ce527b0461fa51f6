/** Gaining loops: processes that, run in some whole numbers, leave more than before and less of nothing. */
import { type Compiled, currencyAt, processAt } from "../network/compile";
import { rounds } from "../network/components";
import { netYield } from "../network/expected";
import { ALIVE, GAINS, type Network, NetworkBuilder, type ProcessOf } from "../network/network";
import { add, type Fraction, fraction, fromNumber, multiply, negate, sign, toNumber, wholeMultiples, ZERO } from "../numbers/fraction";
import { chanceOfGain } from "./chances";
import { Conversions, type Turn, turnOf } from "./conversions";
import { circleGains, type Column, exactly, rowsOf, searchCircle, shrink, totalNet } from "./loop-search";
import { Prices } from "./prices";
import type { Reach } from "./reach";

/** What is run: a process, or the sale of an item. */
export type Step = { readonly run: "process"; readonly process: number } | { readonly run: "sale"; readonly item: number };
/** What is left over: an item, or money of a currency. */
export type Thing = { readonly of: "item"; readonly item: number } | { readonly of: "currency"; readonly currency: number };

export interface Round {
  /** Whole numbers of runs, the smallest that were found; drop any step and it stops coming round. */
  readonly runs: readonly { readonly step: Step; readonly times: bigint }[];
  /** Expected seconds of one round. */
  readonly seconds: number;
  /** True when every process in it can be reached in a new world. */
  readonly live: boolean;
}
export interface Gain extends Round {
  /** Exact expected net of one round; every entry is above zero, all other items come out even. */
  readonly net: readonly { readonly thing: Thing; readonly amount: Fraction }[];
  /** Chance that a single round gains something and loses nothing (1: even in the worst draw), and whether it is exact. */
  readonly luck: () => { readonly chance: number; readonly exact: boolean };
}

export interface GainReport {
  readonly gains: readonly Gain[];
  /** Minimal rounds that give back exactly what they take, in expectation. */
  readonly even: readonly Round[];
  /** False where the search stopped at its limits: there may be more loops than those reported. */
  readonly complete: boolean;
  /** Columns that linear programmes were given, of all that take part. */
  readonly columns: number;
}

const NONE: GainReport = { gains: [], even: [], complete: true, columns: 0 };

/**
 * A gaining loop is x ≥ 0 over processes with S x ≥ 0 and S x ≠ 0, S the exact expected net yields of items and currencies;
 * what takes nothing is a source and no column, a sale is one.
 *
 * 1. Prices under which every process loses prove that there is none (prices.ts), with no programme at all.
 * 2. Where they can't: drop what uses something no process left makes, and what only leads from one circle into another. In
 *    every circle with a seed look for all minimal supports (loop-search.ts).
 * 3. Find small whole multiplicities, verify them in exact fractions.
 */
export function gains(compiled: Compiled, reach: Reach, prices = new Prices(compiled, reach)): GainReport {
  const { network } = compiled;
  const alone: number[] = [];
  for (let p = 0; p < network.processes; p++) if ((network.flags[p] & (ALIVE | GAINS)) === (ALIVE | GAINS)) alone.push(p);
  if (!alone.length && prices.clean) return NONE;
  const stepOf = (p: number): Step => ({ run: "process", process: p });
  const found = alone.map((p) => proof(compiled, reach, [{ process: p, net: netOfProcess(compiled, p) }], [1n], () => stepOf(p)));
  const even: Round[] = [];
  let complete = true;
  let columns = 0;
  if (!prices.clean) {
    const trade = new Trade(compiled, prices);
    const step = (column: Column) => trade.steps[column.process];
    const evenRound = (support: readonly Column[]): Round => {
      const ordered = trade.inRecordOrder(support);
      return round(compiled, reach, ordered, wholeMultiples(exactly(ordered, () => fraction(1n)) as Fraction[]), step);
    };
    for (const circle of trade.circles()) {
      const result = searchCircle(trade, circle, (row) => trade.worth(row));
      columns += result.columns;
      if (!result.complete) complete = false;
      for (const support of result.gaining) {
        const ordered = trade.inRecordOrder(trade.lifted(support));
        found.push(proof(compiled, reach, ordered, multiplicities(ordered, gainsWith), step));
      }
      for (const support of result.even) even.push(evenRound(trade.lifted(support)));
    }
    for (const support of trade.alone) {
      const ordered = trade.inRecordOrder(trade.lifted([support]));
      found.push(proof(compiled, reach, ordered, multiplicities(ordered, gainsWith), step));
    }
    for (const pair of trade.evenPairs()) even.push(evenRound(pair));
  }
  const size = (r: Round) => r.runs.reduce((t, { times }) => t + times, 0n);
  const name = (r: Round) => r.runs.map(({ step }) => stepKey(compiled, step)).sort().join();
  const bySize = (a: Round, b: Round) => a.runs.length - b.runs.length || Number(size(a) - size(b)) || (name(a) < name(b) ? -1 : 1);
  return { gains: found.sort(bySize), even: even.sort(bySize), complete, columns };
}

/** Whether anything gains at all, without looking for what does; true also where that could not be ruled out. */
export function gainsAtAll(compiled: Compiled, reach: Reach): boolean {
  const { network } = compiled;
  for (let p = 0; p < network.processes; p++) if ((network.flags[p] & (ALIVE | GAINS)) === (ALIVE | GAINS)) return true;
  const prices = new Prices(compiled, reach);
  if (prices.clean) return false;
  const trade = new Trade(compiled, prices);
  return trade.alone.length > 0 || trade.circles().some((circle) => circleGains(trade, circle, (row) => trade.worth(row)));
}

/** A name of a step that does not depend on numbers. */
export const stepKey = (compiled: Compiled, step: Step): string => (step.run === "process" ? processAt(compiled, step.process).record.id : `sale of ${compiled.items[step.item]}`);

/** Rows are items, then currencies. */
const rowOfCurrency = (compiled: Compiled, currency: number): number => compiled.network.items + currency;
const thingAt = ({ network }: Compiled, row: number): Thing => (row < network.items ? { of: "item", item: row } : { of: "currency", currency: row - network.items });

function netOfProcess(compiled: Compiled, p: number): Map<number, Fraction> {
  const { of, record } = processAt(compiled, p);
  const net = new Map([...netYield(record.lines)].map(([id, q]) => [compiled.index.get(id) as number, q]));
  const [amount, currency] = of === "recipe" ? [record.fee, record.feeCurrency] : [record.price, record.currency];
  if (amount > 0) net.set(rowOfCurrency(compiled, currencyAt(compiled, currency)), negate(fromNumber(amount)));
  return net;
}

/** How often circles are looked for again among what is left: whatever stays in too many only makes the search longer. */
const TURNS = 2;

/** The processes and sales that could be part of a loop, as a network of their own with currencies as items. */
class Trade {
  readonly network: Network;
  readonly steps: Step[] = [];
  /** Columns of more than one thing that gain by themselves once exact turns are free. */
  readonly alone: Column[] = [];
  private readonly columns = new Map<number, Column>();
  private readonly exact = new Map<number, Column>();
  private readonly seeds: Uint8Array;
  private readonly turns: Conversions;

  constructor(
    private readonly compiled: Compiled,
    private readonly prices: Prices,
  ) {
    const { network, sells } = compiled;
    const { ins, outs, money } = network;
    const builder = new NetworkBuilder(network.items + compiled.currencies.length);
    const merging = new Set<number>();
    const of = (step: Step, takes: [number, number][], gives: [number, number][]) => {
      const c = this.steps.push(step) - 1;
      if (this.turns.dropped.has(step.run === "process" ? step.process : -1)) [takes, gives] = [[], []];
      else if (this.turns.any && [...takes, ...gives].some(([i]) => tied.has(i))) {
        merging.add(c);
        const net = this.turns.merged(this.netOf(c).net);
        this.columns.set(c, { process: c, net });
        const side = (s: 1 | -1) => [...net].filter(([, q]) => sign(q) === s).map(([i, q]): [number, number] => [i, Math.abs(toNumber(q))]);
        [takes, gives] = [side(-1), side(1)];
        if (!takes.length && gives.length) {
          this.alone.push(this.netOf(c));
          gives = [];
        }
      }
      const row = (list: [number, number][]) => ({ to: list.map((e) => e[0]), qty: list.map((e) => e[1]) });
      const process: ProcessOf = { ins: row(takes), outs: row(gives), money: 0, seconds: 0, level: 0, flags: 0 };
      builder.add(process);
    };
    this.turns = new Conversions(this.pairsOf());
    const tied = this.turns.things();
    const entries = ({ start, end, to, qty }: typeof ins, p: number): [number, number][] => {
      const list: [number, number][] = [];
      for (let k = start[p]; k < end[p]; k++) if ((qty as Float64Array)[k] > 0) list.push([to[k], (qty as Float64Array)[k]]);
      return list;
    };
    for (let p = 0; p < network.processes; p++) {
      if (!prices.takesPart(p) || outs.start[p] === outs.end[p]) continue;
      const takes = entries(ins, p);
      if (money[p] > 0) {
        const { of: kind, record } = processAt(compiled, p);
        takes.push([rowOfCurrency(compiled, currencyAt(compiled, kind === "recipe" ? record.feeCurrency : record.currency)), kind === "recipe" ? record.fee : record.price]);
      }
      of({ run: "process", process: p }, takes, entries(outs, p));
    }
    if (prices.trades) for (let i = 0; i < network.items; i++) if (sells[i] > 0) of({ run: "sale", item: i }, [[i, 1]], [[rowOfCurrency(compiled, 0), sells[i]]]);
    this.network = builder.build();
    this.seeds = Uint8Array.from(this.steps, (step, c) => Number(merging.has(c) || (step.run === "process" ? prices.seeds.has(step.process) : prices.sold.has(step.item))));
  }

  /** Processes among the seeds and beside them that turn one thing into one other: only those can be seeds for being exact. */
  private pairsOf(): Turn[] {
    const { compiled, prices } = this;
    const { ins, outs, users, money } = compiled.network;
    const single = (p: number) => {
      let n = 0;
      for (let k = ins.start[p]; k < ins.end[p]; k++) if ((ins.qty as Float64Array)[k] > 0) n++;
      return n === 1 && outs.end[p] - outs.start[p] === 1 && !(money[p] > 0);
    };
    const near = new Set<number>();
    for (const p of prices.seeds) {
      if (!single(p)) continue;
      near.add(p);
      const made = outs.to[outs.start[p]];
      for (let k = users.start[made]; k < users.end[made]; k++) if (prices.takesPart(users.to[k]) && single(users.to[k])) near.add(users.to[k]);
    }
    const id = (p: number) => processAt(compiled, p).record.id;
    return [...near].sort((a, b) => (id(a) < id(b) ? -1 : 1)).flatMap((p) => turnOf(p, netOfProcess(compiled, p)) ?? []);
  }

  /** A support with the exact turns that it needs, of which nothing can be left out. */
  lifted(support: readonly Column[]): Column[] {
    const own = support.map((c) => this.netOf(c.process));
    if (!this.turns.any) return own;
    const times = support.length === 1 ? [fraction(1n)] : (exactly(support, () => fraction(1n)) as Fraction[]);
    const net = new Map<number, Fraction>();
    own.forEach((column, k) => {
      for (const [row, q] of column.net) net.set(row, add(net.get(row) ?? ZERO, multiply(q, times[k])));
    });
    const turns = this.turns.makeUp(net).map((t) => this.netOf(this.columnOf(t)));
    if (!turns.length) return own;
    const all = [...own, ...turns];
    return shrink(all, (k) => (k < own.length ? fraction(1n) : ZERO)) ?? all;
  }

  evenPairs(): Column[][] {
    return this.turns.pairs.map((pair) => pair.map((t) => this.netOf(this.columnOf(t))));
  }

  private columnOf(turn: Turn): number {
    return this.steps.findIndex((s) => s.run === "process" && s.process === turn.process);
  }

  /** With things that exact turns tie together counted as one. */
  column(c: number): Column {
    return this.columns.get(c) ?? this.netOf(c);
  }

  /** As it is. */
  private netOf(c: number): Column {
    let column = this.exact.get(c);
    if (!column) {
      const step = this.steps[c];
      const net =
        step.run === "process"
          ? netOfProcess(this.compiled, step.process)
          : new Map([[step.item, fraction(-1n)], [rowOfCurrency(this.compiled, 0), fromNumber(this.compiled.sells[step.item])]]);
      column = { process: c, net };
      this.exact.set(c, column);
    }
    return column;
  }

  worth(row: number): number {
    return row < this.compiled.network.items ? this.prices.price[row] : (this.compiled.catalogue.currency.get(this.compiled.currencies[row - this.compiled.network.items] as never)?.worth ?? 1);
  }

  /** Purchases first, then crafts, salvages and sales, each by key: the same order whatever the numbers of the processes are. */
  inRecordOrder(support: readonly Column[]): Column[] {
    const key = (c: Column) => {
      const step = this.steps[c.process];
      if (step.run === "sale") return `3${this.compiled.items[step.item]}`;
      const { of, record } = processAt(this.compiled, step.process);
      return `${of === "source" ? 0 : record.kind === "salvage" ? 2 : 1}${record.key}`;
    };
    return [...support].sort((a, b) => (key(a) < key(b) ? -1 : 1));
  }

  /** Columns of each circle that takes everything from within and holds a seed. */
  circles(): number[][] {
    const { network, seeds } = this;
    const alive = new Uint8Array(network.processes).fill(1);
    for (let turn = 1; ; turn++) {
      prune(network, alive);
      const groups = rounds(network, { links: "uses", alive });
      const group = new Int32Array(network.items).fill(-1);
      groups.forEach(({ items }, g) => { for (const i of items) group[i] = g; });
      const inside = new Uint8Array(alive.length);
      const closed = groups.map(({ processes }, g) =>
        processes.filter((p) => {
          for (let k = network.ins.start[p]; k < network.ins.end[p]; k++) if (group[network.ins.to[k]] !== g) return false;
          inside[p] = 1;
          return true;
        }),
      );
      let changed = false;
      for (let p = 0; p < alive.length; p++)
        if (alive[p] && !inside[p]) {
          alive[p] = 0;
          changed = true;
        }
      if (!changed || turn === TURNS) return closed.filter((ps) => ps.some((p) => seeds[p]));
    }
  }
}

/** Takes out processes that use an item no process left makes, until nothing changes. */
function prune(network: Network, alive: Uint8Array): void {
  const { ins, outs, users } = network;
  const makers = new Int32Array(network.items);
  for (let p = 0; p < alive.length; p++) if (alive[p]) for (let k = outs.start[p]; k < outs.end[p]; k++) makers[outs.to[k]]++;
  const dead: number[] = [];
  const kill = (p: number) => {
    alive[p] = 0;
    dead.push(p);
  };
  for (let p = 0; p < alive.length; p++) {
    if (!alive[p]) continue;
    for (let k = ins.start[p]; k < ins.end[p]; k++)
      if (makers[ins.to[k]] === 0) {
        kill(p);
        break;
      }
  }
  for (let p = dead.pop(); p !== undefined; p = dead.pop())
    for (let k = outs.start[p]; k < outs.end[p]; k++) {
      const item = outs.to[k];
      if (--makers[item] > 0) continue;
      for (let u = users.start[item]; u < users.end[item]; u++) if (alive[users.to[u]]) kill(users.to[u]);
    }
}

/** Whole numbers of runs for a minimal support: tried from small sums upwards, else a vertex of the exact programme. */
function multiplicities(support: readonly Column[], holds: (support: readonly Column[], times: readonly bigint[]) => boolean): bigint[] {
  const rows = [...rowsOf(support).values()].map((row) => row.map(toNumber));
  const k = support.length;
  let tries = 0;
  for (let total = k; total <= 60 && k <= 8 && tries < 30_000; total++) {
    const parts = new Array<number>(k).fill(1);
    const place = (at: number, left: number): number[] | null => {
      if (tries++ > 30_000) return null;
      if (at === k - 1) {
        parts[at] = left;
        const near = rows.every((row) => row.reduce((t, q, j) => t + q * parts[j], 0) > -1e-9);
        return near && holds(support, parts.map(BigInt)) ? [...parts] : null;
      }
      for (let n = 1; n <= left - (k - 1 - at); n++) {
        parts[at] = n;
        const hit = place(at + 1, left - n);
        if (hit) return hit;
      }
      return null;
    };
    const hit = place(0, total);
    if (hit) return hit.map(BigInt);
  }
  return wholeMultiples(exactly(support, totalNet) as Fraction[]);
}

function netOf(support: readonly Column[], times: readonly bigint[]): Map<number, Fraction> {
  const net = new Map<number, Fraction>();
  support.forEach((column, k) => {
    for (const [row, q] of column.net) net.set(row, add(net.get(row) ?? ZERO, multiply(q, fraction(times[k]))));
  });
  return net;
}

const gainsWith = (support: readonly Column[], times: readonly bigint[]): boolean => {
  const signs = [...netOf(support, times).values()].map(sign);
  return signs.every((s) => s >= 0) && signs.some((s) => s > 0);
};

/** The steps in the order in which a player would run them: each uses what the one before it makes, where that can be. */
function inOrder(support: readonly Column[]): number[] {
  const rest = new Set(support.map((_, k) => k));
  const order: number[] = [];
  const follows = (k: number, after: Column) => [...support[k].net].some(([row, q]) => q.n < 0n && (after.net.get(row)?.n ?? 0n) > 0n);
  for (let k: number | undefined = 0; k !== undefined && rest.size; ) {
    order.push(k);
    rest.delete(k);
    const here: Column = support[k];
    k = [...rest].find((j) => follows(j, here)) ?? [...rest][0];
  }
  return order;
}

function round(compiled: Compiled, reach: Reach, support: readonly Column[], times: readonly bigint[], stepOf: (column: Column) => Step): Round {
  const steps = support.map(stepOf);
  return {
    runs: inOrder(support).map((k) => ({ step: steps[k], times: times[k] })),
    seconds: steps.reduce((t, step, k) => t + (step.run === "process" ? compiled.network.seconds[step.process] * Number(times[k]) : 0), 0),
    live: steps.every((step) => (step.run === "process" ? reach.fires(step.process) : reach.items[step.item] === 1)),
  };
}

/** @throws Error when the exact sum does not bear the claim out: a fault of this file, never of the data */
function proof(compiled: Compiled, reach: Reach, support: readonly Column[], times: readonly bigint[], stepOf: (column: Column) => Step): Gain {
  if (!gainsWith(support, times)) throw new Error("A gaining loop failed its proof.");
  const net = [...netOf(support, times)].filter(([, q]) => sign(q) > 0).map(([row, amount]) => ({ thing: thingAt(compiled, row), amount }));
  const lines = support.flatMap((column, k) => {
    const step = stepOf(column);
    return step.run === "process" ? [{ lines: processAt(compiled, step.process).record.lines, times: times[k] }] : [];
  });
  // Sales and fees take and give fixed amounts; only what they leave of each thing matters beside the draws.
  const fixed = new Map<number, Fraction>();
  support.forEach((column, k) => {
    const step = stepOf(column);
    for (const [row, q] of column.net) if (step.run === "sale" || row >= compiled.network.items) fixed.set(row, add(fixed.get(row) ?? ZERO, multiply(q, fraction(times[k]))));
  });
  const besides = [...fixed].map(([row, amount]) => [row < compiled.network.items ? (compiled.items[row] as string) : `currency ${row}`, amount] as const);
  let known: ReturnType<typeof chanceOfGain> | null = null;
  const luck = () => {
    known ??= chanceOfGain(lines, besides);
    return known;
  };
  return { ...round(compiled, reach, support, times, stepOf), net, luck };
}

