import { describe, expect, it } from "vitest";
import { Engine } from "../engine/engine";
import { setField, type Value } from "../catalogue/edit";
import { nth, world } from "../testing/stalls";

/** Shops, each a list of prices of the same wares; what is bought sells for nine tenths of the dearest. */
const market = (prices: readonly (readonly number[])[], currencyOf: (shop: number) => number = () => 0) =>
  world({
    currency: [{ worth: 1 }, { worth: 2 }],
    item: prices[0].map(() => ({ status: "ready" as const })),
    source: prices.map((of, shop) => ({
      kind: "shop" as const,
      share: 0.9,
      currency: nth("currency", currencyOf(shop)),
      wares: of.map((price, k) => ({
        item: nth("item", k),
        amount: 1,
        price,
        currency: null,
        stock: null,
        restock: null,
        level: null,
      })),
    })),
  });
const shopsIn = (engine: Engine) =>
  engine.readings.gain.gains.map(({ runs }) =>
    runs.flatMap(({ step }) => (step.run === "process" ? [engine.readings.compiled.behind(step.process)?.id] : [])),
  );

describe("a market", () => {
  it("is searched with the cheapest shop for each ware, so that loops are as many as wares that gain", () => {
    const engine = new Engine(
      market([
        [10, 30],
        [12, 20],
        [20, 21],
      ]),
    );
    const { gain } = engine.readings;
    expect(gain.complete).toBe(true);
    // The first ware for 10 sells for 18, the second for 20 sells for 27.
    expect(shopsIn(engine).sort()).toEqual([[nth("source", 0)], [nth("source", 1)]]);
    // Where the cheapest asks more than it sells for, the next one is found; where that does too, none is left.
    const dearer = (shop: number, price: number) => {
      const { catalogue } = engine;
      const wares = catalogue.records.source.get(nth("source", shop))?.wares ?? [];
      const raised = wares.map((ware, k) => (k ? ware : { ...ware, price }));
      engine.change([setField(catalogue, "source", nth("source", shop), "wares", raised as unknown as Value)]);
    };
    dearer(0, 19);
    expect(shopsIn(engine).sort()).toEqual([[nth("source", 1)], [nth("source", 1)]]);
    dearer(1, 19);
    expect(shopsIn(engine)).toEqual([[nth("source", 1)]]);
    expect(shopsIn(engine)).toEqual(shopsIn(new Engine(engine.catalogue)));
  });

  it("of sixty shops with thirty wares each is searched with one purchase and one sale for each ware", () => {
    const prices = (shop: number) => Array.from({ length: 30 }, (_, ware) => 10 + ((shop * 7 + ware * 3) % 11));
    const { gain } = new Engine(market(Array.from({ length: 60 }, (_, shop) => prices(shop)))).readings;
    expect(gain.complete).toBe(true);
    expect(gain.gains).toHaveLength(30);
    expect(gain.columns).toBeLessThanOrEqual(2 * 30);
  });
});
