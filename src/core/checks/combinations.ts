/** Combinations that work in one order only. */
import { pairOf } from "../analysis/combinations";
import { setField } from "../catalogue/edit";
import { recordsWith } from "../catalogue/references";
import type { Recipe } from "../kinds/index";
import type { Line } from "../notation/line";
import { nodeOf } from "../process/node";
import { namedRef, perRecord, recipeRef } from "./check";

/** The first used on the second gives something, and the second on the first nothing. */
export const combinesOneWay = perRecord<"recipe">({
  id: "combines-one-way",
  reads: [],
  per: ["recipe"],
  may: ({ lines }) => lines.some((l) => l.cells),
  // The other order may have come or gone.
  *also({ catalogue }, _, edits) {
    for (const edit of edits) {
      if (edit.kind !== "recipe") continue;
      const recipe = edit.op === "set" ? catalogue.records.recipe.get(edit.id) : (edit.record as Recipe);
      const sides = edit.op === "set" && edit.field === "lines" ? [edit.from, edit.to] : [recipe?.lines];
      for (const lines of sides)
        for (const { item, cells } of (lines ?? []) as readonly Line[])
          if (cells && item)
            for (const { id } of recordsWith(catalogue, "recipe", item, ["ingredient", "tool"])) yield id;
    }
  },
  *at({ catalogue }, recipe) {
    if (catalogue.pantry.combinationOrder === "matters") return;
    const pair = recipe.status === "retired" || recipe.grid.mirrored ? null : pairOf(recipe);
    if (!pair) return;
    const [first, second] = pair;
    if (nodeOf(first) === nodeOf(second)) return;
    for (const other of first.item ? recordsWith(catalogue, "recipe", first.item, ["ingredient", "tool"]) : []) {
      const turned = other.status === "retired" ? null : pairOf(other);
      if (!turned) continue;
      const [a, b] = turned.map(nodeOf);
      if (a === nodeOf(second) && b === nodeOf(first)) return;
    }
    const [one, two] = [namedRef(catalogue, first), namedRef(catalogue, second)];
    yield {
      subject: recipeRef(recipe),
      with: [one, two],
      says: `${one.name} on ${two.name} works, ${two.name} on ${one.name} does nothing.`,
      evidence: { type: "lines", inputs: [one, two], recipes: [recipeRef(recipe)] },
      fixes: [
        {
          says: "Let the order be free",
          do: "edit",
          edits: [setField(catalogue, "recipe", recipe.id, "grid", { ...recipe.grid, mirrored: true })],
        },
        { says: `Open ${recipe.name}`, do: "open", kind: "recipe", id: recipe.id },
      ],
    };
  },
});
