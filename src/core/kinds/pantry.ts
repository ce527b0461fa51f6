/** The settings of a pantry; edited by the same changes as records. */
import { CHECK_SETTINGS } from "../checklist/index";
import { choice } from "../schema/choice";
import { defineKind } from "../schema/kind";
import { MOST } from "../schema/limits";
import { number } from "../schema/number";
import { OVERFLOW } from "./shared";

export const pantry = defineKind({
  name: "pantry",
  section: "pantry",
  fields: {
    ticksPerSecond: number({
      min: 1,
      max: 1000,
      whole: true,
      initial: 20,
      label: "ticks per second",
      help: "The game's clock, such as 20. Durations are stored in ticks and can be typed as 90s or 1800t.",
    }),
    labourPerHour: number({
      min: 0,
      max: MOST,
      label: "value of an hour",
      title: "Value of an hour of play",
      help: "Value units per hour of a player's time, such as 60, so that gathered materials have a cost. 0 ignores time.",
    }),
    overflow: choice(OVERFLOW, {
      label: "when the bag is full",
      title: "When the bag is full",
      help: "What happens to items that do not fit: stored sends them to storage, such as a tenth Hawser.",
    }),
    ...CHECK_SETTINGS,
  },
});
