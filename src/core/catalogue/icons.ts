/** Icons that records say. */
import { type Catalogue, recordsOf } from "./catalogue";
import type { Edit } from "./edit";
import { type AnyRecord, definition, type Kind, KINDS } from "../kinds/index";
import { count, list } from "../numbers/format";
import { cut } from "../schema/characters";
import { OWN_PICTURE } from "../pictures/own-picture";

/** Fields that say an icon, by kind. */
const ICON_FIELDS: ReadonlyMap<Kind, readonly string[]> = new Map(
  KINDS.flatMap((kind) => {
    const fields = Object.entries(definition(kind).fields).filter(([, { options }]) => options.drawn === "icon");
    return fields.length ? [[kind, fields.map(([name]) => name)] as const] : [];
  }),
);

/** What a record says in its fields for icons. */
export const iconsOf = (kind: Kind, record: AnyRecord): readonly { readonly field: string; readonly icon: string }[] =>
  (ICON_FIELDS.get(kind) ?? []).flatMap((field) => {
    const icon: unknown = (record as unknown as Readonly<Record<string, unknown>>)[field];
    return typeof icon === "string" && icon ? [{ field, icon }] : [];
  });

/** Icons that edits give, each once. */
export function iconsIn(edits: readonly Edit[]): readonly string[] {
  const icons = new Set<string>();
  for (const edit of edits) {
    if (edit.kind === "pantry" || edit.op === "remove") continue;
    if (edit.op === "add") for (const { icon } of iconsOf(edit.kind, edit.record)) icons.add(icon);
    else if (typeof edit.to === "string" && edit.to && ICON_FIELDS.get(edit.kind)?.includes(edit.field))
      icons.add(edit.to);
  }
  return [...icons];
}

/** Names of the pictures of its own that a pantry's records show, sorted. */
export function ownPicturesOf(catalogue: Catalogue): readonly string[] {
  const names = new Set<string>();
  for (const kind of ICON_FIELDS.keys())
    for (const record of recordsOf(catalogue, kind).values())
      for (const { icon } of iconsOf(kind, record)) if (OWN_PICTURE.test(icon)) names.add(icon);
  return [...names].sort();
}

/** What is told of icons that no one knows. @param times  how many records have one of them, where that is told */
export function noIcons(names: readonly string[], times = 1): string {
  const many = names.length > 1;
  const said = list(names.map((name) => `“${cut(name, 80)}”`));
  const whose = times > 1 ? ` ${count(times, "record")} use ${many ? "them" : "it"}.` : "";
  const what = names.every((name) => OWN_PICTURE.test(name)) ? "picture" : "icon";
  return `There ${many ? `are no ${what}s` : `is no ${what}`} called ${said}.${whose} No icon is shown until you choose another.`;
}
