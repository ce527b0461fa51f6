/** The ready-made fixes of several findings as one change. */
import { apply } from "../catalogue/apply";
import { type Catalogue, recordAt } from "../catalogue/catalogue";
import { type Edit, fieldWord } from "../catalogue/edit";
import { sayValue } from "../catalogue/say-value";
import type { Finding, Fix } from "./check";
import { editsOf } from "./fixes";

/** What one fix would do. */
export interface FixRow {
  readonly finding: Finding;
  readonly fix: Fix;
  /** The first value that it changes, in words; what it adds or removes. */
  readonly before: string;
  readonly after: string;
  /** Further values that it changes. */
  readonly more: number;
  /** Why it can't be done together with those before it; null: it can. */
  readonly conflict: string | null;
}

export interface FixPlan {
  readonly rows: readonly FixRow[];
  /** Everything that can be done, in order. */
  readonly edits: readonly Edit[];
  /** Findings whose fixes need a person: they only open something, or there is none. */
  readonly byHand: readonly Finding[];
}

/** The first fix that needs no one to look at it: it edits, or merges. A new source does, since its numbers are a guess. */
const readyFix = ({ fixes }: Finding): Fix | undefined =>
  fixes.find(({ do: does }) => does === "edit" || does === "merge");
export const canFix = (finding: Finding): boolean => readyFix(finding) !== undefined;

/**
 * Each fix on top of those before it. Two fixes that change the same value are in conflict: the first is done.
 * @param chosen  whether a finding's fix is to be done; the others are listed and not done
 */
export function planFixes(
  catalogue: Catalogue,
  findings: readonly Finding[],
  chosen: (finding: Finding) => boolean = () => true,
): FixPlan {
  const rows: FixRow[] = [];
  const byHand: Finding[] = [];
  const edits: Edit[] = [];
  const changedBy = new Map<string, string>();
  let now = catalogue;
  for (const finding of findings) {
    const fix = readyFix(finding);
    if (!fix) {
      byHand.push(finding);
      continue;
    }
    const own = editsOf(catalogue, fix);
    const row = { finding, fix, ...changeOf(catalogue, own), more: Math.max(0, own.length - 1) };
    if (!chosen(finding)) {
      rows.push({ ...row, conflict: null });
      continue;
    }
    const places = own.map(placeOf);
    const earlier = places.map((place) => changedBy.get(place)).find((by) => by !== undefined);
    const outcome = earlier === undefined ? apply(now, own) : null;
    if (!outcome?.ok) {
      const why = outcome?.issues[0]?.message ?? outcome?.conflicts[0]?.message ?? "";
      rows.push({ ...row, conflict: earlier === undefined ? why : `“${earlier}” changes the same value.` });
      continue;
    }
    now = outcome.catalogue;
    edits.push(...own);
    for (const place of places) changedBy.set(place, fix.message);
    rows.push({ ...row, conflict: null });
  }
  return { rows, edits, byHand };
}

const placeOf = (edit: Edit): string =>
  edit.op === "set" ? `${edit.kind} ${edit.id} ${edit.field}` : `${edit.kind} ${edit.record.id}`;

function changeOf(catalogue: Catalogue, [first]: readonly Edit[]): { readonly before: string; readonly after: string } {
  if (!first) return { before: "", after: "" };
  if (first.op === "add") return { before: "", after: `adds ${first.record.name}` };
  if (first.op === "remove") return { before: first.record.name, after: "is removed" };
  const { kind, id, field, from, to } = first;
  const word = fieldWord(catalogue, kind, field);
  const name = kind === "pantry" ? "" : (recordAt(catalogue, kind, id)?.name ?? "");
  const say = (value: typeof from) => sayValue(catalogue, kind, field, value);
  return { before: `${name} ${word}: ${say(from)}`.trim(), after: say(to) };
}
