/**
 * Formulas: arithmetic, comparisons and a few functions over names. Read into a syntax tree by precedence climbing
 * (Richards 1979), which is evaluated as it stands, within bounds: nothing of it ever becomes code.
 */
import { roundedTo, tidy } from "../numbers/tidy";
import { normalise, nearest } from "../schema/names";
import { type Lexeme, lex } from "./lexer";

/** Most characters of a formula, and how deep its parts may stand within each other. */
export const LONGEST_FORMULA = 500;
const DEEPEST = 40;

export type Operator = "+" | "-" | "*" | "/" | "<" | "<=" | ">" | ">=" | "=" | "!=" | "and" | "or";
export type Formula =
  | { readonly is: "number"; readonly value: number }
  | { readonly is: "name"; readonly name: string }
  | { readonly is: "negate" | "not"; readonly of: Formula }
  | { readonly is: "operation"; readonly operator: Operator; readonly left: Formula; readonly right: Formula }
  | { readonly is: "call"; readonly name: FunctionName; readonly with: readonly Formula[] };

/** What is wrong, from which character to which (half open), and names that would fit there. */
export interface FormulaFault {
  readonly message: string;
  readonly from: number;
  readonly to: number;
  readonly suggestions: readonly string[];
}
export type ParsedFormula =
  | {
      readonly ok: true;
      readonly formula: Formula;
      readonly names: ReadonlySet<string>;
      /** Where a part of it stands in the text. */
      place(of: Formula): Place;
    }
  | ({ readonly ok: false } & FormulaFault);
/** Half open, in UTF-16 units. */
export interface Place {
  readonly from: number;
  readonly to: number;
}

/** The names that a formula may use. */
export interface Lexicon {
  /** What a name stands for, with what was typed in any case and spacing; several offers where it could be several things. */
  find(typed: string): { readonly name: string } | { readonly several: readonly string[] } | null;
  near(typed: string): readonly string[];
}

interface Callable {
  readonly least: number;
  readonly most: number;
  /** What it takes, as a person reads it. */
  readonly takes: string;
  of(given: readonly number[]): number;
}
const one = (of: (x: number) => number): Callable => ({ least: 1, most: 1, takes: "a number", of: ([x]) => of(x) });
export const FUNCTIONS = {
  min: { least: 1, most: 20, takes: "numbers", of: (all) => Math.min(...all) },
  max: { least: 1, most: 20, takes: "numbers", of: (all) => Math.max(...all) },
  round: {
    least: 1,
    most: 2,
    takes: "a number and, optionally, a step",
    of: ([x, step = 1]) => (step > 0 ? roundedTo(x, step) : x),
  },
  floor: one(Math.floor),
  ceil: one(Math.ceil),
  abs: one(Math.abs),
  clamp: {
    least: 3,
    most: 3,
    takes: "a number, a minimum and a maximum",
    of: ([x, least, most]) => Math.min(Math.max(x, least), most),
  },
  // What is not taken is not evaluated: see `evaluate`.
  if: {
    least: 3,
    most: 3,
    takes: "a condition, the value if it holds and the value if not",
    of: ([c, a, b]) => (c ? a : b),
  },
} as const satisfies { readonly [name: string]: Callable };
export type FunctionName = keyof typeof FUNCTIONS;
const isFunction = (name: string): name is FunctionName => Object.hasOwn(FUNCTIONS, name);

/** How tightly each operator binds; the same on one level from left to right. */
const BINDS: { readonly [operator in Operator]: number } = {
  or: 1,
  and: 2,
  "=": 3,
  "!=": 3,
  "<": 4,
  "<=": 4,
  ">": 4,
  ">=": 4,
  "+": 5,
  "-": 5,
  "*": 6,
  "/": 6,
};
const isOperator = (text: string): text is Operator => Object.hasOwn(BINDS, text);

class Fault extends Error {
  constructor(readonly fault: FormulaFault) {
    super(fault.message);
  }
}

function lexiconOf(names: Iterable<string>): Lexicon {
  const known = new Map([...names].map((name) => [normalise(name), name]));
  return {
    find(typed) {
      const name = known.get(normalise(typed));
      return name === undefined ? null : { name };
    },
    near: (typed) => nearest(typed, known.values()),
  };
}

/**
 * @param known  names that it may use, as people write them (matched without regard to case and spaces), or a lexicon
 * @param longest  most characters
 * @returns the names it uses are among the known ones, spelt as those are
 */
export function parseFormula(
  text: string,
  known: Iterable<string> | Lexicon,
  longest = LONGEST_FORMULA,
): ParsedFormula {
  if (text.length > longest) {
    const message = `${text.length} characters; the maximum is ${longest}.`;
    return { ok: false, message, from: longest, to: text.length, suggestions: [] };
  }
  try {
    const parser = new Parser(text, lex(text), "near" in known ? known : lexiconOf(known));
    const formula = parser.whole();
    const place = (of: Formula) => parser.places.get(of) ?? { from: 0, to: text.length };
    return { ok: true, formula, names: parser.used, place };
  } catch (thrown) {
    if (thrown instanceof Fault) return { ok: false, ...thrown.fault };
    throw thrown;
  }
}

