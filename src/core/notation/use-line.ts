/**
 * A use as one line that reads as a sentence: `Eat: restores 42 Vigour, Warm 30s, cooldown 20s, used up`. Clauses in any order,
 * effects happen in theirs. Every clause is read as meant or refused with its place and what would fit; `formatUse` writes
 * what is read back as the same.
 */
import type { Surroundings } from "../schema/field";
import type { Id } from "../schema/id";
import { quote } from "./book";
import type { LineIssue } from "./parsed";
import { form, part, type Piece, PieceReader, PieceWriter, Refused, split, trimmed, unquoted } from "./pieces";

/** What a line says of a use; null and empty where it says nothing. */
export interface UseParts {
  readonly name: string;
  readonly everywhere: boolean | null;
  readonly situations: readonly Id[];
  readonly on: string | null;
  readonly windup: number | null;
  readonly wait: number | null;
  readonly fate: string | null;
  readonly count: number | null;
  readonly leaves: Id | null;
  readonly level: number | null;
  readonly least: { readonly [stat: string]: number };
  readonly having: readonly Id[];
  readonly without: readonly Id[];
  readonly guarded: boolean | null;
  readonly told: string | null;
  readonly effects: readonly EffectParts[];
}
export interface EffectParts {
  readonly does: { readonly is: string } & { readonly [name: string]: unknown };
  readonly amount: string | null;
  readonly chance: number;
}
const NOTHING: Omit<UseParts, "name"> = {
  everywhere: null,
  situations: [],
  on: null,
  windup: null,
  wait: null,
  fate: null,
  count: null,
  leaves: null,
  level: null,
  least: {},
  having: [],
  without: [],
  guarded: null,
  told: null,
  effects: [],
};
/** Members of a use that its line says. */
export const LINE_FIELDS = Object.keys(NOTHING);

export const LONGEST_USE_LINE = 4000;
const MOST_CLAUSES = 60;
const LONGEST_CLAUSE = 700;

export interface ParsedUse {
  /** null where an error keeps it from being read. */
  readonly use: UseParts | null;
  readonly issues: readonly LineIssue[];
}

/** What the clauses of a use are read with. */
class Reader extends PieceReader {
  readonly use: { -readonly [K in keyof UseParts]: UseParts[K] } = { ...NOTHING, name: "" };
  private readonly said = new Set<string>();

  /** Reads something, or leaves the use as it was. */
  attempt(read: () => void): Refused | null {
    const [use, said, told] = [{ ...this.use }, new Set(this.said), this.issues.length];
    try {
      read();
      return null;
    } catch (thrown) {
      if (!(thrown instanceof Refused)) throw thrown;
      Object.assign(this.use, use);
      this.said.clear();
      for (const what of said) this.said.add(what);
      this.issues.length = told;
      return thrown;
    }
  }
  once(what: string, clause: Piece): void {
    if (this.said.has(what)) throw new Refused(`“${clause.text}” repeats an earlier clause. Keep one.`, clause);
    this.said.add(what);
  }
  /** @param unit  what it must come to */
  formula(at: Piece, unit?: string): string {
    return this.formulaIn("use", at, unit);
  }
}

/** What a use is written with. */
class Writer extends PieceWriter {
  formula(kept: string): string {
    return this.formulaIn("use", kept);
  }
  /** Whether a bare name would be read as another clause. */
  startsLikeAClause(condition: Id): boolean {
    const name = this.around.names("condition").text(condition);
    const others = [...CLAUSES, ...EFFECTS.filter((rule) => !rule.is.includes("apply"))];
    return /^applies /i.test(name) || others.some((rule) => rule.form.test(name));
  }
}
/** A duration within a clause: 30s, 1m30s, 2 min. */
const TIME = "\\d\\S*(?: (?:h|hours?|m|min|minutes?|s|secs?|seconds?|t|ticks?)(?= |$))?";
const bare = (kept: string | null): string | null =>
  kept === null ? "1" : /^-?\d+(\.\d+)?(e[+-]?\d+)?$/.test(kept) ? kept : null;

