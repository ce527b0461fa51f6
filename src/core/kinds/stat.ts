/** A number that items are compared by. */
import { choice } from "../schema/choice";
import { defineKind } from "../schema/kind";
import { MOST } from "../schema/limits";
import { number } from "../schema/number";
import { text } from "../schema/text";

const bound = number({ min: -MOST, max: MOST, optional: true });

export const stat = defineKind({
  name: "stat",
  plural: "stats",
  section: "stats",
  help: "The numbers items are compared by, and which direction is better.",
  fields: {
    unit: text({ most: 20, width: 70 }),
    form: choice(["whole", "decimal", "percent"], { width: 80 }),
    better: choice(["higher", "lower", "neither"], { title: "Better when", width: 80 }),
    min: bound,
    max: bound,
    combine: choice(["sum", "product", "highest", "lowest"], {
      title: "Several make",
      width: 90,
      help: "What several sources of it come to: their sum, their product, the highest or the lowest of them.",
    }),
    maker: number({
      min: -MOST,
      max: MOST,
      title: "Maker's",
      label: "of the maker",
      width: 70,
      help: "What costs and checks take whoever makes things to have of it, where a chance depends on it.",
    }),
    weight: number({
      min: 0,
      max: 1000,
      initial: 1,
      width: 64,
      help: "How much a point of it counts for an item's power.",
    }),
  },
});