class Parser {
  readonly used = new Set<string>();
  readonly places = new WeakMap<Formula, Place>();
  private at = 0;
  constructor(
    private readonly text: string,
    private readonly lexemes: readonly Lexeme[],
    private readonly known: Lexicon,
  ) {}

  /** Keeps where a part stands that began with the lexeme of that number. */
  private placed<F extends Formula>(formula: F, first: number): F {
    this.places.set(formula, { from: this.lexemes[first].from, to: this.lexemes[this.at - 1].to });
    return formula;
  }

  whole(): Formula {
    const formula = this.binary(1, 0);
    const rest = this.lexemes[this.at];
    if (rest) this.fail(`Expected an operator such as + before “${rest.text}”.`, rest);
    return formula;
  }

  private fail(message: string, where: Lexeme | undefined, suggestions: readonly string[] = []): never {
    const end = this.text.length;
    throw new Fault({ message, from: where?.from ?? end, to: where?.to ?? end, suggestions });
  }

  private binary(least: number, depth: number): Formula {
    if (depth > DEEPEST) this.fail(`Parentheses are nested more than ${DEEPEST} deep.`, this.lexemes[this.at]);
    const first = this.at;
    let left = this.unary(depth);
    for (;;) {
      const operator = this.lexemes[this.at]?.text ?? "";
      if (this.lexemes[this.at]?.kind === "quoted" || !isOperator(operator) || BINDS[operator] < least) return left;
      this.at++;
      const right = this.binary(BINDS[operator] + 1, depth + 1);
      left = this.placed({ is: "operation", operator, left, right }, first);
    }
  }

  private unary(depth: number): Formula {
    const lexeme = this.lexemes[this.at];
    if (lexeme?.kind !== "quoted" && (lexeme?.text === "-" || lexeme?.text === "not")) {
      if (depth > DEEPEST) this.fail(`Parentheses are nested more than ${DEEPEST} deep.`, lexeme);
      const first = this.at++;
      const bare = this.lexemes[this.at]?.kind === "number";
      const of = this.unary(depth + 1);
      // A number with its sign is a number.
      if (lexeme.text === "-" && bare && of.is === "number") return { is: "number", value: -of.value };
      return this.placed({ is: lexeme.text === "-" ? "negate" : "not", of }, first);
    }
    return this.single(depth);
  }

  private single(depth: number): Formula {
    const lexeme = this.lexemes[this.at];
    if (!lexeme) return this.fail("A number or a name is missing at the end.", undefined);
    if (lexeme.kind === "number") {
      this.at++;
      return { is: "number", value: Number(lexeme.text) };
    }
    if (lexeme.text === "(" && lexeme.kind === "sign") {
      this.at++;
      const inner = this.binary(1, depth + 1);
      this.expect(")");
      return inner;
    }
    if (lexeme.kind === "word" && this.lexemes[this.at + 1]?.text === "(") return this.call(lexeme, depth);
    if (lexeme.kind === "word" || lexeme.kind === "quoted") return this.name();
    return this.fail(`Expected a number or a name, found “${lexeme.text}”.`, lexeme);
  }

  private call(lexeme: Lexeme, depth: number): Formula {
    const name = lexeme.text.toLowerCase();
    if (!isFunction(name)) {
      const offers = nearest(name, Object.keys(FUNCTIONS));
      return this.fail(
        `There is no function “${lexeme.text}”. There are ${Object.keys(FUNCTIONS).join(", ")}.`,
        lexeme,
        offers,
      );
    }
    const first = this.at;
    this.at += 2;
    const given: Formula[] = [];
    while (this.lexemes[this.at]?.text !== ")") {
      if (given.length) this.expect(",");
      given.push(this.binary(1, depth + 1));
    }
    this.at++;
    const { least, most, takes } = FUNCTIONS[name];
    if (given.length < least || given.length > most) this.fail(`${name} takes ${takes}.`, lexeme);
    return this.placed({ is: "call", name, with: given }, first);
  }

  /** The longest run of words that is a name. */
  private name(): Formula {
    const first = this.lexemes[this.at];
    let words = 1;
    if (first.kind === "word") while (this.lexemes[this.at + words]?.kind === "word") words++;
    for (let n = words; n > 0; n--) {
      const typed = this.lexemes.slice(this.at, this.at + n);
      const found = this.known.find(typed.map((l) => l.text).join(" "));
      if (found === null) continue;
      if ("several" in found) {
        const message = `“${typed.map((l) => l.text).join(" ")}” could be ${found.several.join(" or ")}. Enter one of them.`;
        this.fail(message, { ...first, to: typed[n - 1].to }, found.several);
      }
      const at = this.at;
      this.at += n;
      this.used.add(found.name);
      return this.placed({ is: "name", name: found.name }, at);
    }
    const last = this.lexemes[this.at + words - 1];
    const typed = this.text.slice(first.from, last.to);
    const offers = this.known.near(typed);
    const near = offers.length ? ` Did you mean ${offers.join(" or ")}?` : "";
    return this.fail(`“${typed}” isn't known here.${near}`, { ...first, to: last.to }, offers);
  }

