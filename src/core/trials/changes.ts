/** What a step of a trial changed: what came into the bag and left it, resources, stats, conditions and what was learned. */
import type { Catalogue } from "../catalogue/catalogue";
import { sayQuantity } from "../numbers/format";
import { formatTicks } from "../numbers/ticks";
import type { Id } from "../schema/id";
import type { Play } from "./play";

type Sort = "item" | "stored" | "worn" | "currency" | "resource" | "stat" | "condition" | "recipe";
/** How much there is of everything, at one moment. */
export type State = ReadonlyMap<string, number>;

export interface Change {
  readonly sort: Sort;
  readonly id: Id;
  readonly by: number;
  /** What there is now: of a condition the ticks that it still lasts. */
  readonly now: number;
}

export function stateOf(play: Play): State {
  const { bag, user, taught, tick } = play;
  const all = new Map<string, number>();
  const add = (sort: Sort, id: Id, n: number) => all.set(`${sort} ${id}`, (all.get(`${sort} ${id}`) ?? 0) + n);
  for (const { item, count, slots } of bag.stacks) add("item", item, count * slots);
  for (const [id, n] of bag.stored) add("stored", id, n);
  for (const { id } of user.worn) add("worn", id, 1);
  for (const [id, n] of bag.money) add("currency", id, n);
  for (const { of } of user.pools) add("resource", of.id, user.resource(of.id));
  for (const id of user.steps.keys()) add("stat", id, user.stat(id));
  for (const { of, until } of user.conditions) add("condition", of.id, until - tick);
  for (const id of taught) add("recipe", id, 1);
  return all;
}

/** What differs between two moments, losses first. */
export function changesBetween(before: State, after: State): Change[] {
  const changes: Change[] = [];
  for (const key of new Set([...before.keys(), ...after.keys()])) {
    const [sort, id] = key.split(" ") as [Sort, Id];
    const now = after.get(key) ?? 0;
    const by = now - (before.get(key) ?? 0);
    // A condition that only goes on is no change.
    const goesOn = sort === "condition" && before.has(key) && after.has(key) && by <= 0;
    if ((by !== 0 && Math.abs(by) > 1e-9 && !goesOn) || (sort === "condition" && before.has(key) !== after.has(key)))
      changes.push({ sort, id, by, now });
  }
  return changes.sort((a, b) => Number(a.by > 0) - Number(b.by > 0));
}

/** A change in words: "+2 Rope", "−3 Hemp", "+28 Vigour", "Warm for 20s", "Warm ended", "learned Smoke eel". */
export function sayChange({ records, pantry }: Catalogue, { sort, id, by, now }: Change): string {
  const amount = `${by > 0 ? "+" : "−"}${sayQuantity(Math.round(Math.abs(by) * 1000) / 1000)}`;
  if (sort === "recipe") return `learned ${records.recipe.get(id)?.name ?? id}`;
  if (sort === "condition") {
    const name = records.condition.get(id)?.name ?? id;
    if (now === 0) return `${name} ended`;
    return Number.isFinite(now) ? `${name} for ${formatTicks(now, pantry.ticksPerSecond)}` : name;
  }
  if (sort === "stored") return `${amount} ${records.item.get(id)?.name ?? id} stored`;
  if (sort === "worn") return `${records.item.get(id)?.name ?? id} ${by > 0 ? "put on" : "taken off"}`;
  return `${amount} ${records[sort].get(id)?.name ?? id}`;
}
