/** Several recipes of one item, changed together. */
import type { Catalogue } from "../catalogue/catalogue";
import { type Edit, setField, type Value } from "../catalogue/edit";
import type { Recipe } from "../kinds/index";
import type { Line } from "../notation/line";
import { fromNumber, multiply, toNumber } from "../numbers/fraction";
import { MOST } from "../schema/limits";
import type { Id } from "../schema/id";

/** So many times an amount, exactly as typed: a tenth of three is 0.3. */
export const times = (amount: number, factor: number): number =>
  Math.min(MOST, toNumber(multiply(fromNumber(amount), fromNumber(factor))));

/**
 * Edits after which each of the recipes gives so many times as much of an item, in all of their ways.
 * @param factor  above 0
 */
export function givingTimes(catalogue: Catalogue, recipes: readonly Recipe[], item: Id, factor: number): Edit[] {
  const scaled = (lines: readonly Line[]): readonly Line[] =>
    lines.map((l) =>
      l.role === "output" && l.item === item ? { ...l, min: times(l.min, factor), max: times(l.max, factor) } : l,
    );
  const gives = (lines: readonly Line[]) => lines.some((l) => l.role === "output" && l.item === item);
  return recipes.flatMap(({ id, lines, variants }): Edit[] => [
    ...(gives(lines) ? [setField(catalogue, "recipe", id, "lines", scaled(lines) as unknown as Value)] : []),
    ...(variants.some((v) => gives(v.lines))
      ? [
          setField(
            catalogue,
            "recipe",
            id,
            "variants",
            variants.map((v) => ({ ...v, lines: scaled(v.lines) })) as unknown as Value,
          ),
        ]
      : []),
  ]);
}
