/** Records by their keys. */
import type { AnyRecord, Kind, RecordOf } from "../kinds/index";
import type { Id } from "../schema/id";
import { normalise } from "../schema/names";
import { type Catalogue, recordsOf } from "./catalogue";
import type { Index } from "./persistent-map";

/** A well-formed key is plain ASCII: taking out the "_" normalisedNames it. */
export const normaliseKey = (key: string): string => key.replaceAll("_", "");

/** Normalised key → id. */
const KEYS: Index<AnyRecord, Map<string, Id>> = {
  build(records) {
    const index = new Map<string, Id>();
    // The first holder of a key keeps it, so that a second one is found out.
    for (const record of records.values()) {
      const key = normaliseKey(record.key);
      if (!index.has(key)) index.set(key, record.id);
    }
    return index;
  },
  follow(index, before, changes) {
    for (const id of changes.keys()) {
      const was = before.get(id);
      if (was && index.get(normaliseKey(was.key)) === id) index.delete(normaliseKey(was.key));
    }
    for (const [id, record] of changes) if (record) index.set(normaliseKey(record.key), id);
    return index;
  },
};

/** Normalised key → id, kept up to date from change to change. */
export const keyIndex = (catalogue: Catalogue, kind: Kind): ReadonlyMap<string, Id> =>
  recordsOf(catalogue, kind).index(KEYS as never);

export const byKey = <K extends Kind>(catalogue: Catalogue, kind: K, key: string): RecordOf<K> | undefined => {
  const id = keyIndex(catalogue, kind).get(normalise(key));
  return id === undefined ? undefined : recordsOf(catalogue, kind).get(id);
};
