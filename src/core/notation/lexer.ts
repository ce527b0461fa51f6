/** Chunks of a recipe line with their positions. A chunk is what stands between spaces; quotes hold spaces together. */

import { inLine, isDoubtful, type NumberFormat, TYPED } from "../numbers/decimal";
import { KEYWORDS } from "./keywords";

export type TokenKind =
  | "word"
  | "number"
  | "range"
  | "percent"
  /** A quantity that says so: "5x", "x5", "5 x". */
  | "times"
  | "arrow"
  | "plus"
  | "comma"
  | "colon"
  | "quoted"
  | "open"
  | "close"
  | "bar"
  /** Around the places of a pattern. */
  | "opengrid"
  | "closegrid";

export interface Token {
  readonly kind: TokenKind;
  /** As typed, numbers and signs the one way they are written; without its quotes and escapes for a quoted name. */
  readonly text: string;
  /** It was typed another way than it is written. */
  readonly meant?: true;
  /** Positions in the line, half open, counted in UTF-16 units. */
  readonly from: number;
  readonly to: number;
}

export interface Span {
  readonly from: number;
  readonly to: number;
}

const LOOSE = new RegExp(`^${TYPED}$`, "i");
const RANGE = new RegExp(`^(${TYPED})(?:\\.\\.\\.?|…|[-‐‑‒–—])(${TYPED})$`, "i");
const TIMES = /^(?:(.*\d)[x×*]|[x×*](.*\d))$/i;
const ARROW = /[-‐‑‒–—−=~]+>|[→⇒⟶⟹➔➜]/y;
const QUOTES: ReadonlyMap<string, string> = new Map([
  ['"', '"'],
  ["“", "”"],
  ["„", "“”"],
  ["«", "»"],
]);

const BRACKETS: ReadonlyMap<string, TokenKind> = new Map([
  ["{", "open"],
  ["}", "close"],
  ["|", "bar"],
  ["[", "opengrid"],
  ["]", "closegrid"],
]);

export const isKeyword = (token: { readonly kind: string; readonly text: string }): boolean =>
  token.kind === "word" && KEYWORDS.has(token.text.toLowerCase());

/** Digits and signs of double width are the same digits and signs; each stays where it is. */
export const narrow = (line: string): string =>
  line.replace(/[\uff01-\uff20\uff3b-\uff40\uff5b-\uff5e]/g, (c) => String.fromCharCode(c.charCodeAt(0) - 0xfee0));

/**
 * A quote without its end is returned as a fault beside the tokens; nothing is dropped. Linear in the length of the
 * line.
 * @param format  how whoever typed it writes numbers
 */
export function lex(typed: string, format?: NumberFormat): { tokens: Token[]; open: Span | null } {
  const line = narrow(typed);
  const tokens: Token[] = [];
  let open: Span | null = null;
  let inside = false;
  let inGrid = false;
  let at = 0;
  const push: Push = (kind, text, from, to, meant = false) =>
    void tokens.push({ kind, text, from, to, ...(meant && { meant }) });
  const arrowAt = (place: number): number => {
    ARROW.lastIndex = place;
    return ARROW.test(line) ? ARROW.lastIndex : 0;
  };
  while (at < line.length) {
    const from = at;
    if (/\s/.test(line[at])) at++;
    else if (QUOTES.has(line[at])) {
      const ends = QUOTES.get(line[at]) as string;
      let text = "";
      for (at++; at < line.length && !ends.includes(line[at]); at++)
        text += line[at] === "\\" && at + 1 < line.length ? typed[++at] : typed[at];
      if (at >= line.length) open = { from, to: at };
      else at++;
      push("quoted", text, from, at, ends !== '"');
    } else if (arrowAt(at)) {
      at = arrowAt(at);
      push("arrow", "->", from, at, !["->", "→"].includes(line.slice(from, at)));
    } else if (BRACKETS.has(line[at])) {
      const kind = BRACKETS.get(line[at]) as TokenKind;
      if (kind === "open" || kind === "close") inside = kind === "open";
      else if (kind !== "bar") inGrid = kind === "opengrid";
      push(kind, line[at], from, ++at);
    } else if (inGrid && /[,;]/.test(line[at])) push("comma", line[at], from, ++at);
    else {
      let colon = false;
      const ends = inGrid ? /[\s"“„«{}|[\],;]/ : /[\s"“„«{}|[\]]/;
      while (at < line.length && !ends.test(line[at]) && !arrowAt(at)) {
        at++;
        if (line[at - 1] !== ":" || colon) continue;
        colon = true;
        // Within a draw, a weight may stand right before its entry: "5:2 Rope".
        if (inside && LOOSE.test(line.slice(from, at - 1))) break;
      }
      chunk(line.slice(from, at), from, push, tokens, format);
    }
  }
  return { tokens: joined(line, tokens), open };
}

