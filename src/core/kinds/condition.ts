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
/** What becomes of a condition that is applied to somebody who has it. */
export const TWICE = ["refresh", "extend", "add up", "keep the longer", "ignore"] as const;
export const MOST_LAYERS = 1000;
/** How layers of a condition that adds up end. */
export const LAYERS_END = ["all together", "each its own"] as const;

export const condition = defineKind({
  name: "condition",
  plural: "conditions",
  section: "conditions",
  help: "States of a character for a time: warm, soaked, steady-handed. Uses apply and clear them.",
  fields: {
    icon: text({ most: 80, drawn: "icon", optional: true, width: 140 }),
    nature: choice(NATURES, { title: "Is", width: 74 }),
    ticks: duration({
      optional: true,
      label: "duration",
      title: "Lasts",
      bundled: "duration",
      width: 80,
      help: "Nothing: until it is cleared.",
    }),
    changes: list(
      { stat: ref("stat"), how: choice(["add", "multiply", "set"]), by: formula("bearer") },
      { most: 40, noun: "stat change", title: "Changes", width: 200 },
    ),
    pulses: list(
      {
        resource: ref("resource"),
        amount: formula("bearer", { help: "Below 0 it drains." }),
        every: duration({ help: "If empty, every second." }),
        first: maybe(
          duration({
            told: true,
            label: "first after",
            help: "When the first one comes, such as 0s for at once. If empty, after one interval.",
          }),
        ),
      },
      { most: 20, noun: "pulse", title: "Pulses", width: 180 },
    ),
    twice: choice(TWICE, { label: "applied twice", title: "Applied twice", width: 110 }),
    layers: number({
      min: 1,
      max: MOST_LAYERS,
      whole: true,
      initial: 1,
      label: "most layers",
      title: "Layers",
      width: 60,
      help: "Where it adds up: so many at once. Changes and pulses count for each.",
    }),
    layersEnd: choice(LAYERS_END, {
      label: "layers end",
      title: "Layers end",
      width: 110,
      help: "Where it adds up. All together: each new layer renews the time of all. Each its own: every layer has its own time.",
    }),
    exclusion: ref("exclusion", { optional: true, label: "exclusive group", title: "Exclusive group", width: 110 }),
    strength: number({
      min: -MOST,
      max: MOST,
      width: 70,
      help: "Within its exclusive group the stronger stays; of equals the newer.",
    }),
    bars: refs("situation", { label: "prevents uses in", title: "Prevents in", width: 110 }),
    stops: refs("use", { label: "prevents the uses", title: "Prevents", width: 110 }),
    note,
  },
});
