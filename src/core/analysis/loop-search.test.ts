import { describe, expect, it } from "vitest";
import type { Compiled } from "../network/compile";
import { processAt } from "../network/compile";
import { netYield } from "../network/expected";
import { ALIVE, FREE } from "../network/network";
import { add, type Fraction, fraction, fromNumber, multiply, negate, sign, ZERO } from "../numbers/fraction";
import { nearTies } from "../testing/circle";
import { kitchen } from "../testing/kitchen";
import { processesOf, told } from "../testing/told";
import { seeded } from "../numbers/seeded";
import { readingsOf } from "./readings";
import { EXACT, maximise } from "./simplex";

/** Exact nets of the given processes, by item. */
function nets(network: Compiled, processes: readonly number[]): Fraction[][] {
  const rows = new Map<string, Fraction[]>();
  processes.forEach((p, k) => {
    for (const [id, q] of netYield(processAt(network, p).spec.lines)) {
      const row = rows.get(id) ?? processes.map(() => ZERO);
      row[k] = q;
      rows.set(id, row);
    }
  });
  return [...rows.values()];
}
const total = (rows: readonly Fraction[][], k: number) => rows.reduce((t, row) => add(t, row[k]), ZERO);

/** Whether some of the processes gain together: one exact programme over all of them. */
function gainsExactly(network: Compiled, processes: readonly number[]): boolean {
  if (!processes.length) return false;
  const rows = nets(network, processes);
  const one = fraction(1n);
  const best = maximise(
    EXACT,
    [...rows.map((row) => row.map(negate)), processes.map(() => one)],
    [...rows.map(() => ZERO), one],
    processes.map((_, k) => total(rows, k)),
  );
  return best !== null && sign(best.value) > 0;
}
const goers = ({ network }: Compiled) =>
  Array.from({ length: network.processes }, (_, p) => p).filter((p) => (network.flags[p] & (ALIVE | FREE)) === ALIVE);

