/** What players pay with. */
import { defineKind } from "../schema/kind";
import { MOST } from "../schema/limits";
import { number } from "../schema/number";
import { text } from "../schema/text";
import { own } from "./own";

export const currency = defineKind({
  name: "currency",
  plural: "currencies",
  section: "currencies",
  help: "What players pay with, and what one is worth in value units.",
  fields: {
    symbol: text({ most: 12, width: 70 }),
    worth: number({ min: 1e-6, max: MOST, initial: 1, width: 80, help: "Value units one of it is worth." }),
    most: number({
      min: 0,
      max: MOST,
      optional: true,
      label: "most one may carry",
      title: "Carry at most",
      width: 90,
      help: "What is paid beyond it is lost, and sales are refused. If empty, as much as there is.",
    }),
    own: own(),
  },
});
