/** What a kind of record is: its fields, and what is special about it. */
import { copier } from "./copier";
import type { ByteReader, ByteWriter } from "./bytes";
import type { Fields, Members, ObjectOf, RowTree, Surroundings, TableShape } from "./field";
import type { Issue } from "./issue";
import type { Id } from "./id";
import { type MemberSet, memberSet } from "./group";
import { key } from "./key";
import { LONGEST_NAME } from "./limits";
import { membersOf } from "./record";
import { text } from "./text";

/** Fields that every record has. */
export const named = {
  key: key({ width: 160 }),
  name: text({ most: LONGEST_NAME, required: true, width: 184 }),
} as const;
export type CommonFields = typeof named;

/** A record as one line of text, for kinds that can be written so. */
export interface Notation {
  /** Members of a bundle that the line stands for. */
  readonly coveredFields: readonly string[];
  read(line: string, around: Surroundings, make: (name: string, kind: "item" | "tag") => Id): NotationRead;
}
export interface NotationRead {
  /** Fields of the record, its name among them; null where the line can't be read. */
  readonly fields: Readonly<Record<string, unknown>> | null;
  /** Paths are within the line: "column 4". */
  readonly issues: readonly Issue[];
}

export interface Definition<N extends string, F extends Fields> {
  readonly name: N;
  /** Name of its list in a bundle. */
  readonly section: string;
  /** Name of its table, where that is not the kind's own. */
  readonly table?: string;
  readonly fields: F;
  /** What it is, in one sentence, for the screen. */
  readonly help?: string;
  /** A record that is made where someone types a name that is new; absent: none is. */
  readonly fromName?: Partial<ObjectOf<F>>;
  readonly notation?: Notation;
  /** What holds between its fields; asked only where each is right by itself. */
  rules?(record: ObjectOf<F>, fault: (field: string, message: string) => void): void;
}

/** A kind, and what follows from its fields. */
export interface Kind<N extends string = string, F extends Fields = Fields>
  extends Omit<Definition<N, F & CommonFields>, "rules"> {
  rules?(record: object, fault: (field: string, message: string) => void): void;
  readonly members: MemberSet;
  /** How its fields stand in a bundle, in the order in which they are written. */
  readonly bundle: readonly Members[];
  /** Table of the records, with tables of what each has many of. */
  readonly shape: TableShape;
  toRow(record: { readonly id: Id }): RowTree;
  fromRow(row: RowTree): RecordOf<F>;
  pack(record: { readonly id: Id }, to: ByteWriter): void;
  unpack(id: Id, from: ByteReader): RecordOf<F>;
  /** Every field but key and name as a new record has it. */
  readonly defaults: Omit<ObjectOf<F>, "key" | "name">;
}

export type RecordOf<F extends Fields> = { readonly id: Id } & ObjectOf<F> & ObjectOf<CommonFields>;

export function defineKind<const N extends string, const F extends Fields>(given: Definition<N, F>): Kind<N, F> {
  const fields = { ...named, ...given.fields };
  const members = memberSet(fields, given.name, { id: "" });
  const shape: TableShape = {
    name: given.table ?? given.name,
    columns: [{ name: "id", type: "text", length: 12, nullable: false }],
    parts: [],
    key: "id",
    order: "key",
  };
  const stored = members.stored("", shape);
  const { key: _key, name: _name, ...defaults } = members.initial();
  const blank: { readonly [name: string]: unknown } = { id: "", ...members.initial() };
  const copy = copier();
  const begun = (id: unknown): { [name: string]: unknown } => {
    const record: { [name: string]: unknown } = copy(blank);
    record.id = id;
    return record;
  };
  const kind = {
    ...given,
    fields,
    members,
    bundle: Object.entries(fields).flatMap(([name, field]) => membersOf(name, field) ?? []),
    shape,
    defaults,
    toRow(record: { readonly id: Id }) {
      const row: RowTree = { values: [record.id], parts: [] };
      stored.write(record as never, row);
      return row;
    },
    fromRow: (row: RowTree) => stored.read(row, begun(row.values[0])) as RecordOf<F>,
    pack: (record: { readonly id: Id }, to: ByteWriter) => members.pack(record as never, to),
    unpack(id: Id, from: ByteReader) {
      const record = members.unpack(from);
      record.id = id;
      return record as RecordOf<F>;
    },
  };
  return kind as unknown as Kind<N, F>;
}
