/** From lines that were read to the edits that write them: records for new names, then the recipe or what differs in it. */
import type { Catalogue } from "../catalogue/catalogue";
import { difference, type Edit } from "../catalogue/edit";
import { around } from "../catalogue/surroundings";
import type { Index } from "../catalogue/persistent-map";
import { type Item, type Recipe, withDefaults } from "../kinds/index";
import { recipeFields } from "../kinds/parsed";
import { Completions } from "../notation/completion";
import { type ParsedLine, type Words, words } from "../notation/parsed";
import { newId } from "../schema/id";
import { NewNames } from "./new-names";

const COMPLETIONS: Index<Item, Completions> = {
  build: (items) =>
    new Completions([...items.values()].flatMap((i) => (i.status === "retired" ? [] : [[i.id, i.name] as const]))),
  follow(completions, _, changes) {
    for (const [id, item] of changes) {
      if (item && item.status !== "retired") completions.put(id, item.name);
      else completions.take(id);
    }
    return completions;
  },
};
/** Names of items that may stand in a line, but for retired ones. */
export const completionsOf = (catalogue: Catalogue): Completions => catalogue.records.item.index(COMPLETIONS);

export const wordsOf = (catalogue: Catalogue): Words => words(around(catalogue));

/** Edits that add one new recipe (and records for new names) for every line. @throws RangeError for a line with an error */
export function addRecipes(catalogue: Catalogue, lines: readonly ParsedLine[]): Edit[] {
  const names = new NewNames(catalogue);
  const recipes = lines.map((parsed) => recipeFrom(parsed, names));
  return [...names.edits, ...recipes.map((record): Edit => ({ op: "add", kind: "recipe", record }))];
}

export function recipeFrom(parsed: ParsedLine, names: NewNames): Recipe {
  if (!parsed.ok) throw new RangeError("A line with errors can't be written.");
  const fields = recipeFields(parsed, names.named);
  return withDefaults("recipe", {
    id: newId(),
    key: names.keys.next("recipe", fields.name),
    ...fields,
    status: "ready",
  });
}

/** Edits that make an existing recipe say what the line says; its key, status and note stay. */
export function rewriteRecipe(catalogue: Catalogue, recipe: Recipe, parsed: ParsedLine): Edit[] {
  if (!parsed.ok) throw new RangeError("A line with errors can't be written.");
  const names = new NewNames(catalogue);
  const after: Recipe = { ...recipe, ...recipeFields(parsed, names.named) };
  return [...names.edits, ...difference("recipe", recipe, after)];
}
