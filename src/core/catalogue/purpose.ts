/** What an item is good for beside recipes: whether it can be sold, worn or used, or is measured by stats. */
import type { Item } from "../kinds/index";
import type { Catalogue } from "./catalogue";
import { statsOfItem } from "./fields";
import { held, soldFor } from "./inheritance";
import { lineage } from "./tree";
import { usesOf } from "./uses";

export function hasPurpose(catalogue: Catalogue, item: Item): boolean {
  if ((soldFor(catalogue, item) ?? 0) > 0 || held(catalogue, item, "slot").value !== null) return true;
  if (held(catalogue, item, "carrying").value !== null) return true;
  if (catalogue.records.use.size && usesOf(catalogue, item).length) return true;
  const measured = [item, ...lineage(catalogue, item.type)].some(({ stats }) => Object.keys(stats).length > 0);
  return measured || statsOfItem(catalogue, item) !== null;
}
