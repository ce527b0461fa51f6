/** What people type otherwise than it is written: read as it is meant, and said, or refused with what would do. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { apply } from "../catalogue/apply";
import { emptyCatalogue } from "../catalogue/catalogue";
import type { Edit } from "../catalogue/edit";
import { around } from "../catalogue/surroundings";
import { NewNames } from "../editing/new-names";
import { recipeFrom, wordsOf } from "../editing/recipes";
import { must, newItem, pantry, shells } from "../testing/kitchen";
import { formatParsed, formatRecipe } from "./format";
import type { ParsedLine } from "./parsed";
import { parseLine } from "./parser";

const names = ["Leather", "Tallow", "Rope", "Salt pan", "Tam, a doll", "Model x5", "Plank 1-3", "Salt and 2 eels"];
const stocked = must(emptyCatalogue(pantry()), [
  { op: "add", kind: "currency", record: shells },
  ...names.map((name, i): Edit => ({ op: "add", kind: "item", record: newItem(name, { key: `k_${i}` }) })),
]);
const read = (text: string) => parseLine(text, wordsOf(stocked));
const written = (text: string): string => {
  const parsed = read(text);
  expect(parsed.issues.filter((i) => i.severity === "error")).toEqual([]);
  return formatParsed(around(stocked), parsed);
};
const notes = (text: string) => read(text).issues.flatMap((i) => (i.severity === "note" ? [i.message] : []));

describe("what is typed otherwise", () => {
  it.each([
    ["Rope -> Tallow .5%", "1 Rope -> 1 Tallow 0.5%", "“.5%” is read as 0.5%."],
    ["5x Leather -> Rope", "5 Leather -> 1 Rope", "“5x” is read as 5."],
    ["Leather x5 -> Rope", "5 Leather -> 1 Rope", "“x5” is read as 5."],
    ["5 × Leather -> Rope", "5 Leather -> 1 Rope", "“5 ×” is read as 5."],
    ["Leather × 5 -> Rope", "5 Leather -> 1 Rope", "“× 5” is read as 5."],
    ["1-3x Leather -> Rope x2..4", "1..3 Leather -> 2..4 Rope", "“1-3x” is read as 1..3."],
    ["Leather => Rope", "1 Leather -> 1 Rope", "“=>” is read as ->."],
    ["5xLeather -> Rope", "5 Leather -> 1 Rope", "“5xLeather” is read as 5 Leather."],
    ["½ Leather -> Rope", "0.5 Leather -> 1 Rope", "“½ Leather” is read as 0.5 Leather."],
    ["Leather -> Rope for 90 sec", "1 Leather -> 1 Rope in 90s", "“Rope for 90 sec” is read as Rope in 90s."],
    ["Leather+1 Tallow -> Rope", "1 Leather + 1 Tallow -> 1 Rope", "“Leather+1 Tallow” is read as Leather + 1 Tallow."],
    ["Leather=>Rope", "1 Leather -> 1 Rope", "“=>” is read as ->."],
    ["Leather —> Rope", "1 Leather -> 1 Rope", "“—>” is read as ->."],
    ["Leather → Rope", "1 Leather -> 1 Rope", undefined],
    ["1,5 Leather -> Rope", "1.5 Leather -> 1 Rope", "“1,5” is read as 1.5."],
    ["1.500 Leather -> Rope", "1.5 Leather -> 1 Rope", "“1.500” is read as 1.5."],
    ["Leather -> Rope 30 %", "1 Leather -> 1 Rope 30%", "“30 %” is read as 30%."],
    ["Leather -> Rope 2,5 percent", "1 Leather -> 1 Rope 2.5%", "“2,5 percent” is read as 2.5%."],
    ["1-3 Leather -> 2 – 4 Rope", "1..3 Leather -> 2..4 Rope", "“1-3” is read as 1..3."],
    ["1 to 3 Leather -> Rope", "1..3 Leather -> 1 Rope", "“1 to 3” is read as 1..3."],
    ["Leather -> Rope in 90 sec", "1 Leather -> 1 Rope in 90s", "“90 sec” is read as 90s."],
    ["Leather -> Rope in 1 min 30 seconds", "1 Leather -> 1 Rope in 90s", "“1 min 30 seconds” is read as 90s."],
    ["Leather -> Rope in 1,5 min fee 2,5 shells", "1 Leather -> 1 Rope in 90s fee 2.5 shells", "“2,5” is read as 2.5."],
    ["2 Leather, 1 Tallow -> Rope", "2 Leather + 1 Tallow -> 1 Rope", "“,” is read as +."],
    ["2 Leather & Tallow and 3 Rope -> Rope", "2 Leather + 1 Tallow + 3 Rope -> 1 Rope", "“&” is read as +."],
    ["“Leather” -> Rope", "1 Leather -> 1 Rope", "““Leather”” is read as a name in quotes."],
    [
      "Rope -> 2 draws { 1,5: 2x Leather | .5: nothing }",
      "1 Rope -> 2 draws { 1.5: 2 Leather | 0.5: nothing }",
      "“2x” is read as 2.",
    ],
  ])("%j is %j", (text, line, note) => {
    expect(written(text)).toBe(line);
    if (note) expect(notes(text)).toContain(note);
    else expect(notes(text)).toEqual([]);
    expect(written(line)).toBe(line);
    expect(notes(line)).toEqual([]);
  });

  it.each([
    ["1,500 Leather -> Rope", "1,500", ["1500", "1.5"]],
    ["Leather 1/2 -> Rope", "Leather 1/2", ["Leather 50%", "0.5 Leather", '"Leather 1/2"']],
    ["Leather 5 -> Rope", "Leather 5", ["5 Leather", '"Leather 5"']],
    ["Leather (5) -> Rope", "Leather (5)", ["5 Leather", '"Leather (5)"']],
    ["Leather,Tallow -> Rope", "Leather,Tallow", ["Leather + Tallow", '"Leather,Tallow"']],
    ["Leather -> Tallow %5", "Tallow %5", ['"Tallow %5"']],
    ["Leather -> Tallow 30-40%", "Tallow 30-40%", ['"Tallow 30-40%"']],
    ["Leather - Tallow -> Rope", "Leather - Tallow", ['"Leather - Tallow"']],
    ["2 Leather x5 -> Rope", "x5", [""]],
    ["Leather -> Rope 5 % x2", "x2", []],
  ])("%j is refused at %j", (text, at, offers) => {
    const [error] = read(text).issues.filter((i) => i.severity === "error");
    expect(text.slice(error.from, error.to)).toBe(at);
    expect(error.suggestions).toEqual(offers);
  });

  it("leaves names as they are", () => {
    expect(written("2 Tam, a doll + Model x5 + Plank 1-3 -> Salt and 2 eels")).toBe(
      '2 "Tam, a doll" + 1 "Model x5" + 1 "Plank 1-3" -> 1 "Salt and 2 eels"',
    );
    expect(notes("2 Tam, a doll + Model x5 + Plank 1-3 -> Salt and 2 eels")).toEqual([]);
  });

  /** One line typed by someone with habits: each of the ten is right, alone and with the others. */
  it("reads random lines with ten habits of typing as what they are", () => {
    const amount = fc.oneof(
      fc.integer({ min: 1, max: 9999 }).map((n) => [n, n] as const),
      fc.integer({ min: 1, max: 99 }).map((n) => [n / 10, n / 10] as const),
      fc.tuple(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 10, max: 99 })),
    );
    const entry = fc.record({
      name: fc.constantFrom("Leather", "Tallow", "Salt pan", "Barm"),
      amount,
      chance: fc.constantFrom(1, 0.005, 0.3, 0.125),
    });
    const line = fc.record({
      takes: fc.array(entry, { minLength: 1, maxLength: 4 }),
      gives: entry,
      seconds: fc.integer({ min: 1, max: 300 }),
    });
    const habits = fc.record({
      comma: fc.boolean(),
      dot: fc.boolean(),
      times: fc.constantFrom("", "x", " x", "×", " ×"),
      behind: fc.constantFrom("", "x", "× "),
      arrow: fc.constantFrom("->", "=>", "→", "-->", "⇒"),
      percent: fc.constantFrom("%", " %"),
      range: fc.constantFrom("..", "-", "–", " - "),
      time: fc.constantFrom("s", " s", " sec", " seconds"),
      plus: fc.constantFrom(" + ", ", ", " & "),
      quotes: fc.constantFrom("", '""', "“”"),
    });
    fc.assert(
      fc.property(line, habits, ({ takes, gives, seconds }, h) => {
        const digits = (n: number) =>
          (h.dot && n < 1 ? String(n).slice(1) : String(n)).replace(".", h.comma ? "," : ".");
        const say = ({ name, amount: [min, max], chance }: typeof gives) => {
          const count = min === max ? digits(min) : `${digits(min)}${h.range}${digits(max)}`;
          const called = `${h.quotes.slice(0, 1)}${name}${h.quotes.slice(1)}`;
          const counted = h.behind ? `${called} ${h.behind}${count}` : `${count}${h.times} ${called}`;
          return `${counted}${chance === 1 ? "" : ` ${digits(chance * 100)}${h.percent}`}`;
        };
        const text = `${takes.map(say).join(h.plus)} ${h.arrow} ${say(gives)} in ${seconds}${h.time}`;
        const parsed = read(text);
        expect(
          parsed.issues.filter((i) => i.severity === "error"),
          text,
        ).toEqual([]);
        const told = [...takes, gives].map(({ name, amount: [min, max], chance }) => ({ name, min, max, chance }));
        expect(
          parsed.entries.map(({ name, min, max, chance }) => ({ name, min, max, chance })),
          text,
        ).toEqual(told);
        expect(parsed.ticks).toBe(seconds * stocked.pantry.ticksPerSecond);
      }),
      { numRuns: 600 },
    );
  });

  it("reads what it wrote of names with every sign in them, known or new", () => {
    const piece = fc.constantFrom(
      "Rope",
      "x5",
      "5x",
      "x",
      "×",
      "5",
      "1-3",
      "30%",
      ",",
      "and",
      "=>",
      "-",
      "+",
      "“Eel”",
      "a,b",
      "to",
      "=",
      "…",
      "&",
    );
    fc.assert(
      fc.property(fc.array(piece, { minLength: 1, maxLength: 4 }), fc.boolean(), (pieces, known) => {
        const name = pieces.join(" ");
        const typed = `"${name}"`;
        const parsed: ParsedLine = read(`2 ${typed} -> 1 Leather`);
        if (!parsed.ok) return;
        if (!known) {
          const line = formatParsed(around(stocked), parsed);
          expect(read(line).entries, line).toMatchObject([{ name, min: 2 }, { name: "Leather" }]);
          return;
        }
        const writing = new NewNames(stocked);
        const recipe = recipeFrom(parsed, writing);
        const outcome = apply(stocked, [...writing.edits, { op: "add", kind: "recipe", record: recipe }]);
        if (!outcome.ok) throw new Error(outcome.issues[0].message);
        const line = formatRecipe(around(outcome.catalogue), recipe);
        const back = parseLine(line, wordsOf(outcome.catalogue));
        expect(
          back.issues.filter((i) => i.severity === "error"),
          line,
        ).toEqual([]);
        expect(
          back.entries.map((e) => e.item),
          line,
        ).toEqual(recipe.lines.map((l) => l.item));
      }),
      { numRuns: 400 },
    );
  });
});
