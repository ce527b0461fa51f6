/** Names within a line: the longest that is known, or the words up to the next sign of order. */
import { textProblem } from "../schema/characters";
import type { Id } from "../schema/id";
import { LONGEST_NAME } from "../schema/limits";
import { isKeyword, type Span } from "./lexer";
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

/** The longest run of chunks from here that is the name of an item. */
export function longestKnown(r: LineReader): { count: number; id: Id; name: string } | null {
  let typed = "";
  let best: { count: number; id: Id; name: string } | null = null;
  let signs = false;
  for (let n = 0; n < r.words.items.longest; n++) {
    const token = r.tokens[r.at + n];
    if (!token || token.kind === "arrow" || token.kind === "quoted" || token.kind === "bar" || token.kind === "close")
      break;
    typed = n === 0 ? token.text : r.text.slice(r.tokens[r.at].from, token.to);
    if (typed.length > LONGEST_TYPED) break;
    // Signs of order belong to a name only where it is written just so: "Eel 40%" is no "Eel40%".
    if (token.kind !== "word" && token.kind !== "number") signs = true;
    const found = r.words.items.find(typed);
    if (found.found === "one" && (!signs || found.name.toLowerCase() === typed.replace(/\s+/g, " ").toLowerCase()))
      best = { count: n + 1, id: found.id, name: found.name };
  }
  return best;
}

export function readName(r: LineReader, wanted: string): { name: string; id: Id | null } | null {
  const first = r.peek();
  if (first?.kind === "quoted") {
    r.at++;
    if (!first.text.trim()) {
      r.report("error", first, "Nothing between the quotes. Expected a name.", []);
      return null;
    }
    return resolveName(r, first.text.trim().replace(/\s+/g, " "), first);
  }
  const known = longestKnown(r);
  let natural = 0;
  for (let token = r.tokens[r.at]; token && (token.kind === "word" || token.kind === "number") && !isKeyword(token); )
    token = r.tokens[r.at + ++natural];
  if (known && known.count >= natural) {
    r.at += known.count;
    return known;
  }
  if (!first || natural === 0) {
    r.report("error", first ?? r.here(), `Expected ${wanted}.`, []);
    return null;
  }
  const span = { from: first.from, to: r.tokens[r.at + natural - 1].to };
  const typed = r.text.slice(span.from, span.to).replace(/\s+/g, " ");
  r.at += natural;
  if (/^any\s+#|^#/i.test(typed)) {
    r.report("error", span, "Lines name one item each: “any #tag” is not part of this notation yet.", []);
    return null;
  }
  if (/^[-+.]?\d/.test(first.text)) {
    const number = /^(\d+)x$|^x?(\d+)$/i.exec(first.text);
    const offer = number
      ? [number[1] ?? number[2]]
      : /^\d+,\d+$/.test(first.text)
        ? [first.text.replace(",", ".")]
        : [];
    r.report(
      "error",
      first,
      `“${first.text}” is no quantity. Write a number such as 2, 1.5 or 1..3, or put a name that begins so in quotes.`,
      offer,
    );
    return null;
  }
  return resolveName(r, typed, span);
}

function resolveName(r: LineReader, typed: string, span: Span): { name: string; id: Id | null } {
  const found = r.words.items.find(typed);
  if (found.found === "one") return { name: found.name, id: found.id };
  if (found.found === "several") {
    r.report(
      "error",
      span,
      `“${typed}” is the name of ${found.keys.length} items. Write the key of the one you mean: ${found.keys.join(" or ")}.`,
      found.keys,
    );
    return { name: typed, id: null };
  }
  const says = textProblem(typed, { max: LONGEST_NAME, name: true });
  if (says) {
    r.report("error", span, says, []);
    return { name: typed, id: null };
  }
  const offers = r.words.near(typed);
  if (offers.length)
    r.report(
      "warning",
      span,
      `“${typed}” is not in the pantry and becomes a stub. Did you mean ${offers.join(" or ")}?`,
      offers,
    );
  else r.report("note", span, `“${typed}” is not in the pantry yet and becomes a stub.`, []);
  return { name: typed, id: null };
}
