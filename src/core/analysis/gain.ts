/** Gaining loops: processes that, run in some whole numbers, leave more than before and less of nothing. */
import { type Compiled, currencyAt, processAt } from "../network/compile";
import { netYield } from "../network/expected";
import { ALIVE, GAINS } from "../network/network";
import {
  add,
  type Fraction,
  fraction,
  fromNumber,
  multiply,
  negate,
  sign,
  toNumber,
  wholeMultiples,
  ZERO,
} from "../numbers/fraction";
import { Conversions, type Turn, turnOf } from "./conversions";
import { anyGains, type Column, exactly, type Nets, rowsOf, searchLoops, shrink, totalNet } from "./loop-search";
import { Steps, TooMany } from "../numbers/steps";
import { chanceOfGain, type Luck } from "./luck";
import { Prices } from "./prices";
import type { Reach } from "../network/reach";

/** What is run: a process, or the sale of an item. */
export type Step =
  | { readonly run: "process"; readonly process: number }
  | { readonly run: "sale"; readonly item: number };
/** What is left over: an item, or money of a currency. */
export type Thing =
  | { readonly of: "item"; readonly item: number }
  | { readonly of: "currency"; readonly currency: number };

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
  /**
   * Chance that a single round gains something and loses nothing (1: even in the worst draw), and whether it is exact.
   */
  readonly luck: () => Luck;
  /** The records it was found from, and the prices of what it sells: as long as they are the same, so is this. */
  readonly of: readonly unknown[];
}

export interface GainReport {
  readonly gains: readonly Gain[];
  /** Minimal rounds that give back exactly what they take, in expectation. */
  readonly even: readonly Round[];
  /** False where the search stopped at its limits: there may be more loops than those reported. */
  readonly complete: boolean;
  /** Columns that linear programmes were given, of all that take part. */
  readonly columns: number;
  /** Why the search failed, where it did. */
  readonly failed?: string;
}

/** Steps in which all loops that were found are proved. */
const PROOF_STEPS = 2e8;

const NONE: GainReport = { gains: [], even: [], complete: true, columns: 0 };

/**
 * A gaining loop is x ≥ 0 over processes with S x ≥ 0 and S x ≠ 0, S the exact expected net yields of items and
 * currencies;
 * what takes nothing is a source and no column, a sale is one.
 *
 * 1. Prices under which every process loses prove that there is none (prices.ts), with no programme at all.
 * 2. Where they can't: look for all minimal supports around the violators (loop-search.ts).
 * 3. Find small whole multiplicities, verify them in exact fractions.
 * @param known  what was found before some records changed: loops of others are taken over
 */
export function gains(
  compiled: Compiled,
  reach: Reach,
  prices = new Prices(compiled, reach),
  known: GainReport = NONE,
): GainReport {
  const { network } = compiled;
  const alone: number[] = [];
  for (let p = 0; p < network.processes; p++)
    if ((network.flags[p] & (ALIVE | GAINS)) === (ALIVE | GAINS)) alone.push(p);
  if (!alone.length && prices.clean) return NONE;
  const numbers = (steps: readonly Step[]) =>
    steps
      .map((step) => (step.run === "process" ? step.process : -1 - step.item))
      .sort((a, b) => a - b)
      .join();
  const before = new Map(known.gains.map((g) => [numbers(g.runs.map((r) => r.step)), g]));
  // What was found is proved within limits of its own; what can't be is left out, and said to be incomplete.
  const limit = new Steps(PROOF_STEPS);
  const proved = (support: readonly Column[], stepOf: (column: Column) => Step): Gain => {
    const steps = support.map(stepOf);
    const of = steps.map((step) =>
      step.run === "process" ? processAt(compiled, step.process).record : compiled.sells[step.item],
    );
    const there = before.get(numbers(steps));
    if (there?.live === isLive(reach, steps) && there.of.every((x, k) => x === of[k])) return there;
    return proof(
      compiled,
      reach,
      support,
      support.length === 1 ? [1n] : multiplicities(support, gainsWith, limit),
      stepOf,
      of,
    );
  };
  const found = alone.map((p) =>
    proved([{ process: p, net: netOfProcess(compiled, p) }], (): Step => ({ run: "process", process: p })),
  );
  const even: Round[] = [];
  const unlessTooMany = <T>(work: () => T, keep: (found: T) => void): void => {
    try {
      keep(work());
    } catch (error) {
      if (!(error instanceof TooMany)) throw error;
      complete = false;
    }
  };
  let complete = true;
  let columns = 0;
  if (!prices.clean) {
    const trade = new Trade(compiled, prices);
    const step = (column: Column) => trade.stepOf(column.process);
    const evenRound = (support: readonly Column[]): Round => {
      const ordered = trade.inRecordOrder(support);
      return round(
        compiled,
        reach,
        ordered,
        wholeMultiples(exactly(ordered, () => fraction(1n), limit) as Fraction[]),
        step,
      );
    };
    const result = searchLoops(trade);
    ({ columns, complete } = result);
    for (const support of [...result.gaining, ...trade.alone.map((column) => [column])])
      unlessTooMany(
        () => proved(trade.inRecordOrder(trade.lifted(support, limit)), step),
        (gain) => found.push(gain),
      );
    for (const support of result.even)
      unlessTooMany(
        () => evenRound(trade.lifted(support, limit)),
        (loop) => even.push(loop),
      );
    for (const pair of trade.evenPairs())
      unlessTooMany(
        () => evenRound(pair),
        (loop) => even.push(loop),
      );
  }
  const size = (r: Round) => r.runs.reduce((t, { times }) => t + times, 0n);
  const name = (r: Round) =>
    r.runs
      .map(({ step }) => stepKey(compiled, step))
      .sort()
      .join();
  const bySize = (a: Round, b: Round) =>
    a.runs.length - b.runs.length || Number(size(a) - size(b)) || (name(a) < name(b) ? -1 : 1);
  return { gains: found.sort(bySize), even: even.sort(bySize), complete, columns };
}

