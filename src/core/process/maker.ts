/** Chances that depend on a stat of whoever makes something, at what costs and checks take the maker to have of it. */
import type { Catalogue } from "../catalogue/catalogue";
import type { Kind } from "../kinds/index";
import { allLines } from "../kinds/ways";
import type { Amounts, Line } from "../notation/line";
import { add, fromNumber, multiply, toNumber } from "../numbers/fraction";
import type { Id } from "../schema/id";

/** What the maker has of a stat. */
export type StatOf = (stat: Id) => number;

/** What stats say themselves that the maker has of them. */
export const makerOf =
  ({ records: { stat } }: Catalogue): StatOf =>
  (id) =>
    stat.get(id)?.maker ?? 0;

/** The chance of a line, from 0 to 1: exactly as typed before it is rounded to a number. */
export function chanceFor({ chance, bonus }: Pick<Amounts, "chance" | "bonus">, statOf: StatOf): number {
  if (!bonus) return chance;
  const sum = add(fromNumber(chance), multiply(fromNumber(bonus.share), fromNumber(statOf(bonus.stat))));
  return Math.min(1, Math.max(0, toNumber(sum)));
}

/** Lines with the chances that a maker has; the same list where none depends on one. */
export const linesFor = <L extends Line>(lines: readonly L[], statOf: StatOf): readonly L[] =>
  lines.some((l) => l.bonus)
    ? lines.map((l) => (l.bonus ? { ...l, chance: chanceFor(l, statOf), bonus: undefined } : l))
    : lines;

/** Recipes, or sources, that depend on a stat of which the maker has something else now. */
export function* besideMaker(
  kind: "recipe" | "source",
  before: Catalogue,
  next: Catalogue,
  touched: ReadonlyMap<Kind, ReadonlySet<Id>>,
): Generator<Id> {
  const moved = new Set([...(touched.get("stat") ?? [])].filter((id) => makerOf(before)(id) !== makerOf(next)(id)));
  if (!moved.size) return;
  const depends = (lines: readonly Line[]) => lines.some((l) => l.bonus && moved.has(l.bonus.stat));
  if (kind === "recipe") for (const r of next.records.recipe.values()) if (depends(allLines(r))) yield r.id;
  if (kind === "source") for (const s of next.records.source.values()) if (depends(s.lines)) yield s.id;
}
