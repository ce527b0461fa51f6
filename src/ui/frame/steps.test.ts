import { describe, expect, it } from "vitest";
import { emptyCatalogue } from "@/core/catalogue/catalogue";
import { Engine } from "@/core/engine/engine";
import { unpackModel } from "@/core/engine/read-model";
import { kitchen, pantry } from "@/core/testing/kitchen";
import { stepsOf } from "./steps";

const done = (catalogue: ReturnType<typeof emptyCatalogue>) =>
  stepsOf(catalogue, unpackModel(new Engine(catalogue).model())).map((step) => step.done);

describe("the next steps", () => {
  it("are all to be done in an empty pantry, in the order of work", () => {
    const steps = stepsOf(emptyCatalogue(pantry()), unpackModel(new Engine(emptyCatalogue(pantry())).model()));
    expect(steps.map((s) => s.title)).toEqual(["Types and stats", "Items", "Recipes and sources", "Checks", "Trying"]);
    expect(steps.map((s) => s.done)).toEqual([false, false, false, false, false]);
    expect(steps[1]).toMatchObject({ view: "shelves", query: { new: "1" } });
  });

  it("are done one after the other, checks only without an error", () => {
    const good = kitchen("gather River eel in 80s\n2 River eel -> 1 Smoked eel");
    expect(done(good)).toEqual([false, true, true, true, false]);
    expect(done(kitchen("gather River eel in 80s\n2 River eel + 1 Salt -> 1 Smoked eel"))).toEqual([
      false,
      true,
      true,
      false,
      false,
    ]);
  });
});
