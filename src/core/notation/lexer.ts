/** Chunks of a recipe line with their positions. A chunk is what stands between spaces; quotes hold spaces together. */

import { KEYWORDS } from "./keywords";

export type TokenKind =
  | "word"
  | "number"
  | "range"
  | "percent"
  | "arrow"
  | "plus"
  | "colon"
  | "quoted"
  | "open"
  | "close"
  | "bar";

export interface Token {
  readonly kind: TokenKind;
  /** As typed; without its quotes and escapes for a quoted name. */
  readonly text: string;
  /** Positions in the line, half open, counted in UTF-16 units. */
  readonly from: number;
  readonly to: number;
}

export interface Span {
  readonly from: number;
  readonly to: number;
}

const NUMBER = /^\d+(\.\d+)?(e[+-]?\d+)?$/i;
const RANGE = /^\d+(\.\d+)?(e[+-]?\d+)?\.\.\d+(\.\d+)?(e[+-]?\d+)?$/i;
const PERCENT = /^\d+(\.\d+)?(e[+-]?\d+)?%$/i;

const BRACKETS: ReadonlyMap<string, TokenKind> = new Map([
  ["{", "open"],
  ["}", "close"],
  ["|", "bar"],
]);

export const isKeyword = (token: Token): boolean => token.kind === "word" && KEYWORDS.has(token.text.toLowerCase());

/**
 * A quote without its end is returned as a fault beside the tokens; nothing is dropped. Linear in the length of the
 * line.
 */
export function lex(line: string): { tokens: Token[]; open: Span | null } {
  const tokens: Token[] = [];
  let open: Span | null = null;
  let inside = false;
  let at = 0;
  const push = (kind: TokenKind, text: string, from: number, to: number) => tokens.push({ kind, text, from, to });
  while (at < line.length) {
    const from = at;
    if (/\s/.test(line[at])) at++;
    else if (line[at] === '"') {
      let text = "";
      for (at++; at < line.length && line[at] !== '"'; at++)
        text += line[at] === "\\" && at + 1 < line.length ? line[++at] : line[at];
      if (at >= line.length) open = { from, to: at };
      else at++;
      push("quoted", text, from, at);
    } else if (line.startsWith("->", at) || line[at] === "→") {
      at += line[at] === "→" ? 1 : 2;
      push("arrow", "->", from, at);
    } else if (BRACKETS.has(line[at])) {
      const kind = BRACKETS.get(line[at]) as TokenKind;
      if (kind !== "bar") inside = kind === "open";
      push(kind, line[at], from, ++at);
    } else {
      let colon = false;
      while (at < line.length && !/[\s"→{}|]/.test(line[at]) && !line.startsWith("->", at)) {
        at++;
        if (line[at - 1] !== ":" || colon) continue;
        colon = true;
        // Within a draw, a weight may stand right before its entry: "5:2 Rope".
        if (inside && NUMBER.test(line.slice(from, at - 1))) break;
      }
      chunk(line.slice(from, at), from, push, tokens);
    }
  }
  return { tokens, open };
}

function chunk(
  text: string,
  from: number,
  push: (kind: TokenKind, text: string, from: number, to: number) => void,
  tokens: Token[],
): void {
  let to = from + text.length;
  const last = tokens[tokens.length - 1];
  if (text === "%" && last?.kind === "number") {
    tokens.pop();
    push("percent", `${last.text}%`, last.from, to);
    return;
  }
  let end = text.length;
  while (text[end - 1] === ":") end--;
  const colons = text.length - end;
  to -= colons;
  const head = text.slice(0, end);
  if (head === "+") push("plus", head, from, to);
  else if (NUMBER.test(head)) push("number", head, from, to);
  else if (RANGE.test(head)) push("range", head, from, to);
  else if (PERCENT.test(head)) push("percent", head, from, to);
  else if (head) push("word", head, from, to);
  for (let k = 0; k < colons; k++) push("colon", ":", to + k, to + k + 1);
}
