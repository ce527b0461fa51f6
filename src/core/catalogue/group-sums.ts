/** Items in groups of one kind of thing, with how many there are of each and what their numbers come to. */
import type { Item } from "../kinds/index";
import type { Id } from "../schema/id";
import type { Catalogue } from "./catalogue";
import { heldAt } from "./inheritance";

export const GROUPED_BY = ["type", "rarity", "tag", "level", "status"] as const;
export type GroupedBy = (typeof GROUPED_BY)[number];

export interface Group {
  /** What an address filters by to see only these: the key of a record, or a word; null: they say nothing there. */
  readonly key: string | null;
  readonly name: string;
  readonly count: number;
  /** For each number that was asked for its sum and how many of them say it. */
  readonly sums: readonly { readonly sum: number; readonly of: number }[];
}

interface GroupRecord {
  readonly key: string | null;
  readonly name: string;
}

/** An item stands in a group for each of its tags, and in one of everything else. */
function keysOf(catalogue: Catalogue, item: Item, by: GroupedBy): readonly GroupRecord[] {
  const nothing = [{ key: null, name: "–" }];
  const { records } = catalogue;
  const of = (record: GroupRecord | undefined): readonly GroupRecord[] =>
    record ? [{ key: record.key, name: record.name }] : nothing;
  if (by === "type") return of(item.type === null ? undefined : records.type.get(item.type));
  if (by === "rarity") return of(item.rarity === null ? undefined : records.rarity.get(item.rarity));
  if (by === "status") return [{ key: item.status, name: item.status }];
  if (by === "tag") {
    const tags = item.tags.flatMap((id: Id) => of(records.tag.get(id)));
    return tags.length ? tags : nothing;
  }
  const level = heldAt(catalogue, "item", item, "level").here.value;
  return typeof level === "number" ? [{ key: String(level), name: String(level) }] : nothing;
}

/**
 * Groups by name, numbers as numbers; what says nothing comes last.
 * @param numbers  what is summed, item by item; null where it has none
 */
export function groupSums(
  catalogue: Catalogue,
  items: Iterable<Item>,
  by: GroupedBy,
  numbers: readonly ((item: Item) => number | null)[],
): Group[] {
  const found = new Map<
    string | null,
    { key: string | null; name: string; count: number; sums: { sum: number; of: number }[] }
  >();
  for (const item of items) {
    const values = numbers.map((of) => of(item));
    for (const { key, name } of keysOf(catalogue, item, by)) {
      let group = found.get(key);
      if (!group) {
        group = { key, name, count: 0, sums: numbers.map(() => ({ sum: 0, of: 0 })) };
        found.set(key, group);
      }
      group.count++;
      for (const [k, value] of values.entries())
        if (value !== null && Number.isFinite(value)) {
          group.sums[k].sum += value;
          group.sums[k].of++;
        }
    }
  }
  return [...found.values()].sort(
    (a, b) =>
      Number(a.key === null) - Number(b.key === null) || a.name.localeCompare(b.name, undefined, { numeric: true }),
  );
}
