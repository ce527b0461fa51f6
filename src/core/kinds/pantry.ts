/** The settings of a pantry; edited by the same changes as records. */
import { CHECK_SETTINGS } from "../checklist/index";
import { choice } from "../schema/choice";
import { defineKind } from "../schema/kind";
import { MOST } from "../schema/limits";
import { number } from "../schema/number";
import { OVERFLOW } from "./shared";

export const pantry = defineKind({
  name: "pantry",
  plural: "pantries",
  section: "pantry",
  fields: {
    ticksPerSecond: number({
      min: 1,
      max: 1000,
      whole: true,
      initial: 20,
      label: "ticks per second",
      help: "The game's clock. Every duration is stored in ticks and can be written as 90s or 1800t.",
    }),
    labourPerHour: number({
      min: 0,
      max: MOST,
      label: "worth of an hour",
      title: "Worth of an hour of play",
      help: "Value units. Time then counts in value too, so that a gathered material is not free. 0 leaves time out.",
    }),
    overflow: choice(OVERFLOW, {
      label: "what does not fit a bag",
      title: "What does not fit a bag",
      help: "Goes to storage, or is refused.",
    }),
    ...CHECK_SETTINGS,
  },
});
