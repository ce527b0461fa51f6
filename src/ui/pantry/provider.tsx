"use client";
/** Gives views the live pantry. Views below <Shell> can rely on it being loaded. */
import { createContext, type ReactNode, useContext, useEffect, useMemo, useState, useSyncExternalStore } from "react";
import type { Catalogue } from "@/core/catalogue/catalogue";
import type { Board, Figures } from "@/core/engine/board";
import type { Id } from "@/core/schema/id";
import { type Live, PantryStore, type View } from "./store";

const Context = createContext<PantryStore | null>(null);

export function PantryProvider({ pantry, children }: { pantry: string; children: ReactNode }) {
  const [store] = useState(() => new PantryStore(pantry));
  useEffect(() => store.open(), [store]);
  return <Context.Provider value={store}>{children}</Context.Provider>;
}

export function useStore(): PantryStore {
  const store = useContext(Context);
  if (!store) throw new Error("A view needs a pantry around it.");
  return store;
}

export function useView(): View {
  const store = useStore();
  return useSyncExternalStore(store.subscribe, store.snapshot, () => store.first);
}

export function useLive(): Live {
  const { state } = useView();
  if (!state) throw new Error("The pantry is not loaded yet.");
  return state;
}
export const useCatalogue = (): Catalogue => useLive().catalogue;
export const useBoard = (): Board => useLive().board;

const NOTHING: Figures = { value: null, time: null, by: null, steps: null, level: null };
export const figuresOf = (board: Board, id: Id): Figures => board.figures[id] ?? NOTHING;

/** Findings per record, for marks beside names. */
export function useFindingsAbout(): ReadonlyMap<Id, number> {
  const { findings } = useBoard();
  return useMemo(() => {
    const counts = new Map<Id, number>();
    for (const f of findings) for (const r of f.about) counts.set(r.id, (counts.get(r.id) ?? 0) + 1);
    return counts;
  }, [findings]);
}

/** A value kept in this browser. */
export function useKept<T>(name: string, rest: T): [T, (value: T) => void] {
  const [value, setValue] = useState<T>(rest);
  useEffect(() => {
    try {
      const text = localStorage.getItem(name);
      if (text !== null) setValue(JSON.parse(text) as T);
    } catch {
      // a browser without storage starts fresh every time
    }
  }, [name]);
  return [
    value,
    (next) => {
      setValue(next);
      try {
        localStorage.setItem(name, JSON.stringify(next));
      } catch {
        // see above
      }
    },
  ];
}
