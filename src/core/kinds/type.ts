/** A type of item. Its items inherit what it defines, unless they override it. */
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
  section: "types",
  table: "item_type",
  help: "Groups of items, such as Fare. Items inherit the values of their type and can override them.",
  fields: {
    parent: ref("type", { optional: true, tree: MOST_DEPTH, title: "Parent type", width: 110 }),
    colour: colour("#2c6e8f", { width: 96 }),
    ...inheritable,
    takes: keyedMap("field", demand, { label: "item fields", title: "Item fields" }),
    measures: keyedMap("stat", demand, { label: "item stats", title: "Item stats" }),
  },
});
