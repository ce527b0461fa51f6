/** What the views show of the readings, as plain data, and what moved between two revisions of it. */
import type { LoggedChange, Moved } from "../history/log";
import { PersistentMap } from "../catalogue/persistent-map";
import type { Id } from "../schema/id";
import { byOrder, inOrder } from "../checklist";
import type { Finding } from "../checks/check";
import type { CostAt } from "../analysis/cost-trend";
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

/** What a window holds of the readings; never changed in place. */
export interface ReadModel {
  readonly revision: number;
  readonly figures: PersistentMap<Figures>;
  /** In the order in which they are listed. */
  readonly findings: readonly Finding[];
  readonly loops: readonly LoopRow[];
  /** False where the search for gaining loops stopped at its limits. */
  readonly complete: boolean;
}
/** The same as plain data, to be sent. */
export interface PackedReadModel extends Omit<ReadModel, "figures"> {
  readonly figures: Readonly<Record<string, Figures>>;
}

/** From one revision to the next. */
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

/**
 * What every open view is told about what was committed: one change, or several that were followed together. Where the
 * consequences take long the changes are told first, and the consequences by themselves later.
 */
export interface LiveEvent {
  /** In order; none where they were told already. */
  readonly changes: readonly LoggedChange[];
  /** null: it is still being computed. */
  readonly ripple: Ripple | null;
}

export const sameCost = (a: CostAt, b: CostAt): boolean => !changed(a.value, b.value) && !changed(a.time, b.time);

/** What differs between the findings of an earlier revision and those of now. */
export interface FindingsSince {
  /** Fingerprints of those that are new. */
  readonly added: readonly string[];
  /** Those that are gone, as they were. */
  readonly gone: readonly Finding[];
  /** How many more are gone. */
  readonly moreGone: number;
}

/** How far the readings of a pantry are. */
export interface AnalysisState {
  /** The revision that they are of; -1: there are none yet. */
  readonly revision: number;
  readonly state: "done" | "computing" | "stopped";
  /** Why they are stopped. */
  readonly why?: string;
}

/** The same but for rounding. */
export const isSameCost = (a: number | null, b: number | null): boolean =>
  a === b || (a !== null && b !== null && Math.abs(a - b) <= 1e-9 * Math.max(1, Math.abs(a), Math.abs(b)));
const changed = (a: number | null, b: number | null): boolean => !isSameCost(a, b);
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

/** The next one. @throws RangeError when the ripple starts from another revision */
export function follow(model: ReadModel, ripple: Ripple): ReadModel {
  if (model.revision !== ripple.from)
    throw new RangeError(`The model is at revision ${model.revision}, the ripple starts at ${ripple.from}.`);
  const moved = new Map(ripple.figures.map(([id, now]) => [id, now ?? undefined]));
  return {
    revision: ripple.to,
    figures: moved.size ? model.figures.with(moved) : model.figures,
    findings: merged(model.findings, ripple),
    loops: ripple.loops,
    complete: ripple.complete,
  };
}

/** Findings without those that were dropped and with those that were put, in order: one pass, or none. */
function merged(findings: readonly Finding[], { put, drop }: Pick<Ripple, "put" | "drop">): readonly Finding[] {
  if (!put.length && !drop.length) return findings;
  const gone = new Set([...drop, ...put.map((f) => f.fingerprint)]);
  const fresh = inOrder([...put]);
  const all: Finding[] = [];
  let at = 0;
  for (const finding of findings) {
    if (gone.has(finding.fingerprint)) continue;
    while (at < fresh.length && byOrder(fresh[at], finding) < 0) all.push(fresh[at++]);
    all.push(finding);
  }
  return [...all, ...fresh.slice(at)];
}

/** @param packed  null: there are no readings yet */
export function unpackModel(packed: PackedReadModel | null): ReadModel {
  if (!packed) return { revision: -1, figures: new PersistentMap(), findings: [], loops: [], complete: false };
  const { figures, ...rest } = packed;
  return { ...rest, figures: new PersistentMap(Object.entries(figures) as [Id, Figures][]) };
}
