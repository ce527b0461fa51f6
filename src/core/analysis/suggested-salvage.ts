/** Salvage that gives back a share of what an item took: computed for one item or many, to be looked at and written. */
import type { Catalogue } from "../catalogue/catalogue";
import { difference, type Edit, setField, type Value } from "../catalogue/edit";
import { lineage } from "../catalogue/tree";
import { recordsWith } from "../catalogue/references";
import { type Item, type Payback, type Recipe, withDefaults } from "../kinds/index";
import type { Rounding } from "../kinds/payback";
import { type ItemLine, type Line, line } from "../notation/line";
import {
  add,
  divide,
  type Fraction,
  fraction,
  fromNumber,
  multiply,
  negate,
  sign,
  toNumber,
  ZERO,
} from "../numbers/fraction";
import { expectedExactly, netYield } from "../network/expected";
import { flows } from "../network/process";
import { type Id, newId } from "../schema/id";
import { givenName } from "../notation/format";
import { FreeKeys } from "../editing/new-names";

export interface SalvageRule {
  /** Of what went in, from above 0 to 1. */
  readonly share: number;
  readonly rounding: Rounding;
  /** Units of each thing that come back at least, as far as so many went in. */
  readonly least: number;
  readonly tool: Id | null;
  /** What things give back that no recipe makes, by worth; null: nothing. */
  readonly into: Id | null;
  /** True: an item that has a salvage already gets this one in its place. */
  readonly replace: boolean;
}

export interface Suggestion {
  readonly item: Item;
  /** What is taken apart was made by it; null: it is not made, and gives back by worth. */
  readonly made: Recipe | null;
  readonly gives: readonly ItemLine[];
  /** The salvage that is there. */
  readonly there: Recipe | null;
  /** Why nothing is written. */
  readonly skipped: string | null;
}

/**
 * One for each item that a recipe makes, in the order given. Only what goes in comes back: no tool, no station, nothing
 * that came out beside it or was handed back.
 * What no recipe makes gives back by worth, where the rule says of what.
 * @param by  the recipe by which an item is cheapest; null: none, or another record
 * @param worth  what one costs, in value units; null: it can't be had
 */
export function suggestSalvage(
  catalogue: Catalogue,
  items: Iterable<Item>,
  rule: SalvageRule,
  by: (item: Id) => Id | null,
  worth: (item: Id) => number | null,
): Suggestion[] {
  const found: Suggestion[] = [];
  for (const item of items) {
    if (item.status === "retired") continue;
    const makes = [...recordsWith(catalogue, "recipe", item.id, ["output"])].filter(
      (r) => r.kind !== "salvage" && r.status !== "retired",
    );
    const made = makes.find((r) => r.id === by(item.id)) ?? makes[0] ?? null;
    if (!made && (rule.into === null || rule.into === item.id || worth(item.id) === null)) continue;
    const [there = null] = [...recordsWith(catalogue, "recipe", item.id, ["ingredient"])].filter(
      (r) => r.kind === "salvage" && r.status !== "retired" && mainOf(r) === item.id,
    );
    const gives = made ? givenBack(made, item.id, rule) : givenByWorth(item.id, rule, worth);
    const same = there !== null && gives.length > 0 && saysSame(there, linesOf(item.id, gives, rule.tool, there));
    const skipped =
      there && !rule.replace
        ? "It already has a salvage recipe."
        : same
          ? "Its salvage already matches."
          : gives.length
            ? null
            : made?.lines.some((l) => l.role === "ingredient" && l.any !== undefined)
              ? "It is made of any items with a tag, so its ingredients vary."
              : "Less than one item would be returned.";
    found.push({ item, made, gives, there, skipped });
  }
  return found;
}

/** Of each ingredient the share of what one of the item took, on balance. */
function givenBack(made: Recipe, item: Id, { share, rounding, least }: SalvageRule): ItemLine[] {
  const lines = flows(made.lines.filter((l) => l.role === "ingredient" || l.role === "output"));
  const net = netYield(lines);
  const yielded = made.lines
    .filter((l) => l.role === "output" && l.item === item)
    .reduce<Fraction>((sum, l) => add(sum, expectedExactly(l)), ZERO);
  if (sign(yielded) <= 0) return [];
  const named = new Set<Id>();
  return made.lines.flatMap((l: Line): ItemLine[] => {
    if (l.role !== "ingredient" || l.any !== undefined || l.item === item || named.has(l.item)) return [];
    named.add(l.item);
    const took = divide(negate(net.get(l.item) ?? ZERO), yielded);
    if (sign(took) <= 0) return [];
    return rounded(l.item, took, { share, rounding, least });
  });
}

