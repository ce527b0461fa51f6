/** Names within a line: the longest that is known, or the words up to the next sign of order. */
import { shown, textProblem } from "../schema/characters";
import type { Id } from "../schema/id";
import { list } from "../numbers/format";
import { LONGEST_NAME } from "../schema/limits";
import { quote, SIGNS } from "./book";
import { BEHIND_ENTRIES } from "./keywords";
import { inLine } from "../numbers/decimal";
import { asksFirst, meantBy } from "../schema/meant";
import { isKeyword, type Span, type TokenKind } from "./lexer";
import type { Names } from "../schema/field";
import type { Words } from "./parsed";
import type { LineReader } from "./reader";

/** A name with a good many spaces in it. */
const LONGEST_TYPED = 400;

export function knownFrom(r: LineReader, at: number): boolean {
  const keep = r.at;
  r.at = at;
  const known = longestKnown(r);
  r.at = keep;
  return known !== null;
}

const NEVER_IN_NAMES: ReadonlySet<TokenKind> = new Set(["arrow", "quoted", "bar", "close", "opengrid", "closegrid"]);

/** The longest run of chunks from here that is the name of an item (or of another record). */
export function longestKnown(
  r: LineReader,
  names: Names = r.words.items,
): { count: number; id: Id; name: string } | null {
  let typed = "";
  let best: { count: number; id: Id; name: string } | null = null;
  let signs = false;
  for (let n = 0; n < names.longest; n++) {
    const token = r.tokens[r.at + n];
    if (!token || NEVER_IN_NAMES.has(token.kind)) break;
    typed = r.typed(r.at, r.at + n);
    if (typed.length > LONGEST_TYPED) break;
    // Signs of order belong to a name only where it is written just so: "Eel 40%" is no "Eel40%".
    if (token.kind !== "word" && token.kind !== "number") signs = true;
    const found = names.find(typed);
    if (found.found === "one" && (!signs || found.name.toLowerCase() === typed.replace(/\s+/g, " ").toLowerCase()))
      best = { count: n + 1, id: found.id, name: found.name };
  }
  return best;
}

interface Read {
  readonly name: string;
  readonly id: Id | null;
}

/** "any fish": the tag. undefined where no such thing stands here; null: that was remarked. */
export function readAny(r: LineReader): Read | null | undefined {
  const from = r.at;
  if (!r.word("any")) return undefined;
  const next = r.peek();
  const quoted = next?.kind === "quoted";
  const tag = quoted ? null : longestKnown(r, r.words.tags);
  r.at = from;
  const item = longestKnown(r);
  const anew = r.tokens[from + 1]?.kind === "word" && !isKeyword(r.tokens[from + 1]);
  if (!quoted && !tag && item) return undefined;
  if (!quoted && !tag && !anew) {
    r.at++;
    r.report("error", r.here(), "Expected the name of a tag after “any”.", []);
    return null;
  }
  if (item && tag) {
    const span = { from: r.tokens[from].from, to: r.tokens[from + Math.max(item.count, tag.count + 1) - 1].to };
    r.report(
      "error",
      span,
      `“${item.name}” is an item, and “${tag.name}” is a tag. Put the item in quotes, or enter the key of the tag.`,
      [quote(item.name), `any ${r.words.tags.keyOf(tag.id)}`],
    );
    r.at += Math.max(item.count, tag.count + 1);
    return null;
  }
  r.at++;
  if (tag) {
    r.take(tag.count);
    return tag;
  }
  return nameFrom(r, "a tag", { ...r.words, items: r.words.tags, near: (typed) => r.words.tags.near(typed) });
}

export function readName(r: LineReader, wanted: string): Read | null {
  return nameFrom(r, wanted, r.words);
}

