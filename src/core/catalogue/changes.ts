/** Changes: the only way one catalogue becomes another. Every edit carries what it replaces, hence its inverse. */
import { type Catalogue, nameOf, recordAt, referrers } from "./catalogue";
import { type Fault, faultsOf, pantryFaults } from "./rules";
import type { Shelf } from "./shelf";
import { type AnyRecord, complete, FIELDS, type Id, type Kind, kindWord, PANTRY_FIELDS, type RecordOf } from "./records";

/** JSON values that fields hold. */
export type Value = string | number | boolean | null | readonly Value[] | { readonly [name: string]: Value };

export type Edit =
  | { readonly op: "add"; readonly kind: Kind; readonly record: AnyRecord }
  | { readonly op: "remove"; readonly kind: Kind; readonly record: AnyRecord }
  /** `field` is a field's name, or "stats.<stat id>" for one stat; null clears a stat. */
  | { readonly op: "set"; readonly kind: Kind | "pantry"; readonly id: Id; readonly field: string; readonly from: Value; readonly to: Value };

/** Somebody else was quicker: both values, so that a person can decide. */
export interface Conflict {
  readonly kind: Kind | "pantry";
  readonly id: Id;
  readonly name: string;
  readonly field: string;
  readonly base: Value;
  readonly yours: Value;
  readonly theirs: Value;
  readonly says: string;
}

export type Outcome =
  | { readonly ok: true; readonly catalogue: Catalogue; readonly edits: readonly Edit[] }
  | { readonly ok: false; readonly faults: readonly Fault[]; readonly conflicts: readonly Conflict[] };

/** The same JSON value, whatever the order of its keys. */
export function same(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== "object" || typeof b !== "object" || !a || !b || Array.isArray(a) !== Array.isArray(b)) return false;
  const keys = Object.keys(a);
  if (keys.length !== Object.keys(b).length) return false;
  return keys.every((k) => k in b && same((a as Record<string, unknown>)[k], (b as Record<string, unknown>)[k]));
}

/** The edits that take a change back, in the order in which they must be applied. */
export const invert = (edits: readonly Edit[]): Edit[] =>
  edits
    .map((e): Edit => {
      if (e.op === "add") return { op: "remove", kind: e.kind, record: e.record };
      if (e.op === "remove") return { op: "add", kind: e.kind, record: e.record };
      return { ...e, from: e.to, to: e.from };
    })
    .reverse();

/** The value an edit path points at; null where nothing is said. */
export function valueAt(record: object, field: string): Value {
  if (field.startsWith("stats.")) return (record as { stats?: Record<string, number> }).stats?.[field.slice(6)] ?? null;
  return ((record as Record<string, Value>)[field] ?? null) as Value;
}

function withValue<R extends object>(record: R, field: string, value: Value): R {
  if (!field.startsWith("stats.")) return { ...record, [field]: value };
  const stats = { ...(record as unknown as { stats: Record<string, Value> }).stats };
  if (value === null) delete stats[field.slice(6)];
  else stats[field.slice(6)] = value;
  return { ...record, stats };
}

/** An edit of one field, with the value it replaces read from the catalogue. */
export function setField(catalogue: Catalogue, kind: Kind | "pantry", id: Id, field: string, to: Value): Edit {
  const record = kind === "pantry" ? catalogue.pantry : recordAt(catalogue, kind, id);
  return { op: "set", kind, id, field, from: record ? valueAt(record, field) : null, to };
}

/** The edits that make a record equal to another: one per field that differs. */
export function difference<K extends Kind>(kind: K, before: RecordOf[K], after: RecordOf[K]): Edit[] {
  const edits: Edit[] = [];
  const set = (field: string) => {
    const [from, to] = [valueAt(before, field), valueAt(after, field)];
    if (!same(from, to)) edits.push({ op: "set", kind, id: before.id, field, from, to });
  };
  for (const field of Object.keys(FIELDS[kind])) {
    if (field !== "stats") set(field);
    else {
      const own = (record: RecordOf[K]) => Object.keys((record as unknown as { stats: object }).stats);
      for (const stat of new Set([...own(before), ...own(after)])) set(`stats.${stat}`);
    }
  }
  return edits;
}

const isField = (kind: Kind | "pantry", field: string): boolean => {
  const fields = kind === "pantry" ? PANTRY_FIELDS : FIELDS[kind];
  return field.startsWith("stats.") ? "stats" in fields : field in fields && field !== "stats";
};

/**
 * Applies edits in order, all or none. Edits to fields that nobody touched since `from` was read merge silently; an edit
 * whose value stands there already is dropped; any other mismatch is a conflict.
 * @returns the next catalogue (revision + 1) and the edits that had an effect
 */
