import { namesOf } from "../catalogue/surroundings";
import { describe, expect, it } from "vitest";
import { kitchen, must, newItem } from "../testing/kitchen";
import { isPlain, NameBook, quote } from "./book";
import { isKeyword, lex } from "./lexer";

const kinds = (line: string) => lex(line).tokens.map((t) => `${t.kind} ${t.text}`);

describe("chunks", () => {
  it("are told apart by what they look like", () => {
    expect(kinds("2 River eel + 1..3 Salt 40% -> 1.5 Pie in 90s")).toEqual([
      "number 2",
      "word River",
      "word eel",
      "plus +",
      "range 1..3",
      "word Salt",
      "percent 40%",
      "arrow ->",
      "number 1.5",
      "word Pie",
      "word in",
      "word 90s",
    ]);
  });

  it("hold together what quotes hold, with escapes", () => {
    expect(kinds('1 "Jar at sea" -> 1 "The \\"best\\" \\\\ jar"')).toEqual([
      "number 1",
      "quoted Jar at sea",
      "arrow ->",
      "number 1",
      'quoted The "best" \\ jar',
    ]);
    expect(lex('1 "Jar').open).toEqual({ from: 2, to: 6 });
  });

  it("take an arrow without spaces, or as one sign, and a percent sign that stands apart", () => {
    expect(kinds("Eel->Pie")).toEqual(["word Eel", "arrow ->", "word Pie"]);
    expect(kinds("Eel → Pie 40 %")).toEqual(["word Eel", "arrow ->", "word Pie", "percent 40%"]);
  });

  it("split a colon off the end of a word only", () => {
    expect(kinds("Smoke eel: a:b")).toEqual(["word Smoke", "word eel", "colon :", "word a:b"]);
  });

  it("know their places", () => {
    const line = '  12 Eel  ->"Pie" 5%';
    for (const t of lex(line).tokens) if (t.kind !== "quoted") expect(line.slice(t.from, t.to)).toBe(t.text);
  });

  it("are keywords in any case, but not in quotes", () => {
    expect(lex("AT at At").tokens.every(isKeyword)).toBe(true);
    expect(isKeyword(lex('"at"').tokens[0])).toBe(false);
  });
});

describe("the book of names", () => {
  const records = ["Eel", "eel", "Coarse salt", "Coarsesalt", "Net float"].map((name, i) =>
    newItem(name, { key: `k_${i}` }),
  );
  const book = new NameBook(records);
  const found = (typed: string) => {
    const f = book.find(typed);
    return f.found === "one" ? records.findIndex((r) => r.id === f.id) : f.found === "several" ? f.keys : null;
  };

  it("prefers the exact spelling, then case, then spacing, and says when nothing decides", () => {
    expect(found("Eel")).toBe(0);
    expect(found("eel")).toBe(1);
    expect(found("EEL")).toEqual(["k_0", "k_1"]);
    expect(found("coarse salt")).toBe(2);
    expect(found("coarsesalt")).toBe(3);
    expect(found("NETFLOAT")).toBe(4);
    expect(found("k_2")).toBe(2);
    expect(found("cork")).toBeNull();
  });

  it("writes each name so that it is found again", () => {
    records.forEach((r, i) => {
      expect(found(book.written(r.id))).toBe(i);
    });
  });

  it.each([
    ["Coarse salt", true],
    ["Rope No 5", true],
    ["3-ply rope", false],
    ["Jar at sea", false],
    ["50% off", false],
    ["Tar:", false],
    ["salvage kit", false],
    ["a + b", false],
    ["", false],
    ["two  spaces", false],
    ["Ship's glass", true],
  ])("%j is plain: %s", (name, plain) => {
    expect(isPlain(name)).toBe(plain);
  });

  it("is built once for a set of records, and again for the next", () => {
    const c = kitchen("gather Eel");
    expect(namesOf(c, "item")).toBe(namesOf({ ...c }, "item"));
    expect(namesOf(must(c, [{ op: "add", kind: "item", record: newItem("Cork") }]), "item")).not.toBe(
      namesOf(c, "item"),
    );
    expect(quote('a "b" \\')).toBe('"a \\"b\\" \\\\"');
  });
});
