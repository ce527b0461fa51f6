/**
 * A change made ready to be written: what it does to the tables, as texts that can cross threads and go to the database
 * as they are.
 */
import { type Catalogue, recordAt } from "../core/catalogue/catalogue";
import { apply, type ApplyResult } from "../core/catalogue/apply";
import type { Edit } from "../core/catalogue/edit";
import type { ReadPicture } from "../core/exchange/pictures";
import { type AnyRecord, definition, type Kind, KINDS } from "../core/kinds/index";
import type { Id } from "../core/schema/id";
import { copyLine } from "./copy";
import { rowsOf, SETTINGS, TABLES } from "./tables";

/** One statement's worth; lists are JSON. `records`: how many it writes or takes out, for progress. */
export type Write =
  | { readonly do: "settings"; readonly values: string }
  | { readonly do: "remove"; readonly kind: Kind; readonly ids: string; readonly records: number }
  /** Rows of records, and of each of their parts; `kept` are those that stood there before. */
  | {
      readonly do: "put";
      readonly kind: Kind;
      readonly rows: string;
      readonly parts: readonly string[];
      readonly kept: string;
      readonly records: number;
    }
  /** Pictures that a bundle brought. */
  | { readonly do: "pictures"; readonly pictures: readonly ReadPicture[] }
  /** New rows of one table, many at once; see copy.ts. */
  | { readonly do: "copy"; readonly table: string; readonly rows: string; readonly records?: number };

export interface Prepared {
  readonly ok: true;
  /** Number of edits that have an effect; 0: there is nothing to write. */
  readonly size: number;
  /** The first of its edits, EDITS_IN_PART at most; what is more is written beside it. JSON. */
  readonly edits: string;
  /** Ids of the records that these touch. JSON. */
  readonly touched: string;
  /** What the log is to say of it, where that follows from what it does. */
  readonly note?: string;
}
export type Refused = Extract<ApplyResult, { ok: false }>;

/** Edits of a change that the log keeps in one piece. */
export const EDITS_IN_PART = 1_000;
/** Records in one statement. */
const BATCH = 1_000;
const PICTURES_TOGETHER = 16;
/** So many new records of a kind are copied rather than inserted. */
const COPIED = 200;

/** Changes made ready together, each for the revision behind the one before; those that are refused make none. */
export interface Batch {
  readonly answers: readonly (Prepared | Refused)[];
  /** What all of them together do to the tables; made while it is written. */
  readonly writes: Iterable<Write> | AsyncIterable<Write>;
}

/** A change that can be followed once it is committed. */
export interface Made {
  readonly next: Catalogue;
  readonly edits: readonly Edit[];
  /** Pictures that are written with it. */
  readonly pictures?: readonly ReadPicture[];
}

/** @returns what is to be logged, and the catalogue as it will be then; or the refusal */
export function prepare(
  catalogue: Catalogue,
  edits: readonly Edit[],
): { prepared: Prepared; made: Made } | { refused: Refused } {
  const outcome = apply(catalogue, edits);
  if (!outcome.ok) return { refused: outcome };
  return preparedOf({ next: outcome.catalogue, edits: outcome.edits });
}

/** The same of what was applied already. */
export function preparedOf(made: Made): { prepared: Prepared; made: Made } {
  const first = made.edits.slice(0, EDITS_IN_PART);
  return {
    made,
    prepared: {
      ok: true,
      size: made.edits.length,
      edits: JSON.stringify(first),
      touched: JSON.stringify([...new Set(first.map(touchedBy))]),
    },
  };
}
const touchedBy = (edit: Edit): Id => (edit.op === "set" ? edit.id : edit.record.id);

/**
 * What changes, made one behind the other, do to the tables: each record is written once, as it is in the end; and what
 * the log keeps of them beside their first part.
 */
