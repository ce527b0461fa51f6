/** Prices moved until nothing gains: where some would do they are found, where none would it is said. */
import { describe, expect, it } from "vitest";
import { seeded } from "../numbers/seeded";
import { read } from "../testing/told";
import { MARGIN, Prices } from "./prices";
import type { Readings } from "./readings";
import { relax } from "./relaxation";

const ROUNDS = { margin: MARGIN, floor: () => 0, most: 20_000 };
const all = ({ network }: Readings) => Array.from({ length: network.processes }, (_, p) => p);
/** From prices that have nothing to do with the recipes. */
const anyPrices = ({ network }: Readings, random: () => number) =>
  Float64Array.from({ length: network.items }, () => 0.1 + 10 * random());

function relaxed(r: Readings, price: Float64Array, mayBePutAside: (p: number) => boolean = () => false) {
  const prices = new Prices(r.compiled, r.reach);
  const takesPart = (p: number) => prices.takesPart(p);
  return relax(r.network, price, { ...ROUNDS, first: all(r), takesPart, mayBePutAside });
}
/** Processes that give more than they take less the margin. */
function gaining(r: Readings, price: Float64Array): number[] {
  const { ins, outs } = r.network;
  const prices = new Prices(r.compiled, r.reach);
  const worth = ({ start, end, to, qty }: typeof ins, p: number) => {
    let sum = 0;
    for (let k = start[p]; k < end[p]; k++) sum += (qty as Float64Array)[k] * price[to[k]];
    return sum;
  };
  return all(r).filter(
    (p) => prices.takesPart(p) && worth(outs, p) > (worth(ins, p) + r.network.money[p]) * (1 - MARGIN),
  );
}

describe("relaxation", () => {
  // Crocks go round through three potted things, and what is made of them can be taken apart again.
  const LOSSY =
    "buy Eel for 2\nbuy Crock for 1\nA: 2 Eel + 1 Crock -> 1 Potted\nB: 1 Potted -> 1 Eel + 1 Crock\nC: 1 Potted + 1 Eel -> 1 Supper\nD: 1 Supper -> 1 Crock + 1 Eel + 1 Eel";

  it("finds prices under which every run loses, wherever it begins", () => {
    const r = read(LOSSY);
    const random = seeded(3);
    for (let n = 0; n < 40; n++) {
      const price = anyPrices(r, random);
      expect(relaxed(r, price)?.aside.size, String(n)).toBe(0);
      expect(gaining(r, price)).toEqual([]);
      expect(price.every((p) => p > 0 && Number.isFinite(p))).toBe(true);
    }
  });

  it("ends where there are none: nothing is moved forever, and what gains is put aside where it may be", () => {
    const r = read(`${LOSSY}\nE: 1 Supper -> 4 Eel + 1 Crock`);
    const price = anyPrices(r, seeded(5));
    expect(relaxed(r, price)).toBe(null);
    const found = relaxed(r, anyPrices(r, seeded(5)), () => true);
    expect(found?.aside.size).toBeGreaterThan(0);
  });

  it("holds what is put aside to itself: all others lose", () => {
    const r = read(`${LOSSY}\nE: 1 Supper -> 4 Eel + 1 Crock`);
    const price = anyPrices(r, seeded(7));
    const found = relaxed(r, price, () => true);
    if (!found) throw new Error("it did not end");
    expect(gaining(r, price).every((p) => found.aside.has(p))).toBe(true);
  });

  it("lets no price fall below its floor", () => {
    const r = read(LOSSY);
    const price = anyPrices(r, seeded(9));
    const prices = new Prices(r.compiled, r.reach);
    const floor = () => 0.05;
    relax(r.network, price, {
      ...ROUNDS,
      floor,
      first: all(r),
      takesPart: (p) => prices.takesPart(p),
      mayBePutAside: () => false,
    });
    expect(Math.min(...price)).toBeGreaterThanOrEqual(0.05);
  });
});
