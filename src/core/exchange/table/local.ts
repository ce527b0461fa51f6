/** Numbers as people's spreadsheets write them: with a comma or a point for decimals, thousands apart, a unit behind. */
import type { NumberFormat } from "../../numbers/decimal";
import { typedNumber, withoutUnit } from "../../numbers/typed";
import type { Table } from "./read-table";

export type DecimalSign = "." | ",";

export const formatOf = (decimal: DecimalSign): NumberFormat => (decimal === "," ? "comma" : "point");

/** The number of a cell, whatever unit stands behind it; null where there is none with this sign before decimals. */
export function readLocal(text: string, decimal: DecimalSign): number | null {
  const read = typedNumber(withoutUnit(text).number, { format: formatOf(decimal), strict: true });
  return "value" in read ? read.value : null;
}

const ERROR = /^#(?:N\/A|REF!|VALUE!|DIV\/0!|NAME\?|NULL!|NUM!|SPILL!|CALC!|FIELD!|BLOCKED!|ERROR!|GETTING_DATA)/i;
const FORMULA = /^=\s*(?:[A-Z][A-Z0-9.]*\s*\(|\$?[A-Z]{1,3}\$?\d|[-+(\d])/i;
/** Why a cell holds nothing that could be read, whatever it is read into; null: it does. */
export function cellProblem(text: string): string | null {
  if (ERROR.test(text)) return `“${text}” is a spreadsheet error. Correct it in the spreadsheet.`;
  return FORMULA.test(text)
    ? `“${text.length > 40 ? `${text.slice(0, 40)}…` : text}” is a formula without a value. Save the table with values.`
    : null;
}

/** Which sign stands before decimals, by the cells that can be read with one of them only. */
export function decimalSignOf({ rows }: Table): DecimalSign {
  const votes = { ".": 0, ",": 0 };
  for (const row of rows.slice(0, 2000))
    for (const cell of row) {
      if (!/\d[.,]\d/.test(cell)) continue;
      const [point, comma] = [readLocal(cell, "."), readLocal(cell, ",")];
      if (point !== null && comma === null) votes["."]++;
      if (comma !== null && point === null) votes[","]++;
    }
  return votes[","] > votes["."] ? "," : ".";
}

const MONTH = "jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec|mär|mai|okt|dez";
const DATE = new RegExp(
  `^(?:\\d{4}-\\d{1,2}-\\d{1,2}(?:[T ].*)?|\\d{1,2}[./-]\\d{1,2}[./-](?:\\d{4}|\\d{2})|\\d{1,2}[-. /](?:${MONTH})[a-z]*\\.?(?:[-. /]\\d{2,4})?|(?:${MONTH})[a-z]*\\.?[-. /]\\d{2,4})$`,
  "i",
);
/** Whether a text is a date of the sort that spreadsheets make of numbers. */
export const isDate = (text: string): boolean => DATE.test(text.trim());
