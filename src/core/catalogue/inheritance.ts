/** What an item has: its own value, or that of the nearest type above it that says one. Types inherit likewise. */
import type { Item, ItemType } from "../kinds/index";
import type { inheritable } from "../kinds/shared";
import type { Id } from "../schema/id";
import type { Catalogue } from "./catalogue";
import { lineage } from "./tree";

export type InheritedField = Exclude<keyof typeof inheritable, "stats">;
/** A record that inherits: an item from its type, a type from its parent. */
export type Heir = Item | ItemType;

/** A value with where it comes from: written on the record, inherited from a type, or nowhere. */
export interface Held<T> {
  readonly value: T | null;
  readonly from: "own" | "inherited" | "none";
  /** The type it is inherited from. */
  readonly type?: ItemType;
}
const NOWHERE: Held<never> = { value: null, from: "none" };

/** The type that a record inherits from first. */
const above = (heir: Heir): Id | null => ("parent" in heir ? heir.parent : heir.type);

export function held<F extends InheritedField>(catalogue: Catalogue, heir: Heir, field: F): Held<NonNullable<Item[F]>> {
  const own = heir[field];
  if (own !== null) return { value: own as NonNullable<Item[F]>, from: "own" };
  for (const type of lineage(catalogue, above(heir))) {
    const value = type[field];
    if (value !== null) return { value: value as NonNullable<Item[F]>, from: "inherited", type };
  }
  return NOWHERE;
}

export function heldStat(catalogue: Catalogue, heir: Heir, stat: Id): Held<number> {
  if (Object.hasOwn(heir.stats, stat)) return { value: heir.stats[stat], from: "own" };
  for (const type of lineage(catalogue, above(heir)))
    if (Object.hasOwn(type.stats, stat)) return { value: type.stats[stat], from: "inherited", type };
  return NOWHERE;
}
