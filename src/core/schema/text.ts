/** A field that holds a text: a name, one line, or many. */
import { type Field, type FieldOptions, cell, plain, snake } from "./field";
import { textProblem } from "./characters";

interface Rules extends FieldOptions {
  /** Most characters, in UTF-16 units. */
  readonly most: number;
  /** Line breaks are allowed, and spaces where they stand. */
  readonly lines?: boolean;
  readonly required?: boolean;
  /** Most characters of its column; absent: any number. */
  readonly column?: number;
}

export function text(rules: Rules & { readonly optional: true }): Field<string | null>;
export function text(rules: Rules): Field<string>;
export function text({
  most,
  lines,
  required,
  optional,
  column,
  ...options
}: Rules & { optional?: boolean }): Field<string | null> {
  const initial = optional ? null : "";
  return {
    ...plain,
    type: "text",
    options,
    initial,
    bundleInitial: initial,
    check(value, to) {
      if (value === null && optional) return;
      const message = textProblem(value, { max: most, lines, name: !lines });
      if (message) to.fault("", message);
      else if (required && !(value as string).trim()) to.fault("", "Enter a name with at least one letter.");
      else if (!lines && value !== (value as string).trim()) to.fault("", "Remove the spaces at the beginning or end.");
    },
    toBundle: (value) => (value === initial ? undefined : value),
    fromBundle: (value) => value,
    schema: () => ({
      type: optional ? ["string", "null"] : "string",
      ...(required ? { minLength: 1 } : {}),
      maxLength: most,
    }),
    format: (value) => value ?? "",
    parse: (typed) => {
      if (required && typed === "") return { message: "A name can't be empty." };
      return { value: typed === "" ? initial : typed };
    },
    say: (value) => value || "nothing",
    // What says nothing is not packed.
    pack: (value, to) => to.text(value ?? ""),
    unpack: (from) => from.text(),
    stored: (name, shape) =>
      cell(
        { name: snake(name), type: "text", length: lines ? undefined : (column ?? most), nullable: optional === true },
        shape,
      ),
  };
}
