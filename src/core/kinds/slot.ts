/** A place where items are worn. */
import { defineKind } from "../schema/kind";
import { number } from "../schema/number";
import { note } from "./shared";
import { own } from "./own";

export const slot = defineKind({
  name: "slot",
  section: "slots",
  help: "Where items are worn, such as Head or Belt.",
  fields: {
    places: number({ min: 1, max: 100, whole: true, width: 70, help: "How many items fit at once, such as 1." }),
    order: number({
      min: 0,
      max: 1000,
      whole: true,
      width: 64,
      help: "Position from the head down, lowest first, such as 10.",
    }),
    note,
    own: own(),
  },
});
