/**
 * A line that can't be read, read again part by part for what may be meant. Where nothing else can be meant it is read so,
 * and that is told; else it is refused with the texts that would be read.
 */
import { shown } from "../schema/characters";
import { issue } from "../schema/issue";
import { meantBy } from "../schema/meant";
import { quote } from "./book";
import { lex, narrow, type Span } from "./lexer";
import type { LineIssue, ParsedLine, Words } from "./parsed";

/** Longer lines, and lines with more parts, are not read again. */
const LONGEST = 2000;
const MOST_PARTS = 40;
/** How often a line is read to see which texts would do. */
const MOST_READ = 24;

/** What may stand in place of a part of a line. */
interface Offer {
  readonly span: Span;
  readonly message: string;
  readonly texts: readonly string[];
  readonly sure: boolean;
}

/** What people join with, and what it may be meant for, likeliest first. */
const JOINED: readonly (readonly [sign: RegExp, joints: readonly string[]])[] = [
  [/\s*\+\s*/g, [" + "]],
  [/\s+with\s+/i, [" + ", " using "]],
  [/\s*@\s*/, [" at "]],
];

export function reread(
  text: string,
  words: Words,
  before: ParsedLine,
  read: (text: string, words: Words) => ParsedLine,
): ParsedLine | null {
  if (text.length > LONGEST) return null;
  const errors = before.issues.filter((i) => i.severity === "error");
  const all = before.kind === "pattern" ? [] : partsOf(text, words);
  const parts = all.filter((part) => errors.some((e) => touches(e, part)));
  if (!parts.length || parts.length > MOST_PARTS) return null;
  let left = MOST_READ;
  const plain = narrow(text);
  const known = (typed: string): boolean => words.items.find(typed).found === "one";
  /** Whether nothing is wrong with what would stand there instead. */
  const fixes = (span: Span, by: string): boolean => {
    if (left-- <= 0 || by === text.slice(span.from, span.to)) return false;
    const { issues } = read(replaced(text, [{ span, text: by }]), words);
    const there = { from: span.from, to: span.from + by.length };
    return !issues.some((i) => i.severity === "error" && touches(i, there));
  };
  const arrow = lex(text).tokens.find((t) => t.kind === "arrow")?.from ?? 0;
  const offers = parts.flatMap((part): Offer[] => {
    // "in 1 minute and 30 seconds" is one part, though "and" stands in it.
    const previous = all[all.indexOf(part) - 1];
    const merged = previous && previous.to > arrow ? { from: previous.from, to: part.to } : part;
    for (const span of [part, merged]) {
      const typed = plain.slice(span.from, span.to);
      const meant = meantBy(typed, { ...words, known });
      if (!meant?.known) continue;
      const message = `${shown(text.slice(span.from, span.to))} looks like “${meant.name}” with ${meant.beside}.`;
      // What stands at the end of a line does not stand behind an ingredient.
      if (meant.clauses.length && span.to < arrow) {
        const line = `${replaced(text, [{ span, text: meant.entry }])} ${meant.clauses.join(" ")}`;
        return [{ span: { from: 0, to: text.length }, message, texts: [line], sure: false }];
      }
      const texts = meant.offers.filter((each) => fixes(span, each));
      return texts.length ? [{ span, message, texts, sure: meant.sure }] : [];
    }
    const typed = plain.slice(part.from, part.to);
    const joined = JOINED.flatMap(([sign, joints]) => {
      const texts = joints.map((joint) => typed.replace(sign, joint));
      return texts.filter((each) => each !== typed);
    });
    const lines = joined.map((each) => ({
      each,
      line: left-- > 0 ? read(replaced(text, [{ span: part, text: each }]), words) : null,
    }));
    const fit = lines.filter(({ line }) => line?.ok);
    const sure = joined.length === 1 && fit.every(({ line }) => line?.entries.every((e) => e.item ?? e.any));
    const message = `${shown(text.slice(part.from, part.to))} can't be read.`;
    return fit.length ? [{ span: part, message, texts: fit.map(({ each }) => each), sure }] : [];
  });
  if (!offers.length) return null;
  // One that says the whole line again stands alone.
  const whole = offers.find(({ span }) => span.to - span.from === text.length);
  if (whole && offers.length > 1) offers.splice(0, offers.length, whole);
  const sure = offers.filter((o) => o.sure).map(({ span, texts }): Change => ({ span, text: texts[0] }));
  const base = sure.length ? told(text, read(replaced(text, sure), words), sure) : before;
  if (base.ok) return base;
  // What may be meant takes the place of what is wrong with the same part.
  const asked = offers.filter((o) => !o.sure);
  const issues = base.issues.filter((i) => i.severity !== "error" || !asked.some((o) => touches(i, o.span)));
  return { ...base, issues: [...issues, ...asked.map(refused(text))].sort((a, b) => a.from - b.from) };
}

