/** The game's clock counts otherwise: what becomes of every duration, and which no longer fall on whole ticks. */
import type { Catalogue } from "../catalogue/catalogue";
import { recordsOf } from "../catalogue/catalogue";
import { type Edit, fieldWord, setField, type Value } from "../catalogue/edit";
import { type AnyRecord, definition, type Kind, KINDS } from "../kinds/index";
import { around } from "../catalogue/surroundings";
import type { Field, Fields, Surroundings } from "../schema/field";
import type { Id } from "../schema/id";

export interface TickRow {
  readonly kind: Kind;
  readonly record: AnyRecord;
  readonly what: string;
  readonly before: string;
  readonly after: string;
  /** False: it no longer falls on whole ticks, and is rounded. */
  readonly whole: boolean;
}
export interface TickPlan {
  readonly rows: readonly TickRow[];
  readonly edits: readonly Edit[];
}

const seconds = (ticks: number, perSecond: number): string => `${Number((ticks / perSecond).toPrecision(9))} s`;

/** What a type asks of the numbers of its items. */
type Asked = { readonly [id: string]: { readonly min: number | null; readonly max: number | null } };
type Values = Readonly<Record<string, unknown>>;
/** A duration within a value: what it is called there, and its ticks. */
type Move = (label: string, ticks: number) => number;

/** Whether a field holds durations, at any depth; where each part has a field of its own, it may. */
function holds(field: Field, depth = 0): boolean {
  if (field.type === "duration") return true;
  if (field.parts || field.edited) return true;
  const { inner } = field;
  if (!inner || depth > DEEPEST) return false;
  if (inner.is === "list") return holds(inner.of, depth + 1);
  const groups = inner.is === "group" ? [inner.fields] : Object.values(inner.variants);
  return groups.some((fields) => Object.values(fields).some((each) => holds(each, depth + 1)));
}
const DEEPEST = 12;

/** The value with every duration in it moved, at any depth; the same value where there is none. */
function moved(field: Field, value: unknown, label: string, around: Surroundings, move: Move): unknown {
  if (value === null || value === undefined) return value;
  if (field.type === "duration") return typeof value === "number" ? move(label, value) : value;
  const members = (fields: Fields, of: Values): Values => {
    const next = Object.entries(of).map(([name, each]) => {
      const member = Object.hasOwn(fields, name) ? fields[name] : undefined;
      const called = `${label}: ${member?.options.label ?? name}`;
      return [name, member ? moved(member, each, called, around, move) : each] as const;
    });
    return next.some(([name, each]) => each !== of[name]) ? Object.fromEntries(next) : of;
  };
  if (field.edited)
    return field.edited(value, (of, part, each) => {
      const at = part === null ? of : (of.parts?.each(around, part) ?? of);
      return moved(at, each, `${label}: ${at.options.label ?? ""}`, around, move);
    });
  const { inner, parts } = field;
  if (inner?.is === "list") {
    const next = (value as readonly unknown[]).map((each) => moved(inner.of, each, label, around, move));
    return next.some((each, k) => each !== (value as readonly unknown[])[k]) ? next : value;
  }
  if (inner?.is === "group") return members(inner.fields, value as Values);
  if (inner?.is === "union")
    return members(inner.variants[(value as { readonly is: string }).is] ?? {}, value as Values);
  if (!parts) return value;
  return parts.names(value).reduce((next: unknown, name) => {
    const part = parts.get(next, name);
    const made = moved(parts.each(around, name as Id), part, around.nameOf(parts.kind, name as Id), around, move);
    return made === part ? next : parts.with(next, name, made);
  }, value);
}

/**
 * Every duration stays as many seconds as it is, as near as whole ticks come to it: those of fields, and those within
 * effects, steps, variants, wares and values of the designers' fields.
 * @param ticksPerSecond  what it is to be
 */
export function planTicks(catalogue: Catalogue, ticksPerSecond: number): TickPlan {
  const { pantry } = catalogue;
  const here = around(catalogue);
  const rows: TickRow[] = [];
  const edits: Edit[] = [setField(catalogue, "pantry", pantry.id, "ticksPerSecond", ticksPerSecond)];
  const rounded = (exact: number, ticks: number) => Math.max(ticks > 0 ? 1 : 0, Math.round(exact));
  const moving =
    (kind: Kind, record: AnyRecord): Move =>
    (what, ticks) => {
      const exact = (ticks * ticksPerSecond) / pantry.ticksPerSecond;
      const next = rounded(exact, ticks);
      if (next === ticks) return ticks;
      rows.push({
        kind,
        record,
        what,
        before: seconds(ticks, pantry.ticksPerSecond),
        after: seconds(next, ticksPerSecond),
        whole: Number.isInteger(exact),
      });
      return next;
    };
  for (const kind of KINDS) {
    const fields = Object.entries(definition(kind).fields as Fields).filter(([, field]) => holds(field));
    if (!fields.length) continue;
    for (const record of recordsOf(catalogue, kind).values() as Iterable<AnyRecord>) {
      const move = moving(kind, record);
      for (const [name, field] of fields) {
        const value = (record as unknown as Values)[name];
        // What a type asks of a duration is counted as the duration is.
        const next =
          kind === "type" && name === "takes"
            ? askedOf(catalogue, value as Asked, move)
            : moved(field, value, fieldWord(catalogue, kind, name), here, move);
        if (next === value) continue;
        if (!field.parts) edits.push(setField(catalogue, kind, record.id, name, next as Value));
        else
          for (const part of field.parts.names(next))
            if (field.parts.get(next, part) !== field.parts.get(value, part))
              edits.push(setField(catalogue, kind, record.id, `${name}.${part}`, field.parts.get(next, part) as Value));
      }
    }
  }
  return { rows, edits };
}

/** What a type asks of its items' durations: at least and at most so many ticks. */
function askedOf(catalogue: Catalogue, takes: Asked, move: Move): Asked {
  let next = takes;
  for (const [id, said] of Object.entries(takes)) {
    const field = catalogue.records.field.get(id as Id);
    if (field?.form !== "duration") continue;
    const ends = { min: said.min, max: said.max };
    const [min, max] = [
      ends.min === null ? null : move(`${field.name}: minimum`, ends.min),
      ends.max === null ? null : move(`${field.name}: maximum`, ends.max),
    ];
    if (min !== ends.min || max !== ends.max) next = { ...next, [id]: { ...said, min, max } };
  }
  return next;
}
