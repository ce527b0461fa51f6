/** What people write is read as it is meant, or refused with a text that says it; never read as something else. */
import { describe, expect, it } from "vitest";
import { seeded } from "../numbers/seeded";
import { meantBy } from "../schema/meant";
import { outcome, together, WAYS } from "../testing/ways";

describe("what people write", () => {
  it.each(Object.entries(WAYS))("%s are read as they are meant, or refused with a text that says it", (_, ways) => {
    const found = ways.map(([text, meant, numbers]) => [outcome(text, meant, numbers), text] as const);
    expect(found.filter(([o]) => o === "something else")).toEqual([]);
    expect(found.filter(([o]) => o === "refused")).toEqual([]);
  });

  it("is never read as something else where it stands together", () => {
    const random = seeded(7);
    const tally = { read: 0, offered: 0, refused: 0, "something else": 0 };
    for (let n = 0; n < 600; n++) {
      const [text, meant] = together((list) => list[Math.floor(random() * list.length)]);
      const found = outcome(text, meant);
      tally[found]++;
      expect([text, meant, found]).not.toEqual([text, meant, "something else"]);
    }
    // Nearly all that is not read is offered.
    expect(tally.refused / 600).toBeLessThan(0.05);
    expect(tally.read / 600).toBeGreaterThan(0.35);
  });

  it("is looked at in few steps, however much stands beside a name", () => {
    let asked = 0;
    const known = (text: string) => {
      asked++;
      return text === "Rope";
    };
    for (const text of [
      "Rope 1 2 3 4 5 6 7 8 9 10 11",
      "Rope in 1 in 2 in 3 in 4 in 5",
      `Rope ${"a 1 ".repeat(400)}`,
    ]) {
      expect(meantBy(text, { known, ticksPerSecond: 20 })?.sure ?? false, text).toBe(false);
      expect(asked, text).toBeLessThan(400);
      asked = 0;
    }
  });

  it("is read at once more often than not", () => {
    const all = Object.values(WAYS).flat();
    const read = all.filter(([text, meant, numbers]) => outcome(text, meant, numbers) === "read");
    expect(read.length / all.length).toBeGreaterThan(0.8);
  });
});
