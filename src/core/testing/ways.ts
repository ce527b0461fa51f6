/**
 * Ways in which people write amounts, chances, times, levels, prices, stations and names, each with what it means; and what
 * comes of a text of which that is known.
 */
import { emptyCatalogue } from "../catalogue/catalogue";
import type { Edit } from "../catalogue/edit";
import { around } from "../catalogue/surroundings";
import { wordsOf } from "../editing/recipes";
import { formatParsed } from "../notation/format";
import { parseLine } from "../notation/parser";
import type { NumberFormat } from "../numbers/decimal";
import { must, newItem, pantry, shells } from "./kitchen";

const NAMES = ["Rope", "Oakum", "Rag", "Strap", "Bone", "Tar", "Glass bottle", "Smokehouse", "Gutting knife"];
const stocked = must(emptyCatalogue(pantry()), [
  { op: "add", kind: "currency", record: shells },
  ...NAMES.map((name, i): Edit => ({ op: "add", kind: "item", record: newItem(name, { key: `k_${i}` }) })),
]);
const here = around(stocked);
const parse = (text: string, numbers?: NumberFormat) => parseLine(text, wordsOf({ ...stocked, numbers }));

export type ReadingResult = "read" | "offered" | "refused" | "something else";
/** What comes of a text of which it is known what is meant. */
export function outcome(text: string, meant: string, numbers?: NumberFormat): ReadingResult {
  const parsed = parse(text, numbers);
  const errors = parsed.issues.filter((i) => i.severity === "error");
  if (!errors.length) return formatParsed(here, parsed) === meant ? "read" : "something else";
  // Each fault is fixed by one of its offers, the first of them first.
  const fixed = (typed: string, depth: number): boolean => {
    const again = parse(typed, numbers);
    const [first] = again.issues.filter((i) => i.severity === "error");
    if (!first) return formatParsed(here, again) === meant;
    return (
      depth > 0 &&
      first.suggestions.some((s) => fixed(`${typed.slice(0, first.from)}${s}${typed.slice(first.to)}`, depth - 1))
    );
  };
  return fixed(text, 4) ? "offered" : "refused";
}

