/** A field that holds a number: whole, decimal or percent. */
import { written } from "../numbers/decimal";
import { sayPercent, sayQuantity } from "../numbers/format";
import { toPercent } from "../numbers/fraction";
import { typedNumber } from "../numbers/typed";
import { shown } from "./characters";
import { cell, type Column, type Field, type FieldOptions, plain, snake } from "./field";
import type { JsonSchema } from "./json";

export interface NumberRules extends FieldOptions {
  readonly min: number;
  readonly max: number;
  readonly whole?: boolean;
  /** A share that people write as a percentage: 0.4 is 40%. */
  readonly percent?: boolean;
  /** Smallest above zero. */
  readonly least?: number;
  /** Most decimal places. */
  readonly places?: number;
  readonly initial?: number;
}

/** What is wrong with a value as such a number, or null. */
export function numberProblem(
  value: unknown,
  { min, max, whole, least, places }: Omit<NumberRules, "initial">,
): string | null {
  if (typeof value !== "number" || !Number.isFinite(value)) return `${shown(value)} isn't a number.`;
  if (least !== undefined && value > 0 && value < least)
    return `${value} is too small. Use 0, or at least ${least.toFixed(9)}.`;
  if (Object.is(value, -0)) return "-0 isn't allowed. Use 0.";
  if (whole && !Number.isInteger(value)) return `${value} isn't a whole number.`;
  if (value < min || value > max) return `${value} is outside the range ${min} to ${max}.`;
  if (places !== undefined && Number(value.toFixed(places)) !== value)
    return `${value} has more than ${places} decimal places.`;
  return null;
}

export const numberColumn = (
  name: string,
  { whole, max }: Pick<NumberRules, "whole" | "max">,
  nullable: boolean,
): Column => ({
  name: snake(name),
  type: whole ? (max > 2 ** 31 - 1 ? "bigint" : "integer") : "double precision",
  nullable,
});

export const numberSchema = (
  { min, max, whole }: NumberRules,
  optional: boolean,
  initial: number | null,
): JsonSchema => {
  const type = whole ? "integer" : "number";
  return {
    type: optional ? [type, "null"] : type,
    minimum: min,
    maximum: max,
    ...(initial === null ? {} : { default: initial }),
  };
};

export function number(rules: NumberRules & { readonly optional: true }): Field<number | null>;
export function number(rules: NumberRules): Field<number>;
export function number({ optional, ...rules }: NumberRules & { optional?: boolean }): Field<number | null> {
  const { min, max, whole, percent, least, places, initial: start, ...options } = rules;
  const initial = optional ? null : (start ?? Math.max(min, 0));
  return {
    ...plain,
    type: "number",
    options,
    initial,
    bundleInitial: initial,
    numeric: true,
    bounds: { min, max, whole },
    check(value, to) {
      if (value === null && optional) return;
      const message = numberProblem(value, rules);
      if (message) to.fault("", message);
    },
    toBundle: (value) => (value === initial ? undefined : value),
    fromBundle: (value) => value,
    schema: () => numberSchema(rules, optional === true, initial),
    format: (value, { numbers }) =>
      value === null ? "" : percent ? `${written(toPercent(value), numbers)}%` : written(value, numbers),
    parse(typed, { numbers, ticksPerSecond }) {
      if (typed === "") return optional ? { value: null } : min <= 0 ? { value: 0 } : { message: "Enter a number." };
      return typedNumber(typed, { format: numbers, unit: options.unit, percent, ticksPerSecond });
    },
    say: (value) => (value === null ? "nothing" : percent ? sayPercent(value) : sayQuantity(value)),
    stored: (name, shape) => cell(numberColumn(name, rules, optional === true), shape),
  };
}
