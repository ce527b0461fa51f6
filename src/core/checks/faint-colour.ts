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
    const fixed = madeVisible(record.colour, GROUNDS, LEAST_CONTRAST);
    yield {
      subject: ref(catalogue, kind, record.id),
      message: `${record.colour}, the colour of ${record.name}, has too little contrast: ${found.toFixed(2)} of ${LEAST_CONTRAST} in both themes.`,
      evidence: { type: "names", names: [record.colour, fixed] },
      fixes: [
        {
          message: `Change it to ${fixed}`,
          do: "edit",
          edits: [setField(catalogue, kind, record.id, "colour", fixed)],
        },
        { message: `Open ${record.name} and choose another colour`, do: "open", kind, id: record.id },
      ],
    };
  },
});
