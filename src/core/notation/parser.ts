/** Reads a recipe line. Always returns everything it could make out, with a remark for whatever it could not. */
import { shown, textProblem } from "../schema/characters";
import { LONGEST_NAME, MOST_LINES, MOST_TABLES, MOST_VARIANTS } from "../schema/limits";
import { ALL_CLAUSES, NOTHING_SAID, type ClauseStatement } from "../clauses/all";
import { readMembers, readSide } from "./entries";
import { BEHIND } from "./keywords";
import { isKeyword } from "./lexer";
import { RECIPE_KINDS, type RecipeKind } from "./line";
import type { ParsedLine, ParsedVariant, Words } from "./parsed";
import { NO_GRID } from "./places";
import { readPair, readPattern } from "./pattern";
import { LineReader } from "./reader";
import { reread } from "./reread";
import { ROLE_TABLE } from "./roles";

/**
 * Never throws; a line that can't be written has a remark of level "error" with its position. What it accepts, the
 * rules accept.
 */
export function parseLine(text: string, words: Words): ParsedLine {
  const read = readLine(text, words);
  return read.ok ? read : (reread(text, words, read, readLine) ?? read);
}

function readLine(text: string, words: Words): ParsedLine {
  const r = new LineReader(text, words);
  const label = readLabel(r);
  const kind = readKind(r);
  let grid = NO_GRID;
  if (kind === "pattern") grid = readPattern(r);
  else if (kind === "combine") readPair(r);
  else readSide(r, "before", kind === "salvage" ? "the item to salvage" : undefined);
  if (r.peek()?.kind === "arrow") {
    r.at++;
    readSide(r, "behind");
  } else r.report("error", r.here(), "Expected -> and the outputs.", ["->"]);
  const ordered = kind === "combine" ? { is: false } : null;
  const said = { ...NOTHING_SAID, ...readClauses(r, ordered) };
  if (ordered) grid = { ...NO_GRID, width: 2, height: 1, mirrored: !ordered.is };
  const { entries, tables } = r;
  const variants = readVariants(r);
  // Whatever is left was not read: nothing that was typed is ignored.
  if (r.peek()) {
    const rest = { from: r.here().from, to: text.trimEnd().length };
    r.report("error", rest, `Expected ${BEHIND}, or | and a variant, found ${shown(text.slice(rest.from, rest.to))}.`);
  }
  if (kind === "salvage" && !entries.some((e) => e.role === "ingredient") && !r.failed())
    r.report("error", r.here(), "Enter the item to salvage.", []);
  if (tables.length > MOST_TABLES)
    r.report("error", r.here(), `${tables.length} tables; the maximum for a recipe is ${MOST_TABLES}.`);
  if (entries.length > MOST_LINES)
    r.report(
      "error",
      entries[MOST_LINES].span,
      `${entries.length} entries; the maximum for a recipe is ${MOST_LINES}.`,
      [],
    );
  r.sayMeant();
  const issues = r.issues.sort((a, b) => a.from - b.from);
  return { kind, label, entries, tables, grid, ...said, variants, issues, ok: !r.failed() };
}

/** Behind each bar another way, which says only what differs. */
function readVariants(r: LineReader): ParsedVariant[] {
  const variants: ParsedVariant[] = [];
  r.variant = true;
  while (r.peek()?.kind === "bar") {
    const bar = r.tokens[r.at++];
    r.entries = [];
    r.tables = [];
    const label = readVariantLabel(r);
    const next = r.peek();
    if (next && next.kind !== "arrow" && next.kind !== "bar" && !isKeyword(next)) readSide(r, "before");
    const said: Partial<ClauseStatement> = {};
    // What comes out may stand before or behind what else differs.
    if (r.peek()?.kind !== "arrow") Object.assign(said, readClauses(r, null, true));
    if (r.peek()?.kind === "arrow") {
      r.at++;
      readSide(r, "behind");
      Object.assign(said, readClauses(r, null));
    }
    if (!r.entries.length && !r.tables.length && !Object.keys(said).length && !r.failed())
      r.report("error", bar, "A variant changes something: a tool, station, amount, time, fee or level.");
    if (r.tables.length) r.report("error", bar, "A variant uses the drop tables of its recipe. Remove the table.");
    variants.push({ label, entries: r.entries, said });
  }
  if (variants.length > MOST_VARIANTS)
    r.report("error", r.here(), `${variants.length} variants; the maximum for a recipe is ${MOST_VARIANTS}.`);
  return variants;
}

