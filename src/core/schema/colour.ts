/** A field that holds an opaque colour. */
import { shown } from "./characters";
import { cell, type Field, type FieldOptions, plain, snake } from "./field";

const COLOUR = /^#[0-9a-f]{6}$/i;

export const colour = (initial: string, options: FieldOptions = {}): Field<string> => ({
  ...plain,
  type: "colour",
  options: { drawn: "colour", ...options },
  initial,
  bundleInitial: initial,
  check(value, to) {
    if (typeof value !== "string" || !COLOUR.test(value))
      to.fault("", `${shown(value)} isn't an opaque colour. Use six hex digits, such as #2c6e8f.`);
  },
  toBundle: (value) => (value === initial ? undefined : value),
  fromBundle: (value) => value,
  schema: () => ({ type: "string", pattern: "^#[0-9a-fA-F]{6}$", default: initial }),
  format: (value) => value,
  parse(typed) {
    const value = `${typed.startsWith("#") ? "" : "#"}${typed.toLowerCase()}`;
    return COLOUR.test(value)
      ? { value }
      : { message: `“${typed}” isn't a colour. Use six hex digits, such as #2c6e8f.` };
  },
  say: (value) => value,
  stored: (name, shape) => cell({ name: snake(name), type: "text", length: 7, nullable: false }, shape),
});
