/** When or where a thing may be used: at rest, aboard, in a fight. */
import { defineKind } from "../schema/kind";
import { note } from "./shared";
import { own } from "./own";

export const situation = defineKind({
  name: "situation",
  plural: "situations",
  section: "situations",
  help: "When or where things may be used: at rest, aboard, in a squall.",
  fields: { note, own: own() },
});
