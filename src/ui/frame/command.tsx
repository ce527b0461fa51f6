"use client";
/** One field for everything: any record, any view, any action. */
import { Command } from "cmdk";
import { Dialog } from "radix-ui";
import { useMemo, useState } from "react";
import { normalise } from "@/core/schema/names";
import type { Id } from "@/core/schema/id";
import { type Kind, KINDS, kindWord } from "@/core/kinds/index";
import { useCatalogue, useStore } from "../pantry/provider";
import { ALL_VIEWS } from "../views";
import { usePlaces } from "./navigate";

interface Hit {
  readonly id: string;
  readonly label: string;
  readonly what: string;
  readonly rank: number;
  run(): void;
}

export function CommandField({ onClose }: { onClose: () => void }) {
  const catalogue = useCatalogue();
  const store = useStore();
  const places = usePlaces();
  const [text, setText] = useState("");
  const hits = useMemo(() => {
    const wanted = normalise(text);
    const rank = (name: string) => {
      const normalised = normalise(name);
      return normalised === wanted
        ? 0
        : normalised.startsWith(wanted)
          ? 1
          : name
                .toLowerCase()
                .split(/\s+/)
                .some((w) => normalise(w).startsWith(wanted))
            ? 2
            : normalised.includes(wanted)
              ? 3
              : 9;
    };
    const found: Hit[] = [];
    const add = (id: string, label: string, what: string, run: () => void, weight = 0) => {
      const r = rank(label);
      if (r < 9) found.push({ id, label, what, rank: r + weight, run });
    };
    for (const { name, title, commands } of ALL_VIEWS) {
      add(`view ${name}`, `Go to ${title}`, "view", () => places.go(name), 0.5);
      for (const { label, query } of commands ?? [])
        add(`${name} ${label}`, label, "action", () => places.go(name, query), 0.4);
    }
    add("undo", "Undo my last change", "action", () => void store.undo(), 0.4);
    add(
      "export",
      "Export the pantry as a bundle",
      "action",
      () => window.location.assign(store.api.bundleAddress),
      0.4,
    );
    if (wanted)
      for (const kind of KINDS)
        for (const record of (
          catalogue.records[kind] as ReadonlyMap<Id, { id: Id; name: string; key: string }>
        ).values())
          add(
            record.id,
            record.name,
            kindWord(kind as Kind),
            () => places.open(kind, record.id),
            kind === "item" ? 0 : 0.2,
          );
    return found.sort((a, b) => a.rank - b.rank || a.label.length - b.label.length).slice(0, 14);
  }, [text, catalogue, places, store]);
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-[#0d303855]" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-[12vh] left-1/2 z-50 w-[560px] -translate-x-1/2 overflow-hidden rounded-sm border border-line bg-salt shadow-2xl"
        >
          <Dialog.Title className="sr-only">Find a record or a command</Dialog.Title>
          <Command shouldFilter={false} label="Find a record or a command">
            <Command.Input
              value={text}
              onValueChange={setText}
              placeholder="Name of a record, a view or an action"
              className="w-full border-b border-line bg-salt px-4 py-3 text-[15px] outline-none"
            />
            <Command.List className="max-h-[46vh] overflow-auto p-1.5">
              <Command.Empty className="px-3 py-4 text-second">Nothing here is called “{text}”.</Command.Empty>
              {hits.map((hit) => (
                <Command.Item
                  key={hit.id}
                  value={hit.id}
                  onSelect={() => {
                    onClose();
                    hit.run();
                  }}
                  className="flex h-8 items-center justify-between rounded-sm px-2.5 data-[selected=true]:bg-pick"
                >
                  <span>{hit.label}</span>
                  <span className="text-second">{hit.what}</span>
                </Command.Item>
              ))}
            </Command.List>
          </Command>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
