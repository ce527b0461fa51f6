/** What a run of something that a finding names does, as a line. */
import { around } from "../catalogue/surroundings";
import type { Catalogue } from "../catalogue/catalogue";
import { soldFor } from "../catalogue/inheritance";
import type { Source } from "../kinds/index";
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
  if (source) return ofSource(catalogue, source);
  const use = kind === "use" && catalogue.records.use.get(id);
  if (use) return formatUse(use, around(catalogue));
  const item = kind === "item" && catalogue.records.item.get(id);
  return item ? `sell 1 ${name} for ${sayCost(soldFor(catalogue, item) ?? 0)}` : name;
}

/** "gather 2 River eel", "buy 1 Rope for 7.00", "draw from Wreck finds": what a visit gives, then what is sold. */
function ofSource(catalogue: Catalogue, { name, kind, lines, tables, wares, price }: Source): string {
  const here = around(catalogue);
  const money = price > 0 ? ` for ${sayCost(price)}` : "";
  const parts: string[] = [];
  if (lines.length) {
    const verb = price > 0 ? "buy" : kind === "gathering" ? "gather" : "get";
    parts.push(`${verb} ${list(lines.map((l) => `${sayQuantity(l.max)} ${sayNamed(l, here)}`))}${money}`);
  }
  if (tables.length) {
    const drawn = list(tables.map((t) => here.nameOf("table", t.table)));
    parts.push(`draw from ${drawn}${lines.length ? "" : money}`);
  }
  if (wares.length) {
    const sold = wares.map((w) => `${sayQuantity(w.amount)} ${here.nameOf("item", w.item)} for ${sayCost(w.price)}`);
    parts.push(`buy ${list(sold)}`);
  }
  return parts.length ? list(parts) : name;
}
