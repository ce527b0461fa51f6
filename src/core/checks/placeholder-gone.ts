import { faultsOf } from "../cards/values";
import type { Id } from "../schema/id";
import { perRecord, ref } from "./check";
import { holdersBeside } from "./holders";

/** A description that names a value which the item does not have, or a colour that nothing lends. */
export const placeholderGone = perRecord<"item">({
  id: "placeholder-gone",
  reads: [],
  per: ["item"],
  may: ({ description }) => description.includes("{"),
  also: ({ catalogue }, _, edits) => {
    // Names and keys of anything that a description can name.
    const renamed = edits.some((e) => e.op !== "set" || ["name", "key"].includes(e.field));
    const named = edits.some((e) => ["stat", "field", "rarity", "type"].includes(e.kind));
    return renamed && named ? withMarks(catalogue.records.item.values()) : holdersBeside(catalogue, edits);
  },
  *at({ catalogue }, item) {
    if (item.status === "retired" || !MARKS.test(item.description)) return;
    for (const { name, message } of faultsOf(catalogue, item))
      yield {
        subject: ref(catalogue, "item", item.id),
        message: `${item.name}'s description uses {${name}}: ${message}`,
        evidence: { type: "names", names: [item.name, name] },
        fixes: [{ message: `Open ${item.name} and correct its description`, do: "open", kind: "item", id: item.id }],
      };
  },
});
const MARKS = /[{[]/;

function* withMarks(items: Iterable<{ readonly id: Id; readonly description: string }>) {
  for (const { id, description } of items) if (MARKS.test(description)) yield id;
}
