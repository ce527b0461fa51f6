/** Combinations as a matrix: what each two things give, used on each other in either order. */
import type { Catalogue } from "../catalogue/catalogue";
import type { Recipe } from "../kinds/index";
import type { Line } from "../notation/line";
import { PAIR } from "../notation/places";
import { type Node, nodeOf, sayNode } from "../process/node";
import { around } from "../catalogue/surroundings";

/** The two things, the first first; null where it is no combination of two. */
export function pairOf({ kind, lines }: Pick<Recipe, "kind" | "lines">): readonly [Line, Line] | null {
  const [first, second] = PAIR.map((cell) => lines.find((l) => l.cells === cell));
  return kind === "combine" && first && second ? [first, second] : null;
}

export interface Combinations {
  /** Things that are combined, by name. */
  readonly things: readonly Node[];
  /** What the first on the second gives; several where recipes differ. */
  of(first: Node, second: Node): readonly Recipe[];
  /** Pairs of two different things that give nothing, each once. */
  readonly gaps: number;
  /** Pairs that give something in one order only. */
  readonly oneWay: number;
}

/** Those in use; linear in the recipes, and in the square of the things. */
export function combinationsOf(catalogue: Catalogue): Combinations {
  const by = new Map<Node, Map<Node, Recipe[]>>();
  const put = (a: Node, b: Node, recipe: Recipe) => {
    const row = by.get(a) ?? new Map<Node, Recipe[]>();
    by.set(a, row);
    row.set(b, [...(row.get(b) ?? []), recipe]);
  };
  const seen = new Set<Node>();
  for (const recipe of catalogue.records.recipe.values()) {
    const pair = recipe.status === "retired" ? null : pairOf(recipe);
    if (!pair) continue;
    const [a, b] = pair.map(nodeOf);
    seen.add(a);
    seen.add(b);
    put(a, b, recipe);
    if (recipe.grid.mirrored && a !== b) put(b, a, recipe);
  }
  const named = [...seen].map((node) => ({ node, name: sayNode(around(catalogue), node) }));
  const things = named.sort((x, y) => (x.name < y.name ? -1 : x.name > y.name ? 1 : 0)).map(({ node }) => node);
  const of = (first: Node, second: Node): readonly Recipe[] => by.get(first)?.get(second) ?? [];
  let [gaps, oneWay] = [0, 0];
  for (const [k, a] of things.entries())
    for (const b of things.slice(k + 1)) {
      const ways = Number(of(a, b).length > 0) + Number(of(b, a).length > 0);
      if (ways === 0) gaps++;
      if (ways === 1) oneWay++;
    }
  return { things, of, gaps, oneWay };
}
