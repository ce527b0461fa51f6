/** What a ready item should show players, and does not: a description, a picture. */
import { held } from "../catalogue/inheritance";
import { perRecord, ref } from "./check";
import { holdersBeside } from "./holders";

export const noDescription = perRecord<"item">({
  id: "no-description",
  reads: [],
  per: ["item"],
  may: ({ status, description }) => status === "ready" && !description.trim(),
  *at({ catalogue }, item) {
    if (item.status !== "ready" || item.description.trim()) return;
    yield {
      subject: ref(catalogue, "item", item.id),
      says: `${item.name} has no description.`,
      evidence: { type: "names", names: [item.name] },
      fixes: [{ says: `Open ${item.name} and describe it`, do: "open", kind: "item", id: item.id }],
    };
  },
});

export const noIcon = perRecord<"item">({
  id: "no-icon",
  reads: [],
  per: ["item"],
  may: ({ status, icon }) => status === "ready" && !icon,
  also: ({ catalogue }, _, edits) => holdersBeside(catalogue, edits),
  *at({ catalogue }, item) {
    if (item.status !== "ready" || held(catalogue, item, "icon").from !== "none") return;
    const type = item.type === null ? undefined : catalogue.records.type.get(item.type);
    yield {
      subject: ref(catalogue, "item", item.id),
      says: type ? `${item.name} has no icon, and its type ${type.name} gives it none.` : `${item.name} has no icon.`,
      evidence: { type: "names", names: [item.name] },
      fixes: [
        { says: `Open ${item.name}`, do: "open", kind: "item", id: item.id },
        ...(type
          ? [{ says: `Give all of ${type.name} one`, do: "open" as const, kind: "type" as const, id: type.id }]
          : []),
      ],
    };
  },
});
