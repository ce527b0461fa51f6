/** Exact distributions of what lines give: ranges, independent chances and weighted draws, over any number of runs. */
import type { Flow } from "../network/process";
import { inDraws } from "../notation/line";
import {
  add,
  type Fraction,
  fraction,
  fromNumber,
  multiply,
  negate,
  subtract,
  toNumber,
  wholeMultiples,
} from "../numbers/fraction";
import { Budget, TooMany } from "../budget/budget";

/** Probabilities of the amounts from·step, (from + 1)·step, … */
export interface Distribution {
  /** Size of a step, exactly. */
  readonly step: Fraction;
  /** Steps of the smallest amount; may be negative where something is taken. */
  readonly from: number;
  readonly p: Float64Array;
}

/** Most amounts that a distribution keeps apart. */
export const MOST_APART = 1 << 16;
/** What is cut off at either end of a distribution of many runs, in all. */
const CUT = 1e-18;
/** Most products of probabilities of one question: some tenths of a second. */
const WORK = 2e8;
export const work = (steps = WORK): Budget => new Budget(steps);

/** Equally likely amounts low, low + step, … */
export interface Amounts {
  readonly low: Fraction;
  readonly step: Fraction;
  /** How many; more than can be counted exactly where it is large. */
  readonly count: number;
}

/** The equally likely amounts of a range: in steps of its last decimal place, whole numbers for whole ends. */
export function rangeOf(min: number, max: number): Amounts {
  const [low, high] = [fromNumber(Math.min(min, max)), fromNumber(Math.max(min, max))];
  const step = fraction(1n, 10n ** BigInt(Math.max(decimals(low), decimals(high))));
  return { low, step, count: Math.round(toNumber(subtract(high, low)) / toNumber(step)) + 1 };
}

/** Amounts one by one. @throws TooMany where they are too many to be kept apart */
function spread({ low, step, count }: Amounts): Fraction[] {
  if (count > MOST_APART + 1) throw new TooMany(`A range has more than ${MOST_APART} steps.`);
  return Array.from({ length: count }, (_, k) => add(low, multiply(step, fraction(BigInt(k)))));
}

/** The fewest decimal places that write a number that was typed. */
function decimals(f: Fraction): number {
  let n = 0;
  for (let scale = 1n; scale % f.d !== 0n; scale *= 10n) n++;
  return n;
}

/** One of the things of which one happens: with a chance some amounts of an item, each as likely as the others. */
export interface Alternative extends Amounts {
  readonly p: number;
  readonly item: string;
}
/**
 * What happens so many times in a run, each time by itself. What the alternatives leave of 1 is the chance of nothing.
 */
export interface Happening {
  readonly alternatives: readonly Alternative[];
  readonly times: number;
}

const within = (chance: number): number => Math.min(1, Math.max(0, chance));

/**
 * What the lines of one run do, independently of each other. Wear is spread evenly: a tool that lasts 50 runs loses
 * 1/50 in each.
 */
export function happenings(lines: readonly Flow[]): Happening[] {
  return inDraws(lines.filter((l) => l.role !== "station" && (l.role !== "tool" || l.uses !== null))).map((group) => {
    const [{ draw }] = group;
    if (!draw) return { alternatives: alternativeOf(group[0], within(group[0].chance)), times: 1 };
    return {
      alternatives: group.flatMap((line) => alternativeOf(line, (line.draw?.weight ?? 0) / draw.of)),
      times: draw.times,
    };
  });
}

function alternativeOf(line: Flow, p: number): Alternative[] {
  if (p === 0) return [];
  const { low, step, count } = rangeOf(line.min, line.max);
  const share = line.uses === null ? fraction(1n) : fraction(1n, BigInt(line.uses));
  const signed = (f: Fraction) => (line.role === "output" ? multiply(f, share) : negate(multiply(f, share)));
  return [{ p, item: line.item, low: signed(low), step: signed(step), count }];
}

/** Chance of nothing, 0 where only rounding is left of it. */
export function chanceOfNothing(alternatives: readonly { readonly p: number }[]): number {
  const rest = 1 - alternatives.reduce((t, o) => t + o.p, 0);
  return rest > 1e-15 ? rest : 0;
}

/**
 * The distribution of what one run does to an item: above zero it gives, below it takes.
 * @throws TooMany where the amounts are too many to be kept apart, or take too many steps
 */
