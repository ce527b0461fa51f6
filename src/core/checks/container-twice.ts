/** Containers that come back by themselves and are written as an output as well. */
import { recipesTaking } from "../catalogue/references";
import { containerOf } from "../process/containers";
import { anySays } from "../process/traits";
import { idsEdited, holdersBeside } from "./holders";
import type { Id } from "../schema/id";
import { perRecord, recipeRef, ref } from "./check";
import { withoutLine } from "./fixes";

export const containerTwice = perRecord<"recipe">({
  id: "container-twice",
  reads: [],
  per: ["recipe"],
  concerns: (catalogue) => anySays(catalogue, "vessel"),
  *also({ catalogue }, _, edits) {
    const items = new Set([...idsEdited(edits, "item"), ...holdersBeside(catalogue, edits)]);
    for (const item of items) for (const { id } of recipesTaking(catalogue, item)) yield id;
  },
  *at({ catalogue }, recipe) {
    if (recipe.status === "retired") return;
    const told = new Set<Id>();
    for (const taken of recipe.lines) {
      const container = taken.item === undefined ? null : containerOf(catalogue, taken, taken.item);
      const written = recipe.lines.find((l) => l.role === "output" && l.item === container && !l.draw);
      if (container === null || !written || told.has(container)) continue;
      told.add(container);
      const [of, item] = [ref(catalogue, "item", container), ref(catalogue, "item", taken.item as Id)];
      yield {
        subject: [recipeRef(recipe), of],
        with: [item],
        message: `${of.name} is returned by ${item.name}, but ${recipe.name} also lists it as an output.`,
        evidence: { type: "lines", inputs: [item, of], recipes: [recipeRef(recipe)] },
        fixes: [
          withoutLine(catalogue, "recipe", recipe, written, `Remove the output ${of.name}`),
          { message: `Open ${recipe.name}`, do: "open", kind: "recipe", id: recipe.id },
        ],
      };
    }
  },
});
