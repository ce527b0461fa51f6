/** A property that the designers define themselves: what else their items, rarities, places have. */
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
  plural: "fields",
  section: "fields",
  help: "What else your records have: a smell, a sound, who sells it. Types say which of their items have it.",
  fields: {
    of: choice(HOLDERS, { label: "belongs to", title: "Belongs to", width: 84 }),
    form: choice(FORMS, {
      width: 84,
      help: "What may stand in it. Changing it shows first what becomes of each value.",
    }),
    unit: text({ most: 20, width: 60 }),
    options: words(60, { width: 180, help: "Of a choice: the words to choose from, with commas between them." }),
    to: choice(LINKABLE, { label: "links to", title: "Links to", width: 80 }),
    ofType: ref("type", { optional: true, label: "only of type", title: "Only of type", width: 96 }),
    ofTag: ref("tag", { optional: true, label: "only with tag", title: "Only with tag", width: 96 }),
    min: bound,
    max: bound,
    everywhere: flag({
      initial: true,
      label: "every one has it",
      title: "Every one",
      width: 74,
      help: "Of items: no means that only items of the types that take it have it.",
    }),
    required: flag({ width: 74, help: "Where it is empty the checks say so." }),
    shown: flag({ initial: true, label: "players see it", title: "Players see", width: 86 }),
    order: number({ min: 0, max: 1000, whole: true, width: 60, help: "Lowest first, on sheets and cards." }),
    help: text({ most: 300, width: 200 }),
  },
});
