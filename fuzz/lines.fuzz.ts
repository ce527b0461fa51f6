/**
 * Recipe lines, right ones and mangled ones: read without a crash, accepted only as the rules accept, and nothing that
 * was typed is lost.
 */
import { around } from "../src/core/catalogue/surroundings";
import { describe, expect } from "vitest";
import { emptyCatalogue } from "../src/core/catalogue/catalogue";
import { apply } from "../src/core/catalogue/apply";
import type { Edit } from "../src/core/catalogue/edit";
import { normalise } from "../src/core/schema/names";
import { type Recipe, withDefaults } from "../src/core/kinds/index";
import { newId } from "../src/core/schema/id";
import { formatRecipe } from "../src/core/notation/format";
import { parseLine } from "../src/core/notation/parser";
import { recipeFrom, wordsOf } from "../src/core/editing/recipes";
import { NewNames } from "../src/core/editing/new-names";
import { must, newItem, pantry, shells } from "../src/core/testing/kitchen";
import { below, fuzz, pick, type Random } from "./rounds";

const NAMES = [
  "River eel",
  "Coarse salt",
  "Smoked eel",
  "Eel skin",
  "Smokehouse",
  "Gutting knife",
  "Eel",
  "Jar at sea",
  "3-ply rope",
  "Oilskin coat",
  "Salt in jars",
  "Tar: black",
  "nothing",
  "50% brine",
];
const stocked = must(emptyCatalogue(pantry()), [
  { op: "add", kind: "currency", record: shells },
  { op: "add", kind: "stat", record: withDefaults("stat", { id: newId(), key: "knack", name: "Sea knack" }) },
  ...NAMES.map((name, i): Edit => ({ op: "add", kind: "item", record: newItem(name, { key: `k_${i}` }) })),
]);

const NUMBERS = [
  "1",
  "2",
  "5",
  "0",
  "0.5",
  "1e3",
  "1000000",
  "0.1",
  "30",
  "1e400",
  "1e-400",
  "0.10000000000000000000001",
  "00",
  "1000000001",
];
const ODD = [
  "+",
  "->",
  "→",
  ":",
  "::::",
  "{",
  "}",
  "|",
  '"',
  '\\"',
  "%",
  "40%",
  "1e400%",
  "10001%",
  "0%",
  "1..3",
  "3..1",
  "1..1e9",
  "at",
  "using",
  "in",
  "fee",
  "lasting",
  "level",
  "taught",
  "by",
  "uses",
  '"uses"',
  "draws",
  "nothing",
  "salvage",
  "craft",
  "shells",
  "shell",
  "shellss",
  "pearls",
  "90s",
  "1m",
  "5m",
  "1800t",
  "0.00000001",
  "0s",
  "\u0000",
  "\ud800",
  "\u200b",
  "😀",
  "#fish",
  "any",
  ",",
  "Vigour",
  "batch",
  "burning",
  "plus",
  "minus",
  "per",
  "+2%",
  "-2%",
  "Sea knack",
  "whole",
  "kept",
  "[",
  "]",
  "x".repeat(130),
];

const name = (random: Random) =>
  pick(random, [
    "River eel",
    "Coarse salt",
    "Smoked eel",
    "Eel skin",
    "Eel",
    '"Jar at sea"',
    "Oilskin coat",
    "New thing",
    '"3-ply rope"',
  ]);
const quantity = (random: Random) => pick(random, ["", "1 ", "2 ", "0.5 ", "1..3 ", "17 "]);

function side(random: Random, out: boolean): string {
  return Array.from({ length: 1 + below(random, 3) }, () => {
    if (out && random() < 0.15)
      return `${pick(random, ["", "2 ", "7 "])}draws { ${pick(random, ["5", "0.25", "3"])}: ${quantity(random)}${name(random)} | ${pick(random, ["1", "2.5"])}: ${pick(random, ["nothing", "Eel"])} }`;
    const surer = out && random() < 0.1 ? pick(random, [" 5% plus 2% per Sea knack", " 30% - 0.5% per sea knack"]) : "";
    return `${quantity(random)}${name(random)}${surer || random() < 0.2 ? surer || pick(random, [" 40%", " 12.5%", " 100%"]) : ""}`;
  }).join(" + ");
}

