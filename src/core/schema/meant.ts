/**
 * What a text may mean that stands where a name is expected and is none: a name that is known, with an amount, a chance,
 * a time, a level or a price beside it as people write them. It is never taken so in silence: it is offered.
 */
import { exactNumber, type NumberFormat, untyped } from "../numbers/decimal";
import { tidy } from "../numbers/tidy";
import { formatTicks, parseTicks } from "../numbers/ticks";

export interface Around {
  /** Whether the text is the name of one record. */
  readonly known: (text: string) => boolean;
  readonly ticksPerSecond: number;
  readonly numbers?: NumberFormat;
  /** Whether an amount stands before the text already. */
  readonly counted?: boolean;
  /** What may stand with a name where it is offered: all that a recipe line says, an amount, or nothing. */
  readonly offer?: "line" | "amount" | "name";
}

/** What stands beside a name. */
interface Rewriting {
  readonly label?: string;
  readonly amount?: string;
  readonly chance?: string;
  readonly clauses?: readonly string[];
}
export interface Meant {
  /** The name that was found in it; it may be new. */
  readonly name: string;
  readonly known: boolean;
  /** What is said beside it, in a word: "an amount". */
  readonly beside: string;
  /** Texts that say what may be meant, likeliest first. */
  readonly offers: readonly string[];
  /** The likeliest, with what stands at the end of a line apart: "in 90s". */
  readonly entry: string;
  readonly clauses: readonly string[];
  /** Nothing else can be meant. */
  readonly sure: boolean;
}

/** Words of a text that are looked at: longer ones are no slip of someone who writes an entry. */
const MOST_WORDS = 12;

