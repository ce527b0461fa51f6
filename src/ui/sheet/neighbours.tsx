"use client";
/** From one item to the next as the shelves show them, without leaving the sheet: Alt+PageUp and Alt+PageDown. */
import { ChevronDown, ChevronUp } from "lucide-react";
import { useEffect } from "react";
import type { Item } from "@/core/kinds/index";
import { usePlaces } from "../frame/navigate";
import { Button } from "../kit/kit";
import { useStore } from "../pantry/provider";

export function Neighbours({ item }: { readonly item: Item }) {
  const store = useStore();
  const places = usePlaces();
  const go = (by: -1 | 1) => {
    const at = store.shelf.findIndex((row) => row.id === item.id);
    const next = store.shelf[at < 0 ? 0 : at + by];
    if (next) places.openItem(next.id);
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: listens for the item that is open
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      if (!e.altKey || (e.key !== "PageDown" && e.key !== "PageUp")) return;
      e.preventDefault();
      go(e.key === "PageDown" ? 1 : -1);
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [item.id]);
  return (
    <span className="flex">
      <Button
        look="quiet"
        className="px-1!"
        aria-label="Previous item"
        title="Previous item (Alt+PageUp)"
        onClick={() => go(-1)}
      >
        <ChevronUp size={16} aria-hidden />
      </Button>
      <Button
        look="quiet"
        className="px-1!"
        aria-label="Next item"
        title="Next item (Alt+PageDown)"
        onClick={() => go(1)}
      >
        <ChevronDown size={16} aria-hidden />
      </Button>
    </span>
  );
}
