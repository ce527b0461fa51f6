/** Many recipe lines at once. */
import type { ParsedLine, Words } from "./parsed";
import { parseLine } from "./parser";

/** One verdict for every line that is not empty and no comment (//); positions count from the line's own start. */
export function readLines(text: string, words: Words): { number: number; text: string; parsed: ParsedLine }[] {
  return text
    .split(/\r?\n/)
    .map((line, i) => ({ number: i + 1, text: line }))
    .filter(({ text: line }) => line.trim() && !line.trim().startsWith("//"))
    .map((line) => ({ ...line, parsed: parseLine(line.text, words) }));
}
