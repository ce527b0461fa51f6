import { Budget } from "../budget/budget";
import { describe, expect, it } from "vitest";
import { atLeast, chanceOfNone, type Distribution, expectedOf, fewestRuns } from "../analysis/chances";
import { toNumber } from "../numbers/fraction";
import { seeded } from "../numbers/seeded";
import { line } from "../notation/line";
import type { Id } from "../schema/id";
import { ANYTHING, type Draws, boxOfLines, means, tablesInThemselves, thingsIn } from "../network/box";
import { distributionOf, roller } from "./chance-box";

const id = (name: string) => name.padEnd(12, "0") as Id;
const item = (name: string) => ({ is: "item" as const, item: id(name) });
const thing = (name: string) => `item:${id(name)}`;
const nothing = { is: "nothing" as const };
const entry = (what: Draws["always"][number]["what"], min = 1, max = min) => ({ what, min, max, from: null, to: null });
const EMPTY: Draws = { always: [], chances: [], draws: [] };
const NONE = new Map<Id, Draws>();
const chances = (d: Distribution): { [amount: number]: number } =>
  Object.fromEntries([...d.p].map((p, k) => [(d.from + k) * toNumber(d.step), p]).filter(([, p]) => p > 0));

describe("what comes by chance", () => {
  it("has the chances of two draws of five marbles without putting back", () => {
    // Three floats of glass, two of cork: two are drawn. Both glass: 3/5 · 2/4 = 0.3; one: 0.6; none: 0.1.
    const glass = { weight: 1, ...entry(item("glass")) };
    const cork = { weight: 1, ...entry(item("cork")) };
    const box: Draws = { ...EMPTY, draws: [{ times: 2, back: false, entries: [glass, glass, glass, cork, cork] }] };
    const found = chances(distributionOf(box, thing("glass"), NONE, 1));
    expect(found[0]).toBeCloseTo(0.1, 12);
    expect(found[1]).toBeCloseTo(0.6, 12);
    expect(found[2]).toBeCloseTo(0.3, 12);
    expect(means(box, NONE, 1).get(thing("glass"))).toBeCloseTo(1.2, 12);
  });

  it("goes through tables in tables, and levels take entries out of a draw", () => {
    const inner: Draws = { ...EMPTY, chances: [{ chance: 0.5, ...entry(item("pearl"), 1, 2) }] };
    const deep = { weight: 3, ...entry({ is: "table", table: id("inner") }, 2) };
    const high = { weight: 7, ...entry(item("brass")), from: 10 };
    const box: Draws = {
      ...EMPTY,
      draws: [{ times: 1, back: true, entries: [deep, { weight: 1, ...entry(nothing) }, high] }],
    };
    const tables = new Map([[id("inner"), inner]]);
    // Below level 10 the inner table opens with 3/4, twice; each opening gives 0, 1, 2 with 1/2, 1/4, 1/4.
    const low = chances(distributionOf(box, thing("pearl"), tables, 1));
    expect(low[0]).toBeCloseTo(1 / 4 + (3 / 4) * (1 / 4), 12);
    expect(low[4]).toBeCloseTo((3 / 4) * (1 / 16), 12);
    expect(expectedOf(distributionOf(box, thing("pearl"), tables, 1))).toBeCloseTo(0.75 * 2 * 0.75, 12);
    expect(means(box, tables, 12).get(thing("brass"))).toBeCloseTo(7 / 11, 12);
    expect(thingsIn(box, tables, 1)).toEqual([thing("pearl")]);
    expect(chanceOfNone(distributionOf(box, ANYTHING, tables, 1))).toBeCloseTo(1 / 4 + 3 / 16, 12);
  });

  it("says how many it takes for one of a thing that comes once in twenty: 14, 45 and 90", () => {
    const box: Draws = { ...EMPTY, chances: [{ chance: 0.05, ...entry(item("pearl")) }] };
    const one = distributionOf(box, thing("pearl"), NONE, 1);
    expect([0.5, 0.9, 0.99].map((sure) => fewestRuns(one, 1, sure))).toEqual([14, 45, 90]);
    expect(atLeast(one, 1)).toBeCloseTo(0.05, 12);
  });

  it("ends where a table is in itself, and says that it is", () => {
    const box: Draws = { ...EMPTY, always: [entry(item("salt")), entry({ is: "table", table: id("loop") })] };
    const tables = new Map([[id("loop"), box]]);
    expect([...tablesInThemselves(tables)]).toEqual([id("loop")]);
    expect(means(box, tables, 1).get(thing("salt"))).toBe(1);
    const into = new Float64Array(1);
    roller(box, tables, 1, [thing("salt")], new Budget(1000))(seeded(1), into);
    expect(into[0]).toBe(1);
  });

  it("is the same for lines of a recipe, which are a table written in place", () => {
    const drawn = (name: string, weight: number) => ({
      ...line("output", id(name)),
      draw: { group: 1, times: 3, weight, of: 4 },
    });
    const box = boxOfLines([
      line("output", id("peat"), 2),
      line("output", id("shell"), 1, 3, 0.25),
      drawn("rope", 1),
      drawn("tar", 2),
    ]);
    const mean = means(box, NONE, 0);
    expect(mean.get(thing("peat"))).toBe(2);
    expect(mean.get(thing("shell"))).toBe(0.5);
    expect(mean.get(thing("rope"))).toBe(0.75);
    expect(mean.get(thing("tar"))).toBe(1.5);
    expect(chanceOfNone(distributionOf(box, thing("rope"), NONE, 0))).toBeCloseTo(0.75 ** 3, 12);
  });

  /** Anything a box may have, small. */
  function randomBox(random: () => number, tables: readonly Id[]): Draws {
    const below = (n: number) => Math.floor(random() * n);
    const some = <T>(most: number, make: () => T) => Array.from({ length: below(most + 1) }, make);
    const what = () => {
      const sort = below(tables.length ? 5 : 4);
      if (sort === 4) return entry({ is: "table" as const, table: tables[below(tables.length)] }, 1 + below(2));
      if (sort === 3) return entry(nothing);
      const min = below(3);
      return entry(item("abc"[sort]), min, min + below(3));
    };
    return {
      always: some(1, what),
      chances: some(2, () => ({ chance: random(), ...what() })),
      draws: some(2, () => ({
        times: 1 + below(3),
        back: random() < 0.5,
        entries: Array.from({ length: 1 + below(4) }, () => ({ weight: 1 + below(3), ...what() })),
      })),
    };
  }

  it("agrees with rolling, by the chi-squared test over fixed seeds, and its means with its distributions", () => {
    for (let seed = 1; seed <= 25; seed++) {
      const random = seeded(seed);
      const tables = new Map<Id, Draws>();
      for (const name of ["one", "two"]) tables.set(id(name), randomBox(random, [...tables.keys()]));
      const box = randomBox(random, [...tables.keys()]);
      const things = ["a", "b", "c"].map(thing);
      const mean = means(box, tables, 1);
      const [roll, n] = [roller(box, tables, 1, things, new Budget(1e8)), 4000];
      const counts = things.map(() => new Map<number, number>());
      for (let k = 0; k < n; k++) {
        const into = new Float64Array(3);
        roll(random, into);
        for (const [t, amount] of into.entries()) counts[t].set(amount, (counts[t].get(amount) ?? 0) + 1);
      }
      for (const [t, name] of things.entries()) {
        const d = distributionOf(box, name, tables, 1);
        expect(d.p.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
        expect(expectedOf(d)).toBeCloseTo(mean.get(name) ?? 0, 9);
        // Amounts that are met less than five times in the mean are taken together.
        let [squares, degrees, rareSeen, rareDue] = [0, -1, 0, 0];
        const put = (seen: number, due: number) => {
          squares += (seen - due) ** 2 / due;
          degrees++;
        };
        for (const [amount, p] of Object.entries(chances(d))) {
          const seen = counts[t].get(Number(amount)) ?? 0;
          if (p * n >= 5) put(seen, p * n);
          else [rareSeen, rareDue] = [rareSeen + seen, rareDue + p * n];
        }
        if (rareDue >= 5) put(rareSeen, rareDue);
        // Mean and variance of chi-squared are its degrees and twice those: five standard deviations and a little.
        if (degrees > 0) expect(squares, `${seed} ${name}`).toBeLessThan(degrees + 5 * Math.sqrt(2 * degrees) + 5);
        else expect(rareSeen).toBeLessThan(30);
      }
    }
  });
});
