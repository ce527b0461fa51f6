/**
 * Titles, severities and settings of the checks, in the order in which findings are listed. Loaded by every window,
 * unlike the checks and the engine. A new check is one entry here, one file in core/checks and its line in
 * checks/index.ts.
 */
import type { Field, Fields } from "../schema/field";
import { choice } from "../schema/choice";
import { number } from "../schema/number";

export const SEVERITIES = ["error", "warning", "note"] as const;
export type Severity = (typeof SEVERITIES)[number];
/** What a pantry may set for a check. */
export const severityWords = ["off", "note", "warning", "error"] as const;

export interface Rule {
  readonly title: string;
  readonly severity: Severity;
  /** Settings of a pantry that are this check's own. */
  readonly settings?: Fields;
}

const error = (title: string) => ({ title, severity: "error" }) as const;
const warning = (title: string) => ({ title, severity: "warning" }) as const;
const note = (title: string) => ({ title, severity: "note" }) as const;
const share = { min: 0, max: 100, initial: 1 };

export const RULES = {
  "no-sources": error("No sources yet"),
  "no-recipes": warning("No recipes yet"),
  "no-prices": note("No sell prices yet"),
  "gaining-loop": error("Gaining loop"),
  "stub-in-use": error("Unknown name (stub)"),
  "missing-input": error("Input that nothing provides"),
  "nothing-tagged": error("Tag without items"),
  "stuck-loop": error("Loop that can't start"),
  "station-unbuildable": error("Station that can't be built"),
  unlearnable: error("Recipe that can't be learned"),
  "burner-cold": error("Station without fuel"),
  "supply-short": error("Needs more than can exist"),
  "pattern-conflict": error("Indistinguishable patterns"),
  "needs-itself": error("Tool or station that needs itself"),
  "out-of-range": error("Chance or quantity out of range"),
  "stat-out-of-range": error("Stat outside its range"),
  "value-out-of-range": error("Value outside its range"),
  "choice-gone": error("Option that was removed"),
  unobtainable: error("Unobtainable item"),
  "price-below-cost": {
    ...warning("Sold below cost"),
    settings: {
      priceFloor: number({
        ...share,
        label: "lowest sell price",
        help: "Reports sell prices below this share of the cost, such as 1 for the cost itself.",
      }),
    },
  },
  "salvage-over-cost": {
    ...warning("Salvage worth more than the item"),
    settings: {
      salvageCeiling: number({
        ...share,
        label: "highest salvage value",
        help: "Reports salvage that returns more than this share of the item's cost, such as 1.",
      }),
    },
  },
  "trial-fails": error("Trial that fails"),
  "trial-not-run": warning("Trial too long to run"),
  "usable-for-ever": error("Unlimited use"),
  "use-nowhere": error("Use that is never allowed"),
  "use-without-effect": warning("Use without effect"),
  "always-on": {
    ...warning("Condition that is always active"),
    settings: {
      uptimeCeiling: number({
        min: 0.01,
        max: 1,
        initial: 1,
        label: "highest uptime",
        help: "Reports conditions that can be active for this share of the time, such as 1 for always.",
      }),
    },
  },
  "used-up-in-vain": warning("Used up without effect"),
  "cooldown-overridden": warning("Shared cooldown overridden"),
  "resource-nobody-has": warning("Resource that no character has"),
  "restores-too-much": warning("Restores more than anyone can hold"),
  "never-matters": warning("Effect that never does anything"),
  "display-differs": warning("Description states another number"),
  "condition-never-ends": error("Condition that never ends"),
  "condition-unapplied": warning("Condition that is never applied"),
  "opposite-conditions": warning("Conflicting conditions"),
  "against-better": warning("Change in the wrong direction"),
  "container-pays": {
    ...warning("Opening that never or always pays"),
    settings: {
      crateFloor: number({
        ...share,
        label: "lowest opening value",
        help: "Reports crates that on average give less than this share of their cost, such as 1.",
      }),
      crateCeiling: number({
        ...share,
        label: "highest guaranteed opening value",
        help: "Reports crates that always give more than this share of their cost, such as 1.",
      }),
    },
  },
  "entry-never-comes": warning("Drop table entry that never drops"),
  "table-in-itself": error("Drop table that contains itself"),
  "formula-faults": warning("Formula outside its range"),
  "worn-without-slot": warning("Wearable without a slot"),
  "slot-unfit": warning("Slot without items"),
  "gated-above": warning("Needs an item of a higher level"),
  "variant-unreachable": warning("Variant that can't be made"),
  "variant-no-more": warning("Variant without benefit"),
  outdone: warning("Recipe that is never worth it"),
  "ware-too-dear": {
    ...warning("Overpriced shop item"),
    settings: {
      wareTimes: number({
        min: 1,
        max: 1000,
        initial: 5,
        label: "highest shop price",
        help: "Reports shop items priced above this multiple of the cheapest alternative, such as 5.",
      }),
    },
  },
  "salvage-drifted": warning("Salvage that differs from its rule"),
  "combines-one-way": {
    ...warning("Combined in one order only"),
    settings: {
      combinationOrder: choice(["does not matter", "matters"], {
        label: "order of combinations",
        help: "If it matters, combinations that work in one order only, such as whetstone on knife, are not reported.",
      }),
    },
  },
  "vessel-forgotten": warning("Container that is not returned"),
  "container-twice": warning("Container returned twice"),
  "fuel-unburnt": warning("Fuel that nothing burns"),
  "draw-never-comes": warning("Draw that never happens"),
  "same-inputs": warning("Same inputs, different results"),
  "over-stack": warning("By-product larger than a stack"),
  "retired-in-use": warning("Retired item in use"),
  "placeholder-gone": error("Unknown value in a description"),
  "link-astray": warning("Invalid link"),
  "field-empty": warning("Required field is empty"),
  "field-twice": error("Same value in a unique field"),
  "not-of-type": warning("Field that the type does not have"),
  "dead-end": warning("Dead end"),
  orphan: warning("Unused record"),
  "no-description": warning("No description"),
  "no-icon": warning("No icon"),
  "rarity-ladder": warning("Rarities out of order"),
  "faint-colour": warning("Colour with too little contrast"),
  "near-names": warning("Nearly identical names"),
} as const satisfies { readonly [rule: string]: Rule };

