/** How rare an item is: one grain of salt to five. */
import { colour } from "../schema/colour";
import { defineKind } from "../schema/kind";
import { number } from "../schema/number";
import { own } from "./own";

export const rarity = defineKind({
  name: "rarity",
  plural: "rarities",
  section: "rarities",
  help: "One to five grains of salt.",
  fields: {
    rank: number({ min: 1, max: 5, whole: true, width: 80, help: "1 (plain) to 5; shown as that many grains." }),
    colour: colour("#7b8785", { width: 96 }),
    power: number({ min: 0, max: 1000, initial: 1, width: 70, help: "Power expected, in parts of a plain item's." }),
    price: number({ min: 0, max: 1e6, initial: 1, width: 70, help: "Price expected, in parts of a plain item's." }),
    own: own(),
  },
});
