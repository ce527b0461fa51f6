/** A record like another. */
import type { Catalogue } from "../catalogue/catalogue";
import type { AnyRecord, Kind } from "../kinds/index";
import { LONGEST_NAME } from "../schema/limits";
import { newId } from "../schema/id";
import { normalise } from "../schema/names";
import { namesOf } from "../catalogue/surroundings";
import { FreeKeys } from "./new-names";

/** The same record under a name and a key of its own: "River eel 2". */
export function duplicateOf<R extends AnyRecord>(catalogue: Catalogue, kind: Kind, record: R): R {
  const names = namesOf(catalogue, kind);
  const stem = record.name.replace(/ \d+$/, "");
  let n = 2;
  const called = () => `${stem.slice(0, LONGEST_NAME - 1 - String(n).length).trimEnd()} ${n}`;
  while (names.find(called()).found !== "none" || normalise(called()) === normalise(record.name)) n++;
  return { ...record, id: newId(), name: called(), key: new FreeKeys(catalogue).next(kind, called()) };
}
