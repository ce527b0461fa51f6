/** A field that holds yes or no. */
import { shown } from "./characters";
import { cell, type Field, type FieldOptions, plain, snake } from "./field";

const WORDS = new Map([
  ...["yes", "y", "true", "on", "1"].map((word) => [word, true] as const),
  ...["no", "n", "false", "off", "0"].map((word) => [word, false] as const),
]);

interface Rules extends FieldOptions {
  readonly initial?: boolean;
}

export function flag(rules: Rules & { readonly optional: true }): Field<boolean | null>;
export function flag(rules?: Rules): Field<boolean>;
export function flag({
  optional,
  initial: start,
  ...options
}: Rules & { optional?: boolean } = {}): Field<boolean | null> {
  const initial = optional ? null : (start ?? false);
  return {
    ...plain,
    type: "flag",
    options,
    initial,
    bundleInitial: initial,
    completions: () => ["yes", "no"],
    check(value, to) {
      if (value === null && optional) return;
      if (typeof value !== "boolean") to.fault("", `${shown(value)} isn't true or false.`);
    },
    toBundle: (value) => (value === initial ? undefined : value),
    fromBundle: (value) => value,
    schema: () => ({ type: optional ? ["boolean", "null"] : "boolean", default: initial }),
    format: (value) => (value === null ? "" : value ? "yes" : "no"),
    parse(typed) {
      if (typed === "") return { value: optional ? null : false };
      const value = WORDS.get(typed.toLowerCase());
      return value === undefined ? { message: `“${typed}” isn't yes or no.` } : { value };
    },
    say: (value) => (value === null ? "nothing" : value ? "yes" : "no"),
    stored: (name, shape) => cell({ name: snake(name), type: "boolean", nullable: optional === true }, shape),
  };
}
