/** Things laid in a grid: which patterns they are, and which ones they nearly are. */
import { countOf, type Lie, liesOf, looseConflict, Members } from "../analysis/patterns";
import type { Catalogue } from "../catalogue/catalogue";
import { recipesAsking, recipesTaking } from "../catalogue/references";
import type { Recipe } from "../kinds/index";
import { WIDEST } from "../notation/places";
import type { Id } from "../schema/id";

/** Rows of items; null: nothing lies there. */
export type Laid = readonly (readonly (Id | null)[])[];

/** A place at which something else would have to lie. */
export interface Amiss {
  readonly row: number;
  readonly column: number;
  /** Any of these; null: nothing. */
  readonly wants: ReadonlySet<Id> | null;
}
export interface Nearly {
  readonly recipe: Recipe;
  readonly amiss: readonly Amiss[];
}
export interface Answer {
  /** Patterns that accept what is laid, and recipes that take the same things in any order. */
  readonly are: readonly Recipe[];
  /** The nearest patterns otherwise, those with the fewest places amiss first. */
  readonly near: readonly Nearly[];
}

/** Most patterns that are looked at, and most that are told. */
const [LOOKED, TOLD] = [2_000, 3];

export function answerFor(catalogue: Catalogue, laid: Laid): Answer {
  const members = Members.in(catalogue);
  const things = [...new Set(laid.flat().filter((id): id is Id => id !== null))];
  const beside = new Set<Recipe>();
  for (const id of things) {
    for (const recipe of recipesTaking(catalogue, id)) beside.add(recipe);
    for (const tag of catalogue.records.item.get(id)?.tags ?? [])
      for (const recipe of recipesAsking(catalogue, tag)) beside.add(recipe);
  }
  const inUse = [...beside].filter((r) => r.status !== "retired").sort((a, b) => (a.key < b.key ? -1 : 1));
  const asLie: Lie = { rows: laid.map((row) => row.map((id) => (id ? new Set([id]) : null))), at: null };
  const are: Recipe[] = [];
  const near: Nearly[] = [];
  for (const recipe of inUse.slice(0, LOOKED)) {
    if (recipe.kind !== "pattern") {
      if (countOf(recipe) !== null && looseConflict([asLie], recipe.lines, members)) are.push(recipe);
      continue;
    }
    let best: Amiss[] | null = null;
    for (const lie of liesOf(recipe, members))
      for (const [top, left] of cornersOf(lie)) {
        const amiss = amissAt(lie, top, left, laid, best?.length ?? Number.POSITIVE_INFINITY);
        if (amiss && (!best || amiss.length < best.length)) best = amiss;
      }
    if (best?.length === 0) are.push(recipe);
    // A pattern of which nothing lies right is not near.
    else if (best && best.length < (countOf(recipe) ?? 0) + things.length) near.push({ recipe, amiss: best });
  }
  near.sort((a, b) => a.amiss.length - b.amiss.length);
  return {
    are: are.sort((a, b) => Number(b.kind === "pattern") - Number(a.kind === "pattern")),
    near: near.slice(0, TOLD),
  };
}

/** Where the corner of a pattern may be: at its place, or wherever it fits. */
function cornersOf({ rows, at }: Lie): readonly (readonly [number, number])[] {
  if (at !== null) return [at];
  const corners: [number, number][] = [];
  for (let r = 0; r + rows.length <= WIDEST; r++)
    for (let c = 0; c + (rows[0]?.length ?? 0) <= WIDEST; c++) corners.push([r, c]);
  return corners;
}

/** The places amiss where a pattern has its corner there; null: they are not fewer than `most`. */
function amissAt({ rows }: Lie, top: number, left: number, laid: Laid, most: number): Amiss[] | null {
  const amiss: Amiss[] = [];
  for (let row = 0; row < WIDEST; row++)
    for (let column = 0; column < WIDEST; column++) {
      const wants = rows[row - top]?.[column - left] ?? null;
      const there = laid[row]?.[column] ?? null;
      if (wants === null ? there === null : there !== null && wants.has(there)) continue;
      amiss.push({ row, column, wants });
      if (amiss.length >= most) return null;
    }
  return amiss;
}
