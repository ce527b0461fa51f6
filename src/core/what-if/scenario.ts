/** What a scenario is while someone works on it: edits over a pantry that may move on beneath it. */
import { apply, type Conflict } from "../catalogue/apply";
import type { Catalogue } from "../catalogue/catalogue";
import { type Edit, setField, type Value } from "../catalogue/edit";
import type { RecordIssue } from "../catalogue/rules";
import { shapedEdits } from "../catalogue/shape";
import { type Scenario, withDefaults } from "../kinds/index";
import { FreeKeys } from "../editing/new-names";
import { editsIn, editsText, THIS_PANTRY } from "../schema/edits";
import { type Id, newId } from "../schema/id";
import { same } from "../schema/json";

/**
 * The edits with some more behind them. Two of the same field become one; what comes to nothing is left out.
 * @param more  edits of what the first ones come to
 */
export function mergedEdits(edits: readonly Edit[], more: readonly Edit[]): Edit[] {
  const merged: (Edit | null)[] = [];
  /** Where a field was set last, and where a record was added or removed last. */
  const [set, made] = [new Map<string, number>(), new Map<Id, number>()];
  const push = (edit: Edit) => {
    const at = merged.push(edit) - 1;
    if (edit.op === "set") set.set(fieldOf(edit), at);
    else made.set(edit.record.id, at);
  };
  for (const edit of edits) push(edit);
  for (const edit of more) {
    const id = idOf(edit);
    const at = edit.op === "set" ? (set.get(fieldOf(edit)) ?? -1) : -1;
    const earlier = merged[at];
    const last = made.get(id) ?? -1;
    // What was added or removed in between may be what the field is of.
    if (edit.op === "set" && earlier?.op === "set" && at > last)
      merged[at] = same(earlier.from, edit.to) ? null : { ...earlier, to: edit.to };
    else if (edit.op === "remove" && merged[last]?.op === "add") {
      // Without the record that these edits add, and all that was done to it.
      for (const [k, each] of merged.entries()) if (each && idOf(each) === id) merged[k] = null;
      made.delete(id);
    } else push(edit);
  }
  return merged.filter((edit) => edit !== null);
}
const idOf = (edit: Edit): Id => (edit.op === "set" ? edit.id : edit.record.id);
const fieldOf = ({ kind, id, field }: Extract<Edit, { op: "set" }>): string => `${kind} ${id} ${field}`;

/** The edits of a stored scenario, or null where they can't be read. */
export function storedEdits(catalogue: Catalogue, text: string): readonly Edit[] | null {
  const held = editsIn(text);
  if (!held.length) return text === "[]" ? [] : null;
  const shaped = shapedEdits(held);
  if (!("edits" in shaped)) return null;
  return shaped.edits.map((e) =>
    e.op === "set" && e.kind === "pantry" && (e.id as string) === THIS_PANTRY ? { ...e, id: catalogue.pantry.id } : e,
  );
}

/** Why an edit of a scenario can't be made. */
export interface Unfit {
  readonly edit: Edit;
  readonly message: string;
  /** Where someone else changed the field meanwhile: what it is now. */
  readonly conflict: Conflict | null;
}
export interface Fitted {
  readonly catalogue: Catalogue;
  /** Those that can be made, in order. */
  readonly edits: readonly Edit[];
  readonly unfit: readonly Unfit[];
}
/** Edits that are tried one by one, at most, where not all of them can be made. */
const MOST_TRIED = 100;

/** The catalogue with the edits made, as far as they can be. */
export function fitted(catalogue: Catalogue, edits: readonly Edit[]): Fitted {
  if (!edits.length) return { catalogue, edits, unfit: [] };
  const all = apply(catalogue, edits);
  if (all.ok) return { catalogue: all.catalogue, edits: all.edits, unfit: [] };
  const because = (edit: Edit, conflicts: readonly Conflict[], issues: readonly RecordIssue[]): Unfit => ({
    edit,
    message: conflicts[0]?.message ?? issues[0]?.message ?? "It can't be made.",
    conflict: conflicts.find(({ field }) => field !== "record") ?? null,
  });
  if (edits.length > MOST_TRIED)
    return { catalogue, edits: [], unfit: edits.map((edit) => because(edit, all.conflicts, all.issues)) };
  const fit: Edit[] = [];
  const unfit: Unfit[] = [];
  let made = catalogue;
  for (const edit of edits) {
    const outcome = apply(catalogue, [...fit, edit]);
    if (!outcome.ok) unfit.push(because(edit, outcome.conflicts, outcome.issues));
    else {
      fit.push(edit);
      made = outcome.catalogue;
    }
  }
  return { catalogue: made, edits: fit, unfit };
}

/** An edit with the value that stands there now in place of the one it was made over. */
export const rebased = (edit: Edit, now: Value): Edit => (edit.op === "set" ? { ...edit, from: now } : edit);

/** The record of a new scenario, as an edit. */
export function newScenario(
  catalogue: Catalogue,
  name: string,
  edits: readonly Edit[],
): { readonly id: Id; readonly edits: readonly Edit[] } {
  const key = new FreeKeys(catalogue).next("scenario", name);
  const record = withDefaults("scenario", { id: newId(), key, name, edits: editsText(edits) });
  return { id: record.id, edits: [{ op: "add", kind: "scenario", record }] };
}
/** What makes a stored scenario one of this name and these edits. */
export function savedEdits(
  catalogue: Catalogue,
  { id }: Scenario,
  name: string,
  edits: readonly Edit[],
): { readonly id: Id; readonly edits: readonly Edit[] } {
  const set = (field: string, to: string) => setField(catalogue, "scenario", id, field, to);
  return {
    id,
    edits: [set("name", name), set("edits", editsText(edits))].filter((e) => e.op !== "set" || e.from !== e.to),
  };
}
/** The edits that are stored of a scenario; null: it has no record, or they can't be read. */
export function savedAs(catalogue: Catalogue, id: Id | null): readonly Edit[] | null {
  const record = id === null ? undefined : catalogue.records.scenario.get(id);
  return record ? storedEdits(catalogue, record.edits) : null;
}
