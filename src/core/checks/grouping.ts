/** Findings in groups. A new grouping is one entry of GROUPINGS. */
import type { Catalogue } from "../catalogue/catalogue";
import { RULES, type Severity } from "../checklist/index";
import { kindWord } from "../kinds/index";
import { capital } from "../numbers/format";
import type { Finding } from "./check";
import type { Decisions } from "./decisions";

export interface FindingGroup {
  /** Stays the same while findings come and go. */
  readonly key: string;
  readonly title: string;
  /** In the order in which they were given. */
  readonly findings: readonly Finding[];
  /** How many there are of each severity. */
  readonly counts: Readonly<Record<Severity, number>>;
}

interface Label {
  readonly key: string;
  readonly title: string;
  /** Where the group is listed; without it after those that have one, most errors first, then most findings. */
  readonly order?: number;
}
interface Grouping {
  readonly label: string;
  /** @returns the group of a finding, given all findings and what was decided about them */
  groups(catalogue: Catalogue, all: readonly Finding[], decisions: Decisions): (finding: Finding) => Label;
}

const ruleOrder = new Map(Object.keys(RULES).map((rule, k) => [rule, k]));
const severities: Readonly<Record<Severity, Label>> = {
  error: { key: "error", title: "Errors", order: 0 },
  warning: { key: "warning", title: "Warnings", order: 1 },
  note: { key: "note", title: "Notes", order: 2 },
};

/** The ids of the leaf causes of a finding, sorted; empty if none are known. */
const causesOf = ({ evidence }: Finding): readonly string[] =>
  evidence.type === "cause" ? evidence.leaves.map(({ id }) => id).sort() : [];

const OTHER: Label = { key: "-", title: "No common cause", order: 1_000_000 };

const grouping = <T extends Record<string, Grouping>>(of: T): T => of;
export const GROUPINGS = grouping({
  severity: {
    label: "Severity",
    groups:
      () =>
      ({ severity }) =>
        severities[severity],
  },
  rule: {
    label: "Rule",
    groups:
      () =>
      ({ rule }) => ({
        key: rule,
        title: Object.hasOwn(RULES, rule) ? RULES[rule as keyof typeof RULES].title : rule,
        order: ruleOrder.get(rule),
      }),
  },
  record: {
    label: "Record",
    groups:
      () =>
      ({ about: [subject] }) =>
        subject ? { key: subject.id, title: subject.name } : { key: "-", title: "The pantry" },
  },
  type: {
    label: "Type",
    groups:
      (catalogue) =>
      ({ about: [subject] }) => {
        if (!subject) return { key: "-", title: "The pantry" };
        if (subject.kind !== "item") return { key: subject.kind, title: capital(kindWord(subject.kind, true)) };
        const type = catalogue.records.item.get(subject.id)?.type ?? null;
        const known = type === null ? undefined : catalogue.records.type.get(type);
        return known ? { key: known.id, title: known.name } : { key: "item", title: "Items without a type" };
      },
  },
  person: {
    label: "Person",
    groups:
      (_, __, decisions) =>
      ({ fingerprint, size }) => {
        const person = decisions.about(fingerprint, size).assigned?.person;
        return person ? { key: `to ${person}`, title: person } : { key: "-", title: "Not assigned", order: 1_000_000 };
      },
  },
  cause: {
    label: "Cause",
    groups: (_, all) => {
      // A finding about a leaf itself belongs to those that the leaf causes.
      const leaves = new Set(
        all.flatMap(({ evidence }) =>
          evidence.type === "cause" && evidence.leaves.length === 1 ? [evidence.leaves[0].id] : [],
        ),
      );
      const labels = new Map<string, Label>();
      return (finding) => {
        const causes = causesOf(finding);
        if (finding.evidence.type === "cause" && causes.length) {
          const key = causes.join(" ");
          const label = labels.get(key) ?? { key, title: causeTitle(finding.evidence.leaves.map(({ name }) => name)) };
          labels.set(key, label);
          return label;
        }
        const [subject] = finding.about;
        return subject && leaves.has(subject.id) ? { key: subject.id, title: causeTitle([subject.name]) } : OTHER;
      };
    },
  },
});
export type GroupedBy = keyof typeof GROUPINGS;
export const isGrouping = (text: string): text is GroupedBy => Object.hasOwn(GROUPINGS, text);

const NAMED = 3;
/** "Because of Ship's glass": it may be unobtainable, or of too high a level. */
const causeTitle = (names: readonly string[]): string => {
  const sorted = [...names].sort((a, b) => a.localeCompare(b, "en"));
  const shown = sorted.slice(0, NAMED).join(", ");
  return `Because of ${shown}${sorted.length > NAMED ? ` and ${sorted.length - NAMED} more` : ""}`;
};

/**
 * Findings in groups, in one pass over them.
 * @param findings   each is in exactly one group
 * @param decisions  what was decided about them
 * @returns groups in the order of their entry, otherwise those with most errors first, then the largest, then in the order
 *   of their first finding: names are not compared, because there may be as many groups as findings
 */
export function groupFindings(
  catalogue: Catalogue,
  findings: readonly Finding[],
  by: GroupedBy,
  decisions: Decisions,
): FindingGroup[] {
  const labelOf = (GROUPINGS[by] as Grouping).groups(catalogue, findings, decisions);
  const groups = new Map<string, { label: Label; findings: Finding[]; counts: Record<Severity, number> }>();
  for (const finding of findings) {
    const label = labelOf(finding);
    let group = groups.get(label.key);
    if (!group) {
      group = { label, findings: [], counts: { error: 0, warning: 0, note: 0 } };
      groups.set(label.key, group);
    }
    group.findings.push(finding);
    group.counts[finding.severity]++;
  }
  return [...groups.values()]
    .sort(
      (a, b) =>
        (a.label.order ?? ruleOrder.size) - (b.label.order ?? ruleOrder.size) ||
        b.counts.error - a.counts.error ||
        b.findings.length - a.findings.length,
    )
    .map(({ label, findings: list, counts }) => ({ key: label.key, title: label.title, findings: list, counts }));
}

/** Findings as rows of text, with their heads: what a spreadsheet or a ticket needs. */
export function findingRows(findings: readonly Finding[], decisions: Decisions): string[][] {
  return [
    ["severity", "rule", "kind", "key", "name", "finding", "assigned to", "accepted", "fingerprint"],
    ...findings.map(({ severity, rule, about: [subject], message, fingerprint, size }) => {
      const { assigned, accepted } = decisions.about(fingerprint, size);
      return [
        severity,
        rule,
        subject ? kindWord(subject.kind) : "",
        subject?.key ?? "",
        subject?.name ?? "",
        message,
        assigned?.person ?? "",
        accepted ? accepted.reason || "yes" : "",
        fingerprint,
      ];
    }),
  ];
}
