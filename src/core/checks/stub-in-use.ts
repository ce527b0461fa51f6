import { nearest } from "../schema/names";
import { count, list } from "../numbers/format";
import { perRecord, recipeRef, recipesAround, ref, sourcesOf } from "./check";

/** A name that was written in a recipe or source and that no one has defined yet. */
export const stubInUse = perRecord<"item">({
  id: "stub-in-use",
  reads: [],
  per: ["item"],
  may: (item) => item.status === "stub",
  // A stub's nearest names may be anybody's.
  also: ({ catalogue }, delta) =>
    delta.network.renamed
      ? [...catalogue.records.item.values()].flatMap((i) => (i.status === "stub" ? [i.id] : []))
      : [],
  *at(context, item) {
    const { catalogue } = context;
    if (item.status !== "stub") return;
    const recipes = [
      ...new Set([...recipesAround(context, item.id, "consumers"), ...recipesAround(context, item.id, "producers")]),
    ];
    const sources = sourcesOf(context, item.id);
    if (!recipes.length && !sources.length) return;
    const places = [
      ...(recipes.length ? [count(recipes.length, "recipe")] : []),
      ...(sources.length ? [count(sources.length, "source")] : []),
    ];
    const others = [...catalogue.records.item.values()].filter((i) => i.status !== "stub");
    yield {
      subject: ref(catalogue, "item", item.id),
      with: [...recipes.map(recipeRef), ...sources.map((s) => ref(catalogue, "source", s.id))],
      message: `${item.name} is used by ${list(places)} but is only a stub without a definition.`,
      evidence: { type: "names", names: [item.name] },
      fixes: [
        { message: `Define ${item.name}`, do: "open", kind: "item", id: item.id },
        ...nearest(
          item.name,
          others.map((i) => i.name),
          2,
        ).flatMap((name) => {
          const [meant] = others.filter((i) => i.name === name).sort((a, b) => (a.key < b.key ? -1 : 1));
          if (!meant) return [];
          return [
            {
              message: `Replace it with ${name} everywhere`,
              do: "merge" as const,
              keep: meant.id,
              others: [item.id],
              after: "remove" as const,
            },
          ];
        }),
      ],
    };
  },
});
