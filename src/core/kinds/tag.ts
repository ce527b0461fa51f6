/** A free label. */
import { defineKind } from "../schema/kind";
import { own } from "./own";

export const tag = defineKind({
  name: "tag",
  plural: "tags",
  section: "tags",
  help: "Free labels for filtering.",
  fields: { own: own() },
  fromName: {},
});
