/**
 * What a clause of a recipe is: its fields, its words in the recipe line, and what it adds to a run. One file for each;
 * clauses.ts lists them, and everything else follows from that list.
 */
import type { NumberFormat } from "../numbers/decimal";
import { formatTicks, parseTicks } from "../numbers/ticks";
import { shown } from "../schema/characters";
import type { Field, Fields, Names, Surroundings, ValueOf } from "../schema/field";
import type { Id } from "../schema/id";
import type { Terms } from "./terms";

interface Span {
  readonly from: number;
  readonly to: number;
}
interface Token extends Span {
  readonly kind: string;
  readonly text: string;
}
/** The reader of a line, as far as clauses ask it. */
export interface Reading {
  readonly text: string;
  readonly tokens: readonly Token[];
  at: number;
  /** What is read is a variant, which gives only what differs. */
  readonly variant: boolean;
  readonly words: {
    readonly currencies: Names;
    readonly ticksPerSecond: number;
    readonly numbers?: NumberFormat;
  };
  peek(): Token | undefined;
  /** The next token, or the end of the line. */
  here(): Span;
  /** Whether the next token is this word; then it is read. */
  word(keyword: string): boolean;
  /** Whether a token is a word of the line's own, which ends names. */
  isKeyword(token: Token): boolean;
  typed(from: number, to: number): string;
  take(count: number): void;
  report(severity: "error" | "note", span: Span, message: string, suggestions?: readonly string[]): void;
  /** Reads the name of an item, which may be new. @param what  what is expected: "the item that teaches it" */
  itemName(what: string): ItemName | null;
}

/** An item as a line names it; `item` is null where there is none of that name yet. */
export interface ItemName {
  readonly name: string;
  readonly item: Id | null;
}
export type WriteName = (of: ItemName) => string;

/** Values of a clause as a line has them: items by name. */
export type InLine<F extends Fields, I> = {
  readonly [N in keyof F]: N extends I ? ItemName | null : ValueOf<F[N]>;
};
type Values<F extends Fields> = { readonly [N in keyof F]: ValueOf<F[N]> };

export interface Clause<
  W extends string = string,
  F extends Fields = Fields,
  // What values are in a line; `any` in the list of all, where each clause is given its own.
  // biome-ignore lint/suspicious/noExplicitAny: see above
  L = any,
  // biome-ignore lint/suspicious/noExplicitAny: see above
  V = any,
> {
  /** The word that begins it. */
  readonly word: W;
  /** The word as it is expected, where more follows: "taught by". */
  readonly wording?: string;
  /** What is given where it is given twice: "The time". */
  readonly what: string;
  /** Fields of a recipe; their initial values are what holds where the line has no such clause. */
  readonly fields: F;
  /** The same fields of a variant, each null where it is as in the recipe. The first decides for all. */
  readonly ofVariant: { readonly [N in keyof F]: Field<ValueOf<F[N]> | null> };
  /** Fields that a line gives as the name of an item. */
  readonly items: readonly (keyof F & string)[];
  /** How a variant says that it has none where its recipe has one; null: it can't. */
  readonly none: string | null;
  /** Placeholders of its inputs in the form. */
  readonly placeholder: string;
  /** Reads on after the word; null: it can't be read, and that was reported. */
  read(r: Reading, word: Token): Partial<L> | null;
  /** What follows its word; null: nothing needs to be written. */
  write(values: L, around: Surroundings, name: WriteName): string | null;
  /** The same for people: "in 90s (1800 ticks)". */
  draw(values: L, around: Surroundings): string;
  /** What it adds to a run. */
  run(values: V, terms: Terms): void;
  /** Above 0: `a` is better for a player than `b`; absent: neither is. */
  better?(a: V, b: V): number;
}

/** A clause with its types: `items` are the fields that a line gives by name. */
export const clause = <const W extends string, F extends Fields, const I extends keyof F & string = never>(
  of: Omit<Clause<W, F, InLine<F, I>, Values<F>>, "items"> & { readonly items?: readonly I[] },
): Clause<W, F, InLine<F, I>, Values<F>> & { readonly items: readonly I[] } => ({ items: [], ...of });

/** Notes that a clause has no effect, except in a variant, where it says that there is none. */
export function noteNone(r: Reading, from: number, message: string): void {
  if (!r.variant) r.report("note", { from, to: r.tokens[r.at - 1].to }, message);
}

/** Reads a whole number. @param what  what is expected: "a level" */
export function readWhole(r: Reading, least: number, most: number, what: string, such: string): number | null {
  const token = r.peek();
  const value = Number(token?.text);
  if (token?.kind !== "number" || !Number.isInteger(value) || value < least || value > most) {
    const message = `Expected ${what}: a whole number ${least > 0 ? `from ${least} to` : "up to"} ${most}, such as ${such}.`;
    r.report("error", token ?? r.here(), message, [such]);
    if (token?.kind === "number") r.at++;
    return null;
  }
  r.at++;
  return value;
}

/** Reads a duration, the longest that the next words make. @returns ticks */
export function readDuration(r: Reading): number | null {
  const first = r.peek();
  let count = 0;
  let best: { count: number; ticks: number } | null = null;
  for (
    let token = first;
    token && count < 6 && (token.kind === "word" || token.kind === "number") && (count === 0 || !r.isKeyword(token));
    token = r.tokens[r.at + count]
  ) {
    count++;
    const { ticksPerSecond, numbers } = r.words;
    const ticks = parseTicks(r.text.slice((first as Token).from, token.to), ticksPerSecond, numbers);
    if (ticks !== null) best = { count, ticks };
  }
  if (best) {
    const typed = r.typed(r.at, r.at + best.count - 1);
    const span = { from: r.tokens[r.at].from, to: r.tokens[r.at + best.count - 1].to };
    if (/[a-z]{2}|,/i.test(typed))
      r.report("note", span, `${shown(typed)} is read as ${formatTicks(best.ticks, r.words.ticksPerSecond)}.`);
    r.take(best.count);
    return best.ticks;
  }
  r.report(
    "error",
    first ?? r.here(),
    `Expected a duration such as 90s, 1m30s or 1800t, in whole ticks (${r.words.ticksPerSecond} per second).`,
    ["90s"],
  );
  if (first && !r.isKeyword(first) && first.kind !== "arrow") r.at++;
  return null;
}
