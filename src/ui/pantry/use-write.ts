"use client";
/** Writes what was typed into one field; resolves to a sentence when it was refused. */
import type { Id, Kind } from "@/core/catalogue/records";
import { readEntry } from "../grid/entries";
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
