"use client";
/** The checks: findings on the left, the chosen one with its evidence and fixes on the right. */
import { useVirtualizer } from "@tanstack/react-virtual";
import { type ReactNode, useEffect, useMemo, useRef } from "react";
import type { Verdict } from "@/core/analysis/loops";
import { nameOf } from "@/core/catalogue/catalogue";
import { ruleTitle } from "@/core/checklist";
import type { Finding } from "@/core/checks/check";
import type { LoopRow } from "@/core/engine/read-model";
import { usePlaces } from "../frame/navigate";
import { ViewHead } from "../frame/view-head";
import { Button, cx, Dot, Empty } from "../kit/kit";
import { useCatalogue, useLivePart } from "../pantry/provider";
import { Detail } from "./finding-detail";
import { LoopDetail } from "./loop-detail";

const VERDICTS: Record<Verdict, string> = {
  stuck: "can't start",
  gaining: "gains",
  even: "breaks even",
  lossy: "loses",
};

/** What stands in the list, one below the other: heads, findings, and where things go round. */
type ListEntry =
  | { readonly head: string; readonly n: number }
  | { readonly finding: Finding }
  | { readonly loop: LoopRow; readonly at: number };

const MOST_LOOPS = 60;

function listOf(findings: readonly Finding[], loops: readonly LoopRow[]): ListEntry[] {
  const entries: ListEntry[] = [];
  for (const [severity, head] of [
    ["error", "Errors"],
    ["warning", "Warnings"],
  ]) {
    const list = findings.filter((f) => f.severity === severity);
    if (list.length) entries.push({ head, n: list.length }, ...list.map((finding) => ({ finding })));
  }
  if (loops.length) entries.push({ head: "Loops", n: loops.length });
  return entries.concat(loops.slice(0, MOST_LOOPS).map((loop, at) => ({ loop, at })));
}

export function ChecksView() {
  const findings = useLivePart(({ model }) => model.findings);
  const loops = useLivePart(({ model }) => model.loops);
  const complete = useLivePart(({ model }) => model.complete);
  const computed = useLivePart(({ model }) => model.revision >= 0);
  const places = usePlaces();
  const rule = places.query.get("rule");
  const entries = useMemo(
    () => listOf(rule ? findings.filter((f) => f.rule === rule) : findings, rule ? [] : loops),
    [findings, loops, rule],
  );
  const loopAt = Number(places.query.get("loop") ?? -1);
  const wanted = places.query.get("finding");
  const at = useMemo(() => {
    const chosen = entries.findIndex((e) =>
      loopAt >= 0 ? "loop" in e && e.at === loopAt : "finding" in e && e.finding.fingerprint === wanted,
    );
    return chosen < 0 && loopAt < 0 ? entries.findIndex((e) => "finding" in e) : chosen;
  }, [entries, loopAt, wanted]);
  const entry = entries[at];
  const chosen = entry && "finding" in entry ? entry.finding : null;
  const gone = wanted && loopAt < 0 && !findings.some((f) => f.fingerprint === wanted);
  return (
    <>
      <ViewHead title="Checks">
        {rule && (
          <Button onClick={() => places.ask({ rule: null }, true)}>
            Only {ruleTitle(rule).toLowerCase()}: show all
          </Button>
        )}
      </ViewHead>
      <div className="flex min-h-0 flex-1">
        <div className="flex w-[372px] shrink-0 flex-col border-r border-line bg-salt">
          {!entries.some((e) => "finding" in e) && (
            <Empty title={computed ? "No findings" : "No findings yet"}>
              {computed
                ? "Every check passed: all inputs are obtainable, no loop gains, and no price is below cost."
                : "The analysis is still running. Findings appear here when it is done."}
            </Empty>
          )}
          {entries.length > 0 && <FindingList entries={entries} at={at} />}
          {computed && !complete && (
            <p className="border-t border-line px-3.5 py-2 text-copper">
              There may be more gaining loops than listed, because the search reached its limit. Fix these first.
            </p>
          )}
        </div>
        {/** biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard */}
        <section tabIndex={0} aria-label="Finding" className="min-w-0 flex-1 overflow-auto bg-fog p-5">
          {gone && (
            <p className="mb-3 rounded-sm bg-kelp-wash px-3 py-2 font-semibold text-kelp">
              The finding in this link no longer exists: it was fixed.
            </p>
          )}
          {chosen && <Detail key={chosen.fingerprint} finding={chosen} />}
          {loopAt >= 0 && <LoopDetail at={loopAt} />}
        </section>
      </div>
    </>
  );
}

