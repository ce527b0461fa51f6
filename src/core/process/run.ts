/**
 * The runs of a recipe: each of its ways at each sort of station that makes a difference. Costs, checks and plans take
 * what they are on average (network/recipe-processes.ts), trials roll them (trials/craft.ts).
 */
import type { Catalogue } from "../catalogue/catalogue";
import { termsOf } from "../clauses/all";
import type { Terms } from "../clauses/terms";
import type { Recipe } from "../kinds/index";
import { type VariantValues, waysOf } from "../kinds/ways";
import type { Line } from "../notation/line";
import type { Id } from "../schema/id";
import { type Effects, stationsOf } from "./stations";
import { teachers } from "./teaching";

export interface RecipeRun {
  readonly recipe: Recipe;
  /** 0: the recipe itself, then its variants in their order. */
  readonly way: number;
  readonly of: VariantValues;
  /** Its lines; a station with a tag is the one that it is at. Chances are as written, without a stat of the maker. */
  readonly lines: readonly Line[];
  /** Its time counts the station's speed. */
  readonly terms: Terms;
  readonly station: Effects;
  /** Items of which one must be owned, because they teach it; none: it is known from the start. */
  readonly teachers: readonly Id[];
}

/** The runs of a recipe, the recipe's own first. */
export function recipeRuns(recipe: Recipe, catalogue: Catalogue): RecipeRun[] {
  const taught = teachers(catalogue, recipe.id);
  const runs: RecipeRun[] = [];
  const ways = waysOf(recipe);
  for (let way = 0; way < ways.length; way++) {
    const of = ways[way];
    for (const station of stationsOf(catalogue, of.lines)) {
      const terms = termsOf(of);
      if (station.pace !== 1) terms.ticks = Math.round(terms.ticks * station.pace);
      runs.push({
        recipe,
        way,
        of,
        lines: station.lines,
        terms,
        station,
        teachers: terms.teacher !== null ? [terms.teacher] : taught,
      });
    }
  }
  return runs;
}
