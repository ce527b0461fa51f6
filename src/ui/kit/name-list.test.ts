import { describe, expect, it } from "vitest";
import { fitting } from "./name-list";

const names = ["Smoked eel", "River eel", "Eel skin", "Élan", "Eelgrass", "Salt"];

describe("names that complete what is typed", () => {
  it("begin with it first, then contain it, in the order they have", () =>
    expect(fitting("eel", names)).toEqual(["Eel skin", "Eelgrass", "Smoked eel", "River eel"]));
  it("match without regard to case and spaces", () => expect(fitting("RIVERE", names)).toEqual(["River eel"]));
  it("are all of them before anything is typed, and never more than fit", () => {
    expect(fitting("", names)).toEqual(names);
    expect(fitting("e", names, 2)).toHaveLength(2);
  });
  it("are none where nothing fits", () => expect(fitting("brass", names)).toEqual([]));
});
