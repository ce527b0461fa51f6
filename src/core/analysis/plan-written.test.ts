import { describe, expect, it } from "vitest";
import { around } from "../catalogue/surroundings";
import { sayNode } from "../process/node";
import { item } from "../testing/kitchen";
import { read } from "../testing/told";
import { sayNoPlan, writtenPlan } from "./plan-written";
import type { Readings } from "./readings";

const SHORE =
  "buy Eel for 5\nbuy Bass for 3\nbuy Clay for 1\nEel, Bass are fish\nPot: 2 Clay -> 1 Crock at Kiln in 30s\ngather Kiln\nPaste: 3 any fish + 1 Crock -> 2 Fish paste + 1 Crock in 10s";
const plan = (
  r: Readings,
  make: { [name: string]: number },
  stock: { [name: string]: number } = {},
  confidence?: number,
) => {
  const amounts = (of: { [name: string]: number }) =>
    Object.entries(of).map(([name, n]) => [item(r.catalogue, name).id, n] as const);
  return writtenPlan(r, { make: amounts(make), stock: amounts(stock), measure: "value", confidence });
};
const told = (r: Readings, amounts: readonly (readonly [string, number])[]) =>
  amounts.map(([node, n]) => `${n} ${sayNode(around(r.catalogue), node as never)}`);

describe("a plan as it is written", () => {
  it("has its steps with what they take and give, the member of a tag by its name", () => {
    const r = read(SHORE);
    const found = plan(r, { "Fish paste": 5 });
    if (!found || "no" in found) throw new Error("no plan");
    // The crock comes back in the same run: it is to be there, and is not made again.
    expect(found.steps.map((s) => `${s.runs} ${s.name}`)).toEqual(["9 Bass", "3 Paste"]);
    const paste = found.steps.find((s) => s.name === "Paste");
    expect(paste && [told(r, paste.takes), told(r, paste.gives), paste.seconds]).toEqual([
      ["9 Bass"],
      ["6 Fish paste"],
      30,
    ]);
    expect(told(r, found.left)).toEqual(expect.arrayContaining(["1 Fish paste"]));
    expect(told(r, found.needed)).toEqual(["1 Crock"]);
    expect(found.value).toBe(9 * 3);
  });

  it("takes from the stock first, and says what can't be had", () => {
    const r = read(`${SHORE}\nPray: 1 Ghost -> 1 Wonder`);
    const found = plan(r, { "Fish paste": 2 }, { Bass: 3, Crock: 1 });
    if (!found || "no" in found) throw new Error("no plan");
    expect(told(r, found.taken)).toEqual(["3 Bass"]);
    expect(found.value).toBe(0);
    const none = plan(r, { Wonder: 1 });
    expect(none && "no" in none ? sayNoPlan("Wonder", none.no) : "").toBe("Wonder is unobtainable.");
    expect(writtenPlan(r, { make: [["000000000000" as never, 1]], stock: [], measure: "value" })).toBeNull();
  });
});
