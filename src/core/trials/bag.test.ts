import { describe, expect, it } from "vitest";
import { idOf, tried } from "../testing/tryout";
import { Bag, type Limits } from "./bag";

/** Salt goes ten to a stack and weighs half a kilogram; one may own three charms; an anvil can't be stored. */
const catalogue = tried({
  currency: { shells: {} },
  item: {
    Salt: { stack: 10, mass: 0.5 },
    Charm: { limit: 3 },
    Anvil: { mass: 30, storable: false },
    Lamp: { stack: 5 },
  },
});
const bag = (limits: Limits = { slots: 4, mass: 40 }) => new Bag(catalogue, limits);
const stacks = (of: Bag) => of.stacks.flatMap((s) => Array.from({ length: s.slots }, () => s.count));

describe("a bag", () => {
  it("fills stacks that are begun before it begins others", () => {
    const b = bag();
    b.put(idOf("Salt"), 7);
    b.put(idOf("Salt"), 16);
    expect(stacks(b)).toEqual([10, 10, 3]);
    expect(b.load).toEqual({ slots: 3, mass: 11.5 });
  });

  it("stores what does not fit, by slots, by mass and by what one may own, and says why", () => {
    const b = bag();
    expect(b.put(idOf("Salt"), 60)).toEqual({
      put: 40,
      stored: 20,
      refused: 0,
      message: "The bag's 4 slots are full. 20 went to storage.",
    });
    const light = bag({ slots: null, mass: 4.2 });
    expect(light.put(idOf("Salt"), 20)).toMatchObject({ put: 8, stored: 12 });
    expect(bag().put(idOf("Charm"), 5)).toEqual({
      put: 3,
      stored: 0,
      refused: 2,
      message: "A player can own at most 3.",
    });
    const some = bag();
    some.put(idOf("Charm"), 2);
    expect(some.put(idOf("Charm"), 2, 1)).toMatchObject({ put: 0, refused: 2 });
    expect(bag({ slots: 4, mass: 10 }).put(idOf("Anvil"), 1)).toEqual({
      put: 0,
      stored: 0,
      refused: 1,
      message: "It is too heavy: the limit is 10 kg. It was refused.",
    });
    expect(bag().put("gone00000000" as never, 2)).toMatchObject({ refused: 2 });
  });

  it("gives out nothing unless all of it is there, the last stack first", () => {
    const b = bag();
    b.put(idOf("Salt"), 13);
    expect(b.take(idOf("Salt"), 14)).toBe(false);
    expect(b.take(idOf("Salt"), 5)).toBe(true);
    expect(stacks(b)).toEqual([8]);
  });

  it("splits and merges stacks, as far as slots and stacks go", () => {
    const b = bag();
    b.put(idOf("Salt"), 10);
    expect(b.split(0, 4)).toBe(null);
    expect(stacks(b)).toEqual([6, 4]);
    expect(b.split(0, 6)).toBe("From a stack of 6 you can split off 1 to 5.");
    expect(b.split(9, 1)).toBe("There is no such stack.");
    b.put(idOf("Lamp"), 1);
    b.merge(idOf("Salt"));
    expect(b.stacks.map((s) => [s.item, s.count])).toEqual([
      [idOf("Salt"), 10],
      [idOf("Lamp"), 1],
    ]);
    const full = bag({ slots: 1, mass: null });
    full.put(idOf("Salt"), 9);
    expect(full.split(0, 3)).toBe("No slot is free.");
  });

  it("wears the first of a stack, and loses one with each last use", () => {
    const b = bag();
    b.put(idOf("Lamp"), 2);
    expect([b.wear(idOf("Lamp"), 1, 3), b.wear(idOf("Lamp"), 1, 3), b.wear(idOf("Lamp"), 1, 3)]).toEqual([0, 0, 1]);
    expect(b.stacks).toEqual([{ item: idOf("Lamp"), count: 1, worn: 0, slots: 1 }]);
    expect(b.wear(idOf("Lamp"), 3, 3)).toBe(1);
    expect(b.wear(idOf("Lamp"), 1, 3)).toBe(-1);
    // What was begun is not put together with what is new.
    b.put(idOf("Lamp"), 1);
    b.wear(idOf("Lamp"), 1, 3);
    b.put(idOf("Lamp"), 1);
    expect(b.stacks.map((s) => s.worn)).toEqual([1, 0]);
  });

  it("is carried home but for what can't be stored, and pays only what is there", () => {
    const b = bag();
    b.put(idOf("Salt"), 12);
    b.put(idOf("Anvil"), 1);
    b.unload();
    expect([stacks(b), b.stored.get(idOf("Salt"))]).toEqual([[1], 12]);
    b.earn(idOf("shells"), 5);
    expect([b.pay(idOf("shells"), 6), b.pay(idOf("shells"), 2), b.money.get(idOf("shells"))]).toEqual([false, true, 3]);
  });

  it("is left as it was by what is tried with a copy of it", () => {
    const b = bag();
    b.put(idOf("Salt"), 5);
    const copy = b.copy();
    copy.take(idOf("Salt"), 5);
    expect([b.count(idOf("Salt")), copy.count(idOf("Salt"))]).toEqual([5, 0]);
    b.become(copy);
    expect(b.count(idOf("Salt"))).toBe(0);
  });

  it("keeps a billion that do not stack as one entry, and takes, splits and wears single ones of them", () => {
    const odd = new Bag(tried({ item: { Bead: { stack: 1 }, Rope: { stack: 3 } } }), { slots: null, mass: null });
    expect(odd.put(idOf("Bead"), 1e9)).toMatchObject({ put: 1e9, refused: 0 });
    expect([odd.stacks.length, odd.load.slots, odd.count(idOf("Bead"))]).toEqual([1, 1e9, 1e9]);
    for (let n = 0; n < 100; n++) odd.put(idOf("Bead"), 1);
    expect([odd.stacks.length, odd.count(idOf("Bead"))]).toEqual([1, 1e9 + 100]);
    expect(odd.take(idOf("Bead"), 99)).toBe(true);
    expect(odd.count(idOf("Bead"))).toBe(1e9 + 1);
    expect(odd.wear(idOf("Bead"), 1, 2)).toBe(0);
    expect(odd.stacks.map((s) => [s.slots, s.worn])).toEqual([
      [1e9, 0],
      [1, 1],
    ]);
    odd.put(idOf("Rope"), 10);
    expect(odd.take(idOf("Rope"), 5)).toBe(true);
    expect(odd.stacks.slice(2).map((s) => [s.slots, s.count])).toEqual([
      [1, 3],
      [1, 2],
    ]);
    odd.merge(idOf("Bead"));
    expect([odd.count(idOf("Bead")), odd.stacks.length]).toEqual([1e9 + 1, 4]);
  });
});
