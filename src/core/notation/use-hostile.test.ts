import { describe, expect, it } from "vitest";
import { around } from "../catalogue/surroundings";
import { seeded } from "../numbers/seeded";
import { tried } from "../testing/tryout";
import { parseSteps } from "./trial-line";
import { parseUse } from "./use-line";

const here = around(tried({ resource: { Vigour: {} }, condition: { Warm: {} }, item: { Pie: {} } }));
const PIECES = [
  "restores ",
  "by ",
  "every 2s ",
  "for 3s ",
  " of the most",
  "(",
  ")",
  '"',
  "\\",
  ",",
  ":",
  "%",
  "x2 ",
  "1e9 ",
  "-",
  "needs ",
  "up to 5 ",
  "Warm ",
  "Vigour ",
  "\u0000",
  "🐟",
  "𝕏",
  "__proto__",
  "only ",
  "+ ",
  "use ",
  "expect ",
  "whenever ",
  "\n",
  ";",
  "min(",
  "(((((",
];

describe("lines from anywhere", () => {
  it("are read or refused with places within them, in bounded time, whatever they are", () => {
    const random = seeded(99);
    for (let n = 0; n < 3000; n++) {
      const text = Array.from(
        { length: Math.floor(random() * 40) },
        () => PIECES[Math.floor(random() * PIECES.length)],
      ).join("");
      for (const { issues } of [parseUse(text, here, () => null), parseSteps(text, here)])
        for (const { from, to, message } of issues) {
          expect(message).toBeTruthy();
          expect(from).toBeGreaterThanOrEqual(0);
          expect(to).toBeGreaterThanOrEqual(from);
          expect(from).toBeLessThanOrEqual(text.length);
        }
    }
  });

  it("that are made to be slow come to an end", () => {
    const slow = ["restores a by ", "needs a 1 ", "a x1 by ", "raises a by b up to ", "draws 1 from a by "].map(
      (piece) => piece.repeat(680 / piece.length),
    );
    for (const clause of slow) {
      expect(parseUse(`Eat: ${clause}`, here, () => null).use).toBe(null);
      expect(
        parseUse(`Eat: ${Array.from({ length: 60 }, () => clause).join(",")}`.slice(0, 4000), here, () => null).use,
      ).toBe(null);
    }
  });
});