export type RuleId = keyof typeof RULES;
export const RULE_IDS = Object.keys(RULES) as readonly RuleId[];
const rules = new Map<string, Rule>(Object.entries(RULES));
export const isRule = (text: string): text is RuleId => rules.has(text);
/** A rule as the key of a record: "dead_end". */
export const ruleKey = (rule: string): string => rule.replaceAll("-", "_");
const byKey = new Map(RULE_IDS.map((id) => [ruleKey(id), id]));
export const isRuleKey = (key: string): boolean => byKey.has(key);
/** The rule of a record's key. */
export const ruleOfKey = (key: string): RuleId | undefined => byKey.get(key);
export const ruleOf = (rule: string): Rule | undefined => rules.get(rule);
export const ruleTitle = (rule: string): string => rules.get(rule)?.title ?? rule;

type SettingsOf<R> = R extends { readonly settings: infer S } ? S : never;
type Merged<U> = (U extends unknown ? (of: U) => void : never) extends (of: infer I) => void ? I : never;
/** All checks' settings, as fields of a pantry. */
export const CHECK_SETTINGS = Object.assign({}, ...RULE_IDS.map((id) => (RULES[id] as Rule).settings)) as Merged<
  SettingsOf<(typeof RULES)[RuleId]>
> satisfies { readonly [name: string]: Field };

const rank = new Map<string, number>(RULE_IDS.map((id, k) => [id, k]));
interface Listed {
  readonly rule: string;
  readonly severity: Severity;
  readonly message: string;
  readonly fingerprint: string;
}
/** The most serious first, then by check, then by what they say. */
export const byOrder = (a: Listed, b: Listed): number =>
  SEVERITIES.indexOf(a.severity) - SEVERITIES.indexOf(b.severity) ||
  (rank.get(a.rule) ?? -1) - (rank.get(b.rule) ?? -1) ||
  (a.message < b.message ? -1 : a.message > b.message ? 1 : a.fingerprint < b.fingerprint ? -1 : 1);
/** Sorts in place. */
export const inOrder = <F extends Listed>(findings: F[]): F[] => findings.sort(byOrder);
