/** What an item does when it is used; of an item, or of a type, whose items then all have it. */
import { formula } from "../formulas/field";
import { parseUse, SAID_BY_LINE } from "../notation/use-line";
import { choice } from "../schema/choice";
import { duration } from "../schema/duration";
import { flag } from "../schema/flag";
import { list, maybe } from "../schema/group";
import { keyedMap } from "../schema/keyed-map";
import { defineKind } from "../schema/kind";
import { MOST, MOST_DEPTH } from "../schema/limits";
import { number } from "../schema/number";
import { ref, refs } from "../schema/ref";
import { text } from "../schema/text";
import { union } from "../schema/union";
import { NATURES } from "./condition";
import { level, note } from "./shared";

export const TARGETS = ["oneself", "one ally", "all allies", "one foe", "all foes", "a place"] as const;
/** What becomes of the item. */
export const FATES = ["used up", "worn", "kept"] as const;

const over = {
  every: duration({ optional: true, help: "If empty, once." }),
  first: maybe(
    duration({
      told: true,
      label: "first after",
      help: "When the first one comes, such as 0s for at once. If empty, after one interval.",
    }),
  ),
  lasting: duration({ optional: true, label: "for", help: "How long it goes on." }),
} as const;
const share = flag({ label: "share of the most", help: "The amount is a share of the most there can be." });

export const EFFECTS = {
  restore: { resource: ref("resource"), share, ...over },
  drain: { resource: ref("resource"), share, ...over },
  cost: { resource: ref("resource"), share },
  apply: { condition: ref("condition"), ticks: duration({ optional: true, label: "duration", bundled: "duration" }) },
  clear: { condition: ref("condition") },
  "clear all": { nature: choice(NATURES) },
  change: { stat: ref("stat"), limit: number({ min: -MOST, max: MOST, optional: true }) },
  draw: { table: ref("table") },
  give: { item: ref("item") },
  take: { item: ref("item") },
  pay: { currency: ref("currency") },
  charge: { currency: ref("currency") },
  teach: { recipe: ref("recipe") },
  send: {
    signal: ref("signal"),
    told: list({ called: text({ most: 40, required: true }), value: text({ most: 200 }) }, { most: 12, noun: "word" }),
  },
} as const;
/** What a new effect is before anything is said of it. */
const BLANK = { is: "restore", resource: null as never, share: false, every: null, lasting: null } as const;
export type EffectSort = keyof typeof EFFECTS;

function effectRules({ does }: { readonly does: object }, fault: (path: string, says: string) => void): void {
  const { first, every, lasting } = does as { first?: number; every?: number | null; lasting?: number | null };
  if (first !== undefined && every === null && lasting === null)
    fault("does", "Say how often it comes, or for how long, before when it first comes.");
}

export const use = defineKind({
  name: "use",
  plural: "uses",
  section: "uses",
  table: "item_use",
  help: "What an item does when it is used. What a type's use says, its items inherit until they say otherwise.",
  fields: {
    item: ref("item", { optional: true, label: "of the item", title: "Item", width: 120 }),
    type: ref("type", { optional: true, label: "of the type", title: "Type", width: 100 }),
    varies: ref("use", {
      optional: true,
      tree: MOST_DEPTH,
      label: "says otherwise than",
      title: "Instead of",
      width: 110,
      help: "The use of a type above that it stands for; what it does not say is as that says.",
    }),
    off: flag({ label: "taken away", title: "Away", width: 56, help: "Yes: the item does not have that use at all." }),
    order: number({ min: 0, max: 1000, whole: true, width: 60 }),
    everywhere: flag({
      optional: true,
      title: "Everywhere",
      width: 84,
      help: "No: only in the situations that are ticked.",
    }),
    situations: refs("situation", { label: "only in", title: "Only in", width: 120 }),
    on: choice(TARGETS, { optional: true, label: "acts on", title: "Acts on", width: 90 }),
    windup: duration({ optional: true, label: "wind-up", title: "Wind-up", width: 80 }),
    wait: duration({
      optional: true,
      label: "ready again in",
      title: "Ready in",
      width: 80,
      help: "Nothing: the time of the item's cooldown group.",
    }),
    fate: choice(FATES, { optional: true, label: "what becomes of it", title: "Item is", width: 76 }),
    count: number({
      min: 1,
      max: 1e6,
      whole: true,
      optional: true,
      label: "how many",
      title: "How many",
      width: 70,
      help: "Of what is used up: so many at a time. Of what is worn: so many uses.",
    }),
    leaves: ref("item", { optional: true, title: "Leaves", width: 120, help: "What is left of it." }),
    level: number({ ...level, label: "needs level", title: "Level", help: "Level a character needs." }),
    least: keyedMap("stat", number({ min: -MOST, max: MOST }), { label: "needs at least", title: "Needs" }),
    having: refs("condition", { label: "needs the conditions", title: "Needs", width: 110 }),
    without: refs("condition", { label: "not with the conditions", title: "Not with", width: 110 }),
    guarded: flag({
      optional: true,
      label: "refused when it would change nothing",
      title: "Guarded",
      width: 70,
    }),
    told: text({ most: 200, optional: true, label: "what the player is told then", title: "Told then", width: 140 }),
    effects: list(
      {
        does: union(EFFECTS, BLANK),
        amount: formula("use", { help: "Points, a share, layers or how many. Nothing: 1." }),
        chance: number({ min: 0, max: 1, percent: true, initial: 1 }),
      },
      { most: 40, noun: "effect", width: 260, rules: effectRules },
    ),
    note,
  },
  notation: {
    says: SAID_BY_LINE,
    read(line, around, make) {
      const { use, issues } = parseUse(line, around, (name) => make(name, "item"));
      return { fields: use as Readonly<Record<string, unknown>> | null, issues };
    },
  },
});
