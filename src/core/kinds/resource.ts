/** What rises and falls on a character: vigour, breath, warmth. */
import { formula } from "../formulas/field";
import { colour } from "../schema/colour";
import { defineKind } from "../schema/kind";
import { MOST } from "../schema/limits";
import { number } from "../schema/number";
import { text } from "../schema/text";
import { note } from "./shared";

export const resource = defineKind({
  name: "resource",
  section: "resources",
  help: "What rises and falls on a character, such as Vigour. Uses restore and drain it.",
  fields: {
    unit: text({ most: 20, width: 70 }),
    colour: colour("#0a6650", { width: 96 }),
    min: number({ min: -MOST, max: MOST, label: "minimum", title: "Minimum", width: 76 }),
    most: formula("stats", {
      label: "maximum",
      title: "Maximum",
      width: 140,
      help: "A number or a formula of stats and level, such as 100 + 2 * level. If empty, 100.",
    }),
    start: formula("stats", {
      label: "starting value",
      title: "Starts at",
      width: 100,
      help: "The value to begin with, such as 50. If empty, the maximum.",
    }),
    recovery: formula("recovery", {
      label: "recovery per second",
      title: "Recovery per second",
      width: 140,
      help: "What returns by itself, such as 0.5. Below 0 it drains. If empty, nothing.",
    }),
    note,
  },
});
