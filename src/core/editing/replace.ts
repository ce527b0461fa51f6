/** One record in the place of another, wherever that is referred to. */
import type { Catalogue } from "../catalogue/catalogue";
import type { Edit, Value } from "../catalogue/edit";
import { referrersTo } from "../catalogue/references";
import { parentOf, treeOf } from "../catalogue/tree";
import { type AnyRecord, definition, type Kind } from "../kinds/index";
import type { Id } from "../schema/id";
import { differences } from "../schema/record";

type Values = Readonly<Record<string, unknown>>;

/** Everything that refers to a record, each once. */
export function usersOf(
  catalogue: Catalogue,
  kind: Kind,
  id: Id,
): { readonly kind: Kind; readonly record: AnyRecord }[] {
  return [...referrersTo(catalogue, kind, new Set([id]))].map(({ kind: of, record }) => ({ kind: of, record }));
}

/**
 * Edits that put another record of the same kind in the place of one, everywhere. Where the other stood under it in a
 * tree, it stands where the one stood.
 */
export function replaceEverywhere(catalogue: Catalogue, kind: Kind, from: Id, to: Id): Edit[] {
  const tree = treeOf(kind)?.field;
  const one = catalogue.records[kind].get(from) as AnyRecord | undefined;
  return usersOf(catalogue, kind, from).flatMap(({ kind: of, record }): Edit[] => {
    const after: { [name: string]: unknown } = { ...(record as unknown as Values) };
    for (const [name, field] of Object.entries(definition(of).fields))
      if (field.targets.includes(kind)) after[name] = field.relink((record as unknown as Values)[name], kind, from, to);
    if (tree && one && of === kind && record.id === to) after[tree] = parentOf(one, tree);
    return differences(definition(of), record, after).map(
      (d): Edit => ({ op: "set", kind: of, id: record.id, field: d.path, from: d.from as Value, to: d.to as Value }),
    );
  });
}