/** A share of what one of an item is worth, as so much of what the rule names. */
function givenByWorth(item: Id, rule: SalvageRule, worth: (item: Id) => number | null): ItemLine[] {
  const [own, each] = [worth(item), rule.into && worth(rule.into)];
  if (!rule.into || !own || !each) return [];
  return rounded(rule.into, divide(fromNumber(own), fromNumber(each)), rule);
}

/** A share of what was taken of something, with parts of one as the rule says. */
function rounded(
  item: Id,
  took: Fraction,
  { share, rounding, least }: Pick<SalvageRule, "share" | "rounding" | "least">,
): ItemLine[] {
  const back = multiply(took, fromNumber(share));
  const floor = Math.min(least, Math.floor(toNumber(took)));
  const exact = toNumber(back);
  const whole = Number(back.n / back.d);
  if (rounding === "by chance" && exact > floor) {
    const rest = toNumber(add(back, negate(fraction(BigInt(whole)))));
    // A chance has four decimals of a percent; what is below that is lost, so that never more comes back.
    const chance = Math.floor(rest * 1e6 + 1e-9) / 1e6;
    return [
      ...(whole > 0 ? [line("output", item, whole)] : []),
      ...(chance > 0 ? [line("output", item, 1, 1, chance)] : []),
    ];
  }
  const amount = Math.max(floor, rounding === "nearest" ? Math.round(exact) : whole);
  return amount > 0 ? [line("output", item, amount)] : [];
}

/** What a salvage takes apart: the first thing that goes in. */
const mainOf = (salvage: Recipe): Id | undefined => salvage.lines.find((l) => l.role === "ingredient")?.item;

/**
 * The lines of a salvage that gives something back of one of an item. Of one that is there everything stays but the main
 * input's amount and what comes out: its stations, what else goes in, and its tool with the runs it lasts, where the rule
 * names no other.
 */
function linesOf(item: Id, gives: readonly ItemLine[], tool: Id | null, there: Recipe | null): Line[] {
  const kept = (there?.lines ?? []).filter((l) => l.role !== "output");
  const main = kept.findIndex((l) => l.role === "ingredient");
  const stays = kept.filter((l, k) => k !== main && (l.role !== "tool" || tool === null || l.item === tool));
  const has = tool === null || stays.some((l) => l.role === "tool" && l.item === tool);
  return [
    line("ingredient", item),
    ...stays.filter((l) => l.role === "ingredient"),
    ...gives,
    ...stays.filter((l) => l.role !== "ingredient"),
    ...(has ? [] : [line("tool", tool)]),
  ];
}
const saysSame = (there: Recipe, lines: readonly Line[]): boolean => {
  const of = (all: readonly Line[]) => JSON.stringify(all.map((l) => JSON.stringify(l)).sort());
  return of(there.lines) === of(lines);
};

/** The edits that write what was suggested, but for what was skipped. */
export function writeSuggested(
  catalogue: Catalogue,
  suggestions: readonly Suggestion[],
  { tool }: Pick<SalvageRule, "tool">,
): Edit[] {
  const keys = new FreeKeys(catalogue);
  return suggestions.flatMap(({ item, gives, there, skipped }): Edit[] => {
    if (skipped !== null) return [];
    const lines = linesOf(item.id, gives, tool, there);
    if (there) return [setField(catalogue, "recipe", there.id, "lines", lines as unknown as Value)];
    const name = givenName("salvage", () => item.name);
    const record = withDefaults("recipe", {
      id: newId(),
      key: keys.next("recipe", name),
      name,
      kind: "salvage",
      lines,
      status: "ready",
    });
    return [{ op: "add", kind: "recipe", record }];
  });
}

/** The rule that is kept for an item: of its type, or of the nearest type above it that has one. */
export function keptFor(catalogue: Catalogue, item: Item): Payback | null {
  if (!catalogue.records.payback.size) return null;
  const kept = [...catalogue.records.payback.values()].sort((a, b) => (a.key < b.key ? -1 : 1));
  for (const { id } of lineage(catalogue, item.type)) {
    const there = kept.find((p) => p.type === id);
    if (there) return there;
  }
  return null;
}

/** Edits that keep a rule for a type, in place of one that is kept for it already. */
export function keepRule(catalogue: Catalogue, type: Id, rule: SalvageRule): Edit[] {
  const there = [...catalogue.records.payback.values()].find((p) => p.type === type);
  const { share, rounding, least, tool, into } = rule;
  const name = `Salvage of ${catalogue.records.type.get(type)?.name ?? "items"}`;
  if (there) return difference("payback", there, { ...there, share, rounding, least, tool, into });
  const key = new FreeKeys(catalogue).next("payback", name);
  const record = withDefaults("payback", { id: newId(), key, name, type, share, rounding, least, tool, into });
  return [{ op: "add", kind: "payback", record }];
}