interface ClauseRule {
  readonly form: RegExp;
  /** @param piece  the part of the clause that a group of the form matched */
  read(r: Reader, piece: (group: number) => Piece, has: (group: number) => boolean, clause: Piece): void;
  /** null where the use says nothing of it. */
  write(use: UseParts, w: Writer): string | null;
}

/** What a line says beside effects, in the order in which it is written. */
const CLAUSES: readonly ClauseRule[] = [
  {
    form: form("on (oneself|self|one ally|all allies|one foe|all foes|a place|a location)"),
    read(r, piece, _, clause) {
      r.once("on", clause);
      const word = piece(1).text.toLowerCase();
      r.use.on = word === "self" ? "oneself" : word === "a location" ? "a place" : word;
    },
    write: ({ on }) => (on === null ? null : `on ${on === "oneself" ? "self" : on === "a place" ? "a location" : on}`),
  },
  {
    form: form("(anywhere|nowhere)"),
    read(r, piece, _, clause) {
      r.once("where", clause);
      r.use.everywhere = piece(1).text.toLowerCase() === "anywhere";
    },
    write: ({ everywhere, situations }) =>
      everywhere === null || (everywhere === false && situations.length) ? null : everywhere ? "anywhere" : "nowhere",
  },
  {
    form: form("only (.+)"),
    read(r, piece, _, clause) {
      r.once("where", clause);
      r.use.everywhere = false;
      const names = split(piece(1), "+").map(trimmed);
      r.use.situations = [...new Set(names.map((name) => r.name("situation", name)))];
    },
    write: ({ everywhere, situations }, w) =>
      situations.length
        ? `${everywhere === false ? "only" : "contexts"} ${situations.map((s) => w.name("situation", s)).join(" + ")}`
        : null,
  },
  {
    // Contexts that are listed while nothing is said of everywhere: kept as they are.
    form: form("(?:contexts|said for) (.+)"),
    read(r, piece, _, clause) {
      r.once("situations", clause);
      const names = split(piece(1), "+").map(trimmed);
      r.use.situations = [...new Set(names.map((name) => r.name("situation", name)))];
    },
    write: () => null,
  },
  {
    form: form("(?:use time|after) (\\S.*)"),
    read(r, piece, _, clause) {
      r.once("windup", clause);
      r.use.windup = r.time(piece(1));
    },
    write: ({ windup }, w) => (windup === null ? null : `use time ${w.time(windup)}`),
  },
  {
    form: form("(?:cooldown(?: of)?|ready(?: again)? in) (.+)"),
    read(r, piece, _, clause) {
      r.once("wait", clause);
      r.use.wait = r.time(piece(1));
    },
    write: ({ wait }, w) => (wait === null ? null : `cooldown ${w.time(wait)}`),
  },
  {
    form: form("(?:(\\d\\S*) )?used up"),
    read(r, piece, has, clause) {
      r.once("fate", clause);
      r.use.fate = "used up";
      if (has(1)) r.use.count = r.whole(piece(1));
    },
    write: ({ fate, count }) => (fate === "used up" ? `${count === null ? "" : `${count} `}used up` : null),
  },
  {
    form: form("(?:lasts (\\S+) uses?|loses durability|worn)"),
    read(r, piece, has, clause) {
      r.once("fate", clause);
      r.use.fate = "worn";
      if (has(1)) r.use.count = r.whole(piece(1));
    },
    write: ({ fate, count }) =>
      fate === "worn" ? (count === null ? "loses durability" : `lasts ${count} uses`) : null,
  },
  {
    form: form("kept(?: with (\\d\\S*))?"),
    read(r, piece, has, clause) {
      r.once("fate", clause);
      r.use.fate = "kept";
      if (has(1)) r.use.count = r.whole(piece(1));
    },
    write: ({ fate, count }) => (fate === "kept" ? `kept${count === null ? "" : ` with ${count}`}` : null),
  },
  {
    form: form("(?:amount|how many) (\\d\\S*)"),
    read(r, piece, _, clause) {
      r.once("count", clause);
      r.use.count = r.whole(piece(1));
    },
    write: ({ fate, count }) => (fate === null && count !== null ? `amount ${count}` : null),
  },
  {
    form: form("leaves (.+)"),
    read(r, piece, _, clause) {
      r.once("leaves", clause);
      r.use.leaves = r.name("item", piece(1));
    },
    write: ({ leaves }, w) => (leaves === null ? null : `leaves ${w.name("item", leaves)}`),
  },
  {
    form: form("needs level (\\S+)"),
    read(r, piece, _, clause) {
      r.once("level", clause);
      r.use.level = r.whole(piece(1));
    },
    write: ({ level }) => (level === null ? null : `needs level ${level}`),
  },
  {
    form: form("needs (.+?) ([-−]?\\d[\\d.,e+-]*)"),
    read(r, piece) {
      // A condition may be called so as a whole.
      const stat = r.name("stat", piece(1));
      if (Object.hasOwn(r.use.least, stat)) throw new Refused("This stat is required twice. Keep one.", piece(1));
      r.use.least = { ...r.use.least, [stat]: r.number(piece(2)) };
    },
    write: ({ least }, w) =>
      Object.entries(least)
        .map(([stat, value]) => `needs ${w.name("stat", stat as Id)} ${value}`)
        .join(", ") || null,
  },
  {
    form: form("needs (.+)"),
    read(r, piece) {
      const id = r.name("condition", piece(1));
      r.use.having = [...new Set([...r.use.having, id])];
    },
    write: ({ having }, w) => having.map((id) => `needs ${w.name("condition", id)}`).join(", ") || null,
  },
  {
    form: form("not while (.+)"),
    read(r, piece) {
      const id = r.name("condition", piece(1));
      r.use.without = [...new Set([...r.use.without, id])];
    },
    write: ({ without }, w) => without.map((id) => `not while ${w.name("condition", id)}`).join(", ") || null,
  },
  {
    form: form(
      '(?:(refused|allowed) when it would do nothing|(not in vain)|(even in vain))(?:,? (?:message|saying) ("(?:[^"\\\\]|\\\\.)*"))?',
    ),
    read(r, piece, has, clause) {
      r.once("guarded", clause);
      r.use.guarded = has(1) ? piece(1).text.toLowerCase() === "refused" : has(2);
      if (has(4)) r.use.told = unquoted(piece(4).text);
    },
    write: ({ guarded, told }) =>
      guarded === null
        ? null
        : `${guarded ? "refused" : "allowed"} when it would do nothing${told === null ? "" : ` message ${quote(told)}`}`,
  },
  {
    form: form('(?:message|saying) ("(?:[^"\\\\]|\\\\.)*")'),
    read(r, piece, _, clause) {
      r.once("told", clause);
      r.use.told = unquoted(piece(1).text);
    },
    write: ({ guarded, told }) => (guarded === null && told !== null ? `message ${quote(told)}` : null),
  },
  {
    form: form("does nothing"),
    read: () => undefined,
    write: () => null,
  },
];

