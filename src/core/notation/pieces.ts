/** Lines made of clauses: their parts with places, names and times in them, and how they are written. */
import { readFormula, writeFormula } from "../formulas/field";
import type { Scope } from "../formulas/scope";
import { readUnit } from "../formulas/units";
import { isDoubtful } from "../numbers/decimal";
import { formatTicks, parseTicks, notADuration } from "../numbers/ticks";
import { typedNumber } from "../numbers/typed";
import type { Surroundings } from "../schema/field";
import type { Id } from "../schema/id";
import { issue } from "../schema/issue";
import { asksFirst, meantBy } from "../schema/meant";
import { quote } from "./book";
import type { LineIssue } from "./parsed";
import { didYouMean } from "../numbers/format";
import { aKind, kindWord } from "../schema/kind-word";

/** The form of a whole clause, in any case. */
export const form = (text: string): RegExp => new RegExp(`^${text}$`, "dis");
const QUOTED = /^"((?:[^"\\]|\\.)*)"$/;
export function unquoted(text: string): string {
  const match = QUOTED.exec(text);
  return match ? match[1].replace(/\\(.)/gs, "$1") : text;
}

/** Part of a line with the place at which it begins. */
export interface Piece {
  readonly text: string;
  readonly from: number;
}
export const trimmed = ({ text, from }: Piece): Piece => {
  const start = text.length - text.trimStart().length;
  return { text: text.trim(), from: from + start };
};
/** The piece of a match's group. */
export function part(of: Piece, match: RegExpExecArray, k: number): Piece {
  const text = match[k] ?? "";
  const at = (match as RegExpExecArray & { indices?: [number, number][] }).indices?.[k]?.[0] ?? of.text.indexOf(text);
  return trimmed({ text, from: of.from + at });
}

/** Parts between signs that stand outside of quotes and parentheses. */
export function split(of: Piece, sign: string): Piece[] {
  const parts: Piece[] = [];
  let [from, deep, quoted] = [0, 0, false];
  for (let at = 0; at < of.text.length; at++) {
    const c = of.text[at];
    if (quoted) {
      if (c === "\\") at++;
      else if (c === '"') quoted = false;
    } else if (c === '"') quoted = true;
    else if (c === "(") deep++;
    else if (c === ")") deep = Math.max(0, deep - 1);
    // Between digits a comma belongs to their number: "1,500".
    else if (c === sign && deep === 0 && !(/\d/.test(of.text[at - 1] ?? "") && /\d/.test(of.text[at + 1] ?? ""))) {
      parts.push({ text: of.text.slice(from, at), from: of.from + from });
      from = at + 1;
    }
  }
  parts.push({ text: of.text.slice(from), from: of.from + from });
  return parts;
}

export class Refused extends Error {
  constructor(
    message: string,
    readonly at: Piece,
    readonly suggestions: readonly string[] = [],
  ) {
    super(message);
  }
}

/** Reads names, times and numbers of clauses, and tells what is wrong with them. */
export class PieceReader {
  readonly issues: LineIssue[] = [];
  constructor(
    readonly around: Surroundings,
    private readonly make: (name: string, kind: string) => Id | null,
  ) {}
  /** Whether names that are new may become records now. */
  makes = true;

  tell(
    message: string,
    { text, from }: Piece,
    suggestions: readonly string[] = [],
    severity: "error" | "note" = "error",
  ) {
    const span = { from, to: from + Math.max(1, text.length) };
    this.issues.push({ ...issue(`column ${from + 1}`, message, { severity, suggestions }), ...span });
  }

