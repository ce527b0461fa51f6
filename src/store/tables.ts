/**
 * How records stand in tables; follows from the kinds. One row with a column for each single value, and rows of tables of
 * its own for what a record has many of, however deep. Every name of a table or column in a statement comes from here,
 * none from what is written.
 */
import { type AnyRecord, definition, type Kind, KINDS, PANTRY } from "../core/kinds/index";
import type { Column, RowTree, Scalar, TableShape } from "../core/schema/field";
import type { Kind as Definition } from "../core/schema/kind";

export interface Table {
  readonly name: string;
  readonly columns: readonly Column[];
  /** What tells its rows apart, within the pantry. */
  readonly keys: readonly string[];
  /** What its rows are read in order of. */
  readonly order: readonly string[];
}
/** Rows that belong to a record, or to a row of another such table. */
export interface PartTable extends Table {
  /** The column with the record's id. */
  readonly owner: string;
  /** The table above: the kind's own or another part; and the columns that point there. */
  readonly above: string;
  readonly link: readonly string[];
}
export interface KindTable extends Table {
  readonly kind: string;
  /** Parts, each behind the one it belongs to. */
  readonly parts: readonly PartTable[];
}
export interface Row {
  readonly [column: string]: unknown;
}

const ID: Omit<Column, "name"> = { type: "text", length: 12, nullable: false };

export function tableOf({ name: kind, shape }: Definition): KindTable {
  const taken = (of: TableShape): boolean => of.columns.some((c) => c.name === `${kind}_id`) || of.parts.some(taken);
  const owner = shape.parts.some(taken) ? "owner_id" : `${kind}_id`;
  const parts: PartTable[] = [];
  const add = (above: string, link: readonly Column[], names: readonly string[], path: string, of: TableShape) => {
    const name = `${above}_${of.name}`;
    parts.push({
      name,
      columns: [...link, ...of.columns],
      keys: [...names, of.key],
      order: [...names, of.order],
      owner,
      above,
      link: names,
    });
    for (const child of of.parts) {
      const key = `${path}${of.name}_${of.key}`;
      const inherited: Column = { ...(of.columns.find((c) => c.name === of.key) as Column), name: key, to: undefined };
      add(name, [...link, inherited], [...names, key], `${path}${of.name}_`, child);
    }
  };
  for (const part of shape.parts) add(shape.name, [{ ...ID, name: owner }], [owner], "", part);
  return { kind, name: shape.name, columns: shape.columns, keys: ["id"], order: [shape.order], parts };
}

export const TABLES: { readonly [K in Kind]: KindTable } = Object.fromEntries(
  KINDS.map((kind) => [kind, tableOf(definition(kind))]),
) as never;

/** The settings of a pantry: its row without what the store adds. */
export const SETTINGS = PANTRY;
export const SETTINGS_TABLE: Table = tableOf(PANTRY as unknown as Definition);

/** The rows of a record: its own, and those of each part table. */
export interface RecordRows {
  readonly own: readonly Scalar[];
  readonly parts: readonly (readonly (readonly Scalar[])[])[];
}

/** A row with what points to it from the tables below. */
interface Linked {
  readonly row: RowTree;
  readonly link: readonly Scalar[];
}

const keyAt = (shape: TableShape): number => shape.columns.findIndex((c) => c.name === shape.key);

/** What a record becomes in the tables of its kind. */
export function rowsOf(of: Definition, record: { readonly id: AnyRecord["id"] }): RecordRows {
  const own = of.toRow(record);
  const parts: Scalar[][][] = [];
  const walk = (shapes: readonly TableShape[], above: readonly Linked[]) => {
    for (const [k, shape] of shapes.entries()) {
      const at = parts.push([]) - 1;
      const key = keyAt(shape);
      const below: Linked[] = [];
      for (const { row, link } of above)
        for (const each of row.parts[k] ?? []) {
          parts[at].push([...link, ...each.values]);
          if (shape.parts.length) below.push({ row: each, link: [...link, each.values[key]] });
        }
      walk(shape.parts, below);
    }
  };
  walk(of.shape.parts, [{ row: own, link: [record.id] }]);
  return { own: own.values, parts };
}

/** Records from the rows of their table and of its parts, columns as in the tables. */
export function recordsFrom(
  of: Definition,
  rows: readonly Scalar[][],
  parts: readonly (readonly Scalar[][])[],
): AnyRecord[] {
  const own = rows.map((values): RowTree => ({ values, parts: [] }));
  let at = 0;
  const walk = (shapes: readonly TableShape[], above: ReadonlyMap<string, RowTree>, links: number) => {
    for (const [k, shape] of shapes.entries()) {
      const below = new Map<string, RowTree>();
      const key = links + keyAt(shape);
      for (const row of above.values()) row.parts[k] = [];
      for (const values of parts[at++]) {
        const row: RowTree = { values: values.slice(links), parts: [] };
        above.get(link(values, links))?.parts[k].push(row);
        if (shape.parts.length) below.set(link([...values.slice(0, links), values[key]], links + 1), row);
      }
      walk(shape.parts, below, links + 1);
    }
  };
  walk(of.shape.parts, new Map(own.map((row) => [row.values[0] as string, row])), 1);
  return own.map((row) => of.fromRow(row) as unknown as AnyRecord);
}
const link = (values: readonly Scalar[], links: number): string =>
  links === 1 ? (values[0] as string) : JSON.stringify(values.slice(0, links));