interface EffectRule {
  readonly is: readonly string[];
  readonly form: RegExp;
  /** null where the words are another effect's. */
  read(
    r: Reader,
    piece: (group: number) => Piece,
    has: (group: number) => boolean,
  ): { readonly does: EffectParts["does"]; readonly amount?: string | null } | null;
  write(does: EffectParts["does"], amount: string | null, w: Writer): string;
}
const id = (does: EffectParts["does"], name: string): Id => does[name] as Id;
/** "3 Rope", or "Rope by FORMULA" where the amount is no plain number. */
const amounted = (verb: string, kind: string, word: string = kind): Omit<EffectRule, "is"> => ({
  form: form(`${verb} (?:(\\d\\S*) )?(.+?)(?: by (.+))?`),
  read(r, piece, has) {
    const amount = has(3) ? r.formula(piece(3)) : has(1) ? String(r.number(piece(1))) : null;
    return { does: { is: verb.replace(/s$/, ""), [word]: r.name(kind, piece(2)) }, amount };
  },
  write(does, amount, w) {
    const plain = bare(amount);
    const name = w.name(kind, id(does, word));
    if (amount === null) return `${verb} ${name}`;
    return plain !== null && !plain.startsWith("-")
      ? `${verb} ${plain} ${name}`
      : `${verb} ${name} by ${w.formula(amount)}`;
  },
});

