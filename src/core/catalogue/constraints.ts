/** What must hold between records: free keys, trees without circles, nothing taken out that is still referred to. */
import { type AnyRecord, type Kind, kindWord } from "../kinds/index";
import type { Id } from "../schema/id";
import { type Catalogue, recordAt } from "./catalogue";
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
            `The key “${record.key}” belongs to another ${kindWord(kind)} already. Choose one that is free, such as ${record.key}_2.`,
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
      const says =
        why === "circle"
          ? `This would make the ${one} its own ancestor. Choose a ${one} outside its own branch.`
          : `A branch of ${many} is at most ${tree.most} ${many} deep. Choose a ${one} nearer to its root.`;
      return [recordIssue(kind, id, key, tree.field, says)];
    });
  });
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
        recordIssue(kind, id, key, "id", `${name} is still used by ${who}. Take it out there first, or retire it.`),
      );
    }
  }
  return faults;
}
