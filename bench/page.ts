/** docs/performance.md: the figures of a run of the bench, with what each of them means. */
import { arch, availableParallelism, totalmem } from "node:os";
import type { EditTimes } from "./edits";
import type { Full } from "./full";

interface Ratio {
  readonly median: number;
  readonly low: number;
  readonly high: number;
}
interface Entry {
  readonly items: number;
  readonly processes: number;
  readonly lines: number;
  readonly bytesPerItem: number;
  readonly floorMs: number;
  readonly ratios: { readonly [name: string]: Ratio };
  readonly gainOverCost: number;
  readonly full: Full & { readonly ratio: number };
  readonly planted: {
    readonly loops: number;
    readonly missed: number;
    readonly invented: number;
    readonly ratio: number;
  };
  readonly libraryOverComponents?: number;
  readonly plainOverFlat?: number;
  readonly edits?: EditTimes;
}

const row = (cells: readonly (string | number)[]): string => `| ${cells.join(" | ")} |`;
const table = (head: readonly string[], rows: readonly (readonly (string | number)[])[]): string =>
  [row(head), row(head.map((_, k) => (k ? "---:" : "---"))), ...rows.map(row)].join("\n");
const whole = (n: number): string => Math.round(n).toLocaleString("en");
const some = (n: number): string => (n >= 100 ? whole(n) : n.toFixed(n >= 10 ? 1 : 2));
const part = (share: number): string => `1/${whole(1 / share)}`;

export function performancePage(
  report: readonly Entry[],
  exponents: { readonly readings: number | null; readonly full: number | null },
  programmes: { readonly gain: { pureOverOurs: number }; readonly cost: { pureOverOurs: number } },
): string {
  const sizes = report.map((e) => whole(e.items));
  const names = [...new Set(report.flatMap((e) => Object.keys(e.ratios)))];
  const perItem = (e: Entry) => (e.full.fullMs * 1e6) / e.items;
  const [ten, last] = [report.find((e) => e.items === 10_000), report.at(-1)];
  const edits = [...new Set(report.flatMap((e) => Object.keys(e.edits?.kinds ?? {})))];
  return `# Performance

Written by \`npm run bench -- --write\`. Every figure is a ratio of two measurements of the same run, so that it says something on any machine; runs on a busy machine differ by up to a half. This run: Node ${process.version}, ${arch()}, ${availableParallelism()} cores, ${Math.round(totalmem() / 2 ** 30)} GiB.

**One pass** is the unit: going once over all amounts and links of the network's arrays, and nothing else. The pantries are made by the generator (\`salty generate\`), with one closed circle in a thousand items.

## Readings, in passes

${table(
  ["", ...sizes],
  [
    ["one pass [ms]", ...report.map((e) => e.floorMs.toFixed(2))],
    ...names.map((name) => [name, ...report.map((e) => (e.ratios[name] ? some(e.ratios[name].median) : "–"))]),
    ["gaining loops over least cost", ...report.map((e) => some(e.gainOverCost))],
    [
      "five planted loops, found",
      ...report.map((e) => `${e.planted.loops - e.planted.missed} (${some(e.planted.ratio)})`),
    ],
  ],
)}

## The full analysis with all checks

From the records to everything the views show.

${table(
  ["", ...sizes],
  [
    ["passes", ...report.map((e) => whole(e.full.ratio))],
    ["passes, the first time in a new process", ...report.map((e) => whole(e.full.firstMs / e.floorMs))],
    [
      "nanoseconds an item, in those of 10,000 items",
      ...report.map((e) => (ten ? some(perItem(e) / perItem(ten)) : "–")),
    ],
    ["arrays, bytes an item", ...report.map((e) => whole(e.bytesPerItem))],
    ["all that is held, bytes an item, records included", ...report.map((e) => whole(e.full.heldBytes / e.items))],
    ["most that the process held [MB]", ...report.map((e) => whole(e.full.peakBytes / 1e6))],
    ["findings", ...report.map((e) => whole(e.full.findings))],
    ["all gaining loops are named", ...report.map((e) => (e.full.complete ? "yes" : "**no**"))],
  ],
)}

${exponents.full === null || !last ? "" : `From 10,000 to ${whole(last.items)} items all readings grow with exponent ${exponents.readings?.toFixed(2)}, the full analysis with ${exponents.full.toFixed(2)}.`}

## One edit, as a part of the full analysis

With the ripple of all checks; the 95th percentile behind it.

${table(
  ["", ...report.filter((e) => e.edits).map((e) => whole(e.items))],
  edits.map((name) => [
    name,
    ...report
      .filter((e) => e.edits)
      .map((e) => {
        const t = e.edits?.kinds[name];
        return t ? `${part(t.ripple)} (${part(t.rippleP95)})` : "–";
      }),
  ]),
)}

## Beside others

${table(
  ["", ...sizes],
  [
    [
      "components by a graph library",
      ...report.map((e) => (e.libraryOverComponents ? `${some(e.libraryOverComponents)} × ours` : "–")),
    ],
    [
      "reach and cost on plain objects and Maps",
      ...report.map((e) => (e.plainOverFlat ? `${some(e.plainOverFlat)} × ours` : "–")),
    ],
  ],
)}

A linear-programming library in TypeScript takes ${some(programmes.gain.pureOverOurs)} times as long for the gain question of 400 items, and ${some(programmes.cost.pureOverOurs)} times for least costs.
`;
}
