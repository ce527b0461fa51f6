import { describe, expect, it } from "vitest";
import { around } from "../catalogue/surroundings";
import { formatRecipe } from "../notation/format";
import { item, kitchen, must, recipe } from "../testing/kitchen";
import { withResult } from "./combine";

const catalogue = kitchen("Strike: combine Flint + Steel kept -> 1 Spark ordered in 5s\nA: 1 Ash -> 1 Tar");
const id = (name: string) => item(catalogue, name).id;
const lines = (a: string, b: string, there: string | undefined, typed: string) => {
  const written = withResult(
    catalogue,
    { item: id(a) },
    { item: id(b) },
    there ? recipe(catalogue, there) : undefined,
    typed,
  );
  if ("message" in written) return written.message;
  const next = must(catalogue, written.edits);
  return [...next.records.recipe.values()]
    .map((r) => formatRecipe(around(next), r))
    .filter((l) => l.includes("combine"));
};

describe("a result typed where two things meet", () => {
  it("changes what comes out and nothing else, comes new, or goes", () => {
    expect(lines("Flint", "Steel", "Strike", "2 Spark + 1 Ash 20%")).toEqual([
      "Strike: combine Flint + Steel kept -> 2 Spark + 1 Ash 20% ordered in 5s",
    ]);
    expect(lines("Tar", "Flint", undefined, "Black flint")).toEqual([
      "Strike: combine Flint + Steel kept -> 1 Spark ordered in 5s",
      "combine Tar + Flint -> 1 Black flint",
    ]);
    expect(lines("Flint", "Steel", "Strike", " ")).toEqual([]);
    expect(lines("Flint", "Tar", undefined, "")).toHaveLength(1);
  });

  it("is refused with what is wrong", () => {
    expect(lines("Flint", "Tar", undefined, "5x")).toContain(
      "“5x” isn't in the pantry and contains a digit, sign or unit. To use it as a new name, put it in quotes.",
    );
    expect(lines("Flint", "Tar", undefined, "1 Ash at")).toContain("station");
  });
});
