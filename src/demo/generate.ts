/** A seeded generator of large pantries with the demo's vocabulary: tiers of materials, alternatives, salvage. */
import { seeded } from "../core/numbers/seeded";
import { BUNDLE_FORMAT, BUNDLE_VERSION, type Json } from "../core/exchange/bundle";

const ADJECTIVES = ["Grey", "Salted", "Tarred", "Smoked", "Long", "Blue", "Flat", "Stout", "Drowned", "Old", "Bitter", "Pale", "Knotted", "Split", "Coarse", "Fine"];
const NOUNS = ["eel", "rope", "plank", "crock", "float", "kelp", "net", "cleat", "lamp", "keg", "hide", "brine", "cork", "sail", "hook", "shell", "peat", "pie", "pot", "bell"];
const TYPES = ["Sea-won", "Bankside", "Cordage", "Fare", "Vessel", "Tool", "Gear", "Curio"];

export interface Size {
  readonly items: number;
  readonly seed: number;
  /** Gaining loops to plant; each is one salvage that gives too much. */
  readonly loops?: number;
}

/** A bundle with about 2.4 processes an item; without planted loops it has no gaining loop. */
export function generate({ items: n, seed, loops = 0 }: Size): { [name: string]: Json } {
  const random = seeded(seed);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
  const between = (a: number, b: number) => a + Math.floor(random() * (b - a + 1));
  const key = (i: number) => `item_${i}`;
  const base = Math.max(5, Math.floor(n * 0.15));
  const items: Json[] = [];
  const recipes: Json[] = [];
  const sources: Json[] = [];
  for (let i = 0; i < n; i++) {
    const level = 1 + Math.floor((i / n) * 60);
    items.push({ key: key(i), name: `${pick(ADJECTIVES)} ${pick(NOUNS)} ${i}`, type: pick(TYPES).toLowerCase().replace(/\W/g, "_"), rarity: `grain_${1 + Math.min(4, Math.floor(random() * random() * 6))}`, level, ...(i % 10 === 0 ? { sell: Number((1 + random() * level * 4).toFixed(2)) } : {}), stats: { vigour: between(0, 99), grip: between(0, 60) }, description: "Made for size." });
    if (i < base) {
      sources.push({ key: `gather_${i}`, name: `Gather ${i}`, gives: [{ item: key(i), quantity: [1, between(1, 4)] }], time: between(10, 90) });
      continue;
    }
    // Ingredients come from lower tiers only, nearer ones more often.
    const below = () => Math.floor(i * Math.sqrt(random()) * 0.999);
    const ways = random() < 0.35 ? 2 : 1;
    let least: { item: number; quantity: number }[] | null = null;
    for (let w = 0; w < ways; w++) {
      const parts = [...new Set(Array.from({ length: between(1, 4) }, below))].map((item) => ({ item, quantity: between(1, 4) }));
      const made = random() < 0.15 ? 2 : 1;
      recipes.push({ key: `make_${i}_${w}`, name: `Make ${i}${w ? " otherwise" : ""}`, ingredients: parts.map((p) => ({ item: key(p.item), quantity: p.quantity })), outputs: [{ item: key(i), quantity: made }], time: between(5, 120) });
      const one = made === 1 && ways === 1;
      if (one) least = parts;
    }
    // Salvage gives back one whole part in half the cases, never more than went in: it always loses.
    if (least && random() < 0.5) recipes.push({ key: `salvage_${i}`, name: `Salvage ${i}`, kind: "salvage", ingredients: [{ item: key(i) }], outputs: least.map((p) => ({ item: key(p.item), quantity: [0, p.quantity], chance: 0.8 })), time: 5 });
    if (least && recipes.length && loops > 0 && i > n * 0.3 && random() < (loops * 4) / n) {
      loops--;
      recipes.push({ key: `planted_${i}`, name: `Planted ${i}`, kind: "salvage", ingredients: [{ item: key(i) }], outputs: least.map((p) => ({ item: key(p.item), quantity: p.quantity + 1 })) });
    }
  }
  return {
    format: BUNDLE_FORMAT,
    version: BUNDLE_VERSION,
    pantry: { key: `large_${n}`, name: `Large pantry of ${n}`, labourPerHour: 60 },
    rarities: [1, 2, 3, 4, 5].map((rank) => ({ key: `grain_${rank}`, name: ["Daily", "Sound", "Prized", "Storied", "Tidewrought"][rank - 1], rank, colour: ["#7b8785", "#5c8a86", "#b9892a", "#c4582f", "#a0245e"][rank - 1] })),
    stats: [{ key: "vigour", name: "Vigour" }, { key: "grip", name: "Grip" }],
    types: TYPES.map((name, i) => ({ key: name.toLowerCase().replace(/\W/g, "_"), name, colour: ["#2c6e8f", "#6d6a55", "#9a8b5f", "#c4681c", "#2f7d6f", "#5a6231", "#6b4c86", "#a0245e"][i], stack: 20, icon: ["wave-crest", "log", "rope-coil", "camp-cooking-pot", "amphora", "swiss-army-knife", "pirate-coat", "pearl-necklace"][i] })),
    items,
    recipes,
    sources,
  };
}
