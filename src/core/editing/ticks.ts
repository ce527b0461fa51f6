/** The game's clock counts otherwise: what becomes of every duration, and which no longer fall on whole ticks. */
import type { Catalogue } from "../catalogue/catalogue";
import { recordsOf } from "../catalogue/catalogue";
import { type Edit, fieldWord, setField, type Value } from "../catalogue/edit";
import { type AnyRecord, definition, type Kind, KINDS } from "../kinds/index";
import type { OwnValue } from "../schema/own-value";

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

/**
 * Every duration stays as many seconds as it is, as near as whole ticks come to it.
 * @param ticksPerSecond  what it is to be
 */
export function planTicks(catalogue: Catalogue, ticksPerSecond: number): TickPlan {
  const { pantry } = catalogue;
  const rows: TickRow[] = [];
  const edits: Edit[] = [setField(catalogue, "pantry", pantry.id, "ticksPerSecond", ticksPerSecond)];
  const move = (kind: Kind, record: AnyRecord, path: string, ticks: number) => {
    const exact = (ticks * ticksPerSecond) / pantry.ticksPerSecond;
    const rounded = Math.max(ticks > 0 ? 1 : 0, Math.round(exact));
    if (rounded === ticks) return;
    edits.push(setField(catalogue, kind, record.id, path, rounded as Value));
    rows.push({
      kind,
      record,
      what: fieldWord(catalogue, kind, path),
      before: seconds(ticks, pantry.ticksPerSecond),
      after: seconds(rounded, ticksPerSecond),
      whole: Number.isInteger(exact),
    });
  };
  const durations = new Set(
    [...catalogue.records.field.values()].flatMap((f) => (f.form === "duration" ? [f.id] : [])),
  );
  for (const kind of KINDS) {
    const plain = Object.entries(definition(kind).fields).flatMap(([name, { type }]) =>
      type === "duration" ? [name] : [],
    );
    for (const record of recordsOf(catalogue, kind).values() as Iterable<AnyRecord>) {
      const values = record as unknown as Readonly<Record<string, unknown>>;
      for (const name of plain) if (typeof values[name] === "number") move(kind, record, name, values[name]);
      const own = (values.own ?? {}) as { readonly [id: string]: OwnValue };
      for (const id of durations) {
        const value = own[id];
        if (typeof value === "number") move(kind, record, `own.${id}`, value);
      }
    }
  }
  for (const type of catalogue.records.type.values())
    for (const id of durations) {
      if (!Object.hasOwn(type.takes, id)) continue;
      const said = type.takes[id];
      const moved = (ticks: number | null) =>
        ticks === null ? null : Math.round((ticks * ticksPerSecond) / pantry.ticksPerSecond);
      edits.push(
        setField(catalogue, "type", type.id, `takes.${id}`, { ...said, min: moved(said.min), max: moved(said.max) }),
      );
    }
  return { rows, edits };
}