export function* writesOf(before: Catalogue, changes: readonly Made[]): Generator<Write> {
  for (const { pictures = [] } of changes)
    for (const some of batches(pictures, PICTURES_TOGETHER)) yield { do: "pictures", pictures: some };
  if (!changes.length) return;
  const { next } = changes[changes.length - 1];
  const put = new Map<Kind, Set<Id>>();
  const gone = new Map<Kind, Set<Id>>();
  for (const { edits } of changes)
    for (const edit of edits) {
      if (edit.kind === "pantry") continue;
      const id = touchedBy(edit);
      const to = recordAt(next, edit.kind, id) ? put : gone;
      const ids = to.get(edit.kind);
      if (ids) ids.add(id);
      else to.set(edit.kind, new Set([id]));
    }
  if (next.pantry !== before.pantry)
    yield { do: "settings", values: JSON.stringify(SETTINGS.toRow(next.pantry).values) };
  for (const kind of [...KINDS].reverse())
    for (const ids of batches([...(gone.get(kind) ?? [])]))
      yield { do: "remove", kind, ids: JSON.stringify(ids), records: ids.length };
  for (const kind of KINDS) {
    const ids = [...(put.get(kind) ?? [])];
    const added = ids.filter((id) => !recordAt(before, kind, id));
    const copied = added.length >= COPIED;
    for (const part of batches(copied ? added : [])) yield* copiesOf(next, kind, part);
    for (const part of batches(copied ? ids.filter((id) => recordAt(before, kind, id)) : ids))
      yield putOf(before, next, kind, part);
  }
  for (const change of changes) yield* furtherParts(change);
}

function* batches<T>(list: readonly T[], size = BATCH): Generator<readonly T[]> {
  for (let at = 0; at < list.length; at += size) yield list.slice(at, at + size);
}
const recordsAt = (catalogue: Catalogue, kind: Kind, ids: readonly Id[]): AnyRecord[] =>
  ids.map((id) => recordAt(catalogue, kind, id) as AnyRecord);

function* copiesOf(next: Catalogue, kind: Kind, ids: readonly Id[]): Generator<Write> {
  const { name, parts } = TABLES[kind];
  const { id: pantry } = next.pantry;
  const rows = recordsAt(next, kind, ids).map((record) => rowsOf(definition(kind), record));
  const own = rows.map((row) => copyLine([pantry, ...row.own])).join("");
  yield { do: "copy", table: name, rows: own, records: ids.length };
  for (const [k, part] of parts.entries()) {
    const lines = rows.flatMap((row) => row.parts[k].map((values) => copyLine([pantry, ...values])));
    if (lines.length) yield { do: "copy", table: part.name, rows: lines.join("") };
  }
}

function* furtherParts({ next, edits }: Made): Generator<Write> {
  const { revision, pantry } = next;
  const touched = new Set(edits.slice(0, EDITS_IN_PART).map(touchedBy));
  let part = 0;
  for (const some of batches(edits.slice(EDITS_IN_PART), EDITS_IN_PART)) {
    yield { do: "copy", table: "change_part", rows: copyLine([pantry.id, revision, ++part, JSON.stringify(some)]) };
    const more = some.map(touchedBy).filter((id) => !touched.has(id));
    for (const id of more) touched.add(id);
    const rows = [...new Set(more)].map((id) => copyLine([pantry.id, revision, id]));
    if (rows.length) yield { do: "copy", table: "change_touch", rows: rows.join("") };
  }
}

function putOf(before: Catalogue, next: Catalogue, kind: Kind, ids: readonly Id[]): Write {
  const rows = recordsAt(next, kind, ids).map((record) => rowsOf(definition(kind), record));
  const parts = TABLES[kind].parts.map((_, k) => JSON.stringify(rows.flatMap((r) => r.parts[k])));
  const kept = ids.filter((id) => recordAt(before, kind, id));
  return {
    do: "put",
    kind,
    rows: JSON.stringify(rows.map((r) => r.own)),
    parts,
    kept: JSON.stringify(kept),
    records: ids.length,
  };
}
