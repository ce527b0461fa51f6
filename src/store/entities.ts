/**
 * Tables as the schema generator wants them. Those of records follow from the kinds; explicit names throughout: nothing here
 * depends on class names that a minifier may change.
 */
import { type AnyEntity, defineEntity, type EntitySchema, p } from "@mikro-orm/core";
import { DEFINITIONS, PANTRY } from "../core/kinds/index";
import type { Column } from "../core/schema/field";
import type { Kind as Definition } from "../core/schema/kind";
import { type KindTable, type PartTable, type Table, tableOf } from "./tables";

type Entity = EntitySchema<AnyEntity>;
/** What the entity of a table is called. */
export const rowName = (table: string): string => `${table}_row`;
type Property = { primary(): Property; nullable(): Property };
type Properties = { [name: string]: unknown };

function single({ type, length, nullable }: Column): Property {
  const make = {
    text: () => (length ? p.string().length(length) : p.text()),
    boolean: () => p.boolean(),
    integer: () => p.integer(),
    bigint: () => p.bigint("number"),
    "double precision": () => p.double(),
  };
  const property = make[type]() as unknown as Property;
  return nullable ? property.nullable() : property;
}

/** What the program itself reads and writes of a pantry; its settings are columns beside these (see tables.ts). */
export interface PantryRowOf {
  id: string;
  key: string;
  name: string;
  revision: number;
}

const settings: Properties = Object.fromEntries(PANTRY.shape.columns.map((c) => [c.name, single(c)]));
export const PantryRow = defineEntity({
  name: "PantryRow",
  tableName: "pantry",
  properties: {
    ...settings,
    id: p.string().length(12).primary(),
    key: p.string().length(90).unique(),
    revision: p.integer().default(0),
  },
}) as unknown as EntitySchema<PantryRowOf>;

/**
 * A record is known by its pantry and its id, and refers to others by both: the database itself refuses a reference from
 * one pantry into another, and no statement can reach another pantry's row by its id alone.
 */
const owner = () => p.manyToOne(PantryRow).primary().deleteRule("cascade");
const constraint = (table: string, column: string) => `${table}_${column}_foreign`;
/** A reference within the pantry: of its columns all but the pantry's are its own. */
const within = (of: Entity, table: string, columns: readonly string[], keys: readonly string[] = ["id"]) =>
  p
    .manyToOne(of as never)
    .joinColumns("pantry_id", ...columns)
    .referencedColumnNames("pantry_id", ...keys)
    .ownColumns(...columns)
    .foreignKeyName(constraint(table, columns[columns.length - 1]))
    .updateRule("cascade")
    .deferMode("deferred" as const);

/** The entities of some kinds, each with its parts. */
export function entitiesOf(kinds: readonly Definition[]): Entity[] {
  const tables = kinds.map(tableOf);
  const entities = new Map<string, Entity>();
  const all: readonly Table[] = tables.flatMap((t) => [t, ...t.parts]);
  const byKind = new Map(tables.map((t) => [t.kind, t.name]));
  /** Types of the columns that point to the table above. */
  const typesOf = (table: PartTable) => [
    "varchar(12)",
    ...table.link.map((name) =>
      table.columns.find((c) => c.name === name)?.type === "integer" ? "int" : "varchar(12)",
    ),
  ];
  const keysOf = (name: string) => all.find((t) => t.name === name)?.keys;
  const entityOf = (table: string): Entity => entities.get(table) as Entity;

  const properties = ({ name, columns, keys }: Table, skip: readonly string[]): Properties => {
    const made: Properties = {};
    for (const column of columns) {
      if (skip.includes(column.name)) continue;
      const key = keys.includes(column.name);
      const to = column.to && byKind.get(column.to);
      const property = to
        ? () => {
            const link = within(entityOf(to), name, [column.name]).deleteRule("no action") as unknown as Property;
            return key ? link.primary() : column.nullable ? link.nullable() : link;
          }
        : key
          ? single(column).primary()
          : single(column);
      made[to ? column.name.replace(/_id$/, "") : column.name] = property;
    }
    return made;
  };
  /** Taking a record out asks who refers to it: without these each answer would read the whole table. */
  const indexes = ({ name, columns }: Table) =>
    columns.flatMap((c) =>
      c.to ? [{ name: `${name}_${c.name}_index`, properties: [c.name.replace(/_id$/, "")] as never }] : [],
    );
  const ofKind = (table: KindTable): Entity =>
    defineEntity({
      name: rowName(table.name),
      tableName: table.name,
      uniques: [{ name: `${table.name}_key_unique`, properties: ["pantry", "key"] as never, deferMode: "deferred" }],
      indexes: indexes(table),
      properties: { pantry: owner, ...properties(table, []) } as never,
    }) as unknown as Entity;
  const ofPart = (table: PartTable): Entity =>
    defineEntity({
      name: rowName(table.name),
      tableName: table.name,
      indexes: indexes(table),
      properties: {
        pantry: owner,
        above: () =>
          within(entityOf(table.above), table.name, table.link, keysOf(table.above))
            .columnTypes(...typesOf(table))
            .primary()
            .deleteRule("cascade"),
        ...properties(table, table.link),
      } as never,
    }) as unknown as Entity;

  for (const table of tables) {
    entities.set(table.name, ofKind(table));
    for (const part of table.parts) entities.set(part.name, ofPart(part));
  }
  return [...entities.values()];
}

export const ChangeRow = defineEntity({
  name: "ChangeRow",
  tableName: "change",
  properties: {
    pantry: owner,
    revision: p.integer().primary(),
    author: p.string().length(80),
    at: p.datetime(3),
    note: p.text(),
    /** The revision this change takes back. */
    undoes: p.integer().nullable(),
    /** The first of its edits; those of a large change go on in parts. */
    edits: p.json(),
    /** Number of edits. */
    size: p.integer(),
    /** What it moved, kept for the log; can be computed again from the edits. */
    moved: p.json().nullable(),
  },
});

/** Further edits of a large change, in order. */
export const ChangePartRow = defineEntity({
  name: "ChangePartRow",
  tableName: "change_part",
  properties: {
    pantry: owner,
    revision: p.integer().primary(),
    part: p.integer().primary(),
    edits: p.json(),
  },
});

/** Which records a change touched, for a record's history. */
export const ChangeTouchRow = defineEntity({
  name: "ChangeTouchRow",
  tableName: "change_touch",
  indexes: [{ properties: ["pantry", "record"] as never, name: "change_touch_record_index" }],
  properties: {
    pantry: owner,
    revision: p.integer().primary(),
    record: p.string().length(12).primary(),
  },
});

/** Pictures that people brought for their items, by the hash of their bytes. */
export const PictureRow = defineEntity({
  name: "PictureRow",
  tableName: "picture",
  properties: {
    pantry: owner,
    hash: p.string().length(24).primary(),
    type: p.string().length(20),
    bytes: p.blob(),
  },
});

const KIND_DEFINITIONS = Object.values(DEFINITIONS) as unknown as Definition[];
/** All tables that follow from kinds. */
export const ENTITY_TABLES: readonly Table[] = KIND_DEFINITIONS.map(tableOf).flatMap((t) => [t, ...t.parts]);
export const LOG = [ChangeRow, ChangePartRow, ChangeTouchRow, PictureRow];
export const ENTITIES = [PantryRow, ...entitiesOf(KIND_DEFINITIONS), ...LOG];
