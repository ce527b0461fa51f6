/** The same done to one field of many records: what each would have, what can't be, and the edits. */
import type { Catalogue } from "../catalogue/catalogue";
import { type Edit, setField, type Value } from "../catalogue/edit";
import { heldAt } from "../catalogue/inheritance";
import { around } from "../catalogue/surroundings";
import { type AnyRecord, definition, type Kind } from "../kinds/index";
import { readNumber } from "../schema/number";
import { same } from "../schema/json";
import type { Checking, Field } from "../schema/field";
import type { Id } from "../schema/id";
import { fieldAt, pathOf } from "../schema/record";
import { NewNames } from "./new-names";

export const ACTIONS = ["set to", "clear", "add", "multiply by", "raise by percent"] as const;
export type Action = (typeof ACTIONS)[number];
/** Whether an action reckons with the value that is there. */
export const reckons = (action: Action): boolean => action !== "set to" && action !== "clear";

export interface BulkRequest {
  readonly path: string;
  readonly action: Action;
  /** What was typed beside the action. */
  readonly typed: string;
  /** Numbers are rounded to multiples of this; "" for not at all. */
  readonly step: string;
}

/** What would become of one record: `after` where it would change, `says` where it can't. */
export interface BulkRow {
  readonly record: AnyRecord;
  readonly before: string;
  readonly after: string | null;
  readonly says: string | null;
}
export type BulkPlan =
  | { readonly ok: false; readonly says: string }
  | { readonly ok: true; readonly rows: readonly BulkRow[]; readonly same: number; readonly edits: readonly Edit[] };

const refused = (says: string): BulkPlan => ({ ok: false, says });

/** More decimal places than anybody typed come from reckoning in binary. */
const tidy = (value: number): number => Number(value.toPrecision(12));

/** What an action makes of a number, or why it can't be done. */
function reckoning({ action, typed, step }: BulkRequest): ((value: number) => number) | { readonly says: string } {
  const by = readNumber(typed.trim());
  if (by === null) return { says: `“${typed}” is not a number. Write digits with a point for decimals, such as 2.5.` };
  const unit = step.trim() === "" ? 0 : readNumber(step.trim());
  if (unit === null || unit < 0)
    return { says: `“${step}” is no step to round to. Write a number such as 5 or 0.25, or nothing.` };
  const plain = {
    add: (value: number) => value + by,
    "multiply by": (value: number) => value * by,
    "raise by percent": (value: number) => value * (1 + by / 100),
  }[action as "add"];
  return (value) => tidy(unit ? Math.round(tidy(plain(value)) / unit) * unit : plain(value));
}

/** Why a value may not stand in a field, or null. @param has  records that it may refer to */
function problemOf(field: Field, value: unknown, has: Checking["has"]): string | null {
  let says: string | null = null;
  field.check(value, {
    has,
    fault(_, why) {
      says ??= why;
    },
  });
  return says;
}

/**
 * What a request would do to some records. Inherited values are reckoned with as if they were the record's own, and
 * written on the record.
 */
export function planBulk(
  catalogue: Catalogue,
  kind: Kind,
  records: Iterable<AnyRecord>,
  request: BulkRequest,
): BulkPlan {
  const at = pathOf(definition(kind), request.path);
  if (!at) return refused("Choose what is to be changed.");
  const here = around(catalogue);
  const field = fieldAt(at, here);
  const names = new NewNames(catalogue);
  let make: (before: unknown) => unknown;
  if (request.action === "clear") make = () => (at.part === null ? at.field.initial : null);
  else if (request.action === "set to") {
    const read = field.parse(request.typed.trim(), names.typing);
    if ("says" in read) return refused(read.says);
    make = () => read.value;
  } else {
    if (!field.numeric || field.type === "duration") return refused("Only numbers can be reckoned with.");
    const reckon = reckoning(request);
    if ("says" in reckon) return refused(reckon.says);
    make = (before) => (typeof before === "number" ? reckon(before) : before);
  }
  const edits: Edit[] = [...names.edits];
  // Names that are new become records of the same change.
  const made = new Set(names.edits.flatMap((e) => (e.op === "add" ? [e.record.id] : [])));
  const has = (of: string, id: Id) => made.has(id) || here.has(of, id);
  const rows: BulkRow[] = [];
  let unchanged = 0;
  for (const record of records) {
    const { here: held } = heldAt(catalogue, kind, record, request.path);
    const own = held.from === "own" ? held.value : at.part === null ? at.field.initial : null;
    const value = make(held.value);
    if (same(value, own) || (reckons(request.action) && same(value, held.value))) {
      unchanged++;
      continue;
    }
    const text = (of: unknown) => (of === null || of === undefined ? "" : field.format(of, here));
    const says = value === null ? null : problemOf(field, value, has);
    const before = held.from === "none" ? "" : text(held.value);
    rows.push({ record, before, after: says ? null : value === null ? "" : text(value), says });
    if (!says) edits.push(setField(catalogue, kind, record.id as Id, request.path, value as Value));
  }
  return { ok: true, rows, same: unchanged, edits: edits.length > names.edits.length ? edits : [] };
}
