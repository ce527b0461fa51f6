import {
  type Arrangement,
  besidePattern,
  type Conflict,
  conflictOf,
  countOf,
  liesOf,
  looseConflict,
  Members,
  samePlace,
} from "../analysis/patterns";
import type { Catalogue } from "../catalogue/catalogue";
import type { Edit } from "../catalogue/edit";
import type { Index } from "../catalogue/persistent-map";
import type { Recipe } from "../kinds/index";
import type { Id } from "../schema/id";
import { perRecord, recipeRef } from "./check";

/** Patterns in use by how many things go in. */
type ByCount = Map<number, Set<Id>>;
const PATTERNS: Index<Recipe, ByCount> = (() => {
  const sideOf = (by: ByCount, recipe: Recipe): Set<Id> | null => {
    if (recipe.kind !== "pattern") return null;
    const n = recipe.status === "retired" ? null : countOf(recipe);
    if (n === null) return null;
    const there = by.get(n) ?? new Set();
    by.set(n, there);
    return there;
  };
  return {
    build(recipes) {
      const by: ByCount = new Map();
      for (const recipe of recipes.values()) sideOf(by, recipe)?.add(recipe.id);
      return by;
    },
    follow(by, before, changes) {
      for (const [id, now] of changes) {
        const then = before.get(id);
        if (then) sideOf(by, then)?.delete(id);
        if (now) sideOf(by, now)?.add(id);
      }
      return by;
    },
  };
})();
/** Patterns first, then by key. */
const byKind = (a: Recipe, b: Recipe): number =>
  Number(b.kind === "pattern") - Number(a.kind === "pattern") || (a.key < b.key ? -1 : 1);

/** A pattern accepts an arrangement that another pattern, or a loose recipe in the same place, accepts too. */
export const patternConflict = perRecord<"recipe">({
  id: "pattern-conflict",
  reads: [],
  per: ["recipe"],
  // What lies beside a recipe that was edited, or asks for a tag that items got or lost.
  *also({ catalogue }, _, edits) {
    const patterns = catalogue.records.recipe.index(PATTERNS);
    if (patterns.size) for (const n of countsOf(catalogue, edits)) yield* patterns.get(n) ?? [];
  },
  *at({ catalogue }, recipe) {
    const n = recipe.kind === "pattern" && recipe.status !== "retired" ? countOf(recipe) : null;
    if (n === null) return;
    const members = Members.in(catalogue);
    const lies = liesOf(recipe, members);
    const say = (arrangement: Arrangement): string =>
      arrangement
        .map((row) => row.map((id) => (id ? (catalogue.records.item.get(id)?.name ?? "") : "-")).join(", "))
        .join("; ");
    const found: [Recipe, Conflict][] = [];
    const others = [...besidePattern(catalogue, recipe)].filter((other) => {
      // Of two patterns, one tells of it.
      const tells = other.kind !== "pattern" || other.key > recipe.key;
      return tells && other.status !== "retired" && countOf(other) === n;
    });
    for (const other of others.sort(byKind)) {
      if (!samePlace(recipe.lines, other.lines, members)) continue;
      const conflict =
        other.kind === "pattern" ? conflictOf(lies, liesOf(other, members)) : looseConflict(lies, other.lines, members);
      if (conflict) found.push([other, conflict]);
    }
    for (const [other, { is, both }] of found) {
      const says = {
        equal: `${recipe.name} and ${other.name} lie the same way`,
        hides: `Every arrangement of ${other.name} is one of ${recipe.name} too`,
        hidden: `Every arrangement of ${recipe.name} is one of ${other.name} too`,
        overlap: `${recipe.name} and ${other.name} accept the same arrangement`,
        loose: `${other.name} takes the same things in any order as the pattern ${recipe.name}`,
      }[is];
      yield {
        subject: [recipeRef(recipe), recipeRef(other)],
        says: `${says}: [${say(both)}]. The game can't tell which is meant.`,
        evidence: { type: "lines", inputs: [], recipes: [recipeRef(recipe), recipeRef(other)] },
        fixes: [recipe, other].map((r) => ({
          says: `Open ${r.name}`,
          do: "open" as const,
          kind: "recipe" as const,
          id: r.id,
        })),
      };
    }
  },
});

/** How many things go into the recipes that edits concern. */
function* countsOf(catalogue: Catalogue, edits: readonly Edit[]): Generator<number> {
  const { recipe: recipes } = catalogue.records;
  let tags = false;
  for (const edit of edits) {
    if (edit.kind === "item") tags ||= edit.op !== "set" || edit.field === "tags" || edit.field === "status";
    if (edit.kind !== "recipe") continue;
    const now = edit.op === "set" ? recipes.get(edit.id) : (edit.record as Recipe);
    if (!now) continue;
    const n = countOf(now);
    if (n !== null) yield n;
    if (edit.op !== "set") continue;
    const then = countOf({ ...now, [edit.field]: edit.from } as Recipe);
    if (then !== null) yield then;
  }
  if (!tags) return;
  for (const [n, ids] of recipes.index(PATTERNS))
    if ([...ids].some((id) => recipes.get(id)?.lines.some((l) => l.any))) yield n;
}
