/** What a character wears, and what its stats come to: always from what is worn now, never summed up over changes. */
import type { Catalogue } from "../catalogue/catalogue";
import { held, heldStat } from "../catalogue/inheritance";
import type { Item, TrialSubject } from "../kinds/index";
import type { Id } from "../schema/id";
import { about, type Figure, type Reckoner } from "./reckon";

/** Where a part of a stat comes from. */
export interface Share {
  readonly kind: "base" | "item" | "condition" | "for good";
  readonly id: Id | null;
  readonly name: string;
  readonly value: number;
  /** How a condition changes it. */
  readonly how?: "add" | "multiply" | "set";
}
export interface Total {
  readonly value: number;
  readonly shares: readonly Share[];
}

/** The base of a stat at a level: of the subject's table over levels, else its formula; null where it says nothing. */
export function baseOf(reckoner: Reckoner, subject: TrialSubject, stat: Id, level = subject.level): number | null {
  const rows = subject.growth.filter((row) => row.stat === stat).sort((a, b) => a.level - b.level);
  if (rows.length) {
    const above = rows.find((row) => row.level >= level);
    const below = rows.findLast((row) => row.level <= level);
    if (!above || !below) return (above ?? below ?? rows[0]).value;
    const span = above.level - below.level;
    return span === 0 ? below.value : below.value + ((above.value - below.value) * (level - below.level)) / span;
  }
  const kept = Object.hasOwn(subject.stats, stat) ? subject.stats[stat] : null;
  return kept === null ? null : reckoner.get(kept, "level")(about(levelOnly(level)));
}
const levelOnly = (level: number): Figure => ({ level, stat: () => 0, resource: () => 0, most: () => 0 });

/** What several sources of a stat come to. Sums and products count from the base; nothing said at all is 0. */
export function combined(how: "sum" | "product" | "highest" | "lowest", values: readonly number[]): number {
  if (!values.length) return 0;
  if (how === "sum") return values.reduce((a, b) => a + b, 0);
  if (how === "product") return values.reduce((a, b) => a * b, 1);
  return how === "highest" ? Math.max(...values) : Math.min(...values);
}

/** Each stat that a subject or what it wears has, with where it comes from. */
export function totals(
  reckoner: Reckoner,
  subject: TrialSubject,
  worn: readonly Item[],
  level = subject.level,
): Map<Id, Total> {
  const { catalogue } = reckoner;
  const found = new Map<Id, Total>();
  for (const stat of catalogue.records.stat.values()) {
    const shares: Share[] = [];
    const base = baseOf(reckoner, subject, stat.id, level);
    if (base !== null) shares.push({ kind: "base", id: null, name: subject.name, value: base });
    for (const item of worn) {
      const { value } = heldStat(catalogue, item, stat.id);
      if (value !== null) shares.push({ kind: "item", id: item.id, name: item.name, value });
    }
    if (shares.length)
      found.set(stat.id, {
        value: within(
          stat,
          combined(
            stat.combine,
            shares.map((s) => s.value),
          ),
        ),
        shares,
      });
  }
  return found;
}
export const within = (stat: { readonly min: number | null; readonly max: number | null }, value: number): number =>
  Math.min(Math.max(value, stat.min ?? value), stat.max ?? value);

export const slotOf = (catalogue: Catalogue, item: Item): Id | null => held(catalogue, item, "slot").value;
export const blocksOf = (catalogue: Catalogue, item: Item): readonly Id[] =>
  held(catalogue, item, "blocks").value ?? [];

/**
 * Why an item can't be worn with others, or null.
 * @param with_  what is worn beside it
 */
export function wearProblem(
  catalogue: Catalogue,
  subject: TrialSubject,
  item: Item,
  with_: readonly Item[],
  level = subject.level,
): string | null {
  const slot = slotOf(catalogue, item);
  if (slot === null) return `${item.name} has no slot.`;
  const { name, places } = catalogue.records.slot.get(slot) ?? { name: "that slot", places: 1 };
  if (!subject.slots.includes(slot)) return `${subject.name} has no slot ${name}.`;
  const needs = held(catalogue, item, "level").value ?? 0;
  if (needs > level) return `${item.name} needs level ${needs}; ${subject.name} has ${level}.`;
  const there = with_.filter((each) => slotOf(catalogue, each) === slot);
  if (there.length >= places) return `${name} already holds ${there.map((each) => each.name).join(", ")}.`;
  for (const each of with_) {
    if (blocksOf(catalogue, each).includes(slot)) return `${each.name} blocks ${name}.`;
    const own = slotOf(catalogue, each);
    if (own !== null && blocksOf(catalogue, item).includes(own))
      return `${item.name} blocks ${catalogue.records.slot.get(own)?.name ?? "a slot"}, which already holds ${each.name}.`;
  }
  return null;
}

/**
 * What is worn once an item is put on: what takes its place on the same slot comes off. What blocks it, or what it would
 * block, must be taken off first.
 * @returns `says` where it can't be worn
 */
export function puttingOn(
  catalogue: Catalogue,
  subject: TrialSubject,
  item: Item,
  worn: readonly Item[],
  level = subject.level,
):
  | { readonly worn: readonly Item[]; readonly off: readonly Item[]; readonly message: null }
  | { readonly message: string } {
  const off: Item[] = [];
  let left = worn;
  for (;;) {
    const message = wearProblem(catalogue, subject, item, left, level);
    if (message === null) return { worn: [...left, item], off, message };
    const slot = slotOf(catalogue, item);
    const inTheWay = slot === null ? -1 : left.findIndex((each) => slotOf(catalogue, each) === slot);
    if (inTheWay < 0) return { message };
    off.push(left[inTheWay]);
    left = left.filter((_, k) => k !== inTheWay);
  }
}

/** Room that worn things add to a bag. */
export function roomOf(catalogue: Catalogue, worn: readonly Item[]): { readonly slots: number; readonly mass: number } {
  const sum = (field: "room" | "carries") => worn.reduce((t, item) => t + (held(catalogue, item, field).value ?? 0), 0);
  return { slots: sum("room"), mass: sum("carries") };
}
