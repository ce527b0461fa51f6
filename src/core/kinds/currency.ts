/** What players pay with. */
import { defineKind } from "../schema/kind";
import { MOST } from "../schema/limits";
import { number } from "../schema/number";
import { text } from "../schema/text";
import { own } from "./own";

export const currency = defineKind({
  name: "currency",
  section: "currencies",
  help: "What players pay with, such as shells, and what one is worth in value units.",
  fields: {
    symbol: text({ most: 12, width: 70 }),
    worth: number({
      min: 1e-6,
      max: MOST,
      initial: 1,
      width: 80,
      help: "Value units that one is worth, such as 1 for shells.",
    }),
    most: number({
      min: 0,
      max: MOST,
      optional: true,
      label: "maximum carried",
      title: "Maximum carried",
      width: 112,
      help: "The most a character can hold, such as 500. Payments above it are lost and sales refused. If empty, no limit.",
    }),
    own: own(),
  },
});
