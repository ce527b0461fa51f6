import { value } from "../analysis/registry";
import { outputsOf } from "../notation/line";
import { sayCost, sayQuantity } from "../numbers/format";
import type { Recipe } from "../kinds/index";
import { processAt } from "../network/compile";
import { MEMBER, SALVAGE, SOURCE } from "../network/network";
import { perRecord, recipeRef, ref } from "./check";

type Way = { readonly amount: number; readonly cost: number; readonly time: number; readonly level: number };
const isBetter = (other: Way, one: Way): boolean =>
  other.amount > one.amount && other.cost < one.cost * (1 - 1e-9) && other.time <= one.time && other.level <= one.level;

/** Of two recipes of one item, one gives less, costs more, takes longer and opens no earlier. */
export const outdone = perRecord<"item">({
  id: "outdone",
  reads: [value],
  per: ["item"],
  may({ id }, { readings: { compiled, network } }) {
    const i = compiled.numberOf(id) as number;
    return network.producers.end[i] - network.producers.start[i] > 1;
  },
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
    const { compiled, network, reach } = readings;
    const i = compiled.numberOf(item.id);
    const { producers, flags } = network;
    if (i === undefined || producers.end[i] - producers.start[i] < 2) return;
    // By the network first: records are looked at only where one is outdone, and costs only where there are two.
    const compared = (p: number) => !(flags[p] & (SOURCE | SALVAGE | MEMBER)) && reach.fires(p);
    let several = 0;
    for (let k = producers.start[i]; k < producers.end[i]; k++) if (compared(producers.to[k])) several++;
    if (several < 2) return;
    const ways: { p: number; amount: number; cost: number; time: number; level: number }[] = [];
    for (let k = producers.start[i]; k < producers.end[i]; k++) {
      const p = producers.to[k];
      if (!compared(p)) continue;
      const amount = network.yieldOf(p, i);
      const [cost, time] = [readings.value.runCost(p) / amount, readings.time.runCost(p) / amount];
      ways.push({ p, amount, cost, time, level: network.level[p] });
    }
    if (!ways.some((one) => ways.some((other) => isBetter(other, one)))) return;
    const all = ways
      .flatMap((way) => {
        const { kind, record } = processAt(compiled, way.p);
        const recipe = kind === "recipe" ? (record as Recipe) : null;
        // Variants of one recipe are compared by another check.
        const whole = recipe !== null && recipe === catalogue.records.recipe.get(recipe.id);
        return whole && outputsOf(recipe.lines)[0]?.item === item.id ? [{ ...way, recipe }] : [];
      })
      .sort((a, b) => (a.recipe.key < b.recipe.key ? -1 : 1));
    for (const one of all) {
      const better = all.find((other) => isBetter(other, one));
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
