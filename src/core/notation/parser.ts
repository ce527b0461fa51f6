/** Reads a recipe line. Always returns everything it could make out, with a remark for whatever it could not. */
import { type Draw, isWeight } from "./line";
import type { Id } from "../schema/id";
import type { Role } from "./roles";
import { LEAST, MOST, MOST_CHANCE, MOST_LINES, MOST_TIMES } from "../schema/limits";
import { shown, textProblem } from "../schema/characters";
import { exactNumber } from "../numbers/decimal";
import { add, compare, fromNumber, fromPercent, sign, toNumber, ZERO } from "../numbers/fraction";
import { parseTicks } from "../numbers/ticks";
import { nearest } from "../schema/names";
import type { Names, Surroundings } from "../schema/field";
import { isKeyword, lex, type Span, type Token } from "./lexer";

export interface Remark extends Span {
  /** An error keeps the line from being written; a warning and a note do not. */
  readonly level: "error" | "warning" | "note";
  readonly says: string;
  /** Names or texts that would fit in place of the span. */
  readonly offers: readonly string[];
}

export interface Entry {
  readonly role: Role;
  /** As typed, or the record's own name where it was found. */
  readonly name: string;
  /** null: not in the pantry; writing the line makes it a stub. */
  readonly item: Id | null;
  readonly min: number;
  readonly max: number;
  readonly chance: number;
  readonly uses: number | null;
  readonly draw?: Draw;
  readonly span: Span;
}

export interface ParsedLine {
  readonly kind: "craft" | "salvage";
  readonly label: string | null;
  readonly entries: readonly Entry[];
  readonly ticks: number;
  readonly fee: number;
  readonly feeCurrency: Id | null;
  readonly level: number | null;
  readonly taughtBy: { readonly name: string; readonly item: Id | null } | null;
  readonly remarks: readonly Remark[];
  /** True when no remark is an error. */
  readonly ok: boolean;
}

export interface Words {
  readonly items: Names;
  readonly currencies: Names;
  readonly ticksPerSecond: number;
  /** Names of items near one that was typed; none once they have cost as much as they are worth. */
  readonly near: (typed: string) => readonly string[];
}

/** So many names are compared with what was typed before near ones are no longer looked for. */
const PATIENCE = 300_000;

/** The words a line may use, of the records around it. */
export function words(around: Pick<Surroundings, "names" | "ticksPerSecond">): Words {
  const [items, currencies] = [around.names("item"), around.names("currency")];
  let left = PATIENCE;
  const near = (typed: string): readonly string[] => {
    if (left <= 0) return [];
    left -= items.size;
    return nearest(typed, items.names());
  };
  return { items, currencies, ticksPerSecond: around.ticksPerSecond, near };
}

/** Longer lines are not read: 200 entries with the longest names take less. */
export const LONGEST_LINE = 100_000;
/** After so many remarks the rest of a line gets one of its own. */
const MOST_REMARKS = 100;

/**
 * Never throws; a line that can't be written has a remark of level "error" with its position. What it accepts, the
 * rules accept.
 */
export const parseLine = (text: string, words: Words): ParsedLine => new Reader(text, words).line();

/** A name with a good many spaces in it. */
const LONGEST_NAME = 400;
const ENDS: ReadonlySet<Token["kind"]> = new Set(["plus", "arrow", "bar", "close"]);

class Reader {
  private readonly tokens: Token[];
  private readonly remarks: Remark[] = [];
  private readonly entries: Entry[] = [];
  private at = 0;
  private draws = 0;
  private errors = 0;

  constructor(
    private readonly text: string,
    private readonly words: Words,
  ) {
    const { tokens, open } = text.length > LONGEST_LINE ? { tokens: [], open: null } : lex(text);
    this.tokens = tokens;
    if (text.length > LONGEST_LINE)
      this.remark(
        "error",
        { from: 0, to: text.length },
        `A line of ${text.length} characters; at most ${LONGEST_LINE} are read. Split it into several recipes.`,
        [],
      );
    if (open) this.remark("error", open, 'This quote has no end. Close it with ".', []);
  }

