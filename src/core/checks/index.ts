/** All checks, in the order in which findings are listed. A new check is added here. */
import type { Readings } from "../analysis/readings";
import type { Catalogue } from "../catalogue/catalogue";
import type { Check, Finding } from "./check";
import { Findings } from "./findings";
import { gainingLoop } from "./gaining-loop";
import { gatedAbove } from "./gated-above";
import { missingInput } from "./missing-input";
import { nearNames } from "./near-names";
import { outOfRange } from "./out-of-range";
import { priceBelowCost } from "./price-below-cost";
import { salvageOverCost } from "./salvage-over-cost";
import { sameInputs } from "./same-inputs";
import { needsItself, stuckLoop } from "./stuck-loop";
import { stubInUse } from "./stub-in-use";
import { unobtainable } from "./unobtainable";

export const CHECKS: readonly Check[] = [
  gainingLoop,
  stubInUse,
  missingInput,
  stuckLoop,
  needsItself,
  outOfRange,
  unobtainable,
  priceBelowCost,
  salvageOverCost,
  gatedAbove,
  sameInputs,
  nearNames,
];

export const checkTitle = (rule: string): string => CHECKS.find((c) => c.id === rule)?.title ?? rule;

const rank = new Map(CHECKS.map((c, i) => [c.id, i]));
/** Faults first, then by check, then by what they say. Sorts in place. */
export const inOrder = (findings: Finding[]): Finding[] =>
  findings.sort(
    (a, b) =>
      Number(a.severity !== "error") - Number(b.severity !== "error") ||
      (rank.get(a.rule) ?? 0) - (rank.get(b.rule) ?? 0) ||
      (a.says < b.says ? -1 : a.says > b.says ? 1 : a.fingerprint < b.fingerprint ? -1 : 1),
  );

/** Every finding of every check, in order. */
export const findingsOf = (catalogue: Catalogue, readings: Readings): Finding[] =>
  inOrder([...new Findings(CHECKS, { catalogue, readings }).all()]);