const idOf = (entry: ListEntry): string =>
  "finding" in entry ? `finding-${entry.finding.fingerprint}` : "loop" in entry ? `loop-${entry.at}` : "";

/** Only what is in sight exists, and a little around it. */
function FindingList({ entries, at }: { entries: readonly ListEntry[]; at: number }) {
  const places = usePlaces();
  const box = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: entries.length,
    getScrollElement: () => box.current,
    estimateSize: (k) => ("finding" in entries[k] ? 64 : "loop" in entries[k] ? 28 : 34),
    getItemKey: (k) => idOf(entries[k]) || `head ${k}`,
    overscan: 12,
  });
  const ask = (entry: ListEntry) => {
    if ("finding" in entry) places.ask({ finding: entry.finding.fingerprint, loop: null }, true);
    else if ("loop" in entry) places.ask({ loop: String(entry.at), finding: null }, true);
  };
  const step = (by: number) => {
    let to = at + by;
    while (entries[to] && "head" in entries[to]) to += by;
    if (!entries[to]) return;
    ask(entries[to]);
    virtual.scrollToIndex(to);
  };
  // What an address names is brought into sight once.
  const brought = useRef(false);
  useEffect(() => {
    if (!brought.current && at > 0) virtual.scrollToIndex(at, { align: "auto" });
    brought.current = true;
  }, [at, virtual]);
  const inSight = virtual.getVirtualItems().some((v) => v.index === at);
  return (
    <div
      ref={box}
      role="listbox"
      aria-label="Findings"
      tabIndex={0}
      aria-activedescendant={inSight && at >= 0 ? idOf(entries[at]) : undefined}
      onKeyDown={(e) => {
        if (e.key === "ArrowDown") step(1);
        else if (e.key === "ArrowUp") step(-1);
        else return;
        e.preventDefault();
      }}
      className="min-h-0 flex-1 overflow-auto"
    >
      <div role="presentation" style={{ height: virtual.getTotalSize(), position: "relative" }}>
        {virtual.getVirtualItems().map((v) => {
          const entry = entries[v.index];
          return (
            <div
              key={v.key}
              role="presentation"
              data-index={v.index}
              ref={virtual.measureElement}
              className="absolute left-0 w-full"
              style={{ transform: `translateY(${v.start}px)` }}
            >
              {"head" in entry ? (
                <div className="head px-3.5 pt-3 pb-1">
                  {entry.head} <span className="font-normal">{entry.n}</span>
                </div>
              ) : "finding" in entry ? (
                <FindingRow finding={entry.finding} chosen={v.index === at} onChoose={() => ask(entry)} />
              ) : (
                <LoopLine loop={entry.loop} id={idOf(entry)} chosen={v.index === at} onChoose={() => ask(entry)} />
              )}
            </div>
          );
        })}
      </div>
    </div>
  );
}

/** A row of the list; the list itself has the focus and moves by keyboard. */
function Option({
  id,
  chosen,
  onChoose,
  className,
  children,
}: {
  readonly id: string;
  readonly chosen: boolean;
  readonly onChoose: () => void;
  readonly className: string;
  readonly children: ReactNode;
}) {
  return (
    <div
      id={id}
      role="option"
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
  chosen,
  onChoose,
}: {
  readonly finding: Finding;
  readonly chosen: boolean;
  readonly onChoose: () => void;
}) {
  return (
    <Option
      id={`finding-${finding.fingerprint}`}
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
