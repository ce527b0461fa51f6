/**
 * A change made ready to be written: what it does to the tables, as texts that can cross threads and go to the database
 * as they are.
 */
import { type Catalogue, recordAt } from "../core/catalogue/catalogue";
import { apply, type Outcome } from "../core/catalogue/apply";
import type { Edit } from "../core/catalogue/edit";
import { type AnyRecord, definition, type Kind, KINDS } from "../core/kinds/index";
import type { Id } from "../core/schema/id";
import { rowsOf, SETTINGS, TABLES } from "./tables";

/** One statement's worth; lists are JSON. */
export type Write =
  | { readonly do: "settings"; readonly values: string }
  | { readonly do: "remove"; readonly kind: Kind; readonly ids: string }
  /** Rows of records, and of each of their parts; `kept` are those that stood there before. */
  | {
      readonly do: "put";
      readonly kind: Kind;
      readonly rows: string;
      readonly parts: readonly string[];
      readonly kept: string;
    };

export interface Prepared {
  readonly ok: true;
  /** Number of edits that have an effect; 0: there is nothing to write. */
  readonly size: number;
  readonly edits: string;
  /** Ids of all records that it touches. */
  readonly touched: string;
  /** What the log is to say of it, where that follows from what it does. */
  readonly note?: string;
}
export type Refused = Extract<Outcome, { ok: false }>;

/** Records in one statement. */
const BATCH = 1_000;

/** Changes made ready together, each for the revision behind the one before; those that are refused make none. */
export interface Batch {
  readonly answers: readonly (Prepared | Refused)[];
  /** What all of them together do to the tables. */
  readonly writes: readonly Write[];
}

/** A change that can be followed once it is committed. */
export interface Made {
  readonly next: Catalogue;
  readonly edits: readonly Edit[];
}

/** @returns what is to be logged, and the catalogue as it will be then; or the refusal */
export function prepare(
  catalogue: Catalogue,
  edits: readonly Edit[],
): { prepared: Prepared; made: Made } | { refused: Refused } {
  const outcome = apply(catalogue, edits);
  if (!outcome.ok) return { refused: outcome };
  const { catalogue: next, edits: done } = outcome;
  const touched = [...new Set(done.map((e) => (e.op === "set" ? e.id : e.record.id)))];
  return {
    made: { next, edits: done },
    prepared: { ok: true, size: done.length, edits: JSON.stringify(done), touched: JSON.stringify(touched) },
  };
}

/** One change alone. */
export function batchOf(catalogue: Catalogue, edits: readonly Edit[]): Batch & { readonly next: Catalogue } {
  const result = prepare(catalogue, edits);
  if ("refused" in result) return { answers: [result.refused], writes: [], next: catalogue };
  const { prepared, made } = result;
  return { answers: [prepared], writes: [...writesOf(catalogue, made.next, made.edits)], next: made.next };
}

/** What edits, applied one after the other, do to the tables: each record is written once, as it is in the end. */
export function* writesOf(before: Catalogue, next: Catalogue, edits: readonly Edit[]): Generator<Write> {
  const put = new Map<Kind, Map<Id, AnyRecord>>();
  const gone = new Map<Kind, Set<Id>>();
  for (const edit of edits) {
    if (edit.kind === "pantry") continue;
    const id = edit.op === "set" ? edit.id : edit.record.id;
    const record = recordAt(next, edit.kind, id);
    if (record) put.set(edit.kind, (put.get(edit.kind) ?? new Map()).set(id, record));
    else gone.set(edit.kind, (gone.get(edit.kind) ?? new Set()).add(id));
  }
  if (next.pantry !== before.pantry)
    yield { do: "settings", values: JSON.stringify(SETTINGS.toRow(next.pantry).values) };
  for (const kind of [...KINDS].reverse()) {
    const ids = gone.get(kind);
    if (ids) yield { do: "remove", kind, ids: JSON.stringify([...ids]) };
  }
  for (const kind of KINDS) {
    const records = [...(put.get(kind)?.values() ?? [])];
    for (let at = 0; at < records.length; at += BATCH) yield putOf(before, kind, records.slice(at, at + BATCH));
  }
}

function putOf(before: Catalogue, kind: Kind, records: readonly AnyRecord[]): Write {
  const rows = records.map((record) => rowsOf(definition(kind), record));
  const parts = TABLES[kind].parts.map((_, k) => JSON.stringify(rows.flatMap((r) => r.parts[k])));
  const kept = records.flatMap(({ id }) => (recordAt(before, kind, id) ? [id] : []));
  return { do: "put", kind, rows: JSON.stringify(rows.map((r) => r.own)), parts, kept: JSON.stringify(kept) };
}
