import { demandOn, fieldsOfItem, fieldsOfKind, statsOfItem } from "../catalogue/fields";
import { heldOwn, heldStat } from "../catalogue/inheritance";
import type { Index } from "../catalogue/persistent-map";
import { type AnyRecord, type Item, type ItemType, type Kind, kindWord, type OwnField } from "../kinds/index";
import { HOLDERS } from "../kinds/field";
import type { Id } from "../schema/id";
import { perRecord, ref } from "./check";
import { holdersBeside } from "./holders";

/** Whether any field is required of all, and whether any type requires one or a stat. */
const REQUIRED: Index<OwnField, boolean> = {
  build: (fields) => [...fields.values()].some((f) => f.required),
  follow: () => null,
};
const REQUIRING: Index<ItemType, boolean> = {
  build: (types) =>
    [...types.values()].some(({ takes, measures }) =>
      [takes, measures].some((of) => Object.values(of).some((demand) => demand.required)),
    ),
  follow: () => null,
};

type Holder = (typeof HOLDERS)[number];

/** A field or stat that must be said and is not: on the record itself, and for items on no type above it. */
export const fieldEmpty = perRecord<Holder>({
  id: "field-empty",
  reads: [],
  per: HOLDERS,
  concerns: ({ records: { field, type } }) => field.index(REQUIRED) || type.index(REQUIRING),
  may: (record, _, kind) => kind !== "type" && !("status" in record && record.status !== "ready"),
  also: ({ catalogue }, _, edits) => holdersBeside(catalogue, edits),
  *at({ catalogue }, record, kind) {
    if (kind === "type" || ("status" in record && record.status !== "ready")) return;
    for (const { field, id, name } of missing()) {
      yield {
        subject: [ref(catalogue, kind, record.id), ref(catalogue, field, id)],
        message: `${record.name} has no ${name}, which ${kind === "item" ? "every ready item of its type" : `every ${kindWord(kind)}`} requires.`,
        evidence: { type: "names", names: [record.name, name] },
        fixes: [
          { message: `Open ${record.name} and enter it`, do: "open", kind, id: record.id },
          { message: `Open ${name}`, do: "open", kind: field, id },
        ],
      };
    }

    function* missing(): Generator<{ field: Kind; id: Id; name: string }> {
      if (kind !== "item") {
        const { own } = record as AnyRecord & Pick<Item, "own">;
        for (const field of fieldsOfKind(catalogue, kind))
          if (field.required && !Object.hasOwn(own, field.id)) yield { field: "field", id: field.id, name: field.name };
        return;
      }
      const item = record as Item;
      for (const { id, name } of fieldsOfItem(catalogue, item))
        if (demandOn(catalogue, item, "takes", id).required && heldOwn(catalogue, item, id).from === "none")
          yield { field: "field", id, name };
      for (const id of statsOfItem(catalogue, item) ?? []) {
        const stat = catalogue.records.stat.get(id);
        if (stat && demandOn(catalogue, item, "measures", id).required && heldStat(catalogue, item, id).from === "none")
          yield { field: "stat", id, name: stat.name };
      }
    }
  },
});
