/** A large pantry with every way in which things become other things, made of a plain one. */
import type { Json, JsonObject } from "../core/schema/json";

/** Of so many recipes one has variants, is a pattern, takes heat, asks for any with a tag, draws from a table. */
const EVERY = { variant: 7, pattern: 11, heat: 13, any: 9, table: 19 } as const;
/** Of so many items one is in a vessel; tags, tables, gifts and combinations there are. */
const [VESSEL, TAGS, TABLES, GIFTS, PAIRS] = [17, 40, 12, 8, 200];

type Row = JsonObject;
const rows = (bundle: { readonly [name: string]: Json }, name: string): Row[] => bundle[name] as unknown as Row[];
const places = (n: number): string[] =>
  Array.from({ length: n }, (_, k) => `${String.fromCharCode(65 + (k % 5))}${1 + Math.floor(k / 5)}`);

/**
 * The same pantry, whose recipes and items say more: variants with another tool, patterns, heat from five fuels, any
 * items with a tag, vessels, tables, gifts and combinations. What was made of lower tiers only still is.
 */
export function withWays(bundle: { readonly [name: string]: Json }): { [name: string]: Json } {
  const items = rows(bundle, "items");
  const base = Math.floor(items.length * 0.15);
  const key = (i: number): string => `item_${i}`;
  const numberOf = (name: Json): number => Number(String(name).slice("item_".length));
  const isHeld = (i: number): boolean => i >= base && i % VESSEL === 0;
  const said = items.map((item, i): Row => {
    // Members of a tag lie beside each other, so that what asks for a lower one still goes down.
    const tag = `kin_${Math.floor((i / items.length) * TAGS)}`;
    return {
      ...item,
      tags: [tag],
      ...(i < 5 ? { burns: `${20 + 10 * i}s` } : {}),
      ...(isHeld(i) ? { vessel: key(5) } : {}),
    };
  });
  // What is taken apart is made of just what it was: else taking apart what was made of something cheaper would gain.
  const apart = new Set(
    rows(bundle, "recipes").flatMap((r) =>
      r.kind === "salvage" ? (r.ingredients as unknown as { item: string }[]).map((l) => l.item) : [],
    ),
  );
  const recipes = rows(bundle, "recipes").map((recipe, n): Row => {
    if (recipe.kind === "salvage")
      return n % EVERY.table === 0 ? { ...recipe, tables: [{ table: `finds_${n % TABLES}`, times: 2 }] } : recipe;
    const [made] = recipe.outputs as unknown as { item: string; quantity: number }[];
    const held = isHeld(numberOf(made.item)) ? made.quantity : 0;
    const plain = recipe.ingredients as unknown as { item: string; quantity: number }[];
    // What comes in a vessel takes one: else it would come back for nothing.
    const ingredients = held
      ? [
          ...plain.filter((l) => l.item !== key(5)),
          { item: key(5), quantity: held + (plain.find((l) => l.item === key(5))?.quantity ?? 0) },
        ]
      : plain;
    const count = ingredients.reduce((sum, l) => sum + l.quantity, 0);
    let at = 0;
    const lowest = Math.min(...ingredients.map((l) => numberOf(l.item)));
    const more: Row = {};
    if (n % EVERY.variant === 0)
      more.variants = [{ lines: [{ role: "tool", item: key(n % base) }], time: "2s", name: "" }] as unknown as Json;
    if (n % EVERY.heat === 0) more.heat = "30s";
    if (n % EVERY.pattern === 0 && count <= 25) {
      const all = places(count);
      more.kind = "pattern";
      more.grid = {
        width: Math.min(5, count),
        height: Math.ceil(count / 5),
        shifted: n % 2 === 0,
        mirrored: n % 3 === 0,
      };
      more.ingredients = ingredients.map(({ item, quantity }) => ({
        item,
        cells: all.slice(at, (at += quantity)),
      })) as unknown as Json;
    } else if (n % EVERY.any === 0 && lowest > 0 && !apart.has(made.item)) {
      const tag = Math.floor((lowest / items.length) * TAGS) - 1;
      if (tag >= 0)
        more.ingredients = ingredients.map((l) =>
          numberOf(l.item) === lowest ? { any: `kin_${tag}`, quantity: l.quantity } : l,
        ) as unknown as Json;
    }
    return { ...recipe, ingredients: ingredients as unknown as Json, ...more };
  });
  const combined = Array.from({ length: Math.min(PAIRS, Math.floor(items.length / 4)) }, (_, k): Row => {
    const [a, b] = [k % base, (k * 7 + 1) % base];
    return {
      key: `pair_${k}`,
      name: `Pair ${k}`,
      kind: "combine",
      grid: { width: 2, height: 1, mirrored: k % 3 > 0 },
      ingredients: [
        { item: key(a), cells: ["A1"] },
        { item: key(a === b ? a + 1 : b), cells: ["B1"] },
      ],
      // Two of the lowest give one of the lowest: nothing gains by it.
      outputs: [{ item: key((k * 13 + 2) % base) }],
      time: 3,
    } as unknown as Row;
  });
  return {
    ...bundle,
    tags: Array.from({ length: TAGS }, (_, k) => ({ key: `kin_${k}`, name: `kin ${k}` })),
    items: said as unknown as Json,
    recipes: [...recipes, ...combined] as unknown as Json,
    tables: Array.from({ length: TABLES }, (_, k) => ({
      key: `finds_${k}`,
      name: `Finds ${k}`,
      chances: [{ what: { is: "item", item: key(k) }, chance: 0.002 }],
    })) as unknown as Json,
    sources: [
      ...rows(bundle, "sources"),
      ...Array.from({ length: GIFTS }, (_, k) => ({
        key: `gift_${k}`,
        name: `Gift ${k}`,
        kind: "gift",
        gives: [{ item: key(base + 3 * k), quantity: 2 }],
      })),
    ] as unknown as Json,
  };
}
