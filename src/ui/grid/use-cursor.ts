"use client";
/** The cursor of a grid and what is selected: on records and columns by name, wherever changes move them. */
import { useEffect, useMemo, useRef, useState } from "react";
import type { Column } from "./columns";
import { AT_FIRST, type Place, placeAt, type Spot, whereIs } from "./place";

/** The same each time, so that nobody is told of what they know. */
const NONE: readonly unknown[] = [];

interface CursorOptions<R> {
  readonly rows: readonly R[];
  readonly columns: readonly Column<R>[];
  readonly keyOf: (row: R) => string;
  /** The cell that is typed into: the cursor is there meanwhile. */
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
  /** Whether more than the cursor's cell is selected. */
  readonly extended: boolean;
  readonly block: Block;
  /** All that is selected, row by row. */
  readonly cells: () => Spot[];
  /** Nearest spot there is. */
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

  // Who acts on what is selected is told of it, once it is another.
  const chosen = anchor && other.row !== at.row ? `${block.top} ${block.bottom}` : "";
  // biome-ignore lint/correctness/useExhaustiveDependencies: told when other rows are selected, not when they change
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
 * Tells which row the cursor is on, and follows what others select.
 * @returns `tell`: at once after a click, after a moment of rest [ms] when keys move the cursor; `hush`: leaving for
 *   elsewhere must not be overtaken by a selection that was still resting
 */
export function useActiveRow<R>({ rows, keyOf, activeKey, onActive, onElsewhere }: ActiveRowOptions<R>): {
  readonly tell: (row: R, rest?: number) => void;
  readonly hush: () => void;
} {
  const wasActive = useRef<string | null | undefined>(undefined);
  // What we told ourselves comes back a moment later through the address; by then the cursor may be further on.
  const told = useRef<string[]>([]);
  const soon = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const follow = useRef(onElsewhere);
  follow.current = onElsewhere;
  useEffect(() => () => clearTimeout(soon.current), []);
  useEffect(() => {
    if (activeKey === wasActive.current) return;
    wasActive.current = activeKey;
    const echo = activeKey ? told.current.indexOf(activeKey) : -1;
    if (echo >= 0) {
      told.current.splice(0, echo + 1);
      return;
    }
    const index = activeKey ? rows.findIndex((r) => keyOf(r) === activeKey) : -1;
    if (index >= 0) follow.current(index);
  }, [activeKey, rows, keyOf]);
  return {
    tell: (row, rest = 0) => {
      clearTimeout(soon.current);
      soon.current = setTimeout(() => {
        told.current.push(keyOf(row));
        onActive?.(row);
      }, rest);
    },
    hush: () => clearTimeout(soon.current),
  };
}
