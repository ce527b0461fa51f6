/** Texts that records are searched by, normalised once and kept from change to change. */
import type { AnyRecord, Kind, RecordOf } from "../kinds/index";
import { Haystack } from "../schema/haystack";
import { normalise, normalisedName } from "../schema/names";
import { type Catalogue, recordsOf } from "./catalogue";
import type { Index } from "./persistent-map";

/** Name, key and description; a line break stands between them, so that no text is found across two of them. */
const textOf = (record: AnyRecord): string => {
  const { description } = record as Partial<RecordOf<"item">>;
  return `${normalisedName(record)}\n${normalise(record.key)}${description ? `\n${normalise(description)}` : ""}`;
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

/** The normalised texts of all records of a kind. */
export const searchTexts = (catalogue: Catalogue, kind: Kind): Haystack =>
  recordsOf(catalogue, kind).index(TEXTS as never);
