/** What follows from the fields of a kind, held against random records of one that has every field type. */
import { ByteReader, ByteWriter } from "./bytes";
import Ajv from "ajv/dist/2020";
import { describe, expect, it } from "vitest";
import { NameBook } from "../notation/book";
import { seeded } from "../numbers/seeded";
import { randomVessel, type Vessel, vessel, type World } from "../testing/vessel";
import { type BundleReading, referred, type Surroundings, type Typing } from "./field";
import type { Id } from "./id";
import { type JsonObject, type JsonSchema, same } from "./json";
import type { Kind } from "./kind";
import {
  bundleDefaults,
  bundleNames,
  bundleProperties,
  checkRecord,
  differences,
  fromBundle,
  pathOf,
  toBundle,
  valueAt,
  withValue,
} from "./record";

const id = (kind: string, n: number) =>
  `${kind.slice(0, 6)}${String(n).padStart(12 - Math.min(6, kind.length), "0")}` as Id;
const KINDS = ["item", "stat", "currency", "vessel"];
const world: World = Object.fromEntries(KINDS.map((kind) => [kind, [1, 2, 3, 4].map((n) => id(kind, n))]));
const NAMES = ["River eel", "Salt, coarse", "Tar; black", "#Cork"];
const books = new Map(
  KINDS.map((kind) => [
    kind,
    new NameBook(world[kind].map((of, k) => ({ id: of, key: `${kind}_${k}`, name: NAMES[k] }))),
  ]),
);
const around: Surroundings = {
  ticksPerSecond: 20,
  has: (kind, of) => world[kind]?.includes(of) ?? false,
  nameOf: (kind, of) => NAMES[world[kind].indexOf(of)],
  names: (kind) => books.get(kind) ?? new NameBook([]),
  record: () => undefined,
};
const typing: Typing = { ...around, make: () => null };
const kind = vessel as unknown as Kind;

const ROUNDS = 150;
const vessels = (seed: number, count = ROUNDS): Vessel[] => {
  const random = seeded(seed);
  return Array.from({ length: count }, (_, n) => randomVessel(random, world, id("v", n)));
};
const faultsOf = (record: object, was?: object): string[] => {
  const faults: string[] = [];
  checkRecord(kind, record, was, {
    has: (of, which) => around.has(of, which as Id),
    fault: (path, message) => faults.push(`${path}: ${message}`),
  });
  return faults;
};