const refused =
  (text: string) =>
  ({ span: { from, to }, message, texts }: Offer): LineIssue => {
    const typed = text.slice(from, to);
    // What may be a new name can be quoted to be one.
    const name = /^[^"{}|[\]:]+$/.test(typed) ? [quote(typed)] : [];
    return {
      ...issue(`column ${from + 1}`, `${message} Enter ${texts[0]}.`, {
        severity: "error",
        suggestions: [...texts, ...name],
      }),
      from,
      to,
    };
  };
const touches = (a: Span, b: Span): boolean => a.from <= b.to && a.to >= b.from;

/** The parts between arrows and pluses; none where a line has draws or variants, which say more than an entry does. */
function partsOf(text: string, words: Words): Span[] {
  const { tokens, open } = lex(text, words.numbers);
  if (open || tokens.some((t) => ["open", "close", "bar", "quoted"].includes(t.kind))) return [];
  const parts: Span[] = [];
  let from = -1;
  let to = -1;
  const end = () => {
    if (from >= 0) parts.push({ from, to });
    from = -1;
  };
  for (const token of tokens) {
    if (token.kind === "arrow" || token.kind === "plus") end();
    else {
      if (from < 0) from = token.from;
      to = token.to;
    }
  }
  end();
  return parts;
}

type Change = { readonly span: Span; readonly text: string };
const replaced = (text: string, changes: readonly Change[]): string =>
  [...changes]
    .sort((a, b) => b.span.from - a.span.from)
    .reduce((line, { span, text: by }) => `${line.slice(0, span.from)}${by}${line.slice(span.to)}`, text);

/** The line as it was read, its places as they are in what was typed, and notes of what was read otherwise. */
function told(text: string, again: ParsedLine, changes: readonly Change[]): ParsedLine {
  const inOrder = [...changes].sort((a, b) => a.span.from - b.span.from);
  /** Where a place of the new line stands in the old one; within what was put there, its beginning or its end. */
  const placeOf = (at: number, ends: boolean): number => {
    let moved = 0;
    for (const { span, text: by } of inOrder) {
      const from = span.from + moved;
      if (at < from) break;
      if (at <= from + by.length) return ends ? span.to : span.from;
      moved += by.length - (span.to - span.from);
    }
    return at - moved;
  };
  const back = <S extends Span>(of: S): S => ({ ...of, from: placeOf(of.from, false), to: placeOf(of.to, true) });
  const notes = inOrder.map(({ span, text: by }): LineIssue => {
    const message = `${shown(text.slice(span.from, span.to))} is read as ${by}.`;
    return { ...issue(`column ${span.from + 1}`, message, { severity: "note" }), ...span };
  });
  return {
    ...again,
    entries: again.entries.map((e) => ({ ...e, span: back(e.span) })),
    variants: again.variants,
    issues: [...again.issues.map(back), ...notes].sort((a, b) => a.from - b.from),
  };
}
