/** From what was typed into a cell to an edit, or to a sentence that says why not. */
import { type Catalogue, recordAt } from "../catalogue/catalogue";
import { type Edit, setField, type Value } from "../catalogue/edit";
import { definition, type Kind, type Subject } from "../kinds/index";
import type { Id } from "../schema/id";
import { fieldAt, pathOf } from "../schema/record";
import { FreeKeys, NewNames } from "./new-names";

export type Read = { readonly edits: readonly Edit[] } | { readonly says: string };

/** The edit that writes typed text into a field. An empty text clears where that is possible. */
export function readEntry(catalogue: Catalogue, kind: Subject, id: Id, path: string, text: string): Read {
  const at = pathOf(definition(kind), path);
  if (!at) return { says: `A ${kind} has no field “${path}”.` };
  const typed = text.trim();
  const set = (value: unknown) => setField(catalogue, kind, id, path, value as Value);
  if (at.part !== null && typed === "") return { edits: [set(null)] };
  const names = new NewNames(catalogue);
  const read = fieldAt(at, names.typing).parse(typed, names.typing);
  if ("says" in read) return read;
  if (path === "name" && kind !== "pantry") return { edits: rename(catalogue, kind, id, read.value as string) };
  return { edits: [...names.edits, set(read.value)] };
}

/** A new name; a key that was only a placeholder follows it. */
function rename(catalogue: Catalogue, kind: Kind, id: Id, name: string): Edit[] {
  const key = recordAt(catalogue, kind, id)?.key ?? "";
  const edits = [setField(catalogue, kind, id, "name", name)];
  if (new RegExp(`^new_${kind}(_\\d+)?$`).test(key))
    edits.push(setField(catalogue, kind, id, "key", new FreeKeys(catalogue).next(kind, name)));
  return edits;
}

/** Edits for many entries at once; the first that can't be read refuses them all, and says which. */
export function readEntries(
  catalogue: Catalogue,
  entries: readonly { kind: Kind; id: Id; field: string; text: string }[],
): Read {
  const edits: Edit[] = [];
  for (const entry of entries) {
    const read = readEntry(catalogue, entry.kind, entry.id, entry.field, entry.text);
    if ("says" in read)
      return {
        says:
          entries.length > 1
            ? `${recordAt(catalogue, entry.kind, entry.id)?.name ?? ""}: ${read.says} Nothing was written.`
            : read.says,
      };
    edits.push(...read.edits);
  }
  return { edits };
}
