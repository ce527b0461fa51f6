/** Large pantries for measuring, made record by record, so that they never stand in memory as text. */
import { type Catalogue, emptyCatalogue, type Records, withRecords } from "../src/core/catalogue/catalogue";
import { BinaryRecords } from "../src/core/catalogue/binary-records";
import { idFrom, type Id } from "../src/core/schema/id";
import { keyFrom } from "../src/core/schema/names";
import {
  type AnyRecord,
  withDefaults,
  type ItemType,
  type Kind,
  PANTRY_DEFAULTS,
  type Rarity,
  type Stat,
} from "../src/core/kinds/index";
import { line } from "../src/core/notation/line";
import { PersistentMap } from "../src/core/catalogue/persistent-map";
import { type Compiled, compile } from "../src/core/network/compile";
import { seeded } from "../src/core/numbers/seeded";
import { describeItem, grow, TYPES, type Size } from "../src/demo/generate";

export interface Large {
  readonly catalogue: Catalogue;
  readonly planted: number;
  readonly deadlocks: number;
  readonly lines: number;
  /** Ids of the recipes that were planted. */
  readonly seeds: ReadonlySet<Id>;
}

/** Above this many items records are bytes from the start. */
const OBJECTS = 100_000;

/** An id that looks like chance, and is another for every number of a kind. */
const idOf = (kind: Kind, n: number): Id =>
  idFrom(Math.imul(n + 1, 0x9e3779b1) >>> 1, (n * 1_327_217_885 + kind.length * 7) % 36 ** 6);

export function largeCatalogue(size: Size): Large {
  const made = {
    item: new BinaryRecords("item"),
    recipe: new BinaryRecords("recipe"),
    source: new BinaryRecords("source"),
  };
  const seeds = new Set<Id>();
  let lines = 0;
  const itemId = (n: number) => idOf("item", n);
  const grown = grow(size, {
    source: (item, least, most, seconds) => {
      const id = idOf("source", made.source.size);
      lines++;
      made.source.add(
        withDefaults("source", {
          id,
          key: `gather_${item}`,
          name: `Gather ${item}`,
          lines: [line("output", itemId(item), least, most)],
          ticks: seconds * PANTRY_DEFAULTS.ticksPerSecond,
        }),
      );
    },
    recipe: (kind, name, ins, outs, seconds) => {
      const id = idOf("recipe", made.recipe.size);
      if (name.startsWith("Planted")) seeds.add(id);
      lines += ins.length + outs.length;
      const entries = [
        ...ins.map((p) => line("ingredient", itemId(p.item), p.quantity)),
        ...outs.map((o) => line("output", itemId(o.item), o.min, o.max, o.chance)),
      ];
      made.recipe.add(
        withDefaults("recipe", {
          id,
          key: keyFrom(name, "recipe"),
          name,
          kind,
          lines: entries,
          ticks: seconds * PANTRY_DEFAULTS.ticksPerSecond,
          status: "ready",
        }),
      );
    },
  });
  const random = seeded(size.seed + 1);
  const types = TYPES.map(
    (name, n): ItemType => withDefaults("type", { id: idOf("type", n), key: keyFrom(name, "type"), name, stack: 20 }),
  );
  const rarities = [1, 2, 3, 4, 5].map(
    (rank): Rarity =>
      withDefaults("rarity", { id: idOf("rarity", rank), key: `grain_${rank}`, name: `Grain ${rank}`, rank }),
  );
  const stats = ["vigour", "grip"].map((key, n): Stat => withDefaults("stat", { id: idOf("stat", n), key, name: key }));
  const byKey = new Map<string, Id>([...types, ...rarities, ...stats].map((r) => [r.key, r.id]));
  for (let n = 0; n < grown.items; n++) {
    const said = describeItem(random, n, grown.items);
    const refs = {
      type: byKey.get(said.type) as Id,
      rarity: byKey.get(said.rarity) as Id,
      stats: Object.fromEntries(Object.entries(said.stats).map(([stat, value]) => [byKey.get(stat) as Id, value])),
    };
    made.item.add(
      withDefaults("item", {
        ...said,
        ...refs,
        id: itemId(n),
        key: `item_${n}`,
        description: "Made for size.",
        status: "ready",
      }),
    );
  }
  const shelf = (kind: "item" | "recipe" | "source") => {
    const records = made[kind];
    return size.items > OBJECTS
      ? new PersistentMap<AnyRecord>(records)
      : new PersistentMap<AnyRecord>(new PersistentMap<AnyRecord>(records).entries());
  };
  const empty = emptyCatalogue({
    id: "bench0000000" as Id,
    key: "bench",
    name: "Bench",
    ...PANTRY_DEFAULTS,
    labourPerHour: 60,
  });
  const catalogue = withRecords(empty, {
    type: PersistentMap.of("type", types),
    rarity: PersistentMap.of("rarity", rarities),
    stat: PersistentMap.of("stat", stats),
    item: shelf("item"),
    recipe: shelf("recipe"),
    source: shelf("source"),
  } as Partial<Records>);
  return { catalogue, planted: grown.loops, deadlocks: grown.deadlocks, lines, seeds };
}

/** The same, compiled. */
export const largeNetwork = (size: Size): Large & { readonly compiled: Compiled } => {
  const large = largeCatalogue(size);
  return { ...large, compiled: compile(large.catalogue) };
};
