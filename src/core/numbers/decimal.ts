/** Decimals as people type them, read exactly or not at all. */
import { compare, type Fraction, fraction, fromNumber } from "./fraction";

/** How someone writes numbers: which sign stands before their decimals. The other one, and spaces, part thousands. */
export type NumberFormat = "point" | "comma";

/** Which sign stands before decimals. */
const SIGN: { readonly [F in NumberFormat]: string } = { point: ".", comma: "," };
const DECIMAL = /^(\d+)(?:\.(\d+))?(?:e([+-]?\d{1,3}))?$/i;
/** Longer ones say more than a number can hold. */
const LONGEST = 40;

/** Signs that part thousands and nothing else. */
const APART = "'’ \u00a0\u2009\u202f";
/** A number as people type it, for patterns: 2, 1.5, 1,5, .5, 1e3, 1,000, 1.000,5, 1'000. No spaces within. */
export const TYPED = "(?:\\d{1,3}(?:[.,'’]\\d{3})+(?:[.,]\\d+)?(?![\\d.,])|\\d+(?:[.,]\\d+)?|[.,]\\d+)(?:e[+-]?\\d+)?";
const PARTED = new RegExp(`^(\\d{1,3}(?:([.,${APART}])\\d{3}(?:\\2\\d{3})*))(?:([.,])(\\d+))?$`);
const PLAIN = /^(\d*)(?:([.,])(\d+))?$/;

/** What a number may say where it can be read in two ways: as a whole number with its thousands apart, and with decimals. */
export interface TwoReadings {
  readonly whole: string;
  readonly decimal: string;
}

/**
 * What a number as it was typed says, written the one way: "1,5" and ".5" are 1.5 and 0.5, "1.234,5" is 1234.5.
 * @param format  how whoever typed it writes numbers; undefined: no one said. Then "1,500" may be 1500 or 1.5, and
 *                "1.500" is 1.5, as in files
 * @param strict  whether the other sign must not stand before decimals, although nothing else can be meant
 * @returns null where it is no number
 */
export function untyped(text: string, format?: NumberFormat, strict = false): string | TwoReadings | null {
  const [, body, exponent = ""] = /^(.*?)(e[+-]?\d+)?$/is.exec(text) as RegExpExecArray;
  const [, whole, sign, decimals] = PLAIN.exec(body) ?? [];
  if (whole === undefined || (whole === "" && !sign))
    return parted(body, exponent, strict ? SIGN[format ?? "point"] : null);
  if (!sign) return `${whole}${exponent}`;
  const asDecimal = `${whole || "0"}.${decimals}${exponent}`;
  // Three digits behind the sign, and one to three before it: thousands look the same.
  if (exponent || decimals.length !== 3 || !/^[1-9]\d{0,2}$/.test(whole))
    return strict && sign !== SIGN[format ?? "point"] ? null : asDecimal;
  const asWhole = `${whole}${decimals}`;
  if (format === undefined) return sign === "." ? asDecimal : { whole: asWhole, decimal: shortest(asDecimal) };
  return (sign === ".") === (format === "point") ? asDecimal : asWhole;
}

/** "1.125" and "1.500": three digits behind a point, which may be thousands to who writes a comma before decimals. */
const THREE_BEHIND = /^[1-9]\d{0,2}\.\d{3}$/;

/**
 * The same in a line, which is written with a point for decimals whoever reads it: to who writes a comma, "1.500" may be
 * 1500 or 1.5, and "1.125" is 1.125 as lines have it.
 */
export function inLine(text: string, format?: NumberFormat): string | TwoReadings | null {
  if (format !== "comma" || !THREE_BEHIND.test(text)) return untyped(text, format);
  return text.endsWith("0") ? { whole: text.replace(".", ""), decimal: shortest(text) } : text;
}
/** Whether a number in a line says the same in another way than lines have it, or may be doubted: then it is told. */
export const isDoubtful = (typed: string, read: string, format?: NumberFormat): boolean =>
  typed !== shortest(read) || (format === "comma" && THREE_BEHIND.test(typed));

/** "1 234 567.8": groups of three, all parted by the same sign, which is not the one before decimals. */
function parted(body: string, exponent: string, own: string | null): string | null {
  const [, grouped, apart, sign, decimals] = PARTED.exec(body) ?? [];
  if (grouped === undefined || apart === sign || grouped.startsWith("0")) return null;
  if (own && (apart === own || (sign && sign !== own))) return null;
  return `${grouped.replace(/\D/g, "")}${decimals === undefined ? "" : `.${decimals}`}${exponent}`;
}

/** Without zeros at its end: "1.500" is 1.5. */
export const shortest = (text: string): string => text.replace(/(\.\d*?)0+$/, "$1").replace(/\.$/, "");

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

/** A number as whoever writes numbers so types it: what is read back as the same. */
export const written = (value: number, format?: NumberFormat): string =>
  format === "comma" ? String(value).replace(".", ",") : String(value);
