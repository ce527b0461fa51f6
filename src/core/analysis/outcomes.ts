/** What runs of a recipe or source give of each thing that comes by chance: how often none, how much, and how many runs for one. */
import type { Line } from "../catalogue/records";
import { toNumber } from "../numbers/fraction";
import { atLeast, chanceOfNone, type Distribution, expectedOf, fewestRuns, perRun, repeated, TooMany } from "./chances";

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
}

type Part = Pick<Line, "role" | "item" | "min" | "max" | "chance" | "uses" | "draw">;

/** Whether an output comes in other amounts from run to run. */
export const byChance = (line: Part): boolean => line.role === "output" && (line.min !== line.max || line.chance < 1 || line.draw !== undefined);

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

/** null where there are more different amounts than can be kept apart. */
function unlessTooMany<T>(work: () => T): T | null {
  try {
    return work();
  } catch (error) {
    if (error instanceof TooMany) return null;
    throw error;
  }
}
const given = (lines: readonly Part[]): Line[] => lines.filter((l) => l.role === "output") as Line[];

/**
 * Each thing that comes by chance, over n independent runs; only outputs count, not what the run takes.
 * @returns null where there are more different amounts than can be kept apart
 */
export function outcomes(lines: readonly Part[], n: number): Outcome<Line["item"]>[] | null {
  const outs = given(lines);
  const items = [...new Set(outs.filter(byChance).map((l) => l.item))];
  return unlessTooMany(() =>
    items.map((item) => {
      const d = repeated(perRun(outs, item), n);
      return { item, expected: expectedOf(d), none: chanceOfNone(d), low: quantile(d, 0.1), middle: quantile(d, 0.5), high: quantile(d, 0.9) };
    }),
  );
}

/** The fewest runs for at least an amount of something with a confidence; null: no number of runs up to 100,000 does, or there are too many different amounts. */
export const runsUntil = (lines: readonly Part[], item: string, amount: number, confidence: number): number | null =>
  unlessTooMany(() => fewestRuns(perRun(given(lines), item), amount, confidence, { most: 100_000 }));

/** Chance of at least an amount after n runs; null where there are too many different amounts. */
export const chanceOf = (lines: readonly Part[], item: string, amount: number, n: number): number | null => unlessTooMany(() => atLeast(repeated(perRun(given(lines), item), n), amount));
