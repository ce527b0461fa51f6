import { describe, expect, it } from "vitest";
import { cut, shown, textProblem } from "./characters";

const name = (text: unknown) => textProblem(text, { max: 120, name: true });

describe("a name", () => {
  it.each([
    "River eel",
    "海盐",
    "Ὀψάριον",
    "नमक",
    "می‌خواهم",
    "👩‍🍳 stew",
    "❤️ locket",
    "Crème",
    "3-ply rope",
    "O’Hare's hook",
    "50% brine",
    "",
  ])("may be %j", (text) => {
    expect(name(text)).toBeNull();
  });

  it.each([
    ["NUL", "a\u0000b", "U+0000"],
    ["a line break", "a\nb", "U+000A"],
    ["a line separator", "a\u2028b", "U+2028"],
    ["half a character", "a\ud83d", "It contains half of a character, which is not valid Unicode. Type it again."],
    ["what is no character", "a\uffff", "U+FFFF"],
    ["a space without width", "Pe\u200bat", "U+200B"],
    ["a turn of direction", "Pe\u202eat", "U+202E"],
    ["a soft hyphen", "Pe\u00adat", "U+00AD"],
    ["a byte order mark", "\ufeffPeat", "U+FEFF"],
    ["a joiner that joins nothing", "\u200dPeat", "U+200D"],
    ["two joiners", "Pe\u200d\u200dat", "U+200D"],
    ["a filler that looks like nothing", "\u3164", "U+3164"],
    ["marks alone", "\u0301", "at least one letter"],
    ["an object", { toString: 1 }, "not an object"],
    ["nothing", null, "not “null”"],
  ])("may not hold %s", (_, text, message) => {
    expect(name(text)).toContain(message);
  });

  it("is measured before it is looked at", () => {
    expect(name("x".repeat(121))).toBe("It has 121 characters; the maximum is 120.");
  });
});

describe("a longer text", () => {
  it("may have lines, tabs and turns of direction, and no other control characters", () => {
    const text = (value: string) => textProblem(value, { max: 100, lines: true });
    expect(text("one\r\n\ttwo \u202eabc")).toBeNull();
    expect(text("one\u0007")).toContain("U+0007");
  });
});

describe("cutting and showing", () => {
  it("never leaves half a character", () => {
    expect(cut("ab😀", 3)).toBe("ab");
    expect(cut("ab😀", 4)).toBe("ab😀");
    expect(cut(`${"x".repeat(119)}😀`, 120)).toBe("x".repeat(119));
  });

  it("shows anything without asking it", () => {
    expect([
      shown({ toString: 1 }),
      shown([1]),
      shown(undefined),
      shown(null),
      shown(1.5),
      shown("x".repeat(99)),
    ]).toEqual(["an object", "a list", "nothing", "“null”", "“1.5”", `“${"x".repeat(60)}…”`]);
  });
});
