/** Numbers as people's spreadsheets write them: with a comma or a point for decimals, thousands apart, a unit behind. */
import type { Table } from "./read-table";

export type DecimalSign = "." | ",";

const UNIT = /\s*(?:%|[a-zA-Zµ€£$]{1,6}\.?)$/;

/** @returns null where it is none. A percent sign is read over: what it means is the field's business. */
export function readLocal(text: string, decimal: DecimalSign): number | null {
  const typed = text
    .trim()
    .replace(/−/g, "-")
    .replace(UNIT, "")
    .replace(/[\s\u00a0\u2009']/g, "");
  const thousands = decimal === "." ? "," : ".";
  const [whole, ...decimals] = typed.split(decimal);
  if (decimals.length > 1) return null;
  // Thousands stand in groups of three, else the sign means something else.
  if (whole.includes(thousands) && !/^[-+]?\d{1,3}(?:[.,]\d{3})+$/.test(whole)) return null;
  const plain = whole.split(thousands).join("") + (decimals.length ? `.${decimals[0]}` : "");
  return /^[-+]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?$/i.test(plain) ? Number(plain) : null;
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
