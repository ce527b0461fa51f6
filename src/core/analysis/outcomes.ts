/**
 * What runs of a recipe or source give of each thing that comes by chance: how often none, how much, and how many runs
 * for one.
 */
import type { Amounts } from "../notation/line";
import type { Flow } from "../network/process";
import type { Id } from "../schema/id";
import { toNumber } from "../numbers/fraction";
import { type Budget, TooMany } from "../budget/budget";
import {
  atLeast,
  chanceOfNone,
  chanceOfNothing,
  type Distribution,
  expectedOf,
  fewestRuns,
  happenings,
  perRun,
  repeated,
  work,
} from "./chances";
import { moments } from "./luck";

export interface Outcome<I extends string = string> {
  readonly item: I;
  /** Units on average. */
  readonly expected: number;
  /** Chance of none at all. */
  readonly none: number;
  /** Units that at most a tenth, half and nine tenths of all players stay below or at. */
  readonly low: number;
  readonly middle: number;
  readonly high: number;
  /** True where there are more different amounts than can be told apart: low, middle and high are about so much. */
  readonly about: boolean;
}

/** Lines of a record or of a process: what comes out is always an item. */
type Part = Pick<Amounts, "role" | "min" | "max" | "chance" | "uses" | "draw"> & { readonly item?: Id };

/** Whether an output comes in other amounts from run to run. */
export const byChance = (line: Part): boolean =>
  line.role === "output" && (line.min !== line.max || line.chance < 1 || line.draw !== undefined);

/** The least amount that at least a share of all cases stay at or below. */
export function quantile({ step, from, p }: Distribution, share: number): number {
  let sum = 0;
  let k = 0;
  for (; k < p.length - 1; k++) {
    sum += p[k];
    if (sum >= share - 1e-12) break;
  }
  return (from + k) * toNumber(step);
}

/** What is returned otherwise where it takes too many steps. */
function unlessTooMany<T, O>(work: () => T, otherwise: () => O): T | O {
  try {
    return work();
  } catch (error) {
    if (error instanceof TooMany) return otherwise();
    throw error;
  }
}
const given = (lines: readonly Part[]): Flow[] => lines.filter((l) => l.role === "output") as Flow[];

/** What one run gives: things that come by chance, how much of each, and about how much where that can't be told apart. */
export interface Giving {
  readonly items: readonly Id[];
  /** @throws TooMany */
  perRun(item: string, steps: Budget): Distribution;
  estimated(item: Id, runs: number): Outcome<Id>;
}
/** What lines alone give; see trials/given.ts for tables. */
export function givenBy(lines: readonly Part[]): Giving {
  const outs = given(lines);
  return {
    items: [...new Set(outs.filter(byChance).map((l) => l.item))],
    perRun: (item, steps) => perRun(outs, item, steps),
    estimated: (item, runs) => estimated(outs, item, runs),
  };
}
const asGiving = (of: Giving | readonly Part[]): Giving => ("perRun" in of ? of : givenBy(of));

/** Each thing that comes by chance, over n independent runs; only outputs count, not what the run takes. */
export function outcomes(of: Giving | readonly Part[], n: number, steps: Budget = work()): Outcome<Id>[] {
  const giving = asGiving(of);
  return giving.items.map((item) =>
    unlessTooMany(
      () => {
        const d = repeated(giving.perRun(item, steps), n, steps);
        return {
          item,
          expected: expectedOf(d),
          none: chanceOfNone(d),
          low: quantile(d, 0.1),
          middle: quantile(d, 0.5),
          high: quantile(d, 0.9),
          about: false,
        };
      },
      () => giving.estimated(item, n),
    ),
  );
}

/** Standard deviations from the mean below which a tenth of a normal variable lies. */
const TENTH = 1.2815515655446004;

/**
 * From mean and variance, as if the sum were normal; never beyond what can come at all. The chance of none is exact.
 */
function estimated<I extends string>(lines: readonly Flow[], item: I, n: number): Outcome<I> {
  let [mean, variance, none, most] = [0, 0, 1, 0];
  for (const { alternatives, times } of happenings(lines)) {
    const own = alternatives.filter((o) => o.item === item);
    const each = own.map((o) => ({ p: o.p, ...moments(o) }));
    const first = each.reduce((t, m) => t + m.p * m.first, 0);
    mean += times * first;
    variance += times * Math.max(0, each.reduce((t, m) => t + m.p * m.second, 0) - first * first);
    most += times * own.reduce((top, o) => Math.max(top, toNumber(o.low) + toNumber(o.step) * (o.count - 1)), 0);
    const zero = own.reduce((t, o) => t + (o.low.n === 0n ? o.p / o.count : 0), 0);
    none *= (chanceOfNothing(own) + zero) ** times;
  }
  return aboutNormal(item, n, { mean, variance, none, most });
}

/** Moments of what one run gives of something, its chance of none, and the most it can give. */
export interface Moments {
  readonly mean: number;
  readonly variance: number;
  readonly none: number;
  readonly most: number;
}
export function aboutNormal<I extends string>(item: I, n: number, { mean, variance, none, most }: Moments): Outcome<I> {
  const at = (z: number) => Math.round(Math.min(n * most, Math.max(0, n * mean + z * Math.sqrt(n * variance))));
  return { item, expected: n * mean, none: none ** n, low: at(-TENTH), middle: at(0), high: at(TENTH), about: true };
}

/**
 * The fewest runs for at least an amount of something with a confidence; null: no number of runs up to 100,000 does;
 * "unknown": too many amounts to tell.
 */
export const runsUntil = (
  of: Giving | readonly Part[],
  item: string,
  amount: number,
  confidence: number,
  steps: Budget = work(),
): number | null | "unknown" =>
  unlessTooMany(
    () => fewestRuns(asGiving(of).perRun(item, steps), amount, confidence, { most: 100_000, steps }),
    () => "unknown" as const,
  );

/** Chance of at least an amount after n runs; null where there are too many different amounts. */
export const chanceOf = (of: Giving | readonly Part[], item: string, amount: number, n: number): number | null =>
  unlessTooMany(
    () => {
      const steps = work();
      return atLeast(repeated(asGiving(of).perRun(item, steps), n, steps), amount);
    },
    () => null,
  );
