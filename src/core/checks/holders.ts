/** Which records are to be looked at again when what their fields, stats and types ask of them was edited. */
import type { Catalogue } from "../catalogue/catalogue";
import type { Edit } from "../catalogue/edit";
import { referrersTo } from "../catalogue/references";
import { itemsBelow } from "../catalogue/types";
import type { Kind } from "../kinds/index";
import type { Id } from "../schema/id";

const idOf = (edit: Edit): Id => (edit.op === "set" ? edit.id : edit.record.id);
export const idsEdited = (edits: readonly Edit[], kind: Kind): Set<Id> =>
  new Set(edits.flatMap((edit) => (edit.kind === kind ? [idOf(edit)] : [])));

/** Items below types that were edited; of a field that was edited every record that may have it. */
export function* holdersBeside(catalogue: Catalogue, edits: readonly Edit[]): Generator<Id> {
  const types = idsEdited(edits, "type");
  if (types.size) yield* itemsBelow(catalogue, types);
  for (const id of idsEdited(edits, "field")) {
    const field = catalogue.records.field.get(id);
    if (field) yield* catalogue.records[field.of].keys();
    else for (const { record } of referrersTo(catalogue, "field", new Set([id]))) yield record.id;
  }
  const stats = idsEdited(edits, "stat");
  for (const { record } of referrersTo(catalogue, "stat", stats)) yield record.id;
}
