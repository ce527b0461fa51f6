/**
 * A file with a table in it, as rows of texts: comma, semicolon or tab between the cells (RFC 4180 and what spreadsheets
 * make of it), in any of the encodings that spreadsheets write.
 */
import Papa from "papaparse";
import { type Issue, issue } from "../../schema/issue";

/** Cells of one row, as texts. */
export type Cells = readonly string[];
export interface Table {
  readonly head: Cells;
  readonly rows: readonly Cells[];
  /** Row of the file that the first row of the table stands in, counted from 1. */
  readonly first: number;
}
export interface ReadTable {
  readonly table: Table | null;
  readonly encoding: string;
  readonly issues: readonly Issue[];
}

/** Most rows, cells of one row, and bytes of a file that are read. */
export const MOST_ROWS = 100_000;
export const MOST_CELLS = 300;
export const MOST_BYTES = 64 * 2 ** 20;

const MARKS: readonly { readonly bytes: readonly number[]; readonly encoding: string }[] = [
  { bytes: [0xef, 0xbb, 0xbf], encoding: "utf-8" },
  { bytes: [0xff, 0xfe], encoding: "utf-16le" },
  { bytes: [0xfe, 0xff], encoding: "utf-16be" },
];

/** A file that is not what its mark says. */
class Broken extends Error {}
/** By its mark, else UTF-16 where every other byte is nothing, else UTF-8 where it is that, else Windows-1252. */
export function decodeText(bytes: Uint8Array): { readonly text: string; readonly encoding: string } {
  const marked = MARKS.find(({ bytes: mark }) => mark.every((byte, k) => bytes[k] === byte));
  if (marked)
    try {
      return { text: new TextDecoder(marked.encoding, { fatal: true }).decode(bytes), encoding: marked.encoding };
    } catch {
      throw new Broken(
        `The file says it is ${marked.encoding.toUpperCase()}, but contains other bytes. Save it again as CSV UTF-8.`,
      );
    }
  const sample = bytes.subarray(0, 1000 - (1000 % 2));
  const zeros = [0, 1].map(
    (from) => sample.filter((byte, k) => k % 2 === from && byte === 0).length / (sample.length / 2),
  );
  for (const [from, encoding] of [
    [1, "utf-16le"],
    [0, "utf-16be"],
  ] as const)
    if (sample.length > 3 && zeros[from] > 0.4) return { text: new TextDecoder(encoding).decode(bytes), encoding };
  try {
    return { text: new TextDecoder("utf-8", { fatal: true }).decode(bytes), encoding: "utf-8" };
  } catch {
    return { text: new TextDecoder("windows-1252").decode(bytes), encoding: "windows-1252" };
  }
}

/** The sign between cells: the one that stands most often in the first row that says anything, outside of quotes. */
function delimiterOf(text: string): "," | ";" | "\t" {
  let quoted = false;
  const counts = { ",": 0, ";": 0, "\t": 0 };
  for (let at = 0, said = false; at < Math.min(text.length, 100_000); at++) {
    const c = text[at];
    if (c === '"') quoted = !quoted;
    else if (!quoted && c in counts) counts[c as ","]++;
    else if (!quoted && (c === "\n" || c === "\r") && said) break;
    if (!/[\s,;]/.test(c)) said = true;
  }
  return (Object.entries(counts) as [",", number][]).reduce((best, each) => (each[1] > best[1] ? each : best))[0];
}

/** @param text  of which the first row that is not empty is the head */
export function readDelimited(text: string): { readonly table: Table | null; readonly issues: readonly Issue[] } {
  const plain = text.replace(/^\ufeff/, "");
  const parsed = Papa.parse<string[]>(plain, { delimiter: delimiterOf(plain), preview: MOST_ROWS + 2 });
  const issues = parsed.errors
    .slice(0, 20)
    .map((e) =>
      issue(
        `row ${(e.row ?? 0) + 1}`,
        e.type === "Quotes"
          ? "A quotation mark is not closed, or closed in the middle of a cell. To use the character itself, double it."
          : e.message,
      ),
    );
  return {
    issues: [...issues, ...tooMuch(parsed.data)],
    table: issues.length ? null : tableOf(parsed.data.map((row) => row.map(unguarded))),
  };
}

function tooMuch(rows: readonly Cells[]): Issue[] {
  const wide = rows.findIndex((row) => row.length > MOST_CELLS);
  return [
    ...(rows.length > MOST_ROWS + 1 ? [issue("file", `More than ${MOST_ROWS} rows. Import it in parts.`)] : []),
    ...(wide >= 0 ? [issue(`row ${wide + 1}`, `${rows[wide].length} cells; the maximum is ${MOST_CELLS}.`)] : []),
  ];
}

/** Rows of cells as a table: its first row that is not empty is the head; empty rows are left out. */
export function tableOf(rows: readonly Cells[]): Table | null {
  const empty = (row: Cells) => row.every((cell) => cell.trim() === "");
  const at = rows.findIndex((row) => !empty(row));
  if (at < 0) return null;
  return { head: rows[at].map((cell) => cell.trim()), rows: rows.slice(at + 1), first: at + 2 };
}

/** Reads a file that is text. */
export function readTextTable(bytes: Uint8Array): ReadTable {
  if (bytes.length > MOST_BYTES) {
    const message = `The file has ${Math.ceil(bytes.length / 2 ** 20)} MB; the maximum is ${MOST_BYTES / 2 ** 20}.`;
    return { table: null, encoding: "", issues: [issue("file", message)] };
  }
  let decoded: ReturnType<typeof decodeText>;
  try {
    decoded = decodeText(bytes);
  } catch (error) {
    if (!(error instanceof Broken)) throw error;
    return { table: null, encoding: "", issues: [issue("file", error.message)] };
  }
  const { text, encoding } = decoded;
  const { table, issues } = readDelimited(text);
  const none =
    table || issues.length ? [] : [issue("file", "The table is empty. Its first row must hold the column headings.")];
  return { table: issues.length ? null : table, encoding, issues: [...issues, ...none] };
}

/** A cell of a workbook as text. Dates are written as such, so that they are known as dates where a number should stand. */
export function cellText(value: unknown): string {
  if (value === null || value === undefined) return "";
  if (value instanceof Date) return Number.isNaN(value.getTime()) ? "" : value.toISOString().slice(0, 10);
  return typeof value === "boolean" ? (value ? "yes" : "no") : String(value);
}

/** What a spreadsheet would take for a formula; numbers are none, and what is guarded already is guarded once more. */
const FORMULA = /^'*[=+\-@\t\r]/;
const A_NUMBER = /^[-+]?[\d.,\s]*\d%?$/;
/** With an apostrophe before what a spreadsheet would take for a formula. */
const guarded = (cell: string): string => (FORMULA.test(cell) && !A_NUMBER.test(cell) ? `'${cell}` : cell);
/** Without the apostrophe that guards it. */
const unguarded = (cell: string): string => (/^'+[=+\-@\t\r]/.test(cell) ? cell.slice(1) : cell);

/**
 * Rows as a text that spreadsheets read: RFC 4180, with the mark that tells them it is UTF-8, and nothing in it that they
 * would reckon.
 */
export const writeDelimited = (rows: readonly Cells[], delimiter: "," | "\t" = ","): string =>
  `\ufeff${Papa.unparse(
    rows.map((row) => row.map(guarded)),
    { delimiter, newline: "\r\n" },
  )}\r\n`;
