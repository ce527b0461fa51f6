import { describe, expect, it } from "vitest";
import { emptyCatalogue, withRecords } from "../catalogue/catalogue";
import type { Edit } from "../catalogue/edit";
import { planImport } from "../exchange/read";
import { seeded } from "../numbers/seeded";
import { must, pantry } from "../testing/kitchen";
import { randomPantry } from "../testing/random";
import { at, itemsIn, label, nameAt, read } from "../testing/told";
import { generate } from "../../demo/generate";
import { Reach } from "../network/reach";
import { type Readings, readingsOf } from "./readings";

const cause = (r: Readings, name: string) => {
  const found = r.causes.get(at(r, name));
  return (
    found && {
      leaves: found.leaves.map((i) => nameAt(r, i)),
      by: found.by < 0 ? null : label(r, found.by),
      smallest: found.smallest,
    }
  );
};
const given = (r: Readings, items: readonly number[]): Uint8Array => {
  const some = new Uint8Array(r.network.items);
  for (const i of items) some[i] = 1;
  return some;
};

/** All sets of a size. */
function* sets<T>(list: readonly T[], size: number, from = 0): Generator<T[]> {
  if (size === 0) yield [];
  else
    for (let k = from; k < list.length; k++) for (const rest of sets(list, size - 1, k + 1)) yield [list[k], ...rest];
}

