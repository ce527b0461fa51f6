"use client";
/** Accepts findings, or assigns them to someone: for what, why, and until when. */
import { useMemo, useState } from "react";
import type { Finding } from "@/core/checks/check";
import { decisionEdits, type DecisionScope, widerScopes } from "@/core/checks/decide";
import { ruleTitle } from "@/core/checklist";
import { isDay } from "@/core/kinds/decision";
import { count } from "@/core/numbers/format";
import { DialogFrame, Scrolled } from "../kit/dialog-frame";
import { Button, Dot } from "../kit/kit";
import { useCatalogue, useStore } from "../pantry/provider";

const WORDS = {
  accepted: { verb: "Accept", by: "Accepted by", reason: "Reason" },
  assigned: { verb: "Assign", by: "Assigned to", reason: "Note" },
} as const;
type Until = "always" | "day" | "revision" | "worse";
const SHOWN = 50;
const FINDING: DecisionScope = { scope: "finding" };

interface Props {
  readonly what: "accepted" | "assigned";
  readonly findings: readonly Finding[];
  readonly onClose: () => void;
}

export function DecideDialog({ what, findings, onClose }: Props) {
  const catalogue = useCatalogue();
  const store = useStore();
  const words = WORDS[what];
  const scopes = useMemo(() => [FINDING, ...widerScopes(catalogue, findings)], [catalogue, findings]);
  const [scopeAt, setScopeAt] = useState(0);
  const scope = scopes[scopeAt] ?? FINDING;
  const [person, setPerson] = useState(what === "accepted" ? store.author : "");
  const [reason, setReason] = useState("");
  const [until, setUntil] = useState<Until>("always");
  const [day, setDay] = useState("");
  const [revision, setRevision] = useState(String(catalogue.revision + 10));
  const people = useMemo(
    () => [...new Set([...catalogue.records.decision.values()].map((d) => d.person).filter(Boolean))].sort(),
    [catalogue],
  );
  const measured = scope.scope === "finding" && findings.every((f) => f.size !== undefined);
  const wrong =
    what === "accepted" && !reason.trim()
      ? "Enter a reason."
      : what === "assigned" && !person.trim()
        ? "Enter a person."
        : until === "day" && !isDay(day)
          ? "Enter the last day, such as 2026-12-31."
          : until === "revision" && !/^\d{1,9}$/.test(revision)
            ? "Enter the number of a revision, such as 240."
            : null;
  const [shown, setShown] = useState(false);
  const save = async () => {
    if (wrong) return setShown(true);
    const { edits, left } = decisionEdits(catalogue, findings, {
      what,
      scope,
      person: person.trim(),
      reason: reason.trim(),
      ...(until === "day" ? { untilDay: day } : {}),
      ...(until === "revision" ? { untilRevision: Number(revision) } : {}),
      noWorse: until === "worse" && measured,
    });
    const title = findings.length > 1 ? count(findings.length, "finding") : ruleTitle(findings[0].rule);
    const answer = edits.length
      ? await store.submit(edits, `${words.by.split(" ")[0]} ${title}`)
      : ({ ok: true } as const);
    if (!answer.ok) return;
    onClose();
    if (left > 0)
      store.tell(
        "Some findings stay open",
        `${count(left, "finding")} can't be named by one decision: too many records.`,
      );
  };
  return (
    <DialogFrame
      title={`${words.verb} ${count(findings.length, "finding")}`}
      onClose={onClose}
      foot={
        <>
          <Button look="solid" onClick={() => void save()}>
            {words.verb}
          </Button>
          <Button look="quiet" onClick={onClose}>
            Cancel
          </Button>
          {shown && wrong && (
            <p role="alert" className="text-beet">
              {wrong}
            </p>
          )}
        </>
      }
    >
      <Scrolled label="Decision" className="space-y-3">
        {scopes.length > 1 && (
          <label className="block">
            <span className="head block pb-1">Applies to</span>
            <select className="field" value={scopeAt} onChange={(e) => setScopeAt(Number(e.target.value))}>
              {scopes.map((s, k) => (
                <option key={s.scope === "finding" ? s.scope : s.id} value={k}>
                  {sayScope(s, findings)}
                </option>
              ))}
            </select>
          </label>
        )}
        <label className="block">
          <span className="head block pb-1">{words.reason}</span>
          <textarea
            className="field h-16!"
            maxLength={2000}
            value={reason}
            placeholder={what === "accepted" ? "Sold at a loss on purpose" : ""}
            onChange={(e) => setReason(e.target.value)}
          />
        </label>
        <div className="flex flex-wrap gap-3">
          <label className="block">
            <span className="head block pb-1">{words.by}</span>
            <input
              className="field w-52!"
              maxLength={80}
              list="decide-people"
              value={person}
              onChange={(e) => setPerson(e.target.value)}
            />
            <datalist id="decide-people">
              {people.map((name) => (
                <option key={name} value={name} />
              ))}
            </datalist>
          </label>
          <label className="block">
            <span className="head block pb-1">Until</span>
            <select className="field w-44!" value={until} onChange={(e) => setUntil(e.target.value as Until)}>
              <option value="always">no limit</option>
              <option value="day">a day</option>
              <option value="revision">a revision</option>
              {what === "accepted" && measured && <option value="worse">it gets worse</option>}
            </select>
          </label>
          {until === "day" && (
            <label className="block">
              <span className="head block pb-1">Last day</span>
              <input type="date" className="field w-40!" value={day} onChange={(e) => setDay(e.target.value)} />
            </label>
          )}
          {until === "revision" && (
            <label className="block">
              <span className="head block pb-1">Last revision</span>
              <input
                inputMode="numeric"
                className="field w-28! text-right"
                value={revision}
                onChange={(e) => setRevision(e.target.value)}
              />
            </label>
          )}
        </div>
        <ul className="space-y-0.5 border-t border-hair pt-2 text-second">
          {findings.slice(0, SHOWN).map((f) => (
            <li key={f.fingerprint} className="flex items-baseline gap-2">
              <Dot severity={f.severity} />
              <span className="min-w-0">{f.message}</span>
            </li>
          ))}
          {findings.length > SHOWN && <li>and {findings.length - SHOWN} more</li>}
        </ul>
      </Scrolled>
    </DialogFrame>
  );
}

function sayScope(scope: DecisionScope, findings: readonly Finding[]): string {
  if (scope.scope === "finding") return findings.length > 1 ? `these ${findings.length} findings` : "this finding";
  const of = scope.scope === "type" ? `items of type ${scope.name}` : `items with the tag ${scope.name}`;
  return `every “${ruleTitle(findings[0].rule)}” about ${of}, now and later`;
}
