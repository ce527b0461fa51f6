"use client";
/** A field whose text stands in the address. */
import { type ChangeEvent, useEffect, useState } from "react";
import type { Places } from "./navigate";

/**
 * What such a field shows, and what a key in it does. The address reaches the views in its own time, and a field that
 * showed only what is there would lose each key that is pressed before: so it shows what was typed until the address has
 * caught up, or says something else by another way.
 * @param asked  what the address says for a text; null: nothing
 */
export function useTyped(
  places: Places,
  name: string,
  asked: (text: string) => string | null = (text) => text || null,
): { readonly value: string; onChange(event: ChangeEvent<HTMLInputElement | HTMLTextAreaElement>): void } {
  const stands = places.query.get(name);
  const [typed, setTyped] = useState<{ readonly text: string; readonly asked: string | null } | null>(null);
  useEffect(() => {
    if (!typed) return;
    const caughtUp = (stands ?? "") === typed.text;
    const otherwise = new URLSearchParams(window.location.search).get(name) !== typed.asked;
    // A key that was pressed meanwhile stays.
    if (caughtUp || otherwise) setTyped((now) => (now === typed ? null : now));
  }, [name, stands, typed]);
  return {
    value: typed?.text ?? stands ?? "",
    onChange({ target: { value } }) {
      setTyped({ text: value, asked: asked(value) });
      places.ask({ [name]: asked(value) }, true);
    },
  };
}
