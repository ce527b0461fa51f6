/** Tables of a pantry. Explicit names throughout: nothing here depends on class names that a minifier may change. */
import { defineEntity, p } from "@mikro-orm/core";

export const PantryRow = defineEntity({
  name: "PantryRow",
  tableName: "pantry",
  properties: {
    id: p.string().length(12).primary(),
    key: p.string().length(90).unique(),
    name: p.string().length(120),
    ticksPerSecond: p.integer(),
    labourPerHour: p.double(),
    priceFloor: p.double(),
    salvageCeiling: p.double(),
    revision: p.integer().default(0),
  },
});

const later = "deferred" as const;

/**
 * A record is known by its pantry and its id, and refers to others by both: the database itself refuses a reference
 * from one
 * pantry into another, and no statement can reach another pantry's row by its id alone.
 */
const owner = () => p.manyToOne(PantryRow).primary().deleteRule("cascade");
const base = () => ({
  pantry: owner,
  id: p.string().length(12).primary(),
  key: p.string().length(90),
  name: p.string().length(120),
});
/** Columns of a reference within the pantry: of the two only the second is its own. */
const within = (column: string) => ["pantry_id", column] as const;
const named = (table: string, column: string) => `${table}_${column}_foreign`;
const inheritable = () => ({
  level: p.integer().nullable(),
  icon: p.string().length(80).nullable(),
  stack: p.integer().nullable(),
  mass: p.double().nullable(),
  buy: p.double().nullable(),
  sell: p.double().nullable(),
});
const uniqueKey = (table: string) => [
  { name: `${table}_key_unique`, properties: ["pantry", "key"] as never, deferMode: "deferred" as const },
];

/** Taking a record out asks who refers to it: without these each answer would read the whole table. */
const sought = (table: string, ...columns: readonly (readonly [property: string, column: string])[]) =>
  columns.map(([property, column]) => ({ name: `${table}_${column}_index`, properties: [property] as never }));

export const CurrencyRow = defineEntity({
  name: "CurrencyRow",
  tableName: "currency",
  uniques: uniqueKey("currency"),
  properties: { ...base(), symbol: p.string().length(12), worth: p.double() },
});
export const RarityRow = defineEntity({
  name: "RarityRow",
  tableName: "rarity",
  uniques: uniqueKey("rarity"),
  properties: { ...base(), rank: p.integer(), colour: p.string().length(7) },
});
export const StatRow = defineEntity({
  name: "StatRow",
  tableName: "stat",
  uniques: uniqueKey("stat"),
  properties: {
    ...base(),
    unit: p.string().length(20),
    form: p.string().length(10),
    better: p.string().length(10),
    min: p.double().nullable(),
    max: p.double().nullable(),
  },
});
export const TagRow = defineEntity({ name: "TagRow", tableName: "tag", uniques: uniqueKey("tag"), properties: base() });
export const TypeRow = defineEntity({
  name: "TypeRow",
  tableName: "item_type",
  uniques: uniqueKey("item_type"),
  indexes: sought("item_type", ["parent", "parent_id"]),
  properties: {
    ...base(),
    parent: () =>
      p
        .manyToOne(TypeRow)
        .nullable()
        .joinColumns(...within("parent_id"))
        .ownColumns("parent_id")
        .foreignKeyName(named("item_type", "parent_id"))
        .deleteRule("no action")
        .deferMode(later),
    colour: p.string().length(7),
    ...inheritable(),
  },
});
/** What belongs to a record and goes with it. */
const part =
  <E>(of: () => E, table: string, column: string) =>
  () =>
    p
      .manyToOne(of() as never)
      .primary()
      .joinColumns(...within(column))
      .ownColumns(column)
      .foreignKeyName(named(table, column))
      .updateRule("cascade")
      .deleteRule("cascade")
      .deferMode(later);
/** Another record of the pantry that must be there. */
const other = <E>(of: () => E, table: string, column: string) =>
  p
    .manyToOne(of() as never)
    .joinColumns(...within(column))
    .ownColumns(column)
    .foreignKeyName(named(table, column))
    .updateRule("cascade")
    .deleteRule("no action")
    .deferMode(later);

