/** How serious each check is in a pantry: its default, or what the pantry sets. */
import type { Catalogue } from "../catalogue/catalogue";
import { type RuleId, ruleOf, ruleOfKey, type Severity } from "../checklist/index";

/** What a pantry sets, by rule. */
export type Severities = ReadonlyMap<string, Severity | "off">;

export const severitiesOf = ({ records }: Pick<Catalogue, "records">): Severities =>
  new Map(
    [...records.severity.values()].flatMap(({ key, severity }) => {
      const rule = ruleOfKey(key);
      return rule ? [[rule, severity] as const] : [];
    }),
  );

/** @returns "off" where the check isn't run */
export const severityIn = (set: Severities, rule: RuleId): Severity | "off" =>
  set.get(rule) ?? ruleOf(rule)?.severity ?? "error";
