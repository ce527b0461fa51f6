"use client";
/**
 * Addresses: the view is the path, what is selected is in the query, so that a link brings a colleague to the same
 * place.
 */
import { useParams, usePathname, useRouter, useSearchParams } from "next/navigation";
import { useCallback } from "react";
import { recordAt } from "@/core/catalogue/catalogue";
import type { Id } from "@/core/schema/id";
import type { Kind } from "@/core/kinds/index";
import { useStore } from "../pantry/provider";
import { type ViewName, viewOf } from "../views";

export interface Places {
  readonly pantry: string;
  readonly view: ViewName;
  readonly query: URLSearchParams;
  /** Changes the query of this view; null takes a name out. */
  ask(changes: Record<string, string | null>, replace?: boolean): void;
  go(view: ViewName, query?: { readonly [name: string]: string }): void;
  /** Opens a record where it is edited. */
  open(kind: Kind, id: Id): void;
  openItem(id: Id): void;
}

export function usePlaces(): Places {
  const { pantry } = useParams<{ pantry: string }>();
  const path = usePathname();
  const search = useSearchParams();
  const router = useRouter();
  const store = useStore();
  const query = new URLSearchParams(search.toString());
  const view = (path.split("/")[2] ?? "shelves") as ViewName;

  const ask = useCallback((changes: Record<string, string | null>, replace = false) => {
    const next = new URLSearchParams(window.location.search);
    for (const [name, value] of Object.entries(changes)) {
      if (value === null) next.delete(name);
      else next.set(name, value);
    }
    const text = next.toString();
    const url = `${window.location.pathname}${text ? `?${text}` : ""}`;
    if (replace) window.history.replaceState(null, "", url);
    else window.history.pushState(null, "", url);
  }, []);
  const go = useCallback(
    (to: ViewName, q: { readonly [name: string]: string } = {}) =>
      router.push(`/${pantry}/${to}${Object.keys(q).length ? `?${new URLSearchParams(q)}` : ""}`),
    [router, pantry],
  );
  const keyOf = (kind: Kind, id: Id) => {
    const { state } = store.snapshot();
    return (state && recordAt(state.catalogue, kind, id)?.key) ?? id;
  };
  const openItem = (id: Id) => ask({ item: keyOf("item", id) });
  const open = (kind: Kind, id: Id) => {
    const view = viewOf(kind);
    if (kind === "item") openItem(id);
    else if (view?.opens) go(view.name, view.opens.query(kind, keyOf(kind, id)));
  };
  return { pantry, view, query, ask, go, open, openItem };
}
