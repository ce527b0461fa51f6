"use client";
/** The rows of the list of findings. The list itself has the focus and moves by keyboard. */
import { ChevronDown, ChevronRight } from "lucide-react";
import type { ReactNode } from "react";
import type { Verdict } from "@/core/analysis/loops";
import { nameOf } from "@/core/catalogue/catalogue";
import type { Finding } from "@/core/checks/check";
import type { FindingGroup } from "@/core/checks/grouping";
import { ruleTitle, SEVERITIES, type Severity } from "@/core/checklist";
import type { LoopRow } from "@/core/engine/read-model";
import { count, group as grouped } from "@/core/numbers/format";
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

export const idOf = (entry: ListEntry): string =>
  "finding" in entry
    ? `finding-${entry.finding.fingerprint}`
    : "loop" in entry
      ? `loop-${entry.at}`
      : "group" in entry
        ? `group-${entry.group.key.replaceAll(" ", "-")}`
        : "";
export function Entry({
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
  const tallies = SEVERITIES.filter((severity) => group.counts[severity] > 0);
  return (
    <div
      id={idOf(entry)}
      role="treeitem"
      aria-level={1}
      aria-expanded={open}
      aria-selected={chosen}
      aria-label={`${group.title}: ${tallies.map((severity) => count(group.counts[severity], severity)).join(", ")}`}
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
      {tallies.map((severity) => (
        <Tally key={severity} severity={severity} n={group.counts[severity]} />
      ))}
    </div>
  );
}

const Tally = ({ severity, n }: { readonly severity: Severity; readonly n: number }) => (
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
