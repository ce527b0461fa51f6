/** A catalogue: all records of a pantry at one revision. Never changed in place; a change makes the next one. */
import { type DenseParts, DenseRecords } from "./dense";
import { fold } from "./names";
import type {
  AnyRecord,
  Field,
  Id,
  Inheritable,
  Item,
  ItemType,
  Kind,
  Line,
  Pantry,
  Recipe,
  RecordOf,
} from "./records";
import { FIELDS, KINDS } from "./records";
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
export const nameOf = (catalogue: Catalogue, kind: Kind, id: Id): string =>
  recordAt(catalogue, kind, id)?.name ?? `(gone: ${id})`;

/** A well-formed key is plain ASCII: taking out the "_" folds it. */
export const foldKey = (key: string): string => key.replaceAll("_", "");

const keyIndexes = new WeakMap<object, Map<string, Id>>();
/** Folded key → id, built once per set of records. */
export function keyIndex(catalogue: Catalogue, kind: Kind): ReadonlyMap<string, Id> {
  const records = catalogue[kind] as ReadonlyMap<Id, AnyRecord>;
  let index = keyIndexes.get(records);
  if (!index) {
    index = new Map();
    // The first holder of a key keeps it, so that a second one is found out.
    for (const record of records.values()) {
      const key = foldKey(record.key);
      if (!index.has(key)) index.set(key, record.id);
    }
    keyIndexes.set(records, index);
  }
  return index;
}

/**
 * Hands the index of keys on to the version after it, where there is one: the version before builds its own if it is
 * asked again.
 */
export function carryKeys(
  before: Catalogue,
  next: Catalogue,
  kind: Kind,
  changes: ReadonlyMap<Id, AnyRecord | undefined>,
): void {
  const index = keyIndexes.get(before[kind]);
  if (!index || before[kind] === next[kind]) return;
  keyIndexes.delete(before[kind]);
  for (const id of changes.keys()) {
    const was = recordAt(before, kind, id);
    if (was && index.get(foldKey(was.key)) === id) index.delete(foldKey(was.key));
  }
  for (const [id, record] of changes) if (record) index.set(foldKey(record.key), id);
  keyIndexes.set(next[kind], index);
}

export const byKey = <K extends Kind>(catalogue: Catalogue, kind: K, key: string): RecordOf[K] | undefined => {
  const id = keyIndex(catalogue, kind).get(fold(key));
  return id === undefined ? undefined : recordsOf(catalogue, kind).get(id);
};

/** The type and its ancestors, nearest first. Stops at a loop, which the rules refuse anyway. */
export function lineage(catalogue: Catalogue, type: Id | null): ItemType[] {
  const path = new Set<ItemType>();
  for (let at = type === null ? undefined : catalogue.type.get(type); at && !path.has(at); ) {
    path.add(at);
    at = at.parent === null ? undefined : catalogue.type.get(at.parent);
  }
  return [...path];
}

/** So many types that stand wrong are enough to say so. */
const MOST_FOUND = 1_000;

/**
 * Types that lie on or under a circle of parents, and those of which a branch has more types than `most` one below the
 * other. One pass.
 */
export function tooDeep(catalogue: Catalogue, most: number): Map<Id, "circle" | "deep"> {
  const depth = new Map<Id, number>();
  const found = new Map<Id, "circle" | "deep">();
  for (const type of catalogue.type.values()) {
    const path = new Set<ItemType>();
    let at: ItemType | undefined = type;
    for (
      ;
      at && !depth.has(at.id) && !path.has(at);
      at = at.parent === null ? undefined : catalogue.type.get(at.parent)
    )
      path.add(at);
    const circle = at !== undefined && path.has(at);
    let above = circle ? Number.POSITIVE_INFINITY : at ? (depth.get(at.id) as number) : 0;
    for (const each of [...path].reverse()) depth.set(each.id, ++above);
    if (above <= most || found.size > MOST_FOUND) continue;
    const why = above === Number.POSITIVE_INFINITY ? "circle" : "deep";
    // Whatever stands above a type that is too deep makes it so.
    for (const { id } of why === "circle" ? path : lineage(catalogue, type.id)) if (!found.has(id)) found.set(id, why);
  }
  return found;
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

/** How messages name the field that holds a currency: as what it is the currency of. */
const MONEY_FIELDS: Partial<Record<string, string>> = { feeCurrency: "fee", currency: "price" };

/** Kinds with a field that may refer to a kind, and those fields. */
const referring = (kind: Kind): { of: Kind; fields: [string, Field][] }[] =>
  KINDS.flatMap((of) => {
    const fields = (Object.entries(FIELDS[of]) as [string, Field][]).filter(
      ([, f]) =>
        ("to" in f && f.to === kind) || (f.as === "stats" && kind === "stat") || (f.as === "lines" && kind === "item"),
    );
    return fields.length ? [{ of, fields }] : [];
  });

function* idsIn(field: Field, value: unknown): Generator<Id> {
  if (field.as === "ref") {
    if (value !== null) yield value as Id;
  } else if (field.as === "refs") yield* value as readonly Id[];
  else if (field.as === "stats") yield* Object.keys(value as object) as Id[];
  else if (field.as === "lines") for (const { item } of value as readonly Line[]) yield item;
}

/**
 * Every record that refers to one of the given records of a kind, once for each it refers to, with the first such
 * field. One pass over the pantry.
 */
export function* referrersTo(
  catalogue: Catalogue,
  kind: Kind,
  wanted: { readonly size: number; has(id: Id): boolean },
): Generator<{ id: Id; kind: Kind; record: AnyRecord; field: string }> {
  if (!wanted.size) return;
  for (const { of, fields } of referring(kind))
    for (const record of (catalogue[of] as ReadonlyMap<Id, AnyRecord>).values()) {
      let found: Map<Id, string> | null = null;
      for (const [name, field] of fields)
        for (const id of idsIn(field, (record as unknown as Record<string, unknown>)[name])) {
          if (!wanted.has(id) || found?.has(id)) continue;
          found ??= new Map();
          found.set(id, MONEY_FIELDS[name] ?? name);
        }
      if (found) for (const [id, field] of found) yield { id, kind: of, record, field };
    }
}

/** Every record that refers to the given one, with the field. */
export const referrers = (
  catalogue: Catalogue,
  kind: Kind,
  id: Id,
): Iterable<{ kind: Kind; record: AnyRecord; field: string }> => referrersTo(catalogue, kind, new Set([id]));

/** Recipes in which an item stands in one of the given roles. */
export const recipesWith = (catalogue: Catalogue, item: Id, roles: readonly Line["role"][]): Recipe[] =>
  [...catalogue.recipe.values()].filter((r) => r.lines.some((l) => l.item === item && roles.includes(l.role)));
