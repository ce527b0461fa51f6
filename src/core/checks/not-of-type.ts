import { setField } from "../catalogue/edit";
import { fieldsOfItem, statsOfItem } from "../catalogue/fields";
import type { Id } from "../schema/id";
import { perRecord, type Ref, ref } from "./check";
import { holdersBeside } from "./holders";

const hasAny = (values: object): boolean => {
  for (const _ in values) return true;
  return false;
};

/** A stat or a field that an item says although its type does not take it. */
export const notOfType = perRecord<"item">({
  id: "not-of-type",
  reads: [],
  per: ["item"],
  may(item, { catalogue }) {
    if (hasAny(item.own)) return true;
    const measured = hasAny(item.stats) ? statsOfItem(catalogue, item) : null;
    if (measured) for (const id in item.stats) if (!measured.has(id as Id)) return true;
    return false;
  },
  also: ({ catalogue }, _, edits) => holdersBeside(catalogue, edits),
  *at({ catalogue }, item) {
    const { own, stats } = item;
    if (item.status === "retired") return;
    const type = item.type === null ? undefined : catalogue.records.type.get(item.type);
    const has = hasAny(own) ? new Set(fieldsOfItem(catalogue, item).map((field) => field.id)) : null;
    for (const id of Object.keys(own) as Id[])
      if (!has?.has(id)) yield finding(`own.${id}`, ref(catalogue, "field", id));
    const measured = type ? statsOfItem(catalogue, item) : null;
    for (const id of measured ? (Object.keys(stats) as Id[]) : [])
      if (!measured?.has(id)) yield finding(`stats.${id}`, ref(catalogue, "stat", id));

    function finding(path: string, what: Ref) {
      const whose = type ? `${type.name} does not have it` : "it has no type with it";
      return {
        subject: [ref(catalogue, "item", item.id), what],
        message: `${item.name} has a value for ${what.name}, but ${whose}.`,
        evidence: { type: "names" as const, names: [item.name, what.name] },
        fixes: [
          {
            message: `Remove ${what.name} from ${item.name}`,
            do: "edit" as const,
            edits: [setField(catalogue, "item", item.id, path, null)],
          },
          ...(type
            ? [
                {
                  message: `Open ${type.name} and add ${what.name}`,
                  do: "open" as const,
                  kind: "type" as const,
                  id: type.id,
                },
              ]
            : []),
          { message: `Open ${item.name}`, do: "open" as const, kind: "item" as const, id: item.id },
        ],
      };
    }
  },
});
