/** Where the cost of each item comes from: its largest base material and that one's share. */
import type { Id } from "../schema/id";
import { breakdown } from "./breakdown";
import type { Readings } from "./readings";

/** The largest base material of an item and its share of the cost, 0 to 1; null: all of it is time and fees of recipes. */
export type Origin = readonly [item: Id, from: Id | null, share: number];

/** Entries of breakdowns that are looked at, at most. */
const MOST_ENTRIES = 3_000_000;
/** Items that are told of, at most. */
const MOST_ITEMS = 20_000;

/**
 * @returns items that are made and cost something; `more`: some were left out, because there are too many
 */
export function originsOf(readings: Readings): { readonly origins: Origin[]; readonly more: boolean } {
  const { compiled, network, value } = readings;
  const origins: Origin[] = [];
  let entries = 0;
  const by = (i: number) => readings.by("value", i);
  for (let i = 0; i < network.items; i++) {
    const id = compiled.idOf(i);
    const cost = value.cost[i];
    if (id === null || !Number.isFinite(cost) || cost <= 0) continue;
    if (entries > MOST_ENTRIES || origins.length >= MOST_ITEMS) return { origins, more: true };
    const parts = breakdown(value, by, i);
    if (!parts) continue;
    entries += parts.demand.size + 1;
    const base = parts.base.find((b) => b.cost > 0);
    origins.push([id, base ? compiled.idOf(base.item) : null, base ? base.cost / cost : 1]);
  }
  return { origins, more: false };
}
