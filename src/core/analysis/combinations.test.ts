import { describe, expect, it } from "vitest";
import { setField } from "../catalogue/edit";
import { around } from "../catalogue/surroundings";
import { sayNode } from "../process/node";
import { item, kitchen, must, recipe } from "../testing/kitchen";
import { combinationsOf } from "./combinations";

const catalogue = kitchen(
  "combine Flint + Steel kept -> 1 Spark\nStir: combine Water + Tar -> 1 Slick ordered\nTwin: combine Tar + Tar -> 1 Pitch\nA: 1 Water -> 1 Steam",
);
const id = (name: string) => item(catalogue, name).id;

describe("the matrix of combinations", () => {
  const matrix = combinationsOf(catalogue);
  const gives = (a: string, b: string) => matrix.of(id(a), id(b)).map((r) => r.name);

  it("has what each gives, in both orders where the order is free", () => {
    expect(matrix.things.map((t) => sayNode(around(catalogue), t))).toEqual(["Flint", "Steel", "Tar", "Water"]);
    expect(gives("Flint", "Steel")).toEqual(["Spark"]);
    expect(gives("Steel", "Flint")).toEqual(["Spark"]);
    expect(gives("Water", "Tar")).toEqual(["Stir"]);
    expect(gives("Tar", "Water")).toEqual([]);
    expect(gives("Tar", "Tar")).toEqual(["Twin"]);
  });

  it("counts gaps and pairs that work in one order only; retired ones are none", () => {
    // Six pairs of different things: flint and steel, water and tar, and four gaps.
    expect([matrix.gaps, matrix.oneWay]).toEqual([4, 1]);
    const less = must(catalogue, [setField(catalogue, "recipe", recipe(catalogue, "Stir").id, "status", "retired")]);
    expect(combinationsOf(less).things).toHaveLength(3);
  });
});
