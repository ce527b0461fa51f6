/** What items are beside what stands in recipe lines: containers, fuel, stations, and whether they are sold. */
import type { Catalogue } from "../catalogue/catalogue";
import { held } from "../catalogue/inheritance";
import { buildBy, type Collecting, type Index } from "../catalogue/persistent-map";
import { recipesAsking, recipesTaking } from "../catalogue/references";
import { itemsBelow } from "../catalogue/types";
import type { Item, ItemType, Kind } from "../kinds/index";
import type { Id } from "../schema/id";

type ItemTraits = Pick<Item, "vessel" | "burns" | "ash" | "ashes" | "fuel" | "pace" | "extra" | "sell">;
export type Trait = keyof ItemTraits;
const TRAITS: readonly Trait[] = ["vessel", "burns", "ash", "ashes", "fuel", "pace", "extra", "sell"];

/** How many records say each of them. */
type Counts = { readonly [T in Trait]: number };
const NONE: Counts = { vessel: 0, burns: 0, ash: 0, ashes: 0, fuel: 0, pace: 0, extra: 0, sell: 0 };
function collectCounts(): Collecting<ItemTraits, Counts> {
  const counts = { ...NONE };
  return {
    add(record) {
      for (const trait of TRAITS) if (record[trait] !== null) counts[trait]++;
    },
    done: () => counts,
  };
}
const COUNTS = <R extends ItemTraits>(): Index<R, Counts> => ({
  lasting: true,
  build: buildBy<ItemTraits, Counts>(collectCounts),
  collect: collectCounts,
  follow(counts, before, changes) {
    let next: { [T in Trait]: number } | null = null;
    for (const [id, now] of changes) {
      const then = before.get(id);
      for (const trait of TRAITS) {
        const by =
          Number(now !== undefined && now[trait] !== null) - Number(then !== undefined && then[trait] !== null);
        if (!by) continue;
        next ??= { ...counts };
        next[trait] += by;
      }
    }
    return next ?? counts;
  },
});
const OF_TYPES = COUNTS<ItemType>();
/** How many items say each trait. */
export const OF_ITEMS = COUNTS<Item>();

/** Whether any item or type says such a thing: where none does, nothing need be looked up. */
export function anySays({ records: { item, type } }: Catalogue, ...traits: readonly Trait[]): boolean {
  const [items, types] = [item.index(OF_ITEMS), type.index(OF_TYPES)];
  return traits.some((trait) => items[trait] > 0 || types[trait] > 0);
}

/** What an item says, or its type; null: nothing does. */
export function traitOf<T extends Trait>(catalogue: Catalogue, item: Item, trait: T): NonNullable<Item[T]> | null {
  return held(catalogue, item, trait).value;
}
/** The vessel that comes back when an item is used up. */
export function vesselOf(catalogue: Catalogue, id: Id): Id | null {
  const item = catalogue.records.item.get(id);
  return item ? traitOf(catalogue, item, "vessel") : null;
}

const STATION: readonly Trait[] = ["fuel", "pace", "extra"];
/** What makes other processes of the recipes that take an item. */
const ALL: readonly Trait[] = ["vessel", ...STATION];
/** Tags that an item has or had. */
export const tagsOf = (before: Catalogue, next: Catalogue, id: Id): ReadonlySet<Id> =>
  new Set([...(before.records.item.get(id)?.tags ?? []), ...(next.records.item.get(id)?.tags ?? [])]);
const differ = (before: Catalogue, next: Catalogue, id: Id, traits: readonly Trait[]): boolean => {
  const [then, now] = [before.records.item.get(id), next.records.item.get(id)];
  return traits.some(
    (trait) => (then ? traitOf(before, then, trait) : null) !== (now ? traitOf(next, now, trait) : null),
  );
};

/** Recipes that are other processes because of what items say, or their types. */
export function* besideTraits(
  before: Catalogue,
  next: Catalogue,
  touched: ReadonlyMap<Kind, ReadonlySet<Id>>,
): Generator<Id> {
  if (!touched.has("item") && !touched.has("type")) return;
  const [vessels, stations] = [
    [before, next].some((c) => anySays(c, "vessel")),
    [before, next].some((c) => anySays(c, ...STATION)),
  ];
  if (!vessels && !stations) return;
  const types = touched.get("type");
  const items = new Set([...(touched.get("item") ?? []), ...(types ? itemsBelow(next, types) : [])]);
  for (const id of items) {
    const other = differ(before, next, id, ALL);
    if (other) yield* idsOf(recipesTaking(next, id));
    for (const tag of other ? tagsOf(before, next, id) : []) yield* idsOf(recipesAsking(next, tag));
  }
}
function* idsOf(records: Iterable<{ readonly id: Id }>): Generator<Id> {
  for (const { id } of records) yield id;
}
