/** Where the cost of each item comes from: its largest base material, or the work, and its share. */
import type { Id } from "../schema/id";
import { breakdown } from "./breakdown";
import type { Readings } from "./readings";

/** The largest part of an item's cost: a base material, or null for fees and time of its recipes; and its share, 0 to 1. */
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
    const work = parts.work.reduce((sum, w) => sum + w.cost, 0);
    const [base] = parts.base;
    const from = base && base.cost >= work ? compiled.idOf(base.item) : null;
    origins.push([id, from, (from === null ? work : base.cost) / cost]);
  }
  return { origins, more: false };
}
