/** Exact fractions on big integers, for every place where a comparison with zero decides. */

export interface Fraction {
  /** Numerator, carries the sign. */
  readonly n: bigint;
  /** Denominator, always positive; the fraction is in lowest terms. */
  readonly d: bigint;
}

const gcd = (a: bigint, b: bigint): bigint => {
  let x = a < 0n ? -a : a;
  let y = b;
  while (y) [x, y] = [y, x % y];
  return x;
};

/** The fraction n/d in lowest terms. @throws RangeError when d is 0. */
export function fraction(n: bigint, d: bigint = 1n): Fraction {
  if (d === 0n) throw new RangeError("A fraction needs a denominator other than 0.");
  if (d < 0n) return fraction(-n, -d);
  if (d === 1n) return { n, d };
  const g = gcd(n, d);
  return g === 1n ? { n, d } : { n: n / g, d: d / g };
}

export const ZERO: Fraction = { n: 0n, d: 1n };
export const ONE: Fraction = { n: 1n, d: 1n };

/**
 * The decimal that was typed: 0.1 becomes 1/10, not the nearest binary number.
 * Relies on the shortest decimal that reads back as the same number.
 * @throws RangeError for NaN and infinities
 */
export function fromNumber(value: number): Fraction {
  if (!Number.isFinite(value)) throw new RangeError(`${value} is not a finite number.`);
  if (Number.isSafeInteger(value)) return { n: BigInt(value), d: 1n };
  const [mantissa, exponent = "0"] = String(value).split("e");
  const [whole, part = ""] = mantissa.split(".");
  const scale = Number(exponent) - part.length;
  const digits = BigInt(whole + part);
  return scale >= 0 ? fraction(digits * 10n ** BigInt(scale)) : fraction(digits, 10n ** BigInt(-scale));
}

export const add = (a: Fraction, b: Fraction): Fraction =>
  a.n === 0n ? b : b.n === 0n ? a : fraction(a.n * b.d + b.n * a.d, a.d * b.d);
export const negate = (a: Fraction): Fraction => ({ n: -a.n, d: a.d });
export const subtract = (a: Fraction, b: Fraction): Fraction => add(a, negate(b));
export const multiply = (a: Fraction, b: Fraction): Fraction =>
  a.n === 0n || b.n === 0n ? ZERO : fraction(a.n * b.n, a.d * b.d);
/** @throws RangeError when b is 0 */
export const divide = (a: Fraction, b: Fraction): Fraction => fraction(a.n * b.d, a.d * b.n);
/** −1, 0 or 1. */
export const sign = (a: Fraction): -1 | 0 | 1 => (a.n > 0n ? 1 : a.n < 0n ? -1 : 0);
export const compare = (a: Fraction, b: Fraction): -1 | 0 | 1 => sign(subtract(a, b));

/** The nearest number. Large terms are scaled down first so that neither overflows. */
export function toNumber(a: Fraction): number {
  const [n, d] = [Number(a.n), Number(a.d)];
  if (Number.isFinite(n) && Number.isFinite(d)) return n / d;
  const excess = Math.max(a.n.toString(2).length, a.d.toString(2).length) - 1000;
  const delta = BigInt(excess);
  return Number(a.n >> delta) / Number(a.d >> delta);
}

/** A chance in percent and back, exactly as typed: 0.07% is 0.0007. */
export const toPercent = (chance: number): number => toNumber(multiply(fromNumber(chance), HUNDRED));
export const fromPercent = (percent: number): number => toNumber(divide(fromNumber(percent), HUNDRED));
const HUNDRED: Fraction = { n: 100n, d: 1n };

/** "3", "1/3" or "−2/5": exact, for evidence and tests. */
export const show = (a: Fraction): string => (a.d === 1n ? String(a.n) : `${a.n}/${a.d}`);

/** About how many steps in floats a step with such a fraction takes: products of long numbers take longer. */
export function effort({ n, d }: Fraction): number {
  const words = (n.toString(16).length + d.toString(16).length) / 16;
  return 1_000 * words + 50 * words * words;
}

/** The smallest whole numbers in the same proportion. An all-zero list stays as it is. */
export function wholeMultiples(list: readonly Fraction[]): bigint[] {
  const common = list.reduce((lcm, f) => (lcm / gcd(lcm, f.d)) * f.d, 1n);
  const whole = list.map((f) => f.n * (common / f.d));
  const shared = whole.reduce((g, n) => gcd(g, n < 0n ? -n : n), 0n);
  return shared > 1n ? whole.map((n) => n / shared) : whole;
}
