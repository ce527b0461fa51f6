import { soldFor } from "../catalogue/inheritance";
import { setField } from "../catalogue/edit";
import { sayCost } from "../numbers/format";
import { value as leastCost, ways } from "../analysis/registry";
import { SOURCE } from "../network/network";
import { perRecord, ref } from "./check";

/**
 * An item that is made by recipe and sells for less than what goes into it. A sell price of 0 means it is not for sale.
 */
export const priceBelowCost = perRecord<"item">({
  id: "price-below-cost",
  reads: [leastCost, ways],
  per: ["item"],
  may({ id, status }, { readings }) {
    const by = readings.by("value", readings.compiled.numberOf(id) as number);
    return status !== "retired" && by >= 0 && !(readings.network.flags[by] & SOURCE);
  },
  *at({ catalogue, readings }, item) {
    const { compiled, network, value } = readings;
    const floor = catalogue.pantry.priceFloor;
    const i = compiled.numberOf(item.id) as number;
    const by = readings.by("value", i);
    if (item.status === "retired" || by < 0 || network.flags[by] & SOURCE) return;
    const price = soldFor(catalogue, item);
    const cost = value.cost[i];
    if (!price || price >= cost * floor - 1e-9) return;
    const fair = Math.ceil(cost * floor * 100 - 1e-6) / 100;
    yield {
      subject: ref(catalogue, "item", item.id),
      says: `${item.name} sells for ${sayCost(price)} but costs ${sayCost(cost)} to make${floor === 1 ? "" : ` (floor: ${sayCost(cost * floor)})`}.`,
      evidence: {
        type: "amounts",
        unit: "value",
        rows: [
          { label: "sells for", value: price },
          { label: "costs", value: cost },
        ],
      },
      fixes: [
        {
          says: `Sell ${item.name} for ${sayCost(fair)}`,
          do: "edit",
          edits: [setField(catalogue, "item", item.id, "sell", fair)],
        },
        { says: `Open ${item.name}`, do: "open", kind: "item", id: item.id },
      ],
    };
  },
});
