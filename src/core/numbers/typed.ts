/** The one reader of numbers that people type into cells, forms and tables, with the units that may stand behind them. */
import { inLine, type NumberFormat, untyped, written } from "./decimal";
import { either } from "./format";
import { fromPercent } from "./fraction";
import { converted, isPercent, multipleOf, unitsLike } from "./measures";
import { tidy } from "./tidy";

export interface Expected {
  /** How whoever typed it writes numbers; absent: no one said. */
  readonly format?: NumberFormat;
  /** What is counted in: "kg". */
  readonly unit?: string;
  /** A share, written as a percentage: "40%" and "40" are 0.4. */
  readonly percent?: boolean;
  readonly ticksPerSecond?: number;
  /** It stands in a line, which has a point for decimals whoever reads it. */
  readonly line?: boolean;
  /** The other sign must not stand before decimals, although nothing else can be meant. */
  readonly strict?: boolean;
}
/** A number, or why there is none, and texts that would be read. */
export type TypedNumber = { readonly value: number } | { readonly message: string; readonly offers: readonly string[] };

const NUMBER = /^([-+]?)[ \u00a0]*(\d[\d.,'’ \u00a0\u2009\u202f]*|[.,]\d+)(e[+-]?\d+)?([\s\S]*)$/i;
const FRACTION = /^([-+]?)(?:(\d+)[ \u00a0+]+)?(\d+)\s*[/⁄]\s*([1-9]\d*)$/;
/** Longer texts are no numbers. */
const LONGEST = 80;

/** Reads "2.5", "2,5", "1 200", "1,200", "40%", "500 g". What may say two things, or ends in an unknown unit, is refused. */
export function typedNumber(text: string, expected: Expected = {}): TypedNumber {
  const { format, unit = "", percent = false, ticksPerSecond, line = false, strict = false } = expected;
  const typed = text.trim();
  const said = `“${typed.length > LONGEST ? `${typed.slice(0, LONGEST)}…` : typed}”`;
  const refused = (why: string, values: readonly number[] = []): TypedNumber => {
    const offers = values.map((value) => `${written(tidy(value), line ? undefined : format)}${percent ? "%" : ""}`);
    return { message: `${said} ${why}${offers.length ? ` Enter ${either(offers)}.` : ""}`, offers };
  };
  const none = `isn't a number. Enter digits${unit ? `, such as ${written(2.5, format)} ${unit}` : ` with a ${format ?? "point"} for decimals, such as ${written(2.5, format)}`}.`;
  if (typed.length > LONGEST) return refused(none);
  // Full-width digits and signs are the same digits and signs; "½" becomes "1⁄2".
  const plain = typed
    .replace(/(\d)([¼-¾⅐-⅞])/g, "$1 $2")
    .normalize("NFKC")
    .replace(/[−‐‑‒–]/g, "-");
  const [, minus, whole = "0", over, under] = FRACTION.exec(plain) ?? [];
  if (under) {
    const value = (Number(whole) + Number(over) / Number(under)) * (minus === "-" ? -1 : 1);
    return refused("is a fraction.", [tidy(value)]);
  }
  const [, sign, body, exponent = "", behind] = NUMBER.exec(plain) ?? [];
  if (body === undefined) return refused(none);
  const digits = `${body.trimEnd()}${exponent}`;
  const read = line ? inLine(digits, format) : untyped(digits, format, strict);
  const signed = (digits: string): number => Number(`${sign === "-" ? "-" : ""}${digits}`);
  const rest = behind.trim();
  if (read === null || /\d/.test(rest)) return refused(none);
  if (typeof read === "object") return refused("could be two numbers.", [signed(read.whole), signed(read.decimal)]);
  const value = signed(read) + 0;
  if (!Number.isFinite(value)) return refused("is too large.");
  if (rest === "") return { value: percent ? fromPercent(value) : value };
  if (isPercent(rest)) {
    if (percent) return { value: fromPercent(value) };
    return unit === "%" ? { value } : refused("is a percentage, but a plain number is needed.", [value / 100, value]);
  }
  const other = unit ? converted(value, rest, unit, ticksPerSecond) : null;
  if (other !== null && !percent) return { value: other };
  const times = multipleOf(rest);
  const known = unit ? unitsLike(unit) : [];
  const fits = percent
    ? "a percentage is needed"
    : !unit
      ? "a number without a unit is needed"
      : known.length
        ? `use ${either(known)}`
        : `its unit is ${unit}`;
  // Without its unit an amount of something else would be another amount: only a mere number is offered as one.
  const plainly = unit ? [] : [value];
  return refused(`ends in “${rest}”; ${fits}.`, times === undefined ? plainly : [value * times]);
}

/** A number and what stands behind it, apart: "5 kg" is "5" and "kg". */
export function withoutUnit(text: string): { readonly number: string; readonly unit: string } {
  const found = /^(.*\d)\s*([^\d\s.,]{1,12})$/su.exec(text.trim());
  return found && !/^e[+-]?$/i.test(found[2])
    ? { number: found[1].trim(), unit: found[2] }
    : { number: text.trim(), unit: "" };
}
