/** A field that holds yes or no. */
import { shown } from "./characters";
import { cell, type Field, type FieldOptions, plain, snake } from "./field";

const WORDS = new Map([
  ...["yes", "y", "true", "on", "1"].map((word) => [word, true] as const),
  ...["no", "n", "false", "off", "0", ""].map((word) => [word, false] as const),
]);

export const flag = ({ initial = false, ...options }: FieldOptions & { initial?: boolean } = {}): Field<boolean> => ({
  ...plain,
  type: "flag",
  options,
  initial,
  bundleInitial: initial,
  completions: () => ["yes", "no"],
  check(value, to) {
    if (typeof value !== "boolean") to.fault("", `${shown(value)} is neither true nor false.`);
  },
  toBundle: (value) => (value === initial ? undefined : value),
  fromBundle: (value) => value,
  schema: () => ({ type: "boolean", default: initial }),
  format: (value) => (value ? "yes" : "no"),
  parse(typed) {
    const value = WORDS.get(typed.toLowerCase());
    return value === undefined ? { says: `“${typed}” is neither yes nor no.` } : { value };
  },
  say: (value) => (value ? "yes" : "no"),
  stored: (name, shape) => cell({ name: snake(name), type: "boolean", nullable: false }, shape),
});
