/** Patterns and combinations while they are edited: things in places, and from one kind of recipe to another. */
import type { RecipeKind } from "../notation/line";
import { cellAt, countCells, grid, NO_GRID, PAIR, WIDEST } from "../notation/places";
import type { ParsedEntry, ParsedLine } from "../notation/parsed";

/** What stands in a place: one of it; a tool is kept. */
export type Placed = Omit<ParsedEntry, "cells" | "min" | "max" | "chance" | "draw">;
export type Places = readonly (readonly (Placed | null)[])[];

const alike = (a: Placed, b: Placed): boolean =>
  a.role === b.role &&
  a.item === b.item &&
  a.any === b.any &&
  a.uses === b.uses &&
  a.whole === b.whole &&
  a.name.toLowerCase() === b.name.toLowerCase();

/** What stands in the places of a line, row by row. */
export const placesIn = ({ grid: of, entries }: Pick<ParsedLine, "grid" | "entries">): Places => grid(of, entries);

/** The entries for things in places: each once, with all its places. */
export function gathered(places: Places): ParsedEntry[] {
  const found: ParsedEntry[] = [];
  for (const [r, row] of places.entries())
    for (const [c, thing] of row.entries()) {
      if (!thing) continue;
      const at = found.findIndex((e) => alike(e, thing));
      const cells = (found[at]?.cells ?? 0) | cellAt(r, c);
      const amount = countCells(cells);
      const entry = { ...thing, cells, min: amount, max: amount, chance: 1 };
      if (at < 0) found.push(entry);
      else found[at] = entry;
    }
  return found;
}

type Arranged = Pick<ParsedLine, "kind" | "grid" | "entries">;
/** A pattern with other things in its places, of that size. */
export function withPlaces({ grid: of, entries }: Arranged, places: Places): Pick<ParsedLine, "grid" | "entries"> {
  return {
    grid: { ...of, width: places[0]?.length ?? 0, height: places.length },
    entries: [...gathered(places), ...entries.filter((e) => !e.cells)],
  };
}

/** The same things in a grid of another size; what has no place in it any more is left out. */
export const resized = <T>(
  places: readonly (readonly (T | null)[])[],
  width: number,
  height: number,
): readonly (readonly (T | null)[])[] =>
  Array.from({ length: height }, (_, r) => Array.from({ length: width }, (_, c) => places[r]?.[c] ?? null));

/** A line as another kind of recipe: what goes in gets places, or loses them. */
export function asKind(parsed: ParsedLine, kind: RecipeKind): ParsedLine {
  if (parsed.kind === kind) return parsed;
  const loose = parsed.entries.map(
    ({ cells, ...e }): ParsedEntry => (cells && e.role === "tool" ? { ...e, min: 1, max: 1 } : e),
  );
  const taken = loose.filter((e) => e.role === "ingredient");
  const rest = loose.filter((e) => e.role !== "ingredient");
  if (kind === "combine") {
    const pair = [...taken, ...rest.filter((e) => e.role === "tool")].slice(0, PAIR.length);
    const placed = pair.map((e, k) => ({ ...e, min: 1, max: 1, chance: 1, cells: PAIR[k] }));
    return {
      ...parsed,
      kind,
      grid: { ...NO_GRID, width: 2, height: 1, mirrored: true },
      entries: [...placed, ...rest.filter((e) => !pair.includes(e))],
    };
  }
  if (kind !== "pattern") return { ...parsed, kind, grid: NO_GRID, entries: loose };
  const things = taken.flatMap((e) => Array.from({ length: Math.min(WIDEST * WIDEST, Math.ceil(e.max)) }, () => e));
  const width = Math.min(WIDEST, Math.max(1, Math.ceil(Math.sqrt(things.length))));
  const height = Math.min(WIDEST, Math.max(1, Math.ceil(things.length / width)));
  const places = Array.from({ length: height }, (_, r) =>
    Array.from({ length: width }, (_, c) => things[r * width + c] ?? null),
  );
  return { ...parsed, kind, grid: { ...NO_GRID, width, height }, entries: [...gathered(places), ...rest] };
}
