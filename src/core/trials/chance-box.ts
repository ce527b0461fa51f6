/** What comes by chance, exactly and by rolling, through tables within tables. */
import { convolved, type Distribution, MOST_APART, rangeOf, repeated, work } from "../analysis/chances";
import {
  ANYTHING,
  type Draws,
  comes,
  type Content,
  type Draw,
  everyContent,
  innerFirst,
  type Tables,
  type DrawnKey,
  thingOf,
  withoutBack,
} from "../network/box";
import { fraction, fromNumber, multiply, toNumber, wholeMultiples } from "../numbers/fraction";
import { type Budget, TooMany } from "../budget/budget";

/**
 * The exact distribution of how much of a thing one opening gives; of ANYTHING: how much of all things together.
 * @throws TooMany where the amounts are too many to be kept apart, or take too many steps
 */
export function distributionOf(
  box: Draws,
  thing: DrawnKey,
  tables: Tables,
  level: number,
  steps: Budget = work(),
): Distribution {
  const step = stepOf(box, tables);
  const nothing: Distribution = { step, from: 0, p: Float64Array.of(1) };
  const known = new Map<Draws, Distribution>();
  const whole = (value: number): number => Math.round(toNumber(multiply(fromNumber(value), fraction(step.d, step.n))));

  for (const each of innerFirst(box, tables)) known.set(each, boxed(each));
  return known.get(box) ?? nothing;

  function boxed(of: Draws): Distribution {
    let sum = nothing;
    const put = (d: Distribution) => {
      if (d !== nothing) sum = convolved(sum, d, steps);
    };
    for (const content of of.always) put(amountOf(content));
    for (const content of of.chances) {
      const d = amountOf(content);
      if (d !== nothing) put(mixed([{ p: content.chance, d }]));
    }
    for (const draw of of.draws) put(drawn(draw));
    return sum;
  }

  /** What one entry gives of the thing when it comes. */
  function amountOf(content: Content): Distribution {
    if (!comes(content, level)) return nothing;
    if (content.what.is === "table") {
      const inner = tables.get(content.what.table);
      const one = (inner && known.get(inner)) ?? nothing;
      if (one === nothing) return nothing;
      const [least, most] = [Math.round(content.min), Math.round(content.max)];
      if (least === most) return repeated(one, least, steps);
      amountsApart(most - least + 1);
      const p = 1 / (most - least + 1);
      return mixed(Array.from({ length: most - least + 1 }, (_, k) => ({ p, d: repeated(one, least + k, steps) })));
    }
    const own = thingOf(content);
    if (own === null || (thing !== ANYTHING && own !== thing)) return nothing;
    const { low, step: by, count } = rangeOf(content.min, content.max);
    const [from, each] = [whole(toNumber(low)), Math.max(1, whole(toNumber(by)))];
    if (count === 1) return { step, from, p: Float64Array.of(1) };
    const p = amounts((count - 1) * each + 1, steps);
    for (let k = 0; k < count; k++) p[k * each] = 1 / count;
    return { step, from, p };
  }

  function drawn({ times, back, entries }: Draw): Distribution {
    const all = entries
      .filter((e) => e.weight > 0 && comes(e, level))
      .map((e) => ({ weight: e.weight, d: amountOf(e) }));
    if (all.every(({ d }) => d === nothing)) return nothing;
    const sum = all.reduce((t, e) => t + e.weight, 0);
    if (back) return repeated(mixed(all.map(({ weight, d }) => ({ p: weight / sum, d }))), times, steps);
    // What gives nothing of it and weighs the same is one class; every other entry is one of its own.
    const classes: { weight: number; d: Distribution; size: number }[] = [];
    for (const { weight, d } of all) {
      const same = classes.find((c) => c.weight === weight && c.d === nothing && d === nothing);
      if (same) same.size++;
      else classes.push({ weight, d, size: 1 });
    }
    const states = withoutBack(
      classes.map((c) => c.weight),
      classes.map((c) => c.size),
      times,
    );
    return mixed(
      states.map(({ counts, p }) => {
        let d = nothing;
        for (const [c, n] of counts.entries())
          if (n > 0 && classes[c].d !== nothing) d = convolved(d, repeated(classes[c].d, n, steps), steps);
        return { p, d };
      }),
    );
  }

  /** One of several distributions; what their chances leave of 1 is nothing. */
  function mixed(of: readonly { readonly p: number; readonly d: Distribution }[]): Distribution {
    const rest = 1 - of.reduce((t, { p }) => t + p, 0);
    const all = rest > 1e-15 ? [...of, { p: rest, d: nothing }] : of;
    const from = all.reduce((least, { d }) => Math.min(least, d.from), Number.POSITIVE_INFINITY);
    const end = all.reduce((most, { d }) => Math.max(most, d.from + d.p.length), Number.NEGATIVE_INFINITY);
    const p = amounts(end - from, steps);
    steps.take(all.reduce((t, { d }) => t + d.p.length, 0));
    for (const { p: share, d } of all) for (let k = 0; k < d.p.length; k++) p[d.from - from + k] += share * d.p[k];
    return { step, from, p };
  }
}

