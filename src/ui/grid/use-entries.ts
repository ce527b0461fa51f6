"use client";
/** What was typed into cells: written at once, shown while it is on its way, and kept where it can't be read. */
import { useState } from "react";
import type { Offer } from "../kit/refusal";
import type { Column } from "./columns";

export interface CellEntry<R> {
  readonly row: R;
  readonly column: string;
  readonly text: string;
}

/** Why entries were not written, and which of them can't be. */
export interface Refusal {
  readonly message: string;
  readonly faults: readonly { readonly at: number; readonly message: string }[];
  /** What can be created so that it is accepted. */
  readonly offer?: Offer;
}

/** Entries that wait because some of them can't be read: none is written until somebody says what becomes of them. */
export interface Held<R> {
  readonly entries: readonly CellEntry<R>[];
  /** By cell. */
  readonly faults: ReadonlyMap<string, string>;
}

interface EntriesOptions<R> {
  readonly columns: readonly Column<R>[];
  readonly keyOf: (row: R) => string;
  /** Writes what was typed; resolves to why, where it was refused. */
  readonly onWrite?: (entries: readonly CellEntry<R>[]) => Promise<Refusal | null>;
}

export interface Entries<R> {
  readonly held: Held<R> | null;
  /** Those that wait and can be read. */
  readonly readable: readonly CellEntry<R>[];
  readonly refusal: string | null;
  readonly setRefusal: (message: string | null) => void;
  readonly offer: Offer | null;
  readonly write: (entries: readonly CellEntry<R>[]) => Promise<void>;
  readonly discard: () => void;
  /** Creates what is missing and writes what waits for it. */
  readonly accept: () => Promise<void>;
  readonly editable: (row: R | undefined, column: Column<R>) => boolean;
  readonly cellOf: (entry: CellEntry<R>) => string;
  /** What a cell says, counting what was typed and is still on its way. */
  readonly textOf: (row: R, column: Column<R>) => string;
  /** What waits in a row, and why it can't be read: one per column, "" for all where nothing waits. */
  readonly waitingIn: (key: string) => { readonly waiting: string; readonly faults: string };
}

export function useEntries<R>({ columns, keyOf, onWrite }: EntriesOptions<R>): Entries<R> {
  const [pending, setPending] = useState<ReadonlyMap<string, string>>(new Map());
  const [held, setHeld] = useState<Held<R> | null>(null);
  const [refusal, setRefusal] = useState<string | null>(null);
  const [offer, setOffer] = useState<Offer | null>(null);

  const cellOf = (e: CellEntry<R>): string => `${keyOf(e.row)} ${e.column}`;
  const editable = (row: R | undefined, column: Column<R>): boolean =>
    row !== undefined && !!onWrite && !!column.edit && (column.edit.may?.(row) ?? true);

  /** What can't be read waits in its cells, together with what waited there already. */
  const hold = (more: Held<R>) =>
    setHeld((before) => {
      const cells = new Set(more.entries.map(cellOf));
      const rest = before?.entries.filter((e) => !cells.has(cellOf(e))) ?? [];
      const faults = new Map([...(before?.faults ?? [])].filter(([cell]) => !cells.has(cell)));
      return { entries: [...rest, ...more.entries], faults: new Map([...faults, ...more.faults]) };
    });
  /** Cells that were written wait no longer. */
  const settle = (cells: ReadonlySet<string>) =>
    setHeld((before) => {
      const entries = before?.entries.filter((e) => !cells.has(cellOf(e))) ?? [];
      if (!before || !entries.length) return null;
      return { entries, faults: new Map([...before.faults].filter(([cell]) => !cells.has(cell))) };
    });

  const write = async (entries: readonly CellEntry<R>[]) => {
    const wanted = entries.filter((e) => editable(e.row, columns.find((c) => c.id === e.column) as Column<R>));
    if (!wanted.length || !onWrite) return;
    const mine = wanted.map((e) => [cellOf(e), e.text] as const);
    setPending((all) => new Map([...all, ...mine]));
    const refused = await onWrite(wanted);
    setPending((all) => {
      const rest = new Map(all);
      for (const [key, text] of mine) if (rest.get(key) === text) rest.delete(key);
      return rest;
    });
    setOffer(refused?.offer ?? null);
    if (refused?.faults.length) {
      hold({
        entries: wanted,
        faults: new Map(refused.faults.map(({ at, message }) => [cellOf(wanted[at]), message])),
      });
      setRefusal(null);
    } else {
      settle(new Set(mine.map(([cell]) => cell)));
      setRefusal(refused?.message ?? null);
    }
  };

  const texts = held && new Map(held.entries.map((e) => [cellOf(e), e.text]));
  const waitingText = (cell: string): string | undefined => pending.get(cell) ?? texts?.get(cell);
  const inColumns = (message: (column: string) => string | undefined) =>
    columns.map(({ id }) => message(id) ?? "").join("\t");
  return {
    held,
    readable: held?.entries.filter((e) => !held.faults.has(cellOf(e))) ?? [],
    refusal,
    setRefusal,
    offer,
    write,
    discard: () => setHeld(null),
    accept: async () => {
      const message = (await offer?.run()) ?? null;
      setOffer(null);
      if (message === null) setHeld(null);
      setRefusal(message);
    },
    editable,
    cellOf,
    textOf: (row, column) => waitingText(`${keyOf(row)} ${column.id}`) ?? column.text(row),
    waitingIn: (key) => ({
      waiting: pending.size || held ? inColumns((id) => waitingText(`${key} ${id}`)) : "",
      faults: held ? inColumns((id) => held.faults.get(`${key} ${id}`)) : "",
    }),
  };
}
