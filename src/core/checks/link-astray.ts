import { lineage } from "../catalogue/tree";
import { referrersTo } from "../catalogue/references";
import { type AnyRecord, type Item, kindWord } from "../kinds/index";
import { HOLDERS } from "../kinds/field";
import type { Id } from "../schema/id";
import { isLinkTo } from "../kinds/own";
import { recordAt } from "../catalogue/catalogue";
import { perRecord, ref } from "./check";
import { holdersBeside, idsEdited } from "./holders";

type Holder = (typeof HOLDERS)[number];

/** A link of a designers' field to a retired item, or to one that is not of the type or without the tag it asks for. */
export const linkAstray = perRecord<Holder>({
  id: "link-astray",
  reads: [],
  per: HOLDERS,
  concerns: ({ records }) => records.field.size > 0,
  *also({ catalogue }, _, edits) {
    yield* holdersBeside(catalogue, edits);
    const moved = edits.filter((e) => e.op === "set" && ["status", "type", "tags"].includes(e.field));
    for (const { record } of referrersTo(catalogue, "item", idsEdited(moved, "item"))) yield record.id;
  },
  *at({ catalogue }, record, kind) {
    if ("status" in record && record.status === "retired") return;
    const { own } = record as AnyRecord & Pick<Item, "own">;
    for (const id of Object.keys(own) as Id[]) {
      const [field, value] = [catalogue.records.field.get(id), own[id]];
      if (!field || !isLinkTo(value)) continue;
      for (const link of value) {
        const to = recordAt(catalogue, link.kind as "item", link.id) as Item | undefined;
        const why = to && link.kind === "item" && wrongOf(to);
        if (!why) continue;
        yield {
          subject: [ref(catalogue, kind, record.id), ref(catalogue, "field", id), ref(catalogue, "item", link.id)],
          message: `${record.name} names ${to.name} as ${field.name}, but ${why}.`,
          evidence: { type: "names", names: [record.name, to.name] },
          fixes: [
            { message: `Open ${record.name}`, do: "open", kind, id: record.id },
            { message: `Open ${to.name}`, do: "open", kind: "item", id: link.id },
            { message: `Open the ${kindWord("field")} ${field.name}`, do: "open", kind: "field", id },
          ],
        };
      }
      function wrongOf(item: Item): string | null {
        if (item.status === "retired") return "it is retired";
        const { ofType = null, ofTag = null } = field ?? {};
        if (ofType && !lineage(catalogue, item.type).some((t) => t.id === ofType))
          return `it is not a ${catalogue.records.type.get(ofType)?.name}`;
        if (ofTag && !item.tags.includes(ofTag))
          return `it does not have the tag ${catalogue.records.tag.get(ofTag)?.name}`;
        return null;
      }
    }
  },
});
