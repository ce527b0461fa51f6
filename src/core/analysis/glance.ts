/** The whole pantry at a glance: tiers by depth, what everything hangs on, what stands apart, loops. */
import { hasPurpose } from "../catalogue/purpose";
import { ALIVE, MEMBER } from "../network/network";
import type { Id } from "../schema/id";
import { chained } from "./endless";
import type { Readings } from "./readings";

export interface Tier {
  /** Recipes one after the other behind its items; null: out of reach, or only in a circle that has no end. */
  readonly steps: number | null;
  readonly count: number;
  /** Those that most is made of, a few. */
  readonly items: readonly Id[];
}
export interface Glance {
  readonly tiers: readonly Tier[];
  /** Items without which most others can't be had, with how many those are. */
  readonly pillars: readonly { readonly item: Id; readonly lost: number }[];
  /** Items that are within reach, and nothing takes them nor buys them. */
  readonly deadEnds: { readonly count: number; readonly items: readonly Id[] };
  /** Groups of items that have nothing to do with the rest, largest first, but for the largest of all. */
  readonly islands: readonly { readonly count: number; readonly items: readonly Id[] }[];
  readonly loops: { readonly gaining: number; readonly even: number; readonly stuck: number };
}

/** Items that are tried as pillars: those that most processes need. Each takes one pass over all lines. */
const TRIED = 60;
const MOST_PILLARS = 12;
/** Items that are named of a tier, of what ends nowhere, and of an island; and most islands. */
const NAMED = 12;
const MOST_ISLANDS = 20;

/** O(L) for each item that is tried, O(L α) for islands, O(N) else. */
export function glanceOf(readings: Readings): Glance {
  const { compiled, network, reach } = readings;
  const { consumers } = network;
  const items: number[] = [];
  for (let i = 0; i < network.items; i++) if (compiled.idOf(i) !== null) items.push(i);
  const id = (i: number) => compiled.idOf(i) as Id;
  const uses = (i: number) => consumers.end[i] - consumers.start[i];
  const byUse = (of: readonly number[]) => [...of].sort((a, b) => uses(b) - uses(a) || (id(a) < id(b) ? -1 : 1));
  const some = (of: readonly number[]) => byUse(of).slice(0, NAMED).map(id);

  const tiers = new Map<number | null, number[]>();
  for (const i of items) {
    const steps = reach.items[i] ? readings.steps(i) : null;
    const tier = tiers.get(steps);
    if (tier) tier.push(i);
    else tiers.set(steps, [i]);
  }
  const last = (steps: number | null) => steps ?? Number.POSITIVE_INFINITY;

  const within = chained(compiled, () => true).items;
  const there = items.reduce((n, i) => n + within[i], 0);
  const pillars = byUse(items.filter((i) => within[i] && uses(i) > 0))
    .slice(0, TRIED)
    .map((i) => ({ item: id(i), lost: there - 1 - stillThere(readings, i, items) }))
    .filter(({ lost }) => lost > 0)
    .sort((a, b) => b.lost - a.lost || (a.item < b.item ? -1 : 1))
    .slice(0, MOST_PILLARS);

  const ends = items.filter((i) => {
    const item = compiled.catalogue.records.item.get(id(i));
    return within[i] && uses(i) === 0 && item !== undefined && !hasPurpose(compiled.catalogue, item);
  });
  const islands = islandsOf(readings, items);
  const verdicts = { gaining: 0, even: 0, stuck: 0 };
  for (const { verdict } of readings.loops) if (verdict !== "lossy") verdicts[verdict]++;
  return {
    tiers: [...tiers]
      .sort(([a], [b]) => last(a) - last(b))
      .map(([steps, of]) => ({ steps, count: of.length, items: some(of) })),
    pillars,
    deadEnds: { count: ends.length, items: some(ends) },
    islands: islands.slice(0, MOST_ISLANDS).map((of) => ({ count: of.length, items: some(of) })),
    loops: verdicts,
  };
}

/** How many of the items can still be had, but for one that can't any more. */
function stillThere({ compiled, network }: Readings, without: number, items: readonly number[]): number {
  const { ins } = network;
  const needs = (p: number): boolean => {
    for (let k = ins.start[p]; k < ins.end[p]; k++) if (ins.to[k] === without) return true;
    return false;
  };
  const left = chained(compiled, (p) => !needs(p)).items;
  return items.reduce((n, i) => n + (i === without ? 0 : left[i]), 0);
}

/** Items by what ties them together: that one process takes or gives both. The largest group is left out. */
function islandsOf({ compiled, network }: Readings, items: readonly number[]): number[][] {
  const up = Int32Array.from({ length: network.items }, (_, i) => i);
  const root = (i: number): number => {
    let at = i;
    while (up[at] !== at) {
      up[at] = up[up[at]];
      at = up[at];
    }
    return at;
  };
  for (let p = 0; p < network.processes; p++) {
    // That two things have a tag in common ties them together only where something asks for it.
    if (!(network.flags[p] & ALIVE) || (network.flags[p] & MEMBER && network.ins.start[p] === network.ins.end[p]))
      continue;
    let first = -1;
    for (const { start, end, to } of [network.ins, network.outs])
      for (let k = start[p]; k < end[p]; k++) {
        if (first < 0) first = root(to[k]);
        else up[root(to[k])] = first;
      }
  }
  const groups = new Map<number, number[]>();
  for (const i of items) {
    const group = groups.get(root(i));
    if (group) group.push(i);
    else groups.set(root(i), [i]);
  }
  const first = (of: readonly number[]): string => compiled.keyOf(of[0]);
  return [...groups.values()].sort((a, b) => b.length - a.length || (first(a) < first(b) ? -1 : 1)).slice(1);
}
