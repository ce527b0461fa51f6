/** Changes in words: one short sentence for the tideline and the log. */
import { type Catalogue, recordAt } from "../catalogue/catalogue";
import { type Edit, fieldWord } from "../catalogue/edit";
import { sayValue } from "../catalogue/say-value";
import { around } from "../catalogue/surroundings";
import { definition, kindWord, type Subject } from "../kinds/index";
import { count } from "../numbers/format";
import { fieldOf } from "../schema/record";

function sayEdit(catalogue: Catalogue, edit: Edit): string {
  if (edit.op !== "set") return `${edit.record.name} ${edit.op === "add" ? "added" : "removed"}`;
  const name =
    edit.kind === "pantry"
      ? catalogue.pantry.name
      : (recordAt(catalogue, edit.kind, edit.id)?.name ?? "a removed record");
  const said = fieldOf(definition(edit.kind), edit.field)?.sayChange?.(edit.from, edit.to, around(catalogue));
  if (said) return `${name}: ${said}`;
  if (edit.field === "name") return `${String(edit.from)} renamed to ${String(edit.to)}`;
  const word = fieldWord(catalogue, edit.kind, edit.field);
  const [from, to] = [edit.from, edit.to].map((v) => sayValue(catalogue, edit.kind, edit.field, v));
  return from.length + to.length > 60 ? `${word} of ${name} changed` : `${word} of ${name} ${from} → ${to}`;
}

/** A change in one sentence: its edits where they are few, else counts by kind. */
export function tellChange(catalogue: Catalogue, edits: readonly Edit[]): string {
  if (!edits.length) return "nothing changed";
  const text = edits.length <= 2 ? edits.map((e) => sayEdit(catalogue, e)).join("; ") : summary(edits);
  return text.charAt(0).toUpperCase() + text.slice(1);
}

function summary(edits: readonly Edit[]): string {
  const groups = new Map<string, { n: number; op: string; kind: Subject }>();
  for (const { op, kind } of edits) {
    const group = groups.get(op + kind) ?? { n: 0, op, kind };
    groups.set(op + kind, { ...group, n: group.n + 1 });
  }
  const verb: Record<string, string> = { add: "added", remove: "removed", set: "edits in" };
  return [...groups.values()]
    .map(({ n, op, kind }) =>
      op === "set"
        ? `${count(n, "edit")} in ${kindWord(kind, true)}`
        : `${count(n, kindWord(kind), kindWord(kind, true))} ${verb[op]}`,
    )
    .join(", ");
}
