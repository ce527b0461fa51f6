/** A tasting: things used on a character over time, what came of it, and between what bounds chance leaves it. */
import { Budget } from "../budget/budget";
import { type Catalogue, catalogueOf, recordsOf } from "../catalogue/catalogue";
import { usesOf } from "../catalogue/uses";
import type { AnyRecord, Kind } from "../kinds/index";
import type { Id } from "../schema/id";
import type { Bar, Body, Pool } from "./body";
import { type Moment, Play, type Planned } from "./play";
import { Reckoner } from "./reckon";

/** From a second on, harm of so much a second. */
export interface HarmStep {
  readonly resource: Id;
  readonly tick: number;
  readonly perSecond: number;
}
export interface Request {
  readonly subject: Id;
  readonly level: number | null;
  readonly other: { readonly subject: Id; readonly is: "ally" | "foe" } | null;
  readonly situation: Id | null;
  readonly worn: readonly Id[] | null;
  readonly plans: readonly Planned[];
  readonly harm: readonly HarmStep[];
  readonly ticks: number;
  readonly seed: number;
  /** Runs of which mean and band are told; 1: the one of the seed alone. */
  readonly runs: number;
}
/** A line over ticks, straight between its points. */
export interface Curve {
  readonly ticks: readonly number[];
  readonly values: readonly number[];
}
export interface ResourceReport {
  readonly resource: Id;
  readonly most: number;
  readonly curve: Curve;
  /** Where nine of ten runs are between; absent where nothing is left to chance. */
  readonly band?: {
    readonly ticks: readonly number[];
    readonly low: readonly number[];
    readonly high: readonly number[];
  };
  /** Means over the runs. */
  readonly restored: number;
  readonly wasted: number;
  readonly drained: number;
  /** Least that any run came down to. */
  readonly least: number;
}
export interface Report {
  readonly ticks: number;
  readonly resources: readonly ResourceReport[];
  /** Those of someone else there. */
  readonly others: readonly ResourceReport[];
  /** Stats that moved, as steps; of the run of the seed. */
  readonly stats: readonly { readonly stat: Id; readonly curve: Curve }[];
  /** Of the run of the seed. */
  readonly bars: readonly Bar[];
  readonly moments: readonly Moment[];
  /** Share of the time that each condition stood, in the mean. */
  readonly uptime: readonly { readonly condition: Id; readonly share: number }[];
  /** How many of each item went, in the mean. */
  readonly spent: readonly { readonly item: Id; readonly count: number }[];
  readonly gained: readonly { readonly thing: string; readonly count: number }[];
  readonly signals: Play["signals"];
  readonly halted: string | null;
  readonly runs: number;
}

/** Most times at which a band is told. */
const BAND = 121;
/** Steps of one run by itself, which a page makes while it is drawn; and of many together, in a worker. */
const [ONE_RUN, ALL_RUNS] = [5_000_000, 200_000_000];
/** Most runs of one request. */
export const MOST_RUNS = 500;
export const MOST_SECONDS = 3600;

