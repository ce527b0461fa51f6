"use client";
/** The revision that was last seen in an earlier visit, to tell what is new since. */
import { useEffect } from "react";
import { useStore, useView } from "./provider";

const seen = (pantry: string): string => `salty-seen-${pantry}`;
const visit = (pantry: string): string => `salty-visit-${pantry}`;
/** Kept where there was no earlier visit. */
const FIRST = "first";

const revisionOf = (text: string | null): number | null =>
  text !== null && /^\d{1,10}$/.test(text) ? Number(text) : null;

/**
 * The revision at the end of the last visit; null on the first one. It is kept for the window, so that reloading it
 * belongs to the same visit.
 */
export function lastVisit(pantry: string): number | null {
  try {
    const kept = sessionStorage.getItem(visit(pantry));
    if (kept !== null) return revisionOf(kept);
    const before = revisionOf(localStorage.getItem(seen(pantry)));
    sessionStorage.setItem(visit(pantry), before === null ? FIRST : String(before));
    return before;
  } catch {
    // Without storage every visit is the first one.
    return null;
  }
}

/** Keeps for the next visit how far this one has come. */
export function useVisit(): void {
  const { key } = useStore();
  const revision = useView(({ state }) => state?.catalogue.revision);
  useEffect(() => {
    if (revision === undefined) return;
    lastVisit(key);
    try {
      localStorage.setItem(seen(key), String(revision));
    } catch {
      // See above.
    }
  }, [key, revision]);
}
