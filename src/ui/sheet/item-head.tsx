"use client";
/** The head of an item's sheet: icon, name, key, actions and links. */
import { Trash2, X } from "lucide-react";
import { type RefObject, useEffect } from "react";
import { duplicateWith } from "@/core/editing/duplicate";
import type { Item } from "@/core/kinds/index";
import { usePlaces } from "../frame/navigate";
import { RemoveButton } from "../frame/remove";
import { Inline, plain } from "../kit/inline";
import { Grains } from "../kit/jars";
import { Button, cx } from "../kit/kit";
import { useLive, useStore } from "../pantry/provider";
import { useWrite } from "../pantry/use-write";
import { IconChoice } from "./icon-choice";
import { Neighbours } from "./neighbours";
import { CardButton } from "./player-card";
import { SeriesButton } from "./series-button";
import { TryIt, waysToTry } from "./try-it";

interface Props {
  readonly item: Item;
  readonly colour: string | undefined;
  /** Where the sheet says how to get it, and what it is for. */
  readonly get: RefObject<HTMLDivElement | null>;
  readonly use: RefObject<HTMLDivElement | null>;
  readonly onClose: () => void;
}

/** What a key does while nothing is typed: T tries the item, C shows its chain, U where it is used. */
function useSheetKeys(keys: { readonly [key: string]: (() => void) | undefined }): void {
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      const typing =
        e.target instanceof Element &&
        e.target.closest("input, textarea, select, [contenteditable], [role=grid], [role=dialog]");
      const does = Object.hasOwn(keys, e.key.toLowerCase()) ? keys[e.key.toLowerCase()] : undefined;
      if (!does || e.ctrlKey || e.metaKey || e.altKey || typing) return;
      e.preventDefault();
      does();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  });
}

export function ItemHead({ item, colour, get, use, onClose }: Props) {
  const { catalogue } = useLive();
  const store = useStore();
  const places = usePlaces();
  const write = useWrite();
  const duplicate = async () => {
    const { copy, edits } = duplicateWith(catalogue, item);
    if ((await store.submit(edits)).ok) places.ask({ item: copy.key });
  };
  const toChain = () => places.go("chains", { of: item.key });
  const toUses = () => use.current?.scrollIntoView({ block: "start" });
  const [way] = waysToTry(catalogue, item);
  useSheetKeys({ t: way && (() => places.go("tasting", way.query())), c: toChain, u: toUses });
  return (
    <>
      <header className="flex gap-3 border-b border-line px-4 py-3">
        <IconChoice item={item} colour={colour ?? "var(--third)"} />
        <div className="min-w-0 flex-1">
          <h2 className="-ml-1 text-[19px] leading-6">
            <Inline
              label="Name"
              held={plain(item.name)}
              show={item.name}
              text={item.name}
              onWrite={(t) => write("item", item.id, "name", t)}
            />
          </h2>
          <div className="mt-0.5 flex items-center gap-2 text-second">
            <Grains rarity={item.rarity} />
            <span className={cx(item.status === "stub" && "font-bold text-beet")}>{item.status}</span>
            <Inline
              label="Key"
              held={plain(item.key)}
              show={item.key}
              text={item.key}
              onWrite={(t) => write("item", item.id, "key", t)}
            />
          </div>
        </div>
        <div className="flex flex-col items-end gap-1">
          <span className="flex">
            <Neighbours item={item} />
            <Button look="quiet" className="px-1!" onClick={onClose} aria-label="Close the sheet" title="Close">
              <X size={16} aria-hidden />
            </Button>
          </span>
          <RemoveButton
            kind="item"
            record={item}
            onGone={onClose}
            look="quiet"
            className="px-1!"
            title="Remove (undo brings it back)"
          >
            <Trash2 size={14} aria-hidden />
          </RemoveButton>
        </div>
      </header>
      <nav
        aria-label="In this sheet"
        className="flex flex-wrap gap-x-1 [&_button]:px-1.5 border-b border-hair bg-shade px-3 py-1"
      >
        <Button look="quiet" onClick={() => get.current?.scrollIntoView({ block: "start" })}>
          How to get it
        </Button>
        <Button look="quiet" title="Where it is used (U)" onClick={toUses}>
          What it is for
        </Button>
        <Button look="quiet" title="Its chain (C)" onClick={toChain}>
          Chain
        </Button>
        <TryIt item={item} />
        <CardButton item={item} />
        <SeriesButton item={item} />
        <Button
          look="quiet"
          title="A copy with its recipes, salvage, sources and uses"
          onClick={() => void duplicate()}
        >
          Duplicate
        </Button>
      </nav>
    </>
  );
}
