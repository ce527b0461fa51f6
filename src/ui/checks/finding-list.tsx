"use client";
/** The list of findings: in groups, with loops below them. Only visible rows exist. */
import { useVirtualizer } from "@tanstack/react-virtual";
import { ChevronDown, ChevronRight } from "lucide-react";
import { type KeyboardEvent, type ReactNode, useEffect, useRef, useState } from "react";
import type { Verdict } from "@/core/analysis/loops";
import { nameOf } from "@/core/catalogue/catalogue";
import type { Finding } from "@/core/checks/check";
import type { FindingGroup } from "@/core/checks/grouping";
import { ruleTitle } from "@/core/checklist";
import type { LoopRow } from "@/core/engine/read-model";
import { count, group as grouped } from "@/core/numbers/format";
import { usePlaces } from "../frame/navigate";
import { cx, Dot } from "../kit/kit";
import { useCatalogue } from "../pantry/provider";

const VERDICTS: Record<Verdict, string> = {
  stuck: "can't start",
  gaining: "gains",
  even: "breaks even",
  lossy: "loses",
};

/** The rows of the list, from top to bottom: heads, groups that fold, findings, and loops. */
export type ListEntry =
  | { readonly head: string; readonly n: number }
  | { readonly group: FindingGroup; readonly open: boolean }
  | { readonly finding: Finding }
  | { readonly loop: LoopRow; readonly at: number };

const MOST_LOOPS = 60;

/** Every group under a head. */
export function plainList(groups: readonly FindingGroup[], loops: readonly LoopRow[]): ListEntry[] {
  const entries: ListEntry[] = [];
  for (const { title, findings } of groups)
    entries.push({ head: title, n: findings.length }, ...findings.map((finding) => ({ finding })));
  if (loops.length) entries.push({ head: "Loops", n: loops.length });
  return entries.concat(loops.slice(0, MOST_LOOPS).map((loop, at) => ({ loop, at })));
}

/** Groups that fold, with the findings of those that are open. */
export const foldedList = (groups: readonly FindingGroup[], open: ReadonlySet<string>): ListEntry[] =>
  groups.flatMap((group): ListEntry[] => {
    const isOpen = open.has(group.key);
    return [{ group, open: isOpen }, ...(isOpen ? group.findings.map((finding) => ({ finding })) : [])];
  });

const idOf = (entry: ListEntry): string =>
  "finding" in entry
    ? `finding-${entry.finding.fingerprint}`
    : "loop" in entry
      ? `loop-${entry.at}`
      : "group" in entry
        ? `group-${entry.group.key.replaceAll(" ", "-")}`
        : "";
const HEIGHTS = { finding: 64, loop: 28, head: 34, group: 32 };
const heightOf = (entry: ListEntry): number =>
  HEIGHTS["finding" in entry ? "finding" : "loop" in entry ? "loop" : "group" in entry ? "group" : "head"];

interface Props {
  readonly entries: readonly ListEntry[];
  /** The row of the finding or loop that is shown; -1: none in the list. */
  readonly at: number;
  /** Opens or closes a group, or all; undefined: nothing folds. */
  readonly onFold?: (key: string, open: boolean) => void;
}

