/**
 * Where a formula divides by zero or falls below zero within the ranges of its names: interval arithmetic (Moore 1966) says
 * where it can't, and halving boxes finds values that show it where it does.
 */
import { Budget } from "../budget/budget";
import { compiled } from "./compiled";
import type { Formula, Operator } from "./formula";

/** From which to which value a name goes. */
export interface Range {
  readonly min: number;
  readonly max: number;
  /** Only whole numbers. */
  readonly whole?: boolean;
}
/** Values of its names that show what is wrong. */
export interface Witness {
  readonly message: "divides by zero" | "falls below zero";
  readonly at: ReadonlyMap<string, number>;
  /** What it comes to there; what is divided by where it divides by zero. */
  readonly value: number;
}
export interface Interval {
  readonly low: number;
  readonly high: number;
}
const ALL: Interval = { low: Number.NEGATIVE_INFINITY, high: Number.POSITIVE_INFINITY };

/** Most boxes that are looked at for one formula. */
const MOST_BOXES = 600;
/** Steps that one formula may take where no one says how many. */
export const RANGE_STEPS = 100_000;

/**
 * @param rangeOf  range of each name
 * @param sign     whether a result below zero is wrong
 * @param steps    bound on the work: a step for each part of the formula that is evaluated
 * @returns what is wrong, each with values that show it; nothing where nothing was found within bounded work
 */
export function witnesses(
  formula: Formula,
  rangeOf: (name: string) => Range,
  sign: boolean,
  steps = RANGE_STEPS,
): Witness[] {
  const budget = new Budget(steps);
  const names = [...namesOf(formula)];
  const ranges = names.map(rangeOf);
  const found: Witness[] = [];
  const slot = (name: string) => names.indexOf(name);
  for (const divisor of divisorsOf(formula)) {
    // Where what stands around it is never reached, it never divides.
    const value = compiled(divisor.by, slot);
    const at = search(divisor.by, value, names, ranges, "zero", divisor.guards, budget);
    if (at) found.push({ message: "divides by zero", at: named(names, at), value: value(at) });
  }
  if (sign) {
    const value = compiled(formula, slot);
    const at = search(formula, value, names, ranges, "below", [], budget);
    if (at) found.push({ message: "falls below zero", at: named(names, at), value: value(at) });
  }
  return found;
}
const named = (names: readonly string[], at: readonly number[]): Map<string, number> =>
  new Map(names.map((name, k) => [name, at[k]]));

export function namesOf(formula: Formula, into = new Set<string>()): Set<string> {
  if (formula.is === "name") into.add(formula.name);
  else if (formula.is === "negate" || formula.is === "not") namesOf(formula.of, into);
  else if (formula.is === "call") for (const part of formula.with) namesOf(part, into);
  else if (formula.is === "operation") for (const part of [formula.left, formula.right]) namesOf(part, into);
  return into;
}

const partsOf = (of: Formula): number => {
  if (of.is === "negate" || of.is === "not") return 1 + partsOf(of.of);
  if (of.is === "call") return of.with.reduce((sum, part) => sum + partsOf(part), 1);
  return of.is === "operation" ? 1 + partsOf(of.left) + partsOf(of.right) : 1;
};

interface Divisor {
  readonly by: Formula;
  /** What must hold for it to be evaluated at all. */
  readonly guards: readonly Formula[];
}
function divisorsOf(formula: Formula, guards: readonly Formula[] = []): Divisor[] {
  const of = (part: Formula, more: readonly Formula[] = []) => divisorsOf(part, [...guards, ...more]);
  switch (formula.is) {
    case "negate":
    case "not":
      return of(formula.of);
    case "call": {
      if (formula.name !== "if") return formula.with.flatMap((part) => of(part));
      const [condition, then, otherwise] = formula.with;
      return [...of(condition), ...of(then, [condition]), ...of(otherwise, [{ is: "not", of: condition }])];
    }
    case "operation": {
      const { operator, left, right } = formula;
      const inner = [
        ...of(left),
        ...of(right, operator === "and" ? [left] : operator === "or" ? [{ is: "not", of: left }] : []),
      ];
      return operator === "/" ? [...inner, { by: right, guards }] : inner;
    }
    default:
      return [];
  }
}

