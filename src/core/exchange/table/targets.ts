/** What a column of a table can be read into, and which it seems to be. */
import type { Catalogue } from "../../catalogue/catalogue";
import { fieldsOfKind } from "../../catalogue/fields";
import { keyedPath } from "../../catalogue/filters";
import { definition, type Kind, type Stat } from "../../kinds/index";
import { capital } from "../../numbers/format";
import { normalise } from "../../schema/names";
import type { Id } from "../../schema/id";
import { readLocal } from "./local";
import type { Table } from "./read-table";

/** A field by its path with keys ("stats.vigour"), or one of those below. */
export const NOTHING = "nothing";
export const NEW_STAT = "new stat";
export const NEW_FIELD = "new field";
export type Target = string;

export interface TargetChoice {
  readonly target: Target;
  readonly label: string;
}
/** Words that tables call things by, beside their own. */
const ALSO: { readonly [word: string]: string } = {
  id: "key",
  identifier: "key",
  item: "name",
  title: "name",
  kind: "type",
  category: "type",
  tag: "tags",
  labels: "tags",
  price: "sell",
  weight: "mass",
  text: "description",
  notes: "note",
  // Headings of exports of earlier versions.
  ownatmost: "limit",
  sold: "sellable",
  dropped: "droppable",
  stored: "storable",
  burnsfor: "burns",
  leavesburnt: "ash",
  leaveswhenburnt: "ash",
  amountleft: "ashes",
  burnsonly: "fuel",
  timeatit: "pace",
  extraatit: "extra",
  waitswith: "cooldown",
  bagroom: "room",
};

/** Everything that a column can be read into, what people look for first before the rest. */
export function targetsOf(catalogue: Catalogue, kind: Kind): TargetChoice[] {
  const found: TargetChoice[] = [];
  for (const [name, { options, parts }] of Object.entries(definition(kind).fields)) {
    if (!parts) found.push({ target: name, label: capital(options.label ?? options.title ?? name) });
    else if (parts.of.type === "group") continue;
    else if (parts.kind === "stat")
      for (const stat of catalogue.records.stat.values())
        found.push({ target: keyedPath(catalogue, kind, `${name}.${stat.id as Id}`), label: stat.name });
    else
      for (const field of fieldsOfKind(catalogue, kind))
        found.push({ target: keyedPath(catalogue, kind, `${name}.${field.id}`), label: field.name });
  }
  return found;
}

/** Which targets the columns seem to be, by their heads; none is guessed twice. */
export function guessTargets(catalogue: Catalogue, kind: Kind, table: Table): Target[] {
  const choices = targetsOf(catalogue, kind);
  const by = new Map<string, Target>();
  const put = (word: string, target: Target) => {
    const wanted = normalise(word);
    if (wanted && !by.has(wanted)) by.set(wanted, target);
  };
  for (const { target } of choices) put(target, target);
  for (const { target, label } of choices) put(label, target);
  for (const { target } of choices) put(target.slice(target.indexOf(".") + 1), target);
  for (const [name, { options }] of Object.entries(definition(kind).fields)) {
    put(options.title ?? "", name);
    if (options.unit) put(`${options.title ?? name} ${options.unit}`, name);
  }
  for (const stat of catalogue.records.stat.values() as Iterable<Stat>)
    put(`${stat.name} ${stat.unit}`, keyedPath(catalogue, kind, `stats.${stat.id}`));
  for (const [word, target] of Object.entries(ALSO)) if (choices.some((c) => c.target === target)) put(word, target);
  const taken = new Set<Target>();
  return table.head.map((head) => {
    const bare = head.replace(/\s*[([].*$/, "");
    const target = by.get(normalise(head)) ?? by.get(normalise(bare)) ?? NOTHING;
    if (target === NOTHING || taken.has(target)) return NOTHING;
    taken.add(target);
    return target;
  });
}

/** What a column that is none yet would rather be: a stat where it holds numbers, else a field. */
export function offered(table: Table, column: number): typeof NEW_STAT | typeof NEW_FIELD {
  const cells = table.rows
    .slice(0, 200)
    .map((row) => (row[column] ?? "").trim())
    .filter(Boolean);
  const numbers = cells.filter((cell) => readLocal(cell, ".") !== null || readLocal(cell, ",") !== null);
  return cells.length && numbers.length >= cells.length * 0.8 ? NEW_STAT : NEW_FIELD;
}