const COUNTS: ReadonlyMap<string, string> = new Map([
  ["a", "1"],
  ["an", "1"],
  ["one", "1"],
  ["two", "2"],
  ["three", "3"],
  ["four", "4"],
  ["five", "5"],
  ["six", "6"],
  ["seven", "7"],
  ["eight", "8"],
  ["nine", "9"],
  ["ten", "10"],
  ["twelve", "12"],
  ["dozen", "12"],
  ["half", "0.5"],
]);
/** Those of them that stand behind a name more often than they count it. */
const BEFORE_ONLY: ReadonlySet<string> = new Set(["a", "an", "one", "half"]);
/** Words beside an amount that say nothing more. */
const FILLER =
  /^(?:of|x|×|\*|pcs?\.?|pieces?|units?|times?|each|the|some|about|approx\.?|around|circa|ca\.?|roughly|qty|quantity|amount|count|no\.?|nos?\.?|[~≈()[\]#+&:=,;@-]|kg|g|mg|l|ml)$/i;
const TIME_WORD = /^(?:for|in|after|takes?|taking|time|duration|during|within|every|per)$/i;
const CHANCE_WORD = /^(?:chance|chances|prob|probability|p|odds|with|at|rate|likely|likelihood)$/i;
const LEVEL_WORD = /^(?:from|at|needs?|requires?|req\.?|min\.?|minimum)$/i;
const PRICE_WORD = /^(?:cost|costs|costing|price|priced|fee|for|pay|pays)$/i;
const TIME_UNIT = /^(?:s|secs?|seconds?|m|mins?|minutes?|h|hrs?|hours?|t|ticks?)\.?$/i;

/** Parts of a text: words, with signs that are glued to a number or to a name taken off. */
function partsOf(text: string): string[] {
  return text
    .replace(/(\d)([¼-¾⅐-⅞])/g, "$1 $2")
    .normalize("NFKC")
    .replace(/[−‐‑‒–—]/g, "-")
    .replace(/(\d)\s*\u2044\s*(\d)/g, "$1/$2")
    .replace(/(\d+) (\d+)\/([1-9]\d*)/g, (_, whole, over, under) => String(tidy(Number(whole) + over / under)))
    .replace(/(^|\s)(\d{1,3}(?: \d{3})+)(?=\s|$)/g, (groups) => ` ${groups.replace(/ /g, "")}`)
    .replace(/([()[\]:=@*×~≈$€£#&;,]|\+)(?!\d{3}(?:\D|$))/g, (sign, _, at: number, all: string) =>
      // A sign within a number belongs to it.
      /[.,:]/.test(sign) && /\d/.test(all[at - 1] ?? "") && /\d/.test(all[at + 1] ?? "") ? sign : ` ${sign} `,
    )
    .replace(/(^|\s)(\d[\d.,]*)x(?=\s|\p{L})/giu, "$1$2 x ")
    .replace(/(^|\s)x(\d)/gi, "$1 x $2")
    .replace(/(^|\s)-\s*(?=\d)/g, "$1-")
    .replace(/(\d)\s*(%|percent\b|per cent\b)/gi, "$1%")
    .replace(/([\p{L}\d%])\.(?=\s|$)/gu, "$1")
    .trim()
    .split(/\s+/)
    .filter(Boolean);
}

/** What a name and what stands beside it may mean; null where it is nothing of that sort. */
export function meantBy(text: string, around: Around): Meant | null {
  const apart = text.replace(/(\d)(?=\p{L}{3})/gu, "$1 ").replace(/(\p{L}{3})(?=\d)/gu, "$1 ");
  const found = meantAs(text, around);
  if (found?.known || apart === text) return found;
  // "3Rope" and "Rope3" may also be names of their own.
  const glued = meantAs(apart, around);
  return glued?.known ? { ...glued, sure: false } : found;
}

function meantAs(text: string, around: Around): Meant | null {
  const parts = partsOf(text);
  if (parts.length < 2 || parts.length > MOST_WORDS) return null;
  // The longest known name first; else the longest new one that has no digit in it.
  for (const known of [true, false]) {
    for (let length = parts.length - 1; length > 0; length--)
      for (let from = 0; from + length <= parts.length; from++) {
        const words = parts.slice(from, from + length);
        const name = words.join(" ");
        if (known !== around.known(name)) continue;
        if (!known && !words.every((w) => /^\p{L}[\p{L}'’-]*$/u.test(w) && !isSaying(w))) continue;
        const said = beside(parts.slice(0, from), parts.slice(from + length), around);
        if (!said.length) continue;
        const fit = said.filter((s) => !(around.counted && s.amount)).map((s) => compose(name, fitted(s, around)));
        const offers = fit.length ? [...new Set(fit)] : [name];
        const others = [...parts.slice(0, from), ...parts.slice(from + length)];
        const sure = known && said.length === 1 && fit.length === 1 && isSure(others, parts.slice(from + length));
        const [{ clauses = [], ...first }] = said;
        return { name, known, beside: sayBeside(said[0]), offers, entry: compose(name, first), clauses, sure };
      }
  }
  return null;
}

/**
 * Whether words beside a name say for sure what they do: not where they say it of another unit, only about, below zero or
 * in money, or where they are a bare number behind the name, which may be part of a new one.
 */
const isSure = (words: readonly string[], behind: readonly string[]): boolean =>
  !words.some((w) => /^[-~≈$€£#]|^(?:kg|mg|g|ml|l|about|approx|around|circa|ca|roughly|some|min)$/i.test(w)) &&
  !(behind.length > 0 && behind.every((w) => /^[\d.,/]+$|^[()[\]]$/.test(w)));

/** A word that says something of an amount, so that it is no part of a new name at its edge. */
const isSaying = (word: string): boolean =>
  COUNTS.has(word.toLowerCase()) ||
  [FILLER, TIME_WORD, CHANCE_WORD, LEVEL_WORD, PRICE_WORD, TIME_UNIT].some((of) => of.test(word)) ||
  /^(?:lvl|lv|level|lvls)\.?$/i.test(word);

/** Whether two say the same thing of a name: one of them is something else then. */
function clash(a: Rewriting, b: Rewriting): boolean {
  const word = (clause: string) => clause.slice(0, clause.indexOf(" "));
  const words = new Set((a.clauses ?? []).map(word));
  return Boolean((a.amount && b.amount) || (a.chance && b.chance)) || (b.clauses ?? []).some((c) => words.has(word(c)));
}

function compose(name: string, { label, amount, chance, clauses = [] }: Rewriting): string {
  const entry = [amount, name, chance, ...clauses].filter(Boolean).join(" ");
  return label ? `${label}: ${entry}` : entry;
}
const fitted = (said: Rewriting, { offer = "line" }: Around): Rewriting =>
  offer === "line" ? said : offer === "amount" && said.amount ? { amount: said.amount } : {};
const sayBeside = ({ chance, clauses }: Rewriting): string =>
  clauses?.length
    ? clauses[0].startsWith("level")
      ? "a level"
      : clauses[0].startsWith("fee")
        ? "a price"
        : "a time"
    : chance
      ? "a chance"
      : "an amount";

/** All that what stands before and behind a name may say together; none where a word of it says nothing. */
function beside(before: readonly string[], behind: readonly string[], around: Around): Rewriting[] {
  const colon = before.indexOf(":");
  const label = colon > 0 ? before.slice(0, colon).join(" ") : undefined;
  const fore = readings(colon > 0 ? before.slice(colon + 1) : before, around, true);
  const aft = readings(behind, around, false);
  const all: Rewriting[] = [];
  for (const b of fore)
    for (const a of aft) {
      if (clash(a, b)) continue;
      const said = { ...b, ...a, label, clauses: [...(b.clauses ?? []), ...(a.clauses ?? [])] };
      all.push(said);
    }
  return all;
}

/**
 * What words beside a name may say: one reading for most, several where it is doubtful.
 * @param ends  what was found of the last so many words already: each end of them is read once
 */
function readings(
  words: readonly string[],
  around: Around,
  before: boolean,
  ends = new Map<number, readonly Rewriting[]>(),
): readonly Rewriting[] {
  const known = ends.get(words.length);
  if (known) return known;
  const one = saying(words, around, before);
  const found = one.length || before ? one : inParts(words, around, ends);
  ends.set(words.length, found);
  return found;
}

/** What words say as one thing; none where they say several, one after the other. */
function saying(words: readonly string[], around: Around, before: boolean): readonly Rewriting[] {
  if (!words.length) return [{}];
  const wordy = (of: RegExp) => words.some((w) => of.test(w));
  const isNumeric = (w: string) =>
    /\d/.test(w) || (COUNTS.has(w.toLowerCase()) && (before || !BEFORE_ONLY.has(w.toLowerCase())));
  const numeric = words.filter(isNumeric);
  const others = words.filter((w) => !isNumeric(w));
  if (numeric.length === 0) return others.every((w) => FILLER.test(w)) ? [{}] : [];
  // Times may be made of several numbers: "1 min 30 s".
  const time = timeOf(words, around);
  const numbers = numeric.filter((w) => numeric.length === 1 || !/^an?$/i.test(w));
  const [one] = numbers;
  if (numbers.length > 1) return time ? [time] : [];
  const level = /^(?:lvl|lv|level|l)\.?(\d{1,4})$/i.exec(one)?.[1];
  if (level && !before)
    return others.every((w) => FILLER.test(w) || LEVEL_WORD.test(w)) ? [{ clauses: [`level ${level}`] }] : [];
  if (wordy(/^(?:lvl|lv|level)\.?$/i))
    return /^\d{1,4}$/.test(one) &&
      others.every((w) => FILLER.test(w) || LEVEL_WORD.test(w) || /^(?:lvl|lv|level)\.?$/i.test(w))
      ? [{ clauses: [`level ${Number(one)}`] }]
      : [];
  const percent = /^[-+]?([\d.,]+)%$/.exec(one)?.[1];
  if (percent !== undefined) {
    const share = numberOf(percent, around);
    const said = others.every((w) => FILLER.test(w) || CHANCE_WORD.test(w) || /^(?:a|an)$/i.test(w));
    return share !== null && said ? [{ chance: `${share}%` }] : [];
  }
  if (time) return [time];
  const value = COUNTS.get(one.toLowerCase()) ?? amountOf(one, around);
  if (value === null) return [];
  const share = Number(value) > 0 && Number(value) < 1 ? [{ chance: `${tidy(Number(value) * 100)}%` }] : [];
  if (wordy(CHANCE_WORD) && !wordy(/^with|at$/i))
    return others.every((w) => FILLER.test(w) || CHANCE_WORD.test(w))
      ? share.length
        ? share
        : Number(value) <= 100
          ? [{ chance: `${value}%` }]
          : []
      : [];
  if (words.slice(0, words.indexOf(one)).some((w) => PRICE_WORD.test(w)) || wordy(/^[$€£]$/)) {
    const rest = others.filter((w) => !FILLER.test(w) && !PRICE_WORD.test(w) && !/^[$€£]$/.test(w));
    if (before && !wordy(PRICE_WORD)) return rest.length ? [] : [{ amount: value }];
    return rest.length > 2 ? [] : [{ clauses: [`fee ${[value, ...rest].join(" ")}`] }];
  }
  if (!others.every((w) => FILLER.test(w) || CHANCE_WORD.test(w))) return [];
  // "a Rope" says no more than "Rope".
  if (before && /^an?$/i.test(one)) return [{ amount: value }, {}];
  // A share is an amount before a name; behind it, it is a chance more often.
  return before ? [{ amount: value }] : [...share, { amount: value }];
}

/** Several sayings one after the other: "30% in 90s level 5". */
function inParts(
  words: readonly string[],
  around: Around,
  ends: Map<number, readonly Rewriting[]>,
): readonly Rewriting[] {
  // A bare number says how many only where nothing else stands there; a share may be a chance.
  const found = new Map<string, Rewriting>();
  const plain = (said: readonly Rewriting[]): boolean => said.length === 1 && said[0].amount !== undefined;
  for (let at = words.length - 1; at > 0; at--) {
    const first = saying(words.slice(0, at), around, false);
    const rest = first.length && !plain(first) ? readings(words.slice(at), around, false, ends) : [];
    if (plain(rest)) continue;
    const both = first.flatMap((a) =>
      rest.flatMap((b): Rewriting[] =>
        !Object.keys(a).length || clash(a, b)
          ? []
          : [{ ...a, ...b, clauses: [...(a.clauses ?? []), ...(b.clauses ?? [])] }],
      ),
    );
    for (const said of both) found.set(JSON.stringify([said.amount, said.chance, said.clauses]), said);
  }
  return [...found.values()];
}

/** "for 90s", "( 1 min 30 s )", "1:30"; a bare number only behind a word that says so. */
function timeOf(words: readonly string[], { ticksPerSecond, numbers }: Around): Rewriting | null {
  const said = words.filter((w) => !/^[()[\],;~@:=-]$/.test(w));
  const rest = said.filter((w) => !TIME_WORD.test(w)).map((w) => w.replace(/^[-~≈](?=\d)/, ""));
  const text = rest
    .join(" ")
    .replace(/\band\b/gi, " ")
    // "1 minute 30": seconds follow minutes.
    .replace(/(\dm(?:in|ins|inutes?)?|\d m(?:in|ins|inutes?)?)\s+(\d+)$/i, "$1 $2s");
  if (!rest.length || !/\d/.test(text)) return null;
  const clock = /^(\d{1,3}):([0-5]\d)$/.exec(text);
  const ticks = clock
    ? (Number(clock[1]) * 60 + Number(clock[2])) * ticksPerSecond
    : /[a-z]/i.test(text) || rest.length < said.length
      ? parseTicks(text, ticksPerSecond, numbers)
      : null;
  return ticks === null ? null : { clauses: [`in ${formatTicks(ticks, ticksPerSecond)}`] };
}

function numberOf(text: string, { numbers }: Around): string | null {
  const read = untyped(text, numbers);
  return typeof read === "string" && exactNumber(read) !== null ? String(exactNumber(read)) : null;
}
/** "5", "-3", "1/2", "1..3", "1-3". */
function amountOf(text: string, around: Around): string | null {
  const parts = /^(\d+)\/([1-9]\d*)$/.exec(text);
  if (parts) return String(tidy(Number(parts[1]) / Number(parts[2])));
  const range = /^([\d.,]*\d)(?:\.\.\.?|…|-)([\d.,]*\d)$/.exec(text);
  if (range) {
    const [low, high] = [numberOf(range[1], around), numberOf(range[2], around)];
    return low !== null && high !== null ? `${low}..${high}` : null;
  }
  return numberOf(text.replace(/^[-+]|[.,;]$/g, ""), around);
}

/**
 * Whether a name that no one knows is more likely a slip, so that it must be quoted to be one: it has a digit, a sign
 * of reckoning in it, or at its edge a word that says how much, how long or how likely.
 */
export function asksFirst(name: string): boolean {
  if (/\p{N}|[%$€£~≈+=<>*×^&|\\@°]/u.test(name)) return true;
  const words = name.split(/\s+/);
  const last = words[words.length - 1];
  return words.length > 1 && (isSaying(words[0]) || (last.length > 1 && !BEFORE_ONLY.has(last) && isSaying(last)));
}

/** Whether a name may be doubted where it is new and something else that is known stands in it: it is written in quotes. */
export const mayBeDoubted = (name: string): boolean => asksFirst(name) || name.split(/\s+/).some(isSaying);
