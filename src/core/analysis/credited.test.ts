import { describe, expect, it } from "vitest";
import { seeded } from "../numbers/seeded";
import { randomPantry } from "../testing/random";
import { at, read } from "../testing/told";
import { type Readings, readingsOf } from "./readings";

const credited = (r: Readings, name: string) => r.credited("value").cost[at(r, name)];
const plain = (r: Readings, name: string) => r.value.cost[at(r, name)];

describe("costs with side outputs credited", () => {
  it("take off what the others are worth at their own least cost", () => {
    // Skin can be bought for 3; gutting an eel of 10 gives fillet and skin.
    const r = read("buy Eel for 10\nbuy Skin for 3\nGut: 1 Eel -> 1 Fillet + 1 Skin");
    expect(plain(r, "Fillet")).toBe(10);
    expect(credited(r, "Fillet")).toBe(7);
    // As a way to skin the run is shared with the fillet, which comes no cheaper otherwise: 10 by 3 to 10.
    expect(credited(r, "Skin")).toBeCloseTo(30 / 13, 12);
  });

  it("take off several others, each at its own least cost, with what it yields", () => {
    const r = read(
      "buy Crate for 40\nbuy Nail for 1\nbuy Plank for 4\nBreak: 1 Crate -> 2..4 Plank + 6 Nail 50% + 1 Lock",
    );
    expect(plain(r, "Lock")).toBe(40);
    expect(credited(r, "Lock")).toBe(40 - 3 * 4 - 3);
  });

  it("leave a tenth of the plain cost where the others would pay for more than the run", () => {
    const r = read("buy Hulk for 10\nbuy Mast for 8\nbuy Sail for 8\nWreck: 1 Hulk -> 1 Mast + 1 Sail + 1 Bell");
    expect(credited(r, "Bell")).toBe(1);
  });

  it("do not go to nothing in a circle whose by-product is worth more than a round takes", () => {
    const r = read(
      "buy Salt for 10\nbuy Scum for 4\nDissolve: 1 Salt -> 1 Brine + 1 Scum\nBoil: 1 Brine -> 1 Salt fee 1 shells",
    );
    expect(credited(r, "Brine")).toBeGreaterThanOrEqual(0.1 * plain(r, "Brine"));
    expect(credited(r, "Salt")).toBeGreaterThanOrEqual(0.1 * plain(r, "Salt"));
  });

  it("pass the credit on to what is made of it", () => {
    const r = read("buy Eel for 10\nbuy Skin for 3\nGut: 1 Eel -> 1 Fillet + 1 Skin\nPie: 2 Fillet -> 1 Eel pie");
    expect([plain(r, "Eel pie"), credited(r, "Eel pie")]).toEqual([20, 14]);
  });

  it("share the run among outputs that it is the cheapest way to", () => {
    // Neither comes otherwise, so neither has a cost of its own that could be taken off.
    const r = read("buy Peat for 4\nBurn: 1 Peat -> 1 Heat + 1 Ash");
    expect([plain(r, "Heat"), plain(r, "Ash")]).toEqual([4, 4]);
    expect([credited(r, "Heat"), credited(r, "Ash")]).toEqual([2, 2]);
  });

  it("cost nothing only where the run costs nothing", () => {
    const r = read(
      "gather Reed\nbuy Oil for 5\nPress: 1 Oil -> 3 Lamp oil + 9 Sludge\nWeave: 1 Reed -> 1 Mat + 1 Straw",
    );
    for (const name of ["Lamp oil", "Sludge", "Oil"]) expect(credited(r, name)).toBeGreaterThan(0);
    for (const name of ["Mat", "Straw", "Reed"]) expect(credited(r, name)).toBe(0);
  });

  it("are never above the plain costs, never free where those aren't, and settle in time as in value, on random pantries", () => {
    let lower = 0;
    for (let seed = 1; seed <= 150; seed++) {
      const r = readingsOf(randomPantry(seeded(seed), 4 + (seed % 14)));
      for (const measure of ["value", "time"] as const) {
        const [own, less] = [r[measure].cost, r.credited(measure).cost];
        for (let i = 0; i < r.network.items; i++) {
          expect(less[i]).toBeLessThanOrEqual(own[i] * (1 + 1e-12));
          expect(less[i]).toBeGreaterThanOrEqual(own[i] * 0.1 * (1 - 1e-12));
          expect(Number.isFinite(less[i])).toBe(Number.isFinite(own[i]));
          // Circles that get cheaper at every round may lead both towards nothing.
          if (own[i] > 1e-6 && r.gain.gains.length === 0) expect(less[i]).toBeGreaterThan(0);
          if (less[i] < own[i]) lower++;
        }
      }
    }
    expect(lower).toBeGreaterThan(100);
  });
});
