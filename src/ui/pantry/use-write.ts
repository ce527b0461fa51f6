"use client";
/** Writes what was typed into one field; resolves to a sentence when it was refused. */
import type { Id, Kind } from "@/core/catalogue/records";
import { readEntries, readEntry } from "../grid/entries";
import type { Entry } from "../grid/grid";
import { useLive, useStore } from "./provider";

export function useWrite(): (kind: Kind, id: Id, field: string, text: string) => Promise<string | null> {
  const { catalogue } = useLive();
  const store = useStore();
  return async (kind, id, field, text) => {
    const read = readEntry(catalogue, kind, id, field, text);
    if ("says" in read) return read.says;
    const answer = await store.submit(read.edits);
    return answer.ok ? null : answer.says;
  };
}

/** Writes the cells of a grid of one kind of record, all or none; resolves to a sentence when they were refused. */
export function useWriteCells(kind: Kind): (entries: readonly Entry<{ readonly id: Id }>[]) => Promise<string | null> {
  const { catalogue } = useLive();
  const store = useStore();
  return async (entries) => {
    const read = readEntries(catalogue, entries.map((e) => ({ kind, id: e.row.id, field: e.column, text: e.text })));
    if ("says" in read) return read.says;
    const answer = await store.submit(read.edits);
    return answer.ok ? null : answer.says;
  };
}