  line(): ParsedLine {
    const label = this.label();
    const kind = this.kind();
    this.side("ingredient", kind === "salvage" ? "what is salvaged" : "an ingredient");
    if (this.peek()?.kind === "arrow") {
      this.at++;
      this.side("output", "what it makes");
    } else this.remark("error", this.here(), "Expected -> and what comes out.", ["->"]);
    const clauses = this.clauses();
    if (kind === "salvage" && !this.entries.some((e) => e.role === "ingredient") && !this.failed())
      this.remark("error", this.here(), "Salvage needs the item it takes apart.", []);
    if (this.entries.length > MOST_LINES)
      this.remark(
        "error",
        this.entries[MOST_LINES].span,
        `${this.entries.length} entries; at most ${MOST_LINES} fit in a recipe.`,
        [],
      );
    const remarks = this.remarks.sort((a, b) => a.from - b.from);
    return { kind, label, entries: this.entries, ...clauses, remarks, ok: !this.failed() };
  }

  private label(): string | null {
    const arrow = this.tokens.findIndex((t) => t.kind === "arrow");
    const colon = this.tokens.findIndex((t) => t.kind === "colon" || t.kind === "open");
    if (colon < 0 || this.tokens[colon].kind === "open" || (arrow >= 0 && colon > arrow)) return null;
    const parts = this.tokens.slice(0, colon);
    this.at = colon + 1;
    if (parts.length === 0) {
      this.remark("error", this.tokens[colon], "Expected the recipe's name before the colon.", []);
      return null;
    }
    const span = { from: parts[0].from, to: parts[parts.length - 1].to };
    const quoted = parts.length === 1 && parts[0].kind === "quoted";
    const label = quoted ? parts[0].text.trim() : this.text.slice(span.from, span.to).replace(/\s+/g, " ");
    const says = label ? textProblem(label, { max: 120, name: true }) : "A name is needed before the colon.";
    if (says) this.remark("error", span, says, []);
    // An entry before a colon is more likely a slip than a name.
    else if (!quoted && (parts[0].kind !== "word" || parts.some((t) => t.kind !== "word" && t.kind !== "number")))
      this.remark(
        "error",
        span,
        "Before the colon stands the recipe's name. If this is one, put it in quotes; if not, take the colon out.",
        [`"${label.replace(/["\\]/g, "\\$&")}"`],
      );
    return label;
  }

  private kind(): "craft" | "salvage" {
    const token = this.peek();
    const word = token?.kind === "word" ? token.text.toLowerCase() : "";
    if (word !== "salvage" && word !== "craft") return "craft";
    this.at++;
    return word;
  }

  /** Entries joined by "+", up to an arrow, a keyword or the end. */
  private side(role: Role, wanted: string): void {
    const token = this.peek();
    const after = this.tokens[this.at + 1];
    if (
      token?.kind === "word" &&
      token.text.toLowerCase() === "nothing" &&
      (!after || after.kind === "arrow" || isKeyword(after))
    ) {
      this.at++;
      return;
    }
    for (;;) {
      if (!this.drawn(role)) this.entry(role, wanted);
      if (this.peek()?.kind !== "plus") break;
      this.at++;
    }
    this.skipTo(role === "ingredient" ? "Expected + or ->" : "Expected +, at, using, in, fee, level or taught by");
  }

