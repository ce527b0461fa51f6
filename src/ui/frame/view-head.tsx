"use client";
/** The head of a view: its title, its actions, the command field, help and who is here. */
import { Search, UserRound } from "lucide-react";
import { type ReactNode, useEffect, useState } from "react";
import type { NumberFormat } from "@/core/numbers/decimal";
import { Button } from "../kit/kit";
import { Popup } from "../kit/popup";
import { useKept, useStore, useView } from "../pantry/provider";
import { useOverlays } from "./overlays";

export function ViewHead({ title, children }: { title: string; children?: ReactNode }) {
  const { openCommand, openHelp } = useOverlays();
  return (
    <header className="flex h-11 shrink-0 items-center gap-2 border-b border-line bg-salt px-3.5">
      <h1 className="mr-1.5 text-[18px]">{title}</h1>
      {children}
      <button
        type="button"
        onClick={openCommand}
        className="ml-auto flex h-7 min-w-0 max-w-80 flex-1 items-center gap-2 rounded-sm border border-line bg-fog px-2.5 text-second hover:border-third"
      >
        <Search size={14} aria-hidden className="shrink-0" />
        <span className="truncate">Search records and commands</span>
        <kbd className="ml-auto hidden text-[12px] whitespace-nowrap xl:inline">Ctrl K</kbd>
      </button>
      <button
        type="button"
        aria-label="Help"
        title="Help (?)"
        onClick={openHelp}
        className="grid size-7 shrink-0 place-items-center rounded-full border border-line bg-salt font-bold text-second hover:border-third hover:text-ink"
      >
        ?
      </button>
      <Author />
    </header>
  );
}

/** Today everyone says who they are; the name stands beside each change. */
function Author() {
  const store = useStore();
  const [name, setName] = useKept("salty-author", "");
  const [typed, setTyped] = useState<string | null>(null);
  const numbers = useView((view) => view.state?.catalogue.numbers);
  useEffect(() => {
    store.author = name;
  }, [store, name]);
  const initials = name
    .split(/\s+/)
    .filter(Boolean)
    .map((w) => w[0])
    .slice(0, 2)
    .join("")
    .toUpperCase();
  return (
    <Popup
      button={(opener) => (
        <button
          type="button"
          aria-label={name ? `Your profile: ${name}` : "Enter your name"}
          className="grid size-7 shrink-0 place-items-center rounded-full bg-deep text-[12px] font-bold text-white"
          {...opener}
        >
          {initials || <UserRound size={15} aria-hidden />}
        </button>
      )}
      align="end"
      label="Your profile"
      className="w-64"
      open={typed !== null}
      onOpen={(open) => setTyped(open ? name : null)}
    >
      <form
        onSubmit={(e) => {
          e.preventDefault();
          setName((typed ?? "").trim().slice(0, 80));
          setTyped(null);
        }}
      >
        <label className="head block pb-1" htmlFor="author">
          Your name, shown in the Log
        </label>
        <input
          id="author"
          className="field"
          value={typed ?? ""}
          onChange={(e) => setTyped(e.target.value)}
          placeholder="Anonymous"
        />
        <label className="head block pt-2 pb-1" htmlFor="numbers">
          Number format
        </label>
        <select
          id="numbers"
          className="field"
          value={numbers ?? "point"}
          onChange={(e) => store.setNumbers(e.target.value as NumberFormat)}
        >
          <option value="point">1,234.5</option>
          <option value="comma">1.234,5</option>
        </select>
        <Button look="solid" type="submit" className="mt-2">
          Save
        </Button>
      </form>
    </Popup>
  );
}
