/**
 * What a record must satisfy to be written at all: own and known fields only, and each as its kind says. Takes whatever
 * came from outside. What is merely suspicious is a check's business, not a rule's.
 */
import { type AnyRecord, definition, isKind, type Pantry, type Subject } from "../kinds/index";
import { cut } from "../schema/characters";
import { type Id, isId } from "../schema/id";
import { type Issue, issue } from "../schema/issue";
import { LONGEST_KEY } from "../schema/limits";
import { checkRecord } from "../schema/record";
import { type Catalogue, recordAt } from "./catalogue";

/** What is wrong with a record. */
export interface RecordIssue extends Issue {
  readonly kind: Subject;
  readonly id: Id;
  /** Key of the record as far as it is known, for people. */
  readonly key: string;
}

export const recordIssue = (kind: Subject, id: Id, key: string, path: string, message: string): RecordIssue => ({
  kind,
  id,
  key,
  ...issue(path, message),
});

/** @param before  the record as it was, if it was: what stays as it is was judged when it was written */
export function issuesOf(
  catalogue: Catalogue,
  kind: Subject,
  record: AnyRecord | Pantry,
  before?: object,
): RecordIssue[] {
  const issues: RecordIssue[] = [];
  const key = typeof record.key === "string" ? cut(record.key, LONGEST_KEY) : "";
  const fault = (path: string, message: string) => issues.push(recordIssue(kind, record.id, key, path, message));
  if (!isId(record.id)) fault("id", "An id is 12 characters of 0-9 and a-z.");
  checkRecord(definition(kind), record, before, {
    has: (of, id) => isKind(of) && recordAt(catalogue, of, id as Id) !== undefined,
    fault,
  });
  return issues;
}
