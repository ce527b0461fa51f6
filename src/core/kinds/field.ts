/** A property that designers define themselves, for items, rarities, slots and other kinds. */
import { choice } from "../schema/choice";
import { defineKind } from "../schema/kind";
import { flag } from "../schema/flag";
import { MOST } from "../schema/limits";
import { number } from "../schema/number";
import { ref } from "../schema/ref";
import { text } from "../schema/text";
import { words } from "../schema/words";

/** Kinds whose records have fields of the designers' own. */
export const HOLDERS = ["item", "type", "rarity", "tag", "currency", "slot", "situation", "recipe", "source"] as const;
/** Kinds that a value may link to. */
export const LINKABLE = ["item", "type", "rarity", "stat", "tag", "currency", "slot", "cooldown", "situation"] as const;
export const FORMS = [
  "text",
  "long text",
  "whole",
  "decimal",
  "percent",
  "duration",
  "yes or no",
  "choice",
  "colour",
  "link",
  "links",
  "file",
] as const;
export type Form = (typeof FORMS)[number];

const bound = number({ min: -MOST, max: MOST, optional: true });

export const field = defineKind({
  name: "field",
  section: "fields",
  help: "Properties of your own, such as Smell or Tide. Each type chooses which ones its items have.",
  fields: {
    of: choice(HOLDERS, { label: "belongs to", title: "Belongs to", width: 84 }),
    form: choice(FORMS, {
      width: 84,
      words: { whole: "whole number", decimal: "decimal number" },
      help: "The kind of value it holds, such as text. Changing it previews what happens to existing values.",
    }),
    unit: text({ most: 20, width: 60 }),
    options: words(60, {
      width: 180,
      help: "For a choice: its options, separated by commas, such as ebb, flood, slack.",
    }),
    to: choice(LINKABLE, { label: "links to", title: "Links to", width: 80 }),
    ofType: ref("type", { optional: true, label: "only of type", title: "Only of type", width: 96 }),
    ofTag: ref("tag", { optional: true, label: "only with tag", title: "Only with tag", width: 96 }),
    min: bound,
    max: bound,
    everywhere: flag({
      initial: true,
      label: "on all records",
      title: "On all records",
      width: 104,
      help: "For items: choose no so that only types that include it have it, such as Smell on Fare.",
    }),
    required: flag({
      width: 74,
      help: "A check reports records that leave it empty, such as an Eel basket without Watertight.",
    }),
    unique: flag({
      width: 66,
      help: "A check reports records that share a value, such as two items with the same Stall number.",
    }),
    shown: flag({ initial: true, label: "shown to players", title: "Shown to players", width: 124 }),
    order: number({
      min: 0,
      max: 1000,
      whole: true,
      width: 60,
      help: "Position on sheets and cards, lowest first, such as 10.",
    }),
    help: text({ most: 300, width: 200 }),
  },
});
