/** Burning: what burns gives seconds of heat, to whatever takes heat and to what takes it of one sort of fuel only. */
import type { Catalogue } from "../catalogue/catalogue";
import { buildBy, type Collecting, type Index } from "../catalogue/persistent-map";
import { itemsBelow } from "../catalogue/types";
import type { Item, ItemType, Kind, Recipe } from "../kinds/index";
import { line } from "../notation/line";
import type { Id } from "../schema/id";
import { aliasOf } from "./alias";
import { type Node, nodeOfHeat } from "./node";
import type { ProcessSpec } from "./process";
import { anySays, traitOf } from "./traits";

const takesHeat = ({ heat, variants }: Recipe): boolean => heat > 0 || variants.some((v) => (v.heat ?? 0) > 0);

function collectHeated(): Collecting<Recipe, number> {
  let count = 0;
  return {
    add(recipe) {
      if (takesHeat(recipe)) count++;
    },
    done: () => count,
  };
}
/** How many recipes take heat. */
export const HEATED: Index<Recipe, number> = {
  lasting: true,
  build: buildBy(collectHeated),
  collect: collectHeated,
  follow(count, before, changes) {
    for (const [id, now] of changes) {
      const then = before.get(id);
      count += Number(now !== undefined && takesHeat(now)) - Number(then !== undefined && takesHeat(then));
    }
    return count;
  },
};
/** Tags of what stations burn, with how many say so. */
const FUELS = <R extends Pick<Item, "fuel">>(): Index<R, ReadonlyMap<Id, number>> => ({
  lasting: true,
  build(records) {
    const found = new Map<Id, number>();
    for (const { fuel } of records.values()) if (fuel !== null) found.set(fuel, (found.get(fuel) ?? 0) + 1);
    return found;
  },
  follow(found, before, changes) {
    let next: Map<Id, number> | null = null;
    for (const [id, now] of changes) {
      const [was, is] = [before.get(id)?.fuel ?? null, now?.fuel ?? null];
      if (was === is) continue;
      next ??= new Map(found);
      if (is !== null) next.set(is, (next.get(is) ?? 0) + 1);
      const left = was === null ? 0 : (next.get(was) ?? 0) - 1;
      if (was !== null && left > 0) next.set(was, left);
      else if (was !== null) next.delete(was);
    }
    return next ?? found;
  },
});
const [OF_ITEMS, OF_TYPES] = [FUELS<Item>(), FUELS<ItemType>()];

/** Tags of what may burn where, null for whatever burns; none where no recipe takes heat. */
export function askedFuels({ records: { recipe, item, type } }: Catalogue): readonly (Id | null)[] {
  if (recipe.index(HEATED) === 0) return [];
  return [null, ...new Set([...item.index(OF_ITEMS).keys(), ...type.index(OF_TYPES).keys()])];
}
export const askedHeats = (catalogue: Catalogue): Node[] => askedFuels(catalogue).map(nodeOfHeat);

/** For each sort of heat that an item can give a process that burns one; what is left of it comes out too. */
export function burnProcesses(item: Item, catalogue: Catalogue): readonly ProcessSpec[] {
  if (item.status === "retired") return [];
  const asked = askedFuels(catalogue);
  if (!asked.length || !anySays(catalogue, "burns")) return [];
  const burns = traitOf(catalogue, item, "burns") ?? 0;
  if (burns <= 0) return [];
  const ash = traitOf(catalogue, item, "ash");
  const left = ash === null || ash === item.id ? [] : [line("output", ash)];
  return asked.flatMap((fuel): ProcessSpec[] =>
    fuel !== null && !item.tags.includes(fuel)
      ? []
      : [
          {
            sort: "burn",
            lines: [
              line("ingredient", item.id),
              line("output", nodeOfHeat(fuel), burns / catalogue.pantry.ticksPerSecond),
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
