/** Records of one kind, as a map that is never changed in place and yet costs no copy when the next one is made. */
import type { Id } from "./records";

/** After so many newer versions an old one is given a map of its own rather than asking them one after the other. */
const FAR = 64;

/**
 * The newest version holds a map; an older one holds only what differs from the version after it (shallow binding, Baker
 * 1978). So writing costs what is written, reading the newest costs what a map costs, and whoever goes through an old version
 * or writes on from it makes it the one that holds the map again. What is gone through is a snapshot.
 *
 * The order is that of coming in; a record that was taken out and put back comes last.
 */
export class Shelf<V> implements ReadonlyMap<Id, V> {
  #map: Map<Id, V> | null;
  #newer: Shelf<V> | null = null;
  #was: ReadonlyMap<Id, V | undefined> | null = null;

  constructor(entries: Iterable<readonly [Id, V]> = []) {
    this.#map = new Map(entries);
  }

  /** The version in which some records are others; undefined takes one out. */
  with(changes: ReadonlyMap<Id, V | undefined>): Shelf<V> {
    const map = this.#held();
    const next = new Shelf<V>();
    this.#handOver(next, map, changes);
    return next;
  }

  #handOver(next: Shelf<V>, map: Map<Id, V>, changes: ReadonlyMap<Id, V | undefined>): void {
    const was = new Map<Id, V | undefined>();
    for (const [id, value] of changes) {
      was.set(id, map.get(id));
      if (value === undefined) map.delete(id);
      else map.set(id, value);
    }
    [this.#map, this.#newer, this.#was] = [null, next, was];
    [next.#map, next.#newer, next.#was] = [map, null, null];
  }

  /** The map of this version, wherever it is. */
  #held(): Map<Id, V> {
    if (this.#map) return this.#map;
    const path: Shelf<V>[] = [];
    let at: Shelf<V> = this;
    for (; at.#newer; at = at.#newer) path.push(at);
    if (path.length > FAR) {
      const own = new Map(at.#map as Map<Id, V>);
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
      newer.#handOver(older, newer.#map as Map<Id, V>, older.#was as ReadonlyMap<Id, V | undefined>);
    }
    return this.#map as unknown as Map<Id, V>;
  }

  get(id: Id): V | undefined {
    let at: Shelf<V> = this;
    for (let far = 0; at.#newer; at = at.#newer, far++) {
      if (at.#was?.has(id)) return at.#was.get(id);
      if (far > FAR) return this.#held().get(id);
    }
    return at.#map?.get(id);
  }
  has(id: Id): boolean {
    return this.get(id) !== undefined;
  }
  get size(): number {
    return this.#held().size;
  }

  keys(): MapIterator<Id> {
    return [...this.#held().keys()][Symbol.iterator]();
  }
  values(): MapIterator<V> {
    return [...this.#held().values()][Symbol.iterator]();
  }
  entries(): MapIterator<[Id, V]> {
    return [...this.#held()][Symbol.iterator]();
  }
  [Symbol.iterator](): MapIterator<[Id, V]> {
    return this.entries();
  }
  forEach(each: (value: V, id: Id, map: ReadonlyMap<Id, V>) => void): void {
    for (const [id, value] of this) each(value, id, this);
  }
}
