/** Changes that are tried without being made. */
import { type EditedKinds, edits } from "../schema/edits";
import { defineKind } from "../schema/kind";
import { note } from "./shared";

/** @param kinds  kinds that its edits may be about */
export const scenarioOver = (kinds: EditedKinds) =>
  defineKind({
    name: "scenario",
    section: "scenarios",
    help: "Changes to try without making them, such as Dearer salt. Opened, compared and applied in Costs, What-if.",
    fields: {
      edits: edits(kinds, {
        label: "edits",
        title: "Edits",
        width: 90,
        help: "The changes that it tries, such as Price of Buy salt 2 → 3. Made in What-if.",
      }),
      note,
    },
  });
