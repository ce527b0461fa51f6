"use client";
/** Writes what was typed, one write after the other; resolves to a sentence when it was refused. */
import { useCallback } from "react";
import type { Id } from "@/core/schema/id";
import type { Catalogue } from "@/core/catalogue/catalogue";
import type { Edit } from "@/core/catalogue/edit";
import { type Kind, kindWord } from "@/core/kinds/index";
import { list } from "@/core/numbers/format";
import type { Refused } from "../kit/refusal";
import type { PantryStore } from "./store";
import { type EntryFault, readEntries, readEntry } from "@/core/editing/entry";
import type { CellEntry, Refusal } from "../grid/use-entries";
import { useStore } from "./provider";

/** One field of one record or of the pantry itself. A name that does not exist yet can be created. */
export function useWrite(): (kind: Kind | "pantry", id: Id, field: string, text: string) => Promise<Refused | null> {
  const store = useStore();
  return useCallback(
    async (kind, id, field, text) => {
      const answer = await store.write((catalogue) => readEntry(catalogue, kind, id, field, text));
      if (answer.ok) return null;
      return withOffer(store, answer.message, (catalogue) => readEntry(catalogue, kind, id, field, text, true));
    },
    [store],
  );
}

/** What would be created, and writing it together with what was typed. */
export function withOffer(
  store: PantryStore,
  message: string,
  read: (catalogue: Catalogue) => { readonly edits: readonly Edit[] } | { readonly message: string },
): Refused {
  const { state } = store.snapshot();
  const all = state && read(state.catalogue);
  const made = all && "edits" in all ? all.edits.filter((e) => e.op === "add") : [];
  if (!made.length) return message;
  const names = made.map((e) => (e.op === "add" ? `${kindWord(e.kind)} ${e.record.name}` : ""));
  return {
    message,
    offer: {
      label: `Create ${list(names, 3)}`,
      run: async () => {
        const answer = await store.write(read);
        return answer.ok ? null : answer.message;
      },
    },
  };
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
      if (answer.ok) return null;
      const offered = withOffer(store, answer.message, (catalogue) =>
        readEntries(
          catalogue,
          entries.map((e) => ({ kind, id: e.row.id, field: e.column, text: e.text })),
          true,
        ),
      );
      return { message: answer.message, faults, ...(typeof offered === "string" ? {} : { offer: offered.offer }) };
    },
    [store, kind],
  );
}
