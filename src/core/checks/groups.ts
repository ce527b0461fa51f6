/** Which records have the same number, in flat arrays: most have one that no other has. */
import { FREE } from "../catalogue/ids";
import { half, idFrom, type Id } from "../schema/id";

/** A table fuller than this takes long to look things up in. */
const FULL = 0.8;
/** More records of one number than this are a set of their own: going through them at every look-up would take long. */
const MANY = 64;

/** Records by a number of 32 bits, 12 bytes a place. Open addressing with linear probing (Knuth 1998, 6.4). */
export class Groups {
  private number = new Uint32Array(16);
  private high = new Uint32Array(16).fill(FREE);
  private low = new Uint32Array(16);
  private size = 0;
  private readonly large = new Map<number, Set<Id>>();

  join(number: number, id: Id): void {
    const large = this.large.get(number >>> 0);
    if (large) {
      large.add(id);
      return;
    }
    const at = this.find(number, id);
    if (this.high[at] !== FREE) return;
    const same = at - placeOf(number >>> 0, this.number.length - 1);
    if (same > MANY || same < 0) {
      const ids = this.of(number);
      if (ids.length >= MANY) {
        for (const each of ids) this.leave(number, each);
        this.large.set(number >>> 0, new Set([...ids, id]));
        return;
      }
    }
    if (this.size + 1 > this.number.length * FULL) {
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
    if (this.high[gap] === FREE) return;
    this.size--;
    const mask = this.number.length - 1;
    // What follows closes up, so that nothing is cut off from the place where its search begins.
    for (let at = (gap + 1) & mask; this.high[at] !== FREE; at = (at + 1) & mask) {
      const home = placeOf(this.number[at], mask);
      if (((at - home) & mask) < ((at - gap) & mask)) continue;
      this.put(gap, this.number[at], this.high[at], this.low[at]);
      gap = at;
    }
    this.high[gap] = FREE;
  }

  of(number: number): Id[] {
    const large = this.large.get(number >>> 0);
    if (large) return [...large];
    const ids: Id[] = [];
    for (const at of this.places(number >>> 0)) ids.push(idFrom(this.high[at], this.low[at]));
    return ids;
  }

  /** Every group of more than one. */
  *several(): Generator<Id[]> {
    for (const ids of this.large.values()) if (ids.size > 1) yield [...ids];
    for (let at = 0; at < this.number.length; at++) {
      if (this.high[at] === FREE) continue;
      const [first, second] = this.places(this.number[at]);
      if (first === at && second !== undefined) yield this.of(this.number[at]);
    }
  }

  private *places(number: number): Generator<number> {
    const mask = this.number.length - 1;
    for (let at = placeOf(number, mask); this.high[at] !== FREE; at = (at + 1) & mask)
      if (this.number[at] === number) yield at;
  }

  /** Where the record stands, or the free place at which its search ends. */
  private find(number: number, id: Id): number {
    const [high, low] = [half(id, 0), half(id, 6)];
    const mask = this.number.length - 1;
    for (let at = placeOf(number >>> 0, mask); ; at = (at + 1) & mask)
      if (
        this.high[at] === FREE ||
        (this.number[at] === number >>> 0 && this.high[at] === high && this.low[at] === low)
      )
        return at;
  }

  private put(at: number, number: number, high: number, low: number): void {
    this.number[at] = number;
    this.high[at] = high;
    this.low[at] = low;
  }

  private widen(): void {
    const { number, high, low } = this;
    const room = number.length * 2;
    [this.number, this.high, this.low] = [
      new Uint32Array(room),
      new Uint32Array(room).fill(FREE),
      new Uint32Array(room),
    ];
    for (let k = 0; k < number.length; k++) {
      if (high[k] === FREE) continue;
      let at = placeOf(number[k], room - 1);
      while (this.high[at] !== FREE) at = (at + 1) & (room - 1);
      this.put(at, number[k], high[k], low[k]);
    }
  }
}

const placeOf = (number: number, mask: number): number => Math.imul(number ^ (number >>> 15), 0x2c1b3c6d) & mask;
