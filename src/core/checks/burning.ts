/** Heat: recipes at which nothing can burn, and fuel that nothing burns. */
import { reach } from "../analysis/registry";
import type { Edit } from "../catalogue/edit";
import { held } from "../catalogue/inheritance";
import type { Recipe } from "../kinds/index";
import { waysOf } from "../kinds/ways";
import { askedFuels } from "../network/heat";
import { anySays } from "../process/traits";
import { fuelOf, nodeOfHeat } from "../process/node";
import { formatTicks } from "../numbers/ticks";
import { itemRef, perRecord, recipeRef, ref } from "./check";
import { holdersBeside } from "./holders";

/** A recipe takes heat, and nothing that can be had gives it there. */
export const burnerCold = perRecord<"recipe">({
  id: "burner-cold",
  reads: [],
  per: ["recipe"],
  may: ({ heat, variants }) => heat > 0 || variants.length > 0,
  *also({ readings: { compiled } }, delta) {
    const { consumers } = compiled.network;
    for (const i of delta.of(reach).items) {
      const node = compiled.nodeOf(i);
      if (node === null || fuelOf(node) === undefined) continue;
      for (let k = consumers.start[i]; k < consumers.end[i]; k++) yield compiled.processId(consumers.to[k]);
    }
  },
  *at(context, recipe) {
    if (recipe.heat === 0 && !recipe.variants.length) return;
    if (recipe.status === "retired" || !waysOf(recipe).some((w) => w.heat > 0)) return;
    const { compiled, network, reach: within } = context.readings;
    const { catalogue } = context;
    const cold = new Set<number>();
    for (const p of compiled.processesOf("recipe", recipe.id))
      for (let k = network.ins.start[p]; k < network.ins.end[p]; k++) {
        const i = network.ins.to[k];
        if (!within.items[i] && fuelOf(compiled.nodeOf(i) ?? recipe.id) !== undefined) cold.add(i);
      }
    const [first] = cold;
    if (first === undefined) return;
    const fuel = fuelOf(compiled.nodeOf(first) ?? recipe.id);
    const tag = fuel ? catalogue.records.tag.get(fuel)?.name : undefined;
    const heat = recipe.heat || Math.max(...waysOf(recipe).map((w) => w.heat));
    yield {
      subject: recipeRef(recipe),
      message: `${recipe.name} needs ${formatTicks(heat, catalogue.pantry.ticksPerSecond)} of heat, but no obtainable item burns${tag ? ` there (accepted fuel: ${tag})` : ""}.`,
      evidence: { type: "lines", inputs: [itemRef(context, first)], recipes: [recipeRef(recipe)] },
      fixes: [{ message: `Open ${recipe.name}`, do: "open", kind: "recipe", id: recipe.id }],
    };
  },
});

/** An item burns, and no recipe that takes heat would take it. */
export const fuelUnburnt = perRecord<"item">({
  id: "fuel-unburnt",
  reads: [],
  per: ["item"],
  concerns: (catalogue) => anySays(catalogue, "burns"),
  *also({ catalogue }, _, edits) {
    yield* holdersBeside(catalogue, edits);
    // What takes heat, or what may burn where, may be another.
    if (anySays(catalogue, "burns") && edits.some(concernsHeat))
      for (const item of catalogue.records.item.values())
        if (held(catalogue, item, "burns").value !== null) yield item.id;
  },
  *at({ catalogue, readings: { compiled, network } }, item) {
    if (!anySays(catalogue, "burns")) return;
    const burns = held(catalogue, item, "burns").value ?? 0;
    if (burns <= 0 || item.status === "retired") return;
    const taken = askedFuels(catalogue).some((fuel) => {
      if (fuel !== null && !item.tags.includes(fuel)) return false;
      const i = compiled.numberOf(nodeOfHeat(fuel));
      return i !== undefined && network.consumers.start[i] < network.consumers.end[i];
    });
    if (taken) return;
    yield {
      subject: ref(catalogue, "item", item.id),
      message: `${item.name} burns for ${formatTicks(burns, catalogue.pantry.ticksPerSecond)}, but no recipe needs heat where it can burn.`,
      evidence: { type: "names", names: [item.name] },
      fixes: [{ message: `Open ${item.name}`, do: "open", kind: "item", id: item.id }],
    };
  },
});

function concernsHeat(edit: Edit): boolean {
  if (edit.kind === "recipe")
    return edit.op === "set"
      ? ["heat", "variants", "status", "lines"].includes(edit.field)
      : waysOf(edit.record as Recipe).some((w) => w.heat > 0);
  return (edit.kind === "item" || edit.kind === "type") && (edit.op !== "set" || ["fuel", "tags"].includes(edit.field));
}
