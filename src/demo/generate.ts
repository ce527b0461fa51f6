/** A seeded generator of large pantries with the demo's vocabulary: tiers of materials, alternatives, salvage. */
import { keyFrom } from "../core/schema/names";
import { seeded } from "../core/numbers/seeded";
import { BUNDLE_FORMAT, BUNDLE_VERSION } from "../core/exchange/bundle";
import type { Json } from "../core/schema/json";

const ADJECTIVES = [
  "Grey",
  "Salted",
  "Tarred",
  "Smoked",
  "Long",
  "Blue",
  "Flat",
  "Stout",
  "Drowned",
  "Old",
  "Bitter",
  "Pale",
  "Knotted",
  "Split",
  "Coarse",
  "Fine",
];
const NOUNS = [
  "eel",
  "rope",
  "plank",
  "crock",
  "float",
  "kelp",
  "net",
  "cleat",
  "lamp",
  "keg",
  "hide",
  "brine",
  "cork",
  "sail",
  "hook",
  "shell",
  "peat",
  "pie",
  "pot",
  "bell",
];
const COLOURS = ["#2c6e8f", "#6d6a55", "#9a8b5f", "#c4681c", "#2f7d6f", "#5a6231", "#6b4c86", "#a0245e"];
const ICONS = [
  "wave-crest",
  "log",
  "rope-coil",
  "camp-cooking-pot",
  "amphora",
  "swiss-army-knife",
  "pirate-coat",
  "pearl-necklace",
];
const RARITIES = ["Daily", "Sound", "Prized", "Storied", "Tidewrought"];
const STATS = ["vigour", "grip"];
const MADE = "Made for size.";
export const TYPES = ["Sea-won", "Bankside", "Cordage", "Fare", "Vessel", "Tool", "Gear", "Curio"];

export interface Size {
  readonly items: number;
  readonly seed: number;
  /** Gaining loops to plant; each is one salvage that gives too much. */
  readonly loops?: number;
  /** Pairs of items to plant that can only be made from each other. */
  readonly deadlocks?: number;
}

export interface Part {
  readonly item: number;
  readonly quantity: number;
}
export interface Output {
  readonly item: number;
  readonly min: number;
  readonly max: number;
  readonly chance: number;
}
/** Who listens to a large pantry being made: items are numbers, from 0 up. */
export interface Maker {
  source(item: number, least: number, most: number, seconds: number): void;
  recipe(kind: "craft" | "salvage", name: string, ins: readonly Part[], outs: readonly Output[], seconds: number): void;
}

/**
 * Tiers of materials, about 2.4 processes an item, salvage for a third of the items. Without planted loops nothing
 * gains,
 * without planted deadlocks everything can be had.
 * @returns how many loops and deadlocks were planted, and all items with those
 */
export function grow(
  { items: n, seed, loops = 0, deadlocks = 0 }: Size,
  maker: Maker,
): { items: number; loops: number; deadlocks: number } {
  const random = seeded(seed);
  const between = (a: number, b: number) => a + Math.floor(random() * (b - a + 1));
  const base = Math.max(5, Math.floor(n * 0.15));
  let planted = 0;
  for (let i = 0; i < n; i++) {
    if (i < base) {
      maker.source(i, 1, between(1, 4), between(10, 90));
      continue;
    }
    // Ingredients come from lower tiers only, nearer ones more often.
    const below = () => Math.floor(i * Math.sqrt(random()) * 0.999);
    const ways = random() < 0.5 ? 2 : 1;
    let least: Part[] | null = null;
    for (let w = 0; w < ways; w++) {
      const parts = [...new Set(Array.from({ length: between(1, 4) }, below))].map((item) => ({
        item,
        quantity: between(1, 4),
      }));
      const made = random() < 0.15 ? 2 : 1;
      maker.recipe(
        "craft",
        `Make ${i}${w ? " otherwise" : ""}`,
        parts,
        [{ item: i, min: made, max: made, chance: 1 }],
        between(5, 120),
      );
      if (made === 1 && ways === 1) least = parts;
    }
    // Salvage gives back some of what went in, never as much: it always loses.
    if (least && random() < 0.8)
      maker.recipe(
        "salvage",
        `Salvage ${i}`,
        [{ item: i, quantity: 1 }],
        least.map((p) => ({ item: p.item, min: 0, max: p.quantity, chance: 0.8 })),
        5,
      );
    if (least && planted < loops && i > n * 0.3 && random() < (loops * 6) / n) {
      planted++;
      maker.recipe(
        "salvage",
        `Planted ${i}`,
        [{ item: i, quantity: 1 }],
        least.map((p) => ({ item: p.item, min: p.quantity + 1, max: p.quantity + 1, chance: 1 })),
        5,
      );
    }
  }
  for (let d = 0; d < deadlocks; d++) {
    const [a, b] = [n + 2 * d, n + 2 * d + 1];
    maker.recipe(
      "craft",
      `Stuck ${a}`,
      [
        { item: b, quantity: 1 },
        { item: Math.floor(random() * n), quantity: 1 },
      ],
      [{ item: a, min: 1, max: 1, chance: 1 }],
      5,
    );
    maker.recipe("craft", `Stuck ${b}`, [{ item: a, quantity: 1 }], [{ item: b, min: 1, max: 1, chance: 1 }], 5);
  }
  return { items: n + 2 * deadlocks, loops: planted, deadlocks };
}

