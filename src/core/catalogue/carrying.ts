/** Conditions that are had by whoever carries something, from what items and types say themselves. */
import type { Item, ItemType } from "../kinds/index";
import type { Id } from "../schema/id";
import type { Catalogue } from "./catalogue";
import { buildBy, type Collecting, type Index } from "./persistent-map";

function collecting(): Collecting<Item | ItemType, Set<Id>> {
  const found = new Set<Id>();
  return {
    add({ carrying }) {
      for (const id of carrying) found.add(id);
    },
    done: () => found,
  };
}
const indexOf = <R extends Item | ItemType>(): Index<R, ReadonlySet<Id>> => ({
  build: buildBy(collecting as () => Collecting<R, Set<Id>>),
  collect: collecting as () => Collecting<R, Set<Id>>,
  follow(found, before, changes) {
    for (const [id, now] of changes) if (before.get(id)?.carrying.length || now?.carrying.length) return null;
    return found;
  },
});
const [OF_ITEMS, OF_TYPES] = [indexOf<Item>(), indexOf<ItemType>()];

/** Whether carrying something gives a condition. */
export const isCarried = ({ records }: Catalogue, condition: Id): boolean =>
  records.type.index(OF_TYPES).has(condition) || records.item.index(OF_ITEMS).has(condition);
