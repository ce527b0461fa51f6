"use client";
/** The tideline: where the pantry stands and what the last change moved, with undo beside it. Opens into the list. */
import { ChevronDown, ChevronUp, Redo2, Undo2 } from "lucide-react";
import { useState } from "react";
import { sayMoved } from "@/core/history/say-moved";
import { type Catalogue, nameOf } from "@/core/catalogue/catalogue";
import { ruleTitle } from "@/core/checklist";
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
  if (!state) return <footer className="h-9 border-t-2 border-ink bg-salt" />;
  const { model, catalogue, last, stopped } = state;
  const behind = model.revision < catalogue.revision;
  const faults = model.findings.filter((f) => f.severity === "error").length;
  const looks = model.findings.length - faults;
  const gains = model.findings.filter((f) => f.rule === "gaining-loop").length;
  const away = model.findings.filter((f) => f.rule === "unobtainable").length;
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
    <footer aria-label="Tideline" className="relative border-t-2 border-ink bg-salt">
      {open && <Consequences onClose={() => setOpen(false)} />}
      <div className="flex h-9 items-stretch">
        {figure(faults, faults === 1 ? "error" : "errors", "", "error")}
        {figure(looks, looks === 1 ? "warning" : "warnings", "", "warning")}
        {figure(gains, gains === 1 ? "loop gains" : "loops gain", "gaining-loop")}
        {figure(away, "unobtainable", "unobtainable")}
        <button
          type="button"
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
              <b className="truncate">{last.change.undoes ? `Undone: ${last.change.note}` : last.says}</b>
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
  if (!state) return null;
  const { last, catalogue, model } = state;
  const moved = last ? [...last.items].filter((id) => catalogue.records.item.has(id)) : [];
  return (
    <section
      aria-label="What changed"
      className="absolute right-0 bottom-full left-0 grid max-h-80 grid-cols-2 gap-6 overflow-auto border-t-2 border-ink bg-salt p-4 shadow-[0_-8px_24px_#0002]"
    >
      <div>
        <h2 className="pb-1 text-[14px]">{last ? last.says : "No changes in this window yet"}</h2>
        {last && (
          <p className="text-second">
            {last.change.author}, {sayWhen(last.change.at)}: {whatMoved(last, catalogue).join(", ")}.
          </p>
        )}
        <ul className="mt-2 grid grid-cols-2 gap-x-4">
          {moved.slice(0, 24).map((id) => (
            <li key={id} className="flex justify-between gap-2 border-b border-hair py-0.5">
              <button type="button" className="truncate hover:underline" onClick={() => places.openItem(id)}>
                {nameOf(catalogue, "item", id)}
              </button>
              <span className="ink-worked">{model.figures.get(id)?.value?.toFixed(2) ?? "—"}</span>
            </li>
          ))}
        </ul>
        {moved.length > 24 && <p className="pt-1 text-second">and {moved.length - 24} more</p>}
      </div>
      <div>
        <h2 className="pb-1 text-[14px]">Findings</h2>
        {model.findings.length === 0 && (
          <p className="text-second">
            {model.revision < 0
              ? "Findings appear here when the analysis is done."
              : "No findings: every item is obtainable and no loop gains."}
          </p>
        )}
        <ul>
          {model.findings.slice(0, 12).map((f) => (
            <li key={f.fingerprint}>
              <button
                type="button"
                className="flex w-full items-center gap-2 py-0.5 text-left hover:underline"
                onClick={() => {
                  onClose();
                  places.go("checks", { finding: f.fingerprint });
                }}
              >
                <Dot severity={f.severity} />
                <span className="truncate">
                  <b>{ruleTitle(f.rule)}:</b> {f.says}
                </span>
              </button>
            </li>
          ))}
        </ul>
      </div>
    </section>
  );
}

/** If everything was recomputed, the effects of this one change are not known. */
const whatMoved = ({ moved }: LastMove, catalogue: Catalogue): readonly string[] =>
  moved ? sayMoved(moved, (id) => nameOf(catalogue, "item", id)) : ["everything was recomputed"];
