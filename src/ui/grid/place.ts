/** Where the cursor of a grid is: on a row and a column by name, wherever someone else's changes move them. */

export interface Spot {
  readonly row: number;
  readonly column: number;
}

/** A spot and what was there. */
export interface Place extends Spot {
  /** Key of the row; null before anybody has been there. */
  readonly of: string | null;
  readonly under: string | null;
}

export const AT_FIRST: Place = { row: 0, column: 0, of: null, under: null };

/** What a grid shows at the moment. */
export interface Shown<R> {
  readonly rows: readonly R[];
  readonly columns: readonly { readonly id: string }[];
  readonly keyOf: (row: R) => string;
}

export function placeAt<R>({ rows, columns, keyOf }: Shown<R>, { row, column }: Spot): Place {
  const there = rows[row];
  return { row, column, of: there === undefined ? null : keyOf(there), under: columns[column]?.id ?? null };
}

/**
 * Where a place is now.
 * @returns its row and column; the nearest ones, and `lost`, where what was there is no longer shown
 */
export function whereIs<R>({ rows, columns, keyOf }: Shown<R>, place: Place): Spot & { readonly lost: boolean } {
  const row = indexOf(rows, place.row, (r) => keyOf(r) === place.of);
  const column = indexOf(columns, place.column, (c) => c.id === place.under);
  return {
    row: place.of !== null && row >= 0 ? row : Math.min(place.row, Math.max(0, rows.length - 1)),
    column: place.under !== null && column >= 0 ? column : Math.min(place.column, columns.length - 1),
    lost: (place.of !== null && row < 0) || (place.under !== null && column < 0),
  };
}

/** Usually nothing has moved. */
const indexOf = <T>(list: readonly T[], likely: number, is: (one: T) => boolean): number =>
  likely < list.length && is(list[likely]) ? likely : list.findIndex(is);
