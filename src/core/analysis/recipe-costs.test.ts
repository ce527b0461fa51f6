import { describe, expect, it } from "vitest";
import { around } from "../catalogue/surroundings";
import { sayNode } from "../process/node";
import { recipe } from "../testing/kitchen";
import { at, read } from "../testing/told";
import { madeFor, type Priced, recipeCosts } from "./recipe-costs";
import type { Readings } from "./readings";

const runs = (r: Readings, name: string) => recipeCosts(r, recipe(r.catalogue, name).id)?.runs ?? [];
const told = (r: Readings, all: readonly Priced[]) =>
  all.map((p) => `${p.amount} ${sayNode(around(r.catalogue), p.thing)} for ${p.value}`);
const made = (r: Readings, ...names: string[]) =>
  madeFor(
    r,
    names.map((name) => recipe(r.catalogue, name).id),
  ).map(([, cost]) => cost);

describe("what a run of a recipe costs", () => {
  it("is the recipe's own, not that of the cheapest way to the item", () => {
    const r = read(
      "buy Hemp for 1\nLay: 3 Hemp -> 1 Rope\nBraid: 5 Hemp -> 1 Rope fee 2 shells\nTwist: 1 Ghost -> 1 Rope",
    );
    expect(r.value.cost[at(r, "Rope")]).toBe(3);
    expect(made(r, "Lay", "Braid", "Twist")).toEqual([3, 7, null]);
    const [braid] = runs(r, "Braid");
    expect(braid).toMatchObject({ value: 7, fee: 2, work: 0, gives: [{ amount: 1, each: 7, value: 3 }] });
    expect(runs(r, "Twist")).toMatchObject([{ value: null, seconds: null, level: null, gives: [{ each: null }] }]);
    expect(recipeCosts(r, "nosuchrecipe" as never)).toBeNull();
  });

  it("adds up: what it takes, its fee and its time, with what is burnt and what that leaves", () => {
    const r = read(
      "buy Clay for 2\nbuy Peat for 1\ngather Kiln\nset Peat burns = 40s\nset Peat ash = Cinder\nBake: 1 Clay -> 2 Brick + 1 Shard at Kiln in 30s burning 60s fee 1 shells",
      { labourPerHour: 120 },
    );
    const [bake] = runs(r, "Bake");
    expect(told(r, bake.takes)).toEqual(["1 Clay for 2", "60 seconds of heat for 1.5"]);
    expect(bake.takes[1].from).toMatchObject({ amount: 1.5 });
    expect(told(r, bake.takes[1].from?.leaves ?? [])).toEqual(["1.5 Cinder for 1.5"]);
    expect([bake.fee, bake.work, bake.value, bake.keeps.length]).toEqual([1, 1, 5.5, 1]);
    const sum = bake.takes.reduce((t, x) => t + (x.value ?? 0), bake.fee + bake.work);
    expect(bake.value).toBeCloseTo(sum, 12);
    expect(bake.gives.map((g) => g.each)).toEqual([2.75, 5.5]);
  });

  it("tells each way by its name, of choices the cheapest, and what comes back", () => {
    const r = read(
      "buy Eel for 4\nbuy Potted eel for 3\nEel, Potted eel are fish\nCrock are goods\nset Potted eel vessel = Crock\ngather Knife\nBake: 2 any fish -> 1 Pie | using Knife -> 2 Pie",
    );
    const all = runs(r, "Bake");
    expect(all.map((x) => [x.name, x.value, x.gives[0].each])).toEqual([
      ["Bake, using Knife", 6, 3],
      ["Bake", 6, 6],
    ]);
    expect(told(r, all[1].gives)).toEqual(["1 Pie for 3", "2 Crock for 6"]);
    expect(all[1].takes[0].from).toMatchObject({ amount: 2 });
    expect(made(r, "Bake")).toEqual([3]);
  });
});
