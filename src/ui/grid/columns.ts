/** Columns of a grid, and rows in the order of one of them. */
import type { ReactNode } from "react";

export interface Column<R> {
  readonly id: string;
  readonly title: string;
  readonly width: number;
  readonly numeric?: boolean;
  /** Someone chose its width: it is not stretched. */
  readonly sized?: boolean;
  /** Computed by the program: shown so in the head. */
  readonly worked?: boolean;
  readonly cell: (row: R) => ReactNode;
  /** The cell as text, for copying, editing and screen readers. */
  readonly text: (row: R) => string;
  /** What rows are ordered by; null where the row has none. */
  readonly sort: (row: R) => number | string | null;
  /** Present when the cell can be edited; the names that complete what is typed, where it takes names. */
  readonly edit?: {
    readonly names?: (row: R) => readonly string[];
    readonly may?: (row: R) => boolean;
    /** Of yes and no: what Space makes of it. */
    readonly toggled?: (row: R) => string;
    /** A colour is picked as well as typed. */
    readonly colour?: boolean;
  };
}

export interface Order {
  readonly column: string;
  readonly down: boolean;
}

const compareValues = <T extends number | string>(a: T, b: T): number => (a < b ? -1 : a > b ? 1 : 0);

type Value = number | string | null;

/**
 * The order of rows by some columns, the first of them before the others (by the first column there is where none is
 * named), ties by name and then by id. Rows without a value come last, up or down.
 */
export function orderBy<R extends { readonly id: string; readonly name: string }>(
  columns: readonly Column<R>[],
  orders: readonly Order[],
): { values(row: R): readonly Value[]; compare(a: R, b: R, va: readonly Value[], vb: readonly Value[]): number } {
  const known = orders.filter((o) => columns.some((c) => c.id === o.column));
  const by = (known.length ? known : [{ column: columns[0].id, down: orders[0]?.down ?? false }]).map(
    ({ column, down }) => ({ sort: (columns.find((c) => c.id === column) as Column<R>).sort, sign: down ? -1 : 1 }),
  );
  return {
    values: (row) => by.map(({ sort }) => sort(row)),
    compare(a, b, va, vb) {
      for (const [k, { sign }] of by.entries()) {
        const [x, y] = [va[k], vb[k]];
        const found = x === null || y === null ? Number(x === null) - Number(y === null) : sign * compareValues(x, y);
        if (found) return found;
      }
      return compareValues(a.name, b.name) || compareValues(a.id, b.id);
    },
  };
}

/** The rows by some columns. */
export function ordered<R extends { readonly id: string; readonly name: string }>(
  rows: readonly R[],
  columns: readonly Column<R>[],
  orders: readonly Order[],
): R[] {
  const { values, compare } = orderBy(columns, orders);
  return rows
    .map((row) => ({ row, of: values(row) }))
    .sort((a, b) => compare(a.row, b.row, a.of, b.of))
    .map(({ row }) => row);
}

/** What pressing a head makes of an order: by it alone, or by it after the others; the other way round where it is there. */
export function pressedHead(orders: readonly Order[], column: string, also: boolean): readonly Order[] {
  const there = orders.find((o) => o.column === column);
  const next = { column, down: there ? !there.down : false };
  if (!also) return [next];
  return there ? orders.map((o) => (o === there ? next : o)) : [...orders, next];
}

/** How much of the room that is left the names get, and at most how many pixels. */
const [NAMES_SHARE, MOST_FOR_NAMES] = [0.5, 160];
/** A column grows by at most this share of its width. */
const MOST_GROWTH = 0.6;

/** Columns that fill the room there is: names first, the others in proportion to their width. */
export function stretched<C extends Pick<Column<never>, "id" | "width" | "sized">>(
  columns: readonly C[],
  room: number,
): readonly C[] {
  const extra = room - columns.reduce((sum, c) => sum + c.width, 0);
  if (extra <= 0) return columns;
  const names = columns.find((c) => c.id === "name" && !c.sized);
  const forNames = names ? Math.floor(Math.min(extra * NAMES_SHARE, MOST_FOR_NAMES)) : 0;
  const others = columns.filter((c) => c !== names && !c.sized);
  const widths = others.reduce((sum, c) => sum + c.width, 0);
  const growth = widths ? Math.min(MOST_GROWTH, (extra - forNames) / widths) : 0;
  return columns.map((c) =>
    c === names
      ? { ...c, width: c.width + forNames }
      : c.sized
        ? c
        : { ...c, width: c.width + Math.floor(c.width * growth) },
  );
}
