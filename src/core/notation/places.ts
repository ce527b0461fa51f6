/** Places of a pattern: a grid of at most 5×5, a bit for each; row by row, five to a row whatever its width. */
import type { Grid, Line } from "./line";

export const WIDEST = 5;
const ALL = WIDEST * WIDEST;
export const MOST_CELLS = 2 ** ALL - 1;

export const cellAt = (row: number, column: number): number => 1 << (row * WIDEST + column);

/** Rows and columns of the places, in reading order. */
export function placesOf(cells: number): { readonly row: number; readonly column: number }[] {
  const found: { row: number; column: number }[] = [];
  for (let k = 0; k < ALL; k++) if (cells & (1 << k)) found.push({ row: Math.floor(k / WIDEST), column: k % WIDEST });
  return found;
}
export const countCells = (cells: number): number => placesOf(cells).length;

/** "A1": the column as a letter, the row as a number. */
export const sayCell = ({ row, column }: { row: number; column: number }): string =>
  `${String.fromCharCode(65 + column)}${row + 1}`;
/** The bit of "A1"; 0 where it is no place. */
export function readCell(text: unknown): number {
  const [, column, row] = (typeof text === "string" && /^([A-Ea-e])([1-5])$/.exec(text)) || [];
  return column ? cellAt(Number(row) - 1, column.toUpperCase().charCodeAt(0) - 65) : 0;
}

/** How large the grid is: as it says, and at least what stands in it. */
export function sizeOf(
  { width, height }: Grid,
  lines: readonly Pick<Line, "cells">[],
): { width: number; height: number } {
  const all = placesOf(lines.reduce((bits, { cells }) => bits | (cells ?? 0), 0));
  return {
    width: Math.max(width, ...all.map((p) => p.column + 1)),
    height: Math.max(height, ...all.map((p) => p.row + 1)),
  };
}

/** What stands in each place of the grid, row by row; null: nothing does. */
export function grid<L extends Pick<Line, "cells">>(of: Grid, lines: readonly L[]): (L | null)[][] {
  const { width, height } = sizeOf(of, lines);
  return Array.from({ length: height }, (_, row) =>
    Array.from({ length: width }, (_, column) => lines.find((l) => (l.cells ?? 0) & cellAt(row, column)) ?? null),
  );
}

export const NO_GRID: Grid = { width: 0, height: 0, shifted: false, mirrored: false, turned: false };
/** Of two things that are combined the first and the second. */
export const PAIR = [cellAt(0, 0), cellAt(0, 1)] as const;