/** What a use can do. The last of them is a bare name: a condition. */
const EFFECTS: readonly EffectRule[] = [
  {
    is: ["restore", "drain", "cost"],
    form: form(
      "(restores|drains|costs) (?:([-−]?\\d[\\d.,e+-]*)(%)?(?: of)? |(all) of )?(.+?)(?: by (.+?)( of the (?:maximum|most))?)?(?: (?:(at once)|after (TIME)) and)?(?: every (TIME))?(?: for (TIME))?".replaceAll(
        "TIME",
        TIME,
      ),
    ),
    read(r, piece, has) {
      const resource = r.name("resource", piece(5));
      const unit = r.unitOf("resource", resource);
      const share = has(3) || has(4) || has(7);
      if ((has(2) || has(4)) && has(6)) throw new Refused("The amount appears twice. Keep one.", piece(6));
      const amount = has(6)
        ? r.formula(piece(6), share ? "" : unit)
        : has(2)
          ? String(has(3) ? Number((r.number(piece(2)) / 100).toFixed(9)) : r.number(piece(2)))
          : null;
      const is = piece(1).text.toLowerCase().slice(0, -1);
      const time = (at: number) => (has(at) ? r.time(piece(at)) : null);
      const first = has(8) ? 0 : (time(9) ?? undefined);
      const [every, lasting] = [time(10), time(11)];
      if (is === "cost") {
        if (first !== undefined || every !== null || lasting !== null)
          throw new Refused("A cost is paid once. Leave out “every” and “for”.", piece(5), [piece(5).text]);
        return { does: { is, resource, share }, amount };
      }
      if (first !== undefined && every === null && lasting === null)
        throw new Refused("Enter how often it repeats, such as at once and every 2s.", piece(has(8) ? 8 : 9), [
          `${piece(has(8) ? 8 : 9).text} and every 2s`,
        ]);
      return { does: { is, resource, share, every, ...(first === undefined ? {} : { first }), lasting }, amount };
    },
    write(does, amount, w) {
      const plain = bare(amount);
      const [name, verb] = [w.name("resource", id(does, "resource")), `${does.is}s`];
      const percent = plain === null ? null : `${Number((Number(plain) * 100).toFixed(9))}% of`;
      const readable = amount !== null && plain !== null && !/e/.test(plain);
      const what = does.share
        ? readable && Number(Number(percent?.replace("% of", "")) / 100).toFixed(9) === Number(plain).toFixed(9)
          ? `${percent} ${name}`
          : amount === null
            ? `all of ${name}`
            : `${name} by ${w.formula(amount)} of the maximum`
        : amount === null
          ? name
          : readable
            ? `${plain} ${name}`
            : `${name} by ${w.formula(amount)}`;
      const time = (word: string, ticks: unknown) =>
        ticks === null || ticks === undefined ? "" : ` ${word} ${w.time(ticks as number)}`;
      const first = does.first === 0 ? " at once" : time("after", does.first);
      const begins = first && `${first} and`;
      return `${verb} ${what}${does.is === "cost" ? "" : `${begins}${time("every", does.every)}${time("for", does.lasting)}`}`;
    },
  },
  {
    is: ["clear all"],
    form: form("clears all (good|bad|neutral|neither)(?: conditions)?"),
    read: (_, piece) => ({
      does: { is: "clear all", nature: piece(1).text.toLowerCase().replace("neutral", "neither") },
    }),
    write: (does) => `clears all ${does.nature === "neither" ? "neutral" : does.nature}`,
  },
  {
    is: ["clear"],
    form: form("clears (.+)"),
    read: (r, piece) => ({ does: { is: "clear", condition: r.name("condition", piece(1)) } }),
    write: (does, _, w) => `clears ${w.name("condition", id(does, "condition"))}`,
  },
  {
    is: ["change"],
    form: form("(raises|lowers|changes) (.+?)(?: by (.+?))?(?: (?:up|down) to ([-−]?\\d[\\d.,e+-]*))?"),
    read(r, piece, has) {
      const stat = r.name("stat", piece(2));
      const by = has(3) ? r.formula(piece(3), r.unitOf("stat", stat)) : null;
      const lowers = piece(1).text.toLowerCase() === "lowers";
      const amount =
        by === null ? (lowers ? "-1" : null) : lowers ? (bare(by) === null ? `-(${by})` : String(-Number(by))) : by;
      return { does: { is: "change", stat, limit: has(4) ? r.number(piece(4)) : null }, amount };
    },
    write(does, amount, w) {
      const plain = bare(amount);
      const lower = plain !== null && Number(plain) < 0;
      const by = amount === null ? "" : ` by ${lower ? -Number(plain) : w.formula(amount)}`;
      const limit = does.limit === null ? "" : ` ${lower ? "down" : "up"} to ${does.limit}`;
      return `${lower ? "lowers" : "raises"} ${w.name("stat", id(does, "stat"))}${by}${limit}`;
    },
  },
  {
    is: ["draw"],
    form: form("draws (?:(\\d\\S*) )?(?:from )?(.+?)(?: by (.+))?"),
    read(r, piece, has) {
      const amount = has(3) ? r.formula(piece(3)) : has(1) ? String(r.number(piece(1))) : null;
      return { does: { is: "draw", table: r.name("table", piece(2)) }, amount };
    },
    write(does, amount, w) {
      const plain = bare(amount);
      const name = w.name("table", id(does, "table"));
      return amount === null
        ? `draws from ${name}`
        : plain !== null && !plain.startsWith("-")
          ? `draws ${plain} from ${name}`
          : `draws from ${name} by ${w.formula(amount)}`;
    },
  },
  { is: ["give"], ...amounted("gives", "item") },
  { is: ["take"], ...amounted("takes", "item") },
  { is: ["pay"], ...amounted("pays", "currency") },
  { is: ["charge"], ...amounted("charges", "currency") },
  {
    is: ["teach"],
    form: form("teaches (.+)"),
    read: (r, piece) => ({ does: { is: "teach", recipe: r.name("recipe", piece(1)) } }),
    write: (does, _, w) => `teaches ${w.name("recipe", id(does, "recipe"))}`,
  },
  {
    is: ["send"],
    form: form("signals ([^(]+?)(?:\\s*\\((.*)\\))?"),
    read(r, piece, has) {
      const told: { called: string; value: string }[] = [];
      for (const word of has(2) ? split(piece(2), ";").map(trimmed) : []) {
        const [called, ...value] = split(word, ":").map(trimmed);
        if (!value.length) throw new Refused("Expected a parameter, a colon and its value.", word);
        told.push({ called: unquoted(called.text), value: unquoted(value.map((v) => v.text).join(":")) });
      }
      return { does: { is: "send", signal: r.name("signal", piece(1)), told } };
    },
    write(does, _, w) {
      const told = does.told as readonly { called: string; value: string }[];
      const plain = (text: string) => (/^[\p{L}\d][\p{L}\d .-]*(?<! )$/u.test(text) ? text : quote(text));
      const words = told.map(({ called, value }) => `${plain(called)}: ${plain(value)}`).join("; ");
      return `signals ${w.name("signal", id(does, "signal"))}${told.length ? ` (${words})` : ""}`;
    },
  },
  {
    is: ["apply"],
    form: form(
      '(?:applies )?("(?:[^"\\\\]|\\\\.)*"|.+?)(?: x(\\d+))?(?: by (.+?))?(?: (?:for )?(\\d[\\d.]*\\s?(?:h|m|s|t)\\S*))?',
    ),
    read(r, piece, has) {
      const amount = has(3) ? r.formula(piece(3)) : has(2) ? String(r.whole(piece(2))) : null;
      return {
        does: { is: "apply", condition: r.name("condition", piece(1)), ticks: has(4) ? r.time(piece(4)) : null },
        amount,
      };
    },
    write(does, amount, w) {
      const name = w.name("condition", id(does, "condition"), !w.startsLikeAClause(id(does, "condition")));
      const layers = amount === null ? "" : /^\d+$/.test(amount) ? ` x${amount}` : ` by ${w.formula(amount)}`;
      return `${name}${layers}${does.ticks === null ? "" : ` ${w.time(does.ticks as number)}`}`;
    },
  },
];
const EFFECT_OF = new Map(EFFECTS.flatMap((rule) => rule.is.map((is) => [is, rule] as const)));

