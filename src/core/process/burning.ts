/** What burns: for how long, what is left of it, and at which stations. */
import type { Catalogue } from "../catalogue/catalogue";
import type { Item } from "../kinds/index";
import type { Id } from "../schema/id";
import { traitOf } from "./traits";

export interface Fuel {
  /** How long one burns, in ticks. */
  readonly ticks: number;
  /** What is left of one; null: nothing. */
  readonly ash: Id | null;
  /** How much of that. */
  readonly ashes: number;
}

/** What an item is as a fuel; null: it does not burn. */
export function fuelOf(catalogue: Catalogue, item: Item): Fuel | null {
  const ticks = item.status === "retired" ? 0 : (traitOf(catalogue, item, "burns") ?? 0);
  if (!(ticks > 0)) return null;
  const ash = traitOf(catalogue, item, "ash");
  return { ticks, ash: ash === item.id ? null : ash, ashes: traitOf(catalogue, item, "ashes") ?? 1 };
}

/** Whether it may burn where only what has a tag may; null: whatever burns. */
export const mayBurn = (item: Item, fuel: Id | null): boolean => fuel === null || item.tags.includes(fuel);
