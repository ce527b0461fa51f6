/** Makes decisions about findings: to accept them, or to assign them to someone. */
import type { Catalogue } from "../catalogue/catalogue";
import type { Edit } from "../catalogue/edit";
import { lineage } from "../catalogue/tree";
import { ruleTitle } from "../checklist/index";
import { FreeKeys } from "../editing/new-names";
import { type Decision, type Item, withDefaults } from "../kinds/index";
import { cut } from "../schema/characters";
import { type Id, newId } from "../schema/id";
import { LONGEST_NAME } from "../schema/limits";
import type { Finding } from "./check";
import { printOfDecision, targetOf } from "./decisions";

/** What one decision can be about: each finding by itself, or all of one check among items. */
export type DecisionScope =
  | { readonly scope: "finding" }
  | { readonly scope: "type" | "tag"; readonly id: Id; readonly name: string };

/** Wider scopes that cover all of some findings, the narrowest type first; none unless they are of one check. */
export function widerScopes(catalogue: Catalogue, findings: readonly Finding[]): DecisionScope[] {
  const [first] = findings;
  if (!first || findings.some((f) => f.rule !== first.rule)) return [];
  const items = findings.map((f) => itemOf(catalogue, f));
  if (!items.every((item) => item !== undefined)) return [];
  const [one, ...others] = items;
  const types = lineage(catalogue, one.type).filter(({ id }) =>
    others.every((item) => lineage(catalogue, item.type).some((type) => type.id === id)),
  );
  const tags = one.tags.filter((tag) => others.every((item) => item.tags.includes(tag)));
  return [
    ...types.map(({ id, name }): DecisionScope => ({ scope: "type", id, name })),
    ...tags.flatMap((id): DecisionScope[] => {
      const tag = catalogue.records.tag.get(id);
      return tag ? [{ scope: "tag", id, name: tag.name }] : [];
    }),
  ];
}
function itemOf(catalogue: Catalogue, { about }: Finding): Item | undefined {
  const [subject] = about;
  return subject?.kind === "item" ? catalogue.records.item.get(subject.id) : undefined;
}

export type NewDecision = Pick<Decision, "what" | "person" | "reason"> &
  Partial<Pick<Decision, "untilDay" | "untilRevision">> & {
    readonly scope: DecisionScope;
    /** The finding is back when its number becomes worse than it is now. */
    readonly noWorse?: boolean;
  };

/**
 * Edits that make a decision about each finding, or one about all of them, in place of decisions of the same sort about
 * the same.
 * @returns `left`: how many findings no decision can be about, because they name too many records
 */
export function decisionEdits(
  catalogue: Catalogue,
  findings: readonly Finding[],
  { scope, noWorse, ...given }: NewDecision,
): { readonly edits: Edit[]; readonly left: number } {
  const keys = new FreeKeys(catalogue);
  const edits: Edit[] = [];
  let left = 0;
  const there = new Map<string, Decision[]>();
  for (const decision of catalogue.records.decision.values()) {
    const same = there.get(sameAs(decision));
    if (same) same.push(decision);
    else there.set(sameAs(decision), [decision]);
  }
  const put = (name: string, about: Partial<Decision>) => {
    const called = cut(name, LONGEST_NAME);
    const key = keys.next("decision", called);
    const record = withDefaults("decision", { id: newId(), key, name: called, ...given, ...about });
    for (const old of there.get(sameAs(record)) ?? []) edits.push({ op: "remove", kind: "decision", record: old });
    there.delete(sameAs(record));
    edits.push({ op: "add", kind: "decision", record });
  };
  const [first] = findings;
  if (first && scope.scope !== "finding")
    put(`${ruleTitle(first.rule)}: ${scope.name}`, { rule: first.rule, scope: scope.scope, [scope.scope]: scope.id });
  else
    for (const finding of findings) {
      const target = targetOf(finding);
      if (!target) left++;
      else
        put(`${ruleTitle(finding.rule)}: ${finding.about[0]?.name ?? "the pantry"}`, {
          ...target,
          atMost: noWorse ? (finding.size ?? null) : null,
        });
    }
  return { edits, left };
}

const sameAs = (decision: Pick<Decision, "what" | "rule" | "scope" | "about" | "nth" | "type" | "tag">): string =>
  decision.scope === "finding"
    ? `${decision.what} ${printOfDecision(decision)}`
    : `${decision.what} ${decision.rule} ${decision.scope} ${decision.scope === "type" ? decision.type : decision.tag}`;