/** @param make  the id of a record whose name is new; null where none is made */
export function parseUse(
  text: string,
  around: Surroundings,
  make: (name: string, kind: string) => Id | null,
): ParsedUse {
  const r = new Reader(around, make);
  const whole: Piece = { text, from: 0 };
  const fail = (message: string, at: Piece) => {
    r.tell(message, at);
    return { use: null, issues: r.issues };
  };
  if (text.length > LONGEST_USE_LINE)
    return fail(`The line has ${text.length} characters; the maximum is ${LONGEST_USE_LINE}.`, whole);
  const [head, ...rest] = split(whole, ":");
  if (!rest.length) return fail("A use begins with its name and a colon: “Eat: restores 42 Vigour, used up”.", whole);
  const named = trimmed(head);
  r.use.name = unquoted(named.text).trim();
  if (!r.use.name) r.tell("A name is missing before the colon, such as Eat or Light.", named);
  const body: Piece = { text: text.slice(head.text.length + 1), from: head.text.length + 1 };
  const clauses = split(body, ",").map(trimmed);
  if (clauses.length > MOST_CLAUSES) return fail(`A use has at most ${MOST_CLAUSES} clauses.`, body);
  for (const clause of clauses) {
    if (!clause.text && clauses.length === 1) continue;
    try {
      if (!clause.text) throw new Refused("There is nothing between these commas.", clause);
      if (clause.text.length > LONGEST_CLAUSE)
        throw new Refused(`A clause has at most ${LONGEST_CLAUSE} characters.`, clause);
      readClause(r, clause);
    } catch (thrown) {
      if (!(thrown instanceof Refused)) throw thrown;
      r.tell(thrown.message, thrown.at, thrown.suggestions);
    }
  }
  return { use: r.issues.some((i) => i.severity === "error") ? null : { ...r.use }, issues: r.issues };
}

