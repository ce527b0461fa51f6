import { held } from "../catalogue/catalogue";
import { setField } from "../catalogue/changes";
import { sayCost } from "../numbers/format";
import { type Check, ref } from "./check";

/** An item that is made by recipe and sells for less than what goes into it. A sell price of 0 means it is not for sale. */
export const priceBelowCost: Check = {
  id: "price-below-cost",
  title: "Sold below cost",
  severity: "warning",
  *find({ catalogue, readings: { network, value } }) {
    const floor = catalogue.pantry.priceFloor;
    for (let i = 0; i < network.items.length; i++) {
      const item = catalogue.item.get(network.items[i]);
      if (!item || item.status === "retired" || value.by[i] < 0 || network.processes[value.by[i]].of === "source") continue;
      const price = held(catalogue, item, "sell").value;
      const cost = value.cost[i];
      if (!price || price >= cost * floor - 1e-9) continue;
      const fair = Math.ceil(cost * floor * 100 - 1e-6) / 100;
      yield {
        about: [ref(catalogue, "item", item.id)],
        says: `${item.name} sells for ${sayCost(price)} but costs ${sayCost(cost)} to make${floor === 1 ? "" : ` (floor: ${sayCost(cost * floor)})`}.`,
        evidence: { type: "amounts", unit: "value", rows: [{ label: "sells for", value: price }, { label: "costs", value: cost }] },
        fixes: [
          { says: `Sell ${item.name} for ${sayCost(fair)}`, do: "edit", edits: [setField(catalogue, "item", item.id, "sell", fair)] },
          { says: `Open ${item.name}`, do: "open", kind: "item", id: item.id },
        ],
      };
    }
  },
};
