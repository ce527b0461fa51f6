/** A salvage rule: the share of their ingredients that items of a type return. */
import { choice } from "../schema/choice";
import { defineKind } from "../schema/kind";
import { number } from "../schema/number";
import { ref } from "../schema/ref";
import { note } from "./shared";

/** How fractions of an item are rounded; “by chance” makes the share exact on average. */
export const ROUNDINGS = ["down", "nearest", "by chance"] as const;
export type Rounding = (typeof ROUNDINGS)[number];

export const payback = defineKind({
  name: "payback",
  section: "paybacks",
  help: "What salvaging items of a type returns, such as 40% for Wet fare. A check reports salvage that drifted from its rule.",
  fields: {
    type: ref("type", { optional: true, label: "for type", title: "For type", width: 130 }),
    share: number({
      min: 0,
      max: 1,
      least: 0.0001,
      percent: true,
      initial: 0.4,
      label: "share returned",
      title: "Returns",
      width: 90,
    }),
    rounding: choice(ROUNDINGS, { label: "rounding", title: "Rounding", width: 100 }),
    least: number({ min: 0, max: 1000, whole: true, label: "minimum", title: "Minimum", width: 76 }),
    tool: ref("item", { optional: true, label: "tool", title: "Tool", width: 130 }),
    into: ref("item", {
      optional: true,
      label: "return for items without a recipe",
      title: "Without a recipe",
      width: 130,
      help: "What items that no recipe makes return, such as Coarse salt, in proportion to cost. If empty, nothing.",
    }),
    note,
  },
});
