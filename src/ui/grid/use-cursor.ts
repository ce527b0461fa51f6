"use client";
/** The cursor and selection of a grid. They stay on their records and columns when changes move these. */
import { useEffect, useMemo, useRef, useState } from "react";
import type { Column } from "./columns";
import { AT_FIRST, type Place, placeAt, type Spot, whereIs } from "./place";

/** The same array each time, so that an empty selection is reported once. */
const NONE: readonly unknown[] = [];

interface CursorOptions<R> {
  readonly rows: readonly R[];
  readonly columns: readonly Column<R>[];
  readonly keyOf: (row: R) => string;
  /** The cell being edited, which holds the cursor. */
  readonly typing: Place | null;
  readonly onSelection?: (rows: readonly R[]) => void;
}

/** Rows and columns from … to, both included. */
export interface Block {
  readonly top: number;
  readonly bottom: number;
  readonly left: number;
  readonly right: number;
}

export interface Cursor {
  readonly at: Spot & { readonly lost: boolean };
  /** Whether a range is selected, not just one cell. */
  readonly extended: boolean;
  readonly block: Block;
  /** All selected cells, row by row. */
  readonly cells: () => Spot[];
  /** The nearest existing cell. */
  readonly within: (spot: Spot) => Spot;
  readonly put: (spot: Spot, extend?: boolean) => void;
  readonly selectAll: () => void;
  readonly narrow: () => void;
}

export function useCursor<R>({ rows, columns, keyOf, typing, onSelection }: CursorOptions<R>): Cursor {
  const [place, setPlace] = useState<Place>(AT_FIRST);
  const [anchor, setAnchor] = useState<Place | null>(null);
  const shown = { rows, columns, keyOf };
  // biome-ignore lint/correctness/useExhaustiveDependencies: a row has the same key whoever asks
  const at = useMemo(() => whereIs(shown, typing ?? place), [rows, columns, place, typing]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: as above
  const other = useMemo(() => (anchor ? whereIs(shown, anchor) : at), [rows, columns, anchor, at]);
  const block = {
    top: Math.min(at.row, other.row),
    bottom: Math.max(at.row, other.row),
    left: Math.min(at.column, other.column),
    right: Math.max(at.column, other.column),
  };

  // Report the selected rows when the selection changes.
  const chosen = anchor && other.row !== at.row ? `${block.top} ${block.bottom}` : "";
  // biome-ignore lint/correctness/useExhaustiveDependencies: reported when other rows are selected, not when they change
  useEffect(() => {
    onSelection?.(chosen ? rows.slice(block.top, block.bottom + 1) : (NONE as readonly R[]));
  }, [chosen, rows]);

  return {
    at,
    extended: anchor !== null,
    block,
    cells: () => {
      const list: Spot[] = [];
      for (let row = block.top; row <= block.bottom; row++)
        for (let column = block.left; column <= block.right; column++) list.push({ row, column });
      return list;
    },
    within: ({ row, column }) => ({
      row: Math.max(0, Math.min(rows.length - 1, row)),
      column: Math.max(0, Math.min(columns.length - 1, column)),
    }),
    put: (spot, extend = false) => {
      setAnchor(extend ? (anchor ?? placeAt(shown, at)) : null);
      setPlace(placeAt(shown, spot));
    },
    selectAll: () => {
      setAnchor(placeAt(shown, { row: 0, column: 0 }));
      setPlace(placeAt(shown, { row: rows.length - 1, column: columns.length - 1 }));
    },
    narrow: () => setAnchor(null),
  };
}

interface ActiveRowOptions<R> {
  readonly rows: readonly R[];
  readonly keyOf: (row: R) => string;
  readonly activeKey?: string | null;
  readonly onActive?: (row: R) => void;
  /** A selection from outside (an address, another view) brings its row into sight. */
  readonly onElsewhere: (index: number) => void;
}

/**
 * Reports the row the cursor is on, and follows selections made elsewhere.
 * @returns `report`: after a delay [ms], 0 for a click, longer while keys move the cursor; `cancel`: drops a report that
 *   is still delayed, when the focus leaves the grid
 */
export function useActiveRow<R>({ rows, keyOf, activeKey, onActive, onElsewhere }: ActiveRowOptions<R>): {
  readonly report: (row: R, delay?: number) => void;
  readonly cancel: () => void;
} {
  const wasActive = useRef<string | null | undefined>(undefined);
  // A reported row comes back through the address a moment later; by then the cursor may be further on.
  const reported = useRef<string[]>([]);
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const follow = useRef(onElsewhere);
  follow.current = onElsewhere;
  useEffect(() => () => clearTimeout(timer.current), []);
  useEffect(() => {
    if (activeKey === wasActive.current) return;
    wasActive.current = activeKey;
    const echo = activeKey ? reported.current.indexOf(activeKey) : -1;
    if (echo >= 0) {
      reported.current.splice(0, echo + 1);
      return;
    }
    const index = activeKey ? rows.findIndex((r) => keyOf(r) === activeKey) : -1;
    if (index >= 0) follow.current(index);
  }, [activeKey, rows, keyOf]);
  return {
    report: (row, delay = 0) => {
      clearTimeout(timer.current);
      timer.current = setTimeout(() => {
        reported.current.push(keyOf(row));
        onActive?.(row);
      }, delay);
    },
    cancel: () => clearTimeout(timer.current),
  };
}
