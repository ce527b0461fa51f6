import { withRecords } from "../catalogue/catalogue";
import { gaining } from "./registry";
import { describe, expect, it } from "vitest";
import { apply } from "../catalogue/apply";
import { seeded } from "../numbers/seeded";
import { randomEdits, randomPantry } from "../testing/random";
import { at, nameAt, read } from "../testing/told";
import { MARGIN, Prices } from "./prices";
import { type Readings, readingsOf } from "./readings";

const pricesOf = (r: Readings) => new Prices(r.compiled, r.reach);
/** What a run gives less what it takes, under prices, and what it takes. */
function balance(r: Readings, { price }: Prices, p: number): { left: number; taken: number } {
  const { ins, outs, money } = r.network;
  let taken = money[p];
  for (let k = ins.start[p]; k < ins.end[p]; k++) taken += (ins.qty as Float64Array)[k] * price[ins.to[k]];
  let given = 0;
  for (let k = outs.start[p]; k < outs.end[p]; k++) given += (outs.qty as Float64Array)[k] * price[outs.to[k]];
  return { left: given - taken, taken };
}
const partakers = (r: Readings, prices: Prices) =>
  Array.from({ length: r.network.processes }, (_, p) => p).filter((p) => prices.takesPart(p));
/** Every process that is no seed loses at least the margin, and every sale that is not listed. */
function holds(r: Readings, prices: Prices): void {
  for (const p of partakers(r, prices)) {
    const { left, taken } = balance(r, prices, p);
    if (!prices.violators.has(p)) expect(left).toBeLessThanOrEqual(-taken * MARGIN * 0.999);
  }
  for (let i = 0; i < r.network.items; i++) {
    expect(prices.price[i]).toBeGreaterThan(0);
    if (prices.trades && !prices.sold.has(i)) expect(r.compiled.sells[i]).toBeLessThanOrEqual(prices.price[i]);
  }
}

describe("prices", () => {
  it("prove a chain with salvage clean, in one pass", () => {
    const r = read(
      "gather Hemp in 10s\nYarn: 2 Hemp -> 1 Yarn\nRope: 3 Yarn -> 1 Rope\nPick: salvage Rope -> 2 Yarn\nUnspin: salvage Yarn -> 1 Hemp 90%",
    );
    const prices = pricesOf(r);
    expect(prices.clean).toBe(true);
    expect(prices.prove()).toBe(true);
    holds(r, prices);
  });

  it("name a seed in a circle that gains, and in one that comes out even", () => {
    for (const back of [3, 2]) {
      const r = read(`gather Rope\nTie: 2 Rope -> 1 Net\nsalvage Net -> ${back} Rope`);
      const prices = pricesOf(r);
      expect(prices.clean).toBe(false);
      expect(prices.prove()).toBe(false);
      expect(prices.violators.size).toBeGreaterThan(0);
    }
  });

  it("let nothing that only comes from outside be sold at a gain", () => {
    const r = read("gather Eel in 1s\nbuy Salt for 2\nCure: 1 Eel + 1 Salt -> 1 Cured eel");
    const items = new Map(
      [...r.catalogue.records.item].map(([id, item]) => [
        id,
        { ...item, sell: item.name === "Eel" ? 1000 : item.name === "Salt" ? 1 : null },
      ]),
    );
    const sold = readingsOf(withRecords(r.catalogue, { item: r.catalogue.records.item.with(items) }));
    expect(pricesOf(sold).clean).toBe(true);
  });

  it("list a sale that brings more than its purchase takes", () => {
    const r = read("buy Salt for 2");
    const items = new Map([...r.catalogue.records.item].map(([id, item]) => [id, { ...item, sell: 3 }]));
    const dear = readingsOf(withRecords(r.catalogue, { item: r.catalogue.records.item.with(items) }));
    const prices = pricesOf(dear);
    expect([...prices.sold].map((i) => nameAt(dear, i))).toEqual(["Salt"]);
    expect(prices.price[at(dear, "Salt")]).toBeLessThanOrEqual(2);
  });

  it("hold for all but their violators on random pantries", () => {
    for (let seed = 1; seed <= 80; seed++) {
      const r = readingsOf(randomPantry(seeded(seed), 3 + (seed % 15)));
      holds(r, pricesOf(r));
    }
  });

  it("still hold after they were repaired, change after change, as long as they say so", () => {
    let repaired = 0;
    for (let seed = 1; seed <= 25; seed++) {
      const random = seeded(40 + seed);
      let catalogue = randomPantry(random, 4 + (seed % 12));
      const r = readingsOf(catalogue);
      for (let k = 0; k < 12; k++) {
        const outcome = apply(catalogue, randomEdits(random, catalogue));
        if (!outcome.ok) continue;
        catalogue = outcome.catalogue;
        r.advance(catalogue, outcome.edits);
        // The readings' own prices, which were followed through every change so far.
        const { prices } = r.state(gaining);
        holds(r, prices);
        repaired++;
      }
    }
    expect(repaired).toBeGreaterThan(200);
  });
});
