/** How many runs it takes, from lines. */
import { fewestRuns, perRun } from "../analysis/chances";
import { flows } from "../network/process";
import type { Line } from "../notation/line";

/** The fewest runs after which at least an amount has come with the given confidence; null: none does. */
export function runsFor(lines: readonly Line[], item: string, amount: number, confidence: number): number | null {
  const one = perRun(flows(lines), item);
  return one.from < 0 ? null : fewestRuns(one, amount, confidence);
}
