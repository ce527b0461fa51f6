/** What comes by chance, as it is said: tables, and the same written in place in a recipe; and what it comes to on average. */
import type { ChanceTable } from "../kinds/index";
import { inDraws, type ItemLine, type Line, outputsOf, weightOfNothing } from "../notation/line";
import { TooMany } from "../budget/budget";
import type { Id } from "../schema/id";

/** Certain things, chances and draws: a table, or the same written in place in a recipe. */
export type Draws = Pick<ChanceTable, "always" | "chances" | "draws">;
export type Content = Draws["always"][number];
export type Weighed = Draws["draws"][number]["entries"][number];
export type Draw = Draws["draws"][number];
export type Tables = ReadonlyMap<Id, Draws>;

/** What comes: "item:ID" or "currency:ID". */
export type DrawnKey = string;
/** Stands for anything at all. */
export const ANYTHING = "*";
export const thingOf = ({ what }: Content): DrawnKey | null =>
  what.is === "item" ? `item:${what.item}` : what.is === "currency" ? `currency:${what.currency}` : null;
export const splitThing = (thing: DrawnKey): { readonly kind: "item" | "currency"; readonly id: Id } => {
  const [kind, id] = thing.split(":");
  return { kind: kind as "item" | "currency", id: id as Id };
};

/** Most steps of telling apart what draws without putting back leave: for a distribution, and for a mean. */
const MOST_WORK = 1e7;
const MOST_EXACT = 2e5;
/** Most entries of which a mean is found by integration. */
const MOST_BY_TIME = 64;

/** The outputs of a recipe or source as what they are, and the tables that it draws from. */
export function boxOfLines(
  lines: readonly Line[],
  tables: readonly { readonly table: Id; readonly times: number }[] = [],
): Draws {
  const content = ({ item, min, max }: ItemLine): Content => ({
    what: { is: "item", item },
    min,
    max,
    from: null,
    to: null,
  });
  const box: { always: Content[]; chances: Draws["chances"][number][]; draws: Draw[] } = {
    always: [],
    chances: [],
    draws: [],
  };
  for (const group of inDraws(outputsOf(lines))) {
    const [first] = group;
    if (first.draw) {
      const entries: Weighed[] = group.map((l) => ({ weight: l.draw?.weight ?? 0, ...content(l) }));
      const nothing = weightOfNothing(group);
      if (nothing > 0) entries.push({ weight: nothing, what: { is: "nothing" }, min: 1, max: 1, from: null, to: null });
      box.draws.push({ times: first.draw.times, back: true, entries });
    } else if (first.chance >= 1) box.always.push(content(first));
    else box.chances.push({ chance: Math.max(0, first.chance), ...content(first) });
  }
  for (const { table, times } of tables)
    box.always.push({ what: { is: "table", table }, min: times, max: times, from: null, to: null });
  return box;
}

export const comes = ({ from, to }: Content, level: number): boolean =>
  (from === null || level >= from) && (to === null || level <= to);
const middle = ({ min, max }: Content): number => (min + max) / 2;

/** Everything that a box can give at a level, tables in it opened; each thing once, in the order in which it is met. */
export function thingsIn(box: Draws, tables: Tables, level: number): DrawnKey[] {
  const found = new Set<DrawnKey>();
  for (const of of tablesFrom(box, tables, (each) => contents(each, level)))
    for (const content of contents(of, level)) {
      const thing = thingOf(content);
      if (thing) found.add(thing);
    }
  return [...found];
}

/** A box and every table in it, however far down; each once, outer ones first. Linear, without recursion. */
function tablesFrom(box: Draws, tables: Tables, contentsOf: (box: Draws) => Iterable<Content>): Draws[] {
  const found = new Set<Draws>([box]);
  for (const of of found)
    for (const { what } of contentsOf(of)) {
      const inner = what.is === "table" ? tables.get(what.table) : undefined;
      if (inner) found.add(inner);
    }
  return [...found];
}

/**
 * A box and every table in it, however far down; each once, inner ones before those they stand in (a depth-first
 * post-order). Of tables within each other, the one that is met again comes last. Linear, without recursion.
 */