/** Values at which a formula is zero (or changes its sign close by), or below zero; null where none were found. */
function search(
  formula: Formula,
  value: (at: readonly number[]) => number,
  names: readonly string[],
  ranges: readonly Range[],
  goal: "zero" | "below",
  guards: readonly Formula[],
  budget: Budget,
): number[] | null {
  const size = partsOf(formula) + guards.reduce((sum, guard) => sum + partsOf(guard), 0);
  const held = guards.map((guard) => compiled(guard, (name) => names.indexOf(name)));
  const shows = (at: readonly number[]): boolean => {
    const v = value(at);
    return (goal === "zero" ? v === 0 : v < 0) && held.every((guard) => guard(at) !== 0);
  };
  const boxes: Interval[][] = [ranges.map(({ min, max }) => ({ low: min, high: max }))];
  // The widest halves first; breadth first reaches every corner of a small box soon.
  for (let looked = 0; boxes.length && looked < MOST_BOXES; looked++) {
    // An interval counts as three, and so many corners are tried twice at most.
    const corner = 2 ** Math.min(4, ranges.filter((r) => r.min !== r.max).length) + 1;
    if (budget.left < size * (3 + 2 * corner)) return null;
    budget.take(size * (3 + 2 * corner));
    const box = boxes.shift() as Interval[];
    const span = interval(formula, (name) => box[names.indexOf(name)]);
    if (goal === "zero" ? span.low > 0 || span.high < 0 : span.low >= 0) continue;
    const tried = corners(box, ranges);
    const direct = tried.find(shows);
    if (direct) return direct;
    if (goal === "zero") {
      const [low, high] = [tried.find((at) => value(at) < 0), tried.find((at) => value(at) > 0)];
      if (budget.left < size * 60) return null;
      if (low && high) budget.take(size * 60);
      const root = low && high ? crossing(value, low, high, ranges) : null;
      if (root && held.every((guard) => guard(root) !== 0)) return root;
    }
    let widest = -1;
    for (let k = 0; k < box.length; k++) {
      const width = box[k].high - box[k].low;
      const splits = width > (ranges[k].whole ? 0.5 : 1e-9 * Math.max(1, Math.abs(box[k].high)));
      if (splits && (widest < 0 || width > box[widest].high - box[widest].low)) widest = k;
    }
    if (widest < 0) continue;
    const { low, high } = box[widest];
    const middle = (low + high) / 2;
    const [left, right] = ranges[widest].whole ? [Math.floor(middle), Math.floor(middle) + 1] : [middle, middle];
    if (left >= low) boxes.push(box.map((each, k) => (k === widest ? { low, high: left } : each)));
    if (right <= high) boxes.push(box.map((each, k) => (k === widest ? { low: right, high } : each)));
  }
  return null;
}

/** The middle and the corners of a box, of at most so many sides. */
function corners(box: readonly Interval[], ranges: readonly Range[]): number[][] {
  const rounded = (v: number, k: number) => (ranges[k].whole ? Math.round(v) : v);
  const middle = box.map(({ low, high }, k) => rounded((low + high) / 2, k));
  const sides = box.flatMap(({ low, high }, k) => (low === high ? [] : [k])).slice(0, 4);
  const all: number[][] = [middle];
  for (let mask = 0; mask < 1 << sides.length; mask++)
    all.push(
      box.map(({ low, high }, k) => {
        const side = sides.indexOf(k);
        return side < 0 ? middle[k] : (mask >> side) & 1 ? high : low;
      }),
    );
  return all;
}

/** Where a formula is zero between values below and above; null where only whole numbers stand between. */
function crossing(
  value: (at: readonly number[]) => number,
  below: readonly number[],
  above: readonly number[],
  ranges: readonly Range[],
): number[] | null {
  if (below.some((v, k) => ranges[k].whole && v !== above[k])) return null;
  let [a, b] = [[...below], [...above]];
  for (let n = 0; n < 60; n++) {
    const middle = a.map((v, k) => (v + b[k]) / 2);
    const v = value(middle);
    if (v === 0) return middle;
    if (!Number.isFinite(v)) return null;
    if (v < 0) a = middle;
    else b = middle;
  }
  // A jump is no zero.
  const v = value(a);
  return Math.abs(v) < 1e-9 * Math.max(1, Math.abs(value([...below]))) ? a : null;
}

