/** What was decided about findings: which are accepted, who looks after which, and which decisions apply to nothing. */
import type { Catalogue } from "../catalogue/catalogue";
import { lineage } from "../catalogue/tree";
import { MOST_SUBJECTS } from "../kinds/decision";
import type { Decision, Item } from "../kinds/index";
import type { Id } from "../schema/id";
import { isSubject, subjectsIn, subjectsText } from "../schema/subjects";
import type { Finding, Ref } from "./check";
import { fingerprintOf, idsOf, nthOf, ruleIn } from "./fingerprint";

/** The fingerprint of the finding that a decision about one finding is about. */
export const printOfDecision = ({ rule, about, nth }: Pick<Decision, "rule" | "about" | "nth">): string =>
  fingerprintOf(
    rule,
    subjectsIn(about).map(({ id }) => id),
    nth,
  );

/** The members of a decision that say which finding it is about; null where no decision can name its records. */
export function targetOf({
  fingerprint,
  rule,
  about,
}: Pick<Finding, "fingerprint" | "rule" | "about">): Pick<Decision, "rule" | "scope" | "about" | "nth"> | null {
  const ids = idsOf(fingerprint);
  const refs = new Map<string, Ref>(about.map((of) => [of.id, of]));
  const named = ids.flatMap((id) => refs.get(id) ?? []);
  if (named.length < ids.length || ids.length > MOST_SUBJECTS || !named.every(isSubject)) return null;
  return { rule, scope: "finding", about: subjectsText(named), nth: nthOf(fingerprint) };
}

/** What a decision says at the moment: it applies, it has run out, or the finding is worse than what was accepted. */
export type Standing = "holds" | "expired" | "worse";

/**
 * @param today  the day it is, as YYYY-MM-DD
 * @param size   how bad the finding is; undefined: it has no number
 */
export function standingOf(
  { untilDay, untilRevision, atMost }: Pick<Decision, "untilDay" | "untilRevision" | "atMost">,
  revision: number,
  today: string,
  size?: number,
): Standing {
  if (untilDay !== "" && today > untilDay) return "expired";
  if (untilRevision !== null && revision > untilRevision) return "expired";
  return atMost !== null && size !== undefined && size > atMost * (1 + 1e-9) ? "worse" : "holds";
}

/** What was decided about one finding. */
export interface Decided {
  /** By which it is accepted, if it is. */
  readonly accepted?: Decision;
  /** By which it was accepted until it expired or the finding became worse. */
  readonly lapsed?: Decision;
  readonly assigned?: Decision;
}
const UNDECIDED: Decided = {};

interface DecisionIndex {
  /** Decisions about one finding, by its fingerprint. */
  readonly byPrint: ReadonlyMap<string, readonly Decision[]>;
  /** Decisions about items of a type or with a tag, by rule. */
  readonly byRule: ReadonlyMap<string, readonly Decision[]>;
}
/** Made once for the records they are of: most changes are about others. */
const indexes = new WeakMap<object, DecisionIndex>();

function indexOf(records: ReadonlyMap<Id, Decision>): DecisionIndex {
  const known = indexes.get(records);
  if (known) return known;
  const [byPrint, byRule] = [new Map<string, Decision[]>(), new Map<string, Decision[]>()];
  for (const each of records.values()) {
    const [map, key] = each.scope === "finding" ? [byPrint, printOfDecision(each)] : ([byRule, each.rule] as const);
    const list = map.get(key);
    if (list) list.push(each);
    else map.set(key, [each]);
  }
  const index = { byPrint, byRule };
  indexes.set(records, index);
  return index;
}

/** The decisions of a pantry, looked up by finding. */
export class Decisions {
  private readonly index: DecisionIndex;
  readonly size: number;

  /** @param today  the day it is, as YYYY-MM-DD; decides what has expired */
  constructor(
    private readonly catalogue: Catalogue,
    private readonly today: string,
  ) {
    this.index = indexOf(catalogue.records.decision);
    this.size = catalogue.records.decision.size;
  }

  /** Rules of which any finding may be decided about. */
  rules(): ReadonlySet<string> {
    const { byPrint, byRule } = this.index;
    return new Set([...byRule.keys(), ...[...byPrint.keys()].map(ruleIn)]);
  }

  /** @param size  how bad the finding is; undefined: not known, or it has no number */
  about(fingerprint: string, size?: number): Decided {
    if (this.size === 0) return UNDECIDED;
    const here = this.index.byPrint.get(fingerprint);
    const wide = this.index.byRule.size ? this.index.byRule.get(ruleIn(fingerprint)) : undefined;
    if (!here && !wide) return UNDECIDED;
    const found: { -readonly [N in keyof Decided]: Decided[N] } = {};
    const take = (decision: Decision) => {
      if (decision.what === "assigned") {
        if (standingOf(decision, this.catalogue.revision, this.today) === "holds") found.assigned ??= decision;
      } else if (standingOf(decision, this.catalogue.revision, this.today, size) === "holds")
        found.accepted ??= decision;
      else found.lapsed ??= decision;
    };
    // What is said of one finding goes before what is said of many.
    for (const decision of here ?? []) take(decision);
    if (wide) {
      const ids = idsOf(fingerprint);
      for (const decision of wide) if (this.covers(decision, ids)) take(decision);
    }
    return found;
  }

  /** Whether one of the records is an item of the decision's type or with its tag. */
  private covers({ scope, type, tag }: Decision, ids: readonly string[]): boolean {
    return ids.some((id) => {
      const item = this.itemBehind(id as Id);
      if (!item) return false;
      if (scope === "tag") return tag !== null && item.tags.includes(tag);
      return type !== null && lineage(this.catalogue, item.type).some((of) => of.id === type);
    });
  }

  /** The item itself, or what a recipe makes first. */
  private itemBehind(id: Id): Item | undefined {
    const { item, recipe } = this.catalogue.records;
    const made = recipe.get(id)?.lines.find((line) => line.role === "output")?.item;
    return item.get(id) ?? (made ? item.get(made) : undefined);
  }
}

/** Findings by what was decided about them. */
export interface Judged {
  /** Those that are not accepted, in the order in which they were given. */
  readonly open: readonly Finding[];
  readonly accepted: readonly Finding[];
  readonly decisions: Decisions;
}

/** @param today  the day it is, as YYYY-MM-DD */
export function judge(catalogue: Catalogue, findings: readonly Finding[], today: string): Judged {
  const decisions = new Decisions(catalogue, today);
  if (decisions.size === 0) return { open: findings, accepted: [], decisions };
  const [open, accepted]: [Finding[], Finding[]] = [[], []];
  for (const finding of findings)
    (decisions.about(finding.fingerprint, finding.size).accepted ? accepted : open).push(finding);
  return { open, accepted, decisions };
}

/** Decisions about single findings that no check reports any more, in order of name. */
export function withoutFinding(catalogue: Catalogue, findings: readonly Finding[]): Decision[] {
  const prints = new Set(findings.map(({ fingerprint }) => fingerprint));
  return [...catalogue.records.decision.values()]
    .filter((decision) => decision.scope === "finding" && !prints.has(printOfDecision(decision)))
    .sort((a, b) => (a.name < b.name ? -1 : 1));
}

/** The day at a time, as YYYY-MM-DD where the clock stands. */
export function dayOf(time: Date): string {
  const two = (n: number) => String(n).padStart(2, "0");
  return `${time.getFullYear()}-${two(time.getMonth() + 1)}-${two(time.getDate())}`;
}
