/** What the views show of the readings, as plain data, and what moved between two revisions of it. */
import type { Catalogue } from "../catalogue/catalogue";
import { type Edit, same } from "../catalogue/changes";
import type { Id } from "../catalogue/records";
import { CHECKS, findingsOf } from "../checks";
import type { Finding } from "../checks/check";
import type { Verdict } from "./loops";
import { type Readings, readingsOf } from "./readings";

export interface Figures {
  /** Least cost in value units and in seconds; null: can't be had. */
  readonly value: number | null;
  readonly time: number | null;
  /** Recipe or source of the cheapest way in value; null: none. */
  readonly by: Id | null;
  /** Longest chain of recipes behind it. */
  readonly steps: number;
  /** Distinct base materials behind it. */
  readonly bases: number;
}

export interface LoopRow {
  readonly verdict: Verdict;
  readonly items: readonly Id[];
  readonly recipes: readonly Id[];
}

export interface Board {
  readonly revision: number;
  readonly figures: Readonly<Record<string, Figures>>;
  readonly findings: readonly Finding[];
  readonly loops: readonly LoopRow[];
  /** False where the search for gaining loops stopped at its limits. */
  readonly complete: boolean;
}

export interface Moved {
  readonly costs: number;
  readonly largest: { readonly id: Id; readonly from: number | null; readonly to: number | null } | null;
  readonly times: number;
  readonly lost: number;
  readonly regained: number;
  readonly opened: number;
  readonly closed: number;
  readonly gainsOpened: number;
  readonly gainsClosed: number;
}

/** From one revision's board to the next. */
export interface Ripple {
  readonly from: number;
  readonly to: number;
  readonly figures: readonly (readonly [Id, Figures | null])[];
  readonly put: readonly Finding[];
  readonly drop: readonly string[];
  readonly loops: readonly LoopRow[];
  readonly complete: boolean;
  readonly moved: Moved;
}

/** A committed change as the log keeps it. */
export interface LoggedChange {
  readonly revision: number;
  readonly author: string;
  /** ISO 8601. */
  readonly at: string;
  readonly note: string;
  /** The revision it takes back. */
  readonly undoes: number | null;
  /** Empty in lists when there are very many. */
  readonly edits: readonly Edit[];
  /** Number of edits. */
  readonly size: number;
  /** null: not followed. */
  readonly moved: Moved | null;
}

/** What every open view is told about one committed change. */
export interface LiveEvent {
  readonly change: LoggedChange;
  readonly ripple: Ripple;
}

const rank = new Map(CHECKS.map((c, i) => [c.id, i]));
const inOrder = (findings: Finding[]): Finding[] =>
  findings.sort(
    (a, b) => Number(a.severity !== "error") - Number(b.severity !== "error") || (rank.get(a.rule) ?? 0) - (rank.get(b.rule) ?? 0) || (a.says < b.says ? -1 : a.says > b.says ? 1 : a.fingerprint < b.fingerprint ? -1 : 1),
  );

const finite = (x: number): number | null => (Number.isFinite(x) ? x : null);

/** @param before  an earlier state: its figures are taken over where the readings were */
export function boardOf(catalogue: Catalogue, readings: Readings = readingsOf(catalogue), before?: { readonly board: Board; readonly readings: Readings }): Board {
  const { network, value, time, steps, bases } = readings;
  const kept = before && before.readings.value === value;
  const figures: Record<string, Figures> = kept ? (before.board.figures as Record<string, Figures>) : {};
  if (!kept) network.items.forEach((id, i) => {
    figures[id] = { value: finite(value.cost[i]), time: finite(time.cost[i]), by: value.by[i] < 0 ? null : network.processes[value.by[i]].record.id, steps: steps[i], bases: bases[i] };
  });
  const loops = readings.loops.map((l) => ({ verdict: l.verdict, items: l.items.map((i) => network.items[i]), recipes: l.processes.map((p) => network.processes[p].record.id) }));
  return { revision: catalogue.revision, figures, findings: inOrder(findingsOf(catalogue, readings)), loops, complete: readings.gain.complete };
}

const changed = (a: number | null, b: number | null): boolean => a !== b && !(a !== null && b !== null && Math.abs(a - b) <= 1e-9 * Math.max(1, Math.abs(a), Math.abs(b)));
const sameFigures = (a: Figures, b: Figures): boolean => a.value === b.value && a.time === b.time && a.by === b.by && a.steps === b.steps && a.bases === b.bases;

/** What moved, so that `follow(before, ripple(before, after))` is `after`. */
export function rippleOf(before: Board, after: Board): Ripple {
  const figures: [Id, Figures | null][] = [];
  let [costs, times, lost, regained, most] = [0, 0, 0, 0, -1];
  let largest: Moved["largest"] = null;
  const moving = before.figures !== after.figures;
  for (const id in moving ? after.figures : {}) {
    const now = after.figures[id];
    const then = before.figures[id];
    if (then && sameFigures(then, now)) continue;
    figures.push([id as Id, now]);
    if (!then) continue;
    if (changed(then.time, now.time)) times++;
    if (!changed(then.value, now.value)) continue;
    costs++;
    if (now.value === null) lost++;
    if (then.value === null) regained++;
    const size = now.value === null || then.value === null ? 1e6 : Math.abs(Math.log((now.value + 1e-9) / (then.value + 1e-9)));
    if (size > most) [most, largest] = [size, { id: id as Id, from: then.value, to: now.value }];
  }
  for (const id in moving ? before.figures : {}) if (!(id in after.figures)) figures.push([id as Id, null]);
  const then = new Map(before.findings.map((f) => [f.fingerprint, f]));
  const now = new Map(after.findings.map((f) => [f.fingerprint, f]));
  const put = after.findings.filter((f) => !same(then.get(f.fingerprint), f));
  const opened = put.filter((f) => !then.has(f.fingerprint));
  const dropped = before.findings.filter((f) => !now.has(f.fingerprint));
  const gaining = (list: readonly Finding[]) => list.filter((f) => f.rule === "gaining-loop").length;
  const moved: Moved = { costs, largest, times, lost, regained, opened: opened.length, closed: dropped.length, gainsOpened: gaining(opened), gainsClosed: gaining(dropped) };
  return { from: before.revision, to: after.revision, figures, put, drop: dropped.map((f) => f.fingerprint), loops: after.loops, complete: after.complete, moved };
}

/** The next board. @throws RangeError when the ripple starts from another revision */
export function follow(board: Board, ripple: Ripple): Board {
  if (board.revision !== ripple.from) throw new RangeError(`The board is at revision ${board.revision}, the ripple starts at ${ripple.from}.`);
  const figures = ripple.figures.length ? { ...board.figures } : (board.figures as Record<string, Figures>);
  for (const [id, now] of ripple.figures) {
    if (now) figures[id] = now;
    else delete figures[id];
  }
  const findings = new Map(board.findings.map((f) => [f.fingerprint, f]));
  for (const fingerprint of ripple.drop) findings.delete(fingerprint);
  for (const f of ripple.put) findings.set(f.fingerprint, f);
  return { revision: ripple.to, figures, findings: inOrder([...findings.values()]), loops: ripple.loops, complete: ripple.complete };
}
