"use client";
/** One field for everything: any record, any view, any action. Tab shows what can be done with a record. */
import { Command } from "cmdk";
import { Dialog } from "radix-ui";
import { type KeyboardEvent, type ReactNode, useEffect, useMemo, useState } from "react";
import { recordAt } from "@/core/catalogue/catalogue";
import { held } from "@/core/catalogue/inheritance";
import { itemsOfType } from "@/core/catalogue/types";
import { recordsWith } from "@/core/catalogue/references";
import { findRecords } from "@/core/catalogue/search";
import { duplicateOf, duplicateWith } from "@/core/editing/duplicate";
import { isKind, type Item, type Kind, kindWord } from "@/core/kinds/index";
import { count, sayCost } from "@/core/numbers/format";
import { isId, type Id } from "@/core/schema/id";
import { normalise } from "@/core/schema/names";
import { Icon } from "../kit/jars";
import { figuresOf, useKept, useLive, useStore } from "../pantry/provider";
import { ALL_VIEWS } from "../views";
import { usePlaces } from "./navigate";

interface Hit {
  readonly id: string;
  readonly rank: number;
  readonly label: ReactNode;
  readonly what: ReactNode;
  readonly record?: Recent;
  run(): void;
}
/** A record that was opened from here lately. */
interface Recent {
  readonly kind: Kind;
  readonly id: Id;
}
const MOST = 14;
const MOST_RECENT = 8;
/** How much sooner one that was opened lately is offered. */
const LATELY = 0.75;

