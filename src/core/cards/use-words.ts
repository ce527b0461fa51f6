/** Uses in words, as a player reads them: "Restores 42 vigour. Warm for 30 s. Ready again in 20 s." */
import type { Catalogue } from "../catalogue/catalogue";
import { itemAmount } from "../catalogue/item-number";
import { around } from "../catalogue/surroundings";
import { type Effect, type HeldUse, readyIn, timesOf, usesOf } from "../catalogue/uses";
import { writeFormula } from "../formulas/field";
import { definition, type Item } from "../kinds/index";
import { capital, list, sayPercent, sayQuantity } from "../numbers/format";
import { saySeconds } from "../numbers/ticks";
import type { Id } from "../schema/id";

export interface UseWords {
  readonly name: string;
  readonly sentences: readonly string[];
}

/** Every use of an item in words, in the order of its effects, from its own numbers. */
export const usesInWords = (catalogue: Catalogue, item: Item): UseWords[] =>
  usesOf(catalogue, item).map((use) => ({ name: use.name, sentences: useInWords(catalogue, item, use) }));

/** An amount as text: its number, or the formula where it hangs on who uses it. */
function amountText(catalogue: Catalogue, item: Item, kept: string | null, as: (n: number) => string): string {
  const value = itemAmount(catalogue, item, kept);
  return value === null ? `(${writeFormula(kept ?? "", "use", around(catalogue))})` : as(value);
}

/** Points that one use restores of each resource in the mean, as far as they hang on the item alone. */
export function restoredBy(
  catalogue: Catalogue,
  item: Item,
  use: HeldUse,
): { readonly resource: Id; readonly points: number }[] {
  const found = new Map<Id, number>();
  for (const { does, amount, chance } of use.effects) {
    if (does.is !== "restore" || does.share) continue;
    const one = itemAmount(catalogue, item, amount);
    const times = timesOf(does, catalogue.pantry.ticksPerSecond);
    if (one !== null) found.set(does.resource, (found.get(does.resource) ?? 0) + one * times * chance);
  }
  return [...found].map(([resource, points]) => ({ resource, points }));
}

/** What it means that a use says a time of its own while its item waits with others; null where it does not. */
export function sharedWait({ records, pantry }: Catalogue, { wait, group }: HeldUse): string | null {
  const shared = group === null ? undefined : records.cooldown.get(group);
  if (!shared || wait === null || wait === shared.ticks) return null;
  const time = (ticks: number) => saySeconds(ticks / pantry.ticksPerSecond);
  return `Its cooldown in the group ${shared.name} is ${time(wait)} instead of ${time(shared.ticks)}; the others still wait ${time(shared.ticks)} after it.`;
}

export function useInWords(catalogue: Catalogue, item: Item, use: HeldUse): string[] {
  const { records, pantry } = catalogue;
  const time = (ticks: number) => saySeconds(ticks / pantry.ticksPerSecond);
  const of = (
    kind: "item" | "condition" | "resource" | "stat" | "table" | "currency" | "recipe" | "signal" | "situation",
    id: Id,
  ) => records[kind].get(id)?.name ?? "(removed)";
  const said: string[] = [];
  for (const effect of use.effects) {
    const text = effectInWords(effect);
    if (text) said.push(effect.chance < 1 ? `${sayPercent(effect.chance)} chance: ${text}.` : `${capital(text)}.`);
  }
  if (use.on !== "oneself") said.push(`Acts on ${definition("use").fields.on.say(use.on, around(catalogue))}.`);
  if (use.windup > 0) said.push(`Takes ${time(use.windup)}.`);
  const ready = readyIn(catalogue, use);
  if (ready > 0) said.push(`Cooldown ${time(ready)}.`);
  if (use.fate === "used up" && use.count > 1) said.push(`Uses up ${use.count}.`);
  if (use.fate === "worn") said.push(`Lasts ${use.count} uses.`);
  if (use.fate === "kept") said.push("Not used up.");
  if (use.leaves !== null) said.push(`Leaves ${of("item", use.leaves)}.`);
  if (!use.everywhere)
    said.push(use.situations.length ? `Only ${list(use.situations.map((s) => of("situation", s)))}.` : "Nowhere.");
  const needs = [
    ...(use.level > 0 ? [`level ${use.level}`] : []),
    ...Object.entries(use.least).map(([stat, least]) => `${of("stat", stat as Id)} ${sayQuantity(least)}`),
    ...use.having.map((c) => of("condition", c)),
  ];
  if (needs.length) said.push(`Needs ${list(needs)}.`);
  if (use.without.length) said.push(`Not while ${list(use.without.map((c) => of("condition", c)))}.`);
  return said;

  function effectInWords({ does, amount }: Effect): string | null {
    const count = (n: number) => sayQuantity(n);
    const how = (as: (n: number) => string = count) => amountText(catalogue, item, amount, as);
    switch (does.is) {
      case "restore":
      case "drain": {
        const name = of("resource", does.resource);
        const what = does.share ? `${how(sayPercent)} of ${name}` : `${how()} ${name}`;
        const goesOn = does.every !== null || does.lasting !== null;
        const first =
          !goesOn || does.first === undefined
            ? ""
            : does.first === 0
              ? " at once and"
              : ` after ${time(does.first)} and`;
        const every = goesOn ? `${first} every ${time(does.every ?? pantry.ticksPerSecond)}` : "";
        return `${does.is}s ${what}${every}${does.lasting === null ? "" : ` for ${time(does.lasting)}`}`;
      }
      case "cost":
        return `costs ${does.share ? `${how(sayPercent)} of ` : `${how()} `}${of("resource", does.resource)}`;
      case "apply": {
        const condition = records.condition.get(does.condition);
        const ticks = does.ticks ?? condition?.ticks ?? null;
        const layers = amount === null || amount === "1" ? "" : ` ${how()} times`;
        return `${of("condition", does.condition)}${layers}${ticks === null ? " until cleared" : ` for ${time(ticks)}`}`;
      }
      case "clear":
        return `clears ${of("condition", does.condition)}`;
      case "clear all":
        return `clears all ${does.nature === "neither" ? "neutral" : does.nature} conditions`;
      case "change": {
        const limit = does.limit === null ? "" : `, up to ${sayQuantity(does.limit)}`;
        return `${of("stat", does.stat)} ${how((n) => `${n < 0 ? "−" : "+"}${sayQuantity(Math.abs(n))}`)} permanently${limit}`;
      }
      case "draw":
        return `opens ${of("table", does.table)}${amount === null || amount === "1" ? "" : ` ${how()} times`}`;
      case "give":
        return `gives ${how()} ${of("item", does.item)}`;
      case "take":
        return `takes ${how()} ${of("item", does.item)}`;
      case "pay":
        return `gives ${how()} ${of("currency", does.currency)}`;
      case "charge":
        return `costs ${how()} ${of("currency", does.currency)}`;
      case "teach":
        return `teaches ${of("recipe", does.recipe)}`;
      case "send":
        return of("signal", does.signal);
    }
  }
}
