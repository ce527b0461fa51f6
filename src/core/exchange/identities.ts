/** Which record each row of a bundle is: its key, name and id, before anything refers to it. */
import { type Catalogue, recordAt, recordsOf } from "../catalogue/catalogue";
import { keyIndex } from "../catalogue/keys";
import { type Kind, kindWord } from "../kinds/index";
import { shown } from "../schema/characters";
import { type Id, newId } from "../schema/id";
import type { JsonObject } from "../schema/json";
import { normalise, KeyAllocator, keyFrom } from "../schema/names";
import type { Row } from "./format";
import type { Report } from "./report";

export interface Identity {
  readonly id: Id;
  readonly name: string;
  readonly key: string;
}

/** "coarse_salt" → "Coarse salt". */
export const sentence = (key: string): string => {
  const words = key.replace(/_/g, " ").trim();
  return words.charAt(0).toUpperCase() + words.slice(1);
};

/** By normalised key. Records are matched by key; rows without one by their name. Sets key and name of every row. */
export function identify(
  catalogue: Catalogue,
  kind: Kind,
  rows: readonly Row[],
  report: Report,
): Map<string, Identity> {
  const index = keyIndex(catalogue, kind);
  const found = new Map<string, Identity>();
  const keep = (row: JsonObject, key: string, name: string) => {
    Object.assign(row, { key, name });
    found.set(normalise(key), { id: index.get(normalise(key)) ?? newId(), name, key });
  };
  const keyless: { row: JsonObject; name: string }[] = [];
  for (const { row, place } of rows) {
    const wrong = ["key", "name"].filter((field) => Object.hasOwn(row, field) && typeof row[field] !== "string");
    for (const field of wrong) report.error(`${place}.${field}`, `Expected text, not ${shown(row[field])}.`);
    if (wrong.length) continue;
    const given = row.key as string | undefined;
    const there = given ? recordAt(catalogue, kind, index.get(normalise(given)) ?? ("" as Id)) : undefined;
    const name = (row.name as string | undefined) ?? there?.name ?? (given ? sentence(given) : "");
    if (!name) report.error(place, `A ${kindWord(kind)} needs a "key" or a "name".`);
    else if (given === undefined) keyless.push({ row, name });
    else if (found.has(normalise(given)))
      report.error(
        `${place}.key`,
        `The key ${shown(given)} stands here twice. Keys are unique within a kind, ignoring case and “_”.`,
      );
    else keep(row, given, name);
  }
  if (keyless.length) identifyByName(catalogue, kind, keyless, found, keep);
  return found;
}

/**
 * Rows without a key are the pantry's record of the same name whose key is made of it; where there is none, they get a
 * key that is free.
 */
function identifyByName(
  catalogue: Catalogue,
  kind: Kind,
  rows: readonly { row: JsonObject; name: string }[],
  found: ReadonlyMap<string, unknown>,
  keep: (row: JsonObject, key: string, name: string) => void,
): void {
  const index = keyIndex(catalogue, kind);
  const byName = new Map<string, string[]>();
  for (const { name, key } of recordsOf(catalogue, kind).values()) {
    const made = keyFrom(name, kind);
    if (key !== made && !(key.startsWith(`${made}_`) && /^\d+$/.test(key.slice(made.length + 1)))) continue;
    const same = byName.get(normalise(name));
    if (same) same.push(key);
    else byName.set(normalise(name), [key]);
  }
  for (const keys of byName.values()) keys.sort((a, b) => b.length - a.length || (a < b ? 1 : -1));
  const free = new KeyAllocator((normalised) => found.has(normalised) || index.has(normalised));
  for (const { row, name } of rows) {
    let key = byName.get(normalise(name))?.pop();
    while (key !== undefined && found.has(normalise(key))) key = byName.get(normalise(name))?.pop();
    keep(row, key ?? free.next(keyFrom(name, kind)), name);
  }
}
