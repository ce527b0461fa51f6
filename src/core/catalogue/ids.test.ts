import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { seeded } from "../numbers/seeded";
import { IdTable } from "./ids";
import type { Id } from "../schema/id";

const DIGITS = "0123456789abcdefghijklmnopqrstuvwxyz";
const anyId = fc
  .array(fc.constantFrom(...DIGITS), { minLength: 12, maxLength: 12 })
  .map((letters) => letters.join("") as Id);

describe("numbered ids", () => {
  it("are what went in, in their order, each once in each group", () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(anyId, fc.nat(1)), { maxLength: 200 }), (given) => {
        const [table, plain] = [new IdTable(), new Map<string, number>()];
        for (const [id, group] of given) {
          const known = plain.get(id + group) ?? plain.size;
          plain.set(id + group, known);
          expect(table.add(id, group)).toBe(known);
        }
        expect(table.size).toBe(plain.size);
        for (const [key, n] of plain) {
          expect(table.get(key.slice(0, 12), Number(key.slice(12)))).toBe(n);
          expect([table.idOf(n), table.groupOf(n)]).toEqual([key.slice(0, 12), Number(key.slice(12))]);
        }
        const numbers = [...plain.values()];
        expect(numbers.sort((a, b) => table.compare(a, b)).map((n) => table.idOf(n))).toEqual(
          [...plain.keys()].map((k) => k.slice(0, 12)).sort(),
        );
      }),
      { numRuns: 200 },
    );
  });

  it("reach to the ends of the digits", () => {
    const table = new IdTable(0);
    for (const id of ["000000000000", "zzzzzzzzzzzz", "000000zzzzzz", "zzzzzz000000"])
      expect(table.idOf(table.add(id))).toBe(id);
    expect(table.get("000000000001")).toBeUndefined();
    expect(table.get("000000000000", 1)).toBeUndefined();
  });

  it("are refused where they are none, and not found", () => {
    const table = new IdTable();
    for (const wrong of ["", "short", "UPPERCASE000", "twelve chars", "0123456789abc", "ä00000000000"]) {
      expect(() => table.add(wrong)).toThrow(/is no id/);
      expect(table.get(wrong)).toBeUndefined();
    }
    expect(table.get(null)).toBeUndefined();
    expect(() => table.idOf(0)).toThrow("There is no id of number 0; there are 0.");
  });

  it("take less than forty bytes each, however many there are", () => {
    const random = seeded(1);
    const table = new IdTable();
    for (let n = 0; n < 50_000; n++)
      table.add(Array.from({ length: 12 }, () => DIGITS[Math.floor(random() * 36)]).join(""));
    expect(table.size).toBe(50_000);
    expect(table.bytes / table.size).toBeLessThan(40);
  });
});
