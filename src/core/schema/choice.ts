/** A field that holds one of a few words. */
import { shown } from "./characters";
import { cell, type Field, type FieldOptions, plain, snake } from "./field";
import { nearest, normalise } from "./names";

interface Rules<T> extends FieldOptions {
  readonly initial?: T;
  /** What a bundle means that says nothing, where that is another one. */
  readonly bundleInitial?: T;
}

/** What is said of a word that is none of those that may be chosen: a part of one is not taken for it. */
export function notAmong(typed: string, of: readonly string[]): string {
  const wanted = normalise(typed);
  const begun = wanted === "" ? [] : of.filter((o) => normalise(o).startsWith(wanted));
  const near = begun.length ? begun.slice(0, 3) : nearest(typed, of);
  return `“${typed}” is none of ${of.join(", ")}.${near.length ? ` Did you mean ${near.join(" or ")}?` : ""}`;
}

export function choice<const T extends string>(
  of: readonly T[],
  rules: Omit<Rules<T>, "initial" | "bundleInitial"> & { readonly optional: true },
): Field<T | null>;
export function choice<const T extends string>(of: readonly T[], rules?: Rules<T>): Field<T>;
export function choice<const T extends string>(
  of: readonly T[],
  { optional, ...rules }: Rules<T> & { optional?: boolean } = {},
): Field<T | null> {
  const first: T | null = optional ? null : of[0];
  const { initial = first, bundleInitial = initial, ...options } = rules;
  const width = of.reduce((most, word) => Math.max(most, word.length), 10);
  return {
    ...plain,
    type: "choice",
    options,
    initial,
    bundleInitial,
    completions: () => of,
    check(value, to) {
      if (value === null && optional) return;
      if (!of.includes(value as T)) to.fault("", `${shown(value)} is none of ${of.join(", ")}.`);
    },
    toBundle: (value) => (value === bundleInitial ? undefined : value),
    fromBundle: (value) => value,
    schema: () => ({ enum: optional ? [...of, null] : of, default: bundleInitial }),
    format: (value) => value ?? "",
    parse(typed) {
      const wanted = normalise(typed);
      if (wanted === "" && optional) return { value: null };
      const found = of.find((o) => normalise(o) === wanted);
      return found ? { value: found } : { says: notAmong(typed, of) };
    },
    say: (value) => value ?? "nothing",
    pack: (value, to) => to.whole(value === null ? 0 : of.indexOf(value) + 1),
    unpack: (from) => of[from.whole() - 1] ?? null,
    stored: (name, shape) =>
      cell({ name: snake(name), type: "text", length: width, nullable: optional === true }, shape),
  };
}
