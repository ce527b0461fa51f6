/** Blocks of cells as spreadsheets put them into the clipboard: tabs between cells, quotes around what has its own. */

/** Rows and columns of a selection, both ends included. */
export interface CellBlock {
  readonly top: number;
  readonly bottom: number;
  readonly left: number;
  readonly right: number;
}

const QUOTED = /[\t\n\r]|^"/;
const quoted = (cell: string): string => (QUOTED.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell);

export const formatBlock = (rows: readonly (readonly string[])[]): string =>
  rows.map((row) => row.map(quoted).join("\t")).join("\n");

/** Where a quoted cell that begins at `from` ends, behind its last quote; −1 where the quote is only a letter of it. */
function endOfQuoted(text: string, from: number): number {
  for (let at = from + 1; at < text.length; at++) {
    if (text[at] !== '"') continue;
    if (text[at + 1] === '"') at++;
    else return at + 1 === text.length || text[at + 1] === "\t" || text[at + 1] === "\n" ? at + 1 : -1;
  }
  return -1;
}

/** Cells by rows. What begins with a quote that is never closed is taken as it stands: 5" nails, or a "name. */
export function parseBlock(given: string): string[][] {
  const text = given.replace(/\r\n?/g, "\n").replace(/\n$/, "");
  const rows: string[][] = [[]];
  for (let at = 0; ; ) {
    const end = text[at] === '"' ? endOfQuoted(text, at) : -1;
    let next = end;
    if (end < 0) {
      const [tab, line] = [text.indexOf("\t", at), text.indexOf("\n", at)];
      next = Math.min(tab < 0 ? text.length : tab, line < 0 ? text.length : line);
    }
    const cell = text.slice(at, next);
    rows[rows.length - 1].push(end < 0 ? cell : cell.slice(1, -1).replaceAll('""', '"'));
    if (next >= text.length) return rows;
    if (text[next] === "\n") rows.push([]);
    at = next + 1;
  }
}

/**
 * Which cell of a block goes where: from the corner of the selection on, as far as the block goes; where the selection
 * holds the block several times over, so often.
 */
export function* placed(
  block: readonly (readonly string[])[],
  { top, bottom, left, right }: CellBlock,
): Generator<{ readonly row: number; readonly column: number; readonly text: string }> {
  const width = Math.max(...block.map((row) => row.length));
  const times = (selected: number, size: number) => (selected % size === 0 ? selected / size : 1);
  const [down, across] = [times(bottom - top + 1, block.length), times(right - left + 1, width)];
  for (let r = 0; r < block.length * down; r++) {
    const row = block[r % block.length];
    for (let c = 0; c < width * across; c++) {
      const text = row[c % width];
      if (text !== undefined) yield { row: top + r, column: left + c, text };
    }
  }
}

const ENDS_IN_NUMBER = /^(.*?)(-?\d+(?:\.\d+)?)(\D*)$/s;
/**
 * Cells as a series goes on that their first texts begin: by the step between the first two where both end in a number
 * and are alike else, by 1 after one alone; what is no series repeats its first text.
 */
export function continued(texts: readonly string[]): string[] {
  const [a, b] = [texts[0] ?? "", texts[1] ?? ""].map((text) => ENDS_IN_NUMBER.exec(text));
  if (!a) return texts.map(() => texts[0] ?? "");
  const alike = b && b[1] === a[1] && b[3] === a[3];
  const step = alike ? Number(b[2]) - Number(a[2]) : 1;
  const places = Math.max(...[a[2], alike ? b[2] : ""].map((n) => n.split(".")[1]?.length ?? 0));
  return texts.map((_, k) => `${a[1]}${(Number(a[2]) + step * k).toFixed(places)}${a[3]}`);
}