  private expect(sign: string): void {
    const lexeme = this.lexemes[this.at++];
    if (lexeme?.text !== sign || lexeme.kind !== "sign")
      this.fail(lexeme ? `Expected ${sign}, found “${lexeme.text}”.` : `Expected ${sign} at the end.`, lexeme);
  }
}

/** @param known  what a name stands for; null: it has no value here. @returns a number, or why there is none */
export function evaluate(
  formula: Formula,
  known: (name: string) => number | null,
): { readonly value: number } | { readonly message: string } {
  try {
    const value = reckon(formula, known);
    return Number.isFinite(value) ? { value: tidy(value) } : { message: "The result is too large to be a number." };
  } catch (thrown) {
    if (thrown instanceof Fault) return { message: thrown.fault.message };
    throw thrown;
  }
}
const halt = (message: string): never => {
  throw new Fault({ message, from: 0, to: 0, suggestions: [] });
};

function reckon(formula: Formula, known: (name: string) => number | null): number {
  const of = (part: Formula) => reckon(part, known);
  switch (formula.is) {
    case "number":
      return formula.value;
    case "name":
      return known(formula.name) ?? halt(`${formula.name} has no value here.`);
    case "negate":
      return -of(formula.of);
    case "not":
      return of(formula.of) ? 0 : 1;
    case "call": {
      if (formula.name === "if") return of(of(formula.with[0]) ? formula.with[1] : formula.with[2]);
      return (FUNCTIONS[formula.name] as Callable).of(formula.with.map(of));
    }
    case "operation": {
      const { operator, left, right } = formula;
      if (operator === "and") return of(left) && of(right) ? 1 : 0;
      if (operator === "or") return of(left) || of(right) ? 1 : 0;
      return OPERATIONS[operator](of(left), of(right));
    }
  }
}
/** Numbers that differ by less than reckoning in binary leaves are the same. */
function equal(a: number, b: number): boolean {
  if (a === b) return true;
  // Apart by more than the last of twelve digits they can't be.
  if (Math.abs(a - b) > 1e-11 * Math.max(Math.abs(a), Math.abs(b))) return false;
  return tidy(a) === tidy(b);
}
export const OPERATIONS: { readonly [o in Exclude<Operator, "and" | "or">]: (a: number, b: number) => number } = {
  "+": (a, b) => a + b,
  "-": (a, b) => a - b,
  "*": (a, b) => a * b,
  "/": (a, b) => (b === 0 ? halt("It divides by zero here.") : a / b),
  "<": (a, b) => Number(a < b && !equal(a, b)),
  "<=": (a, b) => Number(a <= b || equal(a, b)),
  ">": (a, b) => Number(a > b && !equal(a, b)),
  ">=": (a, b) => Number(a >= b || equal(a, b)),
  "=": (a, b) => Number(equal(a, b)),
  "!=": (a, b) => Number(!equal(a, b)),
};

/** As it is read back: names in quotes where they are no plain words. */
export function formatFormula(formula: Formula): string {
  const write = (of: Formula, least: number): string => {
    switch (of.is) {
      case "number":
        return of.value < 0 && least > 1 ? `(${of.value})` : String(of.value);
      case "name":
        return PLAIN.test(of.name) && !of.name.split(" ").some((word) => RESERVED.has(word.toLowerCase()))
          ? of.name
          : `"${of.name.replace(/["\\]/g, "\\$&")}"`;
      case "negate":
        // Of a number it would be read as the number with its sign.
        return of.of.is === "number" ? `-(${write(of.of, 1)})` : `-${write(of.of, 7)}`;
      case "not":
        return `not ${write(of.of, 7)}`;
      case "call":
        return `${of.name}(${of.with.map((part) => write(part, 1)).join(", ")})`;
      case "operation": {
        const binds = BINDS[of.operator];
        const text = `${write(of.left, binds)} ${of.operator} ${write(of.right, binds + 1)}`;
        return binds < least ? `(${text})` : text;
      }
    }
  };
  return write(formula, 1);
}
/** Words with one space between them. */
const PLAIN = /^[\p{L}_][\p{L}\p{N}_]*(?: [\p{L}_][\p{L}\p{N}_]*)*$/u;
const RESERVED: ReadonlySet<string> = new Set(["and", "or", "not", ...Object.keys(FUNCTIONS)]);
