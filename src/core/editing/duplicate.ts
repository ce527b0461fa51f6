/** A record like another. */
import type { Catalogue } from "../catalogue/catalogue";
import type { Edit } from "../catalogue/edit";
import { recordsWith } from "../catalogue/references";
import { usesSaidBy } from "../catalogue/uses";
import type { AnyRecord, Item, Kind, Recipe, Source } from "../kinds/index";
import { LONGEST_NAME } from "../schema/limits";
import { newId } from "../schema/id";
import { normalise } from "../schema/names";
import { namesOf } from "../catalogue/surroundings";
import { FreeKeys } from "./new-names";

/** The same record under a name and a key of its own: "River eel 2". */
export function duplicateOf<R extends AnyRecord>(catalogue: Catalogue, kind: Kind, record: R): R {
  const names = namesOf(catalogue, kind);
  const stem = record.name.replace(/ \d+$/, "");
  let n = 2;
  const called = () => `${stem.slice(0, LONGEST_NAME - 1 - String(n).length).trimEnd()} ${n}`;
  while (names.find(called()).found !== "none" || normalise(called()) === normalise(record.name)) n++;
  return { ...record, id: newId(), name: called(), key: new FreeKeys(catalogue).next(kind, called()) };
}

/** An item like another with the ways it is made, taken apart, come by and used: each a record of its own. */
export function duplicateWith(catalogue: Catalogue, item: Item): { readonly copy: Item; readonly edits: Edit[] } {
  const copy = duplicateOf(catalogue, "item", item);
  const keys = new FreeKeys(catalogue);
  const edits: Edit[] = [{ op: "add", kind: "item", record: copy }];
  const again = <R extends Recipe | Source>(kind: "recipe" | "source", record: R) => {
    const lines = record.lines.map((line) => (line.item === item.id ? { ...line, item: copy.id } : line));
    const name = record.name === item.name ? copy.name : record.name;
    edits.push({ op: "add", kind, record: { ...record, id: newId(), key: keys.next(kind, name), name, lines } });
  };
  const made = [...recordsWith(catalogue, "recipe", item.id, ["output"])];
  const apart = [...recordsWith(catalogue, "recipe", item.id, ["ingredient"])].filter((r) => r.kind === "salvage");
  for (const recipe of new Set([...made, ...apart])) again("recipe", recipe as unknown as Recipe);
  for (const source of recordsWith(catalogue, "source", item.id, ["output"]))
    again("source", source as unknown as Source);
  for (const use of usesSaidBy(catalogue, item.id)) {
    const record = { ...use, id: newId(), key: keys.next("use", use.name), item: copy.id };
    edits.push({ op: "add", kind: "use", record });
  }
  return { copy, edits };
}
