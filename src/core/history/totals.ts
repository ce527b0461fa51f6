/** How many findings there were after each of the last changes. */
import type { LoggedChange } from "./log";

export interface FindingTotal {
  readonly revision: number;
  readonly findings: number;
}

/**
 * Counts back from now by what each change opened and closed.
 * @param changes  newest first, without gaps
 * @param now      findings after the newest of them
 * @returns oldest first, beginning before the oldest change; `unknown`: changes of which it is not known what they did
 */
export function totalsOver(
  changes: readonly Pick<LoggedChange, "revision" | "moved">[],
  now: number,
): { readonly totals: readonly FindingTotal[]; readonly unknown: number } {
  const totals: FindingTotal[] = [];
  let findings = now;
  let unknown = 0;
  for (const { revision, moved } of changes) {
    totals.push({ revision, findings });
    if (moved) findings = Math.max(0, findings - moved.opened + moved.closed);
    else unknown++;
  }
  const oldest = changes.at(-1);
  if (oldest) totals.push({ revision: oldest.revision - 1, findings });
  return { totals: totals.reverse(), unknown };
}
