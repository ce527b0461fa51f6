/** From a line that was typed to the edits of a use; from a type's use to one that says otherwise. */
import type { Catalogue } from "../catalogue/catalogue";
import type { Edit } from "../catalogue/edit";
import { around } from "../catalogue/surroundings";
import { usesSaidBy } from "../catalogue/uses";
import { type AnyRecord, type Item, type ItemType, type Use, withDefaults } from "../kinds/index";
import { type ParsedUse, parseUse, LINE_FIELDS } from "../notation/use-line";
import { newId } from "../schema/id";
import { same } from "../schema/json";
import { FreeKeys, NewNames } from "./new-names";

/**
 * A line with the edits that create what it names for the first time.
 * @param create  conditions, resources and so on are created too, not only items and tags
 */
export function readUseLine(
  catalogue: Catalogue,
  line: string,
  create = false,
): ParsedUse & { readonly made: readonly Edit[] } {
  const writing = new NewNames(catalogue, { create });
  const parsed = parseUse(line, around(catalogue), (name, kind) => writing.make(kind, name));
  return { ...parsed, made: writing.edits };
}

/** The edits that make a use what a line says; null where the line can't be read. */
export function rewriteUse(catalogue: Catalogue, use: Use, line: string, create = false): Edit[] | null {
  const { use: said, made } = readUseLine(catalogue, line, create);
  if (!said) return null;
  const fields = ["name", ...LINE_FIELDS].flatMap((field): Edit[] => {
    const [from, to] = [use, said].map((of) => (of as unknown as Readonly<Record<string, unknown>>)[field]);
    return field === "least" ? leastEdits() : same(from, to) ? [] : [set(field, from, to)];
  });
  return [...made, ...fields];

  function set(field: string, from: unknown, to: unknown): Edit {
    return { op: "set", kind: "use", id: use.id, field, from, to } as Edit;
  }
  /** Of a map each part is edited by itself. */
  function leastEdits(): Edit[] {
    const [before, after] = [use.least, said?.least ?? {}] as Readonly<Record<string, number>>[];
    return [...new Set([...Object.keys(before), ...Object.keys(after)])].flatMap((stat) =>
      before[stat] === after[stat] ? [] : [set(`least.${stat}`, before[stat] ?? null, after[stat] ?? null)],
    );
  }
}

/** The edits that give an item or a type a use of its own, as a line says it. */
export function addUse(
  catalogue: Catalogue,
  owner: Item | ItemType,
  line: string,
  { varies = null, create = false }: { readonly varies?: Use | null; readonly create?: boolean } = {},
): { readonly edits: readonly Edit[] } | null {
  const { use: said, made } = readUseLine(catalogue, line, create);
  if (!said) return null;
  const isType = "parent" in owner;
  const record = withDefaults("use", {
    ...(said as object),
    id: newId(),
    key: new FreeKeys(catalogue).next("use", `${said.name} ${owner.name}`),
    name: said.name,
    [isType ? "type" : "item"]: owner.id,
    varies: varies?.id ?? null,
    order: usesSaidBy(catalogue, owner.id).length,
  });
  return { edits: [...made, { op: "add", kind: "use", record: record as AnyRecord }] };
}

/** A use that says nothing of its own yet: everything is as the one it varies says. */
export function overrideUse(catalogue: Catalogue, owner: Item | ItemType, use: Use, off = false): Edit[] {
  const record = withDefaults("use", {
    id: newId(),
    key: new FreeKeys(catalogue).next("use", `${use.name} ${owner.name}`),
    name: use.name,
    ["parent" in owner ? "type" : "item"]: owner.id,
    varies: use.id,
    order: use.order,
    off,
  });
  return [{ op: "add", kind: "use", record: record as AnyRecord }];
}