/** A text, what it means, and how whoever types it writes numbers. */
export type Spelling = readonly [text: string, meant: string, numbers?: NumberFormat];
const amounts: readonly Spelling[] = [
  "3 Rope",
  "3x Rope",
  "3 x Rope",
  "3× Rope",
  "3 × Rope",
  "3*Rope",
  "3 * Rope",
  "Rope x3",
  "Rope ×3",
  "Rope x 3",
  "Rope 3",
  "Rope (3)",
  "Rope: 3",
  "Rope:3",
  "Rope = 3",
  "Rope, 3",
  "Rope [3]",
  "Rope 3x",
  "Rope 3 pcs",
  "3 pcs Rope",
  "3 pieces of Rope",
  "3 of Rope",
  "3 Rope each",
  "3xRope",
  "3Rope",
  "Rope3",
  "~3 Rope",
  "≈3 Rope",
  "about 3 Rope",
  "$3 Rope",
  "#3 Rope",
  "three Rope",
  "Rope three",
  "−3 Rope",
  "-3 Rope",
  "+3 Rope",
  "３ Rope",
  "３ｘ Rope",
  "3 rope",
  "3  ROPE",
  "(3) Rope",
  "qty 3 Rope",
  "Rope qty 3",
  "Rope (x3)",
  "Rope ~3",
  "3. Rope",
  "3) Rope",
  "3.0 Rope",
  "03 Rope",
  "3 kg Rope",
  "a Rope 3",
].map((text) => [`${text} -> 1 Oakum`, "3 Rope -> 1 Oakum"]);
const shares: readonly Spelling[] = [
  ...["½ Rope", "1/2 Rope", "0.5 Rope", ".5 Rope", "0,5 Rope", ",5 Rope", "half Rope", "half a Rope", "0.50 Rope"].map(
    (text): Spelling => [`${text} -> 1 Oakum`, "0.5 Rope -> 1 Oakum"],
  ),
  ["1½ Rope -> 1 Oakum", "1.5 Rope -> 1 Oakum"],
  ["1 1/2 Rope -> 1 Oakum", "1.5 Rope -> 1 Oakum"],
  ["1,500 Rope -> 1 Oakum", "1500 Rope -> 1 Oakum"],
  ["1,500 Rope -> 1 Oakum", "1500 Rope -> 1 Oakum", "point"],
  ["1,500 Rope -> 1 Oakum", "1.5 Rope -> 1 Oakum", "comma"],
  ["1.500 Rope -> 1 Oakum", "1500 Rope -> 1 Oakum", "comma"],
  ["12,500 Rope -> 1 Oakum", "12500 Rope -> 1 Oakum", "point"],
  ["1,000,000 Rope -> 1 Oakum", "1000000 Rope -> 1 Oakum"],
  ["1'500 Rope -> 1 Oakum", "1500 Rope -> 1 Oakum"],
  ["1 500 Rope -> 1 Oakum", "1500 Rope -> 1 Oakum"],
  ["dozen Rope -> 1 Oakum", "12 Rope -> 1 Oakum"],
  ["a dozen Rope -> 1 Oakum", "12 Rope -> 1 Oakum"],
];
const ranges: readonly Spelling[] = ["1-3", "1–3", "1 - 3", "1..3", "1...3", "1…3", "1 to 3", "1—3", "1−3"].map(
  (text) => [`${text} Rope -> 1 Oakum`, "1..3 Rope -> 1 Oakum"],
);
const chances: readonly Spelling[] = [
  "Rag 30%",
  "Rag 30 %",
  "Rag .3",
  "Rag 0.3",
  "Rag 0,3",
  "Rag (30%)",
  "Rag [30%]",
  "Rag @ 30%",
  "Rag @30%",
  "Rag at 30%",
  "Rag with 30%",
  "Rag 30% chance",
  "Rag chance 30%",
  "Rag chance 0.3",
  "Rag with 30% chance",
  "Rag 30 percent",
  "Rag 30percent",
  "Rag: 30%",
  "Rag - 30%",
  "Rag, 30%",
  "30% Rag",
  "30 % Rag",
  "(30%) Rag",
  "Rag ３０％",
  "Rag p=0.3",
  "Rag prob .3",
  "Rag ~30%",
  "Rag 3/10",
  "30% chance of Rag",
  "30% of Rag",
].map((text) => [`1 Tar -> ${text}`, "1 Tar -> 1 Rag 30%"]);
const times: readonly Spelling[] = [
  "in 90s",
  "in 90 s",
  "in 90 sec",
  "in 90 seconds",
  "in 1m30s",
  "in 1m 30s",
  "in 1 min 30 s",
  "in 1.5 min",
  "in 1,5 min",
  "in 1:30",
  "in 90",
  "in 1800t",
  "in 1800 ticks",
  "in 0.025h",
  "for 90s",
  "for 90 sec",
  "90s",
  "90 sec",
  "90 s",
  "(90s)",
  "( 90 sec )",
  "after 90s",
  "takes 90s",
  "@ 90s",
  ", 90s",
  "- 90s",
  "time 90s",
  "in 90s.",
  "in ９０s",
  "in: 90s",
  "in ~90s",
  "in 1 minute 30",
  "in 1 minute and 30 seconds",
  "during 90s",
  "1:30",
  "1m30s",
].map((text) => [`1 Tar -> 1 Oakum ${text}`, "1 Tar -> 1 Oakum in 90s"]);
const levels: readonly Spelling[] = [
  "level 5",
  "level: 5",
  "Level 5",
  "lvl 5",
  "lvl5",
  "lvl. 5",
  "lv 5",
  "Lv.5",
  "level5",
  "L5",
  "from level 5",
  "at level 5",
  "(level 5)",
  "[lvl 5]",
  "needs level 5",
  "level ５",
  "min level 5",
].map((text) => [`1 Tar -> 1 Oakum ${text}`, "1 Tar -> 1 Oakum level 5"]);
const fees: readonly Spelling[] = [
  "fee 2 shells",
  "fee: 2 shells",
  "fee 2 Shell",
  "for 2 shells",
  "costs 2 shells",
  "cost 2 shells",
  "price 2 shells",
  "fee 2,0 shells",
  "fee ２ shells",
].map((text) => [`1 Tar -> 1 Oakum ${text}`, "1 Tar -> 1 Oakum fee 2 shells"]);
const others: readonly Spelling[] = [
  ...["->", "=>", "→", "-->", "==>", "⇒", "—>", "－＞", "~>"].map(
    (arrow): Spelling => [`1 Tar ${arrow} 1 Oakum`, "1 Tar -> 1 Oakum"],
  ),
  ...["+", "&", "and", ",", "＋", "with"].map(
    (sign): Spelling => [`2 Rope ${sign} 1 Tar -> 1 Oakum`, "2 Rope + 1 Tar -> 1 Oakum"],
  ),
  ["2 Rope＋1 Tar -> 1 Oakum", "2 Rope + 1 Tar -> 1 Oakum"],
  ["2 Rope+1 Tar -> 1 Oakum", "2 Rope + 1 Tar -> 1 Oakum"],
  ["Twist: 2 Rope -> 1 Oakum", "Twist: 2 Rope -> 1 Oakum"],
  ["Twist:2 Rope -> 1 Oakum", "Twist: 2 Rope -> 1 Oakum"],
  ["Twist：2 Rope -> 1 Oakum", "Twist: 2 Rope -> 1 Oakum"],
  ["1 Tar -> 1 Oakum at Smokehouse", "1 Tar -> 1 Oakum at Smokehouse"],
  ["1 Tar -> 1 Oakum @ Smokehouse", "1 Tar -> 1 Oakum at Smokehouse"],
  ["1 Tar -> 1 Oakum @Smokehouse", "1 Tar -> 1 Oakum at Smokehouse"],
  ["1 Tar -> 1 Oakum using Gutting knife", "1 Tar -> 1 Oakum using Gutting knife"],
  ["1 Tar -> 1 Oakum with Gutting knife", "1 Tar -> 1 Oakum using Gutting knife"],
  ["1 Strap 90 sec -> 1 Oakum", "1 Strap -> 1 Oakum in 90s"],
  ["1 Tar -> 1 Rag .3 in 90s level 5", "1 Tar -> 1 Rag 30% in 90s level 5"],
  ["1 Tar -> Oakum 2 + Rag 0.3", "1 Tar -> 2 Oakum + 1 Rag 30%"],
];
export const WAYS = { amounts, shares, ranges, chances, times, levels, fees, others };

