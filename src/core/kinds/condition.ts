/** A timed state of a character. */
import { formula } from "../formulas/field";
import { choice } from "../schema/choice";
import { duration } from "../schema/duration";
import { list, maybe } from "../schema/group";
import { defineKind } from "../schema/kind";
import { MOST } from "../schema/limits";
import { number } from "../schema/number";
import { ref, refs } from "../schema/ref";
import { text } from "../schema/text";
import { note } from "./shared";

export const NATURES = ["good", "bad", "neither"] as const;
/** What becomes of a condition that is applied to someone who has it. */
export const TWICE = ["refresh", "extend", "add up", "keep the longer", "ignore"] as const;
export const MOST_LAYERS = 1000;
/** How layers of a condition that adds up end. */
export const LAYERS_END = ["all together", "each its own"] as const;

export const condition = defineKind({
  name: "condition",
  section: "conditions",
  help: "Timed states of a character, such as Warm or Soaked. Uses apply and clear them.",
  fields: {
    icon: text({ most: 80, drawn: "icon", optional: true, width: 140 }),
    nature: choice(NATURES, {
      label: "good or bad",
      title: "Good or bad",
      width: 92,
      words: { neither: "neutral" },
      help: "Whether it helps or hurts, such as good for Warm.",
    }),
    ticks: duration({
      optional: true,
      label: "duration",
      title: "Duration",
      bundled: "duration",
      width: 80,
      help: "How long it lasts, such as 30s. If empty, until something clears it.",
    }),
    changes: list(
      { stat: ref("stat"), how: choice(["add", "multiply", "set"]), by: formula("bearer") },
      { most: 40, noun: "stat change", title: "Changes", width: 200 },
    ),
    pulses: list(
      {
        resource: ref("resource"),
        amount: formula("bearer", { help: "Points each time, such as 2. Below 0 drains." }),
        every: duration({ help: "Time between pulses, such as 5s. If empty, every second." }),
        first: maybe(
          duration({
            told: true,
            label: "first after",
            help: "When the first pulse comes, such as 0s for at once. If empty, after one interval.",
          }),
        ),
      },
      { most: 20, noun: "pulse", title: "Pulses", width: 180 },
    ),
    twice: choice(TWICE, {
      label: "if applied again",
      title: "If applied again",
      width: 120,
      words: { "add up": "stack", "keep the longer": "keep longer" },
      help: "What happens when a character who has it gets it again, such as refresh.",
    }),
    layers: number({
      min: 1,
      max: MOST_LAYERS,
      whole: true,
      initial: 1,
      label: "maximum layers",
      title: "Maximum layers",
      width: 110,
      help: "For conditions that stack: the most layers at once, such as 3. Changes and pulses apply once per layer.",
    }),
    layersEnd: choice(LAYERS_END, {
      label: "layer timing",
      title: "Layer timing",
      width: 110,
      words: { "all together": "shared timer", "each its own": "own timers" },
      help: "For conditions that stack, such as shared timer: a new layer restarts the time of all.",
    }),
    exclusion: ref("exclusion", { optional: true, label: "exclusive group", title: "Exclusive group", width: 110 }),
    strength: number({
      min: -MOST,
      max: MOST,
      width: 70,
      help: "In an exclusive group the stronger condition stays, such as 2 over 1. If equal, the newer one.",
    }),
    bars: refs("situation", {
      label: "blocks uses in",
      title: "Blocks uses in",
      width: 120,
      help: "Contexts in which nothing can be used while it lasts, such as Aboard.",
    }),
    stops: refs("use", {
      label: "blocked uses",
      title: "Blocked uses",
      width: 110,
      help: "Uses that are refused while it lasts, such as Eat.",
    }),
    note,
  },
});
