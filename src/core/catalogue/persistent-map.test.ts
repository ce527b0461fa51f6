import { describe, expect, it } from "vitest";
import { seeded } from "../numbers/seeded";
import { BinaryRecords } from "./binary-records";
import { withDefaults, type Tag } from "../kinds/index";
import type { Id } from "../schema/id";
import { PersistentMap } from "./persistent-map";

const id = (n: number) => `r${String(n).padStart(11, "0")}` as Id;
const tag = (n: number, said = n): Tag => withDefaults("tag", { id: id(n), key: `r${n}`, name: `said ${said}` });
const plain = <V>(shelf: PersistentMap<V>) => new Map([...shelf].sort((a, b) => (a[0] < b[0] ? -1 : 1)));
const shelves = {
  objects: (tags: readonly Tag[]) => new PersistentMap(tags.map((t) => [t.id, t] as const)),
  bytes: (tags: readonly Tag[]) => new PersistentMap<Tag>(new BinaryRecords("tag", tags)),
};

describe.each(Object.entries(shelves))("shelves of %s", (_, shelfOf) => {
  it("are what plain maps copied at every change would be, whichever version is read or written on", () => {
    const random = seeded(11);
    const versions: [PersistentMap<Tag>, Map<Id, Tag>][] = [[shelfOf([tag(0)]), new Map([[id(0), tag(0)]])]];
    for (let n = 0; n < 600; n++) {
      // Mostly the newest, now and then any.
      const from = random() < 0.7 ? versions.length - 1 : Math.floor(random() * versions.length);
      const [shelf, map] = versions[from];
      const changes = new Map<Id, Tag | undefined>();
      for (let k = Math.floor(random() * 4); k > 0; k--) {
        const of = Math.floor(random() * 30);
        changes.set(id(of), random() < 0.3 ? undefined : tag(of, n));
      }
      const next = new Map(map);
      for (const [key, value] of changes) {
        if (value === undefined) next.delete(key);
        else next.set(key, value);
      }
      versions.push([shelf.with(changes), next]);
      const [old, truth] = versions[Math.floor(random() * versions.length)];
      const asked = id(Math.floor(random() * 30));
      expect(old.get(asked)).toEqual(truth.get(asked));
      expect(old.has(asked)).toBe(truth.has(asked));
      if (random() < 0.3) {
        expect(plain(old)).toEqual(new Map([...truth].sort((a, b) => (a[0] < b[0] ? -1 : 1))));
        expect(old.size).toBe(truth.size);
      }
    }
    for (const [shelf, map] of versions)
      expect(plain(shelf)).toEqual(new Map([...map].sort((a, b) => (a[0] < b[0] ? -1 : 1))));
  });

  it("keep what is gone through as it was, whatever is written meanwhile", () => {
    let shelf = shelfOf([tag(1), tag(2)]);
    const first = shelf;
    const seen: string[] = [];
    for (const { name } of first.values()) {
      seen.push(name);
      shelf = shelf.with(
        new Map([
          [id(10 + seen.length), tag(10 + seen.length)],
          [id(2), undefined],
        ]),
      );
    }
    expect(seen).toEqual(["said 1", "said 2"]);
    expect([...first.keys()]).toEqual([id(1), id(2)]);
    expect([...shelf.keys()].sort()).toEqual([id(1), id(11), id(12)]);
  });

  it("give every value with its id", () => {
    const told: string[] = [];
    shelfOf([tag(1), tag(2)]).forEach((value, key) => {
      told.push(`${key} ${value.name}`);
    });
    expect(told).toEqual([`${id(1)} said 1`, `${id(2)} said 2`]);
  });
});

describe("what a shelf holds", () => {
  it("is bytes only where there are very many", () => {
    const tags = [tag(1), tag(2), tag(3)];
    expect(PersistentMap.of("tag", tags).binary).toBeNull();
    expect(PersistentMap.of("tag", tags, 3).binary).not.toBeNull();
    expect([...PersistentMap.of("tag", tags, 3).values()]).toEqual([...PersistentMap.of("tag", tags).values()]);
  });
});
