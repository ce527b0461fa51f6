/** Ids and their numbers in flat arrays: about 16 bytes an id, where a map of texts takes eighty and more. */
import { wider } from "../numbers/arrays";
import { half, type Id, idFrom } from "../schema/id";

export interface IdTableParts {
  readonly halves: Uint32Array;
  readonly group: Uint16Array | null;
  readonly slots: Uint32Array;
  readonly size: number;
}

/** A table fuller than this takes long to look things up in. */
const FULL = 0.85;

/**
 * Numbers ids in the order in which they come, from 0 up; a number stays with its id for good. The same id may be
 * numbered once in each of several groups. An id's twelve characters are two numbers of six digits to the base of 36, and
 * found by open addressing (Knuth 1998, 6.4). A slot keeps as many digits of the hash as its number leaves free, so that
 * what stands elsewhere is looked at for hardly any id but the one that is asked for.
 */
export class IdTable {
  /** The two halves of each id, one behind the other. */
  private halves: Uint32Array;
  /** The group of each; null as long as all are of the first. */
  private group: Uint16Array | null = null;
  /** Number of the id that stands in a slot, plus one, below the upper digits of its hash; 0: free. */
  private slots: Uint32Array;
  /** How many ids there are. */
  size = 0;

  /** @param room  how many ids to make room for at the start */
  constructor(room = 16) {
    this.halves = new Uint32Array(room * 2);
    this.slots = new Uint32Array(16);
    this.widen(room);
  }

  /** Bytes of all arrays. */
  get bytes(): number {
    return this.halves.byteLength + (this.group?.byteLength ?? 0) + this.slots.byteLength;
  }

  /** @returns the id's number; undefined where it has none, and for what is no id */
  get(id: string | null, group = 0): number | undefined {
    if (id?.length !== 12) return undefined;
    const [high, low] = [half(id, 0), half(id, 6)];
    if (!(high >= 0 && low >= 0)) return undefined;
    const there = this.slots[this.slot(high, low, group)];
    return there === 0 ? undefined : (there & (this.slots.length - 1)) - 1;
  }

  /** Numbers an id that has no number yet. @returns its number */
  add(id: string, group = 0): number {
    const [high, low] = [half(id, 0), half(id, 6)];
    if (!(high >= 0 && low >= 0) || id.length !== 12)
      throw new RangeError(`“${id}” is no id: an id is 12 characters of 0-9 and a-z.`);
    let slot = this.slot(high, low, group);
    const there = this.slots[slot];
    if (there !== 0) return (there & (this.slots.length - 1)) - 1;
    if (this.size + 1 > this.slots.length * FULL) {
      this.widen(this.size * 2);
      slot = this.slot(high, low, group);
    }
    const n = this.size++;
    if (n * 2 === this.halves.length) {
      const room = Math.ceil(n * 1.25) + 16;
      this.halves = wider(this.halves, room * 2);
      if (this.group) this.group = wider(this.group, room);
    }
    this.halves[n * 2] = high;
    this.halves[n * 2 + 1] = low;
    if (group !== 0) this.group ??= new Uint16Array(this.halves.length / 2);
    if (this.group) this.group[n] = group;
    this.slots[slot] = this.slotOf(n);
    return n;
  }

  idOf(n: number): Id {
    if (!(n >= 0 && n < this.size)) throw new RangeError(`There is no id of number ${n}; there are ${this.size}.`);
    return idFrom(this.halves[n * 2], this.halves[n * 2 + 1]);
  }
  groupOf(n: number): number {
    return this.group ? this.group[n] : 0;
  }

  /** Below 0 where the id of the one number comes first in the order of texts. */
  compare(a: number, b: number): number {
    return this.halves[a * 2] - this.halves[b * 2] || this.halves[a * 2 + 1] - this.halves[b * 2 + 1];
  }

  /** The same ids numbered in another order: place k is taken by the one that had number order[k]. */
  reordered(order: Int32Array): IdTable {
    const table = new IdTable(0);
    const { halves, group } = this;
    table.halves = new Uint32Array(order.length * 2);
    order.forEach((n, k) => {
      table.halves[k * 2] = halves[n * 2];
      table.halves[k * 2 + 1] = halves[n * 2 + 1];
    });
    if (group) table.group = Uint16Array.from(order, (n) => group[n]);
    table.size = order.length;
    table.widen(order.length);
    return table;
  }

  /** For another thread. */
  parts(): IdTableParts {
    const { halves, group, slots, size } = this;
    return { halves, group, slots, size };
  }
  static of(parts: IdTableParts): IdTable {
    return Object.assign(new IdTable(0), parts);
  }

  /** The slot in which the id stands, or the free one in which it would. */
  private slot(high: number, low: number, group: number): number {
    const { slots, halves, group: groups } = this;
    const mask = slots.length - 1;
    const hash = hashOf(high, low, group);
    for (let at = hash & mask; ; at = (at + 1) & mask) {
      const there = slots[at];
      if (there === 0) return at;
      if (((there ^ hash) & ~mask) !== 0) continue;
      const n = (there & mask) - 1;
      if (halves[n * 2] === high && halves[n * 2 + 1] === low && (groups ? groups[n] : 0) === group) return at;
    }
  }
  /** What a slot keeps for a number. */
  private slotOf(n: number): number {
    const hash = hashOf(this.halves[n * 2], this.halves[n * 2 + 1], this.groupOf(n));
    return ((hash & ~(this.slots.length - 1)) | (n + 1)) >>> 0;
  }

  private widen(ids: number): void {
    let size = this.slots.length;
    while (ids > size * FULL) size *= 2;
    const { halves } = this;
    const slots = new Uint32Array(size);
    this.slots = slots;
    for (let n = 0; n < this.size; n++) {
      let at = hashOf(halves[n * 2], halves[n * 2 + 1], this.groupOf(n)) & (size - 1);
      while (slots[at] !== 0) at = (at + 1) & (size - 1);
      slots[at] = this.slotOf(n);
    }
  }
}

/** A set of ids, in the order in which they came; at a quarter of what a set of texts takes. */
export class IdSet implements Iterable<Id> {
  private readonly table = new IdTable(4);
  private readonly gone = new Set<number>();

  get size(): number {
    return this.table.size - this.gone.size;
  }
  has(id: Id): boolean {
    const n = this.table.get(id);
    return n !== undefined && !this.gone.has(n);
  }
  add(id: Id): void {
    this.gone.delete(this.table.add(id));
  }
  delete(id: Id): void {
    const n = this.table.get(id);
    if (n !== undefined) this.gone.add(n);
  }
  *[Symbol.iterator](): Generator<Id> {
    for (let n = 0; n < this.table.size; n++) if (!this.gone.has(n)) yield this.table.idOf(n);
  }
}

function hashOf(high: number, low: number, group: number): number {
  let hash = Math.imul(high, 0x9e3779b1) ^ Math.imul(low + group, 0x85ebca6b);
  hash = Math.imul(hash ^ (hash >>> 15), 0x2c1b3c6d);
  return hash ^ (hash >>> 13);
}

/** Stands for no id at all: more than six digits can say. */
export const FREE = 0xffffffff;
