/** What a field is. Everything that is done with a field follows from one such object; each field type makes them. */
import type { NumberFormat } from "../numbers/decimal";
import type { ByteReader, ByteWriter } from "./bytes";
import type { Id } from "./id";
import type { Definitions, Json, JsonObject, JsonSchema } from "./json";

/** What a field says of itself whatever its type. */
export interface FieldOptions {
  /** Its name in sentences, where that is not the field's own: "stack limit". */
  readonly label?: string;
  /** Head of its column, where that is not its label. */
  readonly title?: string;
  readonly help?: string;
  /** What it is counted in: "kg". */
  readonly unit?: string;
  /** Items may leave it to their type; then null means "not said here". */
  readonly inheritable?: boolean;
  /** Pixels that its column takes where no one chose otherwise. */
  readonly width?: number;
  /** Its name in a bundle, where that is not the field's own. */
  readonly bundled?: string;
  /** The field that it belongs to: in a bundle and in sentences both are one. */
  readonly within?: string;
  /** What an image of the value is drawn from. */
  readonly drawn?: "icon" | "colour";
}

/** A record that a value refers to. */
export interface Reference {
  readonly kind: string;
  readonly id: Id;
}

/** What is told of every record that something refers to. */
export type Referring = (kind: string, id: Id) => void;
/** The records that something refers to: a value of a field, or the members of a record. */
export function referred<T>(of: { references(value: T, to: Referring): void }, value: T): Reference[] {
  const found: Reference[] = [];
  of.references(value, (kind, id) => found.push({ kind, id }));
  return found;
}

/** Names both ways: from what was typed to a record, and how a record's name is written so that it is read back. */
export interface Names {
  readonly size: number;
  /** Words of the longest name. */
  readonly longest: number;
  find(
    typed: string,
  ):
    | { readonly found: "one"; readonly id: Id; readonly name: string }
    | { readonly found: "none" }
    | { readonly found: "several"; readonly keys: string[] };
  /** As a recipe line writes it: its name or its key, quoted where it must be. */
  written(id: Id): string;
  /** The same alone in a cell, never quoted. */
  text(id: Id): string;
  keyOf(id: Id): string;
  names(): Iterable<string>;
  /** Names near one that was typed. */
  near(typed: string): readonly string[];
}

/** The records around a value, as far as a field asks for them. */
export interface Surroundings {
  readonly ticksPerSecond: number;
  /** How numbers are typed and shown here; absent: with a point for decimals, as in files and lists. */
  readonly numbers?: NumberFormat;
  has(kind: string, id: Id): boolean;
  /** A placeholder that can't be mistaken for a name where there is no such record. */
  nameOf(kind: string, id: Id): string;
  names(kind: string): Names;
  /** undefined where there is none. */
  record(kind: string, id: Id): object | undefined;
}

/** Within a list, where commas stand between what it holds: numbers have a point there, whoever writes them. */
export const inList = <A extends Surroundings>(around: A): A =>
  around.numbers === undefined ? around : { ...around, numbers: undefined };

/** Where typed text is read: names that are new may become records. */
export interface Typing extends Surroundings {
  /** @returns the id of a record that is made of this name; null: records of this kind are not made by typing a name */
  make(kind: string, name: string): Id | null;
  /** The record of a name that is written together with what is typed; absent or null: there is none. */
  coming?(kind: string, name: string): Id | null;
}
export type Typed<T> = { readonly value: T } | { readonly message: string };

/** Where the rules report: a path within the field ("" for the field itself), and what would work. */
export interface Checking {
  has(kind: string, id: Id): boolean;
  fault(path: string, message: string): void;
}

/** Where a bundle is written. */
export interface BundleWriting {
  readonly ticksPerSecond: number;
  keyOf(kind: string, id: Id): string;
}

/** Where a bundle is read: places are told as "items[3].stats.vigour". */
export interface BundleReading {
  readonly ticksPerSecond: number;
  fault(place: string, message: string): void;
  /** Reports a member that is not known here, with those that are. */
  unknown(place: string, name: string, known: readonly string[]): void;
  /** The record of a key; reports and gives null where there is none. Items that exist nowhere become stubs. */
  reference(kind: string, key: Json | undefined, place: string): Id | null;
}

/** How a field stands in a record of a bundle where it is not one member of its own. */
export interface Members {
  /** What all of it is called in places. */
  readonly called: string;
  readonly names: readonly string[];
  out(record: Readonly<Record<string, unknown>>, to: BundleWriting): JsonObject;
  /** @returns fields of the record; may keep the `before`, whose order of what has no order is then kept */
  in(
    row: JsonObject,
    place: string,
    from: BundleReading,
    before: Readonly<Record<string, unknown>> | undefined,
  ): object;
  schema(defs: Definitions): { readonly [name: string]: JsonSchema };
}

/** What the store keeps in a cell. */
export type Scalar = string | number | boolean | null;
export type SqlType = "text" | "boolean" | "integer" | "bigint" | "double precision";
export interface Column {
  readonly name: string;
  readonly type: SqlType;
  /** Most characters of a text; absent: any number. */
  readonly length?: number;
  readonly nullable: boolean;
  /** Kind that the column refers to. */
  readonly to?: string;
  /** What it holds for the field's initial value. */
  readonly initial?: Scalar;
}
/** A row, and the rows of its own tables (one list for each, in the order of `TableShape.parts`). */
export interface RowTree {
  readonly values: Scalar[];
  readonly parts: RowTree[][];
}
/** A table for what a record has many of, or the record's own. */
export interface TableShape {
  /** Name within its owner: "line" of a recipe. */
  readonly name: string;
  readonly columns: Column[];
  readonly parts: TableShape[];
  /** The column that tells its rows apart within the owner's. */
  readonly key: string;
  /** The column its rows are in order of. */
  readonly order: string;
}
/** How a value goes into a row and comes out of it; its columns and tables were added to the shape when this was made. */
export interface Stored<T> {
  write(value: T, row: RowTree): void;
  read(row: RowTree): T;
}

