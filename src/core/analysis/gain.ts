/** Gaining loops: processes that, run in some whole numbers, leave more than before and less of nothing. */
import { type Compiled, processAt } from "../network/compile";
import { ALIVE, GAINS, MEMBER } from "../network/network";
import { type Fraction, fraction, wholeMultiples } from "../numbers/fraction";
import { anyGains, type FoundLoops, searchLoops } from "./loop-search";
import { type Gain, gainsWith, isLive, multiplicities, proof, round, type Round } from "./rounds";
import { netOfProcess, type LoopStep, Trade } from "./trade";
import { type Column, exactly } from "./support";
import { Budget, TooMany } from "../budget/budget";
import { Prices } from "./prices";
import type { Reach } from "../network/reach";
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

/** Steps of a first look for loops. */
const FEW_STEPS = 5e6;
/** Budget in which all loops that were found are proved. */
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
  const numbers = (steps: readonly LoopStep[]) =>
    steps
      .map((step) => (step.run === "process" ? step.process : -1 - step.item - step.currency * network.items))
      .sort((a, b) => a - b)
      .join();
  const before = new Map(known.gains.map((g) => [numbers(g.runs.map((r) => r.step)), g]));
  // What was found is proved within limits of its own; what can't be is left out, and said to be incomplete.
  const limit = new Budget(PROOF_STEPS);
  const proved = (support: readonly Column[], stepOf: (column: Column) => LoopStep): Gain => {
    const steps = support.map(stepOf);
    const of = steps.map((step) =>
      step.run === "process"
        ? processAt(compiled, step.process).record
        : compiled.salesOf(step.item).get(step.currency),
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
    proved([{ process: p, net: netOfProcess(compiled, p) }], (): LoopStep => ({ run: "process", process: p })),
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
  const sought = loopsAround(compiled, prices);
  if (sought) {
    const { trade, result } = sought;
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
  /** The records that are run, but for what counts as any with a tag. */
  const recordsOf = (r: Round) =>
    [
      ...new Set(
        r.runs.flatMap(({ step }) =>
          step.run === "process" && network.flags[step.process] & MEMBER ? [] : [stepKey(compiled, step)],
        ),
      ),
    ].join();
  const size = (r: Round) => r.runs.reduce((t, { times }) => t + times, 0n);
  const name = (r: Round) =>
    r.runs
      .map(({ step }) => stepKey(compiled, step))
      .sort()
      .join();
  // What a recipe gains of what it gives itself is told once, not again by way of any with a tag.
  const single = new Set(found.flatMap((g) => (g.runs.length === 1 ? [recordsOf(g)] : [])));
  const again = (g: Gain) => g.runs.length > 1 && single.has(recordsOf(g));
  const bySize = (a: Round, b: Round) =>
    a.runs.length - b.runs.length || Number(size(a) - size(b)) || (name(a) < name(b) ? -1 : 1);
  return { gains: found.filter((g) => !again(g)).sort(bySize), even: even.sort(bySize), complete, columns };
}

/**
 * The loops around the violators, and what they were looked for in; null: prices prove that there are none. Where a quick
 * look does not settle it, better prices may prove that. Where they don't, those that lowering found decide: which
 * violators relaxation leaves is a matter of the order in which runs are looked at.
 */
function loopsAround(compiled: Compiled, prices: Prices): { trade: Trade; result: FoundLoops } | null {
  if (prices.clean) return null;
  const trade = new Trade(compiled, prices);
  const quick = searchLoops(trade, FEW_STEPS);
  if (!quick.exhausted) return { trade, result: quick };
  return prices.relax() ? null : { trade, result: searchLoops(trade) };
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
export const stepKey = (compiled: Compiled, step: LoopStep): string =>
  step.run === "process" ? compiled.processId(step.process) : `sale of ${compiled.nodeOf(step.item)}`;
