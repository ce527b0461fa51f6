import { value } from "../analysis/registry";
import { outputsOf } from "../notation/line";
import { sayCost, sayQuantity } from "../numbers/format";
import type { Id } from "../schema/id";
import { perRecord, recipeRef, recipesAround, ref } from "./check";

/** Of two recipes of one item, one gives less, costs more, takes longer and opens no earlier. */
export const outdone = perRecord<"item">({
  id: "outdone",
  reads: [value],
  per: ["item"],
  // What goes in became cheaper or dearer, though what comes out did not.
  *also({ readings: { compiled } }, delta) {
    const { consumers, outs, producers } = compiled.network;
    const several = (i: number) => producers.end[i] - producers.start[i] > 1;
    for (const i of delta.of(value).keys())
      for (let k = consumers.start[i]; k < consumers.end[i]; k++) {
        const p = consumers.to[k];
        for (let m = outs.start[p]; m < outs.end[p]; m++) {
          const id = several(outs.to[m]) ? compiled.idOf(outs.to[m]) : null;
          if (id !== null) yield id;
        }
      }
  },
  *at(context, item) {
    const { catalogue, readings } = context;
    const i = readings.compiled.numberOf(item.id);
    const { producers } = readings.network;
    if (i === undefined || producers.end[i] - producers.start[i] < 2) return;
    const recipes = recipesAround(context, item.id, "producers").filter(
      (r) => r.kind !== "salvage" && outputsOf(r.lines)[0]?.item === item.id,
    );
    if (recipes.length < 2) return;
    const all = recipes.flatMap((recipe) => {
      const [p] = readings.compiled.processesOf("recipe", recipe.id as Id);
      const amount = p === undefined ? 0 : readings.network.yieldOf(p, i);
      if (!(amount > 0) || !readings.reach.fires(p)) return [];
      return [
        {
          recipe,
          amount,
          cost: readings.value.runCost(p) / amount,
          time: readings.time.runCost(p) / amount,
          level: recipe.level ?? 0,
        },
      ];
    });
    for (const one of all) {
      const better = all.find(
        (other) =>
          other.amount > one.amount &&
          other.cost < one.cost * (1 - 1e-9) &&
          other.time <= one.time &&
          other.level <= one.level,
      );
      if (!better) continue;
      yield {
        subject: [recipeRef(one.recipe), recipeRef(better.recipe)],
        with: [ref(catalogue, "item", item.id)],
        says: `${one.recipe.name} gives ${sayQuantity(one.amount)} ${item.name} for ${sayCost(one.cost)} each; ${better.recipe.name} gives ${sayQuantity(better.amount)} for ${sayCost(better.cost)}, no slower and no later. Nobody needs the first.`,
        evidence: {
          type: "amounts",
          unit: "value",
          rows: [one, better].map((of) => ({ label: of.recipe.name, value: of.cost })),
        },
        fixes: [
          { says: `Open ${one.recipe.name}`, do: "open", kind: "recipe", id: one.recipe.id },
          { says: `Open ${better.recipe.name}`, do: "open", kind: "recipe", id: better.recipe.id },
        ],
      };
    }
  },
});
