import { setField } from "../catalogue/changes";
import { formatRecipe } from "../notation/format";
import { count, list, sayQuantity } from "../numbers/format";
import { show, toNumber } from "../numbers/fraction";
import { type Check, type Fix, itemRef, recipeRef } from "./check";
import { closeLoop } from "./mend";

/** How many loops get tailored ways to close them; the others can still be retired. */
const TAILORED = 12;

/** Recipes that together give back more than they take. */
export const gainingLoop: Check = {
  id: "gaining-loop",
  title: "Gaining loop",
  severity: "error",
  *find(scene) {
    const { catalogue, readings } = scene;
    let tailored = 0;
    for (const gain of readings.gain.gains) {
      const runs = gain.runs.flatMap(({ process, times }) => {
        const { of, record } = readings.network.processes[process];
        return of === "recipe" ? [{ recipe: record, times }] : [];
      });
      const net = gain.net.map(({ item, amount }) => ({ item: itemRef(scene, item), amount: show(amount), value: toNumber(amount) }));
      const surplus = list(net.map((n) => `${n.amount.includes("/") ? sayQuantity(n.value) : n.amount} ${n.item.name}`));
      const retire = runs.map(({ recipe }): Fix => ({ says: `Retire ${recipe.name}`, do: "edit", edits: [setField(catalogue, "recipe", recipe.id, "status", "retired")] }));
      const close = tailored++ < TAILORED ? closeLoop(catalogue, runs.map((r) => r.recipe)) : [];
      yield {
        about: [...runs.map((r) => recipeRef(r.recipe)), ...net.map((n) => n.item)],
        says: `${count(runs.length, "recipe")} ${runs.length === 1 ? "gives" : "together give"} ${surplus} from nothing ${gain.certain ? "every" : "on average every"} round: ${list(runs.map((r) => `${r.recipe.name} ${r.times === 1n ? "once" : `${r.times} times`}`), 8)}.${gain.live ? "" : " Nobody can start it yet: some of it is out of reach."}`,
        evidence: { type: "loop", runs: runs.map(({ recipe, times }) => ({ recipe: recipeRef(recipe), times: String(times), line: formatRecipe(catalogue, recipe) })), net, certain: gain.certain, live: gain.live, seconds: gain.seconds },
        fixes: [...close, ...retire.slice(-1), ...runs.slice(0, 1).map(({ recipe }): Fix => ({ says: `Open ${recipe.name}`, do: "open", kind: "recipe", id: recipe.id }))],
      };
    }
  },
};
