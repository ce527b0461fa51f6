/** What happens when an item is used. A type's use is inherited by its items. */
import { formula } from "../formulas/field";
import { parseUse, LINE_FIELDS } from "../notation/use-line";
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
  every: duration({ optional: true, help: "Time between repeats, such as 2s. If empty, it happens once." }),
  first: maybe(
    duration({
      told: true,
      label: "first after",
      help: "When the first repeat comes, such as 0s for at once. If empty, after one interval.",
    }),
  ),
  lasting: duration({ optional: true, label: "for", help: "How long it continues, such as 30s." }),
} as const;
const share = flag({ label: "share of the maximum", help: "Reads the amount as a share of the maximum, such as 50%." });

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
    told: list(
      { called: text({ most: 40, required: true, label: "name" }), value: text({ most: 200 }) },
      { most: 12, noun: "parameter" },
    ),
  },
} as const;
/** What a new effect is before anything is said of it. */
const BLANK = { is: "restore", resource: null as never, share: false, every: null, lasting: null } as const;
export type EffectSort = keyof typeof EFFECTS;

function effectRules({ does }: { readonly does: object }, fault: (path: string, message: string) => void): void {
  const { first, every, lasting } = does as { first?: number; every?: number | null; lasting?: number | null };
  if (first !== undefined && every === null && lasting === null)
    fault("does", "Enter how often or how long it repeats before the time of the first.");
}

export const use = defineKind({
  name: "use",
  section: "uses",
  table: "item_use",
  help: "What happens when an item is used, such as Eat. Items inherit the uses of their type and can override them.",
  fields: {
    item: ref("item", { optional: true, label: "item", title: "Item", width: 120 }),
    type: ref("type", { optional: true, label: "type", title: "Type", width: 100 }),
    varies: ref("use", {
      optional: true,
      tree: MOST_DEPTH,
      label: "overrides",
      title: "Overrides",
      width: 110,
      help: "The inherited use that this one overrides, such as Eat. Empty fields keep the inherited value.",
    }),
    off: flag({
      label: "removed",
      title: "Removed",
      width: 74,
      help: "Choose yes so that the item does not have the inherited use, such as Eat.",
    }),
    order: number({ min: 0, max: 1000, whole: true, width: 60 }),
    everywhere: flag({
      optional: true,
      label: "allowed everywhere",
      title: "Everywhere",
      width: 84,
      help: "Choose no to allow it only in the listed contexts, such as Aboard.",
    }),
    situations: refs("situation", {
      label: "contexts",
      title: "Contexts",
      width: 120,
      help: "Where it is allowed, such as At rest, unless it is allowed everywhere.",
    }),
    on: choice(TARGETS, {
      optional: true,
      label: "target",
      title: "Target",
      width: 90,
      words: { oneself: "self", "a place": "a location" },
    }),
    windup: duration({ optional: true, label: "use time", title: "Use time", width: 80 }),
    wait: duration({
      optional: true,
      label: "cooldown",
      title: "Cooldown",
      width: 80,
      help: "Time until it can be used again, such as 20s. If empty, that of the item's cooldown group.",
    }),
    fate: choice(FATES, {
      optional: true,
      label: "after use",
      title: "After use",
      width: 112,
      words: { worn: "loses durability" },
    }),
    count: number({
      min: 1,
      max: 1e6,
      whole: true,
      optional: true,
      label: "amount or uses",
      title: "Amount or uses",
      width: 110,
      help: "If used up, how many each use takes, such as 2. With durability, how many uses it lasts, such as 50.",
    }),
    leaves: ref("item", {
      optional: true,
      title: "Leaves",
      width: 120,
      help: "What remains after use, such as Stone crock.",
    }),
    level: number({ ...level, label: "required level", title: "Level", help: "Level a character needs, such as 5." }),
    least: keyedMap("stat", number({ min: -MOST, max: MOST }), { label: "minimum stats", title: "Minimum stats" }),
    having: refs("condition", { label: "required conditions", title: "Required conditions", width: 136 }),
    without: refs("condition", { label: "not while", title: "Not while", width: 110 }),
    guarded: flag({
      optional: true,
      label: "refused when it would do nothing",
      title: "Refused if useless",
      width: 124,
    }),
    told: text({ most: 200, optional: true, label: "message when refused", title: "Message when refused", width: 150 }),
    effects: list(
      {
        does: union(EFFECTS, BLANK),
        amount: formula("use", { help: "Points, a share, layers or a count, such as 42. If empty, 1." }),
        chance: number({ min: 0, max: 1, percent: true, initial: 1 }),
      },
      { most: 40, noun: "effect", width: 260, rules: effectRules },
    ),
    note,
  },
  notation: {
    coveredFields: LINE_FIELDS,
    read(line, around, make) {
      const { use, issues } = parseUse(line, around, (name, kind) => (kind === "item" ? make(name, "item") : null));
      return { fields: use as Readonly<Record<string, unknown>> | null, issues };
    },
  },
});