/** @param words  whose items are what is named */
function nameFrom(r: LineReader, wanted: string, words: Words): Read | null {
  const what = words === r.words ? "a stub" : "a tag";
  const first = r.peek();
  if (first?.kind === "quoted") {
    r.at++;
    if (!first.text.trim()) {
      r.report("error", first, "The quotes are empty. Enter a name.", []);
      return null;
    }
    return resolveName(r, words, what, first.text.trim().replace(/\s+/g, " "), first);
  }
  const known = longestKnown(r, words.items);
  let natural = first && BEHIND_ENTRIES.has(first.text.toLowerCase()) ? 1 : 0;
  for (
    let token = r.tokens[r.at + natural];
    token && (token.kind === "word" || token.kind === "number") && !isKeyword(token);
  )
    token = r.tokens[r.at + ++natural];
  if (known && known.count >= natural) {
    r.take(known.count);
    return known;
  }
  if (!first || natural === 0) {
    r.report("error", first ?? r.here(), `Expected ${wanted}.`, []);
    return null;
  }
  const span = { from: first.from, to: r.tokens[r.at + natural - 1].to };
  const raw = r.typed(r.at, r.at + natural - 1);
  const typed = raw.replace(/\s+/g, " ");
  const begins = r.text.slice(first.from, first.to);
  const counted = COUNTS.has(r.tokens[r.at - 1]?.kind);
  r.take(natural);
  if (/^#/.test(typed)) {
    r.report("error", span, "Any item with a tag is written “any” and the name of the tag.", [
      `any ${typed.replace(/^#\s*/, "")}`,
    ]);
    return null;
  }
  const two = inLine(begins, words.numbers);
  if (two !== null && typeof two === "object") {
    r.report("error", first, `${shown(begins)} could be ${two.whole} or ${two.decimal}. Enter one of them.`, [
      two.whole,
      two.decimal,
    ]);
    return null;
  }
  return resolveName(r, words, what, typed, span, doubted(words, typed, counted));
}

const COUNTS: ReadonlySet<TokenKind | undefined> = new Set(["number", "range", "times"]);

/** What people join names with, what would say it here, and how. */
const JOINTS: readonly (readonly [sign: RegExp, message: string, joint: string | null])[] = [
  [/\s+or\s+/i, "For one of several items, use “any” and a tag they share, or a variant after | for each.", null],
  [/\s+(?:and|with)\s+/i, "Join them with +.", " + "],
  [/\s*@\s*/, "A station follows “at”.", " at "],
];

/**
 * Why a name that no one knows may be something else that was mistyped, with texts that say what is meant; it must be
 * quoted to be a name.
 * @param counted  an amount stands before it already
 */
function doubted(words: Words, typed: string, counted: boolean): { message: string; offers: string[] } | null {
  const quoted = quote(typed);
  const isKnown = (text: string): boolean => words.items.find(text).found === "one";
  const meant = meantBy(typed, { ...words, known: isKnown, counted });
  if (meant) {
    const { name, known, beside, offers } = meant;
    const message = known
      ? `“${typed}” isn't in the pantry, but “${name}” with ${beside} is.`
      : `“${typed}” isn't in the pantry and looks like a name with ${beside}.`;
    return { message: `${message} Enter ${offers[0]}, or put a new name in quotes.`, offers: [...offers, quoted] };
  }
  for (const [sign, message, joint] of JOINTS) {
    const parts = typed.split(sign).map((part) => part.trim());
    if (parts.length > 1 && parts.every(isKnown))
      return {
        message: `“${typed}” isn't in the pantry, but ${list(parts.map((p) => `“${p}”`))} are. ${message}`,
        offers: [...(joint ? [parts.join(joint)] : []), quoted],
      };
  }
  const sign = SIGNS.exec(typed);
  if (sign) {
    const parts = typed.split(/\s*[+;,]\s*/).filter(Boolean);
    return {
      message: `“${typed}” isn't in the pantry, and “${sign[0].trim()}” doesn't belong here. To use it in a new name, put the name in quotes.`,
      offers: [...(parts.length > 1 && /[+;,]/.test(sign[0]) ? [parts.join(" + ")] : []), quoted],
    };
  }
  return asksFirst(typed)
    ? {
        message: `“${typed}” isn't in the pantry and contains a digit, sign or unit. To use it as a new name, put it in quotes.`,
        offers: [quoted],
      }
    : null;
}

function resolveName(
  r: LineReader,
  words: Words,
  what: string,
  typed: string,
  span: Span,
  doubt: ReturnType<typeof doubted> = null,
): Read {
  const found = words.items.find(typed);
  if (found.found === "one") return { name: found.name, id: found.id };
  if (found.found === "several") {
    r.report(
      "error",
      span,
      `“${typed}” is the name of ${found.keys.length} ${what === "a tag" ? "tags" : "items"}. Enter the key of one: ${found.keys.join(" or ")}.`,
      found.keys,
    );
    return { name: typed, id: null };
  }
  const message = textProblem(typed, { max: LONGEST_NAME, name: true });
  if (message) {
    r.report("error", span, message, []);
    return { name: typed, id: null };
  }
  if (doubt) {
    r.report("error", span, doubt.message, doubt.offers);
    return { name: typed, id: null };
  }
  const offers = words.near(typed);
  if (offers.length)
    r.report("warning", span, `“${typed}” is new and becomes ${what}. Did you mean ${offers.join(" or ")}?`, offers);
  else r.report("note", span, `“${typed}” is new and becomes ${what}.`, []);
  return { name: typed, id: null };
}