  /** `3 draws { 5: 2 Rope | 1: nothing }`; false where none begins here. */
  private drawn(role: Role): boolean {
    const counted = this.peek()?.kind === "number";
    const word = this.tokens[this.at + (counted ? 1 : 0)];
    if (
      word?.kind !== "word" ||
      !/^draws?$/i.test(word.text) ||
      this.tokens[this.at + (counted ? 2 : 1)]?.kind !== "open"
    )
      return false;
    const start = this.peek() as Token;
    const times = counted ? Number(start.text) : 1;
    if (!Number.isInteger(times) || times < 1 || times > MOST_TIMES)
      this.remark("error", start, "Expected how often is drawn: a whole number from 1 to 1000.", ["1"]);
    this.at += counted ? 3 : 2;
    const group = ++this.draws;
    const first = this.entries.length;
    let of = ZERO;
    let nothing = ZERO;
    for (;;) {
      const weight = this.weight();
      of = add(of, fromNumber(weight));
      const token = this.peek();
      const after = this.tokens[this.at + 1];
      if (
        token?.kind === "word" &&
        token.text.toLowerCase() === "nothing" &&
        (!after || after.kind === "bar" || after.kind === "close")
      ) {
        this.at++;
        nothing = add(nothing, fromNumber(weight));
      } else {
        const before = this.entries.length;
        this.entry(role, "what may be drawn, or nothing");
        const entry = this.entries[before];
        if (entry && entry.chance !== 1)
          this.remark("error", entry.span, "What is drawn has a weight and no chance. Change the weight.", []);
        if (entry) this.entries[before] = { ...entry, draw: { group, times, weight, of: 0 } };
      }
      if (this.peek()?.kind !== "bar") break;
      this.at++;
    }
    if (this.peek()?.kind === "close") this.at++;
    else this.remark("error", this.here(), "Expected | and the next alternative, or } to end the draw.", ["}"]);
    const span = { from: start.from, to: this.tokens[this.at - 1].to };
    if (role !== "output") this.remark("error", span, "Only what comes out can be drawn.", []);
    if (compare(nothing, fromNumber(1e6)) > 0)
      this.remark("error", span, "All weights of nothing together go up to 1000000.", []);
    if (sign(of) <= 0) this.remark("error", span, "A draw needs a weight above 0.", []);
    if (this.entries.length === first && !this.failed())
      this.remark("error", span, "A draw needs at least one thing to draw.", []);
    for (let k = first; k < this.entries.length; k++) {
      const { draw } = this.entries[k];
      if (draw) this.entries[k] = { ...this.entries[k], draw: { ...draw, of: toNumber(of) } };
    }
    return true;
  }

  private weight(): number {
    const token = this.peek();
    if (token?.kind === "number" && this.tokens[this.at + 1]?.kind === "colon") {
      this.at += 2;
      const weight = exactNumber(token.text);
      if (isWeight(weight)) return weight;
      this.remark("error", token, "A weight goes up to 1000000 and has at most six decimal places.", []);
      return 0;
    }
    this.remark("error", token ?? this.here(), "Expected a weight and a colon, such as 5:", ["1:"]);
    return 0;
  }

  private entry(role: Role, wanted: string): void {
    const start = this.peek();
    if (!start || start.kind === "plus" || ENDS.has(start.kind) || start.kind === "colon") {
      this.remark("error", this.here(), `Expected ${wanted}.`, []);
      return;
    }
    const [min, max] = this.quantity();
    const name = this.name(wanted);
    if (!name) return;
    let chance = 1;
    let uses: number | null = null;
    const next = this.peek();
    if (next?.kind === "percent") {
      this.at++;
      const percent = exactNumber(next.text.slice(0, -1));
      if (percent === null || percent > MOST_CHANCE * 100)
        this.remark(
          "error",
          next,
          `A chance goes up to 100%, such as 40%; more than ${MOST_CHANCE * 100}% or more digits than a number holds can't be written.`,
          ["100%"],
        );
      else chance = fromPercent(percent);
      if (chance > 0 && chance < LEAST) this.remark("error", next, "This chance is too small to be counted with.", []);
      if (role === "tool" || role === "station")
        this.remark("error", next, `A ${role} is there or not: it has no chance. Remove it.`, [""]);
      else if (chance > 1 || chance === 0)
        this.remark(
          "warning",
          next,
          `A chance is above 0% and at most 100%; ${next.text} will be reported by the checks.`,
          [],
        );
    }
    if (this.word("lasting")) uses = this.uses(role);
    this.entries.push({
      role,
      name: name.name,
      item: name.id,
      min,
      max,
      chance,
      uses,
      span: { from: start.from, to: this.tokens[this.at - 1].to },
    });
  }

