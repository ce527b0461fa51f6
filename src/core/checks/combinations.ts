/** Combinations that work in one order only. */
import { pairOf } from "../analysis/combinations";
import { setField } from "../catalogue/edit";
import { besideRecipe, Members } from "../analysis/patterns";
import type { Catalogue } from "../catalogue/catalogue";
import { recipesAsking, recordsWith } from "../catalogue/references";
import type { Item, Recipe } from "../kinds/index";
import type { Line } from "../notation/line";
import { membersOf } from "../process/members";
import { nodeOf } from "../process/node";
import type { Id } from "../schema/id";
import { namedRef, perRecord, recipeRef } from "./check";

function* beside(catalogue: Catalogue, item: Id): Generator<Id> {
  for (const { id } of recordsWith(catalogue, "recipe", item, ["ingredient", "tool"])) yield id;
  for (const tag of catalogue.records.item.get(item)?.tags ?? [])
    for (const { id } of recipesAsking(catalogue, tag)) yield id;
}

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
        for (const { item, any, cells } of (lines ?? []) as readonly Line[])
          if (cells && item) yield* beside(catalogue, item);
          else if (cells && any) for (const { id } of recipesAsking(catalogue, any)) yield id;
      for (const lines of sides)
        for (const { any, cells } of (lines ?? []) as readonly Line[])
          if (cells && any) for (const item of membersOf(catalogue, any)) yield* beside(catalogue, item.id);
    }
    // Items that got a tag or lost it.
    for (const edit of edits) {
      if (edit.kind !== "item" || (edit.op === "set" && edit.field !== "tags" && edit.field !== "status")) continue;
      const item = edit.op === "set" ? catalogue.records.item.get(edit.id) : (edit.record as Item);
      const changed = edit.op === "set" && edit.field === "tags" ? [edit.from, edit.to] : [];
      for (const tag of [item?.tags, ...changed].flat() as (Id | undefined)[])
        for (const { id } of tag ? recipesAsking(catalogue, tag) : []) yield id;
    }
  },
  *at({ catalogue }, recipe) {
    if (catalogue.pantry.combinationOrder === "matters") return;
    const pair = recipe.status === "retired" || recipe.grid.mirrored ? null : pairOf(recipe);
    if (!pair) return;
    const [first, second] = pair;
    if (nodeOf(first) === nodeOf(second)) return;
    // In the other order it works where another recipe takes all that may stand on either side.
    const members = Members.in(catalogue);
    const [ours, theirs] = [members.of(nodeOf(first)), members.of(nodeOf(second))];
    const covers = (line: Line, wanted: ReadonlySet<Id>) => {
      const set = members.of(nodeOf(line));
      return [...wanted].every((id) => set.has(id));
    };
    for (const other of besideRecipe(catalogue, recipe)) {
      const turned = other.status === "retired" || other === recipe ? null : pairOf(other);
      if (!turned) continue;
      const [a, b] = turned;
      if (covers(a, theirs) && covers(b, ours)) return;
      // A recipe of which the order does not matter takes both.
      if (other.grid.mirrored && covers(a, ours) && covers(b, theirs)) return;
    }
    const [one, two] = [namedRef(catalogue, first), namedRef(catalogue, second)];
    yield {
      subject: recipeRef(recipe),
      with: [one, two],
      message: `${one.name} on ${two.name} works, ${two.name} on ${one.name} does nothing.`,
      evidence: { type: "lines", inputs: [one, two], recipes: [recipeRef(recipe)] },
      fixes: [
        {
          message: "Allow either order",
          do: "edit",
          edits: [setField(catalogue, "recipe", recipe.id, "grid", { ...recipe.grid, mirrored: true })],
        },
        { message: `Open ${recipe.name}`, do: "open", kind: "recipe", id: recipe.id },
      ],
    };
  },
});
