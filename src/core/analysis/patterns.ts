/** Patterns beside each other: whether two accept the same arrangement, and which. */
import type { Catalogue } from "../catalogue/catalogue";
import type { Recipe } from "../kinds/index";
import type { Line } from "../notation/line";
import { countCells, grid } from "../notation/places";
import { membersOf } from "../process/members";
import { recipesAsking, recipesTaking } from "../catalogue/references";
import { type Node, nodeOf, tagOf } from "../process/node";
import type { Id } from "../schema/id";

/** Places of a pattern for which is looked who else takes what stands there. */
const MOST_TRIED = 3;

/** What may stand in a place; null: nothing does. */
type Cell = ReadonlySet<Id> | null;
/** One way in which a pattern may lie, without empty rows and columns around it. */
export interface Lie {
  readonly rows: readonly (readonly Cell[])[];
  /** Row and column of its corner in the grid; null: anywhere. */
  readonly at: readonly [number, number] | null;
}

/** What both accept: items row by row, "" for a blank. */
export type Arrangement = readonly (readonly (Id | null)[])[];
export type Conflict =
  | { readonly is: "equal" | "hides" | "hidden" | "overlap"; readonly both: Arrangement }
  | { readonly is: "loose"; readonly both: Arrangement };

/** Items that stand for a node, computed once for each as long as the items stay as they are. */
export class Members {
  private static readonly known = new WeakMap<Catalogue["records"]["item"], Members>();
  static in(catalogue: Catalogue): Members {
    const { item } = catalogue.records;
    const members = Members.known.get(item) ?? new Members(catalogue);
    Members.known.set(item, members);
    return members;
  }

  private readonly found = new Map<Node, ReadonlySet<Id>>();
  private constructor(private readonly catalogue: Catalogue) {}
  of(node: Node): ReadonlySet<Id> {
    const there = this.found.get(node);
    if (there) return there;
    const tag = tagOf(node);
    const set = new Set(tag === null ? [node] : membersOf(this.catalogue, tag).map((i) => i.id));
    this.found.set(node, set);
    return set;
  }
}

const meet = (a: Cell, b: Cell): boolean => (a === null || b === null ? a === b : [...a].some((id) => b.has(id)));
const within = (a: Cell, b: Cell): boolean => (a === null || b === null ? a === b : [...a].every((id) => b.has(id)));

const turned = <T>(rows: readonly (readonly T[])[]): T[][] =>
  (rows[0] ?? []).map((_, c) => rows.map((row) => row[c]).reverse());
const mirrored = <T>(rows: readonly (readonly T[])[]): T[][] => rows.map((row) => [...row].reverse());

/** Without empty rows and columns around it, and where its corner stood. */
function trimmed(rows: readonly (readonly Cell[])[]): { rows: Cell[][]; at: [number, number] } {
  const full = rows.flatMap((row, r) => (row.some(Boolean) ? [r] : []));
  const wide = (rows[0] ?? []).flatMap((_, c) => (rows.some((row) => row[c]) ? [c] : []));
  const [top, left] = [full[0] ?? 0, wide[0] ?? 0];
  return {
    rows: rows.slice(top, (full.at(-1) ?? -1) + 1).map((row) => row.slice(left, (wide.at(-1) ?? -1) + 1)),
    at: [top, left],
  };
}

/** Every way in which a pattern may lie. */
export function liesOf({ grid: of, lines }: Pick<Recipe, "grid" | "lines">, members: Members): Lie[] {
  const cells = grid(of, lines).map((row) => row.map((l): Cell => (l ? members.of(nodeOf(l)) : null)));
  const all = [cells];
  if (of.turned) for (let k = 0; k < 3; k++) all.push(turned(all[all.length - 1]));
  if (of.mirrored) all.push(...all.map(mirrored));
  return all.map((rows) => {
    const { rows: inner, at } = trimmed(rows);
    return { rows: inner, at: of.shifted ? null : at };
  });
}

const fits = (a: Lie, b: Lie, cell: (a: Cell, b: Cell) => boolean): boolean =>
  a.rows.length === b.rows.length &&
  a.rows[0]?.length === b.rows[0]?.length &&
  (a.at === null || b.at === null || (a.at[0] === b.at[0] && a.at[1] === b.at[1])) &&
  a.rows.every((row, r) => row.every((c, k) => cell(c, b.rows[r][k])));
