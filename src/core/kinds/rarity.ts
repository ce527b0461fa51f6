/** How rare an item is: one grain of salt to five. */
import { colour } from "../schema/colour";
import { defineKind } from "../schema/kind";
import { number } from "../schema/number";
import { own } from "./own";

export const rarity = defineKind({
  name: "rarity",
  section: "rarities",
  help: "How rare an item is, from one grain of salt to five, such as two for Sound.",
  fields: {
    rank: number({
      min: 1,
      max: 5,
      whole: true,
      width: 80,
      help: "1 to 5, shown as that many grains, such as 2 for Sound.",
    }),
    colour: colour("#7b8785", { width: 96 }),
    power: number({
      min: 0,
      max: 1000,
      initial: 1,
      width: 70,
      help: "Expected power as a multiple of a plain item's, such as 1.5.",
    }),
    price: number({
      min: 0,
      max: 1e6,
      initial: 1,
      width: 70,
      help: "Expected price as a multiple of a plain item's, such as 2.",
    }),
    own: own(),
  },
});
