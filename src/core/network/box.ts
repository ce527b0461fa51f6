/** What comes by chance, as it is said: tables, and the same written in place in a recipe; and what it comes to on average. */
import type { ChanceTable } from "../kinds/index";
import { inDraws, type ItemLine, type Line, outputsOf, weightOfNothing } from "../notation/line";
import { TooMany } from "../numbers/steps";
import type { Id } from "../schema/id";

/** Certain things, chances and draws: a table, or the same written in place in a recipe. */
export type Box = Pick<ChanceTable, "always" | "chances" | "draws">;
export type Content = Box["always"][number];
export type Weighed = Box["draws"][number]["entries"][number];
export type Draw = Box["draws"][number];
export type Tables = ReadonlyMap<Id, Box>;

/** What comes: "item:ID" or "currency:ID". */
export type Thing = string;
/** Stands for anything at all. */
export const ANYTHING = "*";
export const thingOf = ({ what }: Content): Thing | null =>
  what.is === "item" ? `item:${what.item}` : what.is === "currency" ? `currency:${what.currency}` : null;
export const splitThing = (thing: Thing): { readonly kind: "item" | "currency"; readonly id: Id } => {
  const [kind, id] = thing.split(":");
  return { kind: kind as "item" | "currency", id: id as Id };
};

/** Most different states of a draw without putting back that are told apart. */
const MOST_STATES = 60_000;

/** The outputs of a recipe or source as what they are, and the tables that it draws from. */
export function boxOfLines(
  lines: readonly Line[],
  tables: readonly { readonly table: Id; readonly times: number }[] = [],
): Box {
  const content = ({ item, min, max }: ItemLine): Content => ({
    what: { is: "item", item },
    min,
    max,
    from: null,
    to: null,
  });
  const box: { always: Content[]; chances: Box["chances"][number][]; draws: Draw[] } = {
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
export function thingsIn(box: Box, tables: Tables, level: number): Thing[] {
  const found = new Set<Thing>();
  const seen = new Set<Box>();
  const look = (of: Box): void => {
    if (seen.has(of)) return;
    seen.add(of);
    for (const content of contents(of, level)) {
      const thing = thingOf(content);
      if (thing) found.add(thing);
      const inner = content.what.is === "table" ? tables.get(content.what.table) : undefined;
      if (inner) look(inner);
    }
  };
  look(box);
  return [...found];
}
/** Levels at which other entries come than below, from one on; tables in it opened. */
export function levelsOf(box: Box, tables: Tables, from: number, most: number): number[] {
  const found = new Set<number>([from]);
  const seen = new Set<Box>();
  const look = (of: Box): void => {
    if (seen.has(of)) return;
    seen.add(of);
    for (const content of everyContent(of)) {
      if (content.from !== null && content.from > from) found.add(content.from);
      if (content.to !== null && content.to >= from) found.add(content.to + 1);
      const inner = content.what.is === "table" ? tables.get(content.what.table) : undefined;
      if (inner) look(inner);
    }
  };
  look(box);
  return [...found].sort((a, b) => a - b).slice(0, most);
}
function* contents(box: Box, level: number): Generator<Content> {
  for (const content of box.always) if (comes(content, level)) yield content;
  for (const content of box.chances) if (content.chance > 0 && comes(content, level)) yield content;
  for (const { entries } of box.draws) for (const e of entries) if (e.weight > 0 && comes(e, level)) yield e;
}

/** Whether a table is within itself, however far down. */
export function holdsItself(id: Id, tables: Tables): boolean {
  const seen = new Set<Id>();
  const look = (at: Id): boolean => {
    const box = tables.get(at);
    for (const { what } of box ? everyContent(box) : []) {
      if (what.is !== "table") continue;
      if (what.table === id) return true;
      if (seen.has(what.table)) continue;
      seen.add(what.table);
      if (look(what.table)) return true;
    }
    return false;
  };
  return look(id);
}
export function* everyContent(box: Box): Generator<Content> {
  yield* box.always;
  yield* box.chances;
  for (const { entries } of box.draws) yield* entries;
}

/**
 * Units of each thing on average, from one opening. Linear in the entries, tables opened once for each place they stand in.
 * A table within itself counts for nothing there.
 */
export function means(box: Box, tables: Tables, level: number): Map<Thing, number> {
  const sum = new Map<Thing, number>();
  const open = new Set<Box>();
  const known = new Map<Box, Map<Thing, number>>();
  const of = (each: Box): Map<Thing, number> => {
    const there = known.get(each);
    if (there) return there;
    const made = new Map<Thing, number>();
    if (open.has(each)) return made;
    open.add(each);
    const put = (content: Content, times: number) => {
      if (times === 0 || !comes(content, level)) return;
      const thing = thingOf(content);
      const amount = times * middle(content);
      if (thing) made.set(thing, (made.get(thing) ?? 0) + amount);
      else if (content.what.is === "table") {
        const inner = tables.get(content.what.table);
        if (inner) for (const [t, m] of of(inner)) made.set(t, (made.get(t) ?? 0) + amount * m);
      }
    };
    for (const content of each.always) put(content, 1);
    for (const content of each.chances) put(content, content.chance);
    for (const draw of each.draws) {
      const shares = sharesOf(draw, level);
      for (const [k, entry] of draw.entries.entries()) put(entry, shares[k]);
    }
    open.delete(each);
    known.set(each, made);
    return made;
  };
  for (const [thing, mean] of of(box)) sum.set(thing, mean);
  return sum;
}

/** How often each entry of a draw comes on average. */
export function sharesOf(draw: Draw, level: number): number[] {
  const weights = draw.entries.map((e) => (comes(e, level) ? e.weight : 0));
  const whole = weights.reduce((a, b) => a + b, 0);
  if (whole <= 0) return weights.map(() => 0);
  if (draw.back) return weights.map((w) => (draw.times * w) / whole);
  const classes = [...new Set(weights.filter((w) => w > 0))];
  const sizes = classes.map((w) => weights.filter((each) => each === w).length);
  const drawn = new Array<number>(classes.length).fill(0);
  for (const { counts, p } of withoutBack(classes, sizes, draw.times))
    for (let c = 0; c < classes.length; c++) drawn[c] += p * counts[c];
  return weights.map((w) => (w > 0 ? drawn[classes.indexOf(w)] / sizes[classes.indexOf(w)] : 0));
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
    if (next.size > MOST_STATES)
      throw new TooMany("Too many weights are drawn without putting back to tell them apart.");
    states = next;
  }
  return [...states.values()];
}
