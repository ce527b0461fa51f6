/** Rounds of a loop: whole numbers of runs in the order of play, with an exact proof of what they leave. */
import { type Compiled, processAt } from "../network/compile";
import { add, type Fraction, fraction, multiply, sign, toNumber, wholeMultiples, ZERO } from "../numbers/fraction";
import type { LoopStep, Balance } from "./trade";
import { thingAt } from "./trade";
import { type Column, exactly, rowsOf, totalNet } from "./support";
import type { Budget } from "../budget/budget";
import { chanceOfGain, type Luck } from "./luck";
import type { Reach } from "../network/reach";
export interface Round {
  /** Whole numbers of runs, the smallest that were found; drop any step and it stops coming round. */
  readonly runs: readonly { readonly step: LoopStep; readonly times: bigint }[];
  /** Expected seconds of one round. */
  readonly seconds: number;
  /** True when every process in it can be reached in a new world. */
  readonly live: boolean;
}
export interface Gain extends Round {
  /** Exact expected net of one round; every entry is above zero, all other items come out even. */
  readonly net: readonly { readonly thing: Balance; readonly amount: Fraction }[];
  /**
   * Chance that a single round gains something and loses nothing (1: even in the worst draw), and whether it is exact.
   */
  readonly luck: () => Luck;
  /** The records it was found from, and the prices of what it sells: as long as they are the same, so is this. */
  readonly of: readonly unknown[];
}

/** Whole numbers of runs for a minimal support: tried from small sums upwards, else a vertex of the exact programme. */
export function multiplicities(
  support: readonly Column[],
  holds: (support: readonly Column[], times: readonly bigint[]) => boolean,
  steps: Budget,
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

export const gainsWith = (support: readonly Column[], times: readonly bigint[]): boolean => {
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

export const isLive = (reach: Reach, steps: readonly LoopStep[]): boolean =>
  steps.every((step) => (step.run === "process" ? reach.fires(step.process) : reach.items[step.item] === 1));

export function round(
  compiled: Compiled,
  reach: Reach,
  support: readonly Column[],
  times: readonly bigint[],
  stepOf: (column: Column) => LoopStep,
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
export function proof(
  compiled: Compiled,
  reach: Reach,
  support: readonly Column[],
  times: readonly bigint[],
  stepOf: (column: Column) => LoopStep,
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
      [row < compiled.network.items ? (compiled.nodeOf(row) as string) : `currency ${row}`, amount] as const,
  );
  let known: Luck | null = null;
  const luck = () => {
    known ??= chanceOfGain(lines, besides);
    return known;
  };
  return { ...round(compiled, reach, support, times, stepOf), net, luck, of };
}
