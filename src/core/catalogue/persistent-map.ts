/** Records of one kind, as a map that is never changed in place and yet costs no copy when the next one is made. */
import { BinaryRecords } from "./binary-records";
import type { AnyRecord, Kind } from "../kinds/index";
import type { Id } from "../schema/id";

/** So many records of one kind are kept as bytes. */
const BINARY = 250_000;

/** Something that is found from all records, and followed from one version to the next. */
export interface Index<V, I> {
  /** What it holds is small and never changes in place: versions before the newest keep theirs. */
  readonly lasting?: true;
  build(records: ReadonlyMap<Id, V>): I;
  /** The same record by record, so that several indexes are built in one pass over the records. */
  collect?(): Collecting<V, I>;
  /** May change the index in place. @returns null where it is to be built again when it is asked for */
  follow(index: I, before: ReadonlyMap<Id, V>, changes: ReadonlyMap<Id, V | undefined>): I | null;
}

/** An index that is being built. */
export interface Collecting<V, I> {
  add(record: V): void;
  done(): I;
}
/** Another object wherever a record comes, goes, or differs in a way that counts. */
export const mark = <V>(differs: (then: V, now: V) => boolean): Index<V, object> => ({
  lasting: true,
  build: () => ({}),
  follow(of, before, changes) {
    for (const [id, now] of changes) {
      const then = before.get(id);
      if (!then || !now || differs(then, now)) return {};
    }
    return of;
  },
});
/** `build` of an index that can be collected. */
export function buildBy<V, I>(collect: () => Collecting<V, I>): (records: ReadonlyMap<Id, V>) => I {
  return (records) => {
    const collecting = collect();
    for (const record of records.values()) collecting.add(record);
    return collecting.done();
  };
}

type Held<V> = Map<Id, V> | (V extends AnyRecord ? BinaryRecords<V> : never);

/** After so many newer versions an old one is given a map of its own rather than asking them one after the other. */
const FAR = 64;

/**
 * The newest version holds a map; an older one holds only what differs from the version after it (shallow binding,
 * Baker
 * 1978). So writing costs what is written, reading the newest costs what a map costs, and whoever goes through an old
 * version
 * or writes on from it makes it the one that holds the map again. What is gone through is a snapshot.
 *
 * The order is that of coming in; a record that was taken out and put back comes last, or where it was.
 */
export class PersistentMap<V> implements ReadonlyMap<Id, V> {
  #map: Held<V> | null;
  #newer: PersistentMap<V> | null = null;
  #was: ReadonlyMap<Id, V | undefined> | null = null;
  readonly #indexes = new Map<Index<V, unknown>, unknown>();

  /** @param entries  what is on it; records that are bytes already are taken over, not copied */
  constructor(entries: Iterable<readonly [Id, V]> | BinaryRecords = []) {
    this.#map = (entries instanceof BinaryRecords ? entries : new Map(entries)) as Held<V>;
  }

  /** Records of a kind, as bytes where there are very many. */
  static of<V extends AnyRecord>(kind: Kind, records: readonly V[], binary = BINARY): PersistentMap<V> {
    return new PersistentMap<V>(
      records.length < binary ? records.map((r) => [r.id, r] as const) : new BinaryRecords(kind, records),
    );
  }

  /** The records where they are bytes; null where they are objects. */
  get binary(): BinaryRecords | null {
    const held = this.#held();
    return held instanceof BinaryRecords ? held : null;
  }

  /** The version in which some records are others; undefined takes one out. */
  with(changes: ReadonlyMap<Id, V | undefined>): PersistentMap<V> {
    const map = this.#held();
    const next = new PersistentMap<V>();
    this.#handOver(next, map, changes);
    return next;
  }

