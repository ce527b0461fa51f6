/** All checks. A new check is added here; what it is called stands in the checklist. */
import { inOrder } from "../checklist/index";
import type { Readings } from "../analysis/readings";
import type { Catalogue } from "../catalogue/catalogue";
import type { Check, Finding } from "./check";
import { noDescription, noIcon } from "./undescribed";
import { burnerCold, fuelUnburnt } from "./burning";
import { choiceGone } from "./choice-gone";
import { combinesOneWay } from "./combinations";
import { deadEnd } from "./dead-end";
import { drawNeverComes } from "./draw-never-comes";
import { faintColour } from "./faint-colour";
import { fieldEmpty } from "./field-empty";
import { fieldTwice } from "./field-twice";
import { Findings } from "./findings";
import { gainingLoop } from "./gaining-loop";
import { gatedAbove } from "./gated-above";
import { stationUnbuildable, unlearnable } from "./learning";
import { linkAstray } from "./link-astray";
import { missingInput } from "./missing-input";
import { nearNames } from "./near-names";
import { noPrices, noRecipes, noSources } from "./not-begun";
import { notOfType } from "./not-of-type";
import { orphan } from "./orphan";
import { outdone } from "./outdone";
import { wareTooDear } from "./ware-too-dear";
import { outOfRange } from "./out-of-range";
import { patternConflict } from "./pattern-conflict";
import { placeholderGone } from "./placeholder-gone";
import { priceBelowCost } from "./price-below-cost";
import { rarityLadder } from "./rarity-ladder";
import { nothingTagged } from "./nothing-tagged";
import { overStack } from "./over-stack";
import { retiredInUse } from "./retired-in-use";
import { salvageDrifted } from "./salvage-drifted";
import { salvageOverCost } from "./salvage-over-cost";
import { sameInputs } from "./same-inputs";
import { statOutOfRange } from "./stat-out-of-range";
import { needsItself, stuckLoop } from "./stuck-loop";
import { stubInUse } from "./stub-in-use";
import { supplyShort } from "./supply-short";
import { variantNoMore, variantUnreachable } from "./variants";
import { containerTwice } from "./container-twice";
import { vesselForgotten } from "./vessels";
import { againstBetter, conditionNeverEnds, conditionUnapplied, oppositeConditions } from "./conditions";
import { formulaFaults } from "./formula-faults";
import { containerPays, entryNeverComes, tableInItself } from "./tables";
import { trialFails, trialNotRun } from "./trial-fails";
import { displayDiffers, neverMatters, resourceNobodyHas, restoresTooMuch } from "./use-amounts";
import { alwaysOn, cooldownOverridden, usableForEver, usedUpInVain, useNowhere, useWithoutEffect } from "./use-limits";
import { slotUnfit, wornWithoutSlot } from "./worn";
import { unobtainable } from "./unobtainable";
import { valueOutOfRange } from "./value-out-of-range";

export const CHECKS: readonly Check[] = [
  noSources,
  noRecipes,
  noPrices,
  gainingLoop,
  stubInUse,
  missingInput,
  nothingTagged,
  stuckLoop,
  stationUnbuildable,
  unlearnable,
  burnerCold,
  supplyShort,
  patternConflict,
  needsItself,
  outOfRange,
  statOutOfRange,
  valueOutOfRange,
  choiceGone,
  unobtainable,
  priceBelowCost,
  salvageOverCost,
  trialFails,
  trialNotRun,
  usableForEver,
  useNowhere,
  useWithoutEffect,
  alwaysOn,
  usedUpInVain,
  cooldownOverridden,
  resourceNobodyHas,
  restoresTooMuch,
  neverMatters,
  displayDiffers,
  conditionNeverEnds,
  conditionUnapplied,
  oppositeConditions,
  againstBetter,
  containerPays,
  entryNeverComes,
  tableInItself,
  formulaFaults,
  wornWithoutSlot,
  slotUnfit,
  gatedAbove,
  variantUnreachable,
  variantNoMore,
  outdone,
  wareTooDear,
  salvageDrifted,
  combinesOneWay,
  vesselForgotten,
  containerTwice,
  fuelUnburnt,
  drawNeverComes,
  sameInputs,
  overStack,
  retiredInUse,
  placeholderGone,
  linkAstray,
  fieldEmpty,
  fieldTwice,
  notOfType,
  deadEnd,
  orphan,
  noDescription,
  noIcon,
  rarityLadder,
  faintColour,
  nearNames,
];

/** Every finding of every check, in order. */
export const findingsOf = (catalogue: Catalogue, readings: Readings): Finding[] =>
  inOrder([...new Findings(CHECKS, { catalogue, readings }).all()]);
