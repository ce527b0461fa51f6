import { processAt } from "../network/compile";
import { count, list } from "../numbers/format";
import { hasSources } from "./not-begun";
import { perRecord, recipeRef, recipesAround, ref } from "./check";

/** An ingredient, tool or station that nothing in the pantry provides. Stubs are reported by their own check. */
export const missingInput = perRecord<"item">({
  id: "missing-input",
  reads: [],
  per: ["item"],
  concerns: hasSources,
  concernsAll: true,
  may({ id }, { readings: { compiled, network } }) {
    const i = compiled.numberOf(id) as number;
    return network.producers.start[i] === network.producers.end[i];
  },
  *at(context, item) {
    const { catalogue, readings } = context;
    const { compiled, network } = readings;
    const i = compiled.numberOf(item.id) as number;
    if (
      network.producers.start[i] < network.producers.end[i] ||
      network.consumers.start[i] === network.consumers.end[i] ||
      item.status === "stub"
    )
      return;
    const consumers = recipesAround(context, item.id, "consumers");
    // What only counts as any with a tag, or would burn, is needed by no one.
    const uses = new Set<string>();
    for (let k = network.consumers.start[i]; !consumers.length && k < network.consumers.end[i]; k++) {
      const { spec, record } = processAt(compiled, network.consumers.to[k]);
      if (spec.sort !== "any" && spec.sort !== "burn") uses.add(record.name);
    }
    if (!consumers.length && !uses.size) return;
    const by = consumers.length ? count(consumers.length, "recipe") : list([...uses].map((name) => `“${name}”`));
    yield {
      subject: ref(catalogue, "item", item.id),
      with: consumers.map(recipeRef),
      message: `${item.name} is needed by ${by}, but nothing makes, gathers or sells it.`,
      evidence: { type: "cause", leaves: [ref(catalogue, "item", item.id)], path: [] },
      fixes: [
        { message: `Add a source for ${item.name}`, do: "source", item: item.id },
        { message: `Open ${item.name} and add a recipe for it`, do: "open", kind: "item", id: item.id },
      ],
    };
  },
});
