/** JSON, and JSON Schema as far as it is written here. */

export type Json = string | number | boolean | null | Json[] | { [name: string]: Json };
export type JsonObject = { [name: string]: Json };

/** A plain object as JSON has them. */
export const isPlain = (value: unknown): value is { readonly [name: string]: unknown } =>
  typeof value === "object" && value !== null && !Array.isArray(value);

/** The same JSON value, whatever the order of its members. */
export function same(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== "object" || typeof b !== "object" || !a || !b || Array.isArray(a) !== Array.isArray(b)) return false;
  const names = Object.keys(a);
  if (names.length !== Object.keys(b).length) return false;
  return names.every(
    (name) =>
      Object.hasOwn(b, name) && same((a as Record<string, unknown>)[name], (b as Record<string, unknown>)[name]),
  );
}

/** Part of a JSON Schema (draft 2020-12). */
export type JsonSchema = { readonly [keyword: string]: unknown };

/** Named parts of one JSON Schema document. */
export interface Definitions {
  /** @returns a reference to the definition of this name, made on first use */
  define(name: string, make: () => JsonSchema): JsonSchema;
}
