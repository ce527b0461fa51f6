/**
 * What the checks are called, how much they matter and what can be set about each, in the order in which findings are
 * listed. Known to every window, which carries neither the checks nor the engine. A new check is one entry here, one
 * file in core/checks and its line in checks/index.ts.
 */
import type { Field, Fields } from "../schema/field";
import { choice } from "../schema/choice";
import { number } from "../schema/number";

export type Severity = "error" | "warning";

export interface Rule {
  readonly title: string;
  readonly severity: Severity;
  /** Settings of a pantry that are this check's own. */
  readonly settings?: Fields;
}

const error = (title: string) => ({ title, severity: "error" }) as const;
const warning = (title: string) => ({ title, severity: "warning" }) as const;
const share = { min: 0, max: 100, initial: 1 };

export const RULES = {
  "gaining-loop": error("Gaining loop"),
  "stub-in-use": error("Name not defined yet"),
  "missing-input": error("Input that nothing provides"),
  "nothing-tagged": error("Tag that nothing has"),
  "stuck-loop": error("Loop with no way in"),
  "station-unbuildable": error("Station that nobody can build"),
  unlearnable: error("Recipe that nobody can learn"),
  "burner-cold": error("Nothing to burn"),
  "supply-short": error("More than a world holds"),
  "pattern-conflict": error("Patterns that can't be told apart"),
  "needs-itself": error("Tool or station that needs itself"),
  "out-of-range": error("Chance or quantity out of range"),
  "stat-out-of-range": error("Stat outside its range"),
  "value-out-of-range": error("Value outside its range"),
  "choice-gone": error("Choice that is gone"),
  unobtainable: error("Item out of reach"),
  "price-below-cost": {
    ...warning("Sold below cost"),
    settings: {
      priceFloor: number({
        ...share,
        label: "price floor",
        help: "A sell price below this share of the cost is a finding. 1 is the cost itself.",
      }),
    },
  },
  "salvage-over-cost": {
    ...warning("Salvage worth more than the item"),
    settings: {
      salvageCeiling: number({
        ...share,
        label: "salvage ceiling",
        help: "Salvage that gives back more than this share of the item's cost is a finding.",
      }),
    },
  },
  "trial-fails": error("Trial that fails"),
  "trial-not-run": warning("Trial too long to run"),
  "usable-for-ever": error("Usable for ever"),
  "use-nowhere": error("Use that is allowed nowhere"),
  "use-without-effect": warning("Use without effect"),
  "always-on": {
    ...warning("Always on"),
    settings: {
      uptimeCeiling: number({
        min: 0.01,
        max: 1,
        initial: 1,
        label: "uptime ceiling",
        help: "A condition that can be on for this share of the time or more is a finding. 1 is all the time.",
      }),
    },
  },
  "used-up-in-vain": warning("Used up for nothing"),
  "cooldown-overridden": warning("Shared cooldown overridden"),
  "resource-nobody-has": warning("Resource that no subject has"),
  "restores-too-much": warning("Restores more than anyone holds"),
  "never-matters": warning("Effect that can never matter"),
  "display-differs": warning("Players are told another number"),
  "condition-never-ends": error("Condition that nothing ends"),
  "condition-unapplied": warning("Condition that nobody applies"),
  "opposite-conditions": warning("Conditions that contradict each other"),
  "against-better": warning("Change against the better direction"),
  "container-pays": {
    ...warning("Container that never pays, or always"),
    settings: {
      crateFloor: number({
        ...share,
        label: "container floor",
        help: "A container that on average gives less than this share of its cost is a finding.",
      }),
      crateCeiling: number({
        ...share,
        label: "container ceiling",
        help: "A container of which the least that can come is worth more than this share of its cost is a finding.",
      }),
    },
  },
  "entry-never-comes": warning("Table entry that never comes"),
  "table-in-itself": error("Table within itself"),
  "formula-faults": warning("Formula out of its range"),
  "worn-without-slot": warning("Worn, but nowhere"),
  "slot-unfit": warning("Slot that nothing fits"),
  "gated-above": warning("Needs something of a higher level"),
  "variant-unreachable": warning("Variant that nobody can go"),
  "variant-no-more": warning("Tool that is for nothing"),
  outdone: warning("Recipe that nobody needs"),
  "ware-too-dear": {
    ...warning("Ware that nobody buys"),
    settings: {
      wareTimes: number({
        min: 1,
        max: 1000,
        initial: 5,
        label: "dearest ware",
        help: "A ware that costs more than so many times what the item takes another way, open no later, is a finding.",
      }),
    },
  },
  "salvage-drifted": warning("Salvage beside its rule"),
  "combines-one-way": {
    ...warning("Combined in one order only"),
    settings: {
      combinationOrder: choice(["does not matter", "matters"], {
        label: "order of combinations",
        help: "Where it matters, a combination that works in one order only is no finding.",
      }),
    },
  },
  "vessel-forgotten": warning("Vessel that does not come back"),
  "container-twice": warning("Container that comes back twice"),
  "fuel-unburnt": warning("Fuel that nothing burns"),
  "draw-never-comes": warning("Draw that never comes"),
  "same-inputs": warning("Same inputs, different results"),
  "over-stack": warning("More beside than a stack holds"),
  "retired-in-use": warning("Retired item in use"),
  "placeholder-gone": error("Description names what is gone"),
  "link-astray": warning("Link to the wrong thing"),
  "field-empty": warning("Required and empty"),
  "not-of-type": warning("Not of its type"),
  "dead-end": warning("Good for nothing"),
  orphan: warning("Used by nothing"),
  "no-description": warning("No description"),
  "no-icon": warning("No icon"),
  "rarity-ladder": warning("Rarities out of order"),
  "faint-colour": warning("Colour that can't be seen"),
  "near-names": warning("Nearly the same name"),
} as const satisfies { readonly [rule: string]: Rule };

export type RuleId = keyof typeof RULES;
export const RULE_IDS = Object.keys(RULES) as readonly RuleId[];
const rules = new Map<string, Rule>(Object.entries(RULES));
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
  readonly says: string;
  readonly fingerprint: string;
}
/** Faults first, then by check, then by what they say. */
export const byOrder = (a: Listed, b: Listed): number =>
  Number(a.severity !== "error") - Number(b.severity !== "error") ||
  (rank.get(a.rule) ?? -1) - (rank.get(b.rule) ?? -1) ||
  (a.says < b.says ? -1 : a.says > b.says ? 1 : a.fingerprint < b.fingerprint ? -1 : 1);
/** Sorts in place. */
export const inOrder = <F extends Listed>(findings: F[]): F[] => findings.sort(byOrder);
