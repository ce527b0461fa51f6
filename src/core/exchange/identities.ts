/** Which record each row of a bundle is: its key, name and id, before anything refers to it. */
import { type Catalogue, recordAt, recordsOf } from "../catalogue/catalogue";
import { keyIndex } from "../catalogue/keys";
import { type Kind, KINDS, kindWord } from "../kinds/index";
import { shown } from "../schema/characters";
import { type Id, RANKS, rankedId } from "../schema/id";
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
    found.set(normalise(key), { id: index.get(normalise(key)) ?? NEW, name, key });
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
        `The key ${shown(given)} appears twice. Keys are unique within a kind, ignoring case and “_”.`,
      );
    else keep(row, given, name);
  }
  if (keyless.length) identifyByName(catalogue, kind, keyless, found, keep);
  const fresh = [...found].filter(([, { id }]) => id === NEW).sort(([a], [b]) => (a < b ? -1 : 1));
  for (const [rank, [normalised, identity]] of fresh.entries())
    found.set(normalised, { ...identity, id: idInOrder(catalogue, kind, rank) });
  return found;
}
/** Stands for an id that is still to be given. */
const NEW = "" as Id;

/** Ranks of each kind, and those of what is only named. */
const OF_A_KIND = RANKS / 36;
const NAMED_FROM = OF_A_KIND / 2;

/**
 * A new id for the record of a kind that comes so far among those of a file. Where two ways are equal the one whose
 * record has the lesser id counts, so that the same file gives the same answers whenever it is read: kinds in their
 * order, records by their keys.
 * @param rank  below 30 million
 */
export function idInOrder(catalogue: Catalogue, kind: Kind, rank: number): Id {
  for (;;) {
    const id = rankedId(KINDS.indexOf(kind) * OF_A_KIND + rank);
    if (!recordAt(catalogue, kind, id)) return id;
  }
}
/** The same for what no row of the file is, in the order in which it is named. */
export const idOfNamed = (catalogue: Catalogue, kind: Kind, nth: number): Id =>
  idInOrder(catalogue, kind, NAMED_FROM + nth);

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