  private quantity(): [number, number] {
    const token = this.peek();
    if (token?.kind !== "number" && token?.kind !== "range") return [1, 1];
    const after = this.tokens[this.at + 1];
    if (!after || ENDS.has(after.kind)) return [1, 1];
    const known = this.longestKnown();
    if (known && known.count > 1 && token.kind === "number" && !this.knownFrom(this.at + 1)) return [1, 1];
    this.at++;
    const [min, max = min] = (token.kind === "range" ? token.text.split("..") : [token.text]).map(exactNumber);
    if (min === null || max === null || min > MOST || max > MOST) {
      this.remark("error", token, `A quantity goes up to ${MOST} and has no more digits than a number holds.`, []);
      return [1, 1];
    }
    if ([min, max].some((n) => n > 0 && n < LEAST))
      this.remark(
        "error",
        token,
        `This is too small to be counted with. Write 0, or at least ${LEAST.toFixed(9)}.`,
        [],
      );
    if (min > max)
      this.remark("warning", token, `The range runs backwards; the checks will report it. Write ${max}..${min}.`, [
        `${max}..${min}`,
      ]);
    else if (max === 0)
      this.remark("warning", token, "A quantity of 0 does nothing; the checks will report it.", ["1"]);
    return [min, max];
  }

  private uses(role: Role): number | null {
    const token = this.peek();
    const value = Number(token?.text);
    if (token?.kind !== "number" || !Number.isInteger(value) || value < 1 || value > MOST) {
      this.remark(
        "error",
        token ?? this.here(),
        "Expected how many runs the tool lasts: a whole number, such as lasting 50.",
        ["50"],
      );
      if (token && (token.kind === "word" || token.kind === "number") && !isKeyword(token)) this.at++;
      return null;
    }
    this.at++;
    if (!this.word("uses")) this.word("runs");
    if (role === "tool") return value;
    this.remark("error", token, "Only a tool (after using) wears out.", []);
    return null;
  }

  private knownFrom(at: number): boolean {
    const keep = this.at;
    this.at = at;
    const known = this.longestKnown();
    this.at = keep;
    return known !== null;
  }

  /** The longest run of chunks from here that is the name of an item. */
  private longestKnown(): { count: number; id: Id; name: string } | null {
    let typed = "";
    let best: { count: number; id: Id; name: string } | null = null;
    let signs = false;
    for (let n = 0; n < this.words.items.longest; n++) {
      const token = this.tokens[this.at + n];
      if (!token || token.kind === "arrow" || token.kind === "quoted" || token.kind === "bar" || token.kind === "close")
        break;
      typed = n === 0 ? token.text : this.text.slice(this.tokens[this.at].from, token.to);
      if (typed.length > LONGEST_NAME) break;
      // Signs of order belong to a name only where it is written just so: "Eel 40%" is no "Eel40%".
      if (token.kind !== "word" && token.kind !== "number") signs = true;
      const found = this.words.items.find(typed);
      if (found.found === "one" && (!signs || found.name.toLowerCase() === typed.replace(/\s+/g, " ").toLowerCase()))
        best = { count: n + 1, id: found.id, name: found.name };
    }
    return best;
  }

  private name(wanted: string): { name: string; id: Id | null } | null {
    const first = this.peek();
    if (first?.kind === "quoted") {
      this.at++;
      if (!first.text.trim()) {
        this.remark("error", first, "Nothing between the quotes. Expected a name.", []);
        return null;
      }
      return this.resolve(first.text.trim().replace(/\s+/g, " "), first);
    }
    const known = this.longestKnown();
    let natural = 0;
    for (
      let token = this.tokens[this.at];
      token && (token.kind === "word" || token.kind === "number") && !isKeyword(token);
    )
      token = this.tokens[this.at + ++natural];
    if (known && known.count >= natural) {
      this.at += known.count;
      return known;
    }
    if (!first || natural === 0) {
      this.remark("error", first ?? this.here(), `Expected ${wanted}.`, []);
      return null;
    }
    const span = { from: first.from, to: this.tokens[this.at + natural - 1].to };
    const typed = this.text.slice(span.from, span.to).replace(/\s+/g, " ");
    this.at += natural;
    if (/^any\s+#|^#/i.test(typed)) {
      this.remark("error", span, "Lines name one item each: “any #tag” is not part of this notation yet.", []);
      return null;
    }
    if (/^[-+.]?\d/.test(first.text)) {
      const number = /^(\d+)x$|^x?(\d+)$/i.exec(first.text);
      const offer = number
        ? [number[1] ?? number[2]]
        : /^\d+,\d+$/.test(first.text)
          ? [first.text.replace(",", ".")]
          : [];
      this.remark(
        "error",
        first,
        `“${first.text}” is no quantity. Write a number such as 2, 1.5 or 1..3, or put a name that begins so in quotes.`,
        offer,
      );
      return null;
    }
    return this.resolve(typed, span);
  }

