/** A free label. */
import { defineKind } from "../schema/kind";

export const tag = defineKind({
  name: "tag",
  plural: "tags",
  section: "tags",
  help: "Free labels for filtering.",
  fields: {},
  fromName: {},
});
