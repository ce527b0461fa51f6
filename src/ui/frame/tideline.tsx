"use client";
/** The tideline: where the pantry stands and what the last change moved, with undo beside it. Opens into the list. */
import { ChevronDown, ChevronUp, Redo2, Undo2, X } from "lucide-react";
import { type ReactNode, useEffect, useRef, useState } from "react";
import { sayMoved } from "@/core/history/say-moved";
import { type Catalogue, nameOf } from "@/core/catalogue/catalogue";
import { ruleTitle } from "@/core/checklist";
import type { Finding } from "@/core/checks/check";
import { sayCost } from "@/core/numbers/format";
import { Button, cx, Dot, sayWhen } from "../kit/kit";
import { useStore, useView } from "../pantry/provider";
import type { LastMove } from "../pantry/store";
import { usePlaces } from "./navigate";

export function Tideline() {
  const store = useStore();
  const state = useView((v) => v.state);
  const canUndo = useView((v) => v.canUndo);
  const canRedo = useView((v) => v.canRedo);
  const busy = useView((v) => v.busy);
  const places = usePlaces();
  const [open, setOpen] = useState(false);
  const toggle = useRef<HTMLButtonElement>(null);
  const close = () => {
    setOpen(false);
    toggle.current?.focus();
  };
  // Another view has its own room: what lies over it goes.
  // biome-ignore lint/correctness/useExhaustiveDependencies: with each view
  useEffect(() => setOpen(false), [places.view]);
  if (!state) return <footer className="h-9 border-t-2 border-ink bg-salt" />;
  const { model, judged, catalogue, last, stopped } = state;
  const behind = model.revision < catalogue.revision;
  const { open: findings } = judged;
  const [faults, looks] = (["error", "warning"] as const).map(
    (severity) => findings.filter((f) => f.severity === severity).length,
  );
  const gains = findings.filter((f) => f.rule === "gaining-loop").length;
  const away = findings.filter((f) => f.rule === "unobtainable").length;
  const figure = (n: number, text: string, rule: string, mark?: "error" | "warning") => (
    <button
      type="button"
      onClick={() => places.go("checks", rule ? { rule } : {})}
      className="flex h-full items-center gap-1.5 border-r border-hair px-3 whitespace-nowrap hover:bg-shade"
    >
      {mark && <Dot severity={mark} />}
      <b>{n}</b> <span className={cx(!mark && n > 0 && "text-ink")}>{text}</span>
    </button>
  );
  return (
    // biome-ignore lint/a11y/useAriaPropsSupportedByRole: named where it has a role, which is told at run time
    // biome-ignore lint/a11y/noStaticElementInteractions: Escape closes what stands in it
    <footer
      aria-label="Tideline"
      className="relative border-t-2 border-ink bg-salt"
      onKeyDown={(e) => {
        if (e.key !== "Escape" || !open) return;
        e.stopPropagation();
        close();
      }}
    >
      {open && <Consequences onClose={close} />}
      <div className="flex h-9 items-stretch">
        {figure(faults, faults === 1 ? "error" : "errors", "", "error")}
        {figure(looks, looks === 1 ? "warning" : "warnings", "", "warning")}
        {figure(gains, gains === 1 ? "loop gains" : "loops gain", "gaining-loop")}
        {figure(away, "unobtainable", "unobtainable")}
        <button
          type="button"
          ref={toggle}
          aria-expanded={open}
          aria-label="What the last change did"
          onClick={() => setOpen(!open)}
          className="flex min-w-0 flex-1 items-center gap-3 bg-kelp-wash px-3 text-left"
        >
          {stopped !== null ? (
            <span role="alert" className="truncate text-beet">
              <b>Analysis stopped at revision {catalogue.revision}.</b> Undo the last change, or continue without it.
            </span>
          ) : behind ? (
            <span role="status" className="truncate text-second">
              Computing the effects of revision {catalogue.revision}.
            </span>
          ) : last ? (
            <span
              key={last.change.revision}
              data-testid="last-move"
              className="moved flex min-w-0 gap-3 whitespace-nowrap"
            >
              <b className="truncate">
                {last.change.undoes
                  ? `${store.redone.has(last.change.revision) ? "Redo" : "Undo"}: ${last.message}`
                  : last.message}
              </b>
              <span className="truncate text-second">{whatMoved(last, catalogue).slice(0, 3).join(", ")}</span>
            </span>
          ) : (
            <span className="truncate text-second">The effects of your changes appear here.</span>
          )}
          <span className="ml-auto">
            {open ? <ChevronDown size={15} aria-hidden /> : <ChevronUp size={15} aria-hidden />}
          </span>
        </button>
        <div className="flex items-center gap-1 px-2">
          {busy > 0 && <span className="px-1 text-second">saving</span>}
          <Button onClick={() => void store.undo()} disabled={!canUndo} title="Undo your last change (Ctrl Z)">
            <Undo2 size={14} aria-hidden /> Undo
          </Button>
          <Button
            look="quiet"
            onClick={() => void store.redo()}
            disabled={!canRedo}
            aria-label="Redo"
            title="Redo (Ctrl Shift Z)"
          >
            <Redo2 size={14} aria-hidden />
          </Button>
        </div>
      </div>
    </footer>
  );
}

