/** A sort of item. What a type says, its items inherit until they say otherwise. */
import { colour } from "../schema/colour";
import { defineKind } from "../schema/kind";
import { flag } from "../schema/flag";
import { group } from "../schema/group";
import { keyedMap } from "../schema/keyed-map";
import { MOST, MOST_DEPTH } from "../schema/limits";
import { number } from "../schema/number";
import { ref } from "../schema/ref";
import { inheritable } from "./shared";

const bound = number({ min: -MOST, max: MOST, optional: true });
/** What a type asks of a field or stat of its items; null where it leaves that to the types above it. */
const demand = group({ required: flag({ optional: true }), min: bound, max: bound }, { noun: "demand" });

export const type = defineKind({
  name: "type",
  plural: "types",
  section: "types",
  table: "item_type",
  help: "What sorts of item there are. What a type says, its items inherit until they say otherwise.",
  fields: {
    parent: ref("type", { optional: true, tree: MOST_DEPTH, title: "Parent type", width: 110 }),
    colour: colour("#2c6e8f", { width: 96 }),
    ...inheritable,
    takes: keyedMap("field", demand, { label: "fields it takes", title: "Takes" }),
    measures: keyedMap("stat", demand, { label: "stats it takes", title: "Measures" }),
  },
});
