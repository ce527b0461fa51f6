/** A catalogue: all records of a pantry at one revision. Never changed in place; a change makes the next one. */
import { type DenseParts, DenseRecords } from "./dense";
import { fold } from "./names";
import type { AnyRecord, Id, Inheritable, Item, ItemType, Kind, Line, Pantry, RecordOf, Recipe, Source } from "./records";
import { KINDS } from "./records";
import { Shelf } from "./shelf";

export type Catalogue = { readonly revision: number; readonly pantry: Pantry } & {
  readonly [K in Kind]: Shelf<RecordOf[K]>;
};

export function emptyCatalogue(pantry: Pantry): Catalogue {
  const shelves = Object.fromEntries(KINDS.map((kind) => [kind, new Shelf()]));
  return { revision: 0, pantry, ...shelves } as unknown as Catalogue;
}

/** A catalogue as plain data, to be sent to another thread or window. */
export interface Packed {
  readonly revision: number;
  readonly pantry: Pantry;
  readonly shelves: { readonly [K in Kind]: readonly RecordOf[K][] | DenseParts };
}
/** @param bytes  whether records that are bytes stay so; what is written as text must not be */
export const packed = (catalogue: Catalogue, { bytes }: { readonly bytes: boolean }): Packed => ({
  revision: catalogue.revision,
  pantry: catalogue.pantry,
  shelves: Object.fromEntries(
    KINDS.map((kind) => {
      const shelf = catalogue[kind] as Shelf<AnyRecord>;
      return [kind, (bytes && shelf.dense?.parts()) || [...shelf.values()]];
    }),
  ) as unknown as Packed["shelves"],
});
export const unpacked = ({ revision, pantry, shelves }: Packed): Catalogue => {
  const shelf = (kind: Kind): Shelf<AnyRecord> => {
    const given = shelves[kind] as readonly AnyRecord[] | DenseParts;
    return "pages" in given ? new Shelf<AnyRecord>(DenseRecords.of(given)) : Shelf.of(kind, given);
  };
  return { revision, pantry, ...Object.fromEntries(KINDS.map((kind) => [kind, shelf(kind)])) } as unknown as Catalogue;
};

/** The records of one kind; the type follows the kind. */
export const recordsOf = <K extends Kind>(catalogue: Catalogue, kind: K): ReadonlyMap<Id, RecordOf[K]> =>
  catalogue[kind] as unknown as ReadonlyMap<Id, RecordOf[K]>;

export const recordAt = (catalogue: Catalogue, kind: Kind, id: Id): AnyRecord | undefined =>
  (catalogue[kind] as ReadonlyMap<Id, AnyRecord>).get(id);

/** The name of a record, or a placeholder that can't be mistaken for one. */
export const nameOf = (catalogue: Catalogue, kind: Kind, id: Id): string => recordAt(catalogue, kind, id)?.name ?? `(gone: ${id})`;

const keyIndexes = new WeakMap<object, Map<string, Id>>();
/** Folded key → id, built once per set of records. */
export function keyIndex(catalogue: Catalogue, kind: Kind): ReadonlyMap<string, Id> {
  const records = catalogue[kind] as ReadonlyMap<Id, AnyRecord>;
  let index = keyIndexes.get(records);
  if (!index) {
    index = new Map();
    // The first holder of a key keeps it, so that a second one is found out.
    for (const record of records.values()) {
      // A well-formed key is plain ASCII: taking out the "_" folds it.
      const key = record.key.replaceAll("_", "");
      if (!index.has(key)) index.set(key, record.id);
    }
    keyIndexes.set(records, index);
  }
  return index;
}

export const byKey = <K extends Kind>(catalogue: Catalogue, kind: K, key: string): RecordOf[K] | undefined => {
  const id = keyIndex(catalogue, kind).get(fold(key));
  return id === undefined ? undefined : recordsOf(catalogue, kind).get(id);
};

/** The type and its ancestors, nearest first. Stops at a loop, which the rules refuse anyway. */
export function lineage(catalogue: Catalogue, type: Id | null): ItemType[] {
  const path: ItemType[] = [];
  for (let at = type === null ? undefined : catalogue.type.get(type); at && !path.includes(at); ) {
    path.push(at);
    at = at.parent === null ? undefined : catalogue.type.get(at.parent);
  }
  return path;
}

export type InheritedField = Exclude<keyof Inheritable, "stats">;
/** A value with where it comes from: written on the item, inherited from a type, or nowhere. */
export interface Held<T> {
  readonly value: T | null;
  readonly from: "own" | "inherited" | "none";
  /** The type it is inherited from. */
  readonly type?: ItemType;
}

export function held<F extends InheritedField>(catalogue: Catalogue, item: Item, field: F): Held<NonNullable<Item[F]>> {
  const own = item[field];
  if (own !== null) return { value: own as NonNullable<Item[F]>, from: "own" };
  for (const type of lineage(catalogue, item.type)) {
    const value = type[field];
    if (value !== null) return { value: value as NonNullable<Item[F]>, from: "inherited", type };
  }
  return { value: null, from: "none" };
}

export function heldStat(catalogue: Catalogue, item: Item, stat: Id): Held<number> {
  if (stat in item.stats) return { value: item.stats[stat], from: "own" };
  for (const type of lineage(catalogue, item.type))
    if (stat in type.stats) return { value: type.stats[stat], from: "inherited", type };
  return { value: null, from: "none" };
}

/** Every record that refers to the given one, with the field. One pass over the pantry. */
export function* referrers(catalogue: Catalogue, kind: Kind, id: Id): Generator<{ kind: Kind; record: AnyRecord; field: string }> {
  const uses = (lines: readonly Line[]) => lines.some((l) => l.item === id);
  const at = <K extends Kind>(k: K, test: (record: RecordOf[K]) => string | false) =>
    [...recordsOf(catalogue, k).values()].flatMap((record) => {
      const field = test(record);
      return field ? [{ kind: k as Kind, record: record as AnyRecord, field }] : [];
    });
  if (kind === "item") {
    yield* at("recipe", (r: Recipe) => (uses(r.lines) ? "lines" : r.taughtBy === id && "taughtBy"));
    yield* at("source", (s: Source) => uses(s.lines) && "lines");
  } else if (kind === "type") {
    yield* at("type", (t: ItemType) => t.parent === id && "parent");
    yield* at("item", (i: Item) => i.type === id && "type");
  } else if (kind === "stat") {
    yield* at("type", (t: ItemType) => id in t.stats && "stats");
    yield* at("item", (i: Item) => id in i.stats && "stats");
  } else if (kind === "rarity") yield* at("item", (i: Item) => i.rarity === id && "rarity");
  else if (kind === "tag") yield* at("item", (i: Item) => i.tags.includes(id) && "tags");
  else if (kind === "currency") {
    yield* at("recipe", (r: Recipe) => r.feeCurrency === id && "fee");
    yield* at("source", (s: Source) => s.currency === id && "price");
  }
}

/** Recipes in which an item stands in one of the given roles. */
export const recipesWith = (catalogue: Catalogue, item: Id, roles: readonly Line["role"][]): Recipe[] =>
  [...catalogue.recipe.values()].filter((r) => r.lines.some((l) => l.item === item && roles.includes(l.role)));
