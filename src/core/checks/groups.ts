/** Which records have the same number, in flat arrays: most have one that no other has. */
import { FREE } from "../catalogue/ids";
import { half, idFrom, type Id } from "../schema/id";

/** A table fuller than this takes long to look things up in. */
const FULL = 0.8;
/** So much larger is the next one: what it takes stands between two thirds of its room and all of it. */
const MORE = 1.25;
/** More records of one number than this are a set of their own: going through them at every look-up would take long. */
const MANY = 64;

/** Records by a number of 32 bits, 12 bytes a place. Open addressing with linear probing (Knuth 1998, 6.4). */
export class Groups {
  /** Three to a place: the number, and the halves of the id; FREE for the first half: nothing stands there. */
  private table = new Uint32Array(16 * 3).fill(FREE);
  private places = 16;
  private size = 0;
  private readonly large = new Map<number, Set<Id>>();

  join(number: number, id: Id): void {
    const large = this.large.get(number >>> 0);
    if (large) {
      large.add(id);
      return;
    }
    const at = this.find(number, id);
    if (this.table[at * 3 + 1] !== FREE) return;
    const same = at - placeOf(number, this.places);
    if (same > MANY || same < 0) {
      const ids = this.of(number);
      if (ids.length >= MANY) {
        for (const each of ids) this.leave(number, each);
        this.large.set(number >>> 0, new Set([...ids, id]));
        return;
      }
    }
    if (this.size + 1 > this.places * FULL) {
      this.widen();
      this.join(number, id);
      return;
    }
    this.size++;
    this.put(at, number >>> 0, half(id, 0), half(id, 6));
  }

  leave(number: number, id: Id): void {
    const large = this.large.get(number >>> 0);
    if (large) {
      large.delete(id);
      if (!large.size) this.large.delete(number >>> 0);
      return;
    }
    let gap = this.find(number, id);
    const { table } = this;
    if (table[gap * 3 + 1] === FREE) return;
    this.size--;
    const { places } = this;
    const behind = (at: number, home: number) => (at < home ? at - home + places : at - home);
    // What follows closes up, so that nothing is cut off from the place where its search begins.
    for (let at = this.next(gap); table[at * 3 + 1] !== FREE; at = this.next(at)) {
      const home = placeOf(table[at * 3], places);
      if (behind(at, home) < behind(at, gap)) continue;
      table.copyWithin(gap * 3, at * 3, at * 3 + 3);
      gap = at;
    }
    table[gap * 3 + 1] = FREE;
  }

  of(number: number): Id[] {
    const large = this.large.get(number >>> 0);
    if (large) return [...large];
    const ids: Id[] = [];
    for (const at of this.placesOf(number >>> 0)) ids.push(idFrom(this.table[at * 3 + 1], this.table[at * 3 + 2]));
    return ids;
  }

  /** Every group of more than one. */
  *several(): Generator<Id[]> {
    for (const ids of this.large.values()) if (ids.size > 1) yield [...ids];
    const { table } = this;
    for (let at = 0; at < this.places; at++) {
      if (table[at * 3 + 1] === FREE) continue;
      const number = table[at * 3];
      // Most stand alone: seen without a list of those that stand with it.
      let next = this.next(at);
      while (table[next * 3 + 1] !== FREE && table[next * 3] !== number) next = this.next(next);
      if (table[next * 3 + 1] === FREE) continue;
      const [first] = this.placesOf(number);
      if (first === at) yield this.of(number);
    }
  }

  private *placesOf(number: number): Generator<number> {
    const { table } = this;
    for (let at = placeOf(number, this.places); table[at * 3 + 1] !== FREE; at = this.next(at))
      if (table[at * 3] === number) yield at;
  }

  /** Where the record stands, or the free place at which its search ends. */
  private find(number: number, id: Id): number {
    const [high, low] = [half(id, 0), half(id, 6)];
    const { table } = this;
    for (let at = placeOf(number, this.places); ; at = this.next(at))
      if (
        table[at * 3 + 1] === FREE ||
        (table[at * 3] === number >>> 0 && table[at * 3 + 1] === high && table[at * 3 + 2] === low)
      )
        return at;
  }

  private next(at: number): number {
    return at + 1 === this.places ? 0 : at + 1;
  }

  private put(at: number, number: number, high: number, low: number): void {
    this.table[at * 3] = number;
    this.table[at * 3 + 1] = high;
    this.table[at * 3 + 2] = low;
  }

  private widen(): void {
    const { table } = this;
    this.places = Math.ceil(this.places * MORE);
    this.table = new Uint32Array(this.places * 3).fill(FREE);
    for (let k = 0; k < table.length; k += 3) {
      if (table[k + 1] === FREE) continue;
      let at = placeOf(table[k], this.places);
      while (this.table[at * 3 + 1] !== FREE) at = this.next(at);
      this.put(at, table[k], table[k + 1], table[k + 2]);
    }
  }
}

/** Where the search for a number begins: its upper bits, mixed, spread over all places. */
const placeOf = (number: number, places: number): number =>
  Math.floor(((Math.imul(number ^ (number >>> 15), 0x2c1b3c6d) >>> 0) * places) / 2 ** 32);
