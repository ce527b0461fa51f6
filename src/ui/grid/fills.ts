/** Writing all selected cells at once: cleared, filled down, or continued as a series. */
import { continued } from "./clipboard";
import type { Column } from "./columns";
import type { Spot } from "./place";
import type { Cursor } from "./use-cursor";
import type { Entries } from "./use-entries";

interface FillOptions<R> {
  readonly rows: readonly R[];
  readonly columns: readonly Column<R>[];
  readonly cursor: Cursor;
  readonly entries: Entries<R>;
}

export function fills<R>({ rows, columns, cursor, entries: { write, textOf } }: FillOptions<R>) {
  const { block } = cursor;
  const writeEach = (spots: readonly Spot[], text: (spot: Spot) => string) =>
    void write(spots.map((s) => ({ row: rows[s.row], column: columns[s.column].id, text: text(s) })));
  const clear = () => writeEach(cursor.cells(), () => "");
  const fill = () =>
    writeEach(
      cursor.cells().filter((s) => s.row > block.top),
      (s) => textOf(rows[block.top], columns[s.column]),
    );
  const fillOn = () => {
    const from = rows.slice(block.top, block.bottom + 1);
    const series = columns.slice(block.left, block.right + 1).map((c) => continued(from.map((r) => textOf(r, c))));
    writeEach(cursor.cells(), (s) => series[s.column - block.left][s.row - block.top]);
  };
  return { clear, fill, fillOn };
}
