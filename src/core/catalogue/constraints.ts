/** What must hold between records: free keys, trees without circles, nothing taken out that is still referred to. */
import { type AnyRecord, type Kind, kindWord, type OwnField } from "../kinds/index";
import { capital } from "../numbers/format";
import type { Id } from "../schema/id";
import { same } from "../schema/json";
import type { OwnValue } from "../schema/own-value";
import { type Catalogue, recordAt } from "./catalogue";
import { ownProblem } from "./fields";
import { normaliseKey, keyIndex } from "./keys";
import { referrersTo } from "./references";
import { type RecordIssue, recordIssue } from "./rules";
import { parentOf, tooDeep, treeOf } from "./tree";

export type Written = ReadonlyMap<Id, AnyRecord | undefined>;

/** Keys that another record has, or that two records of the change have. */
export function takenKeys(before: Catalogue, next: Catalogue, written: ReadonlyMap<Kind, Written>): RecordIssue[] {
  const faults: RecordIssue[] = [];
  for (const [kind, changes] of written) {
    const here = new Map<string, Id>();
    for (const [id, record] of changes) {
      if (!record || recordAt(before, kind, id)?.key === record.key) continue;
      const normalised = normaliseKey(record.key);
      const holder = keyIndex(before, kind).get(normalised);
      const there = holder === undefined || holder === id ? undefined : recordAt(next, kind, holder);
      if ((there && normaliseKey(there.key) === normalised) || here.has(normalised))
        faults.push(
          recordIssue(
            kind,
            id,
            record.key,
            "key",
            `The key “${record.key}” is already used by another ${kindWord(kind)}. Use a free one, such as ${record.key}_2.`,
          ),
        );
      here.set(normalised, id);
    }
  }
  return faults;
}

/** Records that would be their own ancestors, or stand too deep in the tree of their kind. */
export function treeIssues(next: Catalogue, written: ReadonlyMap<Kind, Written>): RecordIssue[] {
  return [...written].flatMap(([kind, changes]) => {
    const tree = treeOf(kind);
    const moved = tree
      ? [...changes.values()].filter((r): r is AnyRecord => r !== undefined && parentOf(r, tree.field) !== null)
      : [];
    if (!tree || !moved.length) return [];
    const deep = tooDeep(next, kind, tree);
    return moved.flatMap(({ id, key }): RecordIssue[] => {
      const why = deep.get(id);
      if (!why) return [];
      const [one, many] = [kindWord(kind), kindWord(kind, true)];
      const message =
        why === "circle"
          ? `This would make the ${one} its own ancestor. Choose one outside its branch.`
          : `${capital(many)} can be nested at most ${tree.most} deep. Choose a ${one} closer to the top.`;
      return [recordIssue(kind, id, key, tree.field, message)];
    });
  });
}

type Own = { readonly [field: string]: OwnValue };
const ownOf = (record: AnyRecord | undefined): Own => (record && "own" in record ? (record.own as Own) : {});
/** What of a field's definition its values must fit. */
const SHAPE = ["of", "form", "to"] as const;

/** Values of designers' fields that do not fit their definition: those written, and those of definitions that became others. */
export function ownIssues(before: Catalogue, next: Catalogue, written: ReadonlyMap<Kind, Written>): RecordIssue[] {
  const faults: RecordIssue[] = [];
  const has = (kind: string, id: Id) => recordAt(next, kind as Kind, id) !== undefined;
  const look = (kind: Kind, record: AnyRecord, id: Id) => {
    const field = next.records.field.get(id);
    const value = ownOf(record)[id];
    const message = field && value !== undefined ? ownProblem(field, kind, value, has) : null;
    if (field && message)
      faults.push(recordIssue(kind, record.id, record.key, `own.${id}`, `${field.name}: ${message}`));
  };
  for (const [kind, changes] of written)
    for (const [id, record] of changes) {
      if (!record || !("own" in record)) continue;
      const was = ownOf(recordAt(before, kind, id));
      for (const [field, value] of Object.entries(record.own as Own))
        if (!same(was[field], value)) look(kind, record, field as Id);
    }
  const redefined = new Map(
    [...(written.get("field") ?? [])].filter(([id, now]) => {
      const was = before.records.field.get(id);
      return was && now && SHAPE.some((name) => was[name] !== (now as OwnField)[name]);
    }),
  );
  for (const { id, kind, record } of referrersTo(next, "field", redefined)) look(kind, record, id);
  return faults;
}

/** Records that were taken out while others still refer to them. */
export function stillReferred(next: Catalogue, removed: ReadonlyMap<Kind, ReadonlyMap<Id, AnyRecord>>): RecordIssue[] {
  const faults: RecordIssue[] = [];
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
      faults.push(
        recordIssue(kind, id, key, "id", `${name} is still used by ${who}. Remove it there first, or retire it.`),
      );
    }
  }
  return faults;
}
