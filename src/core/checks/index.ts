/** All checks, in the order in which findings are listed. A new check is added here. */
import type { Readings } from "../analysis/readings";
import type { Catalogue } from "../catalogue/catalogue";
import type { Check, Finding } from "./check";
import { gainingLoop } from "./gaining-loop";
import { missingInput } from "./missing-input";
import { nearNames } from "./near-names";
import { outOfRange } from "./out-of-range";
import { priceBelowCost } from "./price-below-cost";
import { salvageOverCost } from "./salvage-over-cost";
import { sameInputs } from "./same-inputs";
import { needsItself, stuckLoop } from "./stuck-loop";
import { stubInUse } from "./stub-in-use";
import { unobtainable } from "./unobtainable";

export const CHECKS: readonly Check[] = [gainingLoop, stubInUse, missingInput, stuckLoop, needsItself, outOfRange, unobtainable, priceBelowCost, salvageOverCost, sameInputs, nearNames];

export const checkTitle = (rule: string): string => CHECKS.find((c) => c.id === rule)?.title ?? rule;

/** Every finding of every check, faults first. */
export function findingsOf(catalogue: Catalogue, readings: Readings): Finding[] {
  const findings = CHECKS.flatMap((check) =>
    [...check.find({ catalogue, readings })].map(
      (found): Finding => ({ rule: check.id, severity: check.severity, ...found, fingerprint: `${check.id}:${found.about.map((r) => r.id).sort().join(",")}` }),
    ),
  );
  return [...findings.filter((f) => f.severity === "error"), ...findings.filter((f) => f.severity === "warning")];
}
