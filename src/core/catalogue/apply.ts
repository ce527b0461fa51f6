/** Applying edits: the only way one catalogue becomes another. */
import { type AnyRecord, completed, definition, type Kind, kindWord, type Pantry, type Subject } from "../kinds/index";
import { cut, shown } from "../schema/characters";
import type { Id } from "../schema/id";
import { same } from "../schema/json";
import { LONGEST_KEY } from "../schema/limits";
import { pathOf, valueAt, withValue } from "../schema/record";
import { type Catalogue, recordAt, type Records } from "./catalogue";
import { ownIssues, stillReferred, takenKeys, treeIssues } from "./constraints";
import { type Edit, fieldWord, type Value } from "./edit";
import type { PersistentMap } from "./persistent-map";
import { issuesOf, type RecordIssue, recordIssue } from "./rules";

/** Someone else was quicker: both values, so that a person can decide. */
export interface Conflict {
  readonly kind: Subject;
  readonly id: Id;
  readonly name: string;
  readonly field: string;
  readonly base: Value;
  readonly yours: Value;
  readonly theirs: Value;
  readonly message: string;
}

export type ApplyResult =
  | { readonly ok: true; readonly catalogue: Catalogue; readonly edits: readonly Edit[] }
  | { readonly ok: false; readonly issues: readonly RecordIssue[]; readonly conflicts: readonly Conflict[] };

/** Most faults and conflicts of one change that are told. */
const TOLD = 200;

/** What edits do, as far as they were gone through. */
class Staging {
  readonly issues: RecordIssue[] = [];
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
      this.add({ ...given, record: completed(given.kind, given.record as never) as AnyRecord });
    else this.remove({ ...given, record: completed(given.kind, given.record as never) as AnyRecord });
  }

  private add(edit: Extract<Edit, { op: "add" }>): void {
    const { kind, record } = edit;
    const there = this.read(kind, record.id);
    if (!there) this.write(edit, kind, record.id, record);
    else if (!same(there, record))
      this.issues.push(
        recordIssue(
          kind,
          record.id,
          cut(String(record.key), LONGEST_KEY),
          "id",
          `A ${kindWord(kind)} with this id exists already.`,
        ),
      );
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
        `${there.name} was changed since you last saw it, so it wasn't removed.`,
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
    const path = pathOf(definition(kind), field);
    if (!path) {
      this.issues.push(recordIssue(kind, id, "", cut(field, 60), `A ${kindWord(kind)} has no field ${shown(field)}.`));
      return;
    }
    const there = kind === "pantry" ? (id === this.pantry.id ? this.pantry : undefined) : this.read(kind, id);
    if (!there && kind === "pantry")
      this.issues.push(recordIssue(kind, id, "", "id", "These settings belong to another pantry. Reload this one."));
    else if (!there)
      this.conflict(edit, id, "", field, from, to, null, `This ${kindWord(kind)} was removed by someone else.`);
    else {
      const value = valueAt(there, path) as Value;
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
          `Someone else changed ${fieldWord(this.before, kind, field)} of ${there.name} first.`,
        );
        return;
      }
      const after = withValue(there as AnyRecord, path, to);
      if (kind !== "pantry") this.write(edit, kind, id, after as AnyRecord);
      else {
        this.pantry = after as object as Pantry;
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
    message: string,
  ): void {
    this.conflicts.push({ kind: edit.kind, id, name, field, base, yours, theirs, message });
  }

  get told(): number {
    return this.issues.length + this.conflicts.length;
  }
}

/**
 * Applies edits in order, all or none. Edits to fields that no one touched since `from` was read merge silently; an
 * edit
 * whose value stands there already is dropped; any other mismatch is a conflict. Values and records may come from
 * outside as
 * they are: everything that was written is held to the rules. (What stands around them, see shape.ts.)
 * @returns the next catalogue (revision + 1) and the edits that had an effect
 */
export function apply(catalogue: Catalogue, edits: readonly Edit[]): ApplyResult {
  const staging = new Staging(catalogue);
  const { issues, conflicts, done, written, removed } = staging;
  for (const edit of edits) {
    staging.take(edit);
    if (staging.told > TOLD) break;
  }
  const records = { ...catalogue.records } as { [K in Kind]: PersistentMap<AnyRecord> };
  for (const [kind, changes] of written) records[kind] = records[kind].with(changes);
  const next: Catalogue = {
    ...catalogue,
    revision: catalogue.revision + 1,
    pantry: staging.pantry,
    records: records as unknown as Records,
  };
  if (next.pantry !== catalogue.pantry) issues.push(...issuesOf(next, "pantry", next.pantry, catalogue.pantry));
  for (const [kind, changes] of written)
    for (const [id, record] of changes) {
      if (record && staging.told <= TOLD) issues.push(...issuesOf(next, kind, record, recordAt(catalogue, kind, id)));
    }
  // What is looked up by key, by parent or by reference is only looked up once every value has its shape.
  if (!staging.told)
    issues.push(
      ...takenKeys(catalogue, next, written),
      ...treeIssues(next, written),
      ...stillReferred(next, removed),
      ...ownIssues(catalogue, next, written),
    );
  if (staging.told) return { ok: false, issues: issues.slice(0, TOLD), conflicts: conflicts.slice(0, TOLD) };
  for (const [kind, changes] of written)
    records[kind].adoptIndexes(catalogue.records[kind] as PersistentMap<AnyRecord>, changes);
  return { ok: true, catalogue: next, edits: done };
}