export function innerFirst(box: Draws, tables: Tables): Draws[] {
  const done: Draws[] = [];
  const seen = new Set<Draws>([box]);
  const path: { readonly of: Draws; readonly rest: Iterator<Content> }[] = [{ of: box, rest: everyContent(box) }];
  for (let at = path.at(-1); at; at = path.at(-1)) {
    const { done: ended, value } = at.rest.next();
    if (ended) {
      done.push(at.of);
      path.pop();
      continue;
    }
    const { what } = value as Content;
    const inner = what.is === "table" ? tables.get(what.table) : undefined;
    if (!inner || seen.has(inner)) continue;
    seen.add(inner);
    path.push({ of: inner, rest: everyContent(inner) });
  }
  return done;
}
/** Levels at which other entries come than below, from one on; tables in it opened. */
export function levelsOf(box: Draws, tables: Tables, from: number, most: number): number[] {
  const found = new Set<number>([from]);
  for (const of of tablesFrom(box, tables, everyContent))
    for (const content of everyContent(of)) {
      if (content.from !== null && content.from > from) found.add(content.from);
      if (content.to !== null && content.to >= from) found.add(content.to + 1);
    }
  return [...found].sort((a, b) => a - b).slice(0, most);
}
function* contents(box: Draws, level: number): Generator<Content> {
  for (const content of box.always) if (comes(content, level)) yield content;
  for (const content of box.chances) if (content.chance > 0 && comes(content, level)) yield content;
  for (const { entries } of box.draws) for (const e of entries) if (e.weight > 0 && comes(e, level)) yield e;
}

/** Tables that stand within themselves, however far down: those in circles of tables (Tarjan 1972, without recursion). */
export function tablesInThemselves(tables: Tables): Set<Id> {
  const found = new Set<Id>();
  const index = new Map<Id, number>();
  const low = new Map<Id, number>();
  const open: Id[] = [];
  const isOpen = new Set<Id>();
  const inner = function* (id: Id): Generator<Id> {
    const box = tables.get(id);
    for (const { what } of box ? everyContent(box) : [])
      if (what.is === "table" && tables.has(what.table)) yield what.table;
  };
  for (const root of tables.keys()) {
    if (index.has(root)) continue;
    const path: { readonly id: Id; readonly rest: Iterator<Id> }[] = [];
    const enter = (id: Id) => {
      index.set(id, index.size);
      low.set(id, index.size - 1);
      open.push(id);
      isOpen.add(id);
      path.push({ id, rest: inner(id) });
    };
    enter(root);
    for (let at = path.at(-1); at; at = path.at(-1)) {
      const { id, rest } = at;
      const { done, value } = rest.next();
      if (!done) {
        if (value === id) found.add(id);
        if (!index.has(value)) enter(value);
        else if (isOpen.has(value)) low.set(id, Math.min(low.get(id) as number, index.get(value) as number));
        continue;
      }
      path.pop();
      const outer = path.at(-1);
      if (outer) low.set(outer.id, Math.min(low.get(outer.id) as number, low.get(id) as number));
      if (low.get(id) !== index.get(id)) continue;
      const from = open.lastIndexOf(id);
      const component = open.splice(from);
      for (const each of component) {
        isOpen.delete(each);
        if (component.length > 1) found.add(each);
      }
    }
  }
  return found;
}
export function* everyContent(box: Draws): Generator<Content> {
  yield* box.always;
  yield* box.chances;
  for (const { entries } of box.draws) yield* entries;
}

/**
 * Units of each thing on average, from one opening; of a draw without putting back from very many entries about so much.
 * Linear in the entries, each table opened once. A table within itself counts for nothing there.
 */
export function means(box: Draws, tables: Tables, level: number): ReadonlyMap<DrawnKey, number> {
  const known = new Map<Draws, ReadonlyMap<DrawnKey, number>>();
  for (const each of innerFirst(box, tables)) known.set(each, meansOf(each, known, tables, level));
  return known.get(box) ?? new Map();
}