/** Whether anything gains at all, without looking for what does; true also where that could not be ruled out. */
export function gainsAtAll(compiled: Compiled, reach: Reach): boolean {
  const { network } = compiled;
  for (let p = 0; p < network.processes; p++) if ((network.flags[p] & (ALIVE | GAINS)) === (ALIVE | GAINS)) return true;
  const prices = new Prices(compiled, reach);
  if (prices.clean) return false;
  const trade = new Trade(compiled, prices);
  return trade.alone.length > 0 || anyGains(trade);
}

/** A name of a step that does not depend on numbers. */
export const stepKey = (compiled: Compiled, step: Step): string =>
  step.run === "process" ? compiled.processId(step.process) : `sale of ${compiled.idOf(step.item)}`;

/** Rows are items, then currencies. */
const rowOfCurrency = (compiled: Compiled, currency: number): number => compiled.network.items + currency;
const thingAt = ({ network }: Compiled, row: number): Thing =>
  row < network.items ? { of: "item", item: row } : { of: "currency", currency: row - network.items };

function netOfProcess(compiled: Compiled, p: number): Map<number, Fraction> {
  const { spec } = processAt(compiled, p);
  const net = new Map([...netYield(spec.lines)].map(([id, q]) => [compiled.numberOf(id) as number, q]));
  if (spec.price > 0)
    net.set(rowOfCurrency(compiled, currencyAt(compiled, spec.currency)), negate(fromNumber(spec.price)));
  return net;
}

/** Purchases first, then crafts, then salvages. */
const ORDER = { source: 0, craft: 1, salvage: 2 } as const;

/** The processes and sales that could be part of a loop: rows are items and currencies, columns processes and sales. */
class Trade implements Nets {
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
      ...new Set([...merging, ...prices.violators, ...[...prices.sold].map((i) => compiled.network.processes + i)]),
    ].filter((c) => !this.gone.has(c));
  }

  stepOf(c: number): Step {
    const { processes } = this.compiled.network;
    return c < processes ? { run: "process", process: c } : { run: "sale", item: c - processes };
  }

  *producers(row: number): Generator<number> {
    const { producers, items, processes } = this.compiled.network;
    if (row >= items) {
      if (row === items && this.prices.trades)
        for (let i = 0; i < items; i++) if (this.compiled.sells[i] > 0) yield processes + i;
      return;
    }
    for (const i of this.tied.get(row) ?? [row])
      for (let k = producers.start[i]; k < producers.end[i]; k++)
        if (this.counts(producers.to[k])) yield producers.to[k];
  }
  /** Nobody asks who takes money: its price stays. */
  *consumers(row: number): Generator<number> {
    const { consumers, items, processes } = this.compiled.network;
    if (row >= items) return;
    for (const i of this.tied.get(row) ?? [row]) {
      for (let k = consumers.start[i]; k < consumers.end[i]; k++)
        if (this.counts(consumers.to[k])) yield consumers.to[k];
      if (this.prices.trades && this.compiled.sells[i] > 0) yield processes + i;
    }
  }
  private counts(p: number): boolean {
    return this.prices.takesPart(p) && !this.gone.has(p);
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
  lifted(support: readonly Column[], steps: Steps): Column[] {
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
              [rowOfCurrency(this.compiled, 0), fromNumber(this.compiled.sells[step.item])],
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
      if (step.run === "sale") return `3${this.compiled.idOf(step.item)}`;
      const { spec, record } = processAt(this.compiled, step.process);
      return `${ORDER[spec.sort]}${record.key}`;
    };
    return [...support].sort((a, b) => (key(a) < key(b) ? -1 : 1));
  }
}