  private resolve(typed: string, span: Span): { name: string; id: Id | null } {
    const found = this.words.items.find(typed);
    if (found.found === "one") return { name: found.name, id: found.id };
    if (found.found === "several") {
      this.remark(
        "error",
        span,
        `“${typed}” is the name of ${found.keys.length} items. Write the key of the one you mean: ${found.keys.join(" or ")}.`,
        found.keys,
      );
      return { name: typed, id: null };
    }
    const says = textProblem(typed, { max: 120, name: true });
    if (says) {
      this.remark("error", span, says, []);
      return { name: typed, id: null };
    }
    const offers = this.words.near(typed);
    if (offers.length)
      this.remark(
        "warning",
        span,
        `“${typed}” is not in the pantry and becomes a stub. Did you mean ${offers.join(" or ")}?`,
        offers,
      );
    else this.remark("note", span, `“${typed}” is not in the pantry yet and becomes a stub.`, []);
    return { name: typed, id: null };
  }

  private clauses(): Pick<ParsedLine, "ticks" | "fee" | "feeCurrency" | "level" | "taughtBy"> {
    let level: number | null = null;
    let taughtBy: ParsedLine["taughtBy"] = null;
    let ticks: number | null = null;
    let fee: { amount: number; currency: Id | null } | null = null;
    for (let token = this.peek(); token; token = this.peek()) {
      if (this.word("at")) this.members("station");
      else if (this.word("using")) this.members("tool");
      else if (this.word("in")) {
        if (ticks !== null) this.remark("error", token, "The time is given twice. Keep one.", []);
        ticks = this.duration() ?? ticks;
        if (ticks === 0)
          this.remark(
            "note",
            { from: token.from, to: this.tokens[this.at - 1].to },
            "A time of 0 is no time; the line says nothing of it then.",
            [],
          );
      } else if (this.word("fee")) {
        if (fee) this.remark("error", token, "The fee is given twice. Keep one.", []);
        fee = this.fee() ?? fee;
      } else if (this.word("level")) {
        if (level !== null) this.remark("error", token, "The level is given twice. Keep one.", []);
        level = this.level() ?? level;
      } else if (this.word("taught")) {
        if (taughtBy) this.remark("error", token, "What teaches it is given twice. Keep one.", []);
        if (!this.word("by")) this.remark("error", this.here(), "Expected by and the item that teaches it.", ["by"]);
        const found = this.name("the item that teaches it");
        if (found) taughtBy = { name: found.name, item: found.id };
      } else if (token.kind === "arrow") {
        this.remark("error", token, "A second ->. A line has one; write a line for each recipe.", []);
        this.at++;
        this.skipTo(null);
      } else if (this.word("lasting"))
        this.remark("error", token, "Only a tool can be “lasting”: write it right behind the tool's name.", []);
      else this.skipTo("Expected at, using, in, fee, level or taught by");
    }
    return { ticks: ticks ?? 0, fee: fee?.amount ?? 0, feeCurrency: fee?.currency ?? null, level, taughtBy };
  }

  private level(): number | null {
    const token = this.peek();
    const value = Number(token?.text);
    if (token?.kind !== "number" || !Number.isInteger(value) || value > 1000) {
      this.remark("error", token ?? this.here(), "Expected a level: a whole number up to 1000, such as level 12.", [
        "12",
      ]);
      if (token?.kind === "number") this.at++;
      return null;
    }
    this.at++;
    return value;
  }

  private members(role: "tool" | "station"): void {
    for (;;) {
      this.entry(role, role === "tool" ? "a tool" : "a station");
      if (this.peek()?.kind !== "plus") return;
      this.at++;
    }
  }

