/** Findings of a pantry by what was decided about them, kept from one state of the window to the next. */
import type { Catalogue } from "@/core/catalogue/catalogue";
import type { Finding } from "@/core/checks/check";
import { dayOf, type Judged, judge } from "@/core/checks/decisions";
import type { ReadModel } from "@/core/engine/read-model";
import type { Id } from "@/core/schema/id";

export interface JudgedFindings {
  readonly judged: Judged;
  /** Numbers of open findings about records that have any. */
  readonly troubled: ReadonlyMap<Id, number>;
}

interface State extends JudgedFindings {
  readonly model: ReadModel;
}

/** @param before  the same of an earlier state, of which is kept what stays the same */
export function judgedFindings(
  before: State | null,
  catalogue: Catalogue,
  model: ReadModel,
  now: Date = new Date(),
): JudgedFindings {
  // Without decisions nothing depends on the records; with some, a type or tag may have another item.
  if (before && model.findings === before.model.findings && !before.judged.decisions.size)
    if (!catalogue.records.decision.size) return { judged: before.judged, troubled: before.troubled };
  const judged = judge(catalogue, model.findings, dayOf(now));
  return { judged, troubled: troubledBy(judged.open) };
}

function troubledBy(findings: readonly Finding[]): ReadonlyMap<Id, number> {
  const counts = new Map<Id, number>();
  for (const f of findings) for (const r of f.about) counts.set(r.id, (counts.get(r.id) ?? 0) + 1);
  return counts;
}