type Push = (kind: TokenKind, text: string, from: number, to: number, meant?: boolean) => void;

/** One way to write a number; null where it is none, or may say two things. */
function one(typed: string, format?: NumberFormat): string | null {
  const read = inLine(typed, format);
  return typeof read === "string" ? read : null;
}

/** One way to write a number or a range; null where it is neither, or may say two things. */
function amount(
  typed: string,
  format?: NumberFormat,
): { kind: "number" | "range"; text: string; meant: boolean } | null {
  if (LOOSE.test(typed)) {
    const text = one(typed, format);
    return text === null ? null : { kind: "number", text, meant: text !== typed || isDoubtful(typed, text, format) };
  }
  const [, from, to] = RANGE.exec(typed) ?? [];
  const [low, high] = [from, to].map((end) => (end === undefined ? null : one(end, format)));
  const text = `${low}..${high}`;
  return low && high ? { kind: "range", text, meant: text !== typed } : null;
}

function chunk(text: string, from: number, push: Push, tokens: Token[], format?: NumberFormat): void {
  let end = text.length;
  while (text[end - 1] === ":") end--;
  const colons = text.length - end;
  const commas = /[,;]+$/.exec(text.slice(0, end))?.[0].length ?? 0;
  const head = text.slice(0, end - commas);
  const to = from + head.length;
  const last = tokens[tokens.length - 1];
  if (/^(%|percent)$/i.test(head) && last?.kind === "number") {
    tokens.pop();
    push("percent", `${last.text}%`, last.from, to, true);
  } else word(head, from, to, push, format);
  if (commas) push("comma", text.slice(end - commas, end), to, to + commas, true);
  for (let k = 0; k < colons; k++) push("colon", ":", to + commas + k, to + commas + k + 1);
}

function word(head: string, from: number, to: number, push: Push, format?: NumberFormat): void {
  const said = amount(head, format);
  const [, sign = "", share] = /^([-+−]?)(.*)%$/.exec(head) ?? [];
  const percent = share === undefined ? null : amount(share, format);
  const [, before, behind] = TIMES.exec(head) ?? [];
  const times = amount(before ?? behind ?? "", format);
  if (head === "+" || head === "&") push("plus", "+", from, to, head === "&");
  // "1.500" is 1.5 here, and is said to be: elsewhere it is 1500.
  else if (format !== "comma" && /^[1-9]\d{0,2}\.\d{2}0$/.test(head))
    push("number", head.replace(/\.?0+$/, ""), from, to, true);
  else if (said) push(said.kind, said.text, from, to, said.meant);
  else if (percent?.kind === "number")
    push("percent", `${sign}${percent.text}%`, from, to, `${sign}${percent.text}%` !== head);
  else if (times) push("times", times.text, from, to, true);
  else if (head) push("word", head, from, to);
}

/** Chunks that say one thing together: "5 x", "x 5", "1 - 3", and the "and" before a quantity. */
function joined(line: string, tokens: readonly Token[]): Token[] {
  const out: Token[] = [];
  const amounts = (t: Token | undefined): boolean => t?.kind === "number" || t?.kind === "range";
  const names = (t: Token | undefined): boolean => t?.kind === "quoted" || (t?.kind === "word" && !isKeyword(t));
  const single = (t: Token | undefined): t is Token =>
    t?.kind === "number" || (t?.kind === "times" && !t.text.includes(".."));
  for (let k = 0; k < tokens.length; k++) {
    const token = tokens[k];
    const next = tokens[k + 1];
    const last = out[out.length - 1];
    const is = (words: RegExp) => token.kind === "word" && words.test(token.text);
    if (is(/^[x×*]$/i) && amounts(last) && names(next))
      out.splice(-1, 1, { kind: "times", text: last.text, from: last.from, to: token.to, meant: true });
    else if (is(/^[x×*]$/i) && names(last) && amounts(next)) {
      out.push({ kind: "times", text: next.text, from: token.from, to: next.to, meant: true });
      k++;
    } else if (is(/^([-‐‑‒–—…]|\.\.\.?|to)$/i) && single(last) && single(next)) {
      out.splice(-1, 1, {
        kind: last.kind === "times" || next.kind === "times" ? "times" : "range",
        text: `${last.text}..${next.text}`,
        from: last.from,
        to: next.to,
        meant: true,
      });
      k++;
    } else if (is(/^and$/i) && last && (amounts(next) || next?.kind === "times"))
      out.push({ ...token, kind: "plus", text: "+", meant: true });
    // "x5" says how many only beside a name: alone it is one.
    else if (token.kind === "times" && !names(last) && !names(next))
      out.push({ kind: "word", text: line.slice(token.from, token.to), from: token.from, to: token.to });
    else out.push(token);
  }
  return out;
}