const span = (...values: readonly number[]): Interval => {
  const clean = values.map((v) => (Number.isNaN(v) ? 0 : v));
  return { low: Math.min(...clean), high: Math.max(...clean) };
};
const TRUTH: Interval = { low: 0, high: 1 };

/** Between which values a formula stands while its names stand between theirs; never too narrow. */
export function interval(formula: Formula, of: (name: string) => Interval): Interval {
  const inner = (part: Formula) => interval(part, of);
  switch (formula.is) {
    case "number":
      return span(formula.value);
    case "name":
      return of(formula.name);
    case "negate": {
      const { low, high } = inner(formula.of);
      return span(-high, -low);
    }
    case "not": {
      const of = inner(formula.of);
      return decided(zero(of), nonzero(of));
    }
    case "call": {
      const parts = formula.with.map(inner);
      const [a, b, c] = parts;
      switch (formula.name) {
        case "min":
          return { low: Math.min(...parts.map((p) => p.low)), high: Math.min(...parts.map((p) => p.high)) };
        case "max":
          return { low: Math.max(...parts.map((p) => p.low)), high: Math.max(...parts.map((p) => p.high)) };
        case "if":
          return { low: Math.min(b.low, c.low), high: Math.max(b.high, c.high) };
        case "abs":
          return a.low <= 0 && a.high >= 0
            ? { low: 0, high: Math.max(-a.low, a.high) }
            : span(Math.abs(a.low), Math.abs(a.high));
        case "floor":
          return { low: Math.floor(a.low), high: Math.floor(a.high) };
        case "ceil":
          return { low: Math.ceil(a.low), high: Math.ceil(a.high) };
        case "clamp":
          return {
            low: Math.min(Math.max(a.low, b.low), c.low),
            high: Math.min(Math.max(a.high, b.high), c.high),
          };
        default: {
          // Rounding moves by half a step at most.
          const step = b ? Math.max(Math.abs(b.low), Math.abs(b.high)) : 1;
          return { low: a.low - step / 2, high: a.high + step / 2 };
        }
      }
    }
    case "operation": {
      const [a, b] = [inner(formula.left), inner(formula.right)];
      switch (formula.operator) {
        case "+":
          return { low: a.low + b.low, high: a.high + b.high };
        case "-":
          return { low: a.low - b.high, high: a.high - b.low };
        case "*":
          return span(a.low * b.low, a.low * b.high, a.high * b.low, a.high * b.high);
        case "/":
          return b.low <= 0 && b.high >= 0 ? ALL : span(a.low / b.low, a.low / b.high, a.high / b.low, a.high / b.high);
        default:
          return truth(formula.operator, a, b);
      }
    }
  }
}

/** Whether a comparison, "and" or "or" surely holds, surely doesn't, or may do either. */
function truth(operator: Operator, a: Interval, b: Interval): Interval {
  const apart = below(a.high, b.low) || below(b.high, a.low);
  const same = a.low === a.high && b.low === b.high && a.low === b.low;
  switch (operator) {
    case "<":
      return decided(below(a.high, b.low), a.low >= b.high);
    case "<=":
      return decided(a.high <= b.low, below(b.high, a.low));
    case ">":
      return decided(below(b.high, a.low), a.high <= b.low);
    case ">=":
      return decided(a.low >= b.high, below(a.high, b.low));
    case "=":
      return decided(same, apart);
    case "!=":
      return decided(apart, same);
    case "and":
      return decided(nonzero(a) && nonzero(b), zero(a) || zero(b));
    default:
      return decided(nonzero(a) || nonzero(b), zero(a) && zero(b));
  }
}
/** Below by more than formulas take for equal. */
const below = (a: number, b: number): boolean => b - a > 1e-9 * Math.max(Math.abs(a), Math.abs(b));
const nonzero = ({ low, high }: Interval): boolean => low > 0 || high < 0;
const zero = ({ low, high }: Interval): boolean => low === 0 && high === 0;
const decided = (holds: boolean, fails: boolean): Interval =>
  holds ? { low: 1, high: 1 } : fails ? { low: 0, high: 0 } : TRUTH;