function Consequences({ onClose }: { onClose: () => void }) {
  const state = useView((v) => v.state);
  const places = usePlaces();
  const box = useRef<HTMLElement>(null);
  useEffect(() => box.current?.focus(), []);
  if (!state) return null;
  const { last, catalogue } = state;
  const costs = last?.costs.filter(({ id }) => catalogue.records.item.has(id)) ?? [];
  return (
    <section
      ref={box}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard
      tabIndex={0}
      aria-label="What the last change did"
      className="absolute right-0 bottom-full left-0 max-h-80 overflow-auto border-t-2 border-ink bg-salt p-4 shadow-[0_-8px_24px_#0002] outline-none"
    >
      <div className="flex items-start gap-4 pb-2">
        <div className="min-w-0 flex-1">
          <h2 className="text-[14px]">{last ? last.message : "No changes in this window yet"}</h2>
          <p className="text-second">
            {last
              ? `${last.change.author}, ${sayWhen(last.change.at)}: ${whatMoved(last, catalogue).join(", ")}.`
              : "Change something, and its effects on costs and findings appear here."}
          </p>
        </div>
        <Button look="quiet" className="px-1!" aria-label="Close" onClick={onClose}>
          <X size={15} aria-hidden />
        </Button>
      </div>
      {last && (
        <div className="grid grid-cols-3 gap-6">
          <Effects title="Costs" of={costs} none="No cost changed.">
            {({ id, from, to }) => (
              <button
                type="button"
                className="flex w-full justify-between gap-2 py-0.5 text-left hover:underline"
                onClick={() => places.openItem(id)}
              >
                <span className="truncate">{nameOf(catalogue, "item", id)}</span>
                <span className="num whitespace-nowrap">
                  <span className="text-second">{sayWorth(from)} →</span>{" "}
                  <span className="ink-worked">{sayWorth(to)}</span>
                </span>
              </button>
            )}
          </Effects>
          <Effects title="New findings" of={last.opened} none="No new findings.">
            {(finding) => (
              <FindingLink finding={finding} onOpen={() => places.go("checks", { finding: finding.fingerprint })} />
            )}
          </Effects>
          <Effects title="Resolved findings" of={last.closed} none="No finding was resolved.">
            {(finding) => (
              <FindingLink
                finding={finding}
                onOpen={() => {
                  const [about] = finding.about;
                  if (about) places.open(about.kind, about.id);
                }}
              />
            )}
          </Effects>
        </div>
      )}
    </section>
  );
}

const LISTED = 12;
const sayWorth = (value: number | null): string => (value === null ? "unobtainable" : sayCost(value));

function Effects<T>({
  title,
  of,
  none,
  children,
}: {
  readonly title: string;
  readonly of: readonly T[];
  readonly none: string;
  readonly children: (of: T) => ReactNode;
}) {
  return (
    <section aria-label={title} className="min-w-0">
      <h3 className="head pb-0.5">
        {title} {of.length > 0 && <span className="font-normal">{of.length}</span>}
      </h3>
      {of.length === 0 && <p className="text-second">{none}</p>}
      <ul>
        {of.slice(0, LISTED).map((each, k) => (
          <li key={k} className="border-b border-hair">
            {children(each)}
          </li>
        ))}
      </ul>
      {of.length > LISTED && <p className="pt-1 text-second">and {of.length - LISTED} more</p>}
    </section>
  );
}

function FindingLink({ finding, onOpen }: { readonly finding: Finding; readonly onOpen: () => void }) {
  return (
    <button
      type="button"
      title={finding.message}
      className="flex w-full items-center gap-2 py-0.5 text-left hover:underline"
      onClick={onOpen}
    >
      <Dot severity={finding.severity} />
      <span className="truncate">
        <b>{ruleTitle(finding.rule)}:</b> {finding.message}
      </span>
    </button>
  );
}

/** If everything was recomputed, the effects of this one change are not known. */
const whatMoved = ({ moved }: LastMove, catalogue: Catalogue): readonly string[] =>
  moved ? sayMoved(moved, (id) => nameOf(catalogue, "item", id)) : ["everything was recomputed"];
