/** Conditions of which a character has only one: the strongest. */
import { defineKind } from "../schema/kind";
import { note } from "./shared";

export const exclusion = defineKind({
  name: "exclusion",
  section: "exclusions",
  help: "A character has only one condition of a group, such as Body heat: the strongest stays.",
  fields: { note },
});
