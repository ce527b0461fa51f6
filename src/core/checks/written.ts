/** What a run of something that a finding names does, as a line. */
import { type Catalogue, held } from "../catalogue/catalogue";
import { formatRecipe } from "../notation/format";
import { list, sayCost, sayQuantity } from "../numbers/format";
import type { Ref } from "./check";

/** A recipe as its line; of a source what it is bought for, of an item what it is sold for. */
export function written(catalogue: Catalogue, { kind, id, name }: Ref): string {
  const recipe = kind === "recipe" && catalogue.recipe.get(id);
  if (recipe) return formatRecipe(catalogue, recipe);
  const source = kind === "source" && catalogue.source.get(id);
  if (source)
    return `buy ${list(source.lines.map((l) => `${sayQuantity(l.max)} ${catalogue.item.get(l.item)?.name ?? ""}`))} for ${sayCost(source.price)}`;
  const item = kind === "item" && catalogue.item.get(id);
  return item ? `sell 1 ${name} for ${sayCost(held(catalogue, item, "sell").value ?? 0)}` : name;
}
