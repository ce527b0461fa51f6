/** Changes in words: one short sentence for the tideline and the log. */
import { formatLines } from "../notation/format";
import { count, sayPercent, sayQuantity } from "../numbers/format";
import { formatTicks } from "../numbers/ticks";
import { type Catalogue, nameOf, recordAt } from "./catalogue";
import { type Edit, fieldWord, type Value } from "./changes";
import { FIELDS, type Id, type Kind, kindWord, type Line, PANTRY_FIELDS } from "./records";

/** One value of a field as people read it. */
export function sayValue(catalogue: Catalogue, kind: Kind | "pantry", field: string, value: Value): string {
  if (value === null || value === "") return "nothing";
  const about =
    kind === "pantry"
      ? PANTRY_FIELDS[field as keyof typeof PANTRY_FIELDS]
      : (FIELDS[kind] as Record<string, (typeof FIELDS)["item"]["name"]>)[field];
  if (field === "ticks") return formatTicks(value as number, catalogue.pantry.ticksPerSecond);
  if (about?.as === "ref") return nameOf(catalogue, about.to, value as Id);
  if (about?.as === "refs") return (value as Id[]).map((id) => nameOf(catalogue, about.to, id)).join(", ") || "nothing";
  if (about?.as === "lines") return formatLines(catalogue, value as unknown as Line[]);
  if (typeof value === "number") return sayQuantity(value);
  return String(value);
}

/** The one line that changed between two lists, where it is only one: "5 → 6 Coarse salt". */
function sayLineMove(catalogue: Catalogue, before: readonly Line[], after: readonly Line[]): string | null {
  if (before.length !== after.length) return null;
  const moved = after.flatMap((line, i) =>
    JSON.stringify(line) === JSON.stringify(before[i]) ? [] : [[before[i], line] as const],
  );
  if (moved.length !== 1) return null;
  const [[was, is]] = moved;
  if (was.item !== is.item || was.role !== is.role) return null;
  const amount = (l: Line) => (l.min === l.max ? sayQuantity(l.min) : `${sayQuantity(l.min)}..${sayQuantity(l.max)}`);
  const what =
    was.chance !== is.chance
      ? `${sayPercent(was.chance)} → ${sayPercent(is.chance)}`
      : `${amount(was)} → ${amount(is)}`;
  return `${nameOf(catalogue, "item", is.item)} ${what}`;
}

function sayEdit(catalogue: Catalogue, edit: Edit): string {
  if (edit.op !== "set") return `${edit.record.name} ${edit.op === "add" ? "added" : "removed"}`;
  const name =
    edit.kind === "pantry"
      ? catalogue.pantry.name
      : (recordAt(catalogue, edit.kind, edit.id)?.name ?? "a removed record");
  if (edit.field === "lines") {
    const move = sayLineMove(catalogue, edit.from as unknown as Line[], edit.to as unknown as Line[]);
    return move ? `${name}: ${move}` : `${name}: other ingredients or results`;
  }
  if (edit.field === "name") return `${String(edit.from)} is now called ${String(edit.to)}`;
  const word = fieldWord(catalogue, edit.field);
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
  const groups = new Map<string, { n: number; op: string; kind: Kind | "pantry" }>();
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
