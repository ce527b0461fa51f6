"use client";
/** The cell being edited. It follows its record, and typed text is never lost if the record disappears. */
import { type RefObject, useEffect, useRef, useState } from "react";
import { type Place, placeAt, type Shown, type Spot } from "./place";

interface Editing {
  readonly place: Place;
  readonly text: string;
  /** The existing text is edited; otherwise it is replaced. */
  readonly keep: boolean;
  /** A record that was just created: Enter stays on it. */
  readonly fresh: boolean;
}

/** A cell to edit as soon as it is shown. */
export interface Begin {
  readonly key: string;
  readonly column: string;
}

export interface CellEditing<R> {
  readonly editing: Editing | null;
  /** The current text of the cell. */
  readonly typed: RefObject<string>;
  readonly start: (shown: Shown<R>, spot: Spot, text: string, how: { keep: boolean; fresh?: boolean }) => void;
  readonly end: () => void;
}

export function useEditing<R>(): CellEditing<R> {
  const [editing, setEditing] = useState<Editing | null>(null);
  const typed = useRef("");
  return {
    editing,
    typed,
    start: (shown, spot, text, { keep, fresh = false }) => {
      typed.current = text;
      setEditing({ place: placeAt(shown, spot), text, keep, fresh });
    },
    end: () => setEditing(null),
  };
}

/** Reports text typed into a row that disappeared: it is neither lost nor saved in another row. */
export function useAstray<R>(
  { editing, typed, end }: CellEditing<R>,
  lost: boolean,
  onAstray: (message: string | null) => void,
): void {
  const astray = editing !== null && lost;
  // biome-ignore lint/correctness/useExhaustiveDependencies: once per lost cell
  useEffect(() => {
    if (!astray) return;
    end();
    const changed = typed.current !== editing?.text || !editing.keep;
    onAstray(changed ? `“${typed.current}” was not saved, because its row is no longer shown.` : null);
  }, [astray]);
}

/** Begins to type into a cell once for each `begin`, as soon as its row is there. */
export function useBegin<R>(
  begin: Begin | null | undefined,
  { rows, columns, keyOf }: Shown<R>,
  onBegin: (spot: Spot) => void,
): void {
  const begun = useRef(begin);
  // biome-ignore lint/correctness/useExhaustiveDependencies: once for each, as soon as its row is there
  useEffect(() => {
    if (!begin || begun.current === begin) return;
    const to = {
      row: rows.findIndex((r) => keyOf(r) === begin.key),
      column: columns.findIndex((c) => c.id === begin.column),
    };
    if (to.row < 0 || to.column < 0) return;
    begun.current = begin;
    onBegin(to);
  }, [begin, rows, columns]);
}
