import { describe, expect, it } from "vitest";
import { around } from "../catalogue/surroundings";
import { formatParsed } from "../notation/format";
import { parseLine } from "../notation/parser";
import { kitchen } from "../testing/kitchen";
import { asKind, placesIn, resized, withPlaces } from "./arrange";
import { wordsOf } from "./recipes";

const catalogue = kitchen("A: 1 Rope + 1 Tar -> 1 Mop\nB: 1 Withy -> 1 Knife");
const read = (line: string) => parseLine(line, wordsOf(catalogue));
const write = (parsed: ReturnType<typeof read>) => formatParsed(around(catalogue), parsed);
const as = (line: string, kind: Parameters<typeof asKind>[1]) => write(asKind(read(line), kind));

describe("a recipe of another kind", () => {
  it("puts what goes in into places, and takes it out again", () => {
    expect(as("3 Rope + 1 Tar -> 1 Mop using Knife", "pattern")).toBe(
      "pattern [Rope, Rope; Rope, Tar] -> 1 Mop using Knife",
    );
    expect(as("pattern [Rope, Rope; Rope, Tar] -> 1 Mop using Knife", "craft")).toBe(
      "3 Rope + 1 Tar -> 1 Mop using Knife",
    );
    expect(as("30 Rope -> 1 Mop", "pattern")).toBe(
      `pattern [${Array.from({ length: 5 }, () => "Rope, Rope, Rope, Rope, Rope").join("; ")}] -> 1 Mop`,
    );
    expect(as("nothing -> 1 Mop", "pattern")).toBe("pattern nothing -> 1 Mop");
  });

  it("combines the first two, a tool as what is kept", () => {
    expect(as("3 Rope -> 1 Mop using Knife", "combine")).toBe("combine Rope + Knife kept -> 1 Mop");
    expect(as("combine Rope + Knife kept -> 1 Mop ordered", "craft")).toBe("1 Rope -> 1 Mop using Knife");
    expect(as("combine Rope + Tar -> 1 Mop", "pattern")).toBe("pattern [Rope, Tar] -> 1 Mop");
  });
});

describe("things in places", () => {
  it("are moved, and the list of what goes in follows", () => {
    const parsed = read("pattern [Rope, Tar; -, Rope] mirrored + 2 Withy -> 1 Mop");
    const [[rope, tar]] = placesIn(parsed);
    const moved = { ...parsed, ...withPlaces(parsed, [[tar, null, rope]]) };
    expect(write(moved)).toBe("pattern [Tar, -, Rope] mirrored + 2 Withy -> 1 Mop");
    expect(moved.entries.map((e) => [e.name, e.min])).toEqual([
      ["Tar", 1],
      ["Rope", 1],
      ["Withy", 2],
      ["Mop", 1],
    ]);
    const small = withPlaces(parsed, resized(placesIn(parsed), 1, 3));
    expect(write({ ...parsed, ...small })).toBe("pattern [Rope; -; -] mirrored + 2 Withy -> 1 Mop");
  });
});
