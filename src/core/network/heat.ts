/** Burning: what burns gives seconds of heat, to whatever takes heat and to what takes it of one sort of fuel only. */
import type { Catalogue } from "../catalogue/catalogue";
import { buildBy, type Collecting, type Index, mark } from "../catalogue/persistent-map";
import { itemsBelow } from "../catalogue/types";
import type { Item, Kind, Recipe } from "../kinds/index";
import { waysOf } from "../kinds/ways";
import { line } from "../notation/line";
import type { Id } from "../schema/id";
import { same } from "../schema/json";
import { aliasOf } from "./alias";
import { type Node, nodeOfHeat } from "../process/node";
import type { ProcessSpec } from "./process";
import { stationsOf } from "../process/stations";
import { fuelOf, mayBurn } from "../process/burning";
import { anySays, traitOf } from "../process/traits";

const takesHeat = ({ heat, variants }: Recipe): boolean => heat > 0 || variants.some((v) => (v.heat ?? 0) > 0);

function collectHeated(): Collecting<Recipe, ReadonlySet<Id>> {
  const found = new Set<Id>();
  return {
    add(recipe) {
      if (takesHeat(recipe)) found.add(recipe.id);
    },
    done: () => found,
  };
}
/** Recipes that take heat. Another set wherever one of them is another. */
export const HEATED: Index<Recipe, ReadonlySet<Id>> = {
  lasting: true,
  build: buildBy(collectHeated),
  collect: collectHeated,
  follow(heated, before, changes) {
    let next: Set<Id> | null = null;
    for (const [id, now] of changes) {
      const then = before.get(id);
      const is = now !== undefined && takesHeat(now);
      if (!is && !(then && takesHeat(then))) continue;
      next ??= new Set(heated);
      if (is) next.add(id);
      else next.delete(id);
    }
    return next ?? heated;
  },
};
/** Another object wherever what stations burn, or which items are stations of a tag, may be otherwise. */
const BURNERS = mark<Item>(
  (then, now) =>
    then.type !== now.type || then.status !== now.status || then.fuel !== now.fuel || !same(then.tags, now.tags),
);

interface Asked {
  readonly burners: object;
  readonly types: object;
  readonly fuels: readonly (Id | null)[];
}
const known = new WeakMap<ReadonlySet<Id>, Asked>();

/** Tags of what may burn where some recipe takes heat, null for whatever burns; none where no recipe takes heat. */
export function askedFuels(catalogue: Catalogue): readonly (Id | null)[] {
  const { recipe: recipes, item, type: types } = catalogue.records;
  const heated = recipes.index(HEATED);
  if (!heated.size) return NONE;
  const burners = item.index(BURNERS);
  const there = known.get(heated);
  if (there?.burners === burners && there.types === types) return there.fuels;
  const found = new Set<Id | null>();
  for (const id of heated) {
    const recipe = recipes.get(id) as Recipe;
    for (const way of recipe.status === "retired" ? [] : waysOf(recipe))
      if (way.heat > 0) for (const { fuel } of stationsOf(catalogue, way.lines)) found.add(fuel);
  }
  const fuels = [...found].sort((a, b) => ((a ?? "") < (b ?? "") ? -1 : 1));
  known.set(heated, { burners, types, fuels });
  return fuels;
}
const NONE: readonly (Id | null)[] = [];
export const askedHeats = (catalogue: Catalogue): Node[] => askedFuels(catalogue).map(nodeOfHeat);

/** For each sort of heat that an item can give a process that burns one; what is left of it comes out too. */
export function burnProcesses(item: Item, catalogue: Catalogue): readonly ProcessSpec[] {
  const asked = askedFuels(catalogue);
  if (!asked.length || !anySays(catalogue, "burns")) return [];
  const burns = fuelOf(catalogue, item);
  if (!burns) return [];
  const left = burns.ash === null || burns.ashes === 0 ? [] : [line("output", burns.ash, burns.ashes)];
  return asked.flatMap((fuel): ProcessSpec[] =>
    !mayBurn(item, fuel)
      ? []
      : [
          {
            sort: "burn",
            lines: [
              line("ingredient", item.id),
              line("output", nodeOfHeat(fuel), burns.ticks / catalogue.pantry.ticksPerSecond),
              ...left,
            ],
            needs: [],
            price: 0,
            currency: null,
            ticks: 0,
            level: 0,
            as: { kind: "item", record: calledOf(item, item) },
          },
        ],
  );
}

/** An item under the name of what is done with it. */
const calledOf = aliasOf((item: Item, _: Item) => `Burn ${item.name}`);

/** Items that burn for something now and did not before, or the other way round. */
export function* besideHeat(
  before: Catalogue,
  next: Catalogue,
  touched: ReadonlyMap<Kind, ReadonlySet<Id>>,
): Generator<Id> {
  if (![before, next].some((c) => anySays(c, "burns"))) return;
  if (touched.has("recipe") || touched.has("item") || touched.has("type")) {
    const [then, now] = [askedFuels(before), askedFuels(next)];
    if (then.join() !== now.join()) {
      for (const item of next.records.item.values()) if (traitOf(next, item, "burns") !== null) yield item.id;
      return;
    }
  }
  const types = touched.get("type");
  if (types) yield* itemsBelow(next, types);
}
