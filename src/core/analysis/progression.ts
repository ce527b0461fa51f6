/** The lowest level at which an item can be had, and what forces it. */
import type { Id } from "../schema/id";
import type { Item, Kind } from "../kinds/index";
import { processAt } from "../network/compile";
import type { Readings } from "./readings";
import { LEVEL } from "./registry";

interface Named {
  readonly kind: Kind;
  readonly id: Id;
  readonly key: string;
  readonly name: string;
}

/**
 * level(item) = max(its own level, min over processes of max(the recipe's level, level of everything it needs)): the
 * least
 * fixed point, by layers.ts. Of equal ways the one with the fewest steps at that level counts.
 * @returns the record whose own level it is, and the items from the given one to it
 */
export function forcedBy(readings: Readings, item: number): { forced: Named; path: Named[] } {
  const { compiled, levels, network } = readings;
  const lowest = Math.floor(levels.value[item] / LEVEL);
  const nameOf = (i: number): Named => {
    const { id, key, name } = compiled.catalogue.records.item.get(compiled.idOf(i) as Id) as Item;
    return { kind: "item", id, key, name };
  };
  const path = [nameOf(item)];
  for (let at = item; ; ) {
    if (compiled.levels[at] === lowest) return { forced: nameOf(at), path };
    const p = levels.by[at];
    if (p < 0) return { forced: nameOf(at), path };
    if (network.level[p] === lowest) {
      const { kind, record } = processAt(compiled, p);
      return { forced: { kind, id: record.id, key: record.key, name: record.name }, path: [...path, nameOf(at)] };
    }
    let next = -1;
    for (let k = network.ins.start[p]; k < network.ins.end[p]; k++) {
      const i = network.ins.to[k];
      if (next < 0 || levels.value[i] > levels.value[next]) next = i;
    }
    if (next < 0) return { forced: nameOf(at), path };
    at = next;
    path.push(nameOf(at));
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
