/** When or where a thing may be used: at rest, aboard, in a fight. */
import { choice } from "../schema/choice";
import { defineKind } from "../schema/kind";
import { note, OVERFLOW } from "./shared";
import { own } from "./own";

export const situation = defineKind({
  name: "situation",
  plural: "situations",
  section: "situations",
  help: "When or where things may be used: at rest, aboard, in a squall.",
  fields: {
    overflow: choice(OVERFLOW, {
      optional: true,
      label: "what does not fit a bag",
      title: "Full bag",
      width: 90,
      help: "What happens here to things that do not fit. If empty, what the pantry's settings say.",
    }),
    note,
    own: own(),
  },
});
