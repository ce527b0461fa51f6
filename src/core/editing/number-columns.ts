/** The numbers that records of a kind have, by the names that formulas call them. */
import type { Catalogue } from "../catalogue/catalogue";
import { fieldWord } from "../catalogue/edit";
import { fieldsOfKind } from "../catalogue/fields";
import { heldAt } from "../catalogue/inheritance";
import { around } from "../catalogue/surroundings";
import { type AnyRecord, definition, type Kind } from "../kinds/index";
import type { Id } from "../schema/id";
import { normalise } from "../schema/names";
import { fieldAt, pathOf } from "../schema/record";

/** Paths by name: "sell price", "Vigour". Of two of the same name the first is meant. */
export function numberColumns(catalogue: Catalogue, kind: Kind): ReadonlyMap<string, string> {
  const found = new Map<string, string>();
  const seen = new Set<string>();
  const here = around(catalogue);
  const put = (path: string) => {
    const at = pathOf(definition(kind), path);
    const name = fieldWord(catalogue, kind, path);
    if (!at || !fieldAt(at, here).numeric || seen.has(normalise(name))) return;
    seen.add(normalise(name));
    found.set(name, path);
  };
  for (const [name, { parts }] of Object.entries(definition(kind).fields)) {
    if (!parts) put(name);
    else if (parts.kind === "field") for (const { id } of fieldsOfKind(catalogue, kind)) put(`${name}.${id}`);
    else if (parts.kind === "stat" && parts.of.numeric)
      for (const id of catalogue.records.stat.keys()) put(`${name}.${id as Id}`);
  }
  return found;
}

/** What a record has there, its own or inherited; null where nothing is said. */
export function numberAt(catalogue: Catalogue, kind: Kind, record: AnyRecord, path: string): number | null {
  const { value } = heldAt(catalogue, kind, record, path).here;
  return typeof value === "number" ? value : null;
}