/** A line as a designer writes it. */
function line(random: Random): string {
  const parts = [
    random() < 0.2 ? pick(random, ["Smoke eel: ", '"Odd: one": ', "Batch 2: "]) : "",
    pick(random, ["", "", "craft ", "salvage "]),
    side(random, false),
    " -> ",
    side(random, true),
  ];
  if (random() < 0.3) parts.push(` at Smokehouse`);
  if (random() < 0.3) parts.push(` using Gutting knife${pick(random, ["", " lasting 50", " lasting 9 uses"])}`);
  if (random() < 0.4) parts.push(` in ${pick(random, ["90s", "1m30s", "1m 30s", "7t", "2h", "45", "0.5 s"])}`);
  if (random() < 0.2) parts.push(` burning ${pick(random, ["60s", "1m"])}`);
  if (random() < 0.2) parts.push(` batch ${pick(random, ["6", "12", "1"])}`);
  if (random() < 0.3) parts.push(` fee ${pick(random, ["2 shells", "3 shell", "0.25", "0 shells"])}`);
  if (random() < 0.2) parts.push(` level ${pick(random, ["0", "12"])}`);
  if (random() < 0.2) parts.push(" taught by Oilskin coat");
  return parts.join("");
}

/** One to three chunks left out, put in, put twice, swapped or run together. */
function mangled(random: Random, text: string): string {
  const chunks = text.split(" ");
  for (let n = 1 + below(random, 3); n > 0; n--) {
    const at = below(random, chunks.length + 1);
    switch (below(random, 5)) {
      case 0:
        chunks.splice(at, 1);
        break;
      case 1:
        chunks.splice(at, 0, pick(random, ODD));
        break;
      case 2:
        chunks.splice(at, 0, pick(random, NUMBERS));
        break;
      case 3:
        chunks.splice(at, 0, chunks[at] ?? "");
        break;
      default:
        chunks.splice(at, 2, (chunks[at] ?? "") + (chunks[at + 1] ?? ""));
    }
  }
  return chunks.join(" ");
}

const LEADING = new Set(["craft", "uses", "runs", "draws", "shells", "using", "at"]);
const TIME =
  /\b(?:in|burning)\s+((?:\d+(?:\.\d+)?\s*h\s*)?(?:\d+(?:\.\d+)?\s*m\s*)?(?:\d+(?:\.\d+)?\s*s)?|\d+\s*t|\d+(?:\.\d+)?(?:e[+-]?\d+)?)(?![\p{L}\p{N}.])/giu;

/** A time by itself, read by other means than the program's. */
function ticksIn(time: string): number {
  if (/t$/i.test(time)) return Number.parseInt(time, 10);
  const of = (unit: string) => Number(new RegExp(`([\\d.]+)\\s*${unit}`, "i").exec(time)?.[1] ?? 0);
  return Math.round((/[hms]/i.test(time) ? of("h") * 3600 + of("m") * 60 + of("s") : Number(time)) * 20);
}

/**
 * Numbers and words of a line that neither its canonical form nor a remark accounts for; times are held against the
 * ticks that were read.
 */
