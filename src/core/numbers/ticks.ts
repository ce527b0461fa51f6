/** Durations: the game's clock counts in ticks, people write seconds. Stored in ticks, shown as both. */

import { decimal, type NumberFormat, TYPED, untyped } from "./decimal";
import { add, type Fraction, fraction, multiply, toNumber, ZERO } from "./fraction";

const unit = (words: string) => `(?:(${TYPED})\\s*(?:${words})\\s*)?`;
const PARTS = new RegExp(`^${unit("h|hrs?|hours?")}${unit("m|mins?|minutes?")}${unit("s|secs?|seconds?")}$`, "i");
const TICKS = /^(\d+)\s*(?:t|ticks?)$/i;
const SECONDS = new RegExp(`^${TYPED}$`, "i");
const LONGEST = 80;
const MOST = 1e12;

/**
 * Reads "90s", "1m30s", "1 min 30 sec", "2h", "5400t" or a bare number of seconds. Two numbers without units are none.
 * @param format  how whoever typed it writes numbers
 * @returns whole ticks, or null when the text is no duration or not exactly a whole number of ticks
 */
export function parseTicks(text: string, ticksPerSecond: number, format?: NumberFormat): number | null {
  const t = text.trim().normalize("NFKC");
  if (t === "" || t.length > LONGEST) return null;
  const ticks = TICKS.exec(t);
  if (ticks) return whole(decimal(ticks[1]), 1);
  if (SECONDS.test(t)) return whole(number(t, format), ticksPerSecond);
  const parts = PARTS.exec(t)?.slice(1);
  if (!parts) return null;
  let sum = ZERO;
  for (const [k, part] of parts.entries()) {
    if (part === undefined) continue;
    const value = number(part, format);
    if (!value) return null;
    sum = add(sum, multiply(value, fraction([3600n, 60n, 1n][k])));
  }
  return whole(sum, ticksPerSecond);
}

function number(typed: string, format?: NumberFormat): Fraction | null {
  const text = untyped(typed, format);
  return typeof text === "string" ? decimal(text) : null;
}

function whole(value: Fraction | null, times: number): number | null {
  if (!value) return null;
  const ticks = multiply(value, fraction(BigInt(times)));
  return ticks.d === 1n && ticks.n <= BigInt(MOST) ? toNumber(ticks) : null;
}

/** The shortest text that parseTicks reads back as the same ticks: "90s" stays "1m30s", odd ticks stay "7t". */
export function formatTicks(ticks: number, ticksPerSecond: number): string {
  if (ticks === 0) return "0s";
  if (ticks % ticksPerSecond !== 0) return `${ticks}t`;
  const seconds = ticks / ticksPerSecond;
  if (seconds < 120) return `${seconds}s`;
  const h = Math.floor(seconds / 3600);
  const m = Math.floor((seconds % 3600) / 60);
  const s = seconds % 60;
  return `${h ? `${h}h` : ""}${m ? `${m}m` : ""}${s ? `${s}s` : ""}`;
}

/** The message for a text that isn't a duration. */
export const notADuration = (typed: string, ticksPerSecond: number): string =>
  `“${typed}” isn't a duration. Use 90s, 1m30s or 1800t, in whole ticks (${ticksPerSecond} per second).`;

/** Seconds of play in words a person reads at a glance: "45 s", "1 min 52 s", "3 h 5 min". */
export function saySeconds(seconds: number): string {
  if (!Number.isFinite(seconds)) return "never";
  if (seconds < 10) return `${trim(seconds, 1)} s`;
  const whole = Math.round(seconds);
  if (whole < 60) return `${whole} s`;
  if (whole < 3600) return join(Math.floor(whole / 60), "min", whole % 60, "s");
  const minutes = Math.round(whole / 60);
  return join(Math.floor(minutes / 60), "h", minutes % 60, "min");
}

const join = (a: number, unit: string, b: number, smaller: string) =>
  b ? `${a} ${unit} ${b} ${smaller}` : `${a} ${unit}`;
const trim = (value: number, digits: number) => String(Number(value.toFixed(digits)));
