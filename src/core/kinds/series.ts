/** Items made from a first one by rules, so that rules can be changed and steps added later. */
import { choice } from "../schema/choice";
import { defineKind } from "../schema/kind";
import { list } from "../schema/group";
import { number } from "../schema/number";
import { ref } from "../schema/ref";
import { text } from "../schema/text";
import { words } from "../schema/words";
import { note } from "./shared";

export const SERIES_RULES = ["add", "multiply", "list", "formula"] as const;
export const MOST_STEPS = 60;

export const series = defineKind({
  name: "series",
  section: "series",
  help: "Items made from a first one by rules, such as Rope I to Rope V. Created and changed on the first item's sheet.",
  fields: {
    first: ref("item", { optional: true, label: "first item", title: "First item", width: 140 }),
    steps: list({ item: ref("item") }, { most: MOST_STEPS, noun: "step", width: 220 }),
    names: text({ most: 120, label: "name pattern", title: "Names", width: 160 }),
    words: words(60, { width: 160 }),
    rules: list(
      {
        field: text({ most: 40 }),
        stat: ref("stat", { optional: true }),
        own: ref("field", { optional: true }),
        how: choice(SERIES_RULES),
        by: text({ most: 500 }),
        round: number({ min: 0, max: 1e9, optional: true }),
      },
      { most: 40, noun: "rule", width: 260 },
    ),
    recipe: text({ most: 500, label: "recipe for each step", title: "Recipe", width: 220 }),
    note,
  },
});
