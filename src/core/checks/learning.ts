/** Recipes that no one can learn, and stations that no one can build. */
import { reach } from "../analysis/registry";
import { referrersTo } from "../catalogue/references";
import type { Recipe } from "../kinds/index";
import { teachers } from "../process/teaching";
import { count, list } from "../numbers/format";
import type { Id } from "../schema/id";
import { perRecord, recipeRef, recipesAround, ref } from "./check";

/** Everything that teaches a recipe is out of reach. */
export const unlearnable = perRecord<"recipe">({
  id: "unlearnable",
  reads: [],
  per: ["recipe"],
  may: ({ taughtBy }, { catalogue }) => taughtBy !== null || catalogue.records.use.size > 0,
  *also({ catalogue, readings: { compiled } }, delta) {
    const items = new Map(
      delta.of(reach).items.flatMap((i) => (compiled.idOf(i) === null ? [] : [[compiled.idOf(i) as Id, i]])),
    );
    for (const { id, kind, record } of referrersTo(catalogue, "item", items))
      if (kind === "recipe" && (record as Recipe).taughtBy === id) yield record.id;
  },
  *at({ catalogue, readings }, recipe) {
    if (recipe.status === "retired") return;
    const by = recipe.taughtBy === null ? teachers(catalogue, recipe.id) : [recipe.taughtBy];
    const can = (id: Id) => readings.reach.items[readings.compiled.numberOf(id) ?? -1] === 1;
    if (!by.length || by.some(can)) return;
    const names = by.slice(0, 3).map((id) => ref(catalogue, "item", id));
    yield {
      subject: recipeRef(recipe),
      with: names,
      message: `${recipe.name} can't be learned: ${list(names.map((n) => n.name))}, which ${names.length > 1 ? "teach" : "teaches"} it, ${names.length > 1 ? "are" : "is"} unobtainable.`,
      evidence: { type: "cause", leaves: names, path: [] },
      fixes: [
        ...names.map((n) => ({ message: `Add a source for ${n.name}`, do: "source" as const, item: n.id })),
        { message: `Open ${recipe.name}`, do: "open", kind: "recipe", id: recipe.id },
      ],
    };
  },
});

/** Recipes wait on a station that can't be had. */
export const stationUnbuildable = perRecord<"item">({
  id: "station-unbuildable",
  reads: [reach],
  per: ["item"],
  may: ({ id }, { readings: { compiled, reach } }) => !reach.items[compiled.numberOf(id) as number],
  *also(_, __, edits) {
    for (const edit of edits)
      if (edit.kind === "recipe")
        for (const lines of edit.op === "set" ? [edit.from, edit.to] : [(edit.record as { lines?: unknown }).lines])
          if (Array.isArray(lines)) for (const { item } of lines as { item?: Id }[]) if (item) yield item;
  },
  *at(context, item) {
    const { catalogue, readings } = context;
    const i = readings.compiled.numberOf(item.id);
    if (i === undefined || readings.reach.items[i] || item.status === "retired") return;
    const waiting = recipesAround(context, item.id, "consumers").filter(
      (r) => r.status !== "retired" && r.lines.some((l) => l.role === "station" && l.item === item.id),
    );
    if (!waiting.length) return;
    const names = waiting.slice(0, 3).map((r) => r.name);
    const more = waiting.length - names.length;
    yield {
      subject: ref(catalogue, "item", item.id),
      with: waiting.map(recipeRef),
      message: `${item.name} is unobtainable, but ${list(more ? [...names, count(more, "other recipe")] : names)} ${waiting.length > 1 ? "are" : "is"} made at it.`,
      evidence: {
        type: "lines",
        inputs: [ref(catalogue, "item", item.id)],
        recipes: waiting.slice(0, 20).map(recipeRef),
      },
      fixes: [
        { message: `Add a source for ${item.name}`, do: "source", item: item.id },
        { message: `Open ${item.name}`, do: "open", kind: "item", id: item.id },
      ],
    };
  },
});
