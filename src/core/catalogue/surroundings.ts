/** What fields ask of the records around them, answered by a catalogue. */
import { type AnyRecord, isKind, type Kind } from "../kinds/index";
import { NameBook } from "../notation/book";
import type { Names, Surroundings } from "../schema/field";
import { type Catalogue, nameOf, recordAt, recordsOf } from "./catalogue";
import type { Index } from "./persistent-map";

const NAMES: Index<AnyRecord, NameBook> = {
  build: (records) => new NameBook(records.values()),
  follow(book, _, changes) {
    for (const id of changes.keys()) book.take(id);
    for (const record of changes.values()) if (record) book.put(record);
    return book;
  },
};

/** Names of the records of a kind, kept up to date from change to change. */
export const namesOf = (catalogue: Catalogue, kind: Kind): NameBook => recordsOf(catalogue, kind).index(NAMES as never);

const NO_NAMES: Names = new NameBook([]);

export function around(catalogue: Catalogue): Surroundings {
  return {
    ticksPerSecond: catalogue.pantry.ticksPerSecond,
    numbers: catalogue.numbers,
    has: (kind, id) => isKind(kind) && recordAt(catalogue, kind, id) !== undefined,
    nameOf: (kind, id) => (isKind(kind) ? nameOf(catalogue, kind, id) : id),
    names: (kind) => (isKind(kind) ? namesOf(catalogue, kind) : NO_NAMES),
    record: (kind, id) => (isKind(kind) ? recordAt(catalogue, kind, id) : undefined),
  };
}
