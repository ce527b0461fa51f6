/** What can be done to one field of many records. A new action is one entry here. */
import type { Catalogue } from "../catalogue/catalogue";
import { heldAt } from "../catalogue/inheritance";
import { around } from "../catalogue/surroundings";
import { evaluate, parseFormula } from "../formulas/formula";
import { type AnyRecord, type Kind, kindWord, type Recipe } from "../kinds/index";
import { formatUnnamed } from "../notation/format";
import type { Line, LineTarget, Variant } from "../notation/line";
import { roleRule } from "../notation/roles";
import type { Field, Typing } from "../schema/field";
import { same as equal } from "../schema/json";
import type { Id } from "../schema/id";
import { typedNumber, type TypedNumber } from "../numbers/typed";
import { roundedTo } from "../numbers/tidy";
import { fieldAt, pathOf } from "../schema/record";
import { definition } from "../kinds/index";
import type { BulkRequest } from "./bulk";
import type { NewNames } from "./new-names";
import { numberAt, numberColumns } from "./number-columns";
import { times } from "./together";

/** What is known when an action is made ready. */
export interface BulkContext {
  readonly catalogue: Catalogue;
  readonly kind: Kind;
  readonly field: Field;
  readonly request: BulkRequest;
  readonly names: NewNames;
  /** Numbers that are computed, by what formulas call them. */
  readonly readings: ReadonlyMap<string, (record: AnyRecord) => number | null>;
}
type Says = { readonly message: string };
/** The value a record would have; `same` leaves it as it is. */
type Made =
  | {
      readonly value: unknown;
      /** Values of other fields that it would have with it. */
      readonly beside?: readonly (readonly [path: string, value: unknown])[];
      /** What people are shown, where that is more than the field. */
      readonly shown?: readonly [before: string, after: string];
    }
  | { readonly same: true }
  | Says;
export type Make = (held: unknown, record: AnyRecord) => Made;

export interface BulkAction {
  /** What is asked for beside it. */
  readonly asks: "nothing" | "value" | "number" | "formula" | "column" | "texts" | "names" | "items";
  /** Numbers can be rounded to a step. */
  readonly rounds?: true;
  fits(field: Field): boolean;
  ready(context: BulkContext): Make | Says;
}

const SAME: Made = { same: true };
const isReckoned = (field: Field): boolean => field.numeric;
const isLines = (field: Field): boolean => field.type === "lines";
/** One value, that can be set as a whole. */
const isWhole = (field: Field): boolean => !isLines(field);
const isText = (field: Field): boolean => field.type === "text" || field.type === "long text";
const isSet = (field: Field): boolean => field.type === "refs";

/** Rounds to multiples of what was asked for; durations to whole ticks. */
function rounding(context: BulkContext): ((value: number) => number) | Says {
  const { step } = context.request;
  if (step.trim() === "") {
    const unit = context.field.type === "duration" ? 1 : 0;
    return (value) => roundedTo(value, unit);
  }
  const read = numberIn(context, step, context.field.options.unit);
  if ("message" in read) return read;
  if (read.value < 0)
    return { message: `“${step}” isn't a step to round to. Enter a number such as 5 or 0.25, or leave it empty.` };
  return (value) => roundedTo(value, read.value);
}
/** A number that was typed, as whoever typed it writes numbers. @param unit  what may stand behind it */
const numberIn = ({ catalogue, names }: BulkContext, typed: string, unit?: string): TypedNumber =>
  typedNumber(typed, { format: names.typing.numbers, unit, ticksPerSecond: catalogue.pantry.ticksPerSecond });

/**
 * An action that makes a number of a number.
 * @param unit  what may stand behind the number that is typed
 */
const reckon = (
  made: (value: number, by: number) => number,
  unit: (field: Field) => string | undefined = () => undefined,
): BulkAction => ({
  asks: "number",
  rounds: true,
  fits: isReckoned,
  ready(context) {
    const read = numberIn(context, context.request.typed, unit(context.field));
    if ("message" in read) return read;
    const by = read.value;
    const round = rounding(context);
    if ("message" in round) return round;
    return (held) => (typeof held === "number" ? { value: round(made(held, by)) } : SAME);
  },
});

/** What a typed name stands for in a recipe: "River eel", "any fish"; made where no one knows it. */
function namedBy(name: string, typing: Typing): { readonly named: LineTarget; readonly made: boolean } | Says {
  const typed = name.trim();
  const tag = /^any\s+(.+)$/i.exec(typed)?.[1];
  const [kind, called] = tag ? (["tag", tag] as const) : (["item", typed] as const);
  if (!called) return { message: "Enter an item, or “any” and a tag." };
  const found = typing.names(kind).find(called);
  if (found.found === "several") return { message: `Several records are called “${called}”. Enter a key.` };
  const id = found.found === "one" ? found.id : typing.make(kind, called);
  if (!id) return { message: `“${called}” isn't in the pantry.` };
  return { named: kind === "tag" ? { any: id } : { item: id }, made: found.found !== "one" };
}

/** Adds to a set of records, or takes from it. */
const names = (made: (held: readonly Id[], typed: readonly Id[]) => readonly Id[]): BulkAction => ({
  asks: "names",
  fits: isSet,
  ready({ field, request, names: typing }) {
    const read = field.parse(request.typed.trim(), typing.typing);
    if ("message" in read) return read;
    return (held) => ({ value: made((held ?? []) as readonly Id[], read.value as readonly Id[]) });
  },
});

