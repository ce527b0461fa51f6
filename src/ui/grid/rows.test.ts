import { describe, expect, it } from "vitest";
import { PersistentMap } from "@/core/catalogue/persistent-map";
import { seeded } from "@/core/numbers/seeded";
import type { Id } from "@/core/schema/id";
import { KeptRows, moved, union } from "./rows";

interface Float {
  readonly id: Id;
  readonly weight: number;
}
const compare = (a: Float, b: Float) => a.weight - b.weight || (a.id < b.id ? -1 : 1);
const light = (f: Float) => f.weight < 50;

describe("rows that are kept", () => {
  it("are, change after change, those that sorting again gives, filtered or not", () => {
    const random = seeded(11);
    const any = (n: number) => Math.floor(random() * n);
    const kept = new KeptRows<Float, PersistentMap<Float>>();
    let records = new PersistentMap<Float>(
      Array.from({ length: 400 }, (_, k) => [`f${k}` as Id, { id: `f${k}` as Id, weight: any(100) }]),
    );
    let sorted = 0;
    for (let change = 0; change < 300; change++) {
      const changes = new Map<Id, Float | undefined>();
      for (let k = 0; k < 1 + any(change % 50 === 49 ? 200 : 4); k++) {
        const id = `f${any(450)}` as Id;
        changes.set(id, random() < 0.2 ? undefined : { id, weight: any(100) });
      }
      records = records.with(changes);
      // Not every version is looked at: several changes may come between two looks.
      if (random() < 0.3) continue;
      const all = () => [...records.values()].filter(light).sort(compare);
      const rows = kept.rows(records, ["light"], {
        keep: light,
        compare,
        get: (id) => records.get(id),
        changedSince: (before) => records.changedSince(before),
        anew: () => {
          sorted++;
          return all();
        },
      });
      expect(rows.map((r) => [r.id, r.weight])).toEqual(all().map((r) => [r.id, r.weight]));
    }
    expect(sorted).toBeLessThan(10);
  });

  it("stay the very same where nothing changed, and are made again under other rules", () => {
    const kept = new KeptRows<Float, PersistentMap<Float>>();
    const records = new PersistentMap<Float>([["a" as Id, { id: "a" as Id, weight: 1 }]]);
    const rules = {
      keep: () => true,
      compare,
      get: (id: Id) => records.get(id),
      changedSince: (before: PersistentMap<Float>) => records.changedSince(before),
      anew: () => [...records.values()],
    };
    const first = kept.rows(records, [1], rules);
    expect(kept.rows(records, [1], rules)).toBe(first);
    expect(kept.rows(records, [2], rules)).not.toBe(first);
  });

  it("know that no one knows", () => {
    expect(union(new Set(["a" as Id]), null)).toBeNull();
    expect(union(new Set(["a" as Id]), new Set(["b" as Id]))).toEqual(new Set(["a", "b"]));
    const records = new PersistentMap<Float>();
    expect(records.changedSince(new PersistentMap())).toBeNull();
    expect(records.changedSince(records)).toEqual(new Set());
    expect(moved([], new Set(["gone" as Id]), records, { keep: light, compare })).toEqual([]);
  });
});