/** An independently edited part of a value: a stat of an item. */
export interface Parts<T> {
  isPart(name: string): boolean;
  names(value: T): string[];
  /** null where nothing is said. */
  get(value: T, name: string): unknown;
  with(value: T, name: string, part: unknown): T;
  /** What any part is, as far as it is the same for all. */
  readonly of: Field;
  /** What one part is, for typing and words. */
  each(around: Surroundings, name: Id): Field;
  /** Kind of the record a part is named after. */
  readonly kind: string;
}

/** A group in few words; `said` gives those of a member, "" where it is as it was at first. */
export type Brief = (said: (name: string) => string, value: Readonly<Record<string, unknown>>) => string;

/** What a value is made of, for forms. */
export type Inner =
  | { readonly is: "list"; readonly of: Field; readonly noun: string }
  | { readonly is: "group"; readonly fields: Fields; readonly brief?: Brief }
  | { readonly is: "union"; readonly variants: { readonly [word: string]: Fields } };

export interface Field<T = unknown> {
  readonly type: string;
  readonly inner?: Inner;
  /** Members of each entry, of a list that is not written as a form. */
  readonly entry?: Fields;
  /**
   * Of a value that holds edits: the same with every value in it as `map` gives it.
   * @param map  is told the field and, for one part of it, the part
   */
  edited?(value: T, map: (field: Field, part: Id | null, value: unknown) => unknown): T;
  readonly options: FieldOptions;
  /** What a new record has. */
  readonly initial: T;
  /** What a record of a bundle has that does not say; most often the same. */
  readonly bundleInitial: T;
  /** How deep its values go: 0 for what is no list or object. */
  readonly depth: number;
  /** Nothing can stand for it where it is not said. */
  readonly needed?: boolean;
  /** Ordered as numbers, written to the right. */
  readonly numeric: boolean;
  /** What a number may be; absent where it is none. */
  readonly bounds?: { readonly min: number; readonly max: number; readonly whole?: boolean };
  /** Names that complete what is typed; absent where it takes no names. */
  completions?(around: Surroundings): readonly string[];
  /** Holds a value from anywhere to the rules; reports whatever keeps it from being written. */
  check(value: unknown, to: Checking): void;
  /** Tells every record that the value refers to. */
  references(value: T, to: Referring): void;
  /** The value that refers to one record of a kind wherever this one refers to another; what would stand twice stands once. */
  relink(value: T, kind: string, from: Id, to: Id): T;
  /** Kinds that it may refer to. */
  readonly targets: readonly string[];
  readonly parts?: Parts<T>;
  /** undefined: it is left out. */
  toBundle(value: T, to: BundleWriting): Json | undefined;
  fromBundle(value: Json, place: string, from: BundleReading, before: T | undefined): unknown;
  /** @param name  the field's */
  members?(name: string): Members;
  schema(defs: Definitions): JsonSchema;
  /** The text that `parse` reads back as the same value. */
  format(value: T, around: Surroundings): string;
  parse(text: string, typing: Typing): Typed<T>;
  /** The value in sentences; "nothing" where there is none. */
  say(value: T, around: Surroundings): string;
  /** What became of it, where that is better said than as one value and another. */
  sayChange?(from: unknown, to: unknown, around: Surroundings): string;
  /** As bytes in memory, read again by the same field. */
  pack(value: T, to: ByteWriter): void;
  unpack(from: ByteReader): T;
  stored(name: string, shape: TableShape): Stored<T>;
}

export type Fields = { readonly [name: string]: Field };
export type ValueOf<F extends Field> = F["initial"];
type Optional<F extends Fields> = { [N in keyof F]: undefined extends ValueOf<F[N]> ? N : never }[keyof F];
/** The object whose members are values of these fields; what may be undefined may be absent. */
export type ObjectOf<F extends Fields> = { readonly [N in Exclude<keyof F, Optional<F>>]: ValueOf<F[N]> } & {
  readonly [N in Optional<F>]?: Exclude<ValueOf<F[N]>, undefined>;
};

/** "feeCurrency" → "fee_currency". */
export const snake = (name: string): string =>
  name.replace(/[A-Z]/g, (c) => `_${c.toLowerCase()}`).replaceAll(" ", "_");

/** A column for a value that is one cell. */
export function cell<T extends Scalar>(column: Column, shape: TableShape): Stored<T> {
  const at = shape.columns.push(column) - 1;
  return {
    write: (value, row) => {
      row.values[at] = value;
    },
    read: (row) => row.values[at] as T,
  };
}

/** What fields have in common whose value is one cell, stored and packed as it is, without references. */
export const plain = {
  depth: 0,
  numeric: false,
  references: () => undefined,
  relink: (value: unknown) => value as never,
  targets: [],
  pack: (value: unknown, to: ByteWriter) => to.value(value),
  unpack: (from: ByteReader) => from.value() as never,
} as const;
