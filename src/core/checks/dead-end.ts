import { hasPurpose } from "../catalogue/purpose";
import { referrersTo } from "../catalogue/references";
import type { Id } from "../schema/id";
import { hasPrices, hasRecipes } from "./not-begun";
import { perRecord, ref } from "./check";
import { holdersBeside } from "./holders";
import { usedBeside } from "./used";

/** An item that players can have and do nothing with: no recipe takes it, no one buys it, it is not worn, not used and says no stat. */
export const deadEnd = perRecord<"item">({
  id: "dead-end",
  reads: [],
  per: ["item"],
  concerns: (catalogue) => hasRecipes(catalogue) && hasPrices(catalogue),
  concernsAll: true,
  may({ id, status }, { readings: { compiled, network } }) {
    const i = compiled.numberOf(id) as number;
    return status === "ready" && network.consumers.start[i] === network.consumers.end[i];
  },
  *also({ catalogue }, _, edits) {
    yield* holdersBeside(catalogue, edits);
    yield* usedBeside(catalogue, edits, []);
    for (const edit of edits)
      if (edit.kind === "recipe" && edit.op === "set" && edit.field === "taughtBy")
        for (const id of [edit.from, edit.to]) if (id !== null) yield id as Id;
  },
  *at({ catalogue, readings }, item) {
    if (item.status !== "ready") return;
    const { compiled, network, reach } = readings;
    const i = compiled.numberOf(item.id) as number;
    const { consumers } = network;
    // What can't be had is another check's.
    if (!reach.items[i] || consumers.end[i] > consumers.start[i]) return;
    if (hasPurpose(catalogue, item)) return;
    // What made it is no use of it.
    for (const { kind, record } of referrersTo(catalogue, "item", new Set([item.id])))
      if (
        kind !== "source" &&
        kind !== "series" &&
        !(kind === "recipe" && "taughtBy" in record && record.taughtBy !== item.id)
      )
        return;
    yield {
      subject: ref(catalogue, "item", item.id),
      message: `${item.name} is a dead end: no recipe takes it, no one buys it, and it has no use.`,
      evidence: { type: "names", names: [item.name] },
      fixes: [{ message: `Open ${item.name} and give it a use or a price`, do: "open", kind: "item", id: item.id }],
    };
  },
});
