/**
 * How the records of each kind stand in tables: one row with a column for each single value, and rows of a table of its
 * own
 * for each list. Every name of a table or column in a statement comes from here, none from what is written.
 */
import { type AnyRecord, type Field, FIELDS, type Id, type Kind, KINDS, type Line } from "../core/catalogue/records";

export type SqlType = "text" | "integer" | "bigint" | "double precision";
export interface Column {
  readonly name: string;
  readonly type: SqlType;
}
export interface Table {
  readonly name: string;
  readonly columns: readonly Column[];
}
/** Rows that belong to a record. */
export interface PartTable extends Table {
  /** The column with the record's id. */
  readonly owner: string;
  readonly field: string;
  /** Columns beside the owner's, in the order of the columns. */
  rows(value: never): (string | number | null)[][];
  value(rows: readonly Row[]): unknown;
  /** What the rows of a record are read in order of. */
  readonly order: string;
}
export interface KindTable extends Table {
  readonly kind: Kind;
  /** Field, and its column. */
  readonly fields: readonly (readonly [field: string, column: string])[];
  readonly parts: readonly PartTable[];
}
export interface Row {
  readonly [column: string]: unknown;
}

const snake = (name: string): string => name.replace(/[A-Z]/g, (c) => `_${c.toLowerCase()}`);
const column = (name: string, type: SqlType): Column => ({ name, type });

function single(name: string, field: Field): Column | null {
  if (field.as === "refs" || field.as === "stats" || field.as === "lines") return null;
  if (field.as === "ref") return column(`${snake(name)}_id`, "text");
  if (field.as === "number")
    return column(snake(name), field.whole ? (field.max > 2 ** 31 - 1 ? "bigint" : "integer") : "double precision");
  return column(snake(name), "text");
}

const part = (
  table: string,
  field: string,
  columns: readonly Column[],
  rows: (value: never) => (string | number | null)[][],
  value: (rows: readonly Row[]) => unknown,
  order: string,
): PartTable => {
  const owner = `${table.replace(/^item_type$/, "type")}_id`;
  return {
    name: `${table}_${field.replace(/s$/, "")}`,
    field,
    owner,
    columns: [column(owner, "text"), ...columns],
    rows,
    value,
    order,
  };
};

const LINE_COLUMNS = [
  column("position", "integer"),
  column("role", "text"),
  column("item_id", "text"),
  column("min", "double precision"),
  column("max", "double precision"),
  column("chance", "double precision"),
  column("uses", "integer"),
  column("draw", "integer"),
  column("times", "integer"),
  column("weight", "double precision"),
  column("draw_of", "double precision"),
];
const lineRow = ({ role, item, min, max, chance, uses, draw }: Line, position: number) => [
  position,
  role,
  item,
  min,
  max,
  chance,
  uses,
  draw?.group ?? null,
  draw?.times ?? null,
  draw?.weight ?? null,
  draw?.of ?? null,
];
const lineOf = (r: Row): Line =>
  ({
    role: r.role,
    item: r.item_id,
    min: r.min,
    max: r.max,
    chance: r.chance,
    uses: r.uses,
    ...(r.draw === null ? {} : { draw: { group: r.draw, times: r.times, weight: r.weight, of: r.draw_of } }),
  }) as Line;

function partsOf(table: string, [name, field]: readonly [string, Field]): PartTable[] {
  if (field.as === "stats")
    return [
      part(
        table,
        name,
        [column("stat_id", "text"), column("value", "double precision")],
        (stats: Readonly<Record<string, number>>) => Object.entries(stats),
        (rows) => Object.fromEntries(rows.map((r) => [r.stat_id, r.value])),
        "stat_id",
      ),
    ];
  if (field.as === "refs") {
    const to = `${field.to}_id`;
    return [
      part(
        table,
        name,
        [column(to, "text"), column("position", "integer")],
        (ids: readonly Id[]) => ids.map((id, position) => [id, position]),
        (rows) => rows.map((r) => r[to]),
        "position",
      ),
    ];
  }
  return field.as === "lines"
    ? [
        part(
          table,
          name,
          LINE_COLUMNS,
          (lines: readonly Line[]) => lines.map(lineRow),
          (rows) => rows.map(lineOf),
          "position",
        ),
      ]
    : [];
}

function tableOf(kind: Kind): KindTable {
  const name = kind === "type" ? "item_type" : kind;
  const all = Object.entries(FIELDS[kind]) as [string, Field][];
  const singles = all.flatMap(([field, of]) => {
    const found = single(field, of);
    return found ? [[field, found] as const] : [];
  });
  return {
    kind,
    name,
    columns: [column("id", "text"), ...singles.map(([, c]) => c)],
    fields: singles.map(([field, c]) => [field, c.name] as const),
    parts: all.flatMap((entry) => partsOf(name, entry)),
  };
}

export const TABLES: { readonly [K in Kind]: KindTable } = Object.fromEntries(
  KINDS.map((kind) => [kind, tableOf(kind)]),
) as never;

/** A record's row, columns as in its table. */
export const rowOf = (table: KindTable, record: AnyRecord): unknown[] => {
  const values = record as unknown as Record<string, unknown>;
  return [record.id, ...table.fields.map(([field]) => values[field])];
};

/** Records from the rows of their table and of its parts. */
export function recordsFrom(table: KindTable, rows: readonly Row[], parts: readonly (readonly Row[])[]): AnyRecord[] {
  const by = table.parts.map(({ owner }, k) => {
    const groups = new Map<string, Row[]>();
    for (const row of parts[k]) {
      const list = groups.get(row[owner] as string);
      if (list) list.push(row);
      else groups.set(row[owner] as string, [row]);
    }
    return groups;
  });
  return rows.map((row) => {
    const record: Record<string, unknown> = { id: row.id };
    for (const [field, name] of table.fields) record[field] = row[name];
    for (const [k, { field, value }] of table.parts.entries()) record[field] = value(by[k].get(row.id as string) ?? []);
    return record as unknown as AnyRecord;
  });
}
