/** A field that holds a time, in ticks of the game's clock; written as 90s, 1m30s or 1800t. */
import { formatTicks, parseTicks, notADuration } from "../numbers/ticks";
import { cell, type Field, type FieldOptions, plain } from "./field";
import { MOST_TICKS } from "./limits";
import { numberColumn, numberProblem } from "./number";

const rules = { min: 0, max: MOST_TICKS, whole: true };

export function duration(options: FieldOptions & { readonly optional: true }): Field<number | null>;
/** @param options.told  whether no time at all is something to say: it is then written as 0s, not left out */
export function duration(options?: FieldOptions & { readonly told?: boolean }): Field<number>;
export function duration({
  optional,
  told,
  ...options
}: FieldOptions & { optional?: boolean; told?: boolean } = {}): Field<number | null> {
  const initial = optional ? null : 0;
  const leftOut = (value: number | null): value is null => value === null || (value === initial && !told);
  const read = (text: string, ticksPerSecond: number) => parseTicks(text, ticksPerSecond);
  return {
    ...plain,
    type: "duration",
    options,
    initial,
    bundleInitial: initial,
    numeric: true,
    bounds: rules,
    check(value, to) {
      if (value === null && optional) return;
      const message = numberProblem(value, rules);
      if (message) to.fault("", message);
    },
    toBundle: (value, { ticksPerSecond }) => (leftOut(value) ? undefined : formatTicks(value, ticksPerSecond)),
    fromBundle(value, place, { ticksPerSecond, fault }) {
      if (value === null && optional) return null;
      const ticks = typeof value === "number" || typeof value === "string" ? read(String(value), ticksPerSecond) : null;
      if (ticks === null)
        fault(
          place,
          `Expected a duration such as "90s", "1m30s", "1800t" or a number of seconds, in whole ticks (${ticksPerSecond} per second).`,
        );
      return ticks ?? 0;
    },
    schema: (defs) =>
      defs.define("time", () => ({
        description: '"90s", "1m30s", "1800t" (ticks), or a number of seconds.',
        type: optional ? ["string", "number", "null"] : ["string", "number"],
      })),
    format: (value, { ticksPerSecond }) => (leftOut(value) ? "" : formatTicks(value, ticksPerSecond)),
    parse(typed, { ticksPerSecond }) {
      if (typed === "") return { value: initial };
      const ticks = read(typed, ticksPerSecond);
      return ticks === null ? { message: notADuration(typed, ticksPerSecond) } : { value: ticks };
    },
    say: (value, { ticksPerSecond }) => (value === null ? "nothing" : formatTicks(value, ticksPerSecond)),
    stored: (name, shape) => cell(numberColumn(name, rules, optional === true), shape),
  };
}
