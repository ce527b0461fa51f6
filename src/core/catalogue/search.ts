/** Texts that records are searched by, normalised once and kept from change to change. */
import { type AnyRecord, type Kind, KINDS, type RecordOf } from "../kinds/index";
import { Haystack } from "../schema/haystack";
import type { Id } from "../schema/id";
import { type Fit, NameSearch } from "../schema/name-search";
import { normalise, normalisedName } from "../schema/names";
import { type Catalogue, recordsOf } from "./catalogue";
import type { Index } from "./persistent-map";

/**
 * Name, key, description and the words and numbers of custom fields; a line break separates them, so that no match runs
 * across two of them.
 */
const textOf = (record: AnyRecord): string => {
  const { description, own } = record as Partial<RecordOf<"item">>;
  let text = `${normalisedName(record)}\n${normalise(record.key)}`;
  if (description) text += `\n${normalise(description)}`;
  if (own)
    for (const id in own) {
      const value = own[id as Id];
      if (typeof value === "string" || typeof value === "number") text += `\n${normalise(String(value))}`;
    }
  return text;
};

const TEXTS: Index<AnyRecord, Haystack> = {
  build: (records) => new Haystack([...records.values()].map((record) => [record.id, textOf(record)] as const)),
  follow(texts, _, changes) {
    for (const [id, record] of changes) {
      if (record) texts.put(id, textOf(record));
      else texts.take(id);
    }
    return texts;
  },
};

const NAMES: Index<AnyRecord, NameSearch> = {
  build: (records) => new NameSearch([...records.values()].map(({ id, name }) => [id, name] as const)),
  follow(names, _, changes) {
    for (const [id, record] of changes) {
      if (record) names.put(id, record.name);
      else names.take(id);
    }
    return names;
  },
};

/** A record found by what was typed of its name. */
export interface Found {
  readonly kind: Kind;
  readonly id: Id;
  readonly fit: Fit;
}

/**
 * Records of every kind by what was typed of their names: letters in any case, words in any order, with slips of the pen.
 * The better fit first, items before others, shorter names before longer ones.
 */
export function findRecords(catalogue: Catalogue, typed: string, most: number): Found[] {
  const found = KINDS.flatMap((kind) =>
    [
      ...recordsOf(catalogue, kind)
        .index(NAMES as never as Index<AnyRecord, NameSearch>)
        .search(typed, most),
    ].map(([id, fit]): Found => ({ kind, id, fit })),
  );
  // What is only near is worth nothing beside what fits.
  const best = found.some(({ fit }) => fit < NEAR) ? found.filter(({ fit }) => fit < NEAR) : found;
  const rank = ({ kind, fit }: Found) => fit + (kind === "item" ? 0 : 0.5);
  return best.sort((a, b) => rank(a) - rank(b)).slice(0, most);
}
const NEAR: Fit = 5;

/** The normalised texts of all records of a kind. */
export const searchTexts = (catalogue: Catalogue, kind: Kind): Haystack =>
  recordsOf(catalogue, kind).index(TEXTS as never);
