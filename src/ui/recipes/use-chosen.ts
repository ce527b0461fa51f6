"use client";
/** Many recipes of the book selected at once, from one to another or one by one. */
import { useMemo, useRef, useState } from "react";
import type { Recipe } from "@/core/kinds/index";

const NONE: ReadonlySet<string> = new Set();

export function useChosen(recipes: readonly Recipe[], selected: string | null) {
  const [many, setMany] = useState<ReadonlySet<string>>(NONE);
  const chosen = useMemo(() => recipes.filter((r) => many.has(r.id)), [recipes, many]);
  /** Where a range begins. */
  const anchor = useRef<string | null>(null);
  return {
    many,
    chosen,
    anchor,
    toggle: (id: string) => {
      anchor.current = id;
      setMany((all) => {
        const next = new Set(all);
        if (!next.delete(id)) next.add(id);
        return next;
      });
    },
    range: (to: string) => {
      const [a, b] = [anchor.current ?? selected ?? to, to].map((id) => recipes.findIndex((r) => r.id === id));
      anchor.current ??= selected ?? to;
      setMany(new Set(recipes.slice(Math.max(0, Math.min(a, b)), Math.max(a, b) + 1).map((r) => r.id)));
    },
    all: () => setMany(new Set(recipes.map((r) => r.id))),
    clear: () => setMany(NONE),
  };
}
