import { describe, expect, it } from "vitest";
import { packed, unpacked } from "../catalogue/catalogue";
import { usesOf } from "../catalogue/uses";
import { idOf, tried, withUses } from "../testing/tryout";
import { boxOfUse, oddsOf, rolls, tablesIn } from "./opening";
import { leftToChance, partFor, type Request, taste } from "./tasting";

const catalogue = withUses(
  tried({
    resource: { Vigour: { most: "100", start: "50" } },
    stat: { Grip: {} },
    condition: { Warm: { ticks: 100, changes: [{ stat: idOf("Grip"), how: "add", by: "2" }] } },
    item: { Pie: {}, Crate: {}, Rope: {}, Aside: {} },
    table: {
      Finds: {
        chances: [{ chance: 0.25, what: { is: "item", item: idOf("Rope") }, min: 1, max: 2, from: null, to: null }],
      },
    },
    subject: { Mara: { resources: [idOf("Vigour")], stats: { [idOf("Grip")]: "3" } } },
  }),
  { Pie: ["Eat: 50% restores 40 Vigour, Warm, ready in 20s"], Crate: ["Open: draws 2 from Finds"] },
);
const request = (more: Partial<Request> = {}): Request => ({
  subject: idOf("Mara"),
  level: null,
  other: null,
  situation: null,
  worn: null,
  plans: [{ item: idOf("Pie"), use: null, rule: { is: "ready" } }],
  harm: [{ resource: idOf("Vigour"), tick: 0, perSecond: 1 }],
  ticks: 1000,
  seed: 1,
  runs: 1,
  ...more,
});

describe("a tasting", () => {
  it("tells the run of its seed, which can be repeated, and is the same in a worker", () => {
    const one = taste(catalogue, request());
    expect(taste(catalogue, request())).toEqual(one);
    expect(one?.moments.map((m) => m.tick)).toEqual([0, 200, 400, 600, 800, 1000]);
    expect(one?.uptime).toEqual([{ condition: idOf("Warm"), share: 0.5 }]);
    expect(one?.spent).toEqual([{ item: idOf("Pie"), count: 6 }]);
    expect(one?.stats).toEqual([
      {
        stat: idOf("Grip"),
        curve: {
          ticks: [0, 0, 100, 200, 300, 400, 500, 600, 700, 800, 900, 1000],
          values: [3, 5, 3, 5, 3, 5, 3, 5, 3, 5, 3, 5],
        },
      },
    ]);
    const part = partFor(catalogue, request());
    expect([...part.records.item.keys()]).toEqual([idOf("Pie")]);
    const sent = unpacked(structuredClone(packed(part, { bytes: false })));
    expect(taste(sent, request())).toEqual(one);
  });

  it("counts what steady harm takes as drained, and draws from a table as left to chance", () => {
    const harmed = taste(catalogue, request({ plans: [], ticks: 300 }));
    expect(harmed?.resources[0]).toMatchObject({ drained: 30, restored: 0, least: 20 });
    const emptied = taste(catalogue, request({ plans: [] }));
    expect(emptied?.resources[0]).toMatchObject({ drained: 50, least: 0 });
    const plan = (item: string) => ({ plans: [{ item: idOf(item), use: null, rule: { is: "ready" } as const }] });
    expect(["Pie", "Crate", "Rope"].map((item) => leftToChance(catalogue, plan(item)))).toEqual([true, true, false]);
  });

  it("tells means and a band over many runs, and stops when it is asked to", () => {
    const many = taste(catalogue, request({ runs: 300 }));
    const [vigour] = many?.resources ?? [];
    // Six uses of which each restores 40 with one half: 120 in the mean.
    expect((vigour.restored + vigour.wasted) / 120).toBeCloseTo(1, 1);
    expect(vigour.band?.low.every((low, k) => low <= (vigour.band?.high[k] ?? 0))).toBe(true);
    expect(vigour.band?.low.some((low, k) => low < (vigour.band?.high[k] ?? 0))).toBe(true);
    expect(taste(catalogue, request({ runs: 300 }), () => false)?.runs).toBe(20);
    expect(taste(catalogue, request({ subject: idOf("Nobody") }))).toBe(null);
  });
});

describe("opening", () => {
  const crate = catalogue.records.item.get(idOf("Crate"));
  const [use] = crate ? usesOf(catalogue, crate) : [];
  const box = boxOfUse(use, ({ amount }) => Number(amount ?? 1));
  const tables = tablesIn(catalogue, box);

  it("tells each thing exactly, and rolls beside it", () => {
    const { things, nothing } = oddsOf(box, tables, 1, 3);
    expect(nothing).toBeCloseTo(0.75 ** 2, 12);
    expect(things[0]).toMatchObject({ thing: `item:${idOf("Rope")}` });
    expect(things[0].mean).toBeCloseTo(2 * 0.25 * 1.5, 12);
    expect(things[0].any).toBeCloseTo(1 - 0.75 ** 2, 12);
    expect(things[0].bars.map(({ amount, p }) => [amount, Number(p.toFixed(6))])).toEqual([
      [0, 0.5625],
      [1, 0.1875],
      [2, 0.203125],
      [3, 0.03125],
      [4, 0.015625],
    ]);
    const rolled = rolls(box, tables, 1, 10_000, 7);
    expect(rolled.things[0].mean / things[0].mean).toBeCloseTo(1, 1);
    expect(rolled.nothing / nothing).toBeCloseTo(1, 1);
    expect(rolls(box, tables, 1, 10_000, 7)).toEqual(rolled);
    expect(rolls(box, tables, 1, 10_000, 7, () => false).times).toBe(499);
  });
});
