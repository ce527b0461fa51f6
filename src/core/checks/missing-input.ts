import { count } from "../numbers/format";
import { type Check, recipeRef, ref, usersOf } from "./check";

/** An ingredient, tool or station that nothing in the pantry provides. Stubs are reported by their own check. */
export const missingInput: Check = {
  id: "missing-input",
  title: "Input that nothing provides",
  severity: "error",
  *find({ catalogue, readings: { network } }) {
    for (let i = 0; i < network.items.length; i++) {
      if (network.madeBy.ptr[i] < network.madeBy.ptr[i + 1] || network.neededBy.ptr[i] === network.neededBy.ptr[i + 1]) continue;
      const item = catalogue.item.get(network.items[i]);
      if (!item || item.status === "stub") continue;
      const users = usersOf(catalogue, item.id, ["ingredient", "tool", "station"]);
      yield {
        about: [ref(catalogue, "item", item.id), ...users.map(recipeRef)],
        says: `${item.name} is needed by ${count(users.length, "recipe")} and nothing makes, gathers or sells it.`,
        evidence: { type: "cause", leaves: [ref(catalogue, "item", item.id)], path: [] },
        fixes: [
          { says: `Let ${item.name} be gathered: add a source`, do: "source", item: item.id },
          { says: `Open ${item.name} and write a recipe for it`, do: "open", kind: "item", id: item.id },
        ],
      };
    }
  },
};
