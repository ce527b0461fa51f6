"use client";
/** Text typed into cells: saved at once, shown while it is being saved, and kept in its cell if it is invalid. */
import { useState } from "react";
import type { Offer } from "../kit/refusal";
import type { Column } from "./columns";

export interface CellEntry<R> {
  readonly row: R;
  readonly column: string;
  readonly text: string;
}

/** Why entries were not saved, and which of them are invalid. */
export interface Refusal {
  readonly message: string;
  readonly faults: readonly { readonly at: number; readonly message: string }[];
  /** What can be created so that it is accepted. */
  readonly offer?: Offer;
}

/** Entries that are not saved because some are invalid, until the user saves the others or discards them. */
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
  /** Held entries that are valid. */
  readonly readable: readonly CellEntry<R>[];
  readonly refusal: string | null;
  readonly setRefusal: (message: string | null) => void;
  readonly offer: Offer | null;
  readonly write: (entries: readonly CellEntry<R>[]) => Promise<void>;
  readonly discard: () => void;
  /** Creates the missing records and saves the held entries. */
  readonly accept: () => Promise<void>;
  readonly editable: (row: R | undefined, column: Column<R>) => boolean;
  readonly cellOf: (entry: CellEntry<R>) => string;
  /** The text of a cell, including text that is still being saved. */
  readonly textOf: (row: R, column: Column<R>) => string;
  /** Held text of a row and its errors, one per column; "" if nothing is held. */
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

  /** Adds entries to those that are held. */
  const hold = (more: Held<R>) =>
    setHeld((before) => {
      const cells = new Set(more.entries.map(cellOf));
      const rest = before?.entries.filter((e) => !cells.has(cellOf(e))) ?? [];
      const faults = new Map([...(before?.faults ?? [])].filter(([cell]) => !cells.has(cell)));
      return { entries: [...rest, ...more.entries], faults: new Map([...faults, ...more.faults]) };
    });
  /** Removes saved cells from the held entries. */
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
  const inColumns = (textOf: (column: string) => string | undefined) =>
    columns.map(({ id }) => textOf(id) ?? "").join("\t");
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
