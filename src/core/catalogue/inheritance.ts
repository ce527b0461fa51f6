/** What a record has: its own value, or that of the nearest type above it that says one. */
import { type AnyRecord, definition, type Item, type ItemType, type Kind, type Source } from "../kinds/index";
import type { inheritable } from "../kinds/shared";
import type { Id } from "../schema/id";
import { pathOf, valueAt } from "../schema/record";
import type { Catalogue } from "./catalogue";
import type { Index } from "./persistent-map";
import { lineage } from "./tree";

export type InheritedField = Exclude<keyof typeof inheritable, "stats" | "own">;
/** A record that inherits: an item from its type, a type from its parent. */
export type Heir = Item | ItemType;

/** A value with where it comes from: written on the record, inherited from a type, or nowhere. */
export interface Held<T> {
  readonly value: T | null;
  readonly from: "own" | "inherited" | "none";
  /** The type it is inherited from. */
  readonly type?: ItemType;
}
const NOWHERE: Held<never> = { value: null, from: "none" };

function fromAbove<T>(catalogue: Catalogue, heir: Heir, said: (type: ItemType) => T | null): Held<T> {
  for (const type of lineage(catalogue, "parent" in heir ? heir.parent : heir.type)) {
    const value = said(type);
    if (value !== null) return { value, from: "inherited", type };
  }
  return NOWHERE;
}

export function held<F extends InheritedField>(catalogue: Catalogue, heir: Heir, field: F): Held<NonNullable<Item[F]>> {
  const said = (record: Heir) => stated(record[field] as NonNullable<Item[F]> | null);
  const own = said(heir);
  return own === null ? fromAbove(catalogue, heir, said) : { value: own, from: "own" };
}

/** One part of what items hold by other records: of a stat, of a designers' field. */
function heldPart<V>(
  catalogue: Catalogue,
  heir: Heir,
  of: (record: Heir) => { readonly [part: string]: V },
  part: Id,
): Held<V> {
  const said = (record: Heir) => (Object.hasOwn(of(record), part) ? of(record)[part] : null);
  const own = said(heir);
  return own === null ? fromAbove(catalogue, heir, said) : { value: own, from: "own" };
}
export const heldStat = (catalogue: Catalogue, heir: Heir, stat: Id) => heldPart(catalogue, heir, (r) => r.stats, stat);
export const heldOwn = (catalogue: Catalogue, heir: Heir, field: Id) => heldPart(catalogue, heir, (r) => r.own, field);

/** What a player gets for one; null where it has no price or may not be sold. */
export const soldFor = (catalogue: Catalogue, item: Item): number | null =>
  held(catalogue, item, "sellable").value === false ? null : held(catalogue, item, "sell").value;

/** Shops that buy wares back, by item: what one brings there, and in which currency. */
const BOUGHT_BACK: Index<
  Source,
  ReadonlyMap<Id, readonly { readonly price: number; readonly currency: Id | null }[]>
> = {
  lasting: true,
  build(sources) {
    const by = new Map<Id, { price: number; currency: Id | null }[]>();
    for (const { share, wares, currency } of sources.values())
      if (share !== null)
        for (const ware of wares) {
          const offer = { price: (share * ware.price) / ware.amount, currency: ware.currency ?? currency };
          if (ware.amount > 0) by.set(ware.item, [...(by.get(ware.item) ?? []), offer]);
        }
    return by;
  },
  follow(by, before, changes) {
    for (const [id, now] of changes) if ((before.get(id)?.share ?? now?.share ?? null) !== null) return null;
    return by;
  },
};
export const anyBuysBack = ({ records }: Catalogue): boolean => records.source.index(BOUGHT_BACK).size > 0;

/**
 * What a player gets for one, by currency (null: value units), each where it brings most: its own price, and what shops
 * pay for their wares.
 */
export function salesOf(catalogue: Catalogue, item: Item): ReadonlyMap<Id | null, number> {
  const sell = soldFor(catalogue, item);
  const sales = new Map<Id | null, number>(sell === null ? [] : [[null, sell]]);
  const offers = catalogue.records.source.index(BOUGHT_BACK).get(item.id);
  if (offers && held(catalogue, item, "sellable").value !== false)
    for (const { price, currency } of offers) sales.set(currency, Math.max(price, sales.get(currency) ?? 0));
  return sales;
}

/** The most that one brings, in value units; null: it can't be sold. */
export function broughtBy(catalogue: Catalogue, item: Item): number | null {
  const { currency: currencies, source } = catalogue.records;
  if (!source.index(BOUGHT_BACK).has(item.id)) return soldFor(catalogue, item);
  const sales = salesOf(catalogue, item);
  if (!sales.size) return null;
  let most = 0;
  for (const [currency, price] of sales)
    most = Math.max(most, price * (currency === null ? 1 : (currencies.get(currency)?.worth ?? 1)));
  return most;
}

/** What stands at a path of a record of any kind, and what would stand there if the record itself said nothing. */
export function heldAt(
  catalogue: Catalogue,
  kind: Kind,
  record: AnyRecord,
  path: string,
): { readonly here: Held<unknown>; readonly above: Held<unknown> } {
  const at = pathOf(definition(kind), path);
  const own = at && valueAt(record, at);
  const inherits = at?.field.options.inheritable === true && isHeir(record);
  const above = inherits ? fromAbove(catalogue, record as Heir, (type) => stated(valueAt(type, at))) : NOWHERE;
  const value = stated(own);
  return { here: value === null ? above : { value, from: "own" }, above };
}
/** Whether a field of a record has a value, of its own or inherited. */
export const hasValueAt = (catalogue: Catalogue, kind: Kind, record: AnyRecord, path: string): boolean =>
  heldAt(catalogue, kind, record, path).here.from !== "none";
const isHeir = (record: object): record is Heir => "parent" in record || "type" in record;
/** What a value says; null where it says nothing: an empty text, an empty list. */
const stated = <V>(value: V | null | undefined): V | null =>
  value === undefined || value === "" || (Array.isArray(value) && value.length === 0) ? null : value;
