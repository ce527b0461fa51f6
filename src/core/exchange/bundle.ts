/** The bundle: one JSON file that holds a whole pantry, references by key. Format: docs/bundle.md. */
import type { Catalogue } from "../catalogue/catalogue";
import {
  type AnyRecord,
  blank,
  type Draw,
  type Field,
  FIELDS,
  type Id,
  inDraws,
  type Kind,
  type Line,
  NEW_PANTRY,
  PANTRY_FIELDS,
  type Role,
  weightOfNothing,
} from "../catalogue/records";
import { formatTicks } from "../numbers/ticks";

export const BUNDLE_FORMAT = "salty-pantry-bundle";
export const BUNDLE_VERSION = 1;

/** Name of each kind's list in a bundle, in the order in which the lists stand. */
export const SECTIONS = {
  currencies: "currency",
  rarities: "rarity",
  stats: "stat",
  tags: "tag",
  types: "type",
  items: "item",
  recipes: "recipe",
  sources: "source",
} as const satisfies Record<string, Kind>;
export type Section = keyof typeof SECTIONS;

/** Name of each role's list in a recipe. A source has only `gives`. */
export const LISTS: Readonly<Record<Role, string>> = {
  ingredient: "ingredients",
  output: "outputs",
  station: "stations",
  tool: "tools",
};
const ROLE_ORDER: readonly Role[] = ["ingredient", "output", "station", "tool"];

export type Json = string | number | boolean | null | Json[] | { [name: string]: Json };

/**
 * What a field is when a bundle does not say. The same as a new record's, but for status: what is in a bundle is ready.
 */
export const resting = (kind: Kind): Record<string, unknown> => {
  const record = {
    ...(blank(kind, { id: "" as Id, key: "", name: "" } as never) as unknown as Record<string, unknown>),
  };
  if ("status" in record) record.status = "ready";
  return record;
};

/**
 * The bundle of a catalogue: records sorted by key, resting values left out. Byte for byte the same for the same
 * catalogue.
 */
export function exportBundle(catalogue: Catalogue): string {
  const keyOf = (kind: Kind, id: Id): string => (catalogue[kind] as ReadonlyMap<Id, AnyRecord>).get(id)?.key ?? id;
  const pantry: Record<string, Json> = {};
  for (const name of Object.keys(PANTRY_FIELDS)) {
    const value = catalogue.pantry[name as keyof typeof PANTRY_FIELDS];
    if (!(name in NEW_PANTRY) || value !== NEW_PANTRY[name as keyof typeof NEW_PANTRY]) pantry[name] = value;
  }
  const bundle: Record<string, Json> = { format: BUNDLE_FORMAT, version: BUNDLE_VERSION, pantry };
  for (const [section, kind] of Object.entries(SECTIONS)) {
    const records = [...(catalogue[kind] as ReadonlyMap<Id, AnyRecord>).values()].sort((a, b) =>
      a.key < b.key ? -1 : 1,
    );
    bundle[section] = records.map((record) => written(kind, record));
  }
  return `${JSON.stringify(bundle, null, 1)}\n`;

  function written(kind: Kind, record: AnyRecord): { [name: string]: Json } {
    const rest = resting(kind);
    const out: { [name: string]: Json } = {};
    for (const [name, field] of Object.entries(FIELDS[kind]) as [string, Field][]) {
      const value = (record as unknown as Record<string, unknown>)[name];
      if (field.as === "lines") Object.assign(out, lists(kind, value as Line[]));
      else if (name === "ticks") {
        if (value) out.time = formatTicks(value as number, catalogue.pantry.ticksPerSecond);
      } else if (name === "fee" || name === "price") {
        const currency = (record as unknown as Record<string, Id | null>)[name === "fee" ? "feeCurrency" : "currency"];
        if (value || currency)
          out[name] = { amount: value as number, ...(currency ? { currency: keyOf("currency", currency) } : {}) };
      } else if (name === "feeCurrency" || (kind === "source" && name === "currency")) continue;
      else if (field.as === "ref") {
        if (value) out[name] = keyOf(field.to, value as Id);
      } else if (field.as === "refs") {
        if ((value as Id[]).length) out[name] = (value as Id[]).map((id) => keyOf(field.to, id)).sort();
      } else if (field.as === "stats") {
        const stats = Object.entries(value as Record<string, number>).map(
          ([id, v]) => [keyOf("stat", id as Id), v] as const,
        );
        if (stats.length) out.stats = Object.fromEntries(stats.sort(([a], [b]) => (a < b ? -1 : 1)));
      } else if (name === "key" || name === "name" || value !== rest[name]) out[name] = value as Json;
    }
    return out;
  }

  function lists(kind: Kind, lines: readonly Line[]): { [name: string]: Json } {
    const out: { [name: string]: Json } = {};
    const entry = (l: Line) => {
      const row: { [name: string]: Json } = { item: keyOf("item", l.item) };
      if (l.min !== l.max) row.quantity = [l.min, l.max];
      else if (l.min !== 1) row.quantity = l.min;
      if (l.chance !== 1) row.chance = l.chance;
      if (l.uses !== null) row.uses = l.uses;
      return row;
    };
    for (const role of ROLE_ORDER) {
      const rows = lines.filter((l) => l.role === role && !l.draw).map(entry);
      if (rows.length) out[kind === "source" ? "gives" : LISTS[role]] = rows;
    }
    const draws = inDraws(lines.filter((l) => l.draw));
    if (draws.length)
      out.draws = draws.map((group) => {
        const { times } = group[0].draw as Draw;
        const nothing = weightOfNothing(group);
        return {
          ...(times === 1 ? {} : { times }),
          entries: group.map((l) => ({ weight: l.draw?.weight ?? 0, ...entry(l) })),
          ...(nothing > 0 ? { nothing } : {}),
        };
      });
    return out;
  }
}
