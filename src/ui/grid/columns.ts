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

/**
 * The rows by a column (the first where there is no such one), ties by name. Rows without a value come last, up or
 * down.
 */
export function ordered<R extends { readonly name: string }>(
  rows: readonly R[],
  columns: readonly Column<R>[],
  { column, down }: Order,
): R[] {
  const { sort } = columns.find((c) => c.id === column) ?? columns[0];
  const sign = down ? -1 : 1;
  const compare = <T extends number | string>(a: T, b: T) => (a < b ? -1 : a > b ? 1 : 0);
  return rows
    .map((row) => ({ row, value: sort(row) }))
    .sort((a, b) => {
      if (a.value === null || b.value === null)
        return Number(a.value === null) - Number(b.value === null) || compare(a.row.name, b.row.name);
      return sign * compare(a.value, b.value) || compare(a.row.name, b.row.name);
    })
    .map(({ row }) => row);
}
