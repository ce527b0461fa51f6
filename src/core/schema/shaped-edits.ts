/**
 * Edits as they come from outside: their shape is checked here, before anything reads them; what they mean is for the
 * rules.
 */
import { shown } from "./characters";
import { isId } from "./id";
import { type Issue, issue } from "./issue";
import { isPlain } from "./json";

/** Most places that are told. */
const TOLD = 20;
const NAMES = {
  add: ["op", "kind", "record"],
  remove: ["op", "kind", "record"],
  set: ["op", "kind", "id", "field", "from", "to"],
} as const;

/** What has the shape of an edit. */
export type ShapedEdit =
  | { readonly op: "add" | "remove"; readonly kind: string; readonly record: { readonly id: string } & object }
  | {
      readonly op: "set";
      readonly kind: string;
      readonly id: string;
      readonly field: string;
      readonly from: unknown;
      readonly to: unknown;
    };

export interface EditShape {
  /** Kinds of records that edits may be about; `set` may be about the pantry as well. */
  readonly kinds: readonly string[];
  /** How deep the values of fields go, one list or object within the other. */
  readonly deep: number;
  readonly most: number;
  /** What is said where there are more. */
  readonly tooMany: (n: number) => string;
}

/** @param value  anything; no more of it is read than the shape of edits allows */
export function shapedEdits(
  value: unknown,
  shape: EditShape,
): { readonly edits: readonly ShapedEdit[] } | { readonly issues: readonly Issue[] } {
  const issues: Issue[] = [];
  const wrong = (place: string, message: string) => issues.push(issue(place, message));
  if (!Array.isArray(value)) wrong("edits", `Expected a list of edits, not ${shown(value)}.`);
  else if (!value.length) wrong("edits", "Expected at least one edit.");
  else if (value.length > shape.most) wrong("edits", shape.tooMany(value.length));
  else
    for (let k = 0; k < value.length && issues.length < TOLD; k++) {
      const place = `edits[${k}]`;
      shapedEdit(value[k], shape, (at, message) => wrong(at ? `${place}.${at}` : place, message));
    }
  return issues.length ? { issues: issues.slice(0, TOLD) } : { edits: value as readonly ShapedEdit[] };
}

function shapedEdit(edit: unknown, shape: EditShape, wrong: (at: string, message: string) => void): void {
  const op = isPlain(edit) ? edit.op : undefined;
  if (!isPlain(edit)) wrong("", `Expected an edit, not ${shown(edit)}.`);
  else if (op !== "add" && op !== "remove" && op !== "set")
    wrong("op", `${shown(op)} isn't an operation. Use add, remove or set.`);
  else shapedAs(op, edit, shape, wrong);
}

function shapedAs(
  op: keyof typeof NAMES,
  edit: { readonly [name: string]: unknown },
  { kinds: known, deep }: EditShape,
  wrong: (at: string, message: string) => void,
): void {
  const { kind } = edit;
  const kinds: readonly unknown[] = op === "set" ? [...known, "pantry"] : known;
  if (!kinds.includes(kind)) wrong("kind", `${shown(kind)} isn't a kind. Use ${kinds.join(", ")}.`);
  const names: readonly string[] = NAMES[op];
  for (const name of Object.keys(edit))
    if (!names.includes(name))
      wrong(shown(name).slice(1, -1), `This edit has no field of this name. Its fields: ${names.join(", ")}.`);
  for (const name of names) if (!Object.hasOwn(edit, name)) wrong(name, "This field is missing.");
  if (op === "set") {
    if (!isId(edit.id)) wrong("id", "An id is 12 characters of 0-9 and a-z.");
    if (typeof edit.field !== "string" || edit.field.length > 60) wrong("field", "Expected the name of a field.");
    for (const name of ["from", "to"])
      if (!shallow(edit[name], deep)) wrong(name, "This is nested deeper than any field.");
  } else if (!isPlain(edit.record)) wrong("record", `Expected a record, not ${shown(edit.record)}.`);
  else if (!isId(edit.record.id)) wrong("record.id", "An id is 12 characters of 0-9 and a-z.");
  else if (!shallow(edit.record, deep + 1)) wrong("record", "This is nested deeper than any record.");
}

/** Whether a value's lists and objects go no deeper than so many, one within the other. */
function shallow(value: unknown, most: number): boolean {
  if (typeof value !== "object" || value === null) return true;
  if (most === 0) return false;
  return (Array.isArray(value) ? value : Object.values(value)).every((each) => shallow(each, most - 1));
}
