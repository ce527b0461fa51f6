import type { Readings } from "../analysis/readings";
import { time, value } from "../analysis/registry";
import { outputsOf } from "../notation/line";
import { sayCost, sayQuantity } from "../numbers/format";
import { processAt } from "../network/compile";
import { MEMBER, SALVAGE, SOURCE } from "../network/network";
import { perRecord, recipeRef, ref } from "./check";

type Rival = { readonly amount: number; readonly cost: number; readonly time: number; readonly level: number };
const isBetter = (other: Rival, one: Rival): boolean =>
  other.amount > one.amount &&
  other.cost < one.cost * (1 - 1e-9) &&
  // Times that were followed and times from scratch may differ in their last digit.
  other.time <= one.time * (1 + 1e-9) &&
  other.level <= one.level;

/** Whether a process is one of those that are compared. */
const isCompared = ({ network, reach }: Readings, p: number): boolean =>
  !(network.flags[p] & (SOURCE | SALVAGE | MEMBER)) && reach.fires(p);
/** Whether two of them make different amounts of an item: where all make as much, none is outdone, whatever they cost. */
function areUneven(readings: Readings, i: number): boolean {
  const { network } = readings;
  const { start, end, to } = network.producers;
  if (end[i] - start[i] < 2) return false;
  let first = Number.NaN;
  for (let k = start[i]; k < end[i]; k++) {
    if (!isCompared(readings, to[k])) continue;
    const amount = network.yieldOf(to[k], i);
    if (Number.isNaN(first)) first = amount;
    else if (amount !== first) return true;
  }
  return false;
}

/** What the ways that are compared give of an item, and for what. */
function waysTo(readings: Readings, i: number): (Rival & { readonly p: number })[] {
  const { network, value, time } = readings;
  const { start, end, to } = network.producers;
  const ways: (Rival & { readonly p: number })[] = [];
  for (let k = start[i]; k < end[i]; k++) {
    const p = to[k];
    if (!isCompared(readings, p)) continue;
    const amount = network.yieldOf(p, i);
    ways.push({ p, amount, cost: value.runCost(p) / amount, time: time.runCost(p) / amount, level: network.level[p] });
  }
  return ways;
}
const someIsOutdone = (ways: readonly Rival[]): boolean =>
  ways.some((one) => ways.some((other) => isBetter(other, one)));

/** Of two recipes of one item, one gives less, costs more, takes longer and opens no earlier. */
export const outdone = perRecord<"item">({
  id: "outdone",
  reads: [value, time],
  per: ["item"],
  may: ({ id }, { readings }) => areUneven(readings, readings.compiled.numberOf(id) as number),
  mayBe(id, { readings }) {
    const i = readings.compiled.numberOf(id);
    return i !== undefined && areUneven(readings, i) && someIsOutdone(waysTo(readings, i));
  },
  // What goes in became cheaper, dearer, quicker or slower, though what comes out did not.
  *also({ readings }, delta) {
    const { compiled, network } = readings;
    const { consumers, outs } = network;
    const made = new Set<number>();
    for (const i of new Set([...delta.of(value).keys(), ...delta.of(time).keys()]))
      for (let k = consumers.start[i]; k < consumers.end[i]; k++) {
        const p = consumers.to[k];
        for (let m = outs.start[p]; m < outs.end[p]; m++) made.add(outs.to[m]);
      }
    for (const i of made) {
      const id = areUneven(readings, i) ? compiled.idOf(i) : null;
      if (id !== null) yield id;
    }
  },
  *at(context, item) {
    const { catalogue, readings } = context;
    const { compiled } = readings;
    const i = compiled.numberOf(item.id);
    if (i === undefined) return;
    // By the network first: records are looked at only where one is outdone.
    const ways = waysTo(readings, i);
    if (!someIsOutdone(ways)) return;
    const all = ways
      .flatMap((way) => {
        const behind = compiled.behind(way.p);
        const recipe = behind?.kind === "recipe" ? catalogue.records.recipe.get(behind.id) : undefined;
        if (!recipe || outputsOf(recipe.lines)[0]?.item !== item.id) return [];
        // Variants of one recipe are compared by another check, and so are its other ways.
        return processAt(compiled, way.p).record === recipe ? [{ ...way, recipe }] : [];
      })
      .sort((a, b) => (a.recipe.key < b.recipe.key ? -1 : 1));
    for (const one of all) {
      const better = all.find((other) => other.recipe !== one.recipe && isBetter(other, one));
      // What is taken for any with a tag may be a choice: a recipe is outdone where each of its choices is.
      const outdone = (way: (typeof all)[number]) => all.some((o) => o.recipe !== way.recipe && isBetter(o, way));
      const own = all.filter((o) => o.recipe === one.recipe);
      if (!better || own[0] !== one || !own.every(outdone)) continue;
      yield {
        subject: [recipeRef(one.recipe), recipeRef(better.recipe)],
        with: [ref(catalogue, "item", item.id)],
        message: `${one.recipe.name} gives ${sayQuantity(one.amount)} ${item.name} for ${sayCost(one.cost)} each; ${better.recipe.name} gives ${sayQuantity(better.amount)} for ${sayCost(better.cost)}, no slower and no later.`,
        evidence: {
          type: "amounts",
          unit: "value",
          rows: [one, better].map((of) => ({ label: of.recipe.name, value: of.cost })),
        },
        size: one.cost / better.cost,
        fixes: [
          { message: `Open ${one.recipe.name}`, do: "open", kind: "recipe", id: one.recipe.id },
          { message: `Open ${better.recipe.name}`, do: "open", kind: "recipe", id: better.recipe.id },
        ],
      };
    }
  },
});