  /** The record of a name; null where there is none of it. */
  find(kind: string, at: Piece): Id | null {
    const name = unquoted(at.text).trim();
    const found = name ? this.around.names(kind).find(name) : { found: "none" as const };
    if (found.found === "several")
      throw new Refused(`Several records are called “${name}”. Enter the key of one.`, at, found.keys);
    return found.found === "one" ? found.id : null;
  }
  name(kind: string, at: Piece): Id {
    const found = this.find(kind, at);
    if (found) return found;
    const name = unquoted(at.text).trim();
    if (!name) throw new Refused(`Enter the name of ${aKind(kind)}.`, at);
    if (!QUOTED.test(at.text)) this.doubt(kind, name, at);
    const made = this.makes ? this.make(name, kind) : null;
    const offers = this.around.names(kind).near(name);
    const near = didYouMean(offers);
    if (made) {
      this.tell(
        `“${name}” is new and becomes ${kind === "item" ? "a stub" : `a new ${kindWord(kind)}`}.${near}`,
        at,
        offers,
        "note",
      );
      return made;
    }
    throw new Refused(`There is no ${kindWord(kind)} called “${name}”.${near}`, at, offers);
  }
  /** A name that no one knows and that looks like a slip must be quoted to be one. */
  private doubt(kind: string, name: string, at: Piece): void {
    const known = (text: string): boolean => this.around.names(kind).find(text).found === "one";
    const meant = meantBy(name, { ...this.around, known, offer: "amount" });
    if (meant?.known)
      throw new Refused(
        `There is no ${kindWord(kind)} called “${name}”, but “${meant.name}” with ${meant.beside} exists. Enter ${meant.offers[0]}${kind === "item" ? ", or put a new name in quotes" : ""}.`,
        at,
        kind === "item" ? [...meant.offers, quote(name)] : meant.offers,
      );
    if (kind === "item" && (meant || asksFirst(name)))
      throw new Refused(
        `“${name}” isn't in the pantry and contains a digit, sign or unit. To use it as a new name, put it in quotes.`,
        at,
        [...(meant?.offers ?? []), quote(name)],
      );
  }
  time(at: Piece): number {
    const ticks = parseTicks(at.text, this.around.ticksPerSecond, this.around.numbers);
    if (ticks === null) throw new Refused(notADuration(at.text, this.around.ticksPerSecond), at, ["30s"]);
    return ticks;
  }
  number(at: Piece): number {
    const { numbers } = this.around;
    const read = typedNumber(at.text, { format: numbers, line: true });
    if ("message" in read) throw new Refused(read.message, at, read.offers);
    if (isDoubtful(at.text, String(read.value), numbers))
      this.tell(`“${at.text}” is read as ${read.value}.`, at, [], "note");
    return read.value;
  }
  whole(at: Piece): number {
    const value = this.number(at);
    if (!Number.isInteger(value) || value < 0) throw new Refused(`“${at.text}” isn't a whole number.`, at);
    return value;
  }
  /** @param unit  what it must come to */
  formulaIn(scope: Scope, at: Piece, unit?: string): string {
    const read = readFormula(at.text, scope, this.around, unit === undefined ? undefined : readUnit(unit));
    if ("kept" in read) return read.kept;
    throw new Refused(
      read.message,
      { text: at.text.slice(read.from, read.to), from: at.from + read.from },
      read.suggestions,
    );
  }
  unitOf(kind: string, id: Id): string {
    return (this.around.record(kind, id) as { readonly unit?: string } | undefined)?.unit ?? "";
  }
}

/** Writes names so that they are read back, times and formulas. */
export class PieceWriter {
  constructor(readonly around: Surroundings) {}
  name(kind: string, id: Id, plainly = true): string {
    const text = this.around.names(kind).text(id);
    return plainly && !AWKWARD.test(text) ? text : quote(text);
  }
  time(ticks: number): string {
    return formatTicks(ticks, this.around.ticksPerSecond);
  }
  formulaIn(scope: Scope, kept: string): string {
    return writeFormula(kept, scope, this.around);
  }
}
/** A name that would be read as something else without quotes. */
const AWKWARD =
  /[,:"()+;%]|^\d|^-|\b(by|every|for|up to|down to|saying|message|within|of|from|to|x\d+)\b|\d(s|t|m|h)?$/i;
