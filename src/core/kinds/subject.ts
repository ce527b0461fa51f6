/** A character that things are tried out on. */
import { formula } from "../formulas/field";
import { list } from "../schema/group";
import { keyedMap } from "../schema/keyed-map";
import { defineKind } from "../schema/kind";
import { MOST } from "../schema/limits";
import { number } from "../schema/number";
import { ref, refs } from "../schema/ref";
import { note } from "./shared";

const count = number({ min: 0, max: MOST, whole: true, initial: 1 });

export const subject = defineKind({
  name: "subject",
  plural: "subjects",
  section: "subjects",
  help: "Characters that things are tried out on: a level, stats, a bag, what they start with.",
  fields: {
    level: number({ min: 0, max: 1000, whole: true, initial: 1, width: 54 }),
    stats: keyedMap("stat", formula("level"), {
      label: "base stats",
      help: "A number, or a formula over the level.",
      width: 80,
    }),
    growth: list(
      {
        stat: ref("stat"),
        level: number({ min: 0, max: 1000, whole: true }),
        value: number({ min: -MOST, max: MOST }),
      },
      {
        most: 2000,
        noun: "row",
        title: "Stats by level",
        width: 160,
        help: "A table over the level; between its rows in equal steps. It goes before a formula.",
      },
    ),
    resources: refs("resource", { width: 140 }),
    slots: refs("slot", { width: 140, help: "Where it can wear things." }),
    bagSlots: number({
      min: 0,
      max: 10_000,
      whole: true,
      optional: true,
      label: "bag slots",
      title: "Bag slots",
      width: 70,
      help: "Nothing: as many as it takes.",
    }),
    bagMass: number({
      min: 0,
      max: MOST,
      optional: true,
      unit: "kg",
      label: "can carry",
      title: "Carries",
      width: 70,
      help: "Nothing: as much as there is.",
    }),
    kit: keyedMap("item", count, { label: "starting kit", title: "Kit", width: 120 }),
    worn: refs("item", { label: "wears", title: "Wears", width: 140 }),
    money: keyedMap("currency", number({ min: 0, max: MOST }), { width: 90 }),
    knows: refs("recipe", { label: "knows", title: "Knows", width: 120, help: "Recipes that were taught already." }),
    note,
  },
});
