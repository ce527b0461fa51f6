"use client";
/** What was decided about a finding, and the buttons that decide. */
import { useState } from "react";
import type { Finding } from "@/core/checks/check";
import { standingOf, dayOf } from "@/core/checks/decisions";
import { canFix } from "@/core/checks/fix-many";
import type { Decision } from "@/core/kinds/index";
import { count } from "@/core/numbers/format";
import { Button } from "../kit/kit";
import { useCatalogue, useLivePart, useStore } from "../pantry/provider";
import { DecideDialog, FixDialog } from "./lazily";

/** Accept, assign, and fix: one finding, or several at once. */
export function FindingActions({ findings }: { readonly findings: readonly Finding[] }) {
  const [open, setOpen] = useState<"accepted" | "assigned" | "fix" | null>(null);
  const decisions = useLivePart(({ judged }) => judged.decisions);
  const many = findings.length > 1;
  const isOpen = findings.some(({ fingerprint, size }) => !decisions.about(fingerprint, size).accepted);
  const fixable = many ? findings.filter(canFix).length : 0;
  const close = () => setOpen(null);
  return (
    <div className="flex flex-wrap gap-1.5">
      {fixable > 0 && (
        <Button look="solid" onClick={() => setOpen("fix")}>
          Fix {fixable}…
        </Button>
      )}
      {isOpen && <Button onClick={() => setOpen("accepted")}>{many ? `Accept ${findings.length}…` : "Accept…"}</Button>}
      <Button onClick={() => setOpen("assigned")}>{many ? `Assign ${findings.length}…` : "Assign…"}</Button>
      {(open === "accepted" || open === "assigned") && <DecideDialog what={open} findings={findings} onClose={close} />}
      {open === "fix" && <FixDialog findings={findings} onClose={close} />}
    </div>
  );
}

/** Until when a decision holds: "until 2026-12-31", "until it gets worse". */
export function untilOf({ untilDay, untilRevision, atMost }: Decision): string {
  const limits = [
    untilDay && `until ${untilDay}`,
    untilRevision !== null && `until revision ${untilRevision}`,
    atMost !== null && "until it gets worse",
  ].filter(Boolean);
  return limits.join(", ");
}

/** Who accepted a finding or looks after it, and why. */
export function DecisionNotes({ finding: { fingerprint, size } }: { readonly finding: Finding }) {
  const decisions = useLivePart(({ judged }) => judged.decisions);
  const { accepted, lapsed, assigned } = decisions.about(fingerprint, size);
  return (
    <>
      {accepted && <DecisionNote decision={accepted} title="Accepted" undo="Reopen" />}
      {!accepted && lapsed && (
        <DecisionNote decision={lapsed} title={<Lapsed decision={lapsed} size={size} />} undo="Remove" />
      )}
      {assigned && <DecisionNote decision={assigned} title="Assigned" undo="Clear" />}
    </>
  );
}

function Lapsed({ decision, size }: { readonly decision: Decision; readonly size?: number }) {
  const { revision } = useCatalogue();
  const worse = standingOf(decision, revision, dayOf(new Date()), size) === "worse";
  return (
    <>
      {worse ? "Open again, because it is worse than what was accepted." : "Open again, because it was accepted only"}
    </>
  );
}

interface NoteProps {
  readonly decision: Decision;
  readonly title: React.ReactNode;
  readonly undo: string;
}
export function DecisionNote({ decision, title, undo }: NoteProps) {
  const store = useStore();
  const catalogue = useCatalogue();
  const { scope, type, tag, person, reason, what } = decision;
  const of = scope === "type" ? type && catalogue.records.type.get(type) : tag && catalogue.records.tag.get(tag);
  const until = untilOf(decision);
  const by = person && (what === "accepted" ? ` by ${person}` : ` to ${person}`);
  return (
    <div className="mb-3 flex items-start gap-3 rounded-sm border border-line bg-salt px-3 py-2">
      <div className="min-w-0 flex-1">
        <p>
          <b>
            {title}
            {typeof title === "string" ? by : ""}
          </b>
          {until && <span className="text-second"> {until}</span>}
          {scope !== "finding" && of && (
            <span className="text-second">
              {" "}
              with all of this check {scope === "type" ? "about items of type" : "about items with the tag"} {of.name}
            </span>
          )}
        </p>
        {reason && <p className="whitespace-pre-line text-second">{reason}</p>}
      </div>
      <Button
        aria-label={`${undo}: ${decision.name}`}
        onClick={() => void store.submit([{ op: "remove", kind: "decision", record: decision }])}
      >
        {undo}
      </Button>
    </div>
  );
}

/** Decisions about findings that no check reports any more. */
export function StaleDecisions({ decisions }: { readonly decisions: readonly Decision[] }) {
  const store = useStore();
  if (!decisions.length) return null;
  const remove = () =>
    void store.submit(
      decisions.map((record) => ({ op: "remove", kind: "decision", record }) as const),
      `Removed ${count(decisions.length, "decision")} without a finding`,
    );
  return (
    <div className="flex items-center gap-2 border-t border-line px-3.5 py-2">
      <p className="min-w-0 flex-1 text-second" title={decisions.map((d) => d.name).join("\n")}>
        {count(decisions.length, "decision")} about findings that no longer exist
      </p>
      <Button onClick={remove}>Remove</Button>
    </div>
  );
}
