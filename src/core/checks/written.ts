/** What a run of something that a finding names does, as a line. */
import { around } from "../catalogue/surroundings";
import type { Catalogue } from "../catalogue/catalogue";
import { soldFor } from "../catalogue/inheritance";
import { formatRecipe } from "../notation/format";
import { sayNamed } from "../notation/line";
import { formatUse } from "../notation/use-line";
import { list, sayCost, sayQuantity } from "../numbers/format";
import type { Ref } from "./check";

/** A recipe as its line; of a source what it is bought for, of an item what it is sold for. */
export function written(catalogue: Catalogue, { kind, id, name }: Ref): string {
  const recipe = kind === "recipe" && catalogue.records.recipe.get(id);
  if (recipe) return formatRecipe(around(catalogue), recipe);
  const source = kind === "source" && catalogue.records.source.get(id);
  if (source)
    return `buy ${list(source.lines.map((l) => `${sayQuantity(l.max)} ${sayNamed(l, around(catalogue))}`))} for ${sayCost(source.price)}`;
  const use = kind === "use" && catalogue.records.use.get(id);
  if (use) return formatUse(use, around(catalogue));
  const item = kind === "item" && catalogue.records.item.get(id);
  return item ? `sell 1 ${name} for ${sayCost(soldFor(catalogue, item) ?? 0)}` : name;
}
