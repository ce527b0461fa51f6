"use client";
/** The items that the address asks for, in order, kept up to date from change to change. */
import { useMemo, useRef, useState } from "react";
import { byKey } from "@/core/catalogue/keys";
import type { PersistentMap } from "@/core/catalogue/persistent-map";
import { searchTexts } from "@/core/catalogue/search";
import { demandOn } from "@/core/catalogue/fields";
import { pathByKey, readConditions, type Seen, testOf } from "@/core/catalogue/filters";
import { heldAt } from "@/core/catalogue/inheritance";
import { lineage } from "@/core/catalogue/tree";
import type { Figures } from "@/core/engine/read-model";
import { definition, type Item } from "@/core/kinds/index";
import type { Id } from "@/core/schema/id";
import { normalise } from "@/core/schema/names";
import { pathOf } from "@/core/schema/record";
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

/** What is kept of all items. */
export interface Filter {
  keep(item: Item): boolean;
  /** Where they are found by a text: no other items are kept. */
  readonly among: ReadonlySet<Id> | null;
}

/** A cell as conditions see it. */
function seen({ catalogue }: ItemFacts, item: Item, column: Column<Item>): Seen {
  const text = column.text(item);
  const sorted = column.sort(item);
  const number = typeof sorted === "number" ? sorted : null;
  const at = pathOf(definition("item"), column.id);
  if (!at) return { text, number, from: text === "" ? "none" : "worked", over: false, out: false };
  const { here, above } = heldAt(catalogue, "item", item, column.id);
  return { text, number, from: here.from, over: above.from !== "none", out: number !== null && outside(number) };

  function outside(value: number): boolean {
    const which = at?.name === "stats" ? "measures" : at?.name === "own" ? "takes" : null;
    if (!which || !at?.part) return false;
    const id = at.part as Id;
    const own = which === "measures" ? catalogue.records.stat.get(id) : catalogue.records.field.get(id);
    return [own, demandOn(catalogue, item, which, id)].some(
      (range) => range && ((range.min !== null && value < range.min) || (range.max !== null && value > range.max)),
    );
  }
}

/** What the filters in the address keep; null: everything. */
export function filterOf(query: URLSearchParams, facts: Live, columns: readonly Column<Item>[]): Filter | null {
  const { catalogue, troubled } = facts;
  const wanted = (kind: "type" | "rarity" | "tag") => {
    const key = query.get(kind);
    return key ? (byKey(catalogue, kind, key)?.id ?? null) : undefined;
  };
  const [type, rarity, tag, status] = [wanted("type"), wanted("rarity"), wanted("tag"), query.get("status")];
  const text = normalise(query.get("text") ?? "");
  const among = text ? searchTexts(catalogue, "item").find(text) : null;
  const tests: ((item: Item) => boolean)[] = [];
  if (among) tests.push((i) => among.has(i.id));
  if (type !== undefined) tests.push((i) => lineage(catalogue, i.type).some((t) => t.id === type));
  if (rarity !== undefined) tests.push((i) => rarity !== null && i.rarity === rarity);
  if (tag !== undefined) tests.push((i) => tag !== null && i.tags.includes(tag));
  if (status) tests.push((i) => i.status === status);
  for (const { column, test, value } of readConditions(query.get("where") ?? "")) {
    const of = columns.find((c) => c.id === pathByKey(catalogue, "item", column));
    const holds = testOf(test).ready(value);
    if (of && !("says" in holds)) tests.push((i) => holds(seen(facts, i, of)));
  }
  if (query.get("found")) tests.push((i) => troubled.has(i.id));
  return tests.length ? { keep: (item) => tests.every((test) => test(item)), among } : null;
}