describe("the search for gaining loops", () => {
  it("agrees with one exact programme over all recipes, right at the border between losing and gaining", () => {
    const seen = { gain: 0, none: 0 };
    for (let seed = 1; seed <= 400; seed++) {
      const { compiled: network, gain } = readingsOf(
        kitchen(nearTies({ seed, items: 3 + (seed % 8), recipes: 3 + (seed % 11), gaining: 0.06 })),
      );
      const truth = gainsExactly(network, goers(network));
      seen[truth ? "gain" : "none"]++;
      expect({ seed, gains: gain.gains.length > 0, complete: gain.complete }).toEqual({
        seed,
        gains: truth,
        complete: true,
      });
      for (const { runs } of gain.gains) {
        // Each is minimal: without any one of its recipes, the others don't gain.
        for (const left of runs)
          expect(gainsExactly(network, processesOf({ runs: runs.filter((r) => r !== left) } as never))).toBe(false);
      }
    }
    expect(seen.gain).toBeGreaterThan(20);
    expect(seen.none).toBeGreaterThan(200);
  });

  it("finds every minimal loop of small networks, none twice", () => {
    let several = 0;
    for (let seed = 1; seed <= 120; seed++) {
      const { compiled: network, gain } = readingsOf(
        kitchen(nearTies({ seed: 1000 + seed, items: 3, recipes: 6, gaining: 0.3 })),
      );
      const all = goers(network);
      const gaining = new Set<string>();
      // Smaller sets first, so that a set is minimal where none of its parts was found.
      const sets = Array.from({ length: 2 ** all.length - 1 }, (_, bits) =>
        all.filter((_p, k) => ((bits + 1) >> k) & 1),
      ).sort((a, b) => a.length - b.length);
      const minimal: number[][] = [];
      for (const set of sets)
        if (!minimal.some((m) => m.every((p) => set.includes(p))) && gainsExactly(network, set)) minimal.push(set);
      for (const m of minimal) gaining.add([...m].sort((a, b) => a - b).join());
      expect(
        gain.gains
          .map(({ runs }) =>
            processesOf({ runs } as never)
              .sort((a, b) => a - b)
              .join(),
          )
          .sort(),
      ).toEqual([...gaining].sort());
      if (minimal.length > 1) several++;
    }
    expect(several).toBeGreaterThan(10);
  });

  it("sees through recipes that undo each other exactly: gains beside them, no gain where there is none, each loop minimal", () => {
    const seen = { gain: 0, none: 0 };
    for (let seed = 1; seed <= 250; seed++) {
      const random = seeded(seed);
      const between = (a: number, b: number) => a + Math.floor(random() * (b - a + 1));
      const items = 3 + (seed % 6);
      const rows = [nearTies({ seed: 5000 + seed, items, recipes: 2 + (seed % 7), gaining: 0.08 })];
      for (let n = between(1, items); n > 0; n--) {
        const [a, b] = [between(0, items - 1), between(0, items - 1)];
        if (a !== b)
          rows.push(
            `Pack ${n}: ${between(2, 9)} I${a} -> 1 I${b}`.replace(
              /^(Pack \d+): (\d+) (I\d+) -> 1 (I\d+)$/,
              (_, name: string, q: string, x: string, y: string) =>
                `${name}: ${q} ${x} -> 1 ${y}\nUn${name}: 1 ${y} -> ${q} ${x}`,
            ),
          );
      }
      const { compiled, gain } = readingsOf(kitchen(rows.join("\n")));
      const truth = gainsExactly(compiled, goers(compiled));
      seen[truth ? "gain" : "none"]++;
      expect({ seed, gains: gain.gains.length > 0, complete: gain.complete }).toEqual({
        seed,
        gains: truth,
        complete: true,
      });
      for (const { runs } of gain.gains)
        for (const left of runs)
          expect(
            gainsExactly(compiled, processesOf({ runs: runs.filter((r) => r !== left) } as never)),
            `seed ${seed}`,
          ).toBe(false);
      for (const { runs } of gain.even) {
        const rows = nets(compiled, processesOf({ runs } as never));
        expect(
          rows.every((row) => sign(row.reduce((t, q, k) => add(t, multiply(q, fraction(runs[k].times))), ZERO)) === 0),
        ).toBe(true);
      }
    }
    expect(seen.gain).toBeGreaterThan(20);
    expect(seen.none).toBeGreaterThan(40);
  });

  it("finds one gain among eighty pairs that undo each other, in one circle, and names every pair as even", () => {
    const rows = Array.from(
      { length: 80 },
      (_, i) =>
        `Pack ${i}: 9 M${i} -> 1 B${i}\nUnpack ${i}: 1 B${i} -> 9 M${i}${i ? `\nTurn ${i}: 3 M${i - 1} -> 1 M${i}\nBack ${i}: salvage M${i} -> 2 M${i - 1}` : ""}`,
    );
    const clean = readingsOf(kitchen(rows.join("\n"))).gain;
    expect({ gains: clean.gains.length, even: clean.even.length, complete: clean.complete }).toEqual({
      gains: 0,
      even: 80,
      complete: true,
    });
    const planted = readingsOf(kitchen([...rows, "Planted: 1 M12 + 1 B11 -> 30 M11"].join("\n")));
    expect(told(planted)).toEqual(["1 Pack 11 + 1 Planted + 1 Turn 12 => 18 M11"]);
  });

  it("proves that large circles near the border lose, without giving up", () => {
    for (const seed of [2, 3, 5, 8]) {
      const { gain } = readingsOf(kitchen(nearTies({ seed, items: 60, recipes: 180, gaining: 0 })));
      expect({ seed, found: gain.gains.length, complete: gain.complete }).toEqual({ seed, found: 0, complete: true });
    }
  });

  it("finds a gain that only many recipes of a large circle give together, and proves its runs", () => {
    let found = 0;
    for (const seed of [11, 13]) {
      const { compiled: network, gain } = readingsOf(
        kitchen(nearTies({ seed, items: 24, recipes: 155, gaining: 0.004 })),
      );
      for (const { runs, net } of gain.gains) {
        const rows = nets(network, processesOf({ runs } as never));
        const sums = rows
          .map((row) => row.reduce((t, q, k) => add(t, multiply(q, fraction(runs[k].times))), ZERO))
          .filter((q) => sign(q) !== 0);
        expect(sums.every((q) => sign(q) > 0)).toBe(true);
        expect(sums.length).toBe(net.length);
        found = Math.max(found, runs.length);
      }
    }
    expect(found).toBeGreaterThan(4);
  });

  it("finds loops side by side, however many, without mixing them", () => {
    const text = Array.from(
      { length: 25 },
      (_, i) =>
        `Make ${i}: 2 X${i} + 1 Y${i} -> 1 Z${i}\nBreak ${i}: salvage Z${i} -> 3 X${i} + 1 Y${i}\nTurn ${i}: 1 X${i} -> 1 X${(i + 1) % 25} 90%`,
    );
    const { gain } = readingsOf(kitchen(text.join("\n")));
    expect(gain.complete).toBe(true);
    expect(gain.gains).toHaveLength(25);
    for (const { runs } of gain.gains) expect(runs.map((r) => r.times)).toEqual([1n, 1n]);
  });

  it("tells exactly even from the smallest gain and the smallest loss, in a circle of its own and in a large one", () => {
    const large = Array.from(
      { length: 200 },
      (_, i) => `C${i}: 2 M${i} -> 1 M${i + 1}\nS${i}: salvage M${i + 1} -> 1 M${i}`,
    ).join("\n");
    for (const rest of ["", large]) {
      const verdict = (back: string) => {
        const r = readingsOf(kitchen(`gather M0 in 5s\nThere: 7 M0 -> 3 A\nBack: 3 A -> ${back} M0\n${rest}`));
        return { gains: r.gain.gains.length, even: r.gain.even.length > 0, complete: r.gain.complete };
      };
      expect(verdict("7")).toEqual({ gains: 0, even: true, complete: true });
      expect(verdict("7.0000001")).toEqual({ gains: 1, even: false, complete: true });
      expect(verdict("6.9999999")).toEqual({ gains: 0, even: false, complete: true });
    }
  });

  it("is not misled by thirds and tenths that floats can't hold", () => {
    const verdict = (line: string) => readingsOf(kitchen(`A: 0.1 X + 0.2 X -> 1 Y\n${line}`)).gain.gains.length;
    expect(verdict("B: 1 Y -> 0.3 X")).toBe(0);
    expect(verdict("B: 1 Y -> 0.9 X 33.3333333%")).toBe(0);
    expect(verdict("B: 1 Y -> 0.9 X 33.3333334%")).toBe(1);
    expect(fromNumber(0.333333334).d > 1n).toBe(true);
  });
});
