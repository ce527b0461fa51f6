import { setField } from "../catalogue/edit";
import type { AnyRecord, Item } from "../kinds/index";
import { HOLDERS } from "../kinds/field";
import type { Id } from "../schema/id";
import { nearest } from "../schema/names";
import { perRecord, ref } from "./check";
import { holdersBeside } from "./holders";

type Holder = (typeof HOLDERS)[number];

/** A choice that is no longer among the options of its field. */
export const choiceGone = perRecord<Holder>({
  id: "choice-gone",
  reads: [],
  per: HOLDERS,
  concerns: ({ records }) => records.field.size > 0,
  also: ({ catalogue }, _, edits) => holdersBeside(catalogue, edits),
  *at({ catalogue }, record, kind) {
    const { own } = record as AnyRecord & Pick<Item, "own">;
    for (const id of Object.keys(own) as Id[]) {
      const field = catalogue.records.field.get(id);
      const value = own[id];
      if (field?.form !== "choice" || typeof value !== "string" || field.options.includes(value)) continue;
      const offers = nearest(value, field.options, 2);
      yield {
        subject: [ref(catalogue, kind, record.id), ref(catalogue, "field", id)],
        message: `${record.name} has ${field.name} “${value}”, which is no longer an option.`,
        evidence: { type: "names", names: field.options.slice(0, 12) },
        fixes: [
          ...offers.map((word) => ({
            message: `Change it to ${word}`,
            do: "edit" as const,
            edits: [setField(catalogue, kind, record.id, `own.${id}`, word)],
          })),
          {
            message: `Add the option “${value}” again`,
            do: "edit",
            edits: [setField(catalogue, "field", id, "options", [...field.options, value])],
          },
          { message: `Open ${record.name}`, do: "open", kind, id: record.id },
        ],
      };
    }
  },
});
