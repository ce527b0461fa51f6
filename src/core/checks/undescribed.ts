/** What a ready item should show players, and does not: a description, a picture. */
import type { Catalogue } from "../catalogue/catalogue";
import { held } from "../catalogue/inheritance";
import type { Item, ItemType } from "../kinds/index";
import { perRecord, ref } from "./check";
import { digestOfAll } from "./digest";
import { holdersBeside } from "./holders";

export const noDescription = perRecord<"item">({
  id: "no-description",
  reads: [],
  per: ["item"],
  mark: ({ status, description, key, name }) =>
    status === "ready" && !description.trim() ? digestOfAll([key, name]) : null,
  *at({ catalogue }, item) {
    if (item.status !== "ready" || item.description.trim()) return;
    yield {
      subject: ref(catalogue, "item", item.id),
      message: `${item.name} has no description.`,
      evidence: { type: "names", names: [item.name] },
      fixes: [{ message: `Open ${item.name} and add a description`, do: "open", kind: "item", id: item.id }],
    };
  },
});

const lacksIcon = (catalogue: Catalogue, item: Item): boolean =>
  item.status === "ready" && held(catalogue, item, "icon").from === "none";
const typeOf = (catalogue: Catalogue, { type }: Item): ItemType | undefined =>
  type === null ? undefined : catalogue.records.type.get(type);

export const noIcon = perRecord<"item">({
  id: "no-icon",
  reads: [],
  per: ["item"],
  mark(item, { catalogue }) {
    if (!lacksIcon(catalogue, item)) return null;
    return digestOfAll([item.key, item.name, typeOf(catalogue, item)?.id, typeOf(catalogue, item)?.name]);
  },
  also: ({ catalogue }, _, edits) => holdersBeside(catalogue, edits),
  *at({ catalogue }, item) {
    if (!lacksIcon(catalogue, item)) return;
    const type = typeOf(catalogue, item);
    yield {
      subject: ref(catalogue, "item", item.id),
      message: type ? `${item.name} has no icon, and its type ${type.name} has none.` : `${item.name} has no icon.`,
      evidence: { type: "names", names: [item.name] },
      fixes: [
        { message: `Open ${item.name}`, do: "open", kind: "item", id: item.id },
        ...(type
          ? [{ message: `Give the type ${type.name} an icon`, do: "open" as const, kind: "type" as const, id: type.id }]
          : []),
      ],
    };
  },
});