/** The largest step of which all amounts are whole multiples. */
function stepOf(box: Draws, tables: Tables) {
  const lattice = [fraction(1n)];
  for (const of of innerFirst(box, tables))
    for (const content of everyContent(of)) {
      if (content.what.is === "nothing" || (content.what.is === "table" && tables.has(content.what.table))) continue;
      const { low, step, count } = rangeOf(content.min, content.max);
      for (const each of count > 1 ? [low, step] : [low]) if (each.n !== 0n) lattice.push(each);
    }
  return multiply(lattice[0], fraction(1n, wholeMultiples(lattice)[0]));
}

/** Amounts that are told apart, all without a chance yet. @throws TooMany where they are too many */
function amounts(count: number, steps: Budget): Float64Array {
  amountsApart(count);
  steps.take(count);
  return new Float64Array(count);
}
function amountsApart(count: number): void {
  if (!(count <= MOST_APART)) throw new TooMany(`More than ${MOST_APART} different amounts.`);
}

/** Rolls a box: adds what one opening gives to `into`, at the places of `things`. */
export type Roll = (random: () => number, into: Float64Array) => void;

/**
 * Deepest that tables are rolled within each other. Whatever goes deeper is not rolled at all, so that no one takes a
 * part for the whole.
 */
const DEEPEST = 1000;

/**
 * A table within itself gives nothing there.
 * @param budget  every entry and draw that is rolled takes a step of it
 * @throws TooMany where the steps are used up, or tables are nested too deeply
 */
export function roller(box: Draws, tables: Tables, level: number, things: readonly DrawnKey[], budget: Budget): Roll {
  const places = new Map(things.map((thing, k) => [thing, k]));
  const known = new Map<Draws, { readonly roll: Roll; readonly depth: number }>();
  let deepest = 0;
  for (const each of innerFirst(box, tables)) {
    deepest = 0;
    known.set(each, { roll: made(each), depth: deepest + 1 });
    if (deepest + 1 > DEEPEST) throw new TooMany(`Tables are nested more than ${DEEPEST} deep.`);
  }
  return known.get(box)?.roll ?? (() => undefined);

  function made(of: Draws): Roll {
    const parts: Roll[] = [];
    for (const content of of.always) if (comes(content, level)) parts.push(entry(content));
    for (const content of of.chances)
      if (comes(content, level) && content.chance > 0) {
        const [roll, { chance }] = [entry(content), content];
        parts.push((random, into) => {
          if (random() < chance) roll(random, into);
        });
      }
    for (const draw of of.draws) parts.push(drawing(draw));
    return (random, into) => {
      budget.take(parts.length + 1);
      for (let k = 0; k < parts.length; k++) parts[k](random, into);
    };
  }

  function entry(content: Content): Roll {
    const { min, max } = content;
    const { step, count } = rangeOf(min, max);
    const by = toNumber(step);
    const amount = count > 1 ? (random: () => number) => min + by * Math.floor(random() * count) : () => min;
    if (content.what.is === "table") {
      const inner = tables.get(content.what.table);
      const of = inner && known.get(inner);
      if (!of) return () => undefined;
      deepest = Math.max(deepest, of.depth);
      return (random, into) => {
        for (let n = Math.round(amount(random)); n > 0; n--) of.roll(random, into);
      };
    }
    const thing = thingOf(content);
    const at = thing === null ? undefined : places.get(thing);
    if (at === undefined) return () => undefined;
    return (random, into) => {
      into[at] += amount(random);
    };
  }

  function drawing({ times, back, entries }: Draw): Roll {
    const all = entries.filter((e) => e.weight > 0 && comes(e, level));
    const rolls = all.map(entry);
    const weights = all.map((e) => e.weight);
    const whole = weights.reduce((a, b) => a + b, 0);
    const pick = (random: () => number, left: readonly number[], sum: number): number => {
      let at = random() * sum;
      for (let k = 0; k < left.length; k++) {
        at -= left[k];
        if (at < 0 && left[k] > 0) return k;
      }
      return left.findLastIndex((w) => w > 0);
    };
    if (!all.length) return () => undefined;
    if (back)
      return (random, into) => {
        for (let n = 0; n < times; n++) {
          budget.take(all.length);
          rolls[pick(random, weights, whole)](random, into);
        }
      };
    return (random, into) => {
      budget.take(Math.min(times, all.length) * all.length);
      const left = [...weights];
      let sum = whole;
      for (let n = Math.min(times, all.length); n > 0; n--) {
        const k = pick(random, left, sum);
        rolls[k](random, into);
        sum -= left[k];
        left[k] = 0;
      }
    };
  }
}