const pieces = (of: Piece, match: RegExpExecArray) =>
  [(k: number) => part(of, match, k), (k: number) => match[k] !== undefined] as const;

/** Reads a clause as it is written; else what it means in everyday words, or as several that lack their commas. */
function readClause(r: Reader, clause: Piece): void {
  r.makes = false;
  const refused = r.attempt(() => readExactly(r, clause));
  r.makes = true;
  if (!refused) return;
  for (const text of meanings(r, clause.text)) {
    if (r.attempt(() => readExactly(r, { text, from: clause.from }))) continue;
    r.tell(`“${clause.text}” is read as “${text}”.`, clause, [], "note");
    return;
  }
  const parts = withoutCommas(clause);
  if (
    parts.length > 1 &&
    !r.attempt(() => {
      for (const each of parts) readMeant(r, each);
    })
  ) {
    r.tell(`“${clause.text}” is read as “${parts.map((each) => each.text).join(", ")}”.`, clause, [], "note");
    return;
  }
  // A name that is new may become a record, where the clause can't mean anything else.
  const anew = r.attempt(() => readExactly(r, clause));
  if (!anew) return;
  const offers = offersFor(r, clause.text);
  throw offers.length
    ? new Refused(`“${clause.text}” isn't an effect. Say what it does, such as ${offers[0]}.`, clause, offers)
    : anew;
}

