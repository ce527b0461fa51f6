/** What an item has: its own value, or that of the nearest type above it that says one. */
import type { Item, ItemType } from "../kinds/index";
import type { inheritable } from "../kinds/shared";
import type { Id } from "../schema/id";
import type { Catalogue } from "./catalogue";
import { lineage } from "./tree";

export type InheritedField = Exclude<keyof typeof inheritable, "stats">;

/** A value with where it comes from: written on the item, inherited from a type, or nowhere. */
export interface Held<T> {
  readonly value: T | null;
  readonly from: "own" | "inherited" | "none";
  /** The type it is inherited from. */
  readonly type?: ItemType;
}

export function held<F extends InheritedField>(catalogue: Catalogue, item: Item, field: F): Held<NonNullable<Item[F]>> {
  const own = item[field];
  if (own !== null) return { value: own as NonNullable<Item[F]>, from: "own" };
  for (const type of lineage(catalogue, item.type)) {
    const value = type[field];
    if (value !== null) return { value: value as NonNullable<Item[F]>, from: "inherited", type };
  }
  return { value: null, from: "none" };
}

export function heldStat(catalogue: Catalogue, item: Item, stat: Id): Held<number> {
  if (Object.hasOwn(item.stats, stat)) return { value: item.stats[stat], from: "own" };
  for (const type of lineage(catalogue, item.type))
    if (Object.hasOwn(type.stats, stat)) return { value: type.stats[stat], from: "inherited", type };
  return { value: null, from: "none" };
}
