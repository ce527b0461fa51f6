/** Records of one kind, as a map that is never changed in place and yet costs no copy when the next one is made. */
import { DenseRecords } from "./dense";
import type { AnyRecord, Id, Kind } from "./records";

/** So many records of one kind are kept as bytes. */
const DENSE = 250_000;

type Held<V> = Map<Id, V> | (V extends AnyRecord ? DenseRecords<V> : never);

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
export class Shelf<V> implements ReadonlyMap<Id, V> {
  #map: Held<V> | null;
  #newer: Shelf<V> | null = null;
  #was: ReadonlyMap<Id, V | undefined> | null = null;

  /** @param entries  what is on it; records that are bytes already are taken over, not copied */
  constructor(entries: Iterable<readonly [Id, V]> | DenseRecords = []) {
    this.#map = (entries instanceof DenseRecords ? entries : new Map(entries)) as Held<V>;
  }

  /** Records of a kind, as bytes where there are very many. */
  static of<V extends AnyRecord>(kind: Kind, records: readonly V[], dense = DENSE): Shelf<V> {
    return new Shelf<V>(
      records.length < dense ? records.map((r) => [r.id, r] as const) : new DenseRecords(kind, records),
    );
  }

  /** The records where they are bytes; null where they are objects. */
  get dense(): DenseRecords | null {
    const held = this.#held();
    return held instanceof DenseRecords ? held : null;
  }

  /** The version in which some records are others; undefined takes one out. */
  with(changes: ReadonlyMap<Id, V | undefined>): Shelf<V> {
    const map = this.#held();
    const next = new Shelf<V>();
    this.#handOver(next, map, changes);
    return next;
  }

  #handOver(next: Shelf<V>, map: Held<V>, changes: ReadonlyMap<Id, V | undefined>): void {
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
    const path: Shelf<V>[] = [];
    let at: Shelf<V> = this;
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
      const newer = older.#newer as Shelf<V>;
      newer.#handOver(older, newer.#map as Held<V>, older.#was as ReadonlyMap<Id, V | undefined>);
    }
    return this.#map as unknown as Held<V>;
  }

  get(id: Id): V | undefined {
    let at: Shelf<V> = this;
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
    at: (dense: DenseRecords, place: number) => T | undefined,
  ): MapIterator<T> {
    const held = this.#held();
    return held instanceof DenseRecords
      ? (this.#places(held.places, at) as Iterator<T> as MapIterator<T>)
      : [...all(held)][Symbol.iterator]();
  }
  /** One after the other, each in this version even where a newer one was made in between. */
  *#places<T>(places: number, at: (dense: DenseRecords, place: number) => T | undefined): Generator<T, undefined> {
    for (let place = 0; place < places; place++) {
      const found = at(this.#held() as DenseRecords, place);
      if (found !== undefined) yield found;
    }
  }
}
