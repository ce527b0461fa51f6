/** A salvage that is kept as a rule: what the items of a type give back of what they took. */
import { choice } from "../schema/choice";
import { defineKind } from "../schema/kind";
import { number } from "../schema/number";
import { ref } from "../schema/ref";
import { note } from "./shared";

/** What becomes of parts of one: they are lost, rounded, or come by chance so that the share is exact on average. */
export const ROUNDINGS = ["down", "nearest", "by chance"] as const;
export type Rounding = (typeof ROUNDINGS)[number];

export const payback = defineKind({
  name: "payback",
  plural: "paybacks",
  section: "paybacks",
  help: "What taking apart the items of a type gives back of what they took. Kept, so that what has drifted since is found.",
  fields: {
    type: ref("type", { optional: true, label: "for items of", title: "For items of", width: 130 }),
    share: number({ min: 0, max: 1, least: 0.0001, percent: true, initial: 0.4, title: "Gives back", width: 90 }),
    rounding: choice(ROUNDINGS, { label: "parts of one", title: "Parts of one", width: 100 }),
    least: number({ min: 0, max: 1000, whole: true, label: "at least", title: "At least", width: 70 }),
    tool: ref("item", { optional: true, label: "using", title: "Using", width: 130 }),
    into: ref("item", {
      optional: true,
      label: "what is not made gives",
      title: "Not made gives",
      width: 130,
      help: "Things that are found, dropped or bought and that no recipe makes give so much of this, by what both cost. If empty, nothing.",
    }),
    note,
  },
});
