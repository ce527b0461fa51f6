/** All checks. A new check is added here; what it is called stands in the checklist. */
import { inOrder } from "../checklist/index";
import type { Readings } from "../analysis/readings";
import type { Catalogue } from "../catalogue/catalogue";
import type { Check, Finding } from "./check";
import { faintColour } from "./faint-colour";
import { Findings } from "./findings";
import { gainingLoop } from "./gaining-loop";
import { gatedAbove } from "./gated-above";
import { missingInput } from "./missing-input";
import { nearNames } from "./near-names";
import { outOfRange } from "./out-of-range";
import { priceBelowCost } from "./price-below-cost";
import { rarityLadder } from "./rarity-ladder";
import { retiredInUse } from "./retired-in-use";
import { salvageOverCost } from "./salvage-over-cost";
import { sameInputs } from "./same-inputs";
import { statOutOfRange } from "./stat-out-of-range";
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
  statOutOfRange,
  unobtainable,
  priceBelowCost,
  salvageOverCost,
  gatedAbove,
  sameInputs,
  retiredInUse,
  rarityLadder,
  faintColour,
  nearNames,
];

/** Every finding of every check, in order. */
export const findingsOf = (catalogue: Catalogue, readings: Readings): Finding[] =>
  inOrder([...new Findings(CHECKS, { catalogue, readings }).all()]);
