import { count } from "../numbers/format";
import { perRecord, recipeRef, recipesAround, ref } from "./check";

/** An ingredient, tool or station that nothing in the pantry provides. Stubs are reported by their own check. */
export const missingInput = perRecord<"item">({
  id: "missing-input",
  title: "Input that nothing provides",
  severity: "error",
  per: ["item"],
  *at(scene, item) {
    const { catalogue, readings } = scene;
    const { compiled, network } = readings;
    const i = compiled.numberOf(item.id) as number;
    if (
      network.makers.start[i] < network.makers.end[i] ||
      network.users.start[i] === network.users.end[i] ||
      item.status === "stub"
    )
      return;
    const users = recipesAround(scene, item.id, "users");
    yield {
      about: [ref(catalogue, "item", item.id), ...users.map(recipeRef)],
      says: `${item.name} is needed by ${count(users.length, "recipe")} and nothing makes, gathers or sells it.`,
      evidence: { type: "cause", leaves: [ref(catalogue, "item", item.id)], path: [] },
      fixes: [
        { says: `Let ${item.name} be gathered: add a source`, do: "source", item: item.id },
        { says: `Open ${item.name} and write a recipe for it`, do: "open", kind: "item", id: item.id },
      ],
    };
  },
});