function readMeant(r: Reader, clause: Piece): void {
  const refused = r.attempt(() => readExactly(r, clause));
  if (!refused) return;
  for (const text of meanings(r, clause.text))
    if (!r.attempt(() => readExactly(r, { text, from: clause.from }))) return;
  throw refused;
}

/** Everyday words for what a clause says, in the order in which they are tried. */
const EVERYDAY: readonly (readonly [RegExp, string])[] = [
  [/^(?:heals?|restore|recovers?|regains?|refills?) (.+)$/is, "restores $1"],
  [/^\+\s*(\d.*)$/s, "restores $1"],
  [/^[-−]\s*(\d.*)$/s, "drains $1"],
  [/^(?:drain|damages?|hurts?|deals) (.+)$/is, "drains $1"],
  [/^(\d\S*) damage to (.+)$/is, "drains $1 $2"],
  [/^(?:cost|spends?|uses) (.+)$/is, "costs $1"],
  [/^(?:apply|causes?|grants?) (.+)$/is, "applies $1"],
  [/^(?:clear|removes?|cures?|ends?) (.+)$/is, "clears $1"],
  [/^(?:raise|increases?|boosts?) (.+)$/is, "raises $1"],
  [/^(?:lower|decreases?|reduces?) (.+)$/is, "lowers $1"],
  [/^(?:give|adds?) (.+)$/is, "gives $1"],
  [/^(?:take) (.+)$/is, "takes $1"],
  [/^(?:teach|learns?) (.+)$/is, "teaches $1"],
  [/^(?:draw|opens?|rolls?) (.+)$/is, "draws from $1"],
  [/^(?:leave|becomes) (.+)$/is, "leaves $1"],
  [/^(?:require|requires|need) (.+)$/is, "needs $1"],
  [/^cd (.+)$/is, "cooldown $1"],
  [/^(?:cast time|takes|wind-?up) (\d.*)$/is, "use time $1"],
  [/^(?:consumed|single use|one use|uses? it up)$/is, "used up"],
  [/^(?:reusable|not used up|not consumed|stays)$/is, "kept"],
  [/^(\d\S*) (?:uses|charges)$/is, "lasts $1 uses"],
  [/^durability (\d\S*)$/is, "lasts $1 uses"],
  [/^(?:everywhere)$/is, "anywhere"],
  [/^only in (.+)$/is, "only $1"],
];

