import { describe, expect, it } from "vitest";
import { around } from "../catalogue/surroundings";
import { briefly } from "../schema/brief";
import { idOf, tried } from "../testing/tryout";
import { table } from "./table";

const world = tried({ item: { Rope: {}, "Mud pearl": {} }, currency: { shells: {} } });
const item = (name: string) => ({ is: "item" as const, item: idOf(name) });
const gives = { min: 1, max: 1, from: null, to: null };
const said = (name: "always" | "chances" | "draws", value: unknown) =>
  briefly(table.fields[name] as never, value, around(world));

describe("a table in few words", () => {
  it("says amounts as ranges and levels behind what comes", () => {
    expect(said("always", [{ ...gives, what: { is: "currency", currency: idOf("shells") }, min: 6, max: 18 }])).toBe(
      "6–18 shells",
    );
    expect(said("chances", [{ ...gives, chance: 0.08, what: item("Mud pearl"), from: 5 }])).toBe(
      "8% Mud pearl, from level 5",
    );
  });
  it("says draws as they stand in the line of a recipe", () => {
    const entries = [
      { ...gives, weight: 4, what: item("Rope"), min: 2, max: 4 },
      { ...gives, weight: 1, what: { is: "nothing" as const } },
    ];
    expect(said("draws", [{ times: 2, back: false, entries }])).toBe(
      "2 draws without repeats { 4: 2–4 Rope | 1: nothing }",
    );
    expect(said("draws", [{ times: 1, back: true, entries: [] }])).toBe("1 draw from nothing");
  });
});
