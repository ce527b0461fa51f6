/** Exact distributions of what lines give: ranges, independent chances and weighted draws, over any number of runs. */
import { inDraws, type Line } from "../catalogue/records";
import { add, type Fraction, fraction, fromNumber, multiply, negate, sign, subtract, toNumber, wholeMultiples, ZERO } from "../numbers/fraction";
import { seeded } from "../numbers/seeded";

/** Probabilities of the amounts from·step, (from + 1)·step, … */
export interface Distribution {
  /** Size of a step, exactly. */
  readonly step: Fraction;
  /** Steps of the smallest amount; may be negative where something is taken. */
  readonly from: number;
  readonly p: Float64Array;
}

/** Most amounts that a distribution keeps apart. */
const MOST = 1 << 16;
/** What is cut off at either end of a distribution of many runs, in all. */
const CUT = 1e-18;
/** Most outcomes of a round that are gone through one by one, and most draws of a round that are played through. */
const MOST_OUTCOMES = 20_000;
const MOST_DRAWS = 400;
const SAMPLED_DRAWS = 400_000;

/** Thrown where there are more different amounts than can be kept apart. */
export class TooMany extends RangeError {}

/** The equally likely amounts of a range: in steps of its last decimal place, whole numbers for whole ends. */
export function amountsOf(min: number, max: number): Fraction[] {
  const [low, high] = [fromNumber(Math.min(min, max)), fromNumber(Math.max(min, max))];
  const step = fraction(1n, 10n ** BigInt(Math.max(decimals(low), decimals(high))));
  const count = toNumber(subtract(high, low)) / toNumber(step);
  if (count > MOST) throw new TooMany(`A range of ${min} to ${max} has more than ${MOST} steps.`);
  return Array.from({ length: Math.round(count) + 1 }, (_, k) => add(low, multiply(step, fraction(BigInt(k)))));
}

/** The fewest decimal places that write a number that was typed. */
function decimals(f: Fraction): number {
  let n = 0;
  for (let scale = 1n; scale % f.d !== 0n; scale *= 10n) n++;
  return n;
}

/** One thing that may happen in a run, independently of the others: outcomes with what they do to each item. */
interface Event {
  readonly outcomes: readonly { readonly p: number; readonly item: string; readonly amount: Fraction }[];
}

const within = (chance: number): number => Math.min(1, Math.max(0, chance));

/** What the lines of one run do, as independent events. Wear is spread evenly: a tool that lasts 50 runs loses 1/50 in each. */
function* events(lines: readonly Line[]): Generator<Event> {
  for (const group of inDraws(lines.filter((l) => l.role !== "station" && (l.role !== "tool" || l.uses !== null)))) {
    const [{ draw }] = group;
    if (!draw) {
      yield { outcomes: outcomesOf(group[0], within(group[0].chance)) };
      continue;
    }
    const outcomes = group.flatMap((line) => outcomesOf(line, (line.draw?.weight ?? 0) / draw.of));
    for (let n = 0; n < draw.times; n++) yield { outcomes };
  }
}

function outcomesOf(line: Line, chance: number): { p: number; item: string; amount: Fraction }[] {
  if (chance === 0) return [];
  const amounts = amountsOf(line.min, line.max);
  return amounts.map((amount) => {
    const worn = line.uses === null ? amount : multiply(amount, fraction(1n, BigInt(line.uses)));
    return { p: chance / amounts.length, item: line.item, amount: line.role === "output" ? worn : negate(worn) };
  });
}

/** The distribution of what one run does to an item: above zero it gives, below it takes. */
export function perRun(lines: readonly Line[], item: string): Distribution {
  const parts = [...events(lines)].map(({ outcomes }) => outcomes.filter((o) => o.item === item)).filter((o) => o.length > 0);
  const steps = [fraction(1n), ...parts.flat().map((o) => o.amount).filter((a) => a.n !== 0n)];
  const whole = wholeMultiples(steps);
  const step = multiply(steps[0], fraction(1n, whole[0]));
  let sum: Distribution = { step, from: 0, p: Float64Array.of(1) };
  for (const outcomes of parts) {
    const places = outcomes.map((o) => ({ at: toNumber(multiply(o.amount, fraction(step.d, step.n))), p: o.p }));
    const rest = 1 - outcomes.reduce((t, o) => t + o.p, 0);
    if (rest > 1e-15) places.push({ at: 0, p: rest });
    const [low, high] = [Math.min(...places.map((o) => o.at)), Math.max(...places.map((o) => o.at))];
    if (high - low > MOST) throw new TooMany(`More than ${MOST} different amounts.`);
    const p = new Float64Array(high - low + 1);
    for (const o of places) p[o.at - low] += o.p;
    sum = convolved(sum, { step, from: low, p });
  }
  return sum;
}