describe("the nearest repair", () => {
  it("names one leaf where two ways need it, and counts it once", () => {
    const r = read("Bind: 1 Glass -> 1 Lens\nRing: 1 Glass -> 1 Ring\nLamp: 1 Lens + 1 Ring -> 1 Lamp");
    expect(cause(r, "Lamp")).toEqual({ leaves: ["Glass"], by: "Lamp", smallest: true });
  });

  it("does not go round where salvage gives back what was made of it", () => {
    // Both ways to Cloth count one leaf; the one through Sail would rest on itself.
    for (const names of [
      ["Aa", "Zz"],
      ["Zz", "Aa"],
    ]) {
      const r = read(`${names[0]}: 1 Hemp -> 1 Cloth\nSew: 1 Cloth -> 1 Sail\n${names[1]}: salvage Sail -> 1 Cloth`);
      for (const item of ["Cloth", "Sail", "Hemp"]) expect(cause(r, item)?.leaves).toEqual(["Hemp"]);
    }
  });

  it("takes the smaller set where the shortest way needs more", () => {
    const r = read("Short: 1 A + 1 B -> 1 Prize\nLong: 1 Step -> 1 Prize\nStep: 1 C -> 1 Step");
    expect(cause(r, "Prize")).toEqual({ leaves: ["C"], by: "Long", smallest: true });
  });

  it("finds a single leaf that counting as a sum misses", () => {
    // By sums Two costs 2 (A and B), One costs 3 (C, three times over): but C alone would do.
    const r = read(
      "Two: 1 A + 1 B -> 1 Prize\nX: 1 C -> 1 X\nY: 1 C -> 1 Y\nZ: 1 C -> 1 Z\nOne: 1 X + 1 Y + 1 Z -> 1 Prize",
    );
    expect(cause(r, "Prize")).toMatchObject({ leaves: ["C"], smallest: true });
  });

  it("breaks a closed circle in as many places as it takes", () => {
    const r = read("P: 1 A + 1 B -> 2 A\nQ: 1 A + 1 B -> 2 B\nEnd: 1 A + 1 B -> 1 End");
    const [stuck] = r.loops.filter((l) => l.verdict === "stuck");
    expect(stuck.items.map((i) => nameAt(r, i))).toEqual(["A", "B"]);
    expect(stuck.breaks.map((i) => nameAt(r, i))).toEqual(["A", "B"]);
    expect(cause(r, "End")).toEqual({ leaves: ["A", "B"], by: "End", smallest: true });
  });

  it("counts what teaches a recipe, its tools and its stations", () => {
    const r = read("gather Eel\nSmoke: 1 Eel -> 1 Smoked eel at Smokehouse using Hook taught by Old book");
    expect(cause(r, "Smoked eel")?.leaves.sort()).toEqual(["Hook", "Old book", "Smokehouse"]);
  });

  it("is followed past where less is tried for each item, and back, as it is found from scratch", () => {
    const empty = emptyCatalogue(pantry());
    let catalogue = must(empty, planImport(empty, JSON.stringify(generate({ items: 900, seed: 4 }))).edits);
    const r = readingsOf(catalogue);
    const told = (of: Readings) =>
      [...of.causes]
        .map(([i, c]) =>
          JSON.stringify([
            of.compiled.idOf(i),
            c.leaves.map((l) => of.compiled.idOf(l)),
            c.by < 0 ? null : of.compiled.process(c.by)?.record.id,
            c.smallest,
          ]),
        )
        .sort()
        .join("\n");
    const follow = (edits: readonly Edit[]) => {
      catalogue = must(catalogue, edits);
      r.advance(catalogue, edits);
    };
    const sources = [...catalogue.records.source.values()].slice(0, 130);
    const seen: number[] = [];
    for (let k = 0; k < sources.length; k += 33) {
      follow(sources.slice(k, k + 33).map((record) => ({ op: "remove", kind: "source", record })));
      seen.push(r.causes.size);
      expect(told(r) === told(readingsOf(catalogue)), `${seen.length} steps on`).toBe(true);
    }
    for (let k = 0; k < sources.length; k += 33) {
      follow(sources.slice(k, k + 33).map((record) => ({ op: "add", kind: "source", record })));
      seen.push(r.causes.size);
      expect(told(r) === told(readingsOf(catalogue)), `${seen.length} steps on`).toBe(true);
    }
    expect(Math.max(...seen)).toBeGreaterThan(600);
    expect(seen[0]).toBeLessThan(300);
    expect(seen.at(-1)).toBe(0);
  });

  it("unblocks what it says it does, and is no larger than an exhaustive search of the leaves where it says so", () => {
    const seen = { items: 0, several: 0, bounds: 0 };
    for (let seed = 1; seed <= 120; seed++) {
      const random = seeded(900 + seed);
      const catalogue = randomPantry(random, 5 + (seed % 8));
      // Most of what comes from outside is taken away.
      const sources = [...catalogue.records.source.keys()].filter(() => random() < 0.8);
      const r = readingsOf(
        withRecords(catalogue, {
          source: catalogue.records.source.with(new Map(sources.map((id) => [id, undefined]))),
        }),
      );
      const breaks = r.loops.flatMap((l) => (l.verdict === "stuck" ? l.breaks : []));
      const lost = itemsIn(r).filter((i) => !r.reach.items[i]);
      const leaves = lost.filter(
        (i) => r.network.producers.start[i] === r.network.producers.end[i] || breaks.includes(i),
      );
      for (const i of lost) {
        const found = r.causes.get(i);
        if (!found) throw new Error("an item unobtainable without a cause");
        expect(new Reach(r.network, given(r, found.leaves)).items[i]).toBe(1);
        seen.items++;
        if (found.leaves.length > 1) seen.several++;
        if (!found.smallest) seen.bounds++;
        // The item itself is a leaf only where it stands at the end.
        const others = leaves.filter((l) => l !== i || found.leaves.includes(i));
        let least = found.leaves.length;
        for (let size = 1; size < found.leaves.length && least === found.leaves.length; size++)
          for (const set of sets(others, size))
            if (new Reach(r.network, given(r, set)).items[i]) {
              least = size;
              break;
            }
        if (found.smallest) expect({ seed, item: i, least }).toEqual({ seed, item: i, least: found.leaves.length });
      }
    }
    expect(seen.items).toBeGreaterThan(300);
    expect(seen.several).toBeGreaterThan(20);
    expect(seen.bounds).toBeLessThan(seen.items / 20);
  });
});
