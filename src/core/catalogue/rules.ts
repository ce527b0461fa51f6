/**
 * What a record must satisfy to be written at all: own and known fields only, and each as its kind says. Takes whatever
 * came from outside. What is merely suspicious is a check's business, not a rule's.
 */
import { type AnyRecord, definition, isKind, type Pantry, type Subject } from "../kinds/index";
import { cut } from "../schema/characters";
import { type Id, isId } from "../schema/id";
import { LONGEST_KEY } from "../schema/limits";
import { checkRecord } from "../schema/record";
import { type Catalogue, recordAt } from "./catalogue";

/** A refusal: where, why, and what would work. */
export interface Fault {
  readonly kind: Subject;
  readonly id: Id;
  /** Key of the record as far as it is known, for people. */
  readonly key: string;
  readonly field: string;
  readonly says: string;
}

/** @param before  the record as it was, if it was: what stays as it is was judged when it was written */
export function faultsOf(catalogue: Catalogue, kind: Subject, record: AnyRecord | Pantry, before?: object): Fault[] {
  const faults: Fault[] = [];
  const key = typeof record.key === "string" ? cut(record.key, LONGEST_KEY) : "";
  const fault = (field: string, says: string) => faults.push({ kind, id: record.id, key, field, says });
  if (!isId(record.id)) fault("id", "An id is 12 characters of 0-9 and a-z.");
  checkRecord(definition(kind), record, before, {
    has: (of, id) => isKind(of) && recordAt(catalogue, of, id as Id) !== undefined,
    fault,
  });
  return faults;
}
