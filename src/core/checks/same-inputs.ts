import type { Line } from "../notation/line";
import { nodeOf } from "../process/node";
import type { Recipe } from "../kinds/index";
import { list } from "../numbers/format";
import { type GroupCheck, namedRef, recipeRef } from "./check";

const signature = (recipe: Recipe, outputs: boolean): string =>
  recipe.lines
    .filter((l) => (l.role === "output") === outputs)
    .map(
      (l: Line) =>
        `${l.role} ${nodeOf(l)} ${l.min} ${l.max} ${l.chance}${recipe.grid.mirrored ? "" : (l.cells ?? "")}${l.draw ? ` ${l.draw.times} ${l.draw.weight}/${l.draw.of}` : ""}`,
    )
    .sort()
    .join("|");

/** Two recipes that ask for exactly the same things in the same place and give different results. */
export const sameInputs: GroupCheck = {
  id: "same-inputs",
  reads: [],
  groups: ["recipe"],
  // First by the items alone, which is cheap; amounts, tools and places are compared where those agree.
  common: (record) => {
    const recipe = record as Recipe;
    // Patterns are told apart by their places (pattern-conflict).
    const items =
      recipe.status === "retired" || recipe.kind === "pattern"
        ? []
        : recipe.lines.filter((l) => l.role === "ingredient").map(nodeOf);
    return items.length ? `${recipe.kind},${items.sort().join()}` : null;
  },
  *among({ catalogue }, alike) {
    const groups = new Map<string, Recipe[]>();
    for (const recipe of alike as readonly Recipe[]) {
      const key = `${recipe.kind}:${signature(recipe, false)}`;
      groups.set(key, [...(groups.get(key) ?? []), recipe]);
    }
    for (const group of groups.values()) {
      if (group.length < 2 || new Set(group.map((r) => signature(r, true))).size < 2) continue;
      const [first] = group;
      const inputs = first.lines
        .filter((l) => l.role === "ingredient")
        .map((l) => ({ of: namedRef(catalogue, l), amount: l.min === l.max ? l.min : `${l.min}..${l.max}` }));
      yield {
        subject: group.map(recipeRef),
        message: `${list(inputs.map((i) => `${i.amount} ${i.of.name}`))} ${group.length === 2 ? "make two different items" : `make ${group.length} different items`}: ${list(group.map((r) => r.name))}.`,
        evidence: { type: "lines", inputs: inputs.map((i) => i.of), recipes: group.map(recipeRef) },
        fixes: group.slice(0, 3).map((r) => ({
          message: `Open ${r.name} and change its ingredients`,
          do: "open",
          kind: "recipe",
          id: r.id,
        })),
      };
    }
  },
};
