"use client";
/** The fixes of many findings: each value before and after, then one change. */
import { useMemo, useState } from "react";
import type { Finding } from "@/core/checks/check";
import { planFixes } from "@/core/checks/fix-many";
import { ruleTitle } from "@/core/checklist";
import { count } from "@/core/numbers/format";
import { DialogFrame, Scrolled } from "../kit/dialog-frame";
import { ImpactButton, ImpactWords, useImpact } from "../bulk/impact";
import { Button } from "../kit/kit";
import { useCatalogue, useStore } from "../pantry/provider";

const SHOWN = 300;

interface Props {
  readonly findings: readonly Finding[];
  readonly onClose: () => void;
}

export function FixDialog({ findings, onClose }: Props) {
  const catalogue = useCatalogue();
  const store = useStore();
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const plan = useMemo(
    () => planFixes(catalogue, findings, (f) => !left.has(f.fingerprint)),
    [catalogue, findings, left],
  );
  const done = plan.rows.filter((r) => r.conflict === null && !left.has(r.finding.fingerprint)).length;
  const conflicts = plan.rows.filter((r) => r.conflict !== null).length;
  const preview = useImpact(plan.edits);
  const turn = (finding: Finding) => {
    const next = new Set(left);
    if (!next.delete(finding.fingerprint)) next.add(finding.fingerprint);
    setLeft(next);
    preview.reset();
  };
  const rules = new Set(plan.rows.map((r) => r.finding.rule));
  const [rule] = rules;
  const save = async () => {
    const note = `Fixed ${count(done, "finding")}${rules.size === 1 ? `: ${ruleTitle(rule)}` : ""}`;
    const answer = await store.submit(plan.edits, note);
    if (answer.ok) onClose();
  };
  return (
    <DialogFrame
      title={`Fix ${count(plan.rows.length, "finding")}`}
      width="wide"
      onClose={onClose}
      foot={
        <>
          <Button look="solid" disabled={!done} onClick={() => void save()}>
            Apply {count(done, "fix", "fixes")}
          </Button>
          <ImpactButton impact={preview} disabled={!done} />
          <Button look="quiet" onClick={onClose}>
            Cancel
          </Button>
          <p role="status" className="basis-full text-second">
            {[
              conflicts > 0 && `${count(conflicts, "fix", "fixes")} can't be applied together with another`,
              plan.byHand.length > 0 && `${count(plan.byHand.length, "finding")} must be fixed by hand`,
            ]
              .filter(Boolean)
              .join("; ")}
            <ImpactWords impact={preview} />
          </p>
        </>
      }
    >
      <Scrolled label="Before and after">
        <table className="w-full">
          <thead>
            <tr className="text-left">
              <th className="head w-8 py-1">
                <span className="sr-only">Apply</span>
              </th>
              <th className="head">Fix</th>
              <th className="head w-[30%] pl-4">Before</th>
              <th className="head w-[30%] pl-4">After</th>
            </tr>
          </thead>
          <tbody>
            {plan.rows.slice(0, SHOWN).map(({ finding, fix, before, after, more, conflict }) => (
              <tr key={finding.fingerprint} className="border-t border-hair align-baseline">
                <td className="py-1">
                  <input
                    type="checkbox"
                    aria-label={fix.message}
                    checked={!left.has(finding.fingerprint)}
                    onChange={() => turn(finding)}
                  />
                </td>
                <td className="py-1 font-semibold" title={finding.message}>
                  {fix.message}
                </td>
                <td className="py-1 pl-4 text-second">{before || "–"}</td>
                {conflict === null ? (
                  <td className="py-1 pl-4">
                    {after || "–"}
                    {more > 0 && <span className="text-second"> and {count(more, "more value")}</span>}
                  </td>
                ) : (
                  <td className="py-1 pl-4 text-beet">{conflict}</td>
                )}
              </tr>
            ))}
          </tbody>
        </table>
        {plan.rows.length > SHOWN && (
          <p className="py-2 text-second">and {plan.rows.length - SHOWN} more, which are applied too</p>
        )}
      </Scrolled>
    </DialogFrame>
  );
}