/** An action on what goes in and comes out of recipes, in all of their ways. What has a place in a pattern stays. */
const onLines = (
  asks: BulkAction["asks"],
  ready: (context: BulkContext) => ((line: Line) => Line) | Says,
): BulkAction => ({
  asks,
  fits: isLines,
  ready(context) {
    const made = ready(context);
    if ("message" in made) return made;
    return (held, record) => {
      const lines = (held as readonly Line[]).map(made);
      const { variants = [] } = record as { readonly variants?: readonly Variant[] };
      const others = variants.map((v) => ({ ...v, lines: v.lines.map(made) }));
      const moved = !equal(lines, held);
      if (!moved && equal(others, variants)) return SAME;
      const shown = [record, { ...record, lines, variants: others }].map((of) =>
        formatUnnamed(context.names.knowing, of as Recipe),
      ) as [string, string];
      return { value: lines, beside: equal(others, variants) ? [] : [["variants", others]], shown };
    };
  },
});
/** So many times as much of what stands in a role. */
const scaled = (role: Line["role"]): BulkAction =>
  onLines("number", (context) => {
    const { typed } = context.request;
    const read = numberIn(context, typed);
    if ("message" in read) return read;
    const by = read.value;
    if (by <= 0) return { message: `“${typed}” isn't a number above 0. Enter one such as 2 or 0.5.` };
    return (l) => (l.role === role && !l.cells ? { ...l, min: times(l.min, by), max: times(l.max, by) } : l);
  });

export const BULK_ACTIONS = {
  "set to": {
    asks: "value",
    fits: isWhole,
    ready({ field, request, names: typing }) {
      const read = field.parse(request.typed.trim(), typing.typing);
      return "message" in read ? read : () => ({ value: read.value });
    },
  },
  clear: { asks: "nothing", fits: isWhole, ready: () => () => ({ value: undefined }) },
  add: reckon(
    (value, by) => value + by,
    (field) => field.options.unit,
  ),
  "multiply by": reckon((value, by) => value * by),
  "raise by percent": reckon(
    (value, by) => value * (1 + by / 100),
    () => "%",
  ),
  "reckon as": {
    asks: "formula",
    rounds: true,
    fits: isReckoned,
    ready(context) {
      const { catalogue, kind, request, readings } = context;
      const columns = numberColumns(catalogue, kind);
      const parsed = parseFormula(request.typed, [...columns.keys(), ...readings.keys()]);
      if (!parsed.ok) return { message: parsed.message };
      const round = rounding(context);
      if ("message" in round) return round;
      return (_, record) => {
        const made = evaluate(parsed.formula, (name) => {
          const path = columns.get(name);
          return path === undefined ? (readings.get(name)?.(record) ?? null) : numberAt(catalogue, kind, record, path);
        });
        return "message" in made ? made : { value: round(made.value) };
      };
    },
  },
  "copy from": {
    asks: "column",
    fits: isWhole,
    ready({ catalogue, kind, field, request, names: typing }) {
      const from = pathOf(definition(kind), request.typed);
      if (!from) return { message: "Choose the column to copy." };
      const here = around(catalogue);
      const other = fieldAt(from, here);
      return (_, record) => {
        const { here: held } = heldAt(catalogue, kind, record, request.typed);
        if (held.from === "none") return SAME;
        // Numbers stay what they are; everything else is read again as it is written.
        if (other.numeric && field.numeric) return { value: held.value };
        const read = field.parse(other.format(held.value, here), typing.typing);
        return "message" in read ? read : { value: read.value };
      };
    },
  },
  "multiply what goes in by": scaled("ingredient"),
  "multiply what comes out by": scaled("output"),
  exchange: onLines("items", ({ names: { typing }, request: { typed, other = "" } }) => {
    const [from, to] = [typed, other].map((name) => namedBy(name, typing));
    if ("message" in from) return from;
    if (from.made) return { message: `No recipe contains “${typed.trim()}”. Choose what to replace.` };
    if ("message" in to) return to;
    const named = ({ item, any }: LineTarget) => (any === undefined ? `item ${item}` : `tag ${any}`);
    return (l) => {
      if (named(l) !== named(from.named) || (to.named.any !== undefined && !roleRule(l.role).any)) return l;
      const { item: _, any: __, whole, ...rest } = l;
      return { ...rest, ...to.named, ...(whole && to.named.item ? { whole } : {}) } as Line;
    };
  }),
  replace: {
    asks: "texts",
    fits: isText,
    ready({ request: { typed, other = "" } }) {
      if (typed === "") return { message: "Enter the text to replace." };
      return (held) =>
        typeof held === "string" && held.includes(typed) ? { value: held.replaceAll(typed, () => other) } : SAME;
    },
  },
  "add to": names((held, typed) => [...new Set([...held, ...typed])]),
  "take out": names((held, typed) => held.filter((id) => !typed.includes(id))),
} as const satisfies { readonly [action: string]: BulkAction };

export type Action = keyof typeof BULK_ACTIONS;
export const ACTIONS = Object.keys(BULK_ACTIONS) as readonly Action[];
export const actionOf = (action: Action): BulkAction => BULK_ACTIONS[action];
export const fitting = (field: Field): Action[] => ACTIONS.filter((action) => actionOf(action).fits(field));

/** "This works only with numbers." for what does not fit. */
export const misfit = (kind: Kind, action: Action): string =>
  actionOf(action).fits === isReckoned
    ? "This works only with numbers."
    : `This action isn't available for this field of ${kindWord(kind, true)}.`;
