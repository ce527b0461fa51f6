/** Changes: the only way one catalogue becomes another. Every edit carries what it replaces, hence its inverse. */
import { type Catalogue, carryKeys, foldKey, keyIndex, nameOf, recordAt, referrersTo, tooDeep } from "./catalogue";
import {
  type AnyRecord,
  complete,
  FIELDS,
  type Id,
  type ItemType,
  type Kind,
  kindWord,
  MOST_DEPTH,
  type Pantry,
  type RecordOf,
} from "./records";
import { type Fault, faultsOf, fieldNamed, isId, pantryFaults } from "./rules";
import type { Shelf } from "./shelf";
import { cut, shown } from "./text";

/** JSON values that fields hold. */
export type Value = string | number | boolean | null | readonly Value[] | { readonly [name: string]: Value };

export type Edit =
  | { readonly op: "add"; readonly kind: Kind; readonly record: AnyRecord }
  | { readonly op: "remove"; readonly kind: Kind; readonly record: AnyRecord }
  /** `field` is a field's name, or "stats.<stat id>" for one stat; null clears a stat. */
  | {
      readonly op: "set";
      readonly kind: Kind | "pantry";
      readonly id: Id;
      readonly field: string;
      readonly from: Value;
      readonly to: Value;
    };

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
  return keys.every(
    (k) => Object.hasOwn(b, k) && same((a as Record<string, unknown>)[k], (b as Record<string, unknown>)[k]),
  );
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
  const [of, name] = field.startsWith("stats.")
    ? [(record as { stats?: object }).stats ?? {}, field.slice(6)]
    : [record, field];
  return Object.hasOwn(of, name) ? ((of as Record<string, Value>)[name] ?? null) : null;
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

const isField = (kind: Kind | "pantry", field: string): boolean =>
  field.startsWith("stats.")
    ? fieldNamed(kind, "stats") !== undefined && isId(field.slice(6))
    : field !== "stats" && fieldNamed(kind, field) !== undefined;

/** Most faults and conflicts of one change that are told. */
const TOLD = 200;

/** What edits do, as far as they were gone through. */
class Draft {
  readonly faults: Fault[] = [];
  readonly conflicts: Conflict[] = [];
  readonly done: Edit[] = [];
  readonly written = new Map<Kind, Map<Id, AnyRecord | undefined>>();
  readonly removed = new Map<Kind, Map<Id, AnyRecord>>();
  pantry: Pantry;

  constructor(readonly before: Catalogue) {
    this.pantry = before.pantry;
  }

  read(kind: Kind, id: Id): AnyRecord | undefined {
    const changes = this.written.get(kind);
    return changes?.has(id) ? changes.get(id) : recordAt(this.before, kind, id);
  }

  private write(edit: Edit, kind: Kind, id: Id, record: AnyRecord | undefined): void {
    const changes = this.written.get(kind);
    if (changes) changes.set(id, record);
    else this.written.set(kind, new Map([[id, record]]));
    this.done.push(edit);
  }

  take(given: Edit): void {
    if (given.op === "set") this.set(given);
    else if (given.op === "add")
      this.add({ ...given, record: complete(given.kind, given.record as never) as AnyRecord });
    else this.remove({ ...given, record: complete(given.kind, given.record as never) as AnyRecord });
  }

  private add(edit: Extract<Edit, { op: "add" }>): void {
    const { kind, record } = edit;
    const there = this.read(kind, record.id);
    if (!there) this.write(edit, kind, record.id, record);
    else if (!same(there, record))
      this.faults.push({
        kind,
        id: record.id,
        key: cut(String(record.key), 90),
        field: "id",
        says: `A ${kindWord(kind)} with this id exists already.`,
      });
  }

  private remove(edit: Extract<Edit, { op: "remove" }>): void {
    const { kind, record } = edit;
    const there = this.read(kind, record.id);
    if (!there) return;
    if (!same(there, record)) {
      this.conflict(
        edit,
        there.id,
        there.name,
        "record",
        null,
        null,
        null,
        `${there.name} was changed since you last saw it, so it was not removed.`,
      );
      return;
    }
    this.write(edit, kind, there.id, undefined);
    const gone = this.removed.get(kind);
    if (gone) gone.set(there.id, there);
    else this.removed.set(kind, new Map([[there.id, there]]));
  }

  private set(edit: Extract<Edit, { op: "set" }>): void {
    const { kind, id, field, from, to } = edit;
    if (!isField(kind, field)) {
      this.faults.push({
        kind,
        id,
        key: "",
        field: cut(field, 60),
        says: `A ${kindWord(kind)} has no field ${shown(field)}.`,
      });
      return;
    }
    const there = kind === "pantry" ? (id === this.pantry.id ? this.pantry : undefined) : this.read(kind, id);
    if (!there && kind === "pantry")
      this.faults.push({
        kind,
        id,
        key: "",
        field: "id",
        says: "These are the settings of another pantry. Read this pantry anew.",
      });
    else if (!there)
      this.conflict(edit, id, "", field, from, to, null, `This ${kindWord(kind)} was removed by somebody else.`);
    else {
      const value = valueAt(there, field);
      if (same(value, to)) return;
      if (!same(value, from)) {
        this.conflict(
          edit,
          id,
          there.name,
          field,
          from,
          to,
          value,
          `Somebody else changed ${fieldWord(this.before, field)} of ${there.name} in the meantime.`,
        );
        return;
      }
      const after = withValue(there, field, to);
      if (kind !== "pantry") this.write(edit, kind, id, after as AnyRecord);
      else {
        this.pantry = after as Pantry;
        this.done.push(edit);
      }
    }
  }

