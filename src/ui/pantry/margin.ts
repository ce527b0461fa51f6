/** What selling an item leaves over its least cost. */
import type { Catalogue } from "@/core/catalogue/catalogue";
import { soldFor } from "@/core/catalogue/inheritance";
import type { ReadModel } from "@/core/engine/read-model";
import type { Item } from "@/core/kinds/index";
import { group } from "@/core/numbers/format";
import { figuresOf } from "./provider";

/** Margin of the sell price over the least cost; null where one is missing. */
export function marginOf(catalogue: Catalogue, model: ReadModel, item: Item): number | null {
  const price = soldFor(catalogue, item);
  const cost = figuresOf(model, item.id).value;
  return price === null || price === 0 || cost === null || cost === 0 ? null : price / cost - 1;
}

export const sayMargin = (margin: number | null): string =>
  margin === null ? "" : `${margin < 0 ? "−" : "+"}${group(String(Math.abs(Math.round(margin * 100))))}%`;
