import { describe, expect, it } from "vitest";
import { around } from "../catalogue/surroundings";
import { seeded } from "../numbers/seeded";
import { idOf, tried } from "../testing/tryout";
import { compiled } from "./compiled";
import { formula, readFormula, writeFormula } from "./field";
import { evaluate, parseFormula } from "./formula";
import { interval, type Range, witnesses } from "./ranges";
import type { Scope } from "./scope";
import { namesIn } from "./scope";
import { readUnit, sayUnit } from "./units";

const catalogue = tried({
  stat: { Grip: { unit: "kg" }, Vigour: { unit: "vigour" }, "Haul rate": { unit: "kg/s" } },
  resource: { Vigour: { unit: "vigour" }, Breath: {} },
  field: {
    Soak: { of: "item", form: "duration" },
    Smell: { of: "item", form: "text" },
    Salt: { of: "item", form: "percent" },
  },
  constant: { Healing: { value: 1.5 }, "Tide 2": { value: 3, unit: "kg" } },
});
const here = around(catalogue);
const read = (text: string, scope: Scope = "use", unit?: string) =>
  readFormula(text, scope, here, unit === undefined ? undefined : readUnit(unit));
const messageFor = (text: string, scope: Scope = "use", unit?: string) => {
  const found = read(text, scope, unit);
  return "message" in found
    ? { message: found.message, at: text.slice(found.from, found.to), offers: found.suggestions }
    : null;
};