/** The same of tables of a catalogue, each found once for each level. */
export class TableMeans {
  private readonly byLevel = new Map<number, Map<Draws, ReadonlyMap<DrawnKey, number>>>();
  private readonly circular: ReadonlySet<Id>;
  constructor(private readonly tables: Tables) {
    this.circular = tablesInThemselves(tables);
  }
  of(box: Draws, level: number): ReadonlyMap<DrawnKey, number> {
    const known = this.byLevel.get(level) ?? new Map<Draws, ReadonlyMap<DrawnKey, number>>();
    this.byLevel.set(level, known);
    const there = known.get(box);
    if (there) return there;
    if (this.circular.size) {
      // What stands within itself gives something else from wherever one begins: nothing is shared.
      const found = means(box, this.tables, level);
      known.set(box, found);
      return found;
    }
    for (const each of innerFirst(box, this.tables))
      if (!known.has(each)) known.set(each, meansOf(each, known, this.tables, level));
    return known.get(box) as ReadonlyMap<DrawnKey, number>;
  }
}
function meansOf(
  each: Draws,
  known: ReadonlyMap<Draws, ReadonlyMap<DrawnKey, number>>,
  tables: Tables,
  level: number,
): Map<DrawnKey, number> {
  const made = new Map<DrawnKey, number>();
  const put = (content: Content, times: number) => {
    if (times === 0 || !comes(content, level)) return;
    const thing = thingOf(content);
    const amount = times * middle(content);
    if (thing) made.set(thing, (made.get(thing) ?? 0) + amount);
    else if (content.what.is === "table") {
      const inner = tables.get(content.what.table);
      const of = inner && known.get(inner);
      if (of) for (const [t, m] of of) made.set(t, (made.get(t) ?? 0) + amount * m);
    }
  };
  for (const content of each.always) put(content, 1);
  for (const content of each.chances) put(content, content.chance);
  for (const draw of each.draws) {
    const shares = sharesOf(draw, level);
    for (const [k, entry] of draw.entries.entries()) put(entry, shares[k]);
  }
  return made;
}

/** How often each entry of a draw comes on average. */
export function sharesOf(draw: Draw, level: number): number[] {
  const weights = draw.entries.map((e) => (comes(e, level) ? e.weight : 0));
  const whole = weights.reduce((a, b) => a + b, 0);
  if (whole <= 0) return weights.map(() => 0);
  if (draw.back) return weights.map((w) => (draw.times * w) / whole);
  const classes = [...new Set(weights.filter((w) => w > 0))];
  const sizes = classes.map((w) => weights.filter((each) => each === w).length);
  const each = inclusion(classes, sizes, draw.times);
  return weights.map((w) => (w > 0 ? each[classes.indexOf(w)] : 0));
}

/** Chance that one entry of each class is among so many draws without putting back. */
function inclusion(classes: readonly number[], sizes: readonly number[], times: number): number[] {
  const all = sizes.reduce((a, b) => a + b, 0);
  if (times >= all) return classes.map(() => 1);
  if (workWithoutBack(sizes, times) > MOST_EXACT)
    return all <= MOST_BY_TIME ? inclusionByTime(classes, sizes, times) : inclusionAbout(classes, sizes, times);
  const drawn = new Array<number>(classes.length).fill(0);
  for (const { counts, p } of withoutBack(classes, sizes, times))
    for (let c = 0; c < classes.length; c++) drawn[c] += p * counts[c];
  return drawn.map((n, c) => n / sizes[c]);
}

/**
 * The same by integration: entries that arrive after exponential times with their weights as rates come in the order of
 * such draws (Efraimidis and Spirakis 2006). One of weight w is among the first n where fewer than n others came before
 * it: the integral of w·exp(−wt)·P(others by t < n) over t, by the trapezoid rule over log t, to about ten digits.
 * Takes 800 steps for each pair of entries.
 */
