/** Units that are turned into each other where numbers are typed, by what they measure. */
import { tidy } from "./tidy";

/** How many of the first unit one of each is; ticks depend on the game's clock. */
const MEASURES: readonly { readonly [unit: string]: number }[] = [
  {
    g: 1,
    gram: 1,
    grams: 1,
    mg: 1e-3,
    kg: 1e3,
    kilo: 1e3,
    kilos: 1e3,
    kilograms: 1e3,
    t: 1e6,
    tonne: 1e6,
    tonnes: 1e6,
  },
  {
    s: 1,
    ms: 1e-3,
    ...named(1, "sec", "secs", "second", "seconds"),
    ...named(60, "m", "min", "mins", "minute", "minutes"),
    ...named(3600, "h", "hr", "hrs", "hour", "hours"),
    ...named(86_400, "d", "day", "days"),
    ...named(0, "t", "tick", "ticks"),
  },
  { m: 1, mm: 1e-3, cm: 1e-2, km: 1e3, metre: 1, metres: 1, meter: 1, meters: 1 },
  { l: 1, ml: 1e-3, cl: 1e-2, litre: 1, litres: 1, liter: 1, liters: 1 },
];
function named(size: number, ...names: readonly string[]): { readonly [unit: string]: number } {
  return Object.fromEntries(names.map((name) => [name, size]));
}
/** Words behind a number that say how many of it there are; they are offered as digits. */
const MULTIPLES = new Map([
  ["k", 1e3],
  ["thousand", 1e3],
  ["m", 1e6],
  ["mio", 1e6],
  ["million", 1e6],
  ["dozen", 12],
  ["score", 20],
  ["hundred", 100],
]);
export const multipleOf = (word: string): number | undefined => MULTIPLES.get(word.toLowerCase().replace(/\.$/, ""));

export const isPercent = (unit: string): boolean => /^(?:%|percent|per cent|pct\.?)$/i.test(unit);

/** A unit as its measure knows it: "KG" is kg, but "M" is neither metre nor minute. */
function sizeIn(measure: { readonly [unit: string]: number }, unit: string, ticksPerSecond?: number): number | null {
  const plain = unit.replace(/\.$/, "");
  const name = Object.hasOwn(measure, plain) ? plain : plain.length > 1 ? plain.toLowerCase() : "";
  if (!Object.hasOwn(measure, name)) return null;
  return measure[name] || (ticksPerSecond ? 1 / ticksPerSecond : null);
}

/** @returns the number in the other unit; null where the one can't be turned into the other */
export function converted(value: number, from: string, to: string, ticksPerSecond?: number): number | null {
  if (from.toLowerCase() === to.toLowerCase()) return value;
  for (const measure of MEASURES) {
    const [one, other] = [sizeIn(measure, from, ticksPerSecond), sizeIn(measure, to, ticksPerSecond)];
    if (one !== null && other !== null) return tidy((value * one) / other);
  }
  return null;
}

/** Units that can stand where another is expected: "kg, g, mg or t". */
export function unitsLike(unit: string): readonly string[] {
  const measure = MEASURES.find((m) => sizeIn(m, unit, 1) !== null);
  return measure
    ? [
        unit,
        ...Object.keys(measure)
          .filter((name) => name.length < 4 && name !== unit)
          .slice(0, 3),
      ]
    : [];
}