describe("a record of any kind", () => {
  it("is taken by its rules, and refused with a place where anything in it is wrong", () => {
    for (const record of vessels(1)) expect(faultsOf(record)).toEqual([]);
    const [record] = vessels(2, 1);
    const hold = { item: id("item", 1), amount: 1, locked: false, marks: [] };
    const deck = { called: "", holds: [hold], use: { is: "none" } };
    const wrong = (part: object) => faultsOf({ ...record, ...part })[0];
    expect(wrong({ decks: [deck, { ...deck, holds: [hold, { ...hold, item: "nobody000000" }] }] })).toBe(
      "decks.2.holds.2.item: There is no item “nobody000000” in this pantry.",
    );
    expect(wrong({ decks: [{ ...deck, holds: [{ ...hold, marks: [{ sign: 3 }] }] }] })).toMatch(
      /^decks\.1\.holds\.1\.marks\.1\.sign: Expected text/,
    );
    expect(wrong({ duty: { is: "toString" } })).toBe("duty.is: “toString” isn't an option. Use idle, ferry, fish.");
    expect(wrong({ duty: { is: "idle", to: "sea" } })).toContain("no field “to”");
    expect(wrong({ anchor: { mass: 1 } })).toBe("anchor.of: This field is missing.");
    expect(wrong({ anchor: undefined })).toContain("Expected a anchor");
    expect(wrong({ decked: "yes" })).toBe("decked: “yes” isn't true or false.");
    expect(wrong({ mark40: 10 })).toBe("mark40: 10 is outside the range 0 to 9.");
    expect(wrong({ sail: 1 })).toContain("A vessel has no field “sail”");
  });

  it("is made equal to another by its differences, and comes back by their inverse", () => {
    const all = vessels(3);
    for (let k = 1; k < all.length; k++) {
      const [before, after] = [all[k - 1], all[k]];
      const changes = differences(kind, before, after);
      const apply = (record: object, path: string, value: unknown): object => {
        const at = pathOf(kind, path);
        if (!at) throw new Error(path);
        return withValue(record, at, value);
      };
      let record: object = before;
      for (const { path, from, to } of changes) {
        const at = pathOf(kind, path);
        expect(same(at && valueAt(record, at), from)).toBe(true);
        record = apply(record, path, to);
      }
      expect(differences(kind, record, after)).toEqual([]);
      for (const { path, from } of [...changes].reverse()) record = apply(record, path, from);
      expect(differences(kind, record, before)).toEqual([]);
    }
  });

  it("comes out of its bytes as it went in, however many fields it has", () => {
    const [writer, reader] = [new ByteWriter(), new ByteReader()];
    for (const record of vessels(4)) {
      vessel.pack(record, writer);
      const back = vessel.unpack(record.id, reader.from(writer.taken()));
      expect(back).toEqual(record);
    }
  });

  it("comes out of a bundle as it went in, and fits the schema", () => {
    const keyOf = (of: string, which: Id) => `${of}_${world[of].indexOf(which)}`;
    const faults: string[] = [];
    const from: BundleReading = {
      ticksPerSecond: 20,
      fault: (place, message) => faults.push(`${place}: ${message}`),
      unknown: (place, name) => faults.push(`${place}.${name}`),
      reference: (of, key) => world[of][Number(String(key).slice(of.length + 1))] ?? null,
    };
    const defs: { [name: string]: JsonSchema } = {};
    const properties = bundleProperties(kind, {
      define(name, make) {
        defs[name] ??= make();
        return { $ref: `#/$defs/${name}` };
      },
    });
    const ajv = new Ajv({ strict: true, strictRequired: false, allowUnionTypes: true });
    const fits = ajv.compile({ type: "object", properties, additionalProperties: false, $defs: defs });
    for (const record of vessels(5)) {
      const row = JSON.parse(JSON.stringify(toBundle(kind, record, { ticksPerSecond: 20, keyOf }))) as JsonObject;
      expect(fits(row), JSON.stringify(fits.errors)).toBe(true);
      expect(Object.keys(row).filter((name) => !bundleNames(kind).has(name))).toEqual([]);
      const back = { id: record.id, ...bundleDefaults(kind), ...fromBundle(kind, row, "vessels[0]", from, undefined) };
      expect(faults).toEqual([]);
      // A set of references has no order of its own in a bundle.
      const sorted = (value: unknown): unknown =>
        JSON.parse(JSON.stringify(value, (name, v) => (["wares", "catch", "pots"].includes(name) ? [...v].sort() : v)));
      expect(sorted(back)).toEqual(sorted(record));
    }
  });

  it("tells in a bundle what it can't read, with its place", () => {
    const faults: string[] = [];
    const from: BundleReading = {
      ticksPerSecond: 20,
      fault: (place, message) => faults.push(`${place}: ${message}`),
      unknown: (place, name) => faults.push(`${place}.${name}: unknown`),
      reference: () => null,
    };
    const row = {
      decks: [{ called: "a", sail: 1, holds: [{ amount: 2 }], use: { is: "cook", hot: 1 } }, 4],
      duty: { is: "fly" },
      wares: "eel",
      traits: 3,
      patience: "soon",
      toll: { amount: 1, cent: 2 },
    };
    fromBundle(kind, row as JsonObject, "vessels[3]", from, undefined);
    expect(faults.map((f) => f.split(": ")[0]).sort()).toEqual([
      "vessels[3].decks[0].holds[0].item",
      "vessels[3].decks[0].sail",
      "vessels[3].decks[0].use.hot",
      "vessels[3].decks[1]",
      "vessels[3].duty",
      "vessels[3].patience",
      "vessels[3].toll.cent",
      "vessels[3].traits",
      "vessels[3].wares",
    ]);
  });

  it("is read from the text that every field of it is written as", () => {
    for (const record of vessels(6))
      for (const [name, field] of Object.entries(kind.fields)) {
        const value = (record as unknown as { [name: string]: unknown })[name];
        const text = field.format(value, around);
        expect(field.parse(text, typing), `${name}: ${text}`).toEqual({ value });
        expect(typeof field.say(value, around)).toBe("string");
      }
    for (const text of ["{", "}", "{x: 1}", "a: b", "{is: fish, nets: {}}", '"', "{is: fly}", "{called: {}}"])
      for (const field of Object.values(kind.fields)) expect(() => field.parse(text, typing)).not.toThrow();
  });

  it("names every record it refers to, and the kinds that it may refer to", () => {
    for (const record of vessels(7)) {
      const found = Object.entries(kind.fields).flatMap(([name, field]) => {
        const to = referred(field, (record as unknown as { [name: string]: unknown })[name]);
        expect(to.every((t) => field.targets.includes(t.kind))).toBe(true);
        return to.map((t) => t.id);
      });
      // What it is only about, it does not refer to.
      const said =
        JSON.stringify({ ...record, charts: "" }).match(/(?:item|stat|currency|vessel)0+\d|curren0+\d/g) ?? [];
      expect(new Set(found)).toEqual(new Set(said.filter((s) => s.length === 12 && s !== record.id)));
    }
  });

  it("refers to another record wherever it referred to one, and to nothing else again", () => {
    const [from, to] = world.item;
    for (const record of vessels(11)) {
      const values = record as unknown as { [name: string]: unknown };
      for (const [name, field] of Object.entries(kind.fields)) {
        const relinked = field.relink(values[name], "item", from, to);
        const ids = (value: unknown) => referred(field, value).map((r) => `${r.kind} ${r.id}`);
        const expected = new Set(ids(values[name]).map((r) => (r === `item ${from}` ? `item ${to}` : r)));
        expect(new Set(ids(relinked))).toEqual(expected);
        expect(field.relink(values[name], "item", "nobody000000" as Id, to)).toEqual(values[name]);
      }
    }
  });
});