/** @returns null where there is no such subject */
export function taste(
  catalogue: Catalogue,
  request: Request,
  progress?: (done: number, of: number) => boolean,
): Report | null {
  const subject = catalogue.records.subject.get(request.subject);
  if (!subject) return null;
  const reckoner = new Reckoner(catalogue);
  const budget = new Budget(request.runs > 1 ? ALL_RUNS : ONE_RUN);
  const runs = Math.min(Math.max(1, request.runs), MOST_RUNS);
  const times = Array.from({ length: BAND }, (_, k) => Math.round((k * request.ticks) / (BAND - 1)));
  let first: Play | null = null;
  const bodies: Body[] = [];
  const besides: Body[] = [];
  const spent = new Map<Id, number>();
  const gained = new Map<string, number>();
  const stood = new Map<Id, number>();
  let done = 0;
  for (; done < runs; done++) {
    const play = playOf(catalogue, request, request.seed + done, reckoner, budget);
    if (!play) return null;
    first ??= play;
    // Of a run that was stopped no one knows how it goes on: those before it count.
    if (play.halted !== null && play !== first) break;
    bodies.push(play.user);
    if (play.other) besides.push(play.other);
    for (const [item, n] of play.spent) spent.set(item, (spent.get(item) ?? 0) + n);
    for (const [thing, n] of play.gained) gained.set(thing, (gained.get(thing) ?? 0) + n);
    for (const { condition, from, to } of play.user.bars)
      stood.set(condition, (stood.get(condition) ?? 0) + (Math.min(to, request.ticks) - from));
    if (progress && done % 20 === 19 && !progress(done + 1, runs)) {
      done++;
      break;
    }
  }
  if (!first) return null;
  const whole = first;
  const share = (value: number) => value / done;
  const reports = (of: Body | null, all: readonly Body[]) =>
    (of?.pools ?? []).map((pool, k): ResourceReport => reportOf(pool, k, all));
  const reportOf = (pool: Pool, k: number, bodies: readonly Body[]): ResourceReport => {
    const all = bodies.map((body) => body.pools[k]);
    const mean = (of: (p: (typeof all)[number]) => number) => all.reduce((t, p) => t + of(p), 0) / done;
    const values = done > 1 ? times.map((tick) => all.map((p) => at(p, tick)).sort((a, b) => a - b)) : [];
    const part = (q: number) => values.map((v) => v[Math.min(v.length - 1, Math.floor(q * v.length))]);
    return {
      resource: pool.of.id,
      most: pool.most,
      curve:
        done > 1
          ? { ticks: times, values: values.map((v) => v.reduce((a, b) => a + b, 0) / v.length) }
          : { ticks: pool.ticks, values: pool.values },
      ...(done > 1 ? { band: { ticks: times, low: part(0.05), high: part(0.95) } } : {}),
      restored: mean((p) => p.restored),
      wasted: mean((p) => p.wasted),
      drained: mean((p) => p.drained),
      least: Math.min(...all.map((p) => p.values.reduce((a, b) => Math.min(a, b), Number.POSITIVE_INFINITY))),
    };
  };
  return {
    ticks: request.ticks,
    resources: reports(whole.user, bodies),
    others: reports(whole.other, besides),
    stats: [...whole.user.steps].flatMap(([stat, curve]) => (curve.values.length > 1 ? [{ stat, curve }] : [])),
    bars: whole.user.bars,
    moments: whole.moments,
    uptime: [...stood].map(([condition, ticks]) => ({
      condition,
      share: request.ticks ? share(ticks) / request.ticks : 0,
    })),
    spent: [...spent].map(([item, count]) => ({ item, count: share(count) })),
    gained: [...gained].map(([thing, count]) => ({ thing, count: share(count) })),
    signals: whole.signals,
    halted: whole.halted,
    runs: done,
  };
}

function playOf(catalogue: Catalogue, request: Request, seed: number, reckoner: Reckoner, budget: Budget): Play | null {
  const given = catalogue.records.subject.get(request.subject);
  if (!given) return null;
  const subject = request.worn === null ? given : { ...given, worn: request.worn };
  const beside = request.other && catalogue.records.subject.get(request.other.subject);
  const play = new Play(
    catalogue,
    {
      subject,
      seed,
      budget,
      situation: request.situation,
      ...(request.level === null ? {} : { level: request.level }),
      ...(request.other && beside ? { other: { subject: beside, is: request.other.is } } : {}),
    },
    reckoner,
  );
  for (const { resource, tick, perSecond } of request.harm) play.harm(resource, perSecond, tick);
  for (const plan of request.plans) play.plan(plan);
  play.within(() => play.advance(request.ticks));
  play.finish();
  return play;
}

/** The value of a line at a tick; of two at the same tick the later. */
function at({ ticks, values }: Curve, tick: number): number {
  let [low, high] = [0, ticks.length - 1];
  while (low < high) {
    const middle = Math.ceil((low + high) / 2);
    if (ticks[middle] <= tick) low = middle;
    else high = middle - 1;
  }
  const next = low + 1;
  if (next >= ticks.length || ticks[next] === ticks[low]) return values[low];
  return values[low] + ((values[next] - values[low]) * (tick - ticks[low])) / (ticks[next] - ticks[low]);
}

/** Whether anything of it is left to chance. */
export const leftToChance = (catalogue: Catalogue, { plans }: Pick<Request, "plans">): boolean =>
  plans.some(({ item }) => {
    const record = catalogue.records.item.get(item);
    return (
      record !== undefined &&
      usesOf(catalogue, record).some((use) => use.effects.some((e) => e.chance < 1 || e.does.is === "draw"))
    );
  });

/** Kinds of which a tasting needs only some records. */
const LEFT: readonly Kind[] = [
  ...["recipe", "source", "series", "view", "mapping", "wordlist", "trial"],
  ...["severity", "point", "decision", "scenario"],
] as readonly Kind[];

/** The part of a catalogue that a tasting needs, small enough to be sent to a worker. */
export function partFor(catalogue: Catalogue, request: Request): Catalogue {
  const items = new Set<Id>([...request.plans.map((p) => p.item), ...(request.worn ?? [])]);
  for (const id of [request.subject, request.other?.subject]) {
    const subject = id && catalogue.records.subject.get(id);
    if (!subject) continue;
    for (const item of [...subject.worn, ...(Object.keys(subject.kit) as Id[])]) items.add(item);
  }
  return catalogueOf(catalogue.revision, catalogue.pantry, (kind): readonly AnyRecord[] => {
    if (LEFT.includes(kind)) return [];
    if (kind !== "item") return [...recordsOf(catalogue, kind).values()];
    return [...items].flatMap((id) => catalogue.records.item.get(id) ?? []);
  });
}
