import { setField } from "../catalogue/edit";
import { count, list } from "../numbers/format";
import { perRecord, recipeRef, recipesAround, ref, sourcesOf } from "./check";

/** A retired item that recipes still need or make, or that something still gives. Taking old ones apart is no use of it. */
export const retiredInUse = perRecord<"item">({
  id: "retired-in-use",
  reads: [],
  per: ["item"],
  may: ({ status }) => status === "retired",
  *at(context, item) {
    if (item.status !== "retired") return;
    const { catalogue } = context;
    const needs = recipesAround(context, item.id, "consumers").filter((r) => r.kind !== "salvage");
    const makes = recipesAround(context, item.id, "producers");
    const sources = sourcesOf(context, item.id);
    const places = [
      ...(needs.length ? [`${count(needs.length, "recipe")} ${needs.length > 1 ? "need" : "needs"} it`] : []),
      ...(makes.length ? [`${count(makes.length, "recipe")} ${makes.length > 1 ? "make" : "makes"} it`] : []),
      ...(sources.length ? [`${count(sources.length, "source")} ${sources.length > 1 ? "give" : "gives"} it`] : []),
    ];
    if (!places.length) return;
    const recipes = [...new Set([...needs, ...makes])];
    yield {
      subject: ref(catalogue, "item", item.id),
      with: [...recipes.map(recipeRef), ...sources.map((s) => ref(catalogue, "source", s.id))],
      message: `${item.name} is retired, but ${list(places)}.`,
      evidence: { type: "names", names: [...recipes, ...sources].map((r) => r.name) },
      fixes: [
        ...(recipes.length
          ? [
              {
                message: `Retire ${recipes.length > 1 ? `the ${recipes.length} recipes` : recipes[0].name} as well`,
                do: "edit" as const,
                edits: recipes.map((r) => setField(catalogue, "recipe", r.id, "status", "retired")),
              },
            ]
          : []),
        {
          message: `Restore ${item.name}`,
          do: "edit",
          edits: [setField(catalogue, "item", item.id, "status", "ready")],
        },
        { message: `Open ${item.name}`, do: "open", kind: "item", id: item.id },
      ],
    };
  },
});