function inclusionByTime(classes: readonly number[], sizes: readonly number[], times: number): number[] {
  const all = sizes.reduce((a, b) => a + b, 0);
  const [from, to] = [Math.log(1e-12 / Math.max(...classes)), Math.log(50 / Math.min(...classes))];
  const points = 400;
  const step = (to - from) / points;
  const sums = new Array<number>(classes.length).fill(0);
  const p = new Float64Array(all + 1);
  for (let at = 0; at <= points; at++) {
    const t = Math.exp(from + at * step);
    // How many of all have arrived by t: the distribution of a sum of independent events.
    p.fill(0);
    p[0] = 1;
    let n = 0;
    for (let c = 0; c < classes.length; c++) {
      const came = -Math.expm1(-classes[c] * t);
      for (let m = 0; m < sizes[c]; m++) {
        for (let k = ++n; k > 0; k--) p[k] += (p[k - 1] - p[k]) * came;
        p[0] *= 1 - came;
      }
    }
    for (let c = 0; c < classes.length; c++) {
      const w = classes[c];
      const density = w * t * Math.exp(-w * t) * step;
      if (density > 1e-18) sums[c] += density * fewerWithout(p, -Math.expm1(-w * t), times);
    }
  }
  const sum = sums.reduce((total, each, c) => total + each * sizes[c], 0);
  return sums.map((each) => Math.min(1, (each * times) / sum));
}

/** Chance that fewer than n happen, of independent events with distribution p without one of them, of chance q. */
function fewerWithout(p: Float64Array, q: number, n: number): number {
  const last = p.length - 2;
  let [sum, rest] = [0, 0];
  // Taken out from the side on which rounding does not grow.
  if (q <= 0.5) for (let k = 0; k < n && k <= last; k++) sum += rest = (p[k] - q * rest) / (1 - q);
  else {
    let most = 0;
    for (let k = last; k >= n; k--) most += rest = (p[k + 1] - (1 - q) * rest) / q;
    sum = 1 - most;
  }
  return Math.min(1, Math.max(0, sum));
}

/** About the same where there are very many entries: each came by the time by which so many are expected (Rosén 1997). */
function inclusionAbout(classes: readonly number[], sizes: readonly number[], times: number): number[] {
  const by = (t: number) => classes.map((w) => -Math.expm1(-w * t));
  const count = (t: number) => by(t).reduce((sum, p, c) => sum + p * sizes[c], 0);
  let [low, high] = [0, 1 / Math.min(...classes)];
  while (count(high) < times) high *= 2;
  for (let k = 0; k < 60; k++) {
    const middle = (low + high) / 2;
    if (count(middle) < times) low = middle;
    else high = middle;
  }
  return by(high);
}

interface DrawnState {
  readonly counts: readonly number[];
  readonly p: number;
}
/**
 * How many of each class were drawn after so many draws without putting back; entries of one class have one weight, so
 * that only their number matters.
 * @throws TooMany where there are too many states
 */
export function withoutBack(weights: readonly number[], sizes: readonly number[], times: number): DrawnState[] {
  const none = sizes.map(() => 0);
  let states = new Map<string, DrawnState>([["", { counts: none, p: 1 }]]);
  const draws = Math.min(
    times,
    sizes.reduce((a, b) => a + b, 0),
  );
  if (workWithoutBack(sizes, draws) > MOST_WORK)
    throw new TooMany("Too many weights are drawn without putting back to tell them apart.");
  for (let n = 0; n < draws; n++) {
    const next = new Map<string, DrawnState>();
    for (const { counts, p } of states.values()) {
      const left = weights.reduce((sum, w, c) => sum + w * (sizes[c] - counts[c]), 0);
      for (let c = 0; c < weights.length; c++) {
        const chance = (weights[c] * (sizes[c] - counts[c])) / left;
        if (!(chance > 0)) continue;
        const now = counts.map((each, k) => (k === c ? each + 1 : each));
        const key = now.join();
        next.set(key, { counts: now, p: (next.get(key)?.p ?? 0) + p * chance });
      }
    }
    states = next;
  }
  return [...states.values()];
}

/**
 * Steps of telling states apart, before any of it is done: after n draws there are as many states as ways to take n, so
 * many of each class at most.
 */
function workWithoutBack(sizes: readonly number[], draws: number): number {
  let ways = new Float64Array(draws + 1);
  ways[0] = 1;
  for (const size of sizes) {
    const next = new Float64Array(draws + 1);
    let sum = 0;
    for (let n = 0; n <= draws; n++) {
      sum += ways[n] - (n > size ? ways[n - size - 1] : 0);
      next[n] = sum;
    }
    ways = next;
  }
  return ways.reduce((sum, n) => sum + n, 0) * sizes.length ** 2;
}
