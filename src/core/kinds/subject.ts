/** A test character that items are tried out on. */
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
  section: "subjects",
  help: "Characters to try items out on, such as Wren, with their level, stats, bag and starting kit.",
  fields: {
    level: number({ min: 0, max: 1000, whole: true, initial: 1, width: 54 }),
    stats: keyedMap("stat", formula("level"), {
      label: "base stats",
      help: "A number or a formula of the level, such as 10 + level.",
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
        help: "Values by level, such as 1 10 and 20 48, with even steps between rows. They take precedence over a formula.",
      },
    ),
    resources: refs("resource", { width: 140 }),
    slots: refs("slot", { width: 140, help: "Where it can wear items, such as Head." }),
    bagSlots: number({
      min: 0,
      max: 10_000,
      whole: true,
      optional: true,
      label: "bag slots",
      title: "Bag slots",
      width: 70,
      help: "Slots in its bag, such as 12. If empty, no limit.",
    }),
    bagMass: number({
      min: 0,
      max: MOST,
      optional: true,
      unit: "kg",
      label: "carrying capacity",
      title: "Carrying capacity",
      width: 116,
      help: "Kilograms it can carry, such as 40. If empty, no limit.",
    }),
    kit: keyedMap("item", count, { label: "starting kit", title: "Starting kit", width: 120 }),
    worn: refs("item", { label: "wears", title: "Wears", width: 140 }),
    money: keyedMap("currency", number({ min: 0, max: MOST }), { width: 90 }),
    knows: refs("recipe", {
      label: "knows",
      title: "Knows",
      width: 120,
      help: "Recipes it has already learned, such as Draw chart.",
    }),
    note,
  },
});
