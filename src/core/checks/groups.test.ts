import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { newId, type Id } from "../schema/id";
import { Groups } from "./groups";

describe("groups by number", () => {
  it("hold what a map of sets holds, through joining and leaving in any order, however many share a place", () => {
    const ids = Array.from({ length: 90 }, newId);
    // Few numbers, one of which most have: more than are kept in a row.
    const step = fc.record({
      number: fc.oneof(fc.constant(7), fc.constantFrom(0, 1, 2, 3, 2 ** 31, 2 ** 32 - 1)),
      id: fc.constantFrom(...ids),
      joins: fc.nat(5).map((n) => n > 0),
    });
    let [several, many] = [0, 0];
    fc.assert(
      fc.property(fc.array(step, { minLength: 20, maxLength: 400, size: "max" }), (steps) => {
        const [groups, plain] = [new Groups(), new Map<number, Set<Id>>()];
        for (const { number, id, joins } of steps) {
          const set = plain.get(number) ?? new Set();
          plain.set(number, set);
          if (joins) {
            groups.join(number, id);
            set.add(id);
          } else {
            groups.leave(number, id);
            set.delete(id);
          }
        }
        for (const [number, set] of plain) expect(groups.of(number).sort()).toEqual([...set].sort());
        const large = [...plain.values()].filter((set) => set.size > 1).map((set) => [...set].sort().join());
        expect([...groups.several()].map((group) => group.sort().join()).sort()).toEqual(large.sort());
        several += large.length;
        many += [...plain.values()].filter((set) => set.size > 64).length;
      }),
      { numRuns: 300 },
    );
    expect(several).toBeGreaterThan(300);
    expect(many).toBeGreaterThan(10);
  });

  it("find no one under a number that no one has", () => {
    expect(new Groups().of(7)).toEqual([]);
    expect([...new Groups().several()]).toEqual([]);
  });
});