const before = (ways: readonly Spelling[], by: string) => ways.map(([text]) => text.slice(0, text.indexOf(by)).trim());
const behind = (ways: readonly Spelling[], by: string) =>
  ways.map(([text]) => text.slice(text.indexOf(by) + by.length));
const SAID = {
  amount: before(amounts, " -> "),
  chance: behind(chances, "-> "),
  time: ["", ...behind(times, "1 Oakum ")],
  level: ["", ...behind(levels, "1 Oakum ")],
};

/**
 * Of each sort one in one line, with numbers of its own: what each means is known, so that what all mean together is.
 * @param pick  one of a list
 */
export function together(pick: <T>(list: readonly T[]) => T): readonly [text: string, meant: string] {
  const [many, share, level] = [pick([2, 3, 4, 12, 40]), pick([5, 20, 30, 45, 75]), pick([1, 5, 17])];
  const counted = (text: string, from: RegExp, to: string | number) =>
    /[０-９/]/.test(text) ? null : text.replace(from, String(to));
  const amount = pick(SAID.amount);
  const chance = pick(SAID.chance);
  const [some, likely] = [
    counted(amount, /(?<![\d.])3(?![\d/])/, many),
    counted(chance, /30|(?<=[.,])3/, /30/.test(chance) ? share : String(share / 100).slice(2)),
  ];
  const [time, at] = [pick(SAID.time), pick(SAID.level)];
  const from = counted(at, /5/, level);
  // "in 90 min level 5" says minutes.
  if (/\d$/.test(time) && at.startsWith("min")) return together(pick);
  const kept = (said: string | null, old: string, is: number, was: number) =>
    said === null || said === old ? was : is;
  const meant = [
    `${kept(some, amount, many, 3)} Rope -> 1 Rag ${kept(likely, chance, share, 30)}%`,
    ...(time ? ["in 90s"] : []),
    ...(at ? [`level ${kept(from, at, level, 5)}`] : []),
  ];
  return [`${some ?? amount} -> ${likely ?? chance} ${time} ${from ?? at}`.trim(), meant.join(" ")];
}