export const TypeStatRow = defineEntity({
  name: "TypeStatRow",
  tableName: "item_type_stat",
  indexes: sought("item_type_stat", ["stat", "stat_id"]),
  properties: {
    pantry: owner,
    type: part(() => TypeRow, "item_type_stat", "type_id"),
    stat: () => other(() => StatRow, "item_type_stat", "stat_id").primary(),
    value: p.double(),
  },
});
export const ItemRow = defineEntity({
  name: "ItemRow",
  tableName: "item",
  uniques: uniqueKey("item"),
  indexes: sought("item", ["type", "type_id"], ["rarity", "rarity_id"]),
  properties: {
    ...base(),
    type: () => other(() => TypeRow, "item", "type_id").nullable(),
    rarity: () => other(() => RarityRow, "item", "rarity_id").nullable(),
    ...inheritable(),
    description: p.text(),
    status: p.string().length(10),
    note: p.text(),
  },
});
export const ItemTagRow = defineEntity({
  name: "ItemTagRow",
  tableName: "item_tag",
  indexes: sought("item_tag", ["tag", "tag_id"]),
  properties: {
    pantry: owner,
    item: part(() => ItemRow, "item_tag", "item_id"),
    tag: () => other(() => TagRow, "item_tag", "tag_id").primary(),
    position: p.integer(),
  },
});
export const ItemStatRow = defineEntity({
  name: "ItemStatRow",
  tableName: "item_stat",
  indexes: sought("item_stat", ["stat", "stat_id"]),
  properties: {
    pantry: owner,
    item: part(() => ItemRow, "item_stat", "item_id"),
    stat: () => other(() => StatRow, "item_stat", "stat_id").primary(),
    value: p.double(),
  },
});
export const RecipeRow = defineEntity({
  name: "RecipeRow",
  tableName: "recipe",
  uniques: uniqueKey("recipe"),
  indexes: sought("recipe", ["feeCurrency", "fee_currency_id"], ["taughtBy", "taught_by_id"]),
  properties: {
    ...base(),
    kind: p.string().length(10),
    ticks: p.bigint("number"),
    fee: p.double(),
    feeCurrency: () => other(() => CurrencyRow, "recipe", "fee_currency_id").nullable(),
    level: p.integer().nullable(),
    taughtBy: () => other(() => ItemRow, "recipe", "taught_by_id").nullable(),
    status: p.string().length(10),
    note: p.text(),
  },
});
export const SourceRow = defineEntity({
  name: "SourceRow",
  tableName: "source",
  uniques: uniqueKey("source"),
  indexes: sought("source", ["currency", "currency_id"]),
  properties: {
    ...base(),
    kind: p.string().length(10),
    ticks: p.bigint("number"),
    price: p.double(),
    currency: () => other(() => CurrencyRow, "source", "currency_id").nullable(),
    note: p.text(),
  },
});
const line = (table: string) => ({
  position: p.integer().primary(),
  role: p.string().length(10),
  item: () => other(() => ItemRow, table, "item_id"),
  min: p.double(),
  max: p.double(),
  chance: p.double(),
  uses: p.integer().nullable(),
  draw: p.integer().nullable(),
  times: p.integer().nullable(),
  weight: p.double().nullable(),
  drawOf: p.double().nullable(),
});
export const RecipeLineRow = defineEntity({
  name: "RecipeLineRow",
  tableName: "recipe_line",
  indexes: sought("recipe_line", ["item", "item_id"]),
  properties: { pantry: owner, recipe: part(() => RecipeRow, "recipe_line", "recipe_id"), ...line("recipe_line") },
});
export const SourceLineRow = defineEntity({
  name: "SourceLineRow",
  tableName: "source_line",
  indexes: sought("source_line", ["item", "item_id"]),
  properties: { pantry: owner, source: part(() => SourceRow, "source_line", "source_id"), ...line("source_line") },
});
export const ChangeRow = defineEntity({
  name: "ChangeRow",
  tableName: "change",
  properties: {
    pantry: () => p.manyToOne(PantryRow).primary().deleteRule("cascade"),
    revision: p.integer().primary(),
    author: p.string().length(80),
    at: p.datetime(3),
    note: p.text(),
    /** The revision this change takes back. */
    undoes: p.integer().nullable(),
    edits: p.json(),
    /** Number of edits. */
    size: p.integer(),
    /** What it moved, kept for the log; can be computed again from the edits. */
    moved: p.json().nullable(),
  },
});

/** Which records a change touched, for a record's history. */
export const ChangeTouchRow = defineEntity({
  name: "ChangeTouchRow",
  tableName: "change_touch",
  indexes: [{ properties: ["pantry", "record"] as never, name: "change_touch_record_index" }],
  properties: {
    pantry: () => p.manyToOne(PantryRow).primary().deleteRule("cascade"),
    revision: p.integer().primary(),
    record: p.string().length(12).primary(),
  },
});

export const ENTITIES = [
  PantryRow,
  CurrencyRow,
  RarityRow,
  StatRow,
  TagRow,
  TypeRow,
  TypeStatRow,
  ItemRow,
  ItemTagRow,
  ItemStatRow,
  RecipeRow,
  RecipeLineRow,
  SourceRow,
  SourceLineRow,
  ChangeRow,
  ChangeTouchRow,
];
