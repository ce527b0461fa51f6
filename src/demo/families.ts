/**
 * A pantry as many games have it: families of one shape in many materials, patterns, stones that are cut or laid, metals
 * that are split and joined exactly, colours on any of a kind, heat, and what comes back. About 1,500 items.
 */
import type { Json, JsonObject } from "../core/schema/json";

type Taken = string | JsonObject;
interface Made {
  readonly ingredients: readonly Taken[];
  readonly outputs: readonly Taken[];
  readonly [more: string]: unknown;
}

const [WOODS, STONES, METALS, DYES, FOODS] = [24, 36, 12, 16, 60];
/** What is made of a plank (P) and a peg (S), and how many. */
const OF_WOOD: readonly (readonly [name: string, rows: readonly string[], made: number])[] = [
  ["half", ["PPP"], 6],
  ["steps", ["P  ", "PP ", "PPP"], 4],
  ["door", ["PP", "PP", "PP"], 3],
  ["hatch", ["PPP", "PPP"], 2],
  ["rail", ["PSP", "PSP"], 3],
  ["gate", ["SPS", "SPS"], 1],
  ["sign", ["PPP", "PPP", " S "], 3],
  ["punt", ["P P", "PPP"], 1],
  ["shelf", ["PPP", "S S", "PPP"], 2],
  ["locker", ["PPP", "P P", "PPP"], 1],
];
/** What is laid of a stone, how many, and how many a saw cuts of one. */
const OF_STONE: readonly (readonly [name: string, rows: readonly string[], laid: number, cut: number])[] = [
  ["half", ["PPP"], 6, 2],
  ["steps", ["P  ", "PP ", "PPP"], 4, 1],
  ["wall", ["PPP", "PPP"], 6, 1],
];
/** What is forged of bars (B) and a peg (S). */
const OF_METAL: readonly (readonly [name: string, rows: readonly string[]])[] = [
  ["spade", ["B", "S", "S"]],
  ["mattock", ["BBB", " S ", " S "]],
  ["adze", ["BB", "BS", " S"]],
  ["knife", ["B", "S"]],
  ["gaff", ["BB", " S", " S"]],
  ["cap", ["BBB", "B B"]],
  ["coat", ["B B", "BBB", "BBB"]],
  ["shears", [" B", "B "]],
  ["pail", ["B B", " B "]],
];
const OF_CLOTH = ["rug", "hammock", "banner", "glass", "tile", "candle", "chest", "lantern", "pennant", "sail", "hood"];

