/** Texts that records are searched by, folded once and kept from change to change. */
import type { AnyRecord, Kind, RecordOf } from "../kinds/index";
import { fold, foldedName } from "../schema/names";
import type { Id } from "../schema/id";
import type { Catalogue } from "./catalogue";
import { recordsOf } from "./catalogue";
import type { Index } from "./persistent-map";

/** Name, key and description; a line break stands between them, so that no text is found across two of them. */
const textOf = (record: AnyRecord): string => {
  const { description } = record as Partial<RecordOf<"item">>;
  return `${foldedName(record)}\n${fold(record.key)}${description ? `\n${fold(description)}` : ""}`;
};

const TEXTS: Index<AnyRecord, Map<Id, string>> = {
  build: (records) => new Map([...records.values()].map((record) => [record.id, textOf(record)])),
  follow(texts, _, changes) {
    for (const [id, record] of changes) {
      if (record) texts.set(id, textOf(record));
      else texts.delete(id);
    }
    return texts;
  },
};

/** The folded texts of all records of a kind. */
export const searchTexts = (catalogue: Catalogue, kind: Kind): ReadonlyMap<Id, string> =>
  recordsOf(catalogue, kind).index(TEXTS as never);
