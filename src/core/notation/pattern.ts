/** What stands in places: the cells of a pattern, and the two things of a combination. */
import type { Grid } from "./line";
import { joins, readEntry, readSide } from "./entries";
import { isKeyword, type Token } from "./lexer";
import { cellAt, countCells, NO_GRID, PAIR, WIDEST } from "./places";
import type { ParsedEntry } from "./parsed";
import { longestKnown } from "./names-in-line";
import type { LineReader } from "./reader";
import { roleRule } from "./roles";

/** In which other ways a pattern may lie. */
export const LIES = ["shifted", "mirrored", "turned"] as const;

const BLANK = /^([-–—_.]+|nothing)$/i;

/** `[Rope, Rope; Tar, -] mirrored`, and what else goes in behind a "+". */
export function readPattern(r: LineReader): Grid {
  const open = r.peek();
  if (open?.kind !== "opengrid") {
    r.report("error", r.here(), "Expected a pattern in brackets, such as [Rope, Rope; Tar, -].", ["["]);
    readSide(r, "before");
    return NO_GRID;
  }
  r.at++;
  const [placed, size] = readCells(r);
  if (r.peek()?.kind === "closegrid") r.at++;
  else r.report("error", r.here(), "Expected a comma, a semicolon for the next row, or ] to end the pattern.", ["]"]);
  const span = { from: open.from, to: r.tokens[r.at - 1].to };
  if (!placed.length && !r.failed()) r.report("error", span, "A pattern needs at least one item.");
  r.entries.push(...placed);
  const lies = { shifted: false, mirrored: false, turned: false };
  for (let word = LIES.find((each) => r.word(each)); word; word = LIES.find((each) => r.word(each))) lies[word] = true;
  if (joins(r)) readSide(r, "before");
  else r.skipTo("Expected shifted, mirrored, turned, + or ->");
  return { ...size, ...lies };
}

function readCells(r: LineReader): [ParsedEntry[], { width: number; height: number }] {
  const placed: ParsedEntry[] = [];
  let [row, column, width] = [0, 0, 1];
  for (;;) {
    const from = r.peek();
    if (row >= WIDEST || column >= WIDEST) {
      r.report("error", from ?? r.here(), `A pattern has at most ${WIDEST} rows of ${WIDEST} places.`);
      while (r.peek() && r.peek()?.kind !== "closegrid" && r.peek()?.kind !== "arrow") r.at++;
      break;
    }
    if (from?.kind === "word" && BLANK.test(from.text)) r.at++;
    else if (!splitByComma(r)) readCell(r, placed, cellAt(row, column));
    const next = r.peek();
    if (next?.kind !== "comma") break;
    r.at++;
    if (next.text.includes(";")) [row, column] = [row + 1, 0];
    else column++;
    width = Math.max(width, column + 1);
  }
  return [placed, { width: Math.min(width, WIDEST), height: Math.min(row + 1, WIDEST) }];
}

/** Names that stand in one place without a comma between them: that is remarked. */
function splitByComma(r: LineReader): boolean {
  const start = r.at;
  let end = start;
  while (r.tokens[end] && !["comma", "closegrid", "arrow", "bar"].includes(r.tokens[end].kind)) end++;
  const parts: string[] = [];
  for (; r.at < end; ) {
    const token = r.tokens[r.at];
    if (parts.length && isKeyword(token)) break;
    const known = BLANK.test(token.text) ? 1 : (longestKnown(r)?.count ?? 0);
    if (!known || r.at + known > end) break;
    parts.push(r.typed(r.at, r.at + known - 1));
    r.at += known;
  }
  const several = r.at === end && parts.length > 1;
  r.at = several ? end : start;
  if (several)
    r.report(
      "error",
      { from: r.tokens[start].from, to: r.tokens[end - 1].to },
      "Separate the items of a pattern with a comma.",
      [parts.join(", ")],
    );
  return several;
}

/** One thing; where the same stands already, it has one place more. */
function readCell(r: LineReader, placed: ParsedEntry[], cell: number): void {
  const entry = one(r, r.peek(), "an item, or - for nothing");
  if (!entry) return;
  const same = placed.findIndex(
    (e) =>
      e.role === entry.role &&
      e.item === entry.item &&
      e.any === entry.any &&
      e.uses === entry.uses &&
      e.whole === entry.whole &&
      e.name.toLowerCase() === entry.name.toLowerCase(),
  );
  const cells = (placed[same]?.cells ?? 0) | cell;
  const [min, max] = [countCells(cells), countCells(cells)];
  if (same < 0) placed.push({ ...entry, cells, min, max });
  else placed[same] = { ...placed[same], cells, min, max };
}

/** One entry that has a place, taken out of the entries again; null: that was remarked. */
function one(r: LineReader, from: Token | undefined, wanted: string): ParsedEntry | null {
  const before = r.entries.length;
  readEntry(r, roleRule("ingredient"), wanted);
  const [entry] = r.entries.splice(before);
  if (!entry) {
    // What can't be read must not stand in the way of what follows.
    if (r.peek() === from && from && from.kind !== "comma" && from.kind !== "closegrid" && from.kind !== "arrow")
      r.at++;
    return null;
  }
  if (entry.min !== 1 || entry.max !== 1 || entry.chance !== 1)
    r.report("error", entry.span, "A place has exactly one item. Leave out amounts and chances.", [entry.name]);
  return { ...entry, min: 1, max: 1, chance: 1 };
}

/** `Flint + Brass file kept`: the two things, each with its place. */
export function readPair(r: LineReader): void {
  const from = r.here().from;
  const pair: ParsedEntry[] = [];
  do {
    const entry = one(r, r.peek(), "the two items to combine");
    if (!entry) break;
    pair.push(entry);
  } while (joins(r));
  if (pair.length !== 2 && !r.failed())
    r.report("error", { from, to: r.here().from }, "A combination takes two items, joined by +.");
  r.entries.push(...pair.slice(0, 2).map((entry, k) => ({ ...entry, cells: PAIR[k] })));
  r.skipTo("Expected + or ->");
}
