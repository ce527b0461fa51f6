/** The clauses of the recipe line, which stand behind its outputs. Parser, formatter and drawing go through this table. */
import { exactNumber } from "../numbers/decimal";
import { formatTicks, parseTicks } from "../numbers/ticks";
import { shown } from "../schema/characters";
import type { Surroundings } from "../schema/field";
import type { Id } from "../schema/id";
import { MOST, MOST_BATCH } from "../schema/limits";
import { nearest } from "../schema/names";
import type { ClauseWord } from "./keywords";
import { isKeyword, type Token } from "./lexer";
import { readName } from "./names-in-line";
import type { ParsedLine } from "./parsed";
import type { LineReader } from "./reader";

/** What clauses say. */
export type Said = Pick<ParsedLine, "ticks" | "heat" | "batch" | "fee" | "feeCurrency" | "level" | "taughtBy">;

export interface Clause {
  /** What is said where it is given twice: "The time". */
  readonly what: string;
  /** What it says where it does not stand. */
  readonly initial: Partial<Said>;
  /** How a variant says that it has none, where its recipe has one. */
  readonly none: string | null;
  /** Reads on behind the word; null: nothing could be read, and that is remarked. */
  read(r: LineReader, word: Token): Partial<Said> | null;
  /** What stands behind its word; null: it need not stand. @param name  how a name is written */
  write(said: Said, around: Surroundings, name: (of: NonNullable<Said["taughtBy"]>) => string): string | null;
  /** The same for people: "in 90s (1800 ticks)". */
  draw(said: Said, around: Surroundings): string;
}

/** By their words, in the order in which they are written. */
export const CLAUSES: { readonly [W in ClauseWord]: Clause } = {
  in: {
    what: "The time",
    initial: { ticks: 0 },
    none: "0s",
    read(r, word) {
      const ticks = readDuration(r);
      if (ticks === 0) sayNone(r, word, "A time of 0 is no time");
      return ticks === null ? null : { ticks };
    },
    write: ({ ticks }, { ticksPerSecond }) => (ticks ? formatTicks(ticks, ticksPerSecond) : null),
    draw: ({ ticks }, { ticksPerSecond }) => `in ${formatTicks(ticks, ticksPerSecond)} (${ticks} ticks)`,
  },
  burning: {
    what: "The heat",
    initial: { heat: 0 },
    none: "0s",
    read(r, word) {
      const heat = readDuration(r);
      if (heat === 0) sayNone(r, word, "Burning for no time is no heat");
      return heat === null ? null : { heat };
    },
    write: ({ heat }, { ticksPerSecond }) => (heat ? formatTicks(heat, ticksPerSecond) : null),
    draw: ({ heat }, { ticksPerSecond }) => `burning for ${formatTicks(heat, ticksPerSecond)}`,
  },
  batch: {
    what: "The batch",
    initial: { batch: null },
    none: "1",
    read(r, word) {
      const batch = readWhole(r, 1, MOST_BATCH, "how many are made at once", "12");
      if (batch === 1 && !r.variant) {
        const span = { from: word.from, to: r.tokens[r.at - 1].to };
        r.report("note", span, "A batch of 1 is none; the line says nothing of it then.");
        return { batch: null };
      }
      return batch === null ? null : { batch };
    },
    write: ({ batch }) => (batch === null || batch === 1 ? null : String(batch)),
    draw: ({ batch }) => `up to ${batch} at once`,
  },
  fee: {
    what: "The fee",
    initial: { fee: 0, feeCurrency: null },
    none: "0",
    read(r) {
      const paid = readFee(r);
      return paid && { fee: paid.amount, feeCurrency: paid.currency };
    },
    write({ fee, feeCurrency }, around) {
      if (!fee && !feeCurrency) return null;
      return feeCurrency ? `${fee} ${around.names("currency").written(feeCurrency)}` : String(fee);
    },
    draw: ({ fee, feeCurrency }, around) =>
      `fee ${fee}${feeCurrency ? ` ${around.nameOf("currency", feeCurrency)}` : ""}`,
  },
  level: {
    what: "The level",
    initial: { level: null },
    none: "0",
    read(r) {
      const level = readWhole(r, 0, 1000, "a level", "12");
      return level === null ? null : { level };
    },
    write: ({ level }) => (level === null ? null : String(level)),
    draw: ({ level }) => `level ${level}`,
  },
  taught: {
    what: "What teaches it",
    initial: { taughtBy: null },
    none: null,
    read(r) {
      if (!r.word("by")) r.report("error", r.here(), "Expected by and the item that teaches it.", ["by"]);
      const found = readName(r, "the item that teaches it");
      return found && { taughtBy: { name: found.name, item: found.id } };
    },
    write: ({ taughtBy }, _, name) => (taughtBy ? `by ${name(taughtBy)}` : null),
    draw: ({ taughtBy }) => `taught by ${taughtBy?.name}`,
  },
};
const ALL = Object.entries(CLAUSES);
export const NOTHING_SAID = Object.assign({}, ...ALL.map(([, clause]) => clause.initial)) as Said;