describe("the names of a formula", () => {
  it("are kept by id, and written as people type them, as short as they are clear", () => {
    const cases: [string, Scope, string][] = [
      ["item vigour * healing", "use", "item Vigour * Healing"],
      ["user grip + target grip", "use", "user Grip + target Grip"],
      ["user most vigour - user resource vigour", "use", "user most Vigour - user resource Vigour"],
      ["resource vigour / most vigour", "bearer", "resource Vigour / most Vigour"],
      ['"Tide 2" * level', "level", '"Tide 2" * level'],
      ["item buy price + item level", "use", "item buy price + item level"],
      ["salt", "use", "item Salt"],
    ];
    for (const [typed, scope, written] of cases) {
      const found = read(typed, scope);
      if ("message" in found) throw new Error(`${typed}: ${found.message}`);
      expect(writeFormula(found.kept, scope, here)).toBe(written);
      expect(found.kept).not.toMatch(/Grip|Vigour|Healing/);
    }
  });

  it("are refused where they could be several things, with what each is called", () => {
    expect(messageFor("grip * 2")).toEqual({
      message: "“grip” could be user Grip or target Grip or item Grip. Enter one of them.",
      at: "grip",
      offers: ["user Grip", "target Grip", "item Grip"],
    });
    expect(messageFor("user vigour")?.offers).toEqual(["user stat Vigour", "user resource Vigour"]);
    expect(messageFor("level")?.offers).toEqual(["user level", "target level", "item level"]);
    expect(messageFor("user girp")).toMatchObject({ at: "user girp", offers: ["user Grip"] });
    // A text is no number, and what is not there in a scope is not known in it.
    expect(messageFor("item Smell")?.message).toMatch(/isn't known here/);
    expect(messageFor("item Grip", "level")?.message).toMatch(/isn't known here/);
    expect(namesIn("level", here)).toEqual(["level", "Healing", "Tide 2"]);
    expect(namesIn("bearer", here)).toContain("most Breath");
  });

  it("hold when a record is called otherwise", () => {
    const found = read("item grip * 2");
    if ("message" in found) throw new Error(found.message);
    const renamed = tried({ stat: { Grip: { name: "Hold" } } });
    expect(writeFormula(found.kept, "use", around(renamed))).toBe("item Hold * 2");
  });

  it("are checked as they come from outside", () => {
    const field = formula("level");
    const faults = (value: unknown) => {
      const all: string[] = [];
      field.check(value, { has: (kind, id) => here.has(kind, id), fault: (_, why) => all.push(why) });
      return all;
    };
    expect(faults(`"constant:${idOf("Healing")}" * 2`)).toEqual([]);
    expect(faults('"constant:zzzzzzzzzzzz"')[0]).toMatch(/no constant/);
    expect(faults(`"stat:${idOf("Grip")}"`)[0]).toMatch(/can't be read/);
    expect(faults('"item:aaaaaaaaaaaa"')[0]).toMatch(
      /^“item” isn't a kind it can name\. Use stat, resource, field, constant\.$/,
    );
    expect(faults("2 +")[0]).toMatch(/can't be read/);
    expect(faults({})[0]).toBeTruthy();
    expect(faults("1+".repeat(3000))[0]).toBeTruthy();
  });
});

describe("units", () => {
  it("are told apart where things are added and compared, and multiplied with what is", () => {
    expect(messageFor("item Grip + item Soak")).toMatchObject({
      message: "“kg” and “s” can't be combined here.",
      at: "item Soak",
    });
    expect(messageFor("item Haul rate * item Soak + item Grip")).toBe(null);
    expect(messageFor("item Haul rate > item Grip")?.message).toMatch(/“kg\/s” and “kg”/);
    expect(messageFor("item Grip / item Grip + 2 + user level")).toBe(null);
    expect(messageFor("if(item Grip > 3, item Grip, 2)")).toBe(null);
    expect(messageFor("max(item Grip, item Soak)")?.at).toBe("item Soak");
    expect(messageFor("item Grip * 2", "use", "vigour")?.message).toBe("This comes to “kg”; “vigour” is needed here.");
    expect(messageFor("20 + user level * 2", "use", "vigour")).toBe(null);
    expect(messageFor("item Grip", "use", "")?.message).toMatch(
      /^This comes to “kg”; a number without a unit is needed here\.$/,
    );
  });

  it("are read as people write them", () => {
    const cases = [
      ["kg·m²", "kg·m^2"],
      ["1/s", "1/s"],
      ["m/s/s", "m/s^2"],
      ["kg", "kg"],
      ["", ""],
      ["%", ""],
    ];
    for (const [typed, said] of cases) expect(sayUnit(readUnit(typed)), typed).toBe(said);
  });
});

const range = (min: number, max: number, whole = false): Range => ({ min, max, whole });
const wrong = (text: string, ranges: { readonly [name: string]: Range }, sign = true) => {
  const parsed = parseFormula(text, Object.keys(ranges));
  if (!parsed.ok) throw new Error(parsed.message);
  return witnesses(parsed.formula, (name) => ranges[name], sign).map(({ message, at, value }) => ({
    message,
    at: Object.fromEntries(at),
    value,
  }));
};

describe("what a formula comes to in its ranges", () => {
  it("is found where it divides by zero or falls below zero, with values that show it", () => {
    expect(wrong("10 / (level - 12)", { level: range(1, 60, true) }, false)).toEqual([
      { message: "divides by zero", at: { level: 12 }, value: 0 },
    ]);
    expect(wrong("10 / (level - 12.5)", { level: range(1, 60, true) }, false)).toEqual([]);
    const [root] = wrong("5 / (mass * 3 - 1)", { mass: range(0, 10) }, false);
    expect(root.at.mass).toBeCloseTo(1 / 3, 6);
    const [below] = wrong("40 - grip * 2", { grip: range(0, 30) });
    expect(below.value).toBeLessThan(0);
    expect(40 - below.at.grip * 2).toBe(below.value);
    expect(wrong("max(0, 40 - grip * 2) + 1 / max(1, grip)", { grip: range(0, 30) })).toEqual([]);
    expect(wrong("if(grip > 0, 10 / grip, 0)", { grip: range(0, 30) })).toEqual([]);
    expect(wrong("grip and 1 / grip", { grip: range(0, 3, true) })).toEqual([]);
    expect(wrong("abs(x * y) / (x * x + y * y + 1)", { x: range(-5, 5), y: range(-5, 5) })).toEqual([]);
  });

  it("never leaves the interval that is computed for it", () => {
    const random = seeded(3);
    const texts = [
      "x * y - abs(x)",
      "clamp(x, y, 3) / 2",
      "min(x, y) + max(x, 1) - round(y, 2)",
      "floor(x) * ceil(y)",
      "if(x > y, x, -y) + (x < y)",
      "x / (y * y + 1)",
    ];
    for (const text of texts) {
      const parsed = parseFormula(text, ["x", "y"]);
      if (!parsed.ok) throw new Error(parsed.message);
      const at = compiled(parsed.formula, (name) => (name === "x" ? 0 : 1));
      for (let n = 0; n < 60; n++) {
        const [a, b, c, d] = [0, 0, 0, 0].map(() => random() * 20 - 10);
        const box = {
          x: { low: Math.min(a, b), high: Math.max(a, b) },
          y: { low: Math.min(c, d), high: Math.max(c, d) },
        };
        const { low, high } = interval(parsed.formula, (name) => box[name as "x"]);
        for (let k = 0; k < 10; k++) {
          const x = box.x.low + random() * (box.x.high - box.x.low);
          const y = box.y.low + random() * (box.y.high - box.y.low);
          const value = at([x, y]);
          expect(value, text).toBeGreaterThanOrEqual(low - 1e-9);
          expect(value, text).toBeLessThanOrEqual(high + 1e-9);
          const plain = evaluate(parsed.formula, (name) => (name === "x" ? x : y));
          expect("value" in plain && plain.value).toBeCloseTo(value, 6);
        }
      }
    }
  });
});