  private duration(): number | null {
    const first = this.peek();
    let count = 0;
    let best: { count: number; ticks: number } | null = null;
    for (
      let token = first;
      token && count < 3 && (token.kind === "word" || token.kind === "number") && (count === 0 || !isKeyword(token));
      token = this.tokens[this.at + count]
    ) {
      count++;
      const ticks = parseTicks(this.text.slice((first as Token).from, token.to), this.words.ticksPerSecond);
      if (ticks !== null) best = { count, ticks };
    }
    if (best) {
      this.at += best.count;
      return best.ticks;
    }
    this.remark(
      "error",
      first ?? this.here(),
      `Expected a time such as 90s, 1m30s or 1800t, in whole ticks (${this.words.ticksPerSecond} a second).`,
      ["90s"],
    );
    if (first && !isKeyword(first) && first.kind !== "arrow") this.at++;
    return null;
  }

  private fee(): { amount: number; currency: Id | null } | null {
    const { from } = this.tokens[this.at - 1];
    const token = this.peek();
    if (token?.kind !== "number") {
      this.remark("error", token ?? this.here(), "Expected an amount and a currency, such as fee 2 shells.", []);
      return null;
    }
    this.at++;
    const first = this.peek();
    let end = this.at;
    let typed = "";
    if (first?.kind === "quoted") {
      typed = first.text;
      end++;
    } else {
      while (this.tokens[end] && this.tokens[end].kind === "word" && !isKeyword(this.tokens[end])) end++;
      typed = end > this.at ? this.text.slice(this.tokens[this.at].from, this.tokens[end - 1].to) : "";
    }
    const span = end > this.at ? { from: this.tokens[this.at].from, to: this.tokens[end - 1].to } : this.here();
    this.at = end;
    const amount = exactNumber(token.text);
    if (amount === null || amount > MOST) {
      this.remark("error", token, `A fee goes up to ${MOST} and has no more digits than a number holds.`, []);
      return null;
    }
    if (!typed && amount === 0)
      this.remark("note", { from, to: token.to }, "A fee of 0 is no fee; the line says nothing of it then.", []);
    if (!typed) return { amount, currency: null };
    const found = this.words.currencies.find(typed);
    // "2 shell" and "1 shells" for each other, but not "shellss" for either.
    const singular =
      found.found === "one" || !/[^s]s$/i.test(typed) ? found : this.words.currencies.find(typed.slice(0, -1));
    const plural = singular.found === "one" ? singular : this.words.currencies.find(`${typed}s`);
    if (plural.found === "one") return { amount, currency: plural.id };
    const names = [...this.words.currencies.names()].slice(0, 8);
    this.remark(
      "error",
      span,
      `${shown(typed)} is not a currency of this pantry. There ${names.length ? `are: ${names.join(", ")}` : "are none yet"}. Without a currency a fee counts in value units.`,
      [...new Set(nearest(typed, names).concat(names))].slice(0, 3),
    );
    return null;
  }

  /** Reports what stands before the next sign of order, so that nothing typed is ignored. */
  private skipTo(says: string | null): void {
    const start = this.at;
    while (this.at < this.tokens.length && this.tokens[this.at].kind !== "arrow" && !isKeyword(this.tokens[this.at]))
      this.at++;
    if (this.at === start || says === null) return;
    const span = { from: this.tokens[start].from, to: this.tokens[this.at - 1].to };
    this.remark("error", span, `${says}, found ${shown(this.text.slice(span.from, span.to))}.`, []);
  }

  private word(keyword: string): boolean {
    const token = this.peek();
    if (token?.kind !== "word" || token.text.toLowerCase() !== keyword) return false;
    this.at++;
    return true;
  }

  private failed = (): boolean => this.errors > 0;
  private peek = (): Token | undefined => this.tokens[this.at];
  private here = (): Span => this.peek() ?? { from: this.text.trimEnd().length, to: this.text.trimEnd().length };
  private remark(level: Remark["level"], { from, to }: Span, says: string, offers: readonly string[]): void {
    if (level === "error") this.errors++;
    if (this.remarks.length < MOST_REMARKS) this.remarks.push({ level, from, to, says, offers });
    else if (this.remarks.length === MOST_REMARKS)
      this.remarks.push({
        level: "error",
        from,
        to: this.text.length,
        says: "More is wrong from here on. Mend what stands before it first.",
        offers: [],
      });
  }
}
