"use client";
/** What is typed or laid and stands in the address. */
import { type ChangeEvent, useEffect, useState } from "react";
import type { Places } from "./navigate";

/**
 * A text of the address, and how it is written. The address reaches the views in its own time, and whatever showed
 * only what is there would lose each key that is pressed before: so it is what was written until the address has caught
 * up, or says something else by another way.
 * @param asked  what the address says for a text; null: nothing
 */
export function useAddressText(
  places: Places,
  name: string,
  asked: (text: string) => string | null = (text) => text || null,
): { readonly value: string; write(text: string): void } {
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
    write(text) {
      setTyped({ text, asked: asked(text) });
      places.ask({ [name]: asked(text) }, true);
    },
  };
}

/** The same for a field that is typed into. */
export function useTyped(
  places: Places,
  name: string,
  asked?: (text: string) => string | null,
): { readonly value: string; onChange(event: ChangeEvent<HTMLInputElement | HTMLTextAreaElement>): void } {
  const { value, write } = useAddressText(places, name, asked);
  return { value, onChange: ({ target }) => write(target.value) };
}