  private conflict(
    edit: Edit,
    id: Id,
    name: string,
    field: string,
    base: Value,
    yours: Value,
    theirs: Value,
    says: string,
  ): void {
    this.conflicts.push({ kind: edit.kind, id, name, field, base, yours, theirs, says });
  }

  get told(): number {
    return this.faults.length + this.conflicts.length;
  }
}

/**
 * Applies edits in order, all or none. Edits to fields that nobody touched since `from` was read merge silently; an
 * edit
 * whose value stands there already is dropped; any other mismatch is a conflict. Values and records may come from
 * outside as
 * they are: everything that was written is held to the rules. (What stands around them, see shape.ts.)
 * @returns the next catalogue (revision + 1) and the edits that had an effect
 */
export function apply(catalogue: Catalogue, edits: readonly Edit[]): Outcome {
  const draft = new Draft(catalogue);
  const { faults, conflicts, done, written, removed } = draft;
  for (const edit of edits) {
    draft.take(edit);
    if (draft.told > TOLD) break;
  }
  const next = { ...catalogue, revision: catalogue.revision + 1, pantry: draft.pantry } as {
    -readonly [K in keyof Catalogue]: Catalogue[K];
  };
  for (const [kind, changes] of written)
    (next as Record<string, unknown>)[kind] = (catalogue[kind] as Shelf<AnyRecord>).with(changes);
  if (next.pantry !== catalogue.pantry) faults.push(...pantryFaults(next, next.pantry, catalogue.pantry));
  for (const [kind, changes] of written)
    for (const [id, record] of changes) {
      if (record && draft.told <= TOLD) faults.push(...faultsOf(next, kind, record, recordAt(catalogue, kind, id)));
    }
  // What is looked up by key, by parent or by reference is only looked up once every value has its shape.
  if (!draft.told)
    faults.push(
      ...takenKeys(catalogue, next, written),
      ...(written.has("type") ? parentFaults(next, written.get("type") ?? new Map()) : []),
      ...stillUsed(next, removed),
    );
  if (draft.told) return { ok: false, faults: faults.slice(0, TOLD), conflicts: conflicts.slice(0, TOLD) };
  for (const [kind, changes] of written) carryKeys(catalogue, next, kind, changes);
  return { ok: true, catalogue: next, edits: done };
}

type Written = ReadonlyMap<Id, AnyRecord | undefined>;

/** Keys that another record has, or that two records of the change have. */
function takenKeys(before: Catalogue, next: Catalogue, written: ReadonlyMap<Kind, Written>): Fault[] {
  const faults: Fault[] = [];
  for (const [kind, changes] of written) {
    const here = new Map<string, Id>();
    for (const [id, record] of changes) {
      if (!record || recordAt(before, kind, id)?.key === record.key) continue;
      const folded = foldKey(record.key);
      const holder = keyIndex(before, kind).get(folded);
      const there = holder === undefined || holder === id ? undefined : recordAt(next, kind, holder);
      if ((there && foldKey(there.key) === folded) || here.has(folded))
        faults.push({
          kind,
          id,
          key: record.key,
          field: "key",
          says: `The key “${record.key}” belongs to another ${kindWord(kind)} already. Choose one that is free, such as ${record.key}_2.`,
        });
      here.set(folded, id);
    }
  }
  return faults;
}

/** Types that would be their own ancestors, or stand too deep. */
function parentFaults(next: Catalogue, written: Written): Fault[] {
  const moved = [...written.values()].filter(
    (r): r is ItemType => r !== undefined && (r as ItemType).parent !== null,
  ) as ItemType[];
  if (!moved.length) return [];
  const deep = tooDeep(next, MOST_DEPTH);
  return moved.flatMap((type): Fault[] => {
    const why = deep.get(type.id);
    if (!why) return [];
    const says =
      why === "circle"
        ? "This would make the type its own ancestor. Choose a type outside its own branch."
        : `A branch of types is at most ${MOST_DEPTH} types deep. Choose a type nearer to its root.`;
    return [{ kind: "type", id: type.id, key: type.key, field: "parent", says }];
  });
}

/** Records that were taken out while others still refer to them. */
function stillUsed(next: Catalogue, removed: ReadonlyMap<Kind, ReadonlyMap<Id, AnyRecord>>): Fault[] {
  const faults: Fault[] = [];
  for (const [kind, records] of removed) {
    const gone = new Map([...records].filter(([id]) => !recordAt(next, kind, id)));
    const users = new Map<Id, string[]>();
    for (const { id, record } of referrersTo(next, kind, gone)) {
      const names = users.get(id);
      if (!names) users.set(id, [record.name]);
      else names.push(record.name);
    }
    for (const [id, names] of users) {
      const { key, name } = gone.get(id) as AnyRecord;
      const who =
        names.length === 1
          ? names[0]
          : `${names.length} records (${names.slice(0, 3).join(", ")}${names.length > 3 ? ", …" : ""})`;
      faults.push({
        kind,
        id,
        key,
        field: "id",
        says: `${name} is still used by ${who}. Take it out there first, or retire it.`,
      });
    }
  }
  return faults;
}

/** A field's name in sentences: "vigour" for a stat, "stack limit" for stack. */
export function fieldWord(catalogue: Catalogue, field: string): string {
  const words: Record<string, string> = {
    stack: "stack limit",
    buy: "buy price",
    sell: "sell price",
    ticks: "time",
    feeCurrency: "fee currency",
    taughtBy: "teaching item",
    ticksPerSecond: "ticks per second",
    labourPerHour: "worth of an hour",
    priceFloor: "price floor",
    salvageCeiling: "salvage ceiling",
  };
  if (field.startsWith("stats.")) return nameOf(catalogue, "stat", field.slice(6) as Id);
  return Object.hasOwn(words, field) ? words[field] : field;
}
