"use client";
/** The items that the address asks for, in order, kept up to date from change to change. */
import { useMemo, useRef, useState } from "react";
import type { PersistentMap } from "@/core/catalogue/persistent-map";
import type { Figures } from "@/core/engine/read-model";
import type { Filter } from "@/core/catalogue/keep";
import type { Item } from "@/core/kinds/index";
import type { Id } from "@/core/schema/id";
import { type Column, type Order, orderBy, ordered } from "../grid/columns";
import { KeptRows, union } from "../grid/rows";
import type { Live } from "../pantry/store";
import { type ItemFacts, itemColumns } from "./columns";

/** The columns of items; the same ones until a stat or a field is another, so that rows that did not change are not drawn again. */
export function useItemColumns(live: Live): readonly Column<Item>[] {
  const latest = useRef<ItemFacts>(live);
  latest.current = live;
  const { type, rarity, tag, stat, field } = live.catalogue.records;
  // biome-ignore lint/correctness/useExhaustiveDependencies: cells show names and colours of these records
  return useMemo(() => itemColumns(() => latest.current), [type, rarity, tag, stat, field]);
}

/** What cells of a row show beside the item: where it is another, the row is drawn again. */
export const stampOf =
  ({ model, troubled }: ItemFacts) =>
  ({ id }: Item): readonly [unknown, unknown] => [model.figures.get(id), troubled.has(id)];

/**
 * Items in order, and those of them that a filter keeps.
 * @param under  everything that the filter depends on beside the item and its figures
 */
export function useItemsInOrder(
  live: Live,
  columns: readonly Column<Item>[],
  orders: readonly Order[],
  filter: Filter | null,
  under: readonly unknown[],
): readonly Item[] {
  const [{ all, some }] = useState(() => ({ all: new KeptRows<Item, Made>(), some: new KeptRows<Item, Made>() }));
  const records = live.catalogue.records.item;
  const { figures } = live.model;
  const { values, compare } = orderBy(columns, orders);
  const rules = {
    keep: () => true,
    compare: (a: Item, b: Item) => compare(a, b, values(a), values(b)),
    changedSince: (before: Made) => union(records.changedSince(before.records), figures.changedSince(before.figures)),
    get: (id: Id) => records.get(id),
    anew: () => ordered([...records.values()], columns, orders),
  };
  // Columns are others where types, tags or rarities are, and with them what items inherit.
  const always = [columns, orders];
  const every = all.rows({ records, figures }, always, rules);
  if (!filter) return every;
  const { among } = filter;
  const keep = (item: Item) => filter.keep(item);
  const anew = () => {
    // Sorting a few is quicker than going through all.
    if (!among || among.size > every.length / FEW_OF) return every.filter(keep);
    const found = [...among].flatMap((id) => records.get(id) ?? []);
    return ordered(found.filter(keep), columns, orders);
  };
  return some.rows({ records, figures }, [...always, ...under], { ...rules, keep, anew });
}
const FEW_OF = 16;
type Made = { readonly records: PersistentMap<Item>; readonly figures: PersistentMap<Figures> };