export function families(): { [name: string]: Json } {
  const items = new Map<string, JsonObject>();
  const tags = new Set<string>();
  const recipes: JsonObject[] = [];
  const sources: JsonObject[] = [];
  const item = (key: string, more: JsonObject = {}): string => {
    for (const tag of (more.tags ?? []) as string[]) tags.add(tag);
    items.set(key, { key, name: key.replaceAll("_", " "), ...items.get(key), ...more });
    return key;
  };
  const made = (recipe: Made): void => {
    for (const of of [...recipe.ingredients, ...recipe.outputs]) {
      const key = typeof of === "string" ? of : of.item;
      if (key && !items.has(key as string)) item(key as string);
    }
    recipes.push({ key: `make_${recipes.length}`, name: `Make ${recipes.length}`, ...recipe } as unknown as JsonObject);
  };
  const many = (key: string, quantity: number): JsonObject => ({ item: key, quantity });
  const laid = (rows: readonly string[], what: { readonly [letter: string]: Taken }) => {
    const cells = new Map<string, string[]>();
    for (const [r, row] of rows.entries())
      for (const [c, letter] of [...row].entries())
        if (letter !== " ") cells.set(letter, [...(cells.get(letter) ?? []), `${"ABCDE"[c]}${r + 1}`]);
    const ingredients = [...cells].map(([letter, at]): JsonObject => {
      const of = what[letter];
      return { ...(typeof of === "string" ? { item: of } : of), cells: at };
    });
    return { kind: "pattern", grid: { width: rows[0].length, height: rows.length, shifted: true }, ingredients };
  };
  const gather = (key: string, seconds: number): string => {
    sources.push({ key: `get_${key}`, name: `Get ${key}`, kind: "gathering", gives: [key], time: `${seconds}s` });
    return item(key);
  };
  const any = (tag: string): JsonObject => ({ any: tag });

  const peg = item("peg");
  made({ ...laid(["P", "P"], { P: any("plank") }), outputs: [many(peg, 4)] });
  for (const fixture of ["saw", "kiln", "pit", "drawknife"]) gather(fixture, 90);
  for (let n = 0; n < WOODS; n++) {
    const log = item(gather(`timber_${n}`, 10 + (n % 5)), { tags: ["timber"], burns: "30s" });
    const bare = item(`bare_timber_${n}`, { tags: ["timber"], burns: "30s" });
    const plank = item(`plank_${n}`, { tags: ["plank"], burns: "15s" });
    for (const of of [log, bare]) made({ ingredients: [of], outputs: [many(plank, 4)] });
    made({ ingredients: [log], outputs: [bare], tools: ["drawknife"] });
    for (const [name, rows, quantity] of OF_WOOD)
      made({ ...laid(rows, { P: plank, S: peg }), outputs: [many(item(`${name}_${n}`, { tags: [name] }), quantity)] });
  }
  for (let n = 0; n < STONES; n++) {
    const stone = gather(`stone_${n}`, 8 + (n % 7));
    const smooth = item(`smooth_stone_${n}`);
    made({ ingredients: [stone], outputs: [smooth], heat: "10s" });
    for (const base of [stone, smooth]) {
      const bricks = `${base}_bricks`;
      made({ ...laid(["PP", "PP"], { P: base }), outputs: [many(bricks, 4)] });
      made({ ingredients: [base], outputs: [bricks], stations: ["saw"] });
      for (const of of [base, bricks])
        for (const [name, rows, quantity, cut] of OF_STONE) {
          made({ ...laid(rows, { P: of }), outputs: [many(`${of}_${name}`, quantity)] });
          made({ ingredients: [of], outputs: [many(`${of}_${name}`, cut)], stations: ["saw"] });
        }
    }
  }
  for (let n = 0; n < METALS; n++) {
    const [bar, bit, block] = [`bar_${n}`, `bit_${n}`, `block_${n}`];
    made({ ingredients: [gather(`ore_${n}`, 20 + n)], outputs: [bar], heat: "10s", stations: ["kiln"] });
    for (const [less, more] of [
      [bit, bar],
      [bar, block],
    ]) {
      made({ ...laid(["BBB", "BBB", "BBB"], { B: less }), outputs: [more] });
      made({ ingredients: [more], outputs: [many(less, 9)] });
    }
    for (const [name, rows] of OF_METAL) {
      const tool = item(`${name}_${n}`, { tags: [name] });
      made({ ...laid(rows, { B: bar, S: peg }), outputs: [tool] });
      made({ kind: "salvage", ingredients: [tool], outputs: [bit], heat: "10s", stations: ["kiln"] });
    }
  }
  gather("thread", 4);
  for (const name of OF_CLOTH)
    made({ ingredients: [many("thread", 5)], outputs: [item(`${name}_plain`, { tags: [`a_${name}`] })] });
  for (let n = 0; n < DYES; n++) {
    const dye = `dye_${n}`;
    made({ ingredients: [gather(`herb_${n}`, 12)], outputs: [many(dye, 2)] });
    for (let m = 1; m < n && n + m < DYES; m++)
      made({ ingredients: [dye, `dye_${m}`], outputs: [many(`dye_${n + m}`, 2)] });
    for (const name of OF_CLOTH)
      made({ ingredients: [any(`a_${name}`), dye], outputs: [item(`${name}_of_${n}`, { tags: [`a_${name}`] })] });
  }
  const bowl = item("bowl");
  made({ ...laid(["P P", " P "], { P: any("plank") }), outputs: [many(bowl, 4)] });
  for (let n = 0; n < FOODS; n++) {
    const raw = item(gather(`raw_${n}`, 9), { tags: ["fare"] });
    const soup = item(`soup_${n}`, { vessel: bowl });
    made({ ingredients: [raw], outputs: [`done_${n}`], heat: "10s" });
    made({ ingredients: [raw], outputs: [`done_${n}`], heat: "30s", stations: ["pit"] });
    made({ ingredients: [`done_${n}`, any("fare"), bowl], outputs: [soup] });
    made({ ingredients: [soup, `raw_${(n * 7) % FOODS}`], outputs: [`feast_${n}`] });
  }
  return {
    format: "salty-pantry-bundle",
    version: 1,
    tags: [...tags].map((key) => ({ key, name: key.replaceAll("_", " ") })),
    items: [...items.values()] as unknown as Json,
    recipes: recipes as unknown as Json,
    sources: sources as unknown as Json,
  };
}