/** What a clause may mean that is not read as it stands. */
function* meanings(r: Reader, text: string): Generator<string> {
  for (const [form, by] of EVERYDAY) if (form.test(text)) yield text.replace(form, by);
  // "restores 2 * 6 Vigour": an amount that is reckoned, before the name.
  const reckoned = /^(restores?|heals?|drains?|costs?) (.+)$/is.exec(text);
  if (reckoned) {
    const words = reckoned[2].split(/\s+/);
    for (let at = 1; at < words.length; at++) {
      const name = words.slice(at).join(" ");
      if (r.around.names("resource").find(name).found !== "one") continue;
      // A mere number that is refused stays refused: it may be two.
      if (/^[-+−]?[\d.,'’ ]+%?$/.test(words.slice(0, at).join(" "))) continue;
      const verb = reckoned[1]
        .toLowerCase()
        .replace(/^heals?$/, "restores")
        .replace(/^(restore|drain|cost)$/, "$1s");
      yield `${verb} ${name} by ${words.slice(0, at).join(" ")}`;
    }
  }
}

/** Where another clause begins although no comma stands before it. */
const BEGINS =
  /\s+(?=(?:cooldown|ready in|used up|kept|lasts \d|leaves|needs|not while|only|on (?:self|oneself|one ally|all allies|one foe|all foes|a location|a place)\b|anywhere|nowhere|refused when|allowed when|restores|drains|costs|clears|applies|draws|gives|takes|pays|charges|teaches|raises|lowers|signals|use time)\b)/i;
function withoutCommas(clause: Piece): Piece[] {
  const parts: Piece[] = [];
  let from = 0;
  for (const text of clause.text.split(BEGINS)) {
    const at = clause.text.indexOf(text, from);
    parts.push({ text, from: clause.from + at });
    from = at + text.length;
  }
  return parts;
}

/** What is offered for a bare amount: "42 Vigour", "12 damage". */
function offersFor(r: Reader, text: string): string[] {
  const match = /^([+-]?\d\S*) (.+)$/s.exec(text);
  if (!match) return [];
  const [, amount, name] = match;
  const found = (kind: string) => r.around.names(kind).find(name).found === "one";
  if (found("resource")) return [`restores ${amount} ${name}`, `drains ${amount} ${name}`, `costs ${amount} ${name}`];
  if (found("stat")) return [`raises ${name} by ${amount}`, `lowers ${name} by ${amount}`];
  if (found("item")) return [`gives ${amount} ${name}`, `takes ${amount} ${name}`];
  if (found("currency")) return [`pays ${amount} ${name}`, `charges ${amount} ${name}`];
  const resources = [...r.around.names("resource").names()].slice(0, 3);
  if (/^(?:damage|harm)$/i.test(name)) return resources.map((each) => `drains ${amount} ${each}`);
  if (/^(?:healing|health|hp|points)$/i.test(name)) return resources.map((each) => `restores ${amount} ${each}`);
  return [];
}

function readExactly(r: Reader, clause: Piece): void {
  for (const { form, read } of CLAUSES) {
    const match = form.exec(clause.text);
    if (!match) continue;
    // "needs" of a stat may be the name of a condition that ends like a number.
    const [piece, has] = pieces(clause, match);
    read(r, piece, has, clause);
    return;
  }
  const chanced = /^(\d+(?:[.,]\d+)?)\s*%\s+(.+)$/ds.exec(clause.text);
  const chance = chanced ? r.number(part(clause, chanced, 1)) / 100 : 1;
  if (chanced && chance > 1) throw new Refused("A chance is at most 100%.", part(clause, chanced, 1), ["100"]);
  const of = chanced ? part(clause, chanced, 2) : clause;
  for (const { form, read } of EFFECTS) {
    const match = form.exec(of.text);
    if (!match) continue;
    const made = read(r, ...pieces(of, match));
    if (!made) continue;
    r.use.effects = [...r.use.effects, { amount: null, ...made, chance: Number(chance.toFixed(6)) }];
    return;
  }
}

/** A use as its one canonical line: effects first, then everything else that it says. */
export function formatUse(use: UseParts, around: Surroundings): string {
  const w = new Writer(around);
  const effects = use.effects.map(({ does, amount, chance }) => {
    const text = EFFECT_OF.get(does.is)?.write(does, amount, w) ?? does.is;
    return chance === 1 ? text : `${Number((chance * 100).toFixed(6))}% ${text}`;
  });
  const clauses = CLAUSES.flatMap((rule) => rule.write(use, w) ?? []);
  const said = [...effects, ...clauses].join(", ");
  const name = /[,:"()]|^\s|\s$/.test(use.name) ? quote(use.name) : use.name;
  return `${name}: ${said || "does nothing"}`;
}
