"use client";
/** Writes what was typed, one write after the other; resolves to a sentence when it was refused. */
import { useCallback } from "react";
import type { Id } from "@/core/schema/id";
import type { Kind } from "@/core/kinds/index";
import { type EntryFault, readEntries, readEntry } from "@/core/editing/entry";
import type { CellEntry, Refusal } from "../grid/grid";
import { useStore } from "./provider";

/** One field of one record or of the pantry itself. */
export function useWrite(): (kind: Kind | "pantry", id: Id, field: string, text: string) => Promise<string | null> {
  const store = useStore();
  return useCallback(
    async (kind, id, field, text) => {
      const answer = await store.write((catalogue) => readEntry(catalogue, kind, id, field, text));
      return answer.ok ? null : answer.says;
    },
    [store],
  );
}

/** The cells of a grid of one kind of record, all or none; resolves to which of them can't be read. */
export function useWriteCells(
  kind: Kind,
): (entries: readonly CellEntry<{ readonly id: Id }>[]) => Promise<Refusal | null> {
  const store = useStore();
  return useCallback(
    async (entries) => {
      let faults: readonly EntryFault[] = [];
      const answer = await store.write((catalogue) => {
        const read = readEntries(
          catalogue,
          entries.map((e) => ({ kind, id: e.row.id, field: e.column, text: e.text })),
        );
        if ("faults" in read) faults = read.faults;
        return read;
      });
      return answer.ok ? null : { says: answer.says, faults };
    },
    [store, kind],
  );
}
