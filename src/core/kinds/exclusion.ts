/** Conditions of which a character has only one: the strongest. */
import { defineKind } from "../schema/kind";
import { note } from "./shared";

export const exclusion = defineKind({
  name: "exclusion",
  plural: "exclusive groups",
  section: "exclusions",
  help: "Conditions of one group displace each other: the stronger stays.",
  fields: { note },
});
