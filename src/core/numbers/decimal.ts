/** Decimals as people type them, read exactly or not at all. */
import { compare, type Fraction, fraction, fromNumber } from "./fraction";

const DECIMAL = /^(\d+)(?:\.(\d+))?(?:e([+-]?\d{1,3}))?$/i;
/** Longer ones say more than a number can hold. */
const LONGEST = 40;

/** A number as people type it, for patterns: 2, 1.5, 1,5, .5, 1e3. */
export const TYPED = "(?:\\d+(?:[.,]\\d+)?|[.,]\\d+)(?:e[+-]?\\d+)?";
/** "1,500" may be meant for 1500 or for 1.5. */
const EITHER = /^[1-9]\d{0,2}(?:,\d{3})+$/;

/** What a number as it was typed says, written the one way: "1,5" and ".5" are 1.5 and 0.5. null where it may say two things. */
export function untyped(text: string): string | null {
  if (EITHER.test(text)) return null;
  return text.replace(",", ".").replace(/^\./, "0.");
}

/** The decimal that a text says, exactly; null where it says none, or one of more than 40 characters. */
export function decimal(text: string): Fraction | null {
  const match = text.length <= LONGEST ? DECIMAL.exec(text) : null;
  if (!match) return null;
  const [, whole, part = "", exponent = "0"] = match;
  const scale = Number(exponent) - part.length;
  const digits = BigInt(whole + part);
  return scale >= 0 ? fraction(digits * 10n ** BigInt(scale)) : fraction(digits, 10n ** BigInt(-scale));
}

/** The number that a text says; null where it says none, or one that a number can't hold to its last digit. */
export function exactNumber(text: string): number | null {
  const value = Number(text);
  const typed = Number.isFinite(value) ? decimal(text) : null;
  return typed && compare(typed, fromNumber(value)) === 0 ? value : null;
}
