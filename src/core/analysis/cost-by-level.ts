/** What an item costs a character of each level: recipes and sources open with levels, and with them cheaper ways. */
import { LeastCost, type Measure } from "./cost";
import { levelOf as levelOfItem, levelOfRun } from "./progression";
import type { Readings } from "./readings";

export interface LevelCost {
  readonly level: number;
  /** Of one, in value units and in seconds of play; null: it can't be had at this level. */
  readonly value: number | null;
  readonly time: number | null;
}

/** Levels that are computed, at most. */
const MOST_LEVELS = 40;
/** Processes looked at over all levels, at most: each level is a run of least costs. */
const MOST_WORK = 4_000_000;

/**
 * Least costs over the processes that a character of a level can run (`levelOfRun`), at each level at which one opens
 * that the item may depend on.
 * @param item  its number
 * @returns a step for each level from which on a cost is another, lowest first; `more`: higher levels were left out,
 *   because they are too many or the pantry is too large
 */
export function costByLevel(readings: Readings, item: number): { readonly steps: LevelCost[]; readonly more: boolean } {
  const { network, reach } = readings;
  const upstream = processesBehind(readings, item);
  const levelOf = new Map<number, number>();
  for (const p of upstream) if (reach.fires(p)) levelOf.set(p, levelOfRun(readings, p));
  // The item's own level holds whatever makes it.
  const lowest = levelOfItem(readings, item) ?? 0;
  const all = [...new Set([lowest, ...levelOf.values()])].filter((l) => l >= lowest).sort((a, b) => a - b);
  const most = Math.min(MOST_LEVELS, Math.max(1, Math.floor(MOST_WORK / Math.max(1, network.processes))));
  const steps: LevelCost[] = [];
  // Of the levels that don't all fit the highest is what counts in the end, and is known already.
  for (const level of all.slice(0, most)) {
    const missing = new Int32Array(network.processes).fill(1);
    for (const [p, from] of levelOf) if (from <= level) missing[p] = 0;
    const cost = (measure: Measure): number | null => {
      const { cost: costs } = new LeastCost(network, { ...readings[measure].rules, reach: { missing } });
      return Number.isFinite(costs[item]) ? costs[item] : null;
    };
    const step = { level, value: cost("value"), time: cost("time") };
    const last = steps.at(-1);
    if (!last ? step.value !== null || step.time !== null : step.value !== last.value || step.time !== last.time)
      steps.push(step);
  }
  return { steps, more: all.length > most };
}

/** Every process that gives the item, or something that such a process needs. */
function processesBehind({ network }: Readings, item: number): Set<number> {
  const { ins, producers } = network;
  const items = [item];
  const seen = new Set(items);
  const found = new Set<number>();
  for (let at = 0; at < items.length; at++)
    for (let k = producers.start[items[at]]; k < producers.end[items[at]]; k++) {
      const p = producers.to[k];
      if (found.has(p)) continue;
      found.add(p);
      for (let m = ins.start[p]; m < ins.end[p]; m++)
        if (!seen.has(ins.to[m])) {
          seen.add(ins.to[m]);
          items.push(ins.to[m]);
        }
    }
  return found;
}