function unaccounted(
  text: string,
  remarks: readonly { from: number; to: number }[],
  times: readonly number[],
  canonical: string,
): string[] {
  const open = text.split("");
  for (const { from, to } of remarks) for (let k = from; k < to; k++) open[k] = " ";
  const typed = open
    .join("")
    .replace(TIME, (clause, time: string) => (times.includes(ticksIn(time.trim())) ? " " : clause));
  const numbers = (canonical.match(/\d+(?:\.\d+)?(?:e[+-]?\d+)?/gi) ?? []).map(Number);
  const letters = normalise(canonical);
  const left: string[] = [];
  const words = new Map<string, number>();
  for (const token of typed.match(/\d+(?:\.\d+)?(?:e[+-]?\d+)?|\p{L}+/giu) ?? []) {
    if (/^\d/.test(token)) {
      const at = numbers.indexOf(Number(token));
      if (at >= 0) numbers.splice(at, 1);
      // What is not said counts as 1, and as 100%.
      else if (Number(token) !== 1 && Number(token) !== 100) left.push(token);
    } else words.set(normalise(token), (words.get(normalise(token)) ?? 0) + 1);
  }
  for (const [word, n] of words) if (!LEADING.has(word) && letters.split(word).length - 1 < n) left.push(word);
  return left;
}

describe("recipe lines", () => {
  fuzz("are read without a word lost", (random) => {
    const right = line(random);
    const text = random() < 0.25 ? right : mangled(random, right);
    const parsed = parseLine(text, wordsOf(stocked));
    for (const { from, to } of parsed.issues)
      expect(from >= 0 && from <= to && to <= text.length, JSON.stringify(parsed.issues)).toBe(true);
    expect(parsed.ok).toBe(!parsed.issues.some((r) => r.severity === "error"));
    if (!parsed.ok) return;
    const writing = new NewNames(stocked);
    const recipe = recipeFrom(parsed, writing);
    const outcome = apply(stocked, [...writing.edits, { op: "add", kind: "recipe", record: recipe }]);
    if (!outcome.ok)
      throw new Error(
        `“${text}” was accepted as a line and refused by the rules: ${outcome.issues.map((f) => f.message).join(" ")}`,
      );
    const next = outcome.catalogue;
    const canonical = formatRecipe(around(next), recipe);
    const again = parseLine(canonical, wordsOf(next));
    expect(
      again.issues.filter((r) => r.severity !== "warning"),
      `“${text}” is saved as “${canonical}”`,
    ).toEqual([]);
    const { id: _, key: __, ...what } = recipeFrom(again, new NewNames(next)) as Recipe;
    expect(what, `“${text}” is saved as “${canonical}”`).toEqual({
      ...what,
      kind: recipe.kind,
      ticks: recipe.ticks,
      fee: recipe.fee,
      feeCurrency: recipe.feeCurrency,
      level: recipe.level,
      taughtBy: recipe.taughtBy,
      name: recipe.name,
    });
    expect(new Set(what.lines.map((l) => JSON.stringify({ ...l, draw: undefined })))).toEqual(
      new Set(recipe.lines.map((l) => JSON.stringify({ ...l, draw: undefined }))),
    );
    expect(formatRecipe(around(next), { ...recipe, ...what })).toBe(canonical);
    // Weights of nothing are added up, so what was typed of them stands there as their sum.
    if ((text.match(/nothing/gi) ?? []).length > 1) return;
    const timeless = formatRecipe(around(next), { ...recipe, ticks: 0, name: parsed.label ?? recipe.name });
    const times = [parsed, ...parsed.variants.map((v) => v.said)].flatMap(({ ticks, heat }) => [ticks ?? 0, heat ?? 0]);
    const left = unaccounted(text, parsed.issues, times, `${parsed.label ?? ""} ${timeless}`);
    if (left.length)
      throw new Error(
        `“${text}” is read as “${canonical}”, without a remark on ${left.join(" ")}. Remarks: ${JSON.stringify(parsed.issues)}`,
      );
  });

  fuzz("of any characters end in an answer", (random) => {
    const alphabet = ' \t"{}|:+->→%.0159eatuising\u0000\ud83d\ude00'.split("");
    const text = Array.from({ length: below(random, 400) }, () =>
      random() < 0.1 ? pick(random, ODD) : pick(random, alphabet),
    ).join("");
    const parsed = parseLine(text, wordsOf(stocked));
    for (const { from, to } of parsed.issues) expect(from >= 0 && from <= to && to <= text.length).toBe(true);
  });
});
