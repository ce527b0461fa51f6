import { describe, expect, it } from "vitest";
import { randomPantry } from "../testing/random";
import demo from "../../demo/brackwater-reach.json";
import { planImport } from "../exchange/read";
import { must, pantry } from "../testing/kitchen";
import { seeded } from "../numbers/seeded";
import { type Catalogue, emptyCatalogue, packed, unpacked, withRecords } from "./catalogue";
import { BinaryRecords, packRecord, unpackRecord } from "./binary-records";
import { type AnyRecord, withDefaults, type Item, KINDS } from "../kinds/index";
import type { Id } from "../schema/id";
import { line } from "../notation/line";
import { PersistentMap } from "./persistent-map";

const id = (n: number) => `record${String(n).padStart(6, "0")}` as Id;
const named = (n: number, name = `Eel ${n}`): Item => withDefaults("item", { id: id(n), key: `eel_${n}`, name });
const demoCatalogue = () => {
  const empty = emptyCatalogue(pantry());
  return must(empty, planImport(empty, JSON.stringify(demo)).edits);
};
const records = (catalogue: Catalogue, kind: (typeof KINDS)[number]) => [
  ...(catalogue.records[kind] as PersistentMap<AnyRecord>).values(),
];

describe("records as bytes", () => {
  it("come back as they were: every record of the demo and of random pantries", () => {
    const random = seeded(4);
    let seen = 0;
    for (const catalogue of [demoCatalogue(), ...Array.from({ length: 20 }, () => randomPantry(random, 12))])
      for (const kind of KINDS)
        for (const record of records(catalogue, kind)) {
          expect(unpackRecord(kind, record.id, packRecord(kind, record))).toEqual(record);
          seen++;
        }
    expect(seen).toBeGreaterThan(500);
  });

  it("come back with numbers to the last bit, marks and signs, and what stands at rest", () => {
    const item: Item = {
      ...named(1, "Ålesund’s “salt” 🐟"),
      mass: 0.1 + 0.2,
      sell: 1e9,
      buy: 1e-9,
      level: 0,
      stats: { [id(2)]: -3.75, [id(3)]: 0 },
      tags: [id(4), id(5)],
      note: "x".repeat(2000),
      status: "retired",
    };
    expect(unpackRecord("item", item.id, packRecord("item", item))).toEqual(item);
    const draw = { group: 1, times: 3, weight: 0.25, of: 1 };
    const recipe = withDefaults("recipe", {
      id: id(6),
      key: "r",
      name: "R",
      kind: "salvage",
      ticks: 1e12,
      taughtBy: id(1),
      lines: [
        line("ingredient", id(1)),
        line("tool", id(2), 1, 1, 1, 40),
        line("station", id(3)),
        line("output", id(4), 1, 3),
        line("output", id(4), 2, 2, 0.05),
        line("output", id(5), 0, 0, 0),
        { ...line("output", id(6)), draw },
      ],
    });
    const back = unpackRecord("recipe", recipe.id, packRecord("recipe", recipe));
    expect(back).toEqual(recipe);
    expect("draw" in (back as typeof recipe).lines[0]).toBe(false);
  });

  it("take a small part of what they say at rest", () => {
    expect(packRecord("item", named(1)).length).toBeLessThan(25);
  });
});

describe("a dense set of records", () => {
  it("is what a map is, through writing, taking out and putting back, beyond what is kept as objects", () => {
    const random = seeded(8);
    const [dense, plain] = [
      new BinaryRecords<Item>("item", [named(0), named(1)]),
      new Map([
        [id(0), named(0)],
        [id(1), named(1)],
      ]),
    ];
    for (let n = 0; n < 120_000; n++) {
      const at = Math.floor(random() * 70_000);
      if (random() < 0.2) {
        expect(dense.delete(id(at))).toBe(plain.delete(id(at)));
      } else {
        const record = named(at, `Eel ${n}`);
        dense.set(record.id, record);
        plain.set(record.id, record);
      }
    }
    expect(dense.size).toBe(plain.size);
    for (let n = 0; n < 70_000; n += 7) {
      expect(dense.has(id(n))).toBe(plain.has(id(n)));
      expect(dense.get(id(n))?.name).toBe(plain.get(id(n))?.name);
    }
    let seen = 0;
    for (let place = 0; place < dense.places; place++) if (dense.at(place)) seen++;
    expect(seen).toBe(plain.size);
  });

  it("gives the same object again for what was asked for a moment ago", () => {
    const dense = new BinaryRecords<Item>("item", [named(0)]);
    expect(dense.get(id(0))).toBe(dense.get(id(0)));
    expect(dense.get(id(1))).toBeUndefined();
  });

  it("keeps the last of two records with one id", () => {
    const dense = new BinaryRecords<Item>("item", [named(0), named(0, "Other")]);
    expect([dense.size, dense.get(id(0))?.name]).toEqual([1, "Other"]);
  });

  it("goes to another thread as it is, and is written on there without touching this one", () => {
    const shelf = PersistentMap.of("item", [named(0), named(1), named(2)], 0).with(
      new Map([
        [id(1), undefined],
        [id(2), named(2, "Elver")],
      ]),
    );
    const empty = demoCatalogue();
    const catalogue = withRecords(empty, { item: shelf });
    const there = unpacked(structuredClone(packed(catalogue, { bytes: true })));
    expect(there.records.item.binary).not.toBeNull();
    const written = there.records.item.with(
      new Map([
        [id(0), undefined],
        [id(3), named(3)],
      ]),
    );
    expect([...written.keys()]).toEqual([id(2), id(3)]);
    expect([...shelf.values()].map((r) => r.name)).toEqual(["Eel 0", "Elver"]);
    expect(packed(catalogue, { bytes: false }).records.item).toEqual([...shelf.values()]);
    expect(there.records.recipe.binary).toBeNull();
  });
});