export function FindingList({ entries, at, onFold }: Props) {
  const places = usePlaces();
  const box = useRef<HTMLDivElement>(null);
  /** The group that the keyboard is at. */
  const [head, setHead] = useState<string | null>(null);
  const onHead = head === null ? -1 : entries.findIndex((e) => "group" in e && e.group.key === head);
  const cursor = onHead < 0 ? at : onHead;
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
    setHead("group" in entry ? entry.group.key : null);
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

function Entry({
  entry,
  level,
  chosen,
  onChoose,
  onFold,
}: {
  readonly entry: ListEntry;
  readonly level?: number;
  readonly chosen: boolean;
  readonly onChoose: () => void;
  readonly onFold?: (key: string, open: boolean) => void;
}) {
  if ("head" in entry)
    return (
      <div className="head px-3.5 pt-3 pb-1">
        {entry.head} <span className="font-normal">{entry.n}</span>
      </div>
    );
  if ("finding" in entry)
    return <FindingRow finding={entry.finding} level={level} chosen={chosen} onChoose={onChoose} />;
  if ("loop" in entry) return <LoopLine loop={entry.loop} id={idOf(entry)} chosen={chosen} onChoose={onChoose} />;
  const { group, open } = entry;
  const Mark = open ? ChevronDown : ChevronRight;
  const warnings = group.findings.length - group.errors;
  return (
    <div
      id={idOf(entry)}
      role="treeitem"
      aria-level={1}
      aria-expanded={open}
      aria-selected={chosen}
      aria-label={`${group.title}: ${count(group.errors, "error")}, ${count(warnings, "warning")}`}
      tabIndex={-1}
      onClick={() => {
        onChoose();
        onFold?.(group.key, !open);
      }}
      onKeyDown={() => undefined}
      className={cx("flex h-8 items-center gap-1.5 border-b border-hair px-2.5", chosen ? "bg-pick" : "hover:bg-shade")}
    >
      <Mark size={14} aria-hidden className="shrink-0" />
      <span className="min-w-0 flex-1 truncate font-semibold" title={group.title}>
        {group.title}
      </span>
      {group.errors > 0 && <Tally severity="error" n={group.errors} />}
      {warnings > 0 && <Tally severity="warning" n={warnings} />}
    </div>
  );
}

const Tally = ({ severity, n }: { readonly severity: "error" | "warning"; readonly n: number }) => (
  <span className="flex shrink-0 items-center gap-1.5 pl-2 text-second">
    <Dot severity={severity} /> {grouped(String(n))}
  </span>
);

/** A row of the list; the list itself has the focus and moves by keyboard. */
function Option({
  id,
  level,
  chosen,
  onChoose,
  className,
  children,
}: {
  readonly id: string;
  /** In a tree. */
  readonly level?: number;
  readonly chosen: boolean;
  readonly onChoose: () => void;
  readonly className: string;
  readonly children: ReactNode;
}) {
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: its role is a row of a tree or of a list
    // biome-ignore lint/a11y/useAriaPropsSupportedByRole: its role is a row of a tree or of a list
    <div
      id={id}
      role={level ? "treeitem" : "option"}
      aria-level={level}
      aria-selected={chosen}
      tabIndex={-1}
      onClick={onChoose}
      onKeyDown={() => undefined}
      className={cx("flex border-b border-hair", chosen ? "bg-pick" : "hover:bg-shade", className)}
    >
      {children}
    </div>
  );
}

function FindingRow({
  finding,
  level,
  chosen,
  onChoose,
}: {
  readonly finding: Finding;
  readonly level?: number;
  readonly chosen: boolean;
  readonly onChoose: () => void;
}) {
  return (
    <Option
      id={`finding-${finding.fingerprint}`}
      level={level}
      chosen={chosen}
      onChoose={onChoose}
      className={cx("gap-2.5 border-l-3 px-3 py-1.5", chosen ? "border-l-ink" : "border-l-transparent")}
    >
      <span className="mt-1.5">
        <Dot severity={finding.severity} />
      </span>
      <span className="min-w-0">
        <span className="block font-bold">{ruleTitle(finding.rule)}</span>
        <span className="line-clamp-2 text-second">{finding.message}</span>
      </span>
    </Option>
  );
}

function LoopLine({
  loop,
  id,
  chosen,
  onChoose,
}: {
  readonly loop: LoopRow;
  readonly id: string;
  readonly chosen: boolean;
  readonly onChoose: () => void;
}) {
  const catalogue = useCatalogue();
  const { items, verdict } = loop;
  return (
    <Option id={id} chosen={chosen} onChoose={onChoose} className="justify-between gap-2 px-3.5 py-1">
      <span className="truncate">
        {items
          .slice(0, 3)
          .map((i) => nameOf(catalogue, "item", i))
          .join(", ")}
        {items.length > 3 ? ` and ${items.length - 3} more` : ""}
      </span>
      <span
        className={cx(
          "shrink-0",
          verdict === "gaining" || verdict === "stuck" ? "font-semibold text-beet" : "text-second",
        )}
      >
        {VERDICTS[verdict]}
      </span>
    </Option>
  );
}
