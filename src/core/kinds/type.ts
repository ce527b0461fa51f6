/** A sort of item. What a type says, its items inherit until they say otherwise. */
import { colour } from "../schema/colour";
import { defineKind } from "../schema/kind";
import { MOST_DEPTH } from "../schema/limits";
import { ref } from "../schema/ref";
import { inheritable } from "./shared";

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
  },
});
