/** What two things give when they are combined, typed where they meet. */
import type { Catalogue } from "../catalogue/catalogue";
import type { Edit } from "../catalogue/edit";
import { around, namesOf } from "../catalogue/surroundings";
import type { Recipe } from "../kinds/index";
import type { LineTarget } from "../notation/line";
import { formatRecipe } from "../notation/format";
import { parseLine } from "../notation/parser";
import type { ParsedLine } from "../notation/parsed";
import { addRecipes, rewriteRecipe, wordsOf } from "./recipes";

export type Written = { readonly edits: readonly Edit[] } | { readonly message: string };

const faultOf = ({ issues }: ParsedLine): string | undefined => issues.find((i) => i.severity === "error")?.message;

/**
 * Edits after which the first on the second gives what was typed, such as "2 Spark + 1 Ash 20%": a recipe comes, is
 * changed in its outputs only, or (where nothing was typed) goes. @param there  the recipe of the two, if there is one
 */
export function withResult(
  catalogue: Catalogue,
  first: LineTarget,
  second: LineTarget,
  there: Recipe | undefined,
  typed: string,
): Written {
  const text = typed.trim();
  if (!text) return { edits: there ? [{ op: "remove", kind: "recipe", record: there }] : [] };
  const written = ({ item, any }: LineTarget): string =>
    any === undefined ? namesOf(catalogue, "item").written(item) : `any ${namesOf(catalogue, "tag").written(any)}`;
  const words = wordsOf(catalogue);
  const parsed = parseLine(`combine ${written(first)} + ${written(second)} -> ${text}`, words);
  const fault = faultOf(parsed);
  if (fault) return { message: fault };
  if (!there) return { edits: addRecipes(catalogue, [parsed]) };
  const given = (line: ParsedLine) => line.entries.filter((e) => e.role === "output");
  const before = parseLine(formatRecipe(around(catalogue), there), words);
  const entries = [...before.entries.filter((e) => e.role !== "output"), ...given(parsed)];
  // Named after its result, it goes on being so.
  return { edits: rewriteRecipe(catalogue, there, { ...before, entries, tables: parsed.tables }) };
}
