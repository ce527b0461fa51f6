import { describe, expect, it } from "vitest";
import { seeded } from "../numbers/seeded";
import {
  evaluate,
  type Formula,
  FUNCTIONS,
  formatFormula,
  LONGEST_FORMULA,
  type Operator,
  parseFormula,
} from "./formula";

const KNOWN = { Sell: 12, "Sell price": 20, Vigour: 42, "Rope 2": 3, and_then: 1, "Tar-black": 5, 'say "ho"': 2 };
const value = (text: string, known: { readonly [name: string]: number | null } = KNOWN) => {
  const parsed = parseFormula(text, Object.keys(known));
  if (!parsed.ok) throw new Error(parsed.message);
  const made = evaluate(parsed.formula, (name) => known[name]);
  return "value" in made ? made.value : made.message;
};
const fault = (text: string) => {
  const parsed = parseFormula(text, Object.keys(KNOWN));
  return parsed.ok
    ? null
    : { message: parsed.message, at: text.slice(parsed.from, parsed.to), offers: parsed.suggestions };
};

describe("a formula", () => {
  it("reckons as arithmetic is written, products before sums, from left to right", () => {
    const cases: [string, number][] = [
      ["1 + 2 * 3", 7],
      ["(1 + 2) * 3", 9],
      ["10 - 4 - 3", 3],
      ["24 / 4 / 2", 3],
      ["-2 * -3", 6],
      ["0.1 + 0.2", 0.3],
      ["2 × 3 − 1", 5],
      ["-0", 0],
    ];
    for (const [text, is] of cases) expect(value(text), text).toBe(is);
  });

  it("compares and decides, and does not look at what it does not take", () => {
    const cases: [string, number][] = [
      ["1 < 2 and not 2 < 1", 1],
      ["0.1 + 0.2 = 0.3", 1],
      ["if(Vigour >= 40, 5, 1)", 5],
      ["if(Vigour > 50, 1 / 0, 7)", 7],
      ["1 ≠ 2 or 1 / 0", 1],
      ["min(3, 1, 2) + max(4, 9)", 10],
      ["round(13.4) + round(13, 5)", 28],
      ["clamp(12, 0, 10) + abs(-2) + floor(1.9) + ceil(1.1)", 15],
    ];
    for (const [text, is] of cases) expect(value(text), text).toBe(is);
  });

  it("knows names of several words, in any case, quoted where they have signs in them", () => {
    expect(value("sell price * 2")).toBe(40);
    expect(value("sell + Sell price")).toBe(32);
    expect(value('"Rope 2" + "Tar-black" + "say \\"ho\\""')).toBe(10);
    expect(value("Tar-black - 1")).toBe(4);
  });

  it("says what is wrong, where, and what would fit", () => {
    expect(fault("vigur * 2")).toEqual({
      message: "“vigur” isn't known here. Did you mean Vigour?",
      at: "vigur",
      offers: ["Vigour"],
    });
    expect(fault("2 +")?.message).toBe("A number or a name is missing at the end.");
    expect(fault("(2 + 3")).toMatchObject({ message: "Expected ) at the end." });
    expect(fault("2 3")).toMatchObject({ at: "3" });
    expect(fault("2 $ 3")).toMatchObject({ at: "$" });
    expect(fault("rond(2)")).toMatchObject({ at: "rond", offers: ["round"] });
    expect(fault("clamp(2)")?.message).toBe("clamp takes a number, a minimum and a maximum.");
    expect(fault("min()")?.message).toBe("min takes numbers.");
    expect(fault("")?.message).toBe("A number or a name is missing at the end.");
    expect(fault("toString(1)")?.message).toMatch(/There is no function/);
    expect(fault("constructor")?.message).toMatch(/^“constructor” isn't known here\.$/);
  });

  it("has no value where it divides by zero, grows beyond numbers, or a name has none", () => {
    expect(value("1 / (Sell - 12)")).toBe("It divides by zero here.");
    expect(value("1e308 * 10")).toBe("The result is too large to be a number.");
    expect(value("Sell + 1", { Sell: null })).toBe("Sell has no value here.");
  });

  it("is bounded in length and depth", () => {
    expect(fault(`${"(".repeat(200)}1${")".repeat(200)}`)?.message).toMatch(/more than 40 deep/);
    expect(fault(`${"-".repeat(300)}1`)?.message).toMatch(/more than 40 deep/);
    expect(fault("1+".repeat(LONGEST_FORMULA))?.message).toMatch(/^1000 characters; the maximum is 500\.$/);
    expect(value(Array.from({ length: 200 }, () => "1").join("+"))).toBe(200);
  });

  it("is read back from what it is written as, whatever it is", () => {
    const random = seeded(7);
    const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)];
    const operators: Operator[] = ["+", "-", "*", "/", "<", "<=", ">", ">=", "=", "!=", "and", "or"];
    const make = (depth: number): Formula => {
      const sort = depth > 4 ? Math.floor(random() * 2) : Math.floor(random() * 6);
      if (sort === 0) return { is: "number", value: pick([0, 1, 2.5, -3, 1e9, 0.001]) };
      if (sort === 1) return { is: "name", name: pick(Object.keys(KNOWN)) };
      if (sort === 2) return { is: pick(["negate", "not"] as const), of: make(depth + 1) };
      if (sort < 5)
        return { is: "operation", operator: pick(operators), left: make(depth + 1), right: make(depth + 1) };
      const name = pick(Object.keys(FUNCTIONS) as (keyof typeof FUNCTIONS)[]);
      return { is: "call", name, with: Array.from({ length: FUNCTIONS[name].least }, () => make(depth + 1)) };
    };
    for (let n = 0; n < 400; n++) {
      const formula = make(0);
      const text = formatFormula(formula);
      if (text.length > LONGEST_FORMULA) continue;
      const back = parseFormula(text, Object.keys(KNOWN));
      expect(back.ok ? back.formula : back.message, text).toEqual(formula);
    }
  });
});