export function perRun(lines: readonly Flow[], item: string, steps = work()): Distribution {
  const parts = happenings(lines).flatMap(({ alternatives, times }) => {
    const own = alternatives.filter((o) => o.item === item);
    return own.length ? [{ own, times }] : [];
  });
  const lattice = [
    fraction(1n),
    ...parts
      .flatMap(({ own }) => own.flatMap((o) => (o.count > 1 ? [o.low, o.step] : [o.low])))
      .filter((a) => a.n !== 0n),
  ];
  const step = multiply(lattice[0], fraction(1n, wholeMultiples(lattice)[0]));
  let sum: Distribution = { step, from: 0, p: Float64Array.of(1) };
  for (const { own, times } of parts) {
    const places = own.flatMap((o) => {
      steps.take(o.count);
      return spread(o).map((amount) => ({
        at: toNumber(multiply(amount, fraction(step.d, step.n))),
        p: o.p / o.count,
      }));
    });
    const rest = chanceOfNothing(own);
    if (rest > 0) places.push({ at: 0, p: rest });
    const low = places.reduce((least, o) => Math.min(least, o.at), Number.POSITIVE_INFINITY);
    const high = places.reduce((most, o) => Math.max(most, o.at), Number.NEGATIVE_INFINITY);
    if (!(high - low <= MOST_APART)) throw new TooMany(`More than ${MOST_APART} different amounts.`);
    const p = new Float64Array(high - low + 1);
    for (const o of places) p[o.at - low] += o.p;
    sum = convolved(sum, repeated({ step, from: low, p }, times, steps), steps);
  }
  return sum;
}

/** The distribution of a sum of two independent amounts: the product of their generating functions. */
export function convolved(a: Distribution, b: Distribution, steps = work()): Distribution {
  const length = a.p.length + b.p.length - 1;
  if (length > MOST_APART) throw new TooMany(`More than ${MOST_APART} different amounts.`);
  steps.take(a.p.length * b.p.length);
  const p = new Float64Array(length);
  const [short, long] = a.p.length < b.p.length ? [a.p, b.p] : [b.p, a.p];
  for (let i = 0; i < short.length; i++) {
    const s = short[i];
    if (s !== 0) for (let k = 0; k < long.length; k++) p[i + k] += s * long[k];
  }
  return { step: a.step, from: a.from + b.from, p };
}

/**
 * The distribution over n independent runs, by repeated squaring. Ends that together weigh less than 1e-18 are cut off.
 */
export function repeated(one: Distribution, n: number, steps = work()): Distribution {
  let sum: Distribution = { step: one.step, from: 0, p: Float64Array.of(1) };
  let power = one;
  for (let left = n; left > 0; left = Math.floor(left / 2)) {
    if (left % 2 === 1) sum = trimmed(convolved(sum, power, steps));
    if (left > 1) power = trimmed(convolved(power, power, steps));
  }
  return sum;
}

function trimmed(d: Distribution): Distribution {
  let [low, high] = [0, d.p.length];
  for (let w = d.p[low]; w < CUT && low < high - 1; w += d.p[low]) low++;
  for (let w = d.p[high - 1]; w < CUT && high > low + 1; w += d.p[high - 1]) high--;
  return low === 0 && high === d.p.length ? d : { step: d.step, from: d.from + low, p: d.p.slice(low, high) };
}

/** Chance of at least an amount. */
export function atLeast(d: Distribution, amount: number): number {
  const steps = Math.ceil(toNumber(multiply(fromNumber(amount), fraction(d.step.d, d.step.n))) - 1e-9);
  if (d.from >= steps) return 1;
  let less = 0;
  for (let k = 0; k < d.p.length && d.from + k < steps; k++) less += d.p[k];
  let more = 0;
  for (let k = Math.max(0, steps - d.from); k < d.p.length; k++) more += d.p[k];
  // The smaller of the two sums is the more exact one.
  return less < more ? 1 - less : more;
}

export const expectedOf = (d: Distribution): number =>
  d.p.reduce((t, p, k) => t + p * (d.from + k), 0) * toNumber(d.step);

/** Chance of exactly nothing. */
export const chanceOfNone = (d: Distribution): number => d.p[-d.from] ?? 0;

/**
 * The fewest runs after which at least an amount has come with the given confidence, from a distribution of one run that
 * takes nothing, or less than it gives.
 * @param confidence  below 1, such as 0.9
 * @param about       where the search starts
 * @returns null where no number of runs up to `most` does
 */
export function fewestRuns(
  one: Distribution,
  amount: number,
  confidence: number,
  { most = 1_000_000, about = 1, steps = work() } = {},
): number | null {
  if (amount <= 0) return 0;
  if (!(expectedOf(one) > 0)) return null;
  const enough = (n: number) => atLeast(repeated(one, n, steps), amount) >= confidence - 1e-12;
  let high = Math.max(1, Math.min(about, most));
  while (high < most && !enough(high)) high = Math.min(most, 2 * high);
  if (high === most && !enough(high)) return null;
  let low = 0;
  while (low + 1 < high) {
    const middle = Math.floor((low + high) / 2);
    if (enough(middle)) high = middle;
    else low = middle;
  }
  return high;
}
