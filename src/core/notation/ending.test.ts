import { describe, expect, it } from "vitest";
import { normalise } from "../schema/names";
import { endingAt } from "./ending";

const names = ["Vigour", "Steady hands", "Stone crock", "restores", "River eel"].map((n) => [n, normalise(n)] as const);
const at = (text: string) => {
  const found = endingAt(text, text.length, names);
  return found && [text.slice(found.from, found.to), found.names];
};

describe("the end of a line", () => {
  it("is completed by names of one or several words, the longest run of words first", () => {
    expect(at("Eat: restores 42 vi")).toEqual(["vi", ["Vigour"]]);
    expect(at("Eat: restores 42 Vigour, steady h")).toEqual(["steady h", ["Steady hands"]]);
    expect(at("Eat: st")).toEqual(["st", ["Steady hands", "Stone crock"]]);
    expect(at("Eat: re")).toEqual(["re", ["restores"]]);
    expect(at("use 2 river")).toEqual(["river", ["River eel"]]);
  });

  it("is left alone where nothing begins so, a word is whole, or one letter is typed", () => {
    expect(at("Eat: v")).toBe(null);
    expect(at("Eat: vigour")).toBe(null);
    expect(at("Eat: restores ")).toBe(null);
    expect(at("Eat: xyz")).toBe(null);
  });
});