/** "Fine: " */
function readVariantLabel(r: LineReader): string | null {
  for (let k = r.at; k < r.tokens.length; k++) {
    const token = r.tokens[k];
    if (token.kind === "colon") {
      if (k === r.at) {
        r.report("error", token, "Expected the variant's name before the colon.");
        r.at++;
        return null;
      }
      const label =
        r.tokens[r.at].kind === "quoted" && k === r.at + 1 ? r.tokens[r.at].text.trim() : r.typed(r.at, k - 1);
      const span = { from: r.tokens[r.at].from, to: r.tokens[k - 1].to };
      r.take(k - r.at);
      r.at++;
      const message = label ? textProblem(label, { max: LONGEST_NAME, name: true }) : "Enter a name before the colon.";
      if (message) r.report("error", span, message);
      return label.replace(/\s+/g, " ");
    }
    if (token.kind !== "word" && token.kind !== "number" && token.kind !== "quoted") break;
  }
  return null;
}

function readLabel(r: LineReader): string | null {
  const arrow = r.tokens.findIndex((t) => t.kind === "arrow");
  const colon = r.tokens.findIndex(
    (t) => t.kind === "colon" || t.kind === "open" || t.kind === "opengrid" || t.kind === "bar",
  );
  if (colon < 0 || r.tokens[colon].kind !== "colon" || (arrow >= 0 && colon > arrow)) return null;
  const parts = r.tokens.slice(0, colon);
  r.take(colon);
  r.at++;
  if (parts.length === 0) {
    r.report("error", r.tokens[colon], "Expected the recipe's name before the colon.", []);
    return null;
  }
  const span = { from: parts[0].from, to: parts[parts.length - 1].to };
  const quoted = parts.length === 1 && parts[0].kind === "quoted";
  const label = quoted ? parts[0].text.trim() : r.text.slice(span.from, span.to).replace(/\s+/g, " ");
  const message = label ? textProblem(label, { max: LONGEST_NAME, name: true }) : "Enter a name before the colon.";
  if (message) r.report("error", span, message, []);
  // An entry before a colon is more likely a slip than a name.
  else if (!quoted && (parts[0].kind !== "word" || parts.some((t) => t.kind !== "word" && t.kind !== "number")))
    r.report(
      "error",
      span,
      "The part before a colon is the recipe's name. If this is a name, put it in quotes; otherwise remove the colon.",
      [`"${label.replace(/["\\]/g, "\\$&")}"`],
    );
  return label;
}

const readKind = (r: LineReader): RecipeKind => RECIPE_KINDS.find((kind) => r.word(kind)) ?? "craft";

/**
 * What stands behind the outputs, up to a bar: roles with a word of their own, and clauses.
 * @param ordered  told whether the order of what is combined matters; null: there is no such thing
 * @param beforeArrow  outputs may still come: an arrow ends it
 */
function readClauses(r: LineReader, ordered: { is: boolean } | null, beforeArrow = false): Partial<ClauseStatement> {
  const said: Partial<ClauseStatement> = {};
  const given = new Set<string>();
  for (let token = r.peek(); token && token.kind !== "bar"; token = r.peek()) {
    if (beforeArrow && token.kind === "arrow") break;
    const role = ROLE_TABLE.find(({ stands }) => typeof stands === "object" && r.word(stands.word));
    const clause = role ? undefined : ALL_CLAUSES.find(({ word }) => r.word(word));
    if (role) readMembers(r, role);
    else if (clause) {
      if (given.has(clause.word)) r.report("error", token, `${clause.what} appears twice. Keep one.`, []);
      const read = clause.read(r, token);
      if (read) given.add(clause.word);
      Object.assign(said, read);
    } else if (r.word("ordered")) {
      if (ordered) ordered.is = true;
      else
        r.report("error", token, "Only combinations have an order: combine Flint + Brass file -> 1 Spark ordered.", [
          "",
        ]);
    } else if (r.word("kept") || r.word("whole"))
      r.report("error", token, `“${token.text}” must directly follow its ingredient.`);
    else if (token.kind === "arrow") {
      r.report("error", token, "A line has only one ->. Write one line for each recipe.", []);
      r.at++;
      r.skipTo(null);
    } else if (r.word("lasting"))
      r.report("error", token, "Only a tool can be “lasting”. Write it directly after the tool's name.", []);
    else r.skipTo(`Expected ${BEHIND}`);
  }
  return said;
}
