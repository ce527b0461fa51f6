/** The chance that a round of several recipes loses nothing and gains something. */
import type { Flow } from "../network/process";
import { add, type Fraction, fraction, multiply, sign, toNumber, ZERO } from "../numbers/fraction";
import { seeded } from "../numbers/seeded";
import { type Alternative, chanceOfNothing, happenings } from "./chances";

/** Most outcomes of a round that are gone through one by one, and most draws of a round that are played through. */
const MOST_OUTCOMES = 20_000;
const MOST_DRAWS = 400;
/** Steps that playing rounds through may take. */
const SAMPLED = 400_000;

export interface Luck {
  readonly chance: number;
  /** False where it is about so much. */
  readonly exact: boolean;
}

/** So often, by itself each time, one of some alternatives or nothing. */
interface Move {
  readonly alternatives: readonly Alternative[];
  readonly nothing: number;
  readonly times: number;
}
/** The same in whole steps of each item, at the item's place. */
interface Stepped {
  readonly list: readonly {
    readonly p: number;
    readonly at: number;
    readonly low: number;
    readonly by: number;
    readonly count: number;
  }[];
  readonly times: number;
}

/**
 * @param parts  lines of each recipe and how often it runs
 * @param fixed  what is taken and given besides, whatever happens
 * @returns exact where all outcomes can be gone through; else estimated from seeded rounds, or, where a round has
 *   thousands
 * of draws, from means and variances as if every sum were normal. Never more than some tenths of a second.
 */
export function chanceOfGain(
  parts: readonly { readonly lines: readonly Flow[]; readonly times: bigint }[],
  fixed: readonly (readonly [string, Fraction])[],
): Luck {
  const base = new Map<string, Fraction>(fixed);
  const moves: Move[] = [];
  const put = (item: string, amount: Fraction) => base.set(item, add(base.get(item) ?? ZERO, amount));
  for (const { lines, times } of parts)
    for (const { alternatives, times: each } of happenings(lines)) {
      const nothing = chanceOfNothing(alternatives);
      const [only] = alternatives;
      if (alternatives.length === 1 && only.count === 1 && nothing === 0)
        put(only.item, multiply(only.low, fraction(times * BigInt(each))));
      else if (alternatives.length) moves.push({ alternatives, nothing, times: Number(times) * each });
    }
  const items = [...new Set(moves.flatMap(({ alternatives }) => alternatives.map((o) => o.item)))];
  const open = new Set(items);
  if ([...base].some(([item, amount]) => sign(amount) < 0 && !open.has(item))) return { chance: 0, exact: true };
  const gains = [...base].some(([item, amount]) => sign(amount) > 0 && !open.has(item));
  const start = items.map((item) => base.get(item) ?? ZERO);
  const good = (amounts: readonly number[]) => amounts.every((a) => a >= 0) && (gains || amounts.some((a) => a > 0));
  const draws = moves.reduce((t, m) => t + m.times, 0);
  const stepped = draws <= MOST_DRAWS ? inSteps(items, start, moves) : null;
  if (!stepped) return { chance: asIfNormal(items, start, moves), exact: false };
  return (
    goneThrough(stepped.start, stepped.moves, good) ?? {
      chance: played(stepped.start, stepped.moves, good),
      exact: false,
    }
  );
}

/**
 * Everything in steps in which every amount of an item is a whole number; null where those are too large to be counted.
 */
function inSteps(
  items: readonly string[],
  start: readonly Fraction[],
  moves: readonly Move[],
): { start: number[]; moves: Stepped[] } | null {
  const place = new Map(items.map((item, k) => [item, k]));
  const units = start.map((f) => f.d);
  for (const { alternatives } of moves)
    for (const { item, low, step } of alternatives) {
      const at = place.get(item) as number;
      for (const { d } of [low, step]) units[at] = (units[at] * d) / gcd(units[at], d);
    }
  let safe = true;
  const steps = (at: number, { n, d }: Fraction): number => {
    const value = Number((n * units[at]) / d);
    if (!Number.isSafeInteger(value)) safe = false;
    return value;
  };
  const from = start.map((f, at) => steps(at, f));
  const stepped = moves.map(({ alternatives, nothing, times }): Stepped => {
    const list = alternatives.map((o) => {
      const at = place.get(o.item) as number;
      const [low, by] = [steps(at, o.low), steps(at, o.step)];
      if (!Number.isSafeInteger(low + by * o.count)) safe = false;
      return { p: o.p, at, low, by, count: o.count };
    });
    return { list: nothing > 0 ? [...list, { p: nothing, at: 0, low: 0, by: 0, count: 1 }] : list, times };
  });
  return safe ? { start: from, moves: stepped } : null;
}

