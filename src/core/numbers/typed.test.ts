/** Numbers as people write them: the test makes the text from what is meant, and says what must be read of it. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { NumberFormat } from "./decimal";
import { converted } from "./measures";
import { type Expected, typedNumber, withoutUnit } from "./typed";

const value = (text: string, expected: Expected = {}): number | readonly string[] => {
  const read = typedNumber(text, expected);
  return "value" in read ? read.value : read.offers;
};

describe("a number that is typed", () => {
  it.each<[string, Expected, number]>([
    ["2.5", {}, 2.5],
    ["2,5", {}, 2.5],
    ["1 200", {}, 1200],
    ["1,200.5", {}, 1200.5],
    ["1.200,5", {}, 1200.5],
    ["1'200", {}, 1200],
    ["−3", {}, -3],
    ["- 3", {}, -3],
    [".5", {}, 0.5],
    ["1e3", {}, 1000],
    ["１２", {}, 12],
    ["1,500", { format: "point" }, 1500],
    ["12,500", { format: "point" }, 12500],
    ["1,500", { format: "comma" }, 1.5],
    ["1.500", { format: "comma" }, 1500],
    ["1.500", { format: "point" }, 1.5],
    ["0.125", { format: "comma" }, 0.125],
    ["500 g", { unit: "kg" }, 0.5],
    ["0,5 t", { unit: "kg" }, 500],
    ["2 KG", { unit: "kg" }, 2],
    ["5 min", { unit: "s" }, 300],
    ["90 s", { unit: "min" }, 1.5],
    ["40 ticks", { unit: "s", ticksPerSecond: 20 }, 2],
    ["12 shells", { unit: "shells" }, 12],
    ["12%", { percent: true }, 0.12],
    ["12 percent", { percent: true }, 0.12],
    ["0.1", { percent: true }, 0.001],
    ["12%", { unit: "%" }, 12],
  ])("%j in %j is %s", (text, expected, is) => {
    expect(value(text, expected)).toBe(is);
  });

  it.each<[string, Expected, readonly string[]]>([
    ["1,500", {}, ["1500", "1.5"]],
    ["1.500", { format: "comma", line: true }, ["1500", "1.5"]],
    ["500 g", {}, ["500"]],
    ["500 lb", { unit: "kg" }, []],
    ["5k", {}, ["5000"]],
    ["10M", {}, ["10000000"]],
    ["3 dozen", {}, ["36"]],
    ["12%", {}, ["0.12", "12"]],
    ["5 min", {}, ["5"]],
    ["½", {}, ["0.5"]],
    ["1½", { format: "comma" }, ["1,5"]],
    ["3/4", {}, ["0.75"]],
    ["10\t2,5", {}, []],
    ["1.2.3", {}, []],
    ["1,2,3", {}, []],
    ["12 000 00", {}, []],
    ["two", {}, []],
    ["", {}, []],
    ["1,5", { format: "point", strict: true }, []],
    ["1.5", { format: "comma", strict: true }, []],
  ])("%j in %j is refused, with %j", (text, expected, offers) => {
    expect(value(text, expected)).toEqual(offers);
  });

  it("says what is wrong and what would do", () => {
    const messageFor = (text: string, expected: Expected = {}) =>
      (typedNumber(text, expected) as { message: string }).message;
    expect(messageFor("1,500")).toBe("“1,500” could be two numbers. Enter 1500 or 1.5.");
    expect(messageFor("500 lb", { unit: "kg" })).toBe("“500 lb” ends in “lb”; use kg, g, mg or t.");
    expect(messageFor("3 dozen")).toBe("“3 dozen” ends in “dozen”; a number without a unit is needed. Enter 36.");
    expect(messageFor("12%")).toBe("“12%” is a percentage, but a plain number is needed. Enter 0.12 or 12.");
    expect(messageFor("many", { format: "comma" })).toBe(
      "“many” isn't a number. Enter digits with a comma for decimals, such as 2,5.",
    );
    expect(messageFor(`1${"0".repeat(400)}`)).toContain("isn't a number");
    expect(messageFor("1e999")).toContain("too large");
  });

  /** What is written, by someone's habits, of a number that is known. */
  const habits = fc.record({
    format: fc.constantFrom<NumberFormat>("point", "comma"),
    apart: fc.constantFrom("", "own", " ", "\u00a0", "\u202f", "'"),
    minus: fc.constantFrom("-", "−"),
    padded: fc.integer({ min: 0, max: 3 }),
    wide: fc.boolean(),
  });
  const numbers = fc.tuple(fc.integer({ min: 0, max: 99_999_999 }), fc.integer({ min: 0, max: 4 }), fc.boolean());
  function writtenBy(
    h: { format: NumberFormat; apart: string; minus: string; padded: number; wide: boolean },
    n: number,
    places: number,
    negative: boolean,
  ): string {
    const [whole, decimals = ""] = (n / 10 ** places).toFixed(places).split(".");
    const own = h.format === "point" ? "," : ".";
    const grouped = h.apart ? whole.replace(/\B(?=(\d{3})+$)/g, h.apart === "own" ? own : h.apart) : whole;
    const behind = decimals + (decimals ? "0".repeat(h.padded) : "");
    const text = `${negative ? h.minus : ""}${grouped}${behind ? `${h.format === "point" ? "." : ","}${behind}` : ""}`;
    return h.wide ? text.replace(/\d/g, (d) => String.fromCharCode(d.charCodeAt(0) + 0xfee0)) : text;
  }

  it("is read as what was meant by whoever writes numbers so, and as nothing else by anybody", () => {
    fc.assert(
      fc.property(
        habits,
        numbers,
        fc.constantFrom<NumberFormat | undefined>("point", "comma", undefined),
        (h, [n, places, negative], reader) => {
          const meant = (n / 10 ** places) * (negative ? -1 : 1) + 0;
          const text = writtenBy(h, n, places, negative);
          expect(value(text, { format: h.format }), text).toBe(meant);
          // By someone else it is read as meant or as what their format says, and where no one said, never as another.
          const other = value(text, { format: reader });
          if (typeof other === "number" && other !== meant)
            expect([text, /^-?\d{1,3}[.,]\d{3}$/.test(text.normalize("NFKC").replace("−", "-"))]).toEqual([text, true]);
        },
      ),
      { numRuns: 20_000 },
    );
  });

  it("with a unit of the same measure is the same amount, and with any other is refused", () => {
    const grams: [string, number][] = [
      ["mg", 1e-3],
      ["g", 1],
      ["kg", 1e3],
      ["t", 1e6],
    ];
    const seconds: [string, number][] = [
      ["s", 1],
      ["min", 60],
      ["h", 3600],
      ["ticks", 1 / 20],
    ];
    fc.assert(
      fc.property(
        fc.constantFrom(grams, seconds),
        fc.nat(3),
        fc.nat(3),
        fc.integer({ min: 1, max: 5000 }),
        fc.constantFrom("", " ", "\u00a0"),
        (measure, from, to, n, space) => {
          const [[one, size], [other, into]] = [measure[from], measure[to]];
          const read = value(`${n}${space}${one}`, { unit: other, ticksPerSecond: 20, format: "point" });
          expect(read).toBeCloseTo((n * size) / into, 9);
          // "t" is a tonne, and a tick of the clock.
          if (one === "t") return;
          const foreign = measure === grams ? "min" : "kg";
          expect(typedNumber(`${n}${space}${one}`, { unit: foreign, ticksPerSecond: 20 })).toHaveProperty("message");
          expect(typedNumber(`${n}${space}${one}`)).toHaveProperty("message");
        },
      ),
      { numRuns: 2000 },
    );
  });

  it("is never made of words, signs and digits that are none", () => {
    const piece = fc.constantFrom(
      "1",
      "2",
      "50",
      ",",
      ".",
      " ",
      "'",
      "-",
      "+",
      "e",
      "x",
      "%",
      "kg",
      "/",
      ":",
      "(",
      "~",
      "\t",
      "½",
    );
    fc.assert(
      fc.property(fc.array(piece, { minLength: 1, maxLength: 7 }), (pieces) => {
        const text = pieces.join("");
        const read = typedNumber(text, { format: "point" });
        if ("message" in read) return;
        const plain = text.trim().replace(/[, ']/g, "").replace(/^\+/, "");
        // Without its groups it is what any program reads; a comma that is no group is before decimals.
        expect([Number(plain), Number(text.replace(/[ ']/g, "").replace(",", "."))], text).toContain(read.value);
      }),
      { numRuns: 20_000 },
    );
  });
});

describe("units", () => {
  it("are turned into each other within what they measure", () => {
    expect(converted(1, "h", "ticks", 20)).toBe(72_000);
    expect(converted(1, "m", "km")).toBe(0.001);
    expect(converted(1, "m", "s")).toBe(60);
    expect(converted(1, "M", "km")).toBeNull();
    expect(converted(1, "kg", "s")).toBeNull();
    expect(converted(1, "ticks", "s")).toBeNull();
    expect(converted(3, "Shells", "shells")).toBe(3);
  });
  it("are told from the number before them", () => {
    expect(withoutUnit("5 kg")).toEqual({ number: "5", unit: "kg" });
    expect(withoutUnit("12 %")).toEqual({ number: "12", unit: "%" });
    expect(withoutUnit("1e3")).toEqual({ number: "1e3", unit: "" });
    expect(withoutUnit("3-Jan")).toEqual({ number: "3", unit: "-Jan" });
  });
});
