/** When or where items can be used: at rest, aboard, in a squall. */
import { choice } from "../schema/choice";
import { defineKind } from "../schema/kind";
import { note, OVERFLOW } from "./shared";
import { own } from "./own";

export const situation = defineKind({
  name: "situation",
  section: "situations",
  help: "When or where items can be used, such as At rest or Aboard.",
  fields: {
    overflow: choice(OVERFLOW, {
      optional: true,
      label: "when the bag is full",
      title: "Full bag",
      width: 90,
      help: "What happens here to items that do not fit, such as refused. If empty, as in the pantry settings.",
    }),
    note,
    own: own(),
  },
});
