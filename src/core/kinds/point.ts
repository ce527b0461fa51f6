/** A revision with a name, to compare with later. */
import { defineKind } from "../schema/kind";
import { number } from "../schema/number";
import { note } from "./shared";

export const point = defineKind({
  name: "point",
  section: "points",
  table: "saved_point",
  help: "Revisions with a name, such as First playtest, to compare with later. Saved in the Log.",
  fields: {
    revision: number({
      min: 0,
      max: 2 ** 31 - 1,
      whole: true,
      label: "revision",
      title: "Revision",
      width: 80,
      help: "The number of the change that it names, such as 120.",
    }),
    note,
  },
});
