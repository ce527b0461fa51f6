/** A number that items are compared by. */
import { choice } from "../schema/choice";
import { defineKind } from "../schema/kind";
import { MOST } from "../schema/limits";
import { number } from "../schema/number";
import { text } from "../schema/text";

const bound = number({ min: -MOST, max: MOST, optional: true });

export const stat = defineKind({
  name: "stat",
  section: "stats",
  help: "Numbers that items are compared by, such as Warmth, and which direction is better.",
  fields: {
    unit: text({ most: 20, width: 70 }),
    form: choice(["whole", "decimal", "percent"], { width: 80 }),
    better: choice(["higher", "lower", "neither"], { title: "Better when", width: 80 }),
    min: bound,
    max: bound,
    combine: choice(["sum", "product", "highest", "lowest"], {
      label: "combined by",
      title: "Combined by",
      width: 94,
      help: "How the values of several sources are combined, such as sum for Warmth.",
    }),
    maker: number({
      min: -MOST,
      max: MOST,
      title: "Maker's value",
      label: "maker's value",
      width: 98,
      help: "The value assumed for whoever crafts, such as 5, where a chance depends on it.",
    }),
    weight: number({
      min: 0,
      max: 1000,
      initial: 1,
      width: 64,
      help: "How much one point counts towards an item's power, such as 2.",
    }),
  },
});
