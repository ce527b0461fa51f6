/** What the views show of the readings, as plain data, and what moved between two revisions of it. */
import type { LoggedChange, Moved } from "../history/log";
import { same } from "../schema/json";
import type { Id } from "../schema/id";
import { inOrder } from "../checklist";
import type { Finding } from "../checks/check";
import type { Verdict } from "../analysis/loops";

export interface Figures {
  /** Least cost in value units and in seconds; null: can't be had. */
  readonly value: number | null;
  readonly time: number | null;
  /** Recipe or source of the cheapest way in value; null: none. */
  readonly by: Id | null;
  /** Longest chain of recipes behind it; null: can't be had, or the cheapest way goes round in a circle. */
  readonly steps: number | null;
  /** Lowest level at which it can be had; null: can't be had. */
  readonly level: number | null;
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

/** What every open view is told about what was committed: one change, or several that were followed together. */
export interface LiveEvent {
  /** In order; one at least. */
  readonly changes: readonly LoggedChange[];
  readonly ripple: Ripple;
}

const changed = (a: number | null, b: number | null): boolean =>
  a !== b && !(a !== null && b !== null && Math.abs(a - b) <= 1e-9 * Math.max(1, Math.abs(a), Math.abs(b)));
export const sameFigures = (a: Figures, b: Figures): boolean =>
  a.value === b.value && a.time === b.time && a.by === b.by && a.steps === b.steps && a.level === b.level;

/**
 * Sums up what moved.
 * @param figures  items with what their figures were and are; null: the item was not or is no longer there
 * @param opened   findings that are new
 * @param closed   rules of findings that are gone
 */
export function summed(
  figures: Iterable<readonly [Id, Figures | null, Figures | null]>,
  opened: readonly Finding[],
  closed: readonly string[],
): Moved {
  let [costs, times, lost, regained, most] = [0, 0, 0, 0, -1];
  let largest: Moved["largest"] = null;
  for (const [id, then, now] of figures) {
    if (!then || !now) continue;
    if (changed(then.time, now.time)) times++;
    if (!changed(then.value, now.value)) continue;
    costs++;
    if (now.value === null) lost++;
    if (then.value === null) regained++;
    const size =
      now.value === null || then.value === null ? 1e6 : Math.abs(Math.log((now.value + 1e-9) / (then.value + 1e-9)));
    if (size > most || (size === most && largest && id < largest.id))
      [most, largest] = [size, { id, from: then.value, to: now.value }];
  }
  const gaining = (rules: readonly string[]) => rules.filter((rule) => rule === "gaining-loop").length;
  return {
    costs,
    largest,
    times,
    lost,
    regained,
    opened: opened.length,
    closed: closed.length,
    gainsOpened: gaining(opened.map((f) => f.rule)),
    gainsClosed: gaining(closed),
  };
}

/** The rule of a finding by its fingerprint. */
export const ruleOf = (fingerprint: string): string => fingerprint.slice(0, fingerprint.indexOf(":"));

/** What moved between two whole boards, so that `follow(before, ripple(before, after))` is `after`. */
export function rippleOf(before: Board, after: Board): Ripple {
  const figures: [Id, Figures | null, Figures | null][] = [];
  for (const id in after.figures)
    if (!before.figures[id] || !sameFigures(before.figures[id], after.figures[id]))
      figures.push([id as Id, before.figures[id] ?? null, after.figures[id]]);
  for (const id in before.figures) if (!(id in after.figures)) figures.push([id as Id, before.figures[id], null]);
  const then = new Map(before.findings.map((f) => [f.fingerprint, f]));
  const now = new Map(after.findings.map((f) => [f.fingerprint, f]));
  const put = after.findings.filter((f) => !same(then.get(f.fingerprint), f));
  const drop = before.findings.flatMap((f) => (now.has(f.fingerprint) ? [] : [f.fingerprint]));
  const moved = summed(
    figures,
    put.filter((f) => !then.has(f.fingerprint)),
    drop.map(ruleOf),
  );
  return {
    from: before.revision,
    to: after.revision,
    figures: figures.map(([id, , is]) => [id, is]),
    put,
    drop,
    loops: after.loops,
    complete: after.complete,
    moved,
  };
}

/** The next board. @throws RangeError when the ripple starts from another revision */
export function follow(board: Board, ripple: Ripple): Board {
  if (board.revision !== ripple.from)
    throw new RangeError(`The board is at revision ${board.revision}, the ripple starts at ${ripple.from}.`);
  const figures = ripple.figures.length ? { ...board.figures } : (board.figures as Record<string, Figures>);
  for (const [id, now] of ripple.figures) {
    if (now) figures[id] = now;
    else delete figures[id];
  }
  const findings = new Map(board.findings.map((f) => [f.fingerprint, f]));
  for (const fingerprint of ripple.drop) findings.delete(fingerprint);
  for (const f of ripple.put) findings.set(f.fingerprint, f);
  return {
    revision: ripple.to,
    figures,
    findings: inOrder([...findings.values()]),
    loops: ripple.loops,
    complete: ripple.complete,
  };
}
