import {
  type Arrangement,
  besideRecipe,
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
import { buildBy, type Collecting, type Index } from "../catalogue/persistent-map";
import type { Recipe } from "../kinds/index";
import type { Id } from "../schema/id";
import { perRecord, recipeRef } from "./check";

function collectPatterns(): Collecting<Recipe, Set<Id>> {
  const patterns = new Set<Id>();
  return {
    add(recipe) {
      if (isPattern(recipe)) patterns.add(recipe.id);
    },
    done: () => patterns,
  };
}
/** Patterns that are in use. */
export const PATTERNS: Index<Recipe, Set<Id>> = {
  build: buildBy(collectPatterns),
  collect: collectPatterns,
  follow(patterns, _, changes) {
    for (const [id, now] of changes)
      if (now && isPattern(now)) patterns.add(id);
      else patterns.delete(id);
    return patterns;
  },
};
const isPattern = (recipe: Recipe): boolean => recipe.kind === "pattern" && recipe.status !== "retired";

/** Patterns first, then by key. */
const byKind = (a: Recipe, b: Recipe): number =>
  Number(b.kind === "pattern") - Number(a.kind === "pattern") || (a.key < b.key ? -1 : 1);

/** A pattern accepts an arrangement that another pattern, or a loose recipe in the same place, accepts too. */
export const patternConflict = perRecord<"recipe">({
  id: "pattern-conflict",
  reads: [],
  per: ["recipe"],
  may: ({ kind }) => kind === "pattern",
  // What lies beside a recipe that was edited, or asks for a tag that items got or lost.
  *also({ catalogue }, _, edits) {
    const patterns = catalogue.records.recipe.index(PATTERNS);
    if (!patterns.size) return;
    for (const recipe of touchedBy(catalogue, edits))
      for (const other of besideRecipe(catalogue, recipe)) if (patterns.has(other.id)) yield other.id;
    if (!edits.some(tags)) return;
    for (const id of patterns) if (catalogue.records.recipe.get(id)?.lines.some((l) => l.any)) yield id;
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
    const others = [...besideRecipe(catalogue, recipe)].filter((other) => {
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
      const message = {
        equal: `${recipe.name} and ${other.name} have the same pattern`,
        hides: `Every layout of ${other.name} also fits ${recipe.name}`,
        hidden: `Every layout of ${recipe.name} also fits ${other.name}`,
        overlap: `${recipe.name} and ${other.name} accept the same layout`,
        loose: `${other.name} takes the ingredients of the pattern ${recipe.name} in any order`,
      }[is];
      yield {
        subject: [recipeRef(recipe), recipeRef(other)],
        message: `${message}: [${say(both)}].`,
        evidence: { type: "lines", inputs: [], recipes: [recipeRef(recipe), recipeRef(other)] },
        fixes: [recipe, other].map((r) => ({
          message: `Open ${r.name}`,
          do: "open" as const,
          kind: "recipe" as const,
          id: r.id,
        })),
      };
    }
  },
});

/** Recipes that edits concern, as they are and as they were. */
function* touchedBy(catalogue: Catalogue, edits: readonly Edit[]): Generator<Recipe> {
  for (const edit of edits) {
    if (edit.kind !== "recipe") continue;
    const now = edit.op === "set" ? catalogue.records.recipe.get(edit.id) : (edit.record as Recipe);
    if (now) yield now;
    if (now && edit.op === "set" && edit.field === "lines") yield { ...now, lines: edit.from as never };
  }
}
/** Whether an edit may make an item one with a tag, or no longer. */
const tags = (edit: Edit): boolean =>
  edit.kind === "item" && (edit.op !== "set" || edit.field === "tags" || edit.field === "status");
