/** A place where things are worn. */
import { defineKind } from "../schema/kind";
import { number } from "../schema/number";
import { note } from "./shared";
import { own } from "./own";

export const slot = defineKind({
  name: "slot",
  plural: "slots",
  section: "slots",
  help: "Where things are worn: head, hands, belt.",
  fields: {
    places: number({ min: 1, max: 100, whole: true, width: 70, help: "How many things fit there at once." }),
    order: number({ min: 0, max: 1000, whole: true, width: 64, help: "From the head down: the lowest comes first." }),
    note,
    own: own(),
  },
});
