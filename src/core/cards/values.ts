/** Values of an item that its description may name. */
import type { Catalogue } from "../catalogue/catalogue";
import { fieldsOfItem } from "../catalogue/fields";
import { heldAt } from "../catalogue/inheritance";
import { around } from "../catalogue/surroundings";
import { definition, type Item } from "../kinds/index";
import { normalise, nearest } from "../schema/names";
import { fieldAt, pathOf } from "../schema/record";
import { everyPart } from "./description";

/** What may stand between braces, with the path it stands for: keys first, which stay when names change. */
export function placeholders(catalogue: Catalogue, item: Item): { readonly name: string; readonly path: string }[] {
  const fields = Object.entries(definition("item").fields).flatMap(([name, { parts, depth }]) =>
    parts || depth > 0 || ["key", "description", "note", "icon", "status"].includes(name) ? [] : [{ name, path: name }],
  );
  const stats = [...catalogue.records.stat.values()].map(({ id, key }) => ({ name: key, path: `stats.${id}` }));
  const own = fieldsOfItem(catalogue, item).map(({ id, key }) => ({ name: key, path: `own.${id}` }));
  return [...stats, ...own, ...fields];
}

/** The path that a name between braces stands for: a key or a name; null where there is none. */
function pathNamed(catalogue: Catalogue, item: Item, name: string): string | null {
  const wanted = normalise(name);
  const by = placeholders(catalogue, item).find((p) => normalise(p.name) === wanted);
  if (by) return by.path;
  for (const { id, name: called } of catalogue.records.stat.values())
    if (normalise(called) === wanted) return `stats.${id}`;
  for (const { id, name: called } of fieldsOfItem(catalogue, item))
    if (normalise(called) === wanted) return `own.${id}`;
  return null;
}

/** The value as a player reads it, or why there is none. */
export function valueNamed(
  catalogue: Catalogue,
  item: Item,
  name: string,
): { readonly text: string } | { readonly message: string } {
  const path = pathNamed(catalogue, item, name);
  if (!path) {
    const near = nearest(
      name,
      placeholders(catalogue, item).map((p) => p.name),
    );
    return {
      message: `There is no value called “${name}”.${near.length ? ` Did you mean ${near.join(" or ")}?` : ""}`,
    };
  }
  const at = pathOf(definition("item"), path);
  const { here } = heldAt(catalogue, "item", item, path);
  if (!at || here.from === "none") return { message: `${item.name} has no value for ${name}.` };
  const now = around(catalogue);
  return { text: fieldAt(at, now).say(here.value, now) };
}

/** The colour that a rarity or a type lends; null where there is none of this name. */
export function colourNamed(catalogue: Catalogue, name: string): string | null {
  const wanted = normalise(name);
  for (const kind of ["rarity", "type"] as const)
    for (const record of catalogue.records[kind].values())
      if (normalise(record.key) === wanted || normalise(record.name) === wanted) return record.colour;
  return null;
}

export interface DescriptionFault {
  readonly name: string;
  readonly message: string;
}
/** Values and colours that a description names and that are not there. */
export function faultsOf(catalogue: Catalogue, item: Item, text = item.description): DescriptionFault[] {
  const found = new Map<string, string>();
  for (const part of everyPart(text)) {
    if (part.is === "value") {
      const value = valueNamed(catalogue, item, part.name);
      if ("message" in value) found.set(part.name, value.message);
    } else if (part.is === "coloured" && colourNamed(catalogue, part.by) === null)
      found.set(part.by, `There is no rarity or type called “${part.by}” whose colour could be used.`);
  }
  return [...found].map(([name, message]) => ({ name, message }));
}

/** The description of an item with the values that it names in their places, as a player reads it. */
export function shownText(catalogue: Catalogue, item: Item): string {
  let shown = "";
  let from = 0;
  for (const part of everyPart(item.description)) {
    if (part.is !== "value") continue;
    const value = valueNamed(catalogue, item, part.name);
    if (!("text" in value)) continue;
    shown += item.description.slice(from, part.from) + value.text;
    from = part.to;
  }
  return shown + item.description.slice(from);
}
