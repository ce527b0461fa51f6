/** The lowest level at which an item can be had, and what forces it. */
import type { Readings } from "./readings";
import { LEVEL } from "./registry";

/** What forces a level: an item of that level, or a process that needs it. */
export type Forcing = { readonly item: number } | { readonly process: number };

/**
 * level(item) = max(its own level, min over processes of max(the recipe's level, level of everything it needs)): the
 * least fixed point, by layers.ts. Of equal ways the one with the fewest steps at that level counts.
 * @returns what has that level itself, and the items, tags and heat from the given one to it
 */
export function forcedBy(readings: Readings, item: number): { forced: Forcing; path: readonly number[] } {
  const { compiled, levels, network } = readings;
  const lowest = Math.floor(levels.value[item] / LEVEL);
  const path = [item];
  for (let at = item; ; ) {
    if (compiled.levels[at] === lowest) return { forced: { item: at }, path };
    const p = levels.by[at];
    if (p < 0) return { forced: { item: at }, path };
    if (network.level[p] === lowest) return { forced: { process: p }, path: [...path, at] };
    let next = -1;
    for (let k = network.ins.start[p]; k < network.ins.end[p]; k++) {
      const i = network.ins.to[k];
      if (next < 0 || levels.value[i] > levels.value[next]) next = i;
    }
    if (next < 0) return { forced: { item: at }, path };
    at = next;
    path.push(at);
  }
}

/** The lowest level at which an item can be had; null: it can't. */
export function levelOf(readings: Readings, item: number): number | null {
  return readings.reach.items[item] ? Math.floor(readings.levels.value[item] / LEVEL) : null;
}

/** The level from which a process can run: its own, and that of everything it needs. */
export function levelOfRun({ network, levels }: Readings, p: number): number {
  let level = network.level[p];
  for (let k = network.ins.start[p]; k < network.ins.end[p]; k++)
    level = Math.max(level, Math.floor(levels.value[network.ins.to[k]] / LEVEL));
  return level;
}
