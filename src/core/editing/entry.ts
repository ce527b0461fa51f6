/** From what was typed into a cell to an edit, or to a sentence that says why not. */
import { type Catalogue, recordAt } from "../catalogue/catalogue";
import { type Edit, setField, type Value } from "../catalogue/edit";
import { definition, type Kind, type Subject, aKind } from "../kinds/index";
import { GROUNDS, LEAST_CONTRAST, leastContrast, madeVisible } from "../numbers/contrast";
import type { Checking, Field } from "../schema/field";
import type { Id } from "../schema/id";
import { fieldAt, pathOf } from "../schema/record";
import { FreeKeys, NewNames } from "./new-names";
import { capital } from "../numbers/format";

export type Read = { readonly edits: readonly Edit[] } | { readonly message: string };
export interface Entry {
  readonly kind: Kind;
  readonly id: Id;
  readonly field: string;
  readonly text: string;
}
/** An entry that can't be read, by its place among those that were given. */
export interface EntryFault {
  readonly at: number;
  readonly message: string;
}

/**
 * The edit that writes typed text into a field. An empty text clears where that is possible.
 * @param create  names that are new become records of their kind, whatever kind it is
 */
export function readEntry(
  catalogue: Catalogue,
  kind: Subject,
  id: Id,
  path: string,
  text: string,
  create = false,
): Read {
  const names = new NewNames(catalogue, { create });
  const read = readWith(names, catalogue, kind, id, path, text);
  return "message" in read ? read : { edits: [...names.edits, ...read.edits, ...defined(catalogue, kind, id, path)] };
}

/** Records for names that are new are made in `names`. What is typed is held to the rules of its field at once. */
function readWith(names: NewNames, catalogue: Catalogue, kind: Subject, id: Id, path: string, text: string): Read {
  const at = pathOf(definition(kind), path);
  if (!at) return { message: `${capital(aKind(kind))} has no field “${path}”.` };
  const typed = text.trim();
  const set = (value: unknown) => setField(catalogue, kind, id, path, value as Value);
  if (at.part !== null && typed === "") return { edits: [set(null)] };
  const field = fieldAt(at, names.typing);
  const read = field.parse(typed, names.typing);
  if ("message" in read) return read;
  const made = new Set(names.edits.flatMap((e) => (e.op === "add" ? [e.record.id] : [])));
  const message = problemOf(field, read.value, (of, which) => made.has(which) || names.typing.has(of, which));
  if (message) return { message };
  if (field.type === "colour" && at.part === null && typeof read.value === "string") {
    const found = leastContrast(read.value, GROUNDS);
    if (found < LEAST_CONTRAST)
      return {
        message: `${read.value} has too little contrast in one of the themes (${found.toFixed(2)}). ${madeVisible(read.value, GROUNDS, LEAST_CONTRAST)} is the nearest colour with enough.`,
      };
  }
  if (path === "name" && kind !== "pantry") return { edits: rename(catalogue, kind, id, read.value as string) };
  return { edits: [set(read.value)] };
}

/** Fields that say nothing of what an item is. */
const BESIDE: readonly string[] = ["name", "key", "status", "note", "tags"];
/** A stub becomes a draft as soon as someone says what it is. */
function defined(catalogue: Catalogue, kind: Subject, id: Id, path: string): Edit[] {
  const item = kind === "item" && !BESIDE.includes(path) ? catalogue.records.item.get(id) : undefined;
  return item?.status === "stub" ? [setField(catalogue, "item", id, "status", "draft")] : [];
}

/** Why a value may not stand in a field, or null. @param has  records that it may refer to */
export function problemOf(field: Field, value: unknown, has: Checking["has"]): string | null {
  let message: string | null = null;
  field.check(value, {
    has,
    fault(_, why) {
      message ??= why;
    },
  });
  return message;
}

/** A new name; a key that was only a placeholder follows it. */
function rename(catalogue: Catalogue, kind: Kind, id: Id, name: string): Edit[] {
  const key = recordAt(catalogue, kind, id)?.key ?? "";
  const edits = [setField(catalogue, kind, id, "name", name)];
  if (new RegExp(`^new_${kind}(_\\d+)?$`).test(key))
    edits.push(setField(catalogue, kind, id, "key", new FreeKeys(catalogue).next(kind, name)));
  return edits;
}

/** Edits for many entries at once, or every entry that can't be read: then nothing is to be written of the others. */
export function readEntries(
  catalogue: Catalogue,
  entries: readonly Entry[],
  create = false,
): { readonly edits: readonly Edit[] } | { readonly message: string; readonly faults: readonly EntryFault[] } {
  const names = new NewNames(catalogue, { create });
  const edits: Edit[] = [];
  const stubs = new Set<Id>();
  const faults: EntryFault[] = [];
  for (const [at, { kind, id, field, text }] of entries.entries()) {
    const read = readWith(names, catalogue, kind, id, field, text);
    if ("message" in read) faults.push({ at, message: read.message });
    else {
      edits.push(...read.edits);
      if (stubs.has(id)) continue;
      const next = defined(catalogue, kind, id, field);
      if (next.length) stubs.add(id);
      edits.push(...next);
    }
  }
  if (!faults.length) return { edits: [...names.edits, ...edits] };
  const [{ at, message }] = faults;
  const named = recordAt(catalogue, entries[at].kind, entries[at].id)?.name ?? "";
  return { message: entries.length > 1 ? `${named}: ${message} Nothing was saved.` : message, faults };
}
