/** A field that holds one of a few words. */
import { didYouMean, either } from "../numbers/format";
import { shown } from "./characters";
import { cell, type Field, type FieldOptions, plain, snake } from "./field";
import { nearest, normalise } from "./names";

interface Rules<T extends string> extends FieldOptions {
  readonly initial?: T;
  /** The value of a bundle without this member, where that is not the initial one. */
  readonly bundleInitial?: T;
  /** What a person reads and types in place of a value. */
  readonly words?: { readonly [V in T]?: string };
}

/** The message for a word that is not an option; part of an option is not accepted for it. */
export function notAmong(typed: string, of: readonly string[]): string {
  const wanted = normalise(typed);
  const begun = wanted === "" ? [] : of.filter((o) => normalise(o).startsWith(wanted));
  const near = begun.length ? begun.slice(0, 3) : nearest(typed, of);
  return `“${typed}” isn't an option. Choose ${either(of)}.${didYouMean(near)}`;
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
  const { initial = first, bundleInitial = initial, words, ...options } = rules;
  const word = (value: T): string => words?.[value] ?? value;
  const offered = of.map(word);
  const width = of.reduce((most, word) => Math.max(most, word.length), 10);
  return {
    ...plain,
    type: "choice",
    options,
    initial,
    bundleInitial,
    completions: () => offered,
    check(value, to) {
      if (value === null && optional) return;
      if (!of.includes(value as T)) to.fault("", `${shown(value)} isn't an option. Use ${either(of)}.`);
    },
    toBundle: (value) => (value === bundleInitial ? undefined : value),
    fromBundle: (value) => value,
    schema: () => ({ enum: optional ? [...of, null] : of, default: bundleInitial }),
    format: (value) => (value === null ? "" : word(value)),
    parse(typed) {
      const wanted = normalise(typed);
      if (wanted === "" && optional) return { value: null };
      const found = of.find((o) => normalise(word(o)) === wanted) ?? of.find((o) => normalise(o) === wanted);
      return found ? { value: found } : { message: notAmong(typed, offered) };
    },
    say: (value) => (value === null ? "nothing" : word(value)),
    pack: (value, to) => to.whole(value === null ? 0 : of.indexOf(value) + 1),
    unpack: (from) => of[from.whole() - 1] ?? null,
    stored: (name, shape) =>
      cell({ name: snake(name), type: "text", length: width, nullable: optional === true }, shape),
  };
}
