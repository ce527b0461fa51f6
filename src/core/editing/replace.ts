/** One record in the place of another, wherever that is referred to. */
import type { Catalogue } from "../catalogue/catalogue";
import type { Edit, Value } from "../catalogue/edit";
import { referrersTo } from "../catalogue/references";
import { parentOf, treeOf } from "../catalogue/tree";
import { type AnyRecord, definition, type Kind } from "../kinds/index";
import { type Field, referred } from "../schema/field";
import type { Id } from "../schema/id";
import type { OwnLink } from "../schema/own-value";
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

/** A value without a record that it refers to; undefined where it can't be without. */
function without(field: Field, value: unknown, kind: Kind, id: Id): unknown {
  const { parts } = field;
  if (parts) {
    let rest = parts.kind === kind ? parts.with(value, id, null) : value;
    for (const name of parts.names(rest)) {
      const part = parts.get(rest, name);
      if (!refersTo(parts.of, part, kind, id)) continue;
      const left = Array.isArray(part)
        ? (part as readonly OwnLink[]).filter((l) => l.id !== id || l.kind !== kind)
        : null;
      rest = parts.with(rest, name, left?.length ? left : null);
    }
    return rest;
  }
  // An entry that names it goes as a whole; lines of a recipe do not.
  if (field.type === "list")
    return (value as readonly unknown[]).filter((entry) => !refersTo(field, [entry], kind, id));
  if (field.type === "refs") return (value as readonly Id[]).filter((each) => each !== id);
  return field.type === "ref" && !field.needed ? null : undefined;
}
const refersTo = (field: Field, value: unknown, kind: Kind, id: Id): boolean =>
  referred(field, value).some((r) => r.kind === kind && r.id === id);

/** Edits that take a record out wherever it is referred to; null where something can't be without it. */
export function releaseEverywhere(catalogue: Catalogue, kind: Kind, id: Id): Edit[] | null {
  const edits: Edit[] = [];
  for (const { kind: of, record } of usersOf(catalogue, kind, id)) {
    const after: { [name: string]: unknown } = { ...(record as unknown as Values) };
    for (const [name, field] of Object.entries(definition(of).fields)) {
      if (!field.targets.includes(kind) || !refersTo(field, after[name], kind, id)) continue;
      after[name] = without(field, after[name], kind, id);
      if (after[name] === undefined) return null;
    }
    for (const { path, from, to } of differences(definition(of), record, after))
      edits.push({ op: "set", kind: of, id: record.id, field: path, from: from as Value, to: to as Value });
  }
  return edits;
}