/** Whole numbers of runs for a minimal support: tried from small sums upwards, else a vertex of the exact programme. */
function multiplicities(
  support: readonly Column[],
  holds: (support: readonly Column[], times: readonly bigint[]) => boolean,
  steps: Steps,
): bigint[] {
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
  return wholeMultiples(exactly(support, totalNet, steps) as Fraction[]);
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

/**
 * The steps in the order in which a player would run them: each uses what the one before it makes, where that can be.
 */
function inOrder(support: readonly Column[]): number[] {
  const rest = new Set(support.map((_, k) => k));
  const order: number[] = [];
  const follows = (k: number, after: Column) =>
    [...support[k].net].some(([row, q]) => q.n < 0n && (after.net.get(row)?.n ?? 0n) > 0n);
  for (let k: number | undefined = 0; k !== undefined && rest.size; ) {
    order.push(k);
    rest.delete(k);
    const here: Column = support[k];
    k = [...rest].find((j) => follows(j, here)) ?? [...rest][0];
  }
  return order;
}

const isLive = (reach: Reach, steps: readonly Step[]): boolean =>
  steps.every((step) => (step.run === "process" ? reach.fires(step.process) : reach.items[step.item] === 1));

function round(
  compiled: Compiled,
  reach: Reach,
  support: readonly Column[],
  times: readonly bigint[],
  stepOf: (column: Column) => Step,
): Round {
  const steps = support.map(stepOf);
  return {
    runs: inOrder(support).map((k) => ({ step: steps[k], times: times[k] })),
    seconds: steps.reduce(
      (t, step, k) => t + (step.run === "process" ? compiled.network.seconds[step.process] * Number(times[k]) : 0),
      0,
    ),
    live: isLive(reach, steps),
  };
}

/** @throws Error when the exact sum does not bear the claim out: a fault of this file, never of the data */
function proof(
  compiled: Compiled,
  reach: Reach,
  support: readonly Column[],
  times: readonly bigint[],
  stepOf: (column: Column) => Step,
  of: readonly unknown[],
): Gain {
  if (!gainsWith(support, times)) throw new Error("A gaining loop failed its proof.");
  const net = [...netOf(support, times)]
    .filter(([, q]) => sign(q) > 0)
    .map(([row, amount]) => ({ thing: thingAt(compiled, row), amount }));
  const lines = support.flatMap((column, k) => {
    const step = stepOf(column);
    return step.run === "process" ? [{ lines: processAt(compiled, step.process).spec.lines, times: times[k] }] : [];
  });
  // Sales and fees take and give fixed amounts; only what they leave of each thing matters beside the draws.
  const fixed = new Map<number, Fraction>();
  support.forEach((column, k) => {
    const step = stepOf(column);
    for (const [row, q] of column.net)
      if (step.run === "sale" || row >= compiled.network.items)
        fixed.set(row, add(fixed.get(row) ?? ZERO, multiply(q, fraction(times[k]))));
  });
  const besides = [...fixed].map(
    ([row, amount]) =>
      [row < compiled.network.items ? (compiled.idOf(row) as string) : `currency ${row}`, amount] as const,
  );
  let known: Luck | null = null;
  const luck = () => {
    known ??= chanceOfGain(lines, besides);
    return known;
  };
  return { ...round(compiled, reach, support, times, stepOf), net, luck, of };
}
