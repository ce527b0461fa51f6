/** Workbooks (Office Open XML) as tables and back; the library is loaded when one is read or written. */
import { issue } from "../../schema/issue";
import { type Cells, cellText, MOST_BYTES, MOST_CELLS, type ReadTable, tableOf } from "./read-table";

/** Whether bytes are those of a workbook: a ZIP archive begins so. */
export const isWorkbook = (bytes: Uint8Array): boolean =>
  bytes[0] === 0x50 && bytes[1] === 0x4b && bytes[2] === 3 && bytes[3] === 4;

/** Rows and columns of a sheet that are read. */
const MOST_SHEET_ROWS = 50_000;
const MOST_COLUMNS = 500;
/** A ZIP archive may unpack to no more than this many times what is read of a text. */
const UNPACKED = 4 * MOST_BYTES;

/** Bytes that the entries of a ZIP archive unpack to, as its directory says; null where there is none. */
function unpackedSize(bytes: Uint8Array): number | null {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let end = bytes.length - 22;
  while (end >= 0 && view.getUint32(end, true) !== 0x06054b50) end--;
  if (end < 0) return null;
  let at = view.getUint32(end + 16, true);
  let sum = 0;
  for (let left = view.getUint16(end + 10, true); left > 0; left--) {
    if (at + 46 > bytes.length || view.getUint32(at, true) !== 0x02014b50) return null;
    sum += view.getUint32(at + 24, true);
    at += 46 + view.getUint16(at + 28, true) + view.getUint16(at + 30, true) + view.getUint16(at + 32, true);
  }
  return sum;
}

/**
 * The cell that lies farthest out in any sheet, where it lies beyond what is read; null: none does. Reading makes a row
 * for every row up to the last one, so that one cell far out would make a million of them.
 */
async function cellTooFar(bytes: Uint8Array): Promise<string | null> {
  const { strFromU8, unzipSync } = await import("fflate");
  const sheets = unzipSync(bytes, {
    filter: ({ name }) => /\.xml$/i.test(name) && !/sharedStrings|styles/i.test(name),
  });
  for (const xml of Object.values(sheets))
    for (const [, column = "A", row] of strFromU8(xml).matchAll(/\br="\$?([A-Za-z]{1,7})?\$?(\d{1,15})"/g))
      if (Number(row) > MOST_SHEET_ROWS + 1 || numberOf(column) > MOST_COLUMNS) return `${column.toUpperCase()}${row}`;
  return null;
}
/** "A" → 1, "Z" → 26, "AA" → 27. */
const numberOf = (column: string): number =>
  [...column.toUpperCase()].reduce((n, letter) => n * 26 + letter.charCodeAt(0) - 64, 0);

/** The first sheet of a workbook that has anything in it. */
export async function readWorkbook(bytes: Uint8Array): Promise<ReadTable> {
  const refused = (message: string): ReadTable => ({
    table: null,
    encoding: "workbook",
    issues: [issue("file", message)],
  });
  const size = unpackedSize(bytes);
  if (size === null) return refused("This workbook can't be read. Save it as .xlsx or CSV and import that.");
  if (bytes.length > MOST_BYTES || size > UNPACKED)
    return refused("The workbook is too large. Save its sheet as CSV and import that.");
  try {
    const far = await cellTooFar(bytes);
    if (far)
      return refused(
        `Cell ${far} is too far out: the maximum is ${MOST_SHEET_ROWS.toLocaleString("en")} rows and ${MOST_COLUMNS} columns. Delete it, or save the part you need as CSV.`,
      );
    const { default: readXlsxFile } = await import("read-excel-file/universal");
    const sheets = await readXlsxFile(new Blob([new Uint8Array(bytes).buffer]));
    for (const { data } of sheets) {
      if (data.length > MOST_SHEET_ROWS + 1) return refused(`More than ${MOST_SHEET_ROWS} rows. Import it in parts.`);
      if (data.some((row) => row.length > MOST_CELLS)) return refused(`A row has more than ${MOST_CELLS} cells.`);
      const table = tableOf(data.map((row) => row.map(cellText)));
      if (table) return { table, encoding: "workbook", issues: [] };
    }
    return refused("The workbook is empty. The first row of its first sheet must hold the column headings.");
  } catch (error) {
    return refused(`The workbook can't be read: ${(error as Error).message}`);
  }
}

const NUMBER = /^-?\d{1,15}(\.\d{1,10})?$/;
/** Rows as a workbook of one sheet: what is a number stands in it as one. */
export async function writeWorkbook(rows: readonly Cells[], sheet: string): Promise<Uint8Array> {
  const { default: writeXlsxFile } = await import("write-excel-file/universal");
  const data = rows.map((row, k) =>
    row.map((text) => {
      if (k === 0) return { value: text, fontWeight: "bold" as const };
      if (text === "") return null;
      return NUMBER.test(text) && !/^-?0\d/.test(text) ? { value: Number(text) } : { value: text, type: String };
    }),
  );
  const blob = await writeXlsxFile(data, {
    sheet: sheet.replace(/[\\/*?:[\]]/g, " ").slice(0, 31) || "Sheet",
  }).toBlob();
  return new Uint8Array(await blob.arrayBuffer());
}
