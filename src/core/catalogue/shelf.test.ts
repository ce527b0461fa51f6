import { describe, expect, it } from "vitest";
import { seeded } from "../numbers/seeded";
import type { Id } from "./records";
import { Shelf } from "./shelf";

const id = (n: number) => `r${n}` as Id;
const plain = <V>(shelf: Shelf<V>) => new Map([...shelf].sort());

describe("shelves", () => {
  it("are what plain maps copied at every change would be, whichever version is read or written on", () => {
    const random = seeded(11);
    const versions: [Shelf<number>, Map<Id, number>][] = [[new Shelf([[id(0), 0]]), new Map([[id(0), 0]])]];
    for (let n = 0; n < 600; n++) {
      // Mostly the newest, now and then any.
      const from = random() < 0.7 ? versions.length - 1 : Math.floor(random() * versions.length);
      const [shelf, map] = versions[from];
      const changes = new Map<Id, number | undefined>();
      for (let k = Math.floor(random() * 4); k > 0; k--) changes.set(id(Math.floor(random() * 30)), random() < 0.3 ? undefined : n);
      const next = new Map(map);
      for (const [key, value] of changes) {
        if (value === undefined) next.delete(key);
        else next.set(key, value);
      }
      versions.push([shelf.with(changes), next]);
      const [old, truth] = versions[Math.floor(random() * versions.length)];
      const asked = id(Math.floor(random() * 30));
      expect(old.get(asked)).toBe(truth.get(asked));
      expect(old.has(asked)).toBe(truth.has(asked));
      if (random() < 0.3) {
        expect(plain(old)).toEqual(new Map([...truth].sort()));
        expect(old.size).toBe(truth.size);
      }
    }
    for (const [shelf, map] of versions) expect(plain(shelf)).toEqual(new Map([...map].sort()));
  });

  it("keeps what is gone through as it was, whatever is written meanwhile", () => {
    let shelf = new Shelf([[id(1), 1], [id(2), 2]]);
    const first = shelf;
    const seen: number[] = [];
    for (const value of first.values()) {
      seen.push(value);
      shelf = shelf.with(new Map([[id(10 + value), 10 + value], [id(2), undefined]]));
    }
    expect(seen).toEqual([1, 2]);
    expect([...first.keys()]).toEqual([id(1), id(2)]);
    expect([...shelf.keys()].sort()).toEqual([id(1), id(11), id(12)]);
  });

  it("gives every value with its id", () => {
    const told: string[] = [];
    new Shelf([[id(1), "a"], [id(2), "b"]]).forEach((value, key) => { told.push(`${key}${value}`); });
    expect(told).toEqual(["r1a", "r2b"]);
  });
});
