/** Columns of a grid, and rows in the order of one of them. */
import type { ReactNode } from "react";

export interface Column<R> {
  readonly id: string;
  readonly title: string;
  readonly width: number;
  readonly numeric?: boolean;
  /** Worked out by the program: shown so in the head. */
  readonly worked?: boolean;
  readonly cell: (row: R) => ReactNode;
  /** The cell as text, for copying, editing and screen readers. */
  readonly text: (row: R) => string;
  /** What rows are ordered by; null where the row has none. */
  readonly sort: (row: R) => number | string | null;
  /** Present when the cell can be edited; the names that complete what is typed, where it takes names. */
  readonly edit?: { readonly names?: (row: R) => readonly string[]; readonly may?: (row: R) => boolean };
}

export interface Order {
  readonly column: string;
  readonly down: boolean;
}

const compareValues = <T extends number | string>(a: T, b: T): number => (a < b ? -1 : a > b ? 1 : 0);

/**
 * The order of rows by a column (the first where there is no such one), ties by name and then by id. Rows without a value
 * come last, up or down.
 */
export function orderBy<R extends { readonly id: string; readonly name: string }>(
  columns: readonly Column<R>[],
  { column, down }: Order,
): { value(row: R): number | string | null; compare(a: R, b: R, va: Value, vb: Value): number } {
  const { sort } = columns.find((c) => c.id === column) ?? columns[0];
  const sign = down ? -1 : 1;
  return {
    value: sort,
    compare(a, b, va, vb) {
      const ties = () => compareValues(a.name, b.name) || compareValues(a.id, b.id);
      if (va === null || vb === null) return Number(va === null) - Number(vb === null) || ties();
      return sign * compareValues(va, vb) || ties();
    },
  };
}
type Value = number | string | null;

/** The rows by a column. */
export function ordered<R extends { readonly id: string; readonly name: string }>(
  rows: readonly R[],
  columns: readonly Column<R>[],
  order: Order,
): R[] {
  const { value, compare } = orderBy(columns, order);
  return rows
    .map((row) => ({ row, value: value(row) }))
    .sort((a, b) => compare(a.row, b.row, a.value, b.value))
    .map(({ row }) => row);
}