/** What a large pantry says of its i-th item out of n; type and rarity by their keys. */
export function describeItem(
  random: () => number,
  i: number,
  n: number,
): {
  name: string;
  type: string;
  rarity: string;
  level: number;
  sell: number | null;
  stats: { [stat: string]: number };
} {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
  const between = (a: number, b: number) => a + Math.floor(random() * (b - a + 1));
  const level = 1 + Math.floor((i / n) * 60);
  return {
    name: `${pick(ADJECTIVES)} ${pick(NOUNS)} ${i}`,
    type: keyFrom(pick(TYPES), "type"),
    rarity: `grain_${1 + Math.min(4, Math.floor(random() * random() * 6))}`,
    level,
    sell: i % 10 === 0 ? Number((1 + random() * level * 4).toFixed(2)) : null,
    stats: Object.fromEntries(STATS.map((stat, k) => [stat, between(0, k ? 60 : 99)])),
  };
}

/** The same as a bundle, with names, stats and prices. */
export function generate(size: Size): { [name: string]: Json } {
  const random = seeded(size.seed + 1);
  const key = (i: number) => `item_${i}`;
  const recipes: Json[] = [];
  const sources: Json[] = [];
  const made = grow(size, {
    source: (i, least, most, seconds) =>
      sources.push({
        key: `gather_${i}`,
        name: `Gather ${i}`,
        gives: [{ item: key(i), quantity: [least, most] }],
        time: seconds,
      }),
    recipe: (kind, name, ins, outs, seconds) =>
      recipes.push({
        key: name.toLowerCase().replaceAll(" ", "_"),
        name,
        ...(kind === "salvage" ? { kind } : {}),
        ingredients: ins.map((p) => ({ item: key(p.item), quantity: p.quantity })),
        outputs: outs.map((o) => ({
          item: key(o.item),
          quantity: o.min === o.max ? o.min : [o.min, o.max],
          ...(o.chance === 1 ? {} : { chance: o.chance }),
        })),
        time: seconds,
      }),
  });
  const items = Array.from({ length: made.items }, (_, i): Json => {
    const { sell, ...said } = describeItem(random, i, made.items);
    return { key: key(i), ...said, ...(sell === null ? {} : { sell }), description: MADE };
  });
  return {
    format: BUNDLE_FORMAT,
    version: BUNDLE_VERSION,
    pantry: { key: `large_${size.items}`, name: `Large pantry of ${size.items}`, labourPerHour: 60 },
    rarities: RARITIES.map((name, k) => ({ key: `grain_${k + 1}`, name, rank: k + 1, colour: COLOURS[k] })),
    stats: STATS.map((key) => ({ key, name: key })),
    types: TYPES.map((name, k) => ({
      key: keyFrom(name, "type"),
      name,
      colour: COLOURS[k],
      stack: 20,
      icon: ICONS[k],
    })),
    items,
    recipes,
    sources,
  };
}