  #handOver(next: PersistentMap<V>, map: Held<V>, changes: ReadonlyMap<Id, V | undefined>): void {
    const was = new Map<Id, V | undefined>();
    for (const [id, value] of changes) {
      was.set(id, map.get(id));
      if (value === undefined) map.delete(id);
      else map.set(id, value as never);
    }
    [this.#map, this.#newer, this.#was] = [null, next, was];
    [next.#map, next.#newer, next.#was] = [map, null, null];
  }

  /** The map of this version, wherever it is. */
  #held(): Held<V> {
    if (this.#map) return this.#map;
    const path: PersistentMap<V>[] = [];
    let at: PersistentMap<V> = this;
    for (; at.#newer; at = at.#newer) path.push(at);
    // Bytes are never copied: there the old version always becomes the one that holds them.
    if (path.length > FAR && at.#map instanceof Map) {
      const own = new Map(at.#map);
      for (const older of path.reverse())
        for (const [id, value] of older.#was as ReadonlyMap<Id, V | undefined>) {
          if (value === undefined) own.delete(id);
          else own.set(id, value);
        }
      [this.#map, this.#newer, this.#was] = [own, null, null];
      return own;
    }
    for (const older of path.reverse()) {
      const newer = older.#newer as PersistentMap<V>;
      newer.#handOver(older, newer.#map as Held<V>, older.#was as ReadonlyMap<Id, V | undefined>);
    }
    return this.#map as unknown as Held<V>;
  }

  /** The index of this version, built where there is none yet. */
  index<I>(of: Index<V, I>): I {
    let index = this.#indexes.get(of as Index<V, unknown>) as I | undefined;
    if (index === undefined) {
      index = of.build(this);
      this.#indexes.set(of as Index<V, unknown>, index);
    }
    return index;
  }

  /** Builds those of some indexes that are missing, in one pass: where records are bytes, a pass is most of the work. */
  prepare(indexes: readonly Index<V, unknown>[]): void {
    const missing = indexes.filter((of) => !this.#indexes.has(of));
    const collecting = missing.map((of) => of.collect?.() ?? { add: () => undefined, done: () => of.build(this) });
    if (missing.some((of) => of.collect))
      for (const record of this.values()) for (let k = 0; k < collecting.length; k++) collecting[k].add(record);
    for (const [k, of] of missing.entries()) this.#indexes.set(of, collecting[k].done());
  }

  /** Takes over the indexes of the version before; that one builds its own if it is asked again, but for lasting ones. */
  adoptIndexes(before: PersistentMap<V>, changes: ReadonlyMap<Id, V | undefined>): void {
    if (before === this) return;
    for (const [of, index] of before.#indexes) {
      const next = of.follow(index, before, changes);
      if (next !== null) this.#indexes.set(of, next);
    }
    for (const of of before.#indexes.keys()) if (!of.lasting) before.#indexes.delete(of);
  }

  /** Ids of what may be other here than in an older version; null where that one is none of the last few. */
  changedSince(older: PersistentMap<V>): ReadonlySet<Id> | null {
    const changed = new Set<Id>();
    let at: PersistentMap<V> = older;
    for (let far = 0; at !== this; far++) {
      if (!at.#newer || far > FAR) return null;
      for (const id of (at.#was as ReadonlyMap<Id, V | undefined>).keys()) changed.add(id);
      at = at.#newer;
    }
    return changed;
  }

  get(id: Id): V | undefined {
    let at: PersistentMap<V> = this;
    for (let far = 0; at.#newer; at = at.#newer, far++) {
      if (at.#was?.has(id)) return at.#was.get(id);
      if (far > FAR) return this.#held().get(id);
    }
    return at.#map?.get(id) as V | undefined;
  }
  has(id: Id): boolean {
    return this.#map ? this.#map.has(id) : this.get(id) !== undefined;
  }
  get size(): number {
    return this.#held().size;
  }

  keys(): MapIterator<Id> {
    return this.#through(
      (map) => map.keys(),
      (dense, place) => dense.idAt(place),
    );
  }
  values(): MapIterator<V> {
    return this.#through(
      (map) => map.values(),
      (dense, place) => dense.at(place) as V | undefined,
    );
  }
  entries(): MapIterator<[Id, V]> {
    return this.#through(
      (map) => map.entries(),
      (dense, place) => {
        const record = dense.at(place);
        return record && [record.id, record as V];
      },
    );
  }
  [Symbol.iterator](): MapIterator<[Id, V]> {
    return this.entries();
  }
  forEach(each: (value: V, id: Id, map: ReadonlyMap<Id, V>) => void): void {
    for (const [id, value] of this) each(value, id, this);
  }

  #through<T>(
    all: (map: Map<Id, V>) => Iterable<T>,
    at: (dense: BinaryRecords, place: number) => T | undefined,
  ): MapIterator<T> {
    const held = this.#held();
    return held instanceof BinaryRecords
      ? (this.#places(held.places, at) as Iterator<T> as MapIterator<T>)
      : [...all(held)][Symbol.iterator]();
  }
  /** One after the other, each in this version even where a newer one was made in between. */
  *#places<T>(places: number, at: (dense: BinaryRecords, place: number) => T | undefined): Generator<T, undefined> {
    for (let place = 0; place < places; place++) {
      const found = at(this.#held() as BinaryRecords, place);
      if (found !== undefined) yield found;
    }
  }
}
