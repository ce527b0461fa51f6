/** Goes through the tokens of one line, and keeps what was read and what is wrong. */
import { shown } from "../schema/characters";
import { issue } from "../schema/issue";
import type { ItemName } from "../clauses/clause";
import { isKeyword, lex, type Span, type Token, type TokenKind } from "./lexer";
import type { FromTable } from "./line";
import { readName } from "./names-in-line";
import type { ParsedEntry, LineIssue, Words } from "./parsed";

/** Longer lines are not read: 200 entries with the longest names take less. */
export const LONGEST_LINE = 100_000;
/** After so many issues the rest of a line gets one of its own. */
const MOST_ISSUES = 100;

const ENDS_A_SIDE: ReadonlySet<TokenKind> = new Set(["arrow", "bar"]);

export class LineReader {
  readonly tokens: readonly Token[];
  readonly issues: LineIssue[] = [];
  entries: ParsedEntry[] = [];
  tables: FromTable[] = [];
  /** What is read is a variant, which says only what differs. */
  variant = false;
  /** Those that are part of a name, which is as it was typed. */
  readonly named = new Set<Token>();
  at = 0;
  /** How many draws there were so far. */
  draws = 0;
  private errors = 0;

  constructor(
    readonly text: string,
    readonly words: Words,
  ) {
    const { tokens, open } = text.length > LONGEST_LINE ? { tokens: [], open: null } : lex(text, words.numbers);
    this.tokens = tokens;
    if (text.length > LONGEST_LINE)
      this.report(
        "error",
        { from: 0, to: text.length },
        `The line has ${text.length} characters; the maximum is ${LONGEST_LINE}. Split it into several recipes.`,
      );
    if (open) this.report("error", open, 'This quote is not closed. Add a ".');
  }

  /** Reports what stands before the next sign of order, so that nothing typed is ignored. */
  skipTo(message: string | null): void {
    const start = this.at;
    while (
      this.at < this.tokens.length &&
      !ENDS_A_SIDE.has(this.tokens[this.at].kind) &&
      !isKeyword(this.tokens[this.at])
    )
      this.at++;
    if (this.at === start || message === null) return;
    const span = { from: this.tokens[start].from, to: this.tokens[this.at - 1].to };
    this.report("error", span, `${message}, found ${shown(this.text.slice(span.from, span.to))}.`);
  }

  /** The text between two tokens, the second one included. */
  typed(from: number, to: number): string {
    return this.text.slice(this.tokens[from].from, this.tokens[to].to);
  }
  /** Takes so many tokens for a name. */
  take(count: number): void {
    for (const end = this.at + count; this.at < end; this.at++) this.named.add(this.tokens[this.at]);
  }
  /** Says of everything that was typed another way how it was read. */
  sayMeant(): void {
    for (const token of this.tokens)
      if (token.meant && !this.named.has(token))
        this.report(
          "note",
          token,
          `${shown(this.text.slice(token.from, token.to))} is read as ${MEANT[token.kind] ?? token.text}.`,
        );
  }

  word(keyword: string): boolean {
    const token = this.peek();
    if (token?.kind !== "word" || token.text.toLowerCase() !== keyword) return false;
    this.at++;
    return true;
  }

  isKeyword(token: { readonly kind: string; readonly text: string }): boolean {
    return isKeyword(token);
  }
  itemName(what: string): ItemName | null {
    const found = readName(this, what);
    return found && { name: found.name, item: found.id };
  }

  failed(): boolean {
    return this.errors > 0;
  }
  peek(): Token | undefined {
    return this.tokens[this.at];
  }
  /** The next token, or the end of the line. */
  here(): Span {
    const end = this.text.trimEnd().length;
    return this.peek() ?? { from: end, to: end };
  }

  report(
    severity: LineIssue["severity"],
    { from, to }: Span,
    message: string,
    suggestions: readonly string[] = [],
  ): void {
    if (severity === "error") this.errors++;
    if (this.issues.length > MOST_ISSUES) return;
    const last = this.issues.length === MOST_ISSUES;
    const said = last
      ? issue(columnOf(from), "There are more errors after this. Fix the earlier ones first.")
      : issue(columnOf(from), message, { severity, suggestions });
    this.issues.push({ ...said, from, to: last ? this.text.length : to });
  }
}
/** What is meant, where its text does not say it. */
const MEANT: { readonly [K in TokenKind]?: string } = { comma: "+", quoted: "a name in quotes" };
const columnOf = (from: number): string => `column ${from + 1}`;
