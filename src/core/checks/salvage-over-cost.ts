import { salvageReturns } from "../analysis/salvage";
import { formatRecipe } from "../notation/format";
import { list, sayCost, sayPercent } from "../numbers/format";
import { type Check, type Fix, itemRef, recipeRef } from "./check";
import { setLines } from "./mend";

/** Taking an item apart gives more than making it costs. */
export const salvageOverCost: Check = {
  id: "salvage-over-cost",
  title: "Salvage worth more than the item",
  severity: "warning",
  *find(scene) {
    const { catalogue, readings } = scene;
    const { network, own } = readings;
    const ceiling = catalogue.pantry.salvageCeiling;
    for (const { process, cost, back } of salvageReturns(network, own.value)) {
      const { of, record } = network.processes[process];
      if (of !== "recipe" || !Number.isFinite(cost) || back <= cost * ceiling * (1 + 1e-9)) continue;
      const taken = record.lines.filter((l) => l.role === "ingredient").map((l) => catalogue.item.get(l.item)?.name ?? "");
      const share = cost > 0 ? `, ${sayPercent(Math.round((back / cost) * 100) / 100)} of it` : "";
      const chance = Math.floor(((cost * ceiling) / back) * 20) / 20;
      const lower: Fix[] =
        chance > 0
          ? [{
              says: `${record.name}: give everything at ${sayPercent(chance)} of today's chance`,
              do: "edit",
              edits: [setLines(catalogue, "recipe", record.id, record.lines.map((l) => (l.role === "output" ? { ...l, chance: Number((l.chance * chance).toFixed(4)) } : l)))],
            }]
          : [];
      const items = record.lines.filter((l) => l.role === "ingredient").map((l) => itemRef(scene, network.index.get(l.item) as number));
      yield {
        about: [...items, recipeRef(record)],
        says: `Salvaging ${list(taken)} gives back ${sayCost(back)} on average; ${taken.length === 1 ? "it" : "they"} cost ${sayCost(cost)}${share}.`,
        evidence: { type: "amounts", unit: "value", rows: [{ label: "costs", value: cost }, { label: "gives back", value: back }] },
        fixes: [...lower, { says: `Open ${record.name}: ${formatRecipe(catalogue, record)}`, do: "open", kind: "recipe", id: record.id }],
      };
    }
  },
};
