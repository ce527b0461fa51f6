/** A field that holds a record's key. */
import { shown } from "./characters";
import { cell, type Field, type FieldOptions, plain, snake } from "./field";
import { LONGEST_KEY } from "./limits";

const KEY = /^[a-z0-9]+(_[a-z0-9]+)*$/;
export const isKey = (value: unknown): value is string =>
  typeof value === "string" && value.length <= LONGEST_KEY && KEY.test(value);

export const key = (options: FieldOptions = {}): Field<string> => ({
  ...plain,
  type: "key",
  options,
  initial: "",
  bundleInitial: "",
  check(value, to) {
    if (!isKey(value))
      to.fault(
        "",
        `${shown(value)} isn't a key. Use lower-case letters, digits and single “_” between them, such as coarse_salt.`,
      );
  },
  toBundle: (value) => value,
  fromBundle: (value) => value,
  schema: () => ({ type: "string", pattern: KEY.source, maxLength: LONGEST_KEY }),
  format: (value) => value,
  parse: (value) => ({ value }),
  say: (value) => value || "nothing",
  stored: (name, shape) => cell({ name: snake(name), type: "text", length: LONGEST_KEY, nullable: false }, shape),
});
