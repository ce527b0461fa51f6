import { soldFor } from "../catalogue/inheritance";
import { setField } from "../catalogue/edit";
import { sayCost } from "../numbers/format";
import type { Readings } from "../analysis/readings";
import { value as leastCost, ways } from "../analysis/registry";
import { SOURCE } from "../network/network";
import type { Item } from "../kinds/index";
import { type Checked, perRecord, ref } from "./check";
import { digestOfAll } from "./digest";

/** Whether the cheapest way to an item is to make it. */
function isMade(readings: Readings, i: number | undefined): boolean {
  const by = i === undefined ? -1 : readings.by("value", i);
  return by >= 0 && !(readings.network.flags[by] & SOURCE);
}

/** What an item brings and costs, where it is made and brings too little; null: it does not. */
function soldForLess(
  { catalogue, readings }: Checked,
  item: Item,
): { readonly price: number; readonly cost: number; readonly floor: number } | null {
  const { compiled, value } = readings;
  const i = compiled.numberOf(item.id);
  if (item.status === "retired" || i === undefined || !isMade(readings, i)) return null;
  const floor = catalogue.pantry.priceFloor;
  const price = soldFor(catalogue, item);
  const cost = value.cost[i];
  return !price || price >= cost * floor - 1e-9 ? null : { price, cost, floor };
}

/**
 * An item that is made by recipe and sells for less than what goes into it. A sell price of 0 means it is not for sale.
 */
export const priceBelowCost = perRecord<"item">({
  id: "price-below-cost",
  reads: [leastCost, ways],
  per: ["item"],
  mayBe: (id, { readings }) => isMade(readings, readings.compiled.numberOf(id)),
  mark(item, context) {
    const less = soldForLess(context, item);
    return less && digestOfAll([item.key, item.name, item.sell, less.price, less.cost, less.floor]);
  },
  *at(context, item) {
    const { catalogue } = context;
    const less = soldForLess(context, item);
    if (!less) return;
    const { price, cost, floor } = less;
    const fair = Math.ceil(cost * floor * 100 - 1e-6) / 100;
    yield {
      subject: ref(catalogue, "item", item.id),
      message: `${item.name} sells for ${sayCost(price)} but costs ${sayCost(cost)} to make${floor === 1 ? "" : ` (floor: ${sayCost(cost * floor)})`}.`,
      evidence: {
        type: "amounts",
        unit: "value",
        rows: [
          { label: "sells for", value: price },
          { label: "costs", value: cost },
        ],
      },
      size: cost / price,
      fixes: [
        {
          message: `Sell ${item.name} for ${sayCost(fair)}`,
          do: "edit",
          edits: [setField(catalogue, "item", item.id, "sell", fair)],
        },
        { message: `Open ${item.name}`, do: "open", kind: "item", id: item.id },
      ],
    };
  },
});
