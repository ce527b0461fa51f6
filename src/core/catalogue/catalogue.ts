/** A catalogue: all records of a pantry at one revision. Never changed in place; a change makes the next one. */
import { type AnyRecord, type Kind, KINDS, type Pantry, type RecordOf } from "../kinds/index";
import type { NumberFormat } from "../numbers/decimal";
import type { Id } from "../schema/id";
import { type BinaryParts, BinaryRecords } from "./binary-records";
import { PersistentMap } from "./persistent-map";

export type Records = { readonly [K in Kind]: PersistentMap<RecordOf<K>> };
export interface Catalogue {
  readonly revision: number;
  readonly pantry: Pantry;
  readonly records: Records;
  /** How whoever looks at it types and reads numbers; absent: as files have them. */
  readonly numbers?: NumberFormat;
}

const byKind = <T>(make: (kind: Kind) => T): { [K in Kind]: T } =>
  Object.fromEntries(KINDS.map((kind) => [kind, make(kind)])) as { [K in Kind]: T };

export const emptyCatalogue = (pantry: Pantry): Catalogue => ({
  revision: 0,
  pantry,
  records: byKind(() => new PersistentMap()) as unknown as Records,
});

/** A catalogue of records that come by kind. */
export const catalogueOf = (revision: number, pantry: Pantry, of: (kind: Kind) => readonly AnyRecord[]): Catalogue => ({
  revision,
  pantry,
  records: byKind((kind) => PersistentMap.of(kind, of(kind))) as unknown as Records,
});

/** The same catalogue but for the records of some kinds. */
export const withRecords = (catalogue: Catalogue, records: Partial<Records>): Catalogue => ({
  ...catalogue,
  records: { ...catalogue.records, ...records },
});

/** A catalogue as plain data, to be sent to another thread or window. */
export interface Packed {
  readonly revision: number;
  readonly pantry: Pantry;
  readonly records: { readonly [K in Kind]: readonly RecordOf<K>[] | BinaryParts };
}
/** @param bytes  whether records that are bytes stay so; what is written as text must not be */
export const packed = (catalogue: Catalogue, { bytes }: { readonly bytes: boolean }): Packed => ({
  revision: catalogue.revision,
  pantry: catalogue.pantry,
  records: byKind((kind) => {
    const records = recordsOf(catalogue, kind);
    return (bytes && records.binary?.parts()) || [...records.values()];
  }) as unknown as Packed["records"],
});
export const unpacked = ({ revision, pantry, records }: Packed): Catalogue => ({
  revision,
  pantry,
  records: byKind((kind) => {
    const given = records[kind] as readonly AnyRecord[] | BinaryParts;
    return "pages" in given
      ? new PersistentMap<AnyRecord>(BinaryRecords.of(given))
      : PersistentMap.of<AnyRecord>(kind, given);
  }) as unknown as Records,
});

/** The records of one kind; the type follows the kind. */
export const recordsOf = <K extends Kind>(catalogue: Catalogue, kind: K): PersistentMap<RecordOf<K>> =>
  catalogue.records[kind] as unknown as PersistentMap<RecordOf<K>>;

export const recordAt = (catalogue: Catalogue, kind: Kind, id: Id): AnyRecord | undefined =>
  (catalogue.records[kind] as ReadonlyMap<Id, AnyRecord>).get(id);

/** The name of a record, or a placeholder that can't be mistaken for one. */
export const nameOf = (catalogue: Catalogue, kind: Kind, id: Id): string =>
  recordAt(catalogue, kind, id)?.name ?? `(removed: ${id})`;
