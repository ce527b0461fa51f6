/** Two items' costs next to each other, part by part. */
import type { Id } from "../schema/id";
import type { ItemCosts } from "./item-costs";

export interface ComparedPart {
  /** The base material; null: fees and time of the recipes. */
  readonly item: Id | null;
  /** Units of it in one, and what they cost; 0 where it has none. */
  readonly one: { readonly quantity: number; readonly cost: number };
  readonly other: { readonly quantity: number; readonly cost: number };
}

const NONE = { quantity: 0, cost: 0 };

/**
 * The base materials of two items and the work of their recipes, the largest difference first.
 * @returns null if one of them can't be had
 */
export function compareCosts(one: ItemCosts, other: ItemCosts): readonly ComparedPart[] | null {
  if (!one.value || !other.value) return null;
  const parts = new Map<Id | null, ComparedPart>();
  for (const [side, { base, work }] of [
    ["one", one.value],
    ["other", other.value],
  ] as const) {
    const put = (item: Id | null, quantity: number, cost: number) => {
      const there = parts.get(item) ?? { item, one: NONE, other: NONE };
      const { quantity: had, cost: costed } = there[side];
      parts.set(item, { ...there, [side]: { quantity: had + quantity, cost: costed + cost } });
    };
    for (const { item, quantity, cost } of base) put(item, quantity, cost);
    for (const { runs, cost } of work) if (cost > 0) put(null, runs, cost);
  }
  const gap = ({ one: a, other: b }: ComparedPart) => Math.abs(a.cost - b.cost);
  return [...parts.values()].sort((a, b) => gap(b) - gap(a));
}