/** Those that a variant says, each with its word; what it says to be none too. */
export const writtenOfVariant = (said: Partial<Said>, around: Surroundings, name: Parameters<Clause["write"]>[2]) =>
  ALL.flatMap(([word, clause]) => {
    const [first] = Object.keys(clause.initial) as (keyof Said)[];
    const value = said[first];
    if (value === undefined || value === null) return [];
    return [`${word} ${clause.write({ ...NOTHING_SAID, ...said }, around, name) ?? clause.none}`];
  });

/** A clause that says nothing; in a variant it says that there is none. */
function sayNone(r: LineReader, word: Token, what: string): void {
  if (r.variant) return;
  const span = { from: word.from, to: r.tokens[r.at - 1].to };
  r.report("note", span, `${what}; the line says nothing of it then.`);
}

/** The clauses of a line, each with its word; those that need not stand are left out. */
export const writtenClauses = (...[said, around, name]: Parameters<Clause["write"]>): string[] =>
  ALL.flatMap(([word, clause]) => {
    const text = clause.write(said, around, name);
    return text === null ? [] : [`${word} ${text}`];
  });

/** The same for people, for the drawing beside a line. */
export const drawnClauses = (said: Said, around: Surroundings): string[] =>
  ALL.flatMap(([, clause]) =>
    clause.write(said, around, (of) => of.name) === null ? [] : [clause.draw(said, around)],
  );

/** @param what  what is expected: "a level" */
function readWhole(r: LineReader, least: number, most: number, what: string, such: string): number | null {
  const token = r.peek();
  const value = Number(token?.text);
  if (token?.kind !== "number" || !Number.isInteger(value) || value < least || value > most) {
    const says = `Expected ${what}: a whole number ${least > 0 ? `from ${least} to` : "up to"} ${most}, such as ${such}.`;
    r.report("error", token ?? r.here(), says, [such]);
    if (token?.kind === "number") r.at++;
    return null;
  }
  r.at++;
  return value;
}

function readDuration(r: LineReader): number | null {
  const first = r.peek();
  let count = 0;
  let best: { count: number; ticks: number } | null = null;
  for (
    let token = first;
    token && count < 6 && (token.kind === "word" || token.kind === "number") && (count === 0 || !isKeyword(token));
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
    `Expected a time such as 90s, 1m30s or 1800t, in whole ticks (${r.words.ticksPerSecond} a second).`,
    ["90s"],
  );
  if (first && !isKeyword(first) && first.kind !== "arrow") r.at++;
  return null;
}

function readFee(r: LineReader): { amount: number; currency: Id | null } | null {
  const { from } = r.tokens[r.at - 1];
  const token = r.peek();
  if (token?.kind !== "number") {
    r.report("error", token ?? r.here(), "Expected an amount and a currency, such as fee 2 shells.", []);
    return null;
  }
  r.at++;
  const first = r.peek();
  let end = r.at;
  let typed = "";
  if (first?.kind === "quoted") {
    typed = first.text;
    end++;
  } else {
    while (r.tokens[end] && r.tokens[end].kind === "word" && !isKeyword(r.tokens[end])) end++;
    typed = end > r.at ? r.typed(r.at, end - 1) : "";
  }
  const span = end > r.at ? { from: r.tokens[r.at].from, to: r.tokens[end - 1].to } : r.here();
  r.at = end;
  const amount = exactNumber(token.text);
  if (amount === null || amount > MOST) {
    r.report("error", token, `A fee goes up to ${MOST} and has no more digits than a number holds.`, []);
    return null;
  }
  if (!typed && amount === 0 && !r.variant)
    r.report("note", { from, to: token.to }, "A fee of 0 is no fee; the line says nothing of it then.", []);
  if (!typed) return { amount, currency: null };
  const found = r.words.currencies.find(typed);
  // "2 shell" and "1 shells" for each other, but not "shellss" for either.
  const singular =
    found.found === "one" || !/[^s]s$/i.test(typed) ? found : r.words.currencies.find(typed.slice(0, -1));
  const plural = singular.found === "one" ? singular : r.words.currencies.find(`${typed}s`);
  if (plural.found === "one") return { amount, currency: plural.id };
  const names = [...r.words.currencies.names()].slice(0, 8);
  r.report(
    "error",
    span,
    `${shown(typed)} is not a currency of this pantry. There ${names.length ? `are: ${names.join(", ")}` : "are none yet"}. Without a currency a fee counts in value units.`,
    [...new Set(nearest(typed, names).concat(names))].slice(0, 3),
  );
  return null;
}