export function apply(catalogue: Catalogue, edits: readonly Edit[]): Outcome {
  const faults: Fault[] = [];
  const conflicts: Conflict[] = [];
  const done: Edit[] = [];
  const written = new Map<Kind, Map<Id, AnyRecord | undefined>>();
  const next = { ...catalogue, revision: catalogue.revision + 1 } as { -readonly [K in keyof Catalogue]: Catalogue[K] };
  const read = (kind: Kind, id: Id): AnyRecord | undefined => {
    const changes = written.get(kind);
    return changes?.has(id) ? changes.get(id) : recordAt(catalogue, kind, id);
  };
  const write = (kind: Kind, id: Id, record: AnyRecord | undefined) => {
    const changes = written.get(kind);
    if (changes) changes.set(id, record);
    else written.set(kind, new Map([[id, record]]));
  };
  const touched = new Map<string, { kind: Kind; id: Id }>();
  const removed: { kind: Kind; record: AnyRecord }[] = [];
  const conflict = (edit: Edit, id: Id, name: string, field: string, base: Value, yours: Value, theirs: Value, says: string) =>
    conflicts.push({ kind: edit.kind, id, name, field, base, yours, theirs, says });

  for (const given of edits) {
    const edit = given.op === "set" ? given : { ...given, record: complete(given.kind, given.record as never) as AnyRecord };
    if (edit.op === "add") {
      const there = read(edit.kind, edit.record.id);
      if (there) {
        if (!same(there, edit.record)) faults.push({ kind: edit.kind, id: edit.record.id, key: edit.record.key, field: "id", says: `A ${kindWord(edit.kind)} with this id exists already.` });
        continue;
      }
      write(edit.kind, edit.record.id, edit.record);
      touched.set(edit.kind + edit.record.id, { kind: edit.kind, id: edit.record.id });
      done.push(edit);
    } else if (edit.op === "remove") {
      const there = read(edit.kind, edit.record.id);
      if (!there) continue;
      if (!same(there, edit.record)) {
        conflict(edit, there.id, there.name, "record", null, null, null, `${there.name} was changed since you last saw it, so it was not removed.`);
        continue;
      }
      write(edit.kind, there.id, undefined);
      touched.delete(edit.kind + there.id);
      removed.push({ kind: edit.kind, record: there });
      done.push(edit);
    } else if (!isField(edit.kind, edit.field)) {
      faults.push({ kind: edit.kind, id: edit.id, key: "", field: edit.field, says: `A ${kindWord(edit.kind)} has no field “${edit.field}”.` });
    } else {
      const there = edit.kind === "pantry" ? next.pantry : read(edit.kind, edit.id);
      if (!there) {
        conflict(edit, edit.id, "", edit.field, edit.from, edit.to, null, `This ${kindWord(edit.kind)} was removed by somebody else.`);
        continue;
      }
      const value = valueAt(there, edit.field);
      if (same(value, edit.to)) continue;
      if (!same(value, edit.from)) {
        conflict(edit, edit.id, there.name, edit.field, edit.from, edit.to, value, `Somebody else changed ${fieldWord(catalogue, edit.field)} of ${there.name} in the meantime.`);
        continue;
      }
      const after = withValue(there, edit.field, edit.to);
      if (edit.kind === "pantry") next.pantry = after as Catalogue["pantry"];
      else {
        write(edit.kind, edit.id, after as AnyRecord);
        touched.set(edit.kind + edit.id, { kind: edit.kind, id: edit.id });
      }
      done.push(edit);
    }
  }
  for (const [kind, changes] of written) (next as Record<string, unknown>)[kind] = (catalogue[kind] as Shelf<AnyRecord>).with(changes);
  if (next.pantry !== catalogue.pantry) faults.push(...pantryFaults(next, next.pantry));
  for (const { kind, id } of touched.values()) {
    const record = recordAt(next, kind, id);
    if (record) faults.push(...faultsOf(next, kind, record, recordAt(catalogue, kind, id)));
  }
  for (const { kind, record } of removed) {
    if (recordAt(next, kind, record.id)) continue;
    const users = [...referrers(next, kind, record.id)];
    if (users.length) {
      const names = users.slice(0, 3).map((u) => u.record.name).join(", ");
      faults.push({ kind, id: record.id, key: record.key, field: "id", says: `${record.name} is still used by ${users.length === 1 ? names : `${users.length} records (${names}${users.length > 3 ? ", …" : ""})`}. Take it out there first, or retire it.` });
    }
  }
  return faults.length || conflicts.length ? { ok: false, faults, conflicts } : { ok: true, catalogue: next, edits: done };
}

/** A field's name in sentences: "vigour" for a stat, "stack limit" for stack. */
export function fieldWord(catalogue: Catalogue, field: string): string {
  const words: Record<string, string> = { stack: "stack limit", buy: "buy price", sell: "sell price", ticks: "time", feeCurrency: "fee currency", taughtBy: "teaching item", ticksPerSecond: "ticks per second", labourPerHour: "worth of an hour", priceFloor: "price floor", salvageCeiling: "salvage ceiling" };
  return field.startsWith("stats.") ? nameOf(catalogue, "stat", field.slice(6) as Id) : (words[field] ?? field);
}
