import { setField } from "../catalogue/edit";
import { GROUNDS, LEAST_CONTRAST, leastContrast, madeVisible } from "../numbers/contrast";
import { perRecord, ref } from "./check";

/** A type or a rarity whose colour can't be told from the ground it stands on. */
export const faintColour = perRecord<"type" | "rarity">({
  id: "faint-colour",
  reads: [],
  per: ["type", "rarity"],
  *at({ catalogue }, record, kind) {
    const found = leastContrast(record.colour, GROUNDS);
    if (found >= LEAST_CONTRAST) return;
    const mended = madeVisible(record.colour, GROUNDS, LEAST_CONTRAST);
    yield {
      subject: ref(catalogue, kind, record.id),
      says: `The colour of ${record.name}, ${record.colour}, can't be told from the page: its contrast is ${found.toFixed(2)}, at least ${LEAST_CONTRAST} is needed by day and by night.`,
      evidence: { type: "names", names: [record.colour, mended] },
      fixes: [
        { says: `Make it ${mended}`, do: "edit", edits: [setField(catalogue, kind, record.id, "colour", mended)] },
        { says: `Open ${record.name} and choose another`, do: "open", kind, id: record.id },
      ],
    };
  },
});
