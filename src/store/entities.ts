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

const base = () => ({
  id: p.string().length(12).primary(),
  pantry: () => p.manyToOne(PantryRow).deleteRule("cascade").index(),
  key: p.string().length(90),
  name: p.string().length(120),
});
const inheritable = () => ({
  level: p.integer().nullable(),
  icon: p.string().length(80).nullable(),
  stack: p.integer().nullable(),
  mass: p.double().nullable(),
  buy: p.double().nullable(),
  sell: p.double().nullable(),
});
const uniqueKey = (table: string) => [{ name: `${table}_key_unique`, properties: ["pantry", "key"] as never, deferMode: "deferred" as const }];
const later = "deferred" as const;

export const CurrencyRow = defineEntity({ name: "CurrencyRow", tableName: "currency", uniques: uniqueKey("currency"), properties: { ...base(), symbol: p.string().length(12), worth: p.double() } });
export const RarityRow = defineEntity({ name: "RarityRow", tableName: "rarity", uniques: uniqueKey("rarity"), properties: { ...base(), rank: p.integer(), colour: p.string().length(7) } });
export const StatRow = defineEntity({
  name: "StatRow",
  tableName: "stat",
  uniques: uniqueKey("stat"),
  properties: { ...base(), unit: p.string().length(20), form: p.string().length(10), better: p.string().length(10), min: p.double().nullable(), max: p.double().nullable() },
});
export const TagRow = defineEntity({ name: "TagRow", tableName: "tag", uniques: uniqueKey("tag"), properties: base() });
export const TypeRow = defineEntity({
  name: "TypeRow",
  tableName: "item_type",
  uniques: uniqueKey("item_type"),
  properties: { ...base(), parent: () => p.manyToOne(TypeRow).nullable().deleteRule("no action").deferMode(later), colour: p.string().length(7), ...inheritable() },
});
export const TypeStatRow = defineEntity({
  name: "TypeStatRow",
  tableName: "item_type_stat",
  properties: {
    type: () => p.manyToOne(TypeRow).primary().deleteRule("cascade").deferMode(later),
    stat: () => p.manyToOne(StatRow).primary().deferMode(later),
    value: p.double(),
  },
});
export const ItemRow = defineEntity({
  name: "ItemRow",
  tableName: "item",
  uniques: uniqueKey("item"),
  properties: {
    ...base(),
    type: () => p.manyToOne(TypeRow).nullable().deleteRule("no action").deferMode(later),
    rarity: () => p.manyToOne(RarityRow).nullable().deleteRule("no action").deferMode(later),
    ...inheritable(),
    description: p.text(),
    status: p.string().length(10),
    note: p.text(),
  },
});
export const ItemTagRow = defineEntity({
  name: "ItemTagRow",
  tableName: "item_tag",
  properties: {
    item: () => p.manyToOne(ItemRow).primary().deleteRule("cascade").deferMode(later),
    tag: () => p.manyToOne(TagRow).primary().deferMode(later),
    position: p.integer(),
  },
});
export const ItemStatRow = defineEntity({
  name: "ItemStatRow",
  tableName: "item_stat",
  properties: {
    item: () => p.manyToOne(ItemRow).primary().deleteRule("cascade").deferMode(later),
    stat: () => p.manyToOne(StatRow).primary().deferMode(later),
    value: p.double(),
  },
});
export const RecipeRow = defineEntity({
  name: "RecipeRow",
  tableName: "recipe",
  uniques: uniqueKey("recipe"),
  properties: {
    ...base(),
    kind: p.string().length(10),
    ticks: p.bigint("number"),
    fee: p.double(),
    feeCurrency: () => p.manyToOne(CurrencyRow).nullable().deleteRule("no action").deferMode(later),
    level: p.integer().nullable(),
    taughtBy: () => p.manyToOne(ItemRow).nullable().deleteRule("no action").deferMode(later),
    status: p.string().length(10),
    note: p.text(),
  },
});
export const SourceRow = defineEntity({
  name: "SourceRow",
  tableName: "source",
  uniques: uniqueKey("source"),
  properties: { ...base(), kind: p.string().length(10), ticks: p.bigint("number"), price: p.double(), currency: () => p.manyToOne(CurrencyRow).nullable().deleteRule("no action").deferMode(later), note: p.text() },
});
const line = () => ({ position: p.integer().primary(), role: p.string().length(10), item: () => p.manyToOne(ItemRow).deferMode(later).index(), min: p.double(), max: p.double(), chance: p.double(), uses: p.integer().nullable(), draw: p.integer().nullable(), times: p.integer().nullable(), weight: p.double().nullable(), drawOf: p.double().nullable() });
export const RecipeLineRow = defineEntity({ name: "RecipeLineRow", tableName: "recipe_line", properties: { recipe: () => p.manyToOne(RecipeRow).primary().deleteRule("cascade").deferMode(later), ...line() } });
export const SourceLineRow = defineEntity({ name: "SourceLineRow", tableName: "source_line", properties: { source: () => p.manyToOne(SourceRow).primary().deleteRule("cascade").deferMode(later), ...line() } });
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
  properties: { pantry: () => p.manyToOne(PantryRow).primary().deleteRule("cascade"), revision: p.integer().primary(), record: p.string().length(12).primary() },
});

export const ENTITIES = [PantryRow, CurrencyRow, RarityRow, StatRow, TagRow, TypeRow, TypeStatRow, ItemRow, ItemTagRow, ItemStatRow, RecipeRow, RecipeLineRow, SourceRow, SourceLineRow, ChangeRow, ChangeTouchRow];