export function CommandField({ onClose }: { onClose: () => void }) {
  const { catalogue } = useLive();
  const store = useStore();
  const places = usePlaces();
  const [text, setText] = useState("");
  const [marked, setMarked] = useState("");
  /** The record whose actions are shown. */
  const [about, setAbout] = useState<Recent | null>(null);
  const [kept, setKept] = useKept<unknown>(`salty-lately-${catalogue.pantry.key}`, []);
  const recent = useMemo(() => readRecent(kept), [kept]);
  // Names are made ready while the first letter is still to come.
  useEffect(() => {
    const soon = requestIdleCallback(() => findRecords(catalogue, "a", 1));
    return () => cancelIdleCallback(soon);
  }, [catalogue]);

  const hits = useMemo((): readonly Hit[] => {
    const open = (record: Recent) => {
      setKept([record, ...recent.filter((r) => r.id !== record.id)].slice(0, MOST_RECENT));
      places.open(record.kind, record.id);
    };
    const hitOf = (record: Recent, rank: number): Hit[] =>
      recordAt(catalogue, record.kind, record.id)
        ? [
            {
              id: record.id,
              rank,
              label: <Label of={record} />,
              what: <Tells of={record} />,
              record,
              run: () => open(record),
            },
          ]
        : [];
    if (about) return actionsOn(about);
    const wanted = normalise(text);
    const commands = commandsOf().flatMap((c) => {
      const at = normalise(c.label as string).indexOf(wanted);
      return at < 0 ? [] : [{ ...c, rank: at === 0 ? 1.4 : 3.4 }];
    });
    if (!wanted) return [...recent.flatMap((r) => hitOf(r, 0)), ...commands].slice(0, MOST);
    const lately = new Set(recent.map((r) => r.id));
    const records = findRecords(catalogue, text, MOST).flatMap(({ kind, id, fit }) =>
      hitOf({ kind, id }, fit + (kind === "item" ? 0 : 0.2) - (lately.has(id) ? LATELY : 0)),
    );
    return [...records, ...commands].sort((a, b) => a.rank - b.rank).slice(0, MOST);

    function commandsOf(): Hit[] {
      const of = (id: string, label: string, what: string, run: () => void): Hit => ({ id, label, what, rank: 0, run });
      return [
        ...ALL_VIEWS.flatMap(({ name, title, commands: asked }) => [
          of(`view ${name}`, `Go to ${title}`, "view", () => places.go(name)),
          ...(asked ?? []).map(({ label, query }) =>
            of(`${name} ${label}`, label, "action", () => places.go(name, query)),
          ),
        ]),
        of("undo", "Undo my last change", "action", () => void store.undo()),
        of("export", "Export the pantry as a bundle", "action", () => window.location.assign(store.api.bundleAddress)),
      ];
    }
    function actionsOn(record: Recent): Hit[] {
      const found = recordAt(catalogue, record.kind, record.id);
      if (!found) return [];
      const of = (label: string, run: () => void): Hit => ({ id: label, label, what: found.name, rank: 0, run });
      return [
        of("Open", () => open(record)),
        ...(record.kind === "item"
          ? [
              of("Recipes that use or make it", () => places.go("recipes", { text: found.name })),
              of("New recipe for it", () => places.go("recipes", { new: "1", for: found.key })),
            ]
          : []),
        ...(record.kind === "item"
          ? [
              of("Duplicate with recipes, salvage, sources and uses", () => {
                const { copy, edits } = duplicateWith(catalogue, found as Item);
                void store.submit(edits).then((answer) => {
                  if (answer.ok) places.openItem(copy.id);
                });
              }),
            ]
          : []),
        of("Duplicate", () => {
          const copy = duplicateOf(catalogue, record.kind, found);
          void store.submit([{ op: "add", kind: record.kind, record: copy }]).then((answer) => {
            if (answer.ok) places.open(record.kind, copy.id);
          });
        }),
      ];
    }
  }, [text, about, catalogue, places, store, recent, setKept]);

  // What is offered first is marked until someone marks another.
  const current = hits.some((h) => h.id === marked) ? marked : (hits[0]?.id ?? "");

  const press = (e: KeyboardEvent) => {
    if (e.key === "Tab" && !about) {
      const record = hits.find((h) => h.id === current)?.record;
      if (record) setAbout(record);
      setMarked("");
      e.preventDefault();
    } else if (about && (e.key === "Escape" || e.key === "Tab" || (e.key === "Backspace" && !text))) {
      setAbout(null);
      e.preventDefault();
      e.stopPropagation();
    }
  };
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-[#0d303855]" />
        <Dialog.Content
          aria-describedby={undefined}
          onEscapeKeyDown={(e) => about && e.preventDefault()}
          className="fixed top-[12vh] left-1/2 z-50 w-[600px] -translate-x-1/2 overflow-hidden rounded-sm border border-line bg-salt shadow-2xl"
        >
          <Dialog.Title className="sr-only">Search records and commands</Dialog.Title>
          <Command
            shouldFilter={false}
            label="Search records and commands"
            value={current}
            onValueChange={setMarked}
            onKeyDown={press}
          >
            <Command.Input
              value={text}
              onValueChange={(typed) => {
                setText(typed);
                setAbout(null);
                setMarked("");
              }}
              placeholder="Search for a record, view or action"
              className="w-full border-b border-line bg-salt px-4 py-3 text-[15px] outline-none"
            />
            <Command.List className="max-h-[46vh] overflow-auto p-1.5">
              <Command.Empty className="px-3 py-4 text-second">Nothing found for “{text}”.</Command.Empty>
              {hits.map((hit) => (
                <Command.Item
                  key={hit.id}
                  value={hit.id}
                  onSelect={() => {
                    onClose();
                    hit.run();
                  }}
                  className="flex h-8 items-center justify-between gap-4 rounded-sm px-2.5 data-[selected=true]:bg-pick"
                >
                  <span className="flex min-w-0 items-center gap-2">{hit.label}</span>
                  <span className="shrink-0 text-second">{hit.what}</span>
                </Command.Item>
              ))}
            </Command.List>
            <p className="border-t border-hair px-4 py-1.5 text-second">
              <kbd>Enter</kbd> opens, <kbd>Tab</kbd> {about ? "goes back" : "shows actions"}
            </p>
          </Command>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** What this browser kept, as far as it makes sense. */
const readRecent = (kept: unknown): readonly Recent[] =>
  Array.isArray(kept)
    ? kept
        .filter((r): r is Recent => typeof r === "object" && r !== null && isKind(r.kind) && isId(r.id))
        .slice(0, MOST_RECENT)
    : [];

/** The record as it is known from elsewhere: its icon in the colour of its type. */
function Label({ of: { kind, id } }: { readonly of: Recent }) {
  const { catalogue } = useLive();
  const record = recordAt(catalogue, kind, id);
  if (!record) return null;
  const item = kind === "item" ? (record as Item) : null;
  const type = item?.type ? catalogue.records.type.get(item.type) : undefined;
  const colour = type?.colour ?? ("colour" in record ? record.colour : "var(--line)");
  return (
    <>
      <span aria-hidden className="h-[18px] w-1 shrink-0" style={{ background: colour }} />
      {item && (
        <span className="inline-flex" style={{ color: type?.colour ?? "var(--third)" }}>
          <Icon name={held(catalogue, item, "icon").value} />
        </span>
      )}
      <span className="truncate font-semibold">{record.name}</span>
    </>
  );
}

const USED = ["ingredient", "tool", "station"] as const;
/** What kind of thing it is, and the number that tells. */
function Tells({ of: { kind, id } }: { readonly of: Recent }) {
  const { catalogue, model } = useLive();
  if (kind === "type") return `type, ${count(itemsOfType(catalogue, id).size, "item")}`;
  if (kind !== "item") return kindWord(kind);
  const type = catalogue.records.item.get(id)?.type;
  const name = (type && catalogue.records.type.get(type)?.name) || "item";
  const { value } = figuresOf(model, id);
  const uses = [...recordsWith(catalogue, "recipe", id, USED)].length;
  return (
    <>
      {name}
      {uses > 0 && `, ${count(uses, "use")}`}
      {value !== null && <span className="ink-worked ml-2">{sayCost(value)}</span>}
    </>
  );
}