/** Whether everything that one lie accepts the other does: where it may lie anywhere, the other must too. */
const covers = (by: Lie, of: Lie): boolean => (by.at === null || of.at !== null) && fits(of, by, within);

/** How two patterns stand to each other; null: the game can always tell them apart. */
export function conflictOf(a: readonly Lie[], b: readonly Lie[]): Conflict | null {
  for (const one of a) {
    const other = b.find((each) => fits(one, each, meet));
    if (!other) continue;
    const both = one.rows.map((row, r) =>
      row.map((cell, k) => (cell ? ([...cell].find((id) => other.rows[r][k]?.has(id)) ?? null) : null)),
    );
    const hidesB = b.every((lie) => a.some((by) => covers(by, lie)));
    const hidesA = a.every((lie) => b.some((by) => covers(by, lie)));
    return { is: hidesA && hidesB ? "equal" : hidesB ? "hides" : hidesA ? "hidden" : "overlap", both };
  }
  return null;
}

/** So many things go into a recipe, one for each place; null: not a number of places. */
export function countOf({ kind, lines }: Pick<Recipe, "kind" | "lines">): number | null {
  if (kind === "pattern") return lines.reduce((sum, l) => sum + countCells(l.cells ?? 0), 0);
  if (kind !== "craft") return null;
  let sum = 0;
  for (const l of lines) {
    if (l.role !== "ingredient") continue;
    if (l.min !== l.max || !Number.isInteger(l.min) || l.chance !== 1) return null;
    sum += l.min;
  }
  return sum > 0 && sum <= 25 ? sum : null;
}

/**
 * Recipes that may accept what a pattern, or a loose recipe, does: those that take something of what goes in with the
 * fewest such, by name or as any item with a tag.
 */
export function besideRecipe(catalogue: Catalogue, { lines }: Pick<Recipe, "lines">): Set<Recipe> {
  const members = Members.in(catalogue);
  const items = catalogue.records.item;
  let best: Set<Recipe> | null = null;
  const nodes = new Set(lines.flatMap((l) => (l.cells || l.role === "ingredient" ? [nodeOf(l)] : [])));
  for (const node of [...nodes].sort((a, b) => members.of(a).size - members.of(b).size).slice(0, MOST_TRIED)) {
    const found = new Set<Recipe>();
    const tags = new Set<Id>();
    for (const id of members.of(node)) {
      for (const recipe of recipesTaking(catalogue, id)) found.add(recipe);
      for (const tag of items.get(id)?.tags ?? []) tags.add(tag);
    }
    for (const tag of tags) for (const recipe of recipesAsking(catalogue, tag)) found.add(recipe);
    if (!best || found.size < best.size) best = found;
  }
  return best ?? new Set();
}

/**
 * Whether what a loose recipe takes, in any order, can be what a pattern takes: a matching of things and places.
 * @param lies  of the pattern; any of them does
 */
export function looseConflict([lie]: readonly Lie[], loose: readonly Line[], members: Members): Conflict | null {
  const things = loose.flatMap((l) =>
    l.role === "ingredient" ? Array.from({ length: l.min }, () => members.of(nodeOf(l))) : [],
  );
  const places = lie.rows.flat().flatMap((cell) => (cell ? [cell] : []));
  if (things.length !== places.length) return null;
  const takes = new Array<number>(places.length).fill(-1);
  const place = (thing: number, tried: Set<number>): boolean => {
    for (const [k, cell] of places.entries()) {
      if (tried.has(k) || !meet(things[thing], cell)) continue;
      tried.add(k);
      if (takes[k] < 0 || place(takes[k], tried)) {
        takes[k] = thing;
        return true;
      }
    }
    return false;
  };
  for (const k of things.keys()) if (!place(k, new Set())) return null;
  let at = 0;
  const both = lie.rows.map((row) =>
    row.map((cell) => {
      if (!cell) return null;
      const thing = things[takes[at++]];
      return [...cell].find((id) => thing.has(id)) ?? null;
    }),
  );
  return { is: "loose", both };
}

/** Whether both may be made in the same place. */
export function samePlace(a: readonly Line[], b: readonly Line[], members: Members): boolean {
  const [one, two] = [a, b].map((lines) => lines.filter((l) => l.role === "station").map((l) => members.of(nodeOf(l))));
  if (!one.length || !two.length) return one.length === two.length;
  return one.some((x) => two.some((y) => meet(x, y)));
}
