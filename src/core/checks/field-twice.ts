import { fieldsOfKind } from "../catalogue/fields";
import { type Catalogue, recordsOf } from "../catalogue/catalogue";
import type { Edit } from "../catalogue/edit";
import type { Index } from "../catalogue/persistent-map";
import { HOLDERS } from "../kinds/field";
import { type AnyRecord, type Item, kindWord, type OwnField } from "../kinds/index";
import { list } from "../numbers/format";
import type { Id } from "../schema/id";
import { normalise } from "../schema/names";
import type { OwnValue } from "../schema/own-value";
import { perRecord, ref } from "./check";
import { holdersBeside } from "./holders";

type Holder = (typeof HOLDERS)[number];
type Own = Readonly<Record<Id, OwnValue>>;

/** Whether any field is unique. */
const UNIQUE: Index<OwnField, boolean> = {
  build: (fields) => [...fields.values()].some((f) => f.unique),
  follow: () => null,
};

/** A value as it is compared: words without case and spacing; null for what has members of its own. */
const compared = (value: OwnValue): string | null =>
  typeof value === "object" ? null : typeof value === "string" ? normalise(value) : String(value);

/** Records of a kind by field and value. */
class ByValue {
  private readonly ids = new Map<string, Set<Id>>();

  constructor(records: Iterable<AnyRecord>) {
    for (const record of records) this.put(record);
  }
  put(record: AnyRecord): void {
    for (const name of valuesOf(record)) {
      const there = this.ids.get(name);
      if (there) there.add(record.id);
      else this.ids.set(name, new Set([record.id]));
    }
  }
  take(record: AnyRecord): void {
    for (const name of valuesOf(record)) {
      const there = this.ids.get(name);
      there?.delete(record.id);
      if (there?.size === 0) this.ids.delete(name);
    }
  }
  of(field: Id, value: OwnValue): ReadonlySet<Id> {
    const text = compared(value);
    return (text === null ? undefined : this.ids.get(`${field} ${text}`)) ?? NOBODY;
  }
}
const NOBODY: ReadonlySet<Id> = new Set();

/** Field and value of each, as they are looked up. */
function* valuesOf(record: AnyRecord): Generator<string> {
  const { own } = record as AnyRecord & { readonly own: Own };
  for (const [field, value] of Object.entries(own)) {
    const text = compared(value);
    if (text !== null) yield `${field} ${text}`;
  }
}

const BY_VALUE: Index<AnyRecord, ByValue> = {
  build: (records) => new ByValue(records.values()),
  follow(index, before, changes) {
    for (const [id, now] of changes) {
      const then = before.get(id);
      if (then) index.take(then);
      if (now) index.put(now);
    }
    return index;
  },
};
const byValue = (catalogue: Catalogue, kind: Holder): ByValue => recordsOf(catalogue, kind).index(BY_VALUE as never);

/**
 * Others that are named. If there are more, they are neither named nor counted: so a finding stays the same when one more
 * comes or goes, and an edit of one record costs no look at thousands of others.
 */
const NAMED = 3;
/** Characters of a value that are shown. */
const SHOWN = 60;
const shortened = (value: OwnValue): string => {
  const text = String(value);
  return text.length > SHOWN ? `${text.slice(0, SHOWN)}…` : text;
};

interface Touched {
  readonly kind: Holder;
  readonly field: Id;
  readonly value: OwnValue;
  /** How many edits concern it. */
  readonly times: number;
}

/** The values that edits enter or remove, and those of renamed records. */
function valuesTouched(catalogue: Catalogue, edits: readonly Edit[]): Iterable<Touched> {
  const found = new Map<string, Touched>();
  const touch = (kind: Holder, field: string, value: unknown) => {
    if (value === null || value === undefined) return;
    const name = `${kind} ${field} ${compared(value as OwnValue)}`;
    const times = (found.get(name)?.times ?? 0) + 1;
    found.set(name, { kind, field: field as Id, value: value as OwnValue, times });
  };
  for (const edit of edits) {
    const kind = HOLDERS.find((holder) => holder === edit.kind);
    if (!kind) continue;
    if (edit.op === "set" && edit.field.startsWith("own."))
      for (const value of [edit.from, edit.to]) touch(kind, edit.field.slice(4), value);
    else if (edit.op !== "set" || edit.field === "name") {
      const record = edit.op === "set" ? recordsOf(catalogue, kind).get(edit.id) : edit.record;
      for (const [field, value] of Object.entries((record as Partial<Item> | undefined)?.own ?? {}))
        touch(kind, field, value);
    }
  }
  return found.values();
}

/** A value of a field that is to be different for every record, on two or more of them. */
export const fieldTwice = perRecord<Holder>({
  id: "field-twice",
  reads: [],
  per: HOLDERS,
  concerns: ({ records }) => records.field.index(UNIQUE),
  may: (record) => Object.keys(record.own).length > 0,
  *also({ catalogue }, _, edits) {
    yield* holdersBeside(catalogue, edits);
    // Records that share a value that was entered or removed. So many edits concern a group that at most as many have come
    // into it: if it is larger by more than that, it was too large to name anybody before, and what is said stays.
    for (const { kind, field, value, times } of valuesTouched(catalogue, edits)) {
      const ids = byValue(catalogue, kind).of(field, value);
      if (ids.size <= NAMED + 1 + times) yield* ids;
    }
  },
  *at({ catalogue }, record, kind) {
    const { own } = record as AnyRecord & { readonly own: Own };
    for (const field of fieldsOfKind(catalogue, kind)) {
      if (!field.unique || field.of !== kind || !Object.hasOwn(own, field.id)) continue;
      const same = byValue(catalogue, kind).of(field.id, own[field.id]);
      if (same.size < 2) continue;
      const others = same.size > NAMED + 1 ? [] : [...same].filter((id) => id !== record.id).sort();
      const names = others.map((id) => recordsOf(catalogue, kind).get(id)?.name ?? id);
      const whom = names.length ? list(names) : `more than ${NAMED} other ${kindWord(kind, true)}`;
      yield {
        subject: [ref(catalogue, kind, record.id), ref(catalogue, "field", field.id)],
        with: others.map((id) => ref(catalogue, kind, id)),
        message: `${record.name} has the same ${field.name} as ${whom}: ${shortened(own[field.id])}.`,
        evidence: { type: "names", names: [record.name, ...names] },
        fixes: [
          { message: `Open ${record.name} and enter another ${field.name}`, do: "open", kind, id: record.id },
          { message: `Open the ${kindWord("field")} ${field.name}`, do: "open", kind: "field", id: field.id },
        ],
      };
    }
  },
});
