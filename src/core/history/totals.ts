/** How many findings there were after each of the last changes. */
import type { LoggedChange } from "./log";

export interface FindingTotal {
  readonly revision: number;
  readonly findings: number;
}

/**
 * Counts back from now by what each change opened and closed, up to the first change of which that is not known: one of
 * several that were followed together, or an import.
 * @param changes  newest first, without gaps
 * @param now      findings after the newest of them
 * @returns oldest first
 */
export function totalsOver(
  changes: readonly Pick<LoggedChange, "revision" | "moved">[],
  now: number,
): readonly FindingTotal[] {
  const totals: FindingTotal[] = [];
  let findings = now;
  for (const { revision, moved } of changes) {
    totals.push({ revision, findings });
    if (!moved) return totals.reverse();
    findings = Math.max(0, findings - moved.opened + moved.closed);
  }
  const oldest = changes.at(-1);
  if (oldest) totals.push({ revision: oldest.revision - 1, findings });
  return totals.reverse();
}