/** The distribution of a sum of two independent amounts: the product of their generating functions. */
export function convolved(a: Distribution, b: Distribution): Distribution {
  const p = new Float64Array(a.p.length + b.p.length - 1);
  if (p.length > MOST) throw new TooMany(`More than ${MOST} different amounts.`);
  const [short, long] = a.p.length < b.p.length ? [a.p, b.p] : [b.p, a.p];
  for (let i = 0; i < short.length; i++) {
    const s = short[i];
    if (s !== 0) for (let k = 0; k < long.length; k++) p[i + k] += s * long[k];
  }
  return { step: a.step, from: a.from + b.from, p };
}

/** The distribution over n independent runs, by repeated squaring. Ends that together weigh less than 1e-18 are cut off. */
export function repeated(one: Distribution, n: number): Distribution {
  let sum: Distribution = { step: one.step, from: 0, p: Float64Array.of(1) };
  let power = one;
  for (let left = n; left > 0; left = Math.floor(left / 2)) {
    if (left % 2 === 1) sum = trimmed(convolved(sum, power));
    if (left > 1) power = trimmed(convolved(power, power));
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

export const expectedOf = (d: Distribution): number => d.p.reduce((t, p, k) => t + p * (d.from + k), 0) * toNumber(d.step);

/** Chance of exactly nothing. */
export const chanceOfNone = (d: Distribution): number => d.p[-d.from] ?? 0;

/**
 * The fewest runs after which at least an amount has come with the given confidence.
 * @param confidence  below 1, such as 0.9
 * @returns null where no number of runs up to `most` does
 */
export function runsFor(lines: readonly Line[], item: string, amount: number, confidence: number, most = 1_000_000): number | null {
  const one = perRun(lines, item);
  return one.from < 0 ? null : fewestRuns(one, amount, confidence, { most });
}

/** The same from a distribution of one run that takes nothing, or less than it gives. @param about  where the search starts */
export function fewestRuns(one: Distribution, amount: number, confidence: number, { most = 1_000_000, about = 1 } = {}): number | null {
  if (amount <= 0) return 0;
  if (!(expectedOf(one) > 0)) return null;
  const enough = (n: number) => atLeast(repeated(one, n), amount) >= confidence - 1e-12;
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

/**
 * Chance that one round of several recipes, each run some times, loses nothing and gains something.
 * @param parts  lines of each recipe and how often it runs
 * @param fixed  what is taken and given besides, whatever happens
 * @returns exact where all outcomes can be gone through; else estimated from seeded rounds, or, where a round has thousands
 * of draws, from means and variances as if every sum were normal
 */
export function chanceOfGain(parts: readonly { readonly lines: readonly Line[]; readonly times: bigint }[], fixed: readonly (readonly [string, Fraction])[]): { chance: number; exact: boolean } {
  const base = new Map<string, Fraction>(fixed);
  const open: { event: Event; times: number }[] = [];
  const put = (item: string, amount: Fraction) => base.set(item, add(base.get(item) ?? ZERO, amount));
  for (const { lines, times } of parts)
    for (const event of events(lines)) {
      const { outcomes } = event;
      const rest = 1 - outcomes.reduce((t, o) => t + o.p, 0);
      if (outcomes.length === 1 && rest < 1e-15) put(outcomes[0].item, multiply(outcomes[0].amount, fraction(times)));
      else if (outcomes.length) open.push({ event, times: Number(times) });
    }
  const items = [...new Set(open.flatMap(({ event }) => event.outcomes.map((o) => o.item)))];
  const certainLoss = [...base].some(([item, amount]) => sign(amount) < 0 && !items.includes(item));
  if (certainLoss) return { chance: 0, exact: true };
  const certainGain = [...base].some(([item, amount]) => sign(amount) > 0 && !items.includes(item));
  const place = new Map(items.map((item, k) => [item, k]));
  // Steps in which every amount of an item is a whole number.
  const unit = items.map((item) => {
    const all = [base.get(item) ?? ZERO, ...open.flatMap(({ event }) => event.outcomes.filter((o) => o.item === item).map((o) => o.amount))].filter((a) => a.n !== 0n);
    return all.length ? all.reduce((d, a) => (d * a.d) / gcd(d, a.d), 1n) : 1n;
  });
  const steps = (item: string, amount: Fraction) => Number((amount.n * unit[place.get(item) as number]) / amount.d);
  const startAt = items.map((item) => steps(item, base.get(item) ?? ZERO));
  const moves = open.map(({ event, times }) => {
    const list = event.outcomes.map((o) => ({ p: o.p, at: place.get(o.item) as number, by: steps(o.item, o.amount) }));
    const rest = 1 - list.reduce((t, o) => t + o.p, 0);
    return { list: rest > 1e-15 ? [...list, { p: rest, at: 0, by: 0 }] : list, times };
  });
  const good = (amounts: readonly number[]) => amounts.every((a) => a >= 0) && (certainGain || amounts.some((a) => a > 0));
  const draws = moves.reduce((t, m) => t + m.times, 0);
  if (draws > MOST_DRAWS) return { chance: asIfNormal(), exact: false };
  let gone = 0;
  let states = new Map<string, { amounts: number[]; p: number }>([[startAt.join(), { amounts: startAt, p: 1 }]]);
  for (const { list, times } of moves)
    for (let n = 0; n < times; n++) {
      const next = new Map<string, { amounts: number[]; p: number }>();
      for (const { amounts, p } of states.values())
        for (const o of list) {
          const moved = [...amounts];
          moved[o.at] += o.by;
          const key = moved.join();
          const there = next.get(key);
          if (there) there.p += p * o.p;
          else next.set(key, { amounts: moved, p: p * o.p });
        }
      states = next;
      gone += states.size * list.length;
      if (gone > MOST_OUTCOMES) return { chance: sampled(), exact: false };
    }
  let chance = 0;
  for (const { amounts, p } of states.values()) if (good(amounts)) chance += p;
  return { chance: chance > 1 - 1e-12 ? 1 : chance, exact: true };

  function sampled(): number {
    const random = seeded(1);
    const rounds = Math.floor(SAMPLED_DRAWS / Math.max(4, draws));
    let hits = 0;
    for (let r = 0; r < rounds; r++) {
      const amounts = [...startAt];
      for (const { list, times } of moves)
        for (let n = 0; n < times; n++) {
          let left = random();
          for (const o of list) {
            left -= o.p;
            if (left < 0) {
              amounts[o.at] += o.by;
              break;
            }
          }
        }
      if (good(amounts)) hits++;
    }
    return hits / rounds;
  }

  function asIfNormal(): number {
    const mean = [...startAt];
    const variance = items.map(() => 0);
    for (const { list, times } of moves)
      for (const at of new Set(list.map((o) => o.at))) {
        const own = list.filter((o) => o.at === at);
        const m = own.reduce((t, o) => t + o.p * o.by, 0);
        mean[at] += times * m;
        variance[at] += times * (own.reduce((t, o) => t + o.p * o.by * o.by, 0) - m * m);
      }
    return mean.reduce((chance, m, k) => chance * (variance[k] > 0 ? normal(m / Math.sqrt(variance[k])) : m >= 0 ? 1 : 0), 1);
  }
}

/** Chance that a standard normal variable is below z (Abramowitz and Stegun 26.2.17, good to seven places). */
function normal(z: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(z));
  const tail = (Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI)) * t * (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return z > 0 ? 1 - tail : tail;
}

const gcd = (a: bigint, b: bigint): bigint => (b === 0n ? a : gcd(b, a % b));
