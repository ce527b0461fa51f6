/** What goes up and down on a character: vigour, breath, warmth. */
import { formula } from "../formulas/field";
import { colour } from "../schema/colour";
import { defineKind } from "../schema/kind";
import { MOST } from "../schema/limits";
import { number } from "../schema/number";
import { text } from "../schema/text";
import { note } from "./shared";

export const resource = defineKind({
  name: "resource",
  plural: "resources",
  section: "resources",
  help: "What goes up and down on a character. Uses restore and drain it.",
  fields: {
    unit: text({ most: 20, width: 70 }),
    colour: colour("#0a6650", { width: 96 }),
    min: number({ min: -MOST, max: MOST, label: "least", title: "Least", width: 60 }),
    most: formula("stats", {
      title: "Most",
      width: 140,
      help: "A number or a formula over stats and level. Nothing: 100.",
    }),
    start: formula("stats", { title: "Starts at", width: 100, help: "Nothing: at its most." }),
    recovery: formula("recovery", {
      label: "recovery a second",
      title: "Recovers a second",
      width: 110,
      help: "What comes back by itself, or below 0 goes. Nothing: neither.",
    }),
    note,
  },
});
