import { describe, expect, it } from "vitest";
import {
  add,
  compare,
  type Fraction,
  fraction,
  fromNumber,
  multiply,
  negate,
  sign,
  toNumber,
  ZERO,
} from "../numbers/fraction";
import { seeded } from "../numbers/seeded";
import { Conversions, type Turn, turnOf } from "./conversions";

/** Process p turns a of one thing into b of another. */
const turn = (process: number, from: number, a: number, to: number, b: number): Turn => ({
  process,
  from,
  to,
  takes: fromNumber(a),
  gives: fromNumber(b),
});
const pair = (process: number, from: number, a: number, to: number, b: number): Turn[] => [
  turn(process, from, a, to, b),
  turn(process + 1, to, b, from, a),
];
const net = (entries: readonly (readonly [number, number])[]): Map<number, Fraction> =>
  new Map(entries.map(([thing, n]) => [thing, fromNumber(n)]));
const plain = (of: ReadonlyMap<number, Fraction>) =>
  Object.fromEntries([...of].map(([thing, q]) => [thing, toNumber(q)]));

describe("things tied together", () => {
  it("count as one, in exact multiples, over several pairs", () => {
    // A block is nine bars, a bar nine nuggets.
    const tied = new Conversions([...pair(0, 1, 9, 2, 1), ...pair(2, 2, 9, 3, 1)]);
    expect(tied.pairs).toHaveLength(2);
    expect([...tied.dropped].sort()).toEqual([0, 1, 2, 3]);
    expect([...tied.things()].sort()).toEqual([1, 2, 3]);
    const worth = (thing: number) => tied.root(thing).factor;
    expect(compare(worth(2), multiply(fraction(9n), worth(1)))).toBe(0);
    expect(compare(worth(3), multiply(fraction(81n), worth(1)))).toBe(0);
    expect([1, 2, 3].map((t) => tied.root(t).root)).toEqual([tied.root(1).root, tied.root(1).root, tied.root(1).root]);
    expect(
      plain(
        tied.merged(
          net([
            [3, 1],
            [1, -81],
          ]),
        ),
      ),
    ).toEqual({});
    expect(
      tied.merged(
        net([
          [3, 1],
          [1, -80],
        ]),
      ).size,
    ).toBe(1);
  });

  it("are only those whose pair loses nothing, to the last digit", () => {
    expect(new Conversions([turn(0, 1, 3, 2, 1), turn(1, 2, 1, 1, 2.999999)]).any).toBe(false);
    expect(new Conversions([turn(0, 1, 0.3, 2, 0.1), turn(1, 2, 0.1, 1, 0.3)]).any).toBe(true);
    expect(new Conversions([turn(0, 1, 3, 2, 1)]).any).toBe(false);
  });

  it("leave a pair that contradicts the others to be looked at as it is", () => {
    const tied = new Conversions([...pair(0, 1, 2, 2, 1), ...pair(2, 2, 2, 3, 1), ...pair(4, 1, 5, 3, 1)]);
    expect([...tied.dropped].sort()).toEqual([0, 1, 2, 3]);
    expect(tied.pairs).toHaveLength(2);
    expect(
      new Conversions([...pair(0, 1, 2, 2, 1), ...pair(2, 2, 2, 3, 1), ...pair(4, 1, 4, 3, 1)]).pairs,
    ).toHaveLength(3);
  });

  it("are known as tied from whichever end their tree was hung", () => {
    const tied = new Conversions([...pair(0, 5, 2, 6, 1), ...pair(2, 1, 3, 2, 1), ...pair(4, 2, 1, 6, 4)]);
    for (const thing of [1, 2, 5, 6]) expect(tied.counted(thing)).toBe(true);
    expect(tied.counted(3)).toBe(false);
    expect(new Set([1, 2, 5, 6].map((t) => tied.root(t).root)).size).toBe(1);
  });

  it("make up for each other with the turns between them, on random trees", () => {
    for (let seed = 1; seed <= 60; seed++) {
      const random = seeded(seed);
      const between = (a: number, b: number) => a + Math.floor(random() * (b - a + 1));
      const turns: Turn[] = [];
      for (let thing = 1; thing < 7; thing++)
        turns.push(...pair(2 * thing, between(0, thing - 1), between(1, 9), thing, between(1, 9)));
      const tied = new Conversions(turns);
      const [have, lack] = [between(0, 6), between(0, 6)];
      if (have === lack) continue;
      const amount = fraction(BigInt(between(1, 20)));
      const same = multiply(
        amount,
        fraction(
          tied.root(have).factor.n * tied.root(lack).factor.d,
          tied.root(have).factor.d * tied.root(lack).factor.n,
        ),
      );
      const need = new Map([
        [have, amount],
        [lack, negate(same)],
      ]);
      const used = tied.makeUp(need);
      // Run so that each thing in between comes out even, they leave nothing over and nothing short.
      const left = new Map(need);
      for (let round = 0; round < used.length + 1; round++)
        for (const t of used) {
          const there = left.get(t.from) ?? ZERO;
          if (sign(there) <= 0) continue;
          const runs = multiply(there, fraction(t.takes.d, t.takes.n));
          left.set(t.from, ZERO);
          left.set(t.to, add(left.get(t.to) ?? ZERO, multiply(runs, t.gives)));
        }
      expect([...left.values()].every((q) => sign(q) === 0)).toBe(true);
    }
  });
});

describe("a turn", () => {
  it("takes one thing and gives one other", () => {
    expect(
      turnOf(
        4,
        net([
          [1, -9],
          [2, 1],
        ]),
      ),
    ).toMatchObject({ process: 4, from: 1, to: 2 });
    expect(
      turnOf(
        4,
        net([
          [1, 1],
          [2, -9],
        ]),
      ),
    ).toMatchObject({ from: 2, to: 1 });
    for (const none of [
      [[1, -9]],
      [
        [1, -9],
        [2, -1],
      ],
      [
        [1, 9],
        [2, 1],
      ],
      [
        [1, -9],
        [2, 1],
        [3, 1],
      ],
    ] as [number, number][][])
      expect(turnOf(0, net(none))).toBeNull();
  });
});
