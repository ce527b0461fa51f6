/** Variants that no one can go, and those that are no better for their tool. */
import type { Recipe } from "../kinds/index";
import { around } from "../catalogue/surroundings";
import { type VariantValues, variantName, wayOf } from "../kinds/ways";
import { expected } from "../network/expected";
import { nodeOf } from "../process/node";
import { list } from "../numbers/format";
import { betterInAny } from "../clauses/all";
import type { Id } from "../schema/id";
import { type CheckContext, itemRef, perRecord, recipeRef, type Ref } from "./check";

const called = ({ catalogue }: CheckContext, recipe: Recipe, k: number): string =>
  `${recipe.name}, ${variantName(recipe.variants[k], k, around(catalogue))}`;

/** A variant that needs something no one can have, while its recipe can be made. */
export const variantUnreachable = perRecord<"recipe">({
  id: "variant-unreachable",
  reads: [],
  per: ["recipe"],
  may: ({ variants }) => variants.length > 0,
  *at(context, recipe) {
    if (!recipe.variants.length || recipe.status === "retired") return;
    const { compiled, network, reach } = context.readings;
    const fires = new Set<number>();
    const missing = new Map<number, Set<number>>();
    for (const p of compiled.processesOf("recipe", recipe.id)) {
      const way = compiled.process(p)?.spec.way;
      if (way === undefined) continue;
      if (reach.fires(p)) fires.add(way);
      for (let k = network.ins.start[p]; k < network.ins.end[p]; k++)
        if (!reach.items[network.ins.to[k]]) missing.set(way, (missing.get(way) ?? new Set()).add(network.ins.to[k]));
    }
    if (!fires.size) return;
    for (const k of recipe.variants.keys()) {
      const lacks = missing.get(k + 1);
      if (fires.has(k + 1) || !lacks) continue;
      const names = [...lacks].map((i) => itemRef(context, i));
      yield {
        subject: [recipeRef(recipe), ...names],
        message: `${called(context, recipe, k)} can't be made, because ${list(names.map((n) => n.name))} ${names.length > 1 ? "are" : "is"} unobtainable.`,
        evidence: { type: "lines", inputs: names, recipes: [recipeRef(recipe)] },
        fixes: [
          ...names
            .slice(0, 2)
            .flatMap((n: Ref) =>
              n.kind === "item" ? [{ message: `Add a source for ${n.name}`, do: "source" as const, item: n.id }] : [],
            ),
          { message: `Open ${recipe.name}`, do: "open", kind: "recipe", id: recipe.id },
        ],
      };
    }
  },
});

const ROLES_THAT_COUNT = ["output", "ingredient"] as const;
/** Amounts of one role by what is named. */
function amounts({ lines }: VariantValues, role: (typeof ROLES_THAT_COUNT)[number]): Map<Id, number> {
  const sums = new Map<Id, number>();
  for (const l of lines) if (l.role === role) sums.set(nodeOf(l), (sums.get(nodeOf(l)) ?? 0) + expected(l));
  return sums;
}
/** How much surer, all in all, what comes out is with each point of a stat of the maker. */
const surer = ({ lines }: VariantValues): number => lines.reduce((sum, l) => sum + (l.bonus?.share ?? 0), 0);
/**
 * Whether one way is better than another in anything: gives more, takes less, is quicker, makes more at once, is
 * cheaper or open earlier.
 */
function betterInAnything(way: VariantValues, than: VariantValues): boolean {
  const [gives, gave] = [amounts(way, "output"), amounts(than, "output")];
  const [takes, took] = [amounts(way, "ingredient"), amounts(than, "ingredient")];
  return (
    [...gives].some(([id, n]) => n > (gave.get(id) ?? 0) + 1e-12) ||
    [...took].some(([id, n]) => n > (takes.get(id) ?? 0) + 1e-12) ||
    surer(way) > surer(than) ||
    betterInAny(way, than)
  );
}

/** A variant asks for another tool and is better for it in nothing. */
export const variantNoMore = perRecord<"recipe">({
  id: "variant-no-more",
  reads: [],
  per: ["recipe"],
  may: ({ variants }) => variants.length > 0,
  *at(context, recipe) {
    if (recipe.status === "retired") return;
    for (const [k, variant] of recipe.variants.entries()) {
      const tools = variant.lines.filter((l) => l.role === "tool");
      if (!tools.length || betterInAnything(wayOf(recipe, variant), recipe)) continue;
      yield {
        subject: [
          recipeRef(recipe),
          ...tools.map((l) => itemRef(context, context.readings.compiled.numberOf(nodeOf(l)) as number)),
        ],
        message: `${called(context, recipe, k)} has no benefit: it gives no more, takes no less and is no quicker.`,
        evidence: { type: "lines", inputs: [], recipes: [recipeRef(recipe)] },
        fixes: [{ message: `Open ${recipe.name}`, do: "open", kind: "recipe", id: recipe.id }],
      };
    }
  },
});
