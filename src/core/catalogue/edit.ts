/** Edits: what a change is made of. Every edit carries what it replaces, hence its inverse. */
import { type AnyRecord, definition, type Kind, type Subject } from "../kinds/index";
import type { Id } from "../schema/id";
import { differences, pathOf, valueAt as valueAtPath } from "../schema/record";
import { type Catalogue, nameOf, recordAt } from "./catalogue";

/** JSON values that fields hold. */
export type Value = string | number | boolean | null | readonly Value[] | { readonly [name: string]: Value };

export type Edit =
  | { readonly op: "add"; readonly kind: Kind; readonly record: AnyRecord }
  | { readonly op: "remove"; readonly kind: Kind; readonly record: AnyRecord }
  /** `field` is a field's name, or "stats.<stat id>" for one part of it; null clears a part. */
  | {
      readonly op: "set";
      readonly kind: Subject;
      readonly id: Id;
      readonly field: string;
      readonly from: Value;
      readonly to: Value;
    };

/** The edits that take a change back, in the order in which they must be applied. */
export const invert = (edits: readonly Edit[]): Edit[] =>
  edits
    .map((e): Edit => {
      if (e.op === "add") return { op: "remove", kind: e.kind, record: e.record };
      if (e.op === "remove") return { op: "add", kind: e.kind, record: e.record };
      return { ...e, from: e.to, to: e.from };
    })
    .reverse();

/** The value an edit path points at; null where nothing is said. */
export function valueAt(kind: Subject, record: object, path: string): Value {
  const at = pathOf(definition(kind), path);
  return at && (valueAtPath(record, at) as Value);
}

/** An edit of one field, with the value it replaces read from the catalogue. */
export function setField(catalogue: Catalogue, kind: Subject, id: Id, field: string, to: Value): Edit {
  const record = kind === "pantry" ? catalogue.pantry : recordAt(catalogue, kind, id);
  return { op: "set", kind, id, field, from: record ? valueAt(kind, record, field) : null, to };
}

/** The edits that make a record equal to another: one per field that differs, or per part of one. */
export const difference = (kind: Subject, before: object & { readonly id: Id }, after: object): Edit[] =>
  differences(definition(kind), before, after).map(
    ({ path, from, to }): Edit => ({
      op: "set",
      kind,
      id: before.id,
      field: path,
      from: from as Value,
      to: to as Value,
    }),
  );

/** A field's name in sentences: "vigour" for a stat, "stack limit" for stack. */
export function fieldWord(catalogue: Catalogue, kind: Subject, path: string): string {
  const at = pathOf(definition(kind), path);
  if (!at) return path;
  if (at.part !== null && at.field.parts) return nameOf(catalogue, at.field.parts.kind as Kind, at.part as Id);
  return at.field.options.label ?? at.name;
}
