/** Times as medians with their spread, and how they are said. */
import { setFlagsFromString } from "node:v8";
import { runInNewContext } from "node:vm";
import type { CsrRows, Network } from "../src/core/network/network";

export interface Timing {
  readonly median: number;
  readonly low: number;
  readonly high: number;
  readonly p95: number;
}

export const summary = (times: number[]): Timing => {
  times.sort((a, b) => a - b);
  return {
    median: times[times.length >> 1],
    low: times[0],
    high: times[times.length - 1],
    p95: times[Math.floor(times.length * 0.95)],
  };
};

/** What was computed last, kept so that no work can be left out. */
export let last: unknown;
/** Calls are made for so long [ms], and once at least, before they are timed: short ones are compiled by then. */
const WARM = 300;
/** Milliseconds of a call: of several after a warm-up. */
export function time(work: () => unknown, runs: number): Timing {
  const began = performance.now();
  do last = work();
  while (performance.now() - began < WARM);
  return summary(
    Array.from({ length: runs }, () => {
      const at = performance.now();
      last = work();
      return performance.now() - at;
    }),
  );
}

/** One pass over the same arrays, both directions, from end to end and without a look at rows. */
export const floor = ({ ins, outs, consumers, producers }: Network): number =>
  amounts(ins) + amounts(outs) + links(consumers) + links(producers);

function amounts({ to, qty }: CsrRows): number {
  const q = qty as Float64Array;
  let sum = 0;
  for (let k = 0; k < to.length; k++) sum += q[k] * to[k];
  return sum;
}
function links({ to }: CsrRows): number {
  let sum = 0;
  for (let k = 0; k < to.length; k++) sum += to[k];
  return sum;
}

/** Clears away what no one holds any more. */
export function collect(): void {
  setFlagsFromString("--expose-gc");
  (runInNewContext("gc") as () => void)();
}

/** Bytes of heap that something holds. */
export function heldBy<T>(make: () => T): { readonly of: T; readonly bytes: number } {
  collect();
  const before = process.memoryUsage().heapUsed;
  const of = make();
  collect();
  return { of, bytes: process.memoryUsage().heapUsed - before };
}

export const say = (text: string): void => console.log(text);
/** A share as people say it: 1/1,200. */
export const part = (x: number): string => `1/${Math.round(1 / x).toLocaleString("en")}`;
export const multiples = (
  rows: readonly (readonly [string, Timing])[],
  unit: number,
): { [name: string]: { median: number; low: number; high: number } } =>
  Object.fromEntries(
    rows.map(([name, t]) => [name, { median: t.median / unit, low: t.low / unit, high: t.high / unit }]),
  );
export function table(rows: readonly (readonly [string, Timing])[], unit: number): void {
  say(`  ${"".padEnd(44)}${"× one pass".padStart(12)}${"low".padStart(9)}${"high".padStart(9)}`);
  for (const [name, t] of rows)
    say(
      `  ${name.padEnd(44)}${[t.median, t.low, t.high].map((ms, k) => (ms / unit).toFixed(2).padStart(k ? 9 : 12)).join("")}`,
    );
}
