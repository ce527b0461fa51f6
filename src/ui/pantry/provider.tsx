"use client";
/** Gives views the live pantry. Views below <Shell> can rely on it being loaded. */
import { createContext, type ReactNode, useContext, useEffect, useState, useSyncExternalStore } from "react";
import type { Catalogue } from "@/core/catalogue/catalogue";
import type { ReadModel, Figures } from "@/core/engine/read-model";
import { membersOf } from "@/core/process/members";
import type { LineTarget } from "@/core/notation/line";
import type { Id } from "@/core/schema/id";
import { type Live, PantryStore, type View } from "./store";

const Context = createContext<PantryStore | null>(null);

export function PantryProvider({ pantry, children }: { pantry: string; children: ReactNode }) {
  const [store] = useState(() => new PantryStore(pantry));
  useEffect(() => store.open(), [store]);
  useEffect(() => {
    // The browser asks whether to stay.
    const leaving = (event: Event) => {
      if (store.unanswered) event.preventDefault();
    };
    window.addEventListener("beforeunload", leaving);
    return () => window.removeEventListener("beforeunload", leaving);
  }, [store]);
  return <Context.Provider value={store}>{children}</Context.Provider>;
}

export function useStore(): PantryStore {
  const store = useContext(Context);
  if (!store) throw new Error("A view needs a pantry around it.");
  return store;
}

/** A part of what the window knows; the component is drawn again when that is another, not when anything is. */
export function useView<T>(pick: (view: View) => T): T {
  const store = useStore();
  return useSyncExternalStore(
    store.subscribe,
    () => pick(store.snapshot()),
    () => pick(store.first),
  );
}

/** The same of the pantry itself, below <Shell>, where it is loaded. */
export const useLivePart = <T,>(pick: (live: Live) => T): T =>
  useView(({ state }) => {
    if (!state) throw new Error("The pantry is not loaded yet.");
    return pick(state);
  });
const whole = (live: Live): Live => live;
export const useLive = (): Live => useLivePart(whole);
export const useCatalogue = (): Catalogue => useLivePart((live) => live.catalogue);
/** What readings are of that are asked for: the revision, and the state of the scenario that is looked through. */
export const useStamp = (): string =>
  useView(({ state, scenario }) => `${state?.catalogue.revision ?? -1}${scenario ? `~${scenario.state}` : ""}`);
/** The pantry itself, whatever scenario is looked through. */
export const useBase = (): Live =>
  useView(({ base }) => {
    if (!base) throw new Error("The pantry is not loaded yet.");
    return base;
  });
const NOTHING: Figures = { value: null, time: null, by: null, steps: null, level: null };
/** What one of what a line names costs; of any items with a tag the cheapest. Infinite where none can be had. */
export const costOf = (catalogue: Catalogue, model: ReadModel, { item, any }: LineTarget): number =>
  any === undefined
    ? (figuresOf(model, item).value ?? Number.POSITIVE_INFINITY)
    : Math.min(...[...membersOf(catalogue, any)].map((i) => figuresOf(model, i.id).value ?? Number.POSITIVE_INFINITY));
export const figuresOf = (model: ReadModel, id: Id): Figures => model.figures.get(id) ?? NOTHING;

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
