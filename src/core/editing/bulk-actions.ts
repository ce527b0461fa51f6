/** What can be done to one field of many records. A new action is one entry here. */
import type { Catalogue } from "../catalogue/catalogue";
import { heldAt } from "../catalogue/inheritance";
import { around } from "../catalogue/surroundings";
import { evaluate, parseFormula } from "../formulas/formula";
import { type AnyRecord, type Kind, kindWord } from "../kinds/index";
import type { Field } from "../schema/field";
import type { Id } from "../schema/id";
import { roundedTo } from "../numbers/tidy";
import { readNumber } from "../schema/number";
import { fieldAt, pathOf } from "../schema/record";
import { definition } from "../kinds/index";
import type { BulkRequest } from "./bulk";
import type { NewNames } from "./new-names";
import { numberAt, numberColumns } from "./number-columns";

/** What is known when an action is made ready. */
export interface BulkContext {
  readonly catalogue: Catalogue;
  readonly kind: Kind;
  readonly field: Field;
  readonly request: BulkRequest;
  readonly names: NewNames;
  /** Numbers that are worked out, by what formulas call them. */
  readonly readings: ReadonlyMap<string, (record: AnyRecord) => number | null>;
}
type Says = { readonly says: string };
/** The value a record would have; `same` leaves it as it is. */
type Made = { readonly value: unknown } | { readonly same: true } | Says;
export type Make = (held: unknown, record: AnyRecord) => Made;

export interface BulkAction {
  /** What is asked for beside it. */
  readonly asks: "nothing" | "value" | "number" | "formula" | "column" | "texts" | "names";
  /** Numbers can be rounded to a step. */
  readonly rounds?: true;
  fits(field: Field): boolean;
  ready(context: BulkContext): Make | Says;
}

const SAME: Made = { same: true };
const isReckoned = (field: Field): boolean => field.numeric;
const isText = (field: Field): boolean => field.type === "text" || field.type === "long text";
const isSet = (field: Field): boolean => field.type === "refs";

/** Rounds to multiples of what was asked for; durations to whole ticks. */
function rounding({ request: { step }, field }: BulkContext): ((value: number) => number) | Says {
  const unit = step.trim() === "" ? (field.type === "duration" ? 1 : 0) : readNumber(step.trim());
  if (unit === null || unit < 0)
    return { says: `“${step}” is no step to round to. Write a number such as 5 or 0.25, or nothing.` };
  return (value) => roundedTo(value, unit);
}

/** An action that makes a number of a number. */
const reckon = (made: (value: number, by: number) => number): BulkAction => ({
  asks: "number",
  rounds: true,
  fits: isReckoned,
  ready(context) {
    const { typed } = context.request;
    const by = readNumber(typed.trim());
    if (by === null)
      return { says: `“${typed}” is not a number. Write digits with a point for decimals, such as 2.5.` };
    const round = rounding(context);
    if ("says" in round) return round;
    return (held) => (typeof held === "number" ? { value: round(made(held, by)) } : SAME);
  },
});

/** Adds to a set of records, or takes from it. */
const names = (made: (held: readonly Id[], typed: readonly Id[]) => readonly Id[]): BulkAction => ({
  asks: "names",
  fits: isSet,
  ready({ field, request, names: typing }) {
    const read = field.parse(request.typed.trim(), typing.typing);
    if ("says" in read) return read;
    return (held) => ({ value: made((held ?? []) as readonly Id[], read.value as readonly Id[]) });
  },
});

export const BULK_ACTIONS = {
  "set to": {
    asks: "value",
    fits: () => true,
    ready({ field, request, names: typing }) {
      const read = field.parse(request.typed.trim(), typing.typing);
      return "says" in read ? read : () => ({ value: read.value });
    },
  },
  clear: { asks: "nothing", fits: () => true, ready: () => () => ({ value: undefined }) },
  add: reckon((value, by) => value + by),
  "multiply by": reckon((value, by) => value * by),
  "raise by percent": reckon((value, by) => value * (1 + by / 100)),
  "reckon as": {
    asks: "formula",
    rounds: true,
    fits: isReckoned,
    ready(context) {
      const { catalogue, kind, request, readings } = context;
      const columns = numberColumns(catalogue, kind);
      const parsed = parseFormula(request.typed, [...columns.keys(), ...readings.keys()]);
      if (!parsed.ok) return { says: parsed.says };
      const round = rounding(context);
      if ("says" in round) return round;
      return (_, record) => {
        const made = evaluate(parsed.formula, (name) => {
          const path = columns.get(name);
          return path === undefined ? (readings.get(name)?.(record) ?? null) : numberAt(catalogue, kind, record, path);
        });
        return "says" in made ? made : { value: round(made.value) };
      };
    },
  },
  "copy from": {
    asks: "column",
    fits: () => true,
    ready({ catalogue, kind, field, request, names: typing }) {
      const from = pathOf(definition(kind), request.typed);
      if (!from) return { says: "Choose the column that is copied." };
      const here = around(catalogue);
      const other = fieldAt(from, here);
      return (_, record) => {
        const { here: held } = heldAt(catalogue, kind, record, request.typed);
        if (held.from === "none") return SAME;
        // Numbers stay what they are; everything else is read anew as it is written.
        if (other.numeric && field.numeric) return { value: held.value };
        const read = field.parse(other.format(held.value, here), typing.typing);
        return "says" in read ? read : { value: read.value };
      };
    },
  },
  replace: {
    asks: "texts",
    fits: isText,
    ready({ request: { typed, other = "" } }) {
      if (typed === "") return { says: "Say which text is to be replaced." };
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

/** "Only numbers can be reckoned with." for what does not fit. */
export const misfit = (kind: Kind, action: Action): string =>
  actionOf(action).fits === isReckoned
    ? "Only numbers can be reckoned with."
    : `That can't be done to this field of ${kindWord(kind, true)}.`;
