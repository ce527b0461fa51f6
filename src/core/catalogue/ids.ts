/** Ids and their numbers in flat arrays: about 16 bytes an id, where a map of texts takes eighty and more. */
import { wider } from "../numbers/arrays";
import { half, type Id, idFrom } from "../schema/id";

export interface IdTableParts {
  readonly high: Uint32Array;
  readonly low: Uint32Array;
  readonly group: Uint16Array;
  readonly slots: Int32Array;
  readonly size: number;
}

/** A table fuller than this takes long to look things up in. */
const FULL = 0.85;

/**
 * Numbers ids in the order in which they come, from 0 up; a number stays with its id for good. The same id may be
 * numbered
 * once in each of several groups. An id's twelve characters are two numbers of six digits to the base of 36, and found
 * by
 * open addressing (Knuth 1998, 6.4).
 */
export class IdTable {
  private high: Uint32Array;
  private low: Uint32Array;
  private group: Uint16Array;
  /** Number of the id that stands in a slot, plus one; 0: free. */
  private slots: Int32Array;
  /** How many ids there are. */
  size = 0;

  /** @param room  how many ids to make room for at the start */
  constructor(room = 16) {
    this.high = new Uint32Array(room);
    this.low = new Uint32Array(room);
    this.group = new Uint16Array(room);
    this.slots = new Int32Array(16);
    this.widen(room);
  }

  /** Bytes of all arrays. */
  get bytes(): number {
    return this.high.byteLength + this.low.byteLength + this.group.byteLength + this.slots.byteLength;
  }

  /** @returns the id's number; undefined where it has none, and for what is no id */
  get(id: string | null, group = 0): number | undefined {
    if (id?.length !== 12) return undefined;
    const [high, low] = [half(id, 0), half(id, 6)];
    if (!(high >= 0 && low >= 0)) return undefined;
    const there = this.slots[this.slot(high, low, group)];
    return there === 0 ? undefined : there - 1;
  }

  /** Numbers an id that has no number yet. @returns its number */
  add(id: string, group = 0): number {
    const [high, low] = [half(id, 0), half(id, 6)];
    if (!(high >= 0 && low >= 0) || id.length !== 12)
      throw new RangeError(`“${id}” is no id: an id is 12 characters of 0-9 and a-z.`);
    let slot = this.slot(high, low, group);
    if (this.slots[slot] !== 0) return this.slots[slot] - 1;
    if (this.size + 1 > this.slots.length * FULL) {
      this.widen(this.size * 2);
      slot = this.slot(high, low, group);
    }
    const n = this.size++;
    if (n === this.high.length) {
      const room = Math.ceil(n * 1.25) + 16;
      [this.high, this.low, this.group] = [wider(this.high, room), wider(this.low, room), wider(this.group, room)];
    }
    this.high[n] = high;
    this.low[n] = low;
    this.group[n] = group;
    this.slots[slot] = n + 1;
    return n;
  }

  idOf(n: number): Id {
    if (!(n >= 0 && n < this.size)) throw new RangeError(`There is no id of number ${n}; there are ${this.size}.`);
    return idFrom(this.high[n], this.low[n]);
  }
  groupOf(n: number): number {
    return this.group[n];
  }

  /** Below 0 where the id of the one number comes first in the order of texts. */
  compare(a: number, b: number): number {
    return this.high[a] - this.high[b] || this.low[a] - this.low[b];
  }

  /** The same ids numbered in another order: place k is taken by the one that had number order[k]. */
  reordered(order: Int32Array): IdTable {
    const table = new IdTable(0);
    [table.high, table.low, table.group] = [
      new Uint32Array(order.length),
      new Uint32Array(order.length),
      new Uint16Array(order.length),
    ];
    order.forEach((n, k) => {
      table.high[k] = this.high[n];
      table.low[k] = this.low[n];
      table.group[k] = this.group[n];
    });
    table.size = order.length;
    table.widen(order.length);
    return table;
  }

  /** For another thread. */
  parts(): IdTableParts {
    const { high, low, group, slots, size } = this;
    return { high, low, group, slots, size };
  }
  static of(parts: IdTableParts): IdTable {
    return Object.assign(new IdTable(0), parts);
  }

  /** The slot in which the id stands, or the free one in which it would. */
  private slot(high: number, low: number, group: number): number {
    const { slots } = this;
    const mask = slots.length - 1;
    let hash = Math.imul(high, 0x9e3779b1) ^ Math.imul(low + group, 0x85ebca6b);
    hash = Math.imul(hash ^ (hash >>> 15), 0x2c1b3c6d);
    for (let at = (hash ^ (hash >>> 13)) & mask; ; at = (at + 1) & mask) {
      const n = slots[at] - 1;
      if (n < 0 || (this.high[n] === high && this.low[n] === low && this.group[n] === group)) return at;
    }
  }

  private widen(ids: number): void {
    let size = this.slots.length;
    while (ids > size * FULL) size *= 2;
    this.slots = new Int32Array(size);
    for (let n = 0; n < this.size; n++) this.slots[this.slot(this.high[n], this.low[n], this.group[n])] = n + 1;
  }
}

/** Stands for no id at all: more than six digits can say. */
export const FREE = 0xffffffff;