/** Every outcome, one by one; null where they are too many. */
function goneThrough(
  start: readonly number[],
  moves: readonly Stepped[],
  good: (amounts: readonly number[]) => boolean,
): Luck | null {
  let gone = 0;
  let states = new Map<string, { amounts: readonly number[]; p: number }>([[start.join(), { amounts: start, p: 1 }]]);
  for (const { list, times } of moves) {
    const outcomes = list.reduce((t, o) => t + o.count, 0);
    for (let n = 0; n < times; n++) {
      gone += states.size * outcomes;
      if (gone > MOST_OUTCOMES) return null;
      const next = new Map<string, { amounts: number[]; p: number }>();
      for (const { amounts, p } of states.values())
        for (const o of list)
          for (let k = 0; k < o.count; k++) {
            const moved = [...amounts];
            moved[o.at] += o.low + k * o.by;
            const key = moved.join();
            const there = next.get(key);
            const share = (p * o.p) / o.count;
            if (there) there.p += share;
            else next.set(key, { amounts: moved, p: share });
          }
      states = next;
    }
  }
  let chance = 0;
  for (const { amounts, p } of states.values()) if (good(amounts)) chance += p;
  return { chance: chance > 1 - 1e-12 ? 1 : chance, exact: true };
}

/** The share of seeded rounds that gain. */
function played(
  start: readonly number[],
  moves: readonly Stepped[],
  good: (amounts: readonly number[]) => boolean,
): number {
  const random = seeded(1);
  const cost = moves.reduce((t, m) => t + m.times * (1 + m.list.length / 4), start.length);
  const rounds = Math.max(50, Math.floor(SAMPLED / Math.max(4, cost)));
  let hits = 0;
  for (let r = 0; r < rounds; r++) {
    const amounts = [...start];
    for (const { list, times } of moves)
      for (let n = 0; n < times; n++) {
        let left = random();
        for (const o of list) {
          left -= o.p;
          if (left >= 0) continue;
          amounts[o.at] += o.low + (o.count > 1 ? Math.floor(random() * o.count) * o.by : 0);
          break;
        }
      }
    if (good(amounts)) hits++;
  }
  return hits / rounds;
}

/** From means and variances, as if the sums of the items were normal and independent of each other. */
function asIfNormal(items: readonly string[], start: readonly Fraction[], moves: readonly Move[]): number {
  const place = new Map(items.map((item, k) => [item, k]));
  const mean = start.map(toNumber);
  const variance = items.map(() => 0);
  for (const { alternatives, times } of moves) {
    const of = new Map<number, { first: number; second: number }>();
    for (const o of alternatives) {
      const at = place.get(o.item) as number;
      const { first, second } = moments(o);
      const sum = of.get(at) ?? { first: 0, second: 0 };
      of.set(at, { first: sum.first + o.p * first, second: sum.second + o.p * second });
    }
    for (const [at, { first, second }] of of) {
      mean[at] += times * first;
      variance[at] += times * Math.max(0, second - first * first);
    }
  }
  const chance = mean.reduce(
    (t, m, k) => t * (variance[k] > 0 ? normal(m / Math.sqrt(variance[k])) : m >= 0 ? 1 : 0),
    1,
  );
  return Number.isFinite(chance) ? chance : 0;
}

/** Expectation of equally likely amounts and of their squares. */
export function moments({ low, step, count }: Pick<Alternative, "low" | "step" | "count">): {
  first: number;
  second: number;
} {
  const [a, b, n] = [toNumber(low), toNumber(step), count - 1];
  return { first: a + (b * n) / 2, second: a * a + a * b * n + (b * b * n * (2 * n + 1)) / 6 };
}

/** Chance that a standard normal variable is below z (Abramowitz and Stegun 26.2.17, good to seven places). */
function normal(z: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(z));
  const tail =
    (Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI)) *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return z > 0 ? 1 - tail : tail;
}

const gcd = (a: bigint, b: bigint): bigint => (b === 0n ? a : gcd(b, a % b));
