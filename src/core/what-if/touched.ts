/** What a scenario changes, as a list that people can look through: numbers by themselves, and everything else. */
import { type Catalogue, nameOf } from "../catalogue/catalogue";
import { type Edit, fieldWord } from "../catalogue/edit";
import { tellChange } from "../history/telling";
import { kindWord, type Subject } from "../kinds/index";
import { capital, count } from "../numbers/format";
import { same } from "../schema/json";
import type { Id } from "../schema/id";
import { type Authored, numbersOf } from "./numbers";

/** A number that is tried, with what it is in the pantry. */
export interface TriedNumber {
  readonly is: "number";
  readonly of: Authored;
  readonly before: number;
}
/** The same number of many records, which is moved by one factor. */
export interface TriedTogether {
  readonly is: "together";
  /** "Sell price of 12 items" */
  readonly title: string;
  readonly edits: readonly Extract<Edit, { op: "set" }>[];
  /** What most of them are multiplied by. */
  readonly factor: number;
}
/** Anything else: a record that is added or removed, a text, a choice. */
export interface TriedOther {
  readonly is: "other";
  readonly edits: readonly Edit[];
  readonly title: string;
}
export type Tried = TriedNumber | TriedTogether | TriedOther;

/** So many edits of the same field are moved by one factor. */
const TOGETHER = 4;
const isNumbers = (e: Edit): e is Extract<Edit, { op: "set" }> =>
  e.op === "set" && typeof e.from === "number" && typeof e.to === "number" && e.from !== 0;

/** @param scenario  the pantry with the edits made */
export function triedIn(base: Catalogue, scenario: Catalogue, edits: readonly Edit[]): Tried[] {
  const byField = new Map<string, Extract<Edit, { op: "set" }>[]>();
  for (const e of edits)
    if (isNumbers(e)) byField.set(`${e.kind} ${e.field}`, [...(byField.get(`${e.kind} ${e.field}`) ?? []), e]);
  const tried: Tried[] = [];
  const done = new Set<string>();
  for (const edit of edits) {
    const group = edit.op === "set" ? (byField.get(`${edit.kind} ${edit.field}`) ?? []) : [];
    if (edit.op === "set" && group.length >= TOGETHER && isNumbers(edit)) {
      if (group[0] === edit) tried.push(together(base, group));
    } else if (edit.op === "set") {
      const name = `${edit.kind} ${edit.id} ${edit.field}`;
      if (done.has(name)) continue;
      done.add(name);
      const numbers = changedNumbers(base, scenario, edit.kind, edit.id, edit.field);
      tried.push(...(numbers ?? [{ is: "other", edits: [edit], title: tellChange(scenario, [edit]) } as const]));
    } else
      tried.push({ is: "other", edits: [edit], title: tellChange(edit.op === "remove" ? base : scenario, [edit]) });
  }
  return tried;
}

function together(catalogue: Catalogue, edits: readonly Extract<Edit, { op: "set" }>[]): TriedTogether {
  const [{ kind, field }] = edits;
  const factors = edits.map((e) => (e.to as number) / (e.from as number)).sort((a, b) => a - b);
  return {
    is: "together",
    title: `${capital(fieldWord(catalogue, kind, field))} of ${count(edits.length, kindWord(kind), kindWord(kind, true))}`,
    edits,
    factor: factors[Math.floor(factors.length / 2)],
  };
}

/** The numbers of a field that are others in the scenario; null: something else of it is. */
function changedNumbers(
  base: Catalogue,
  scenario: Catalogue,
  kind: Subject,
  id: Id,
  path: string,
): TriedNumber[] | null {
  const [then, now] = [base, scenario].map((c) => numbersOf(c, kind, id).filter((n) => n.path === path));
  if (!then.length || then.length !== now.length) return null;
  const changed = now.flatMap((of, k): TriedNumber[] =>
    of.value === then[k].value ? [] : [{ is: "number", of, before: then[k].value }],
  );
  const alike = then.every((n, k) => same(n.within, now[k].within) && n.label === now[k].label);
  return alike && changed.length ? changed : null;
}

/** "Sell price of Net float", "Net float: quantity of Cork". */
export function titleOf(catalogue: Catalogue, { kind, id, label, within }: Authored): string {
  if (kind === "pantry") return label;
  const name = nameOf(catalogue, kind, id);
  return within.length ? `${name}: ${label.charAt(0).toLowerCase()}${label.slice(1)}` : `${label} of ${name}`;
}
