import type { Edit } from "../catalogue/edit";
import { recipesAsking } from "../catalogue/references";
import type { Item, Recipe } from "../kinds/index";
import { hasMembers } from "../process/members";
import { allLines } from "../kinds/ways";
import type { Line, Variant } from "../notation/line";
import { count, list } from "../numbers/format";
import type { Id } from "../schema/id";
import { perRecord, recipeRef, ref } from "./check";

/** A recipe asks for any item with a tag, and no item has it. */
export const nothingTagged = perRecord<"tag">({
  id: "nothing-tagged",
  reads: [],
  per: ["tag"],
  *also({ catalogue }, _, edits) {
    for (const edit of edits) {
      if (edit.kind === "item") yield* tagsOf(edit, catalogue.records.item);
      else if (edit.kind === "recipe") yield* askedBy(edit, catalogue.records.recipe);
    }
  },
  *at({ catalogue }, tag) {
    const asking = [...recipesAsking(catalogue, tag.id)].filter((r) => r.status !== "retired");
    if (!asking.length || hasMembers(catalogue, tag.id)) return;
    const names = asking.slice(0, 3).map((r) => r.name);
    const more = asking.length - names.length;
    yield {
      subject: ref(catalogue, "tag", tag.id),
      with: asking.map(recipeRef),
      message: `No item has the tag ${tag.name}, but ${list(more ? [...names, count(more, "other recipe")] : names)} ${asking.length > 1 ? "take" : "takes"} any ${tag.name}.`,
      evidence: {
        type: "lines",
        inputs: [{ ...ref(catalogue, "tag", tag.id), name: `any ${tag.name}` }],
        recipes: asking.slice(0, 20).map(recipeRef),
      },
      fixes: asking.slice(0, 3).map((r) => ({
        message: `Open ${r.name} and name an item`,
        do: "open" as const,
        kind: "recipe" as const,
        id: r.id,
      })),
    };
  },
});

function* tagsOf(edit: Edit, items: { get(id: Id): Item | undefined }): Generator<Id> {
  if (edit.op !== "set") yield* (edit.record as Item).tags;
  else if (edit.field === "tags") for (const ids of [edit.from, edit.to]) yield* (ids ?? []) as unknown as Id[];
  else if (edit.field === "status") yield* items.get(edit.id)?.tags ?? [];
}

function* askedBy(edit: Edit, recipes: { get(id: Id): Recipe | undefined }): Generator<Id> {
  const asking = function* (lines: unknown) {
    for (const { any } of (lines ?? []) as readonly Line[]) if (any !== undefined) yield any;
  };
  if (edit.op !== "set") yield* asking(allLines(edit.record as Recipe));
  else if (edit.field === "variants")
    for (const variants of [edit.from, edit.to])
      for (const { lines } of (variants ?? []) as unknown as readonly Variant[]) yield* asking(lines);
  else if (edit.field === "lines") for (const lines of [edit.from, edit.to]) yield* asking(lines);
  else if (edit.field === "status") {
    const recipe = recipes.get(edit.id);
    if (recipe) yield* asking(allLines(recipe));
  }
}
