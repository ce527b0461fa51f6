/** Uses that teach recipes, and the items that have them. */
import type { Catalogue } from "../catalogue/catalogue";
import type { Index } from "../catalogue/persistent-map";
import { itemsBelow } from "../catalogue/types";
import { type HeldUse, usesOf } from "../catalogue/uses";
import type { Use } from "../kinds/index";
import type { Id } from "../schema/id";

/** Most items that teach one recipe and count as ways to learn it. */
const MOST_TEACHERS = 20;

/** The uses that teach each recipe. */
const TEACHING: Index<Use, ReadonlyMap<Id, readonly Use[]>> = {
  lasting: true,
  build(uses) {
    const by = new Map<Id, Use[]>();
    for (const use of uses.values())
      for (const { does } of use.effects)
        if (does.is === "teach") by.set(does.recipe, [...(by.get(does.recipe) ?? []), use]);
    return by;
  },
  follow: () => null,
};

const NOBODY: readonly Id[] = [];
/** Items that teach a recipe when they are used, in order of id. */
export function teachers(catalogue: Catalogue, recipe: Id): readonly Id[] {
  if (!catalogue.records.use.size) return NOBODY;
  const uses = catalogue.records.use.index(TEACHING).get(recipe) ?? [];
  const items = uses.flatMap((use) => [...ownersOf(catalogue, use)]);
  return [...new Set(items)]
    .filter((id) => {
      const item = catalogue.records.item.get(id);
      return item && item.status !== "retired" && usesOf(catalogue, item).some((u) => teaches(u, recipe));
    })
    .sort()
    .slice(0, MOST_TEACHERS);
}
const teaches = (use: HeldUse, recipe: Id): boolean =>
  use.effects.some(({ does }) => does.is === "teach" && does.recipe === recipe);

/** Items that have a use: one, or all of a type. */
export function* ownersOf(catalogue: Catalogue, use: Use): Generator<Id> {
  if (use.item !== null) yield use.item;
  else if (use.type !== null) yield* itemsBelow(catalogue, new Set([use.type]));
}

/** Whether any use teaches a recipe, so that it must be learned. */
export const isTaught = ({ records }: Catalogue, recipe: Id): boolean => records.use.index(TEACHING).has(recipe);
/** Every recipe that some use teaches. */
export const taughtRecipes = ({ records }: Catalogue): Iterable<Id> => records.use.index(TEACHING).keys();
