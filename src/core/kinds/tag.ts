/** A free label. */
import { defineKind } from "../schema/kind";
import { own } from "./own";

export const tag = defineKind({
  name: "tag",
  section: "tags",
  help: "Labels for filtering and for recipes that take any item with one, such as any fish.",
  fields: { own: own() },
  fromName: {},
});
