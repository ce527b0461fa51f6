/** The same done to one field of many records: what each would have, what can't be, and the edits. */
import type { Catalogue } from "../catalogue/catalogue";
import { type Edit, setField, type Value } from "../catalogue/edit";
import { heldAt } from "../catalogue/inheritance";
import { around } from "../catalogue/surroundings";
import { type AnyRecord, definition, type Kind } from "../kinds/index";
import { same } from "../schema/json";
import type { Id } from "../schema/id";
import { fieldAt, pathOf } from "../schema/record";
import { type Action, actionOf, type BulkContext, misfit } from "./bulk-actions";
import { problemOf } from "./entry";
import { NewNames } from "./new-names";

export interface BulkRequest {
  readonly path: string;
  readonly action: Action;
  /** What was typed beside the action; of a column its path. */
  readonly typed: string;
  /** What stands in the place of a text. */
  readonly other?: string;
  /** Numbers are rounded to multiples of this; "" for not at all. */
  readonly step: string;
}

/** What would become of one record: `after` where it would change, `says` where it can't. */
export interface BulkRow {
  readonly record: AnyRecord;
  readonly before: string;
  readonly after: string | null;
  readonly message: string | null;
}
export type BulkPlan =
  | { readonly ok: false; readonly message: string }
  | { readonly ok: true; readonly rows: readonly BulkRow[]; readonly same: number; readonly edits: readonly Edit[] };

const refused = (message: string): BulkPlan => ({ ok: false, message });

/**
 * What a request would do to some records. Inherited values are reckoned with as if they were the record's own, and
 * written on the record.
 * @param readings  numbers that are computed, by what formulas call them
 */
export function planBulk(
  catalogue: Catalogue,
  kind: Kind,
  records: Iterable<AnyRecord>,
  request: BulkRequest,
  readings: BulkContext["readings"] = new Map(),
): BulkPlan {
  const at = pathOf(definition(kind), request.path);
  if (!at) return refused("Choose what to change.");
  const here = around(catalogue);
  const field = fieldAt(at, here);
  const action = actionOf(request.action);
  if (!action.fits(field)) return refused(misfit(kind, request.action));
  const names = new NewNames(catalogue);
  const make = action.ready({ catalogue, kind, field, request, names, readings });
  if ("message" in make) return refused(make.message);
  const edits: Edit[] = [...names.edits];
  const knowing = names.knowing;
  // Names that are new become records of the same change.
  const made = new Set(names.edits.flatMap((e) => (e.op === "add" ? [e.record.id] : [])));
  const has = (of: string, id: Id) => made.has(id) || here.has(of, id);
  const empty = at.part === null ? at.field.initial : null;
  const rows: BulkRow[] = [];
  let unchanged = 0;
  for (const record of records) {
    const { here: held } = heldAt(catalogue, kind, record, request.path);
    const own = held.from === "own" ? held.value : empty;
    const wanted = make(held.value, record);
    const value = "value" in wanted ? (wanted.value === undefined ? empty : wanted.value) : own;
    const clears = "value" in wanted && wanted.value === undefined;
    if (
      "same" in wanted ||
      (!("message" in wanted) &&
        !("beside" in wanted && wanted.beside?.length) &&
        (same(value, own) || (!clears && action.asks !== "value" && same(value, held.value))))
    ) {
      unchanged++;
      continue;
    }
    const text = (of: unknown) => (of === null || of === undefined ? "" : field.format(of, knowing));
    const { beside = [], shown } = "value" in wanted ? wanted : {};
    const message = "message" in wanted ? wanted.message : value === null ? null : problemOf(field, value, has);
    const before = shown?.[0] ?? (held.from === "none" ? "" : text(held.value));
    rows.push({ record, before, after: message ? null : (shown?.[1] ?? (value === null ? "" : text(value))), message });
    if (message) continue;
    if (!same(value, own)) edits.push(setField(catalogue, kind, record.id as Id, request.path, value as Value));
    for (const [path, other] of beside) edits.push(setField(catalogue, kind, record.id as Id, path, other as Value));
  }
  return { ok: true, rows, same: unchanged, edits: edits.length > names.edits.length ? edits : [] };
}
