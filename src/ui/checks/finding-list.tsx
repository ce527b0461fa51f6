"use client";
/** The list of findings: in groups, with loops below them. Only visible rows exist. */
import { useVirtualizer } from "@tanstack/react-virtual";
import { type KeyboardEvent, useEffect, useRef } from "react";
import type { FindingGroup } from "@/core/checks/grouping";
import type { LoopRow } from "@/core/engine/read-model";
import { usePlaces } from "../frame/navigate";
import { Entry, idOf, type ListEntry } from "./finding-rows";

const MOST_LOOPS = 60;

/** Every group under a head. */
export const plainList = (
  groups: readonly Pick<FindingGroup, "title" | "findings">[],
  loops: readonly LoopRow[],
): ListEntry[] => [
  ...groups.flatMap(({ title, findings }): ListEntry[] => [
    { head: title, n: findings.length },
    ...findings.map((finding) => ({ finding })),
  ]),
  ...(loops.length ? [{ head: "Loops", n: loops.length }] : []),
  ...loops.slice(0, MOST_LOOPS).map((loop, at) => ({ loop, at })),
];

/** Groups that fold, with the findings of those that are open. */
export const foldedList = (groups: readonly FindingGroup[], open: ReadonlySet<string>): ListEntry[] =>
  groups.flatMap((group): ListEntry[] => {
    const isOpen = open.has(group.key);
    return [{ group, open: isOpen }, ...(isOpen ? group.findings.map((finding) => ({ finding })) : [])];
  });

const HEIGHTS = { finding: 64, loop: 28, head: 34, group: 32 };
const heightOf = (entry: ListEntry): number =>
  HEIGHTS["finding" in entry ? "finding" : "loop" in entry ? "loop" : "group" in entry ? "group" : "head"];

interface Props {
  readonly entries: readonly ListEntry[];
  /** The row of the finding or loop that is shown; -1: none in the list. */
  readonly at: number;
  /** The group that the keyboard is at; null: it is at the finding or loop. */
  readonly head: string | null;
  readonly onHead: (key: string | null) => void;
  /** Opens or closes a group, or all; undefined: nothing folds. */
  readonly onFold?: (key: string, open: boolean) => void;
}

export function FindingList({ entries, at, head, onHead, onFold }: Props) {
  const places = usePlaces();
  const box = useRef<HTMLDivElement>(null);
  const headAt = head === null ? -1 : entries.findIndex((e) => "group" in e && e.group.key === head);
  const cursor = headAt < 0 ? at : headAt;
  const virtual = useVirtualizer({
    count: entries.length,
    getScrollElement: () => box.current,
    estimateSize: (k) => heightOf(entries[k]),
    getItemKey: (k) => idOf(entries[k]) || `head ${k}`,
    overscan: 12,
  });
  const goTo = (to: number) => {
    const entry = entries[to];
    if (!entry) return;
    onHead("group" in entry ? entry.group.key : null);
    if ("finding" in entry) places.ask({ finding: entry.finding.fingerprint, loop: null }, true);
    else if ("loop" in entry) places.ask({ loop: String(entry.at), finding: null }, true);
    virtual.scrollToIndex(to);
  };
  const step = (by: number) => {
    let to = cursor + by;
    while (entries[to] && "head" in entries[to]) to += by;
    goTo(to);
  };
  const press = (e: KeyboardEvent) => {
    const entry = entries[cursor];
    const group = entry && "group" in entry ? entry : null;
    if (e.key === "ArrowDown") step(1);
    else if (e.key === "ArrowUp") step(-1);
    else if (onFold && e.key === "ArrowRight") group?.open ? step(1) : group && onFold(group.group.key, true);
    else if (onFold && e.key === "ArrowLeft") {
      if (group) onFold(group.group.key, false);
      else goTo(headOf(entries, cursor));
    } else if (group && (e.key === "Enter" || e.key === " ")) onFold?.(group.group.key, !group.open);
    else return;
    e.preventDefault();
  };
  // A finding that the address names is scrolled into view once.
  const shown = useRef(false);
  useEffect(() => {
    if (!shown.current && at > 0) virtual.scrollToIndex(at, { align: "auto" });
    shown.current = true;
  }, [at, virtual]);
  const visible = virtual.getVirtualItems().some((v) => v.index === cursor);
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: its role is a tree or a list, both of which take keys and a name
    // biome-ignore lint/a11y/useAriaPropsSupportedByRole: its role is a tree or a list, both of which take keys and a name
    <div
      ref={box}
      role={onFold ? "tree" : "listbox"}
      aria-label="Findings"
      tabIndex={0}
      aria-activedescendant={visible && cursor >= 0 ? idOf(entries[cursor]) : undefined}
      onKeyDown={press}
      className="min-h-0 flex-1 overflow-auto"
    >
      <div role="presentation" style={{ height: virtual.getTotalSize(), position: "relative" }}>
        {virtual.getVirtualItems().map((v) => (
          <div
            key={v.key}
            role="presentation"
            data-index={v.index}
            ref={virtual.measureElement}
            className="absolute left-0 w-full"
            style={{ transform: `translateY(${v.start}px)` }}
          >
            <Entry
              entry={entries[v.index]}
              level={onFold && 2}
              chosen={v.index === cursor}
              onChoose={() => goTo(v.index)}
              onFold={onFold}
            />
          </div>
        ))}
      </div>
    </div>
  );
}

/** The group of a row. */
function headOf(entries: readonly ListEntry[], from: number): number {
  let at = from;
  while (at >= 0 && !(entries[at] && "group" in entries[at])) at--;
  return at;
}
