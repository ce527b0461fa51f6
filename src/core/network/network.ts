/**
 * The recipe network as flat typed arrays: items, processes, and what goes in and out of each. Rows can be rewritten.
 */
import { wider } from "../numbers/arrays";

/** Flags of a process. */
export const ALIVE = 1;
export const SOURCE = 2;
export const SALVAGE = 4;
/** A run takes neither things nor money: what it gives comes from outside. */
export const FREE = 8;
/** Some of what must be at hand is not used up. Follows from the rows. */
export const KEEPS = 32;
/** Lets an item be any with its tag; no step of its own. */
export const MEMBER = 64;
/** A run takes something, is left with no net use and gives something: it gains by itself. */
export const GAINS = 16;

/** What stands in a row while it is written: items, and expected amounts of one run. */
export interface RowOf {
  readonly to: readonly number[];
  /** Amounts; 0 in a row of inputs for what must be at hand but is not used up on balance. */
  readonly qty: readonly number[];
}
export interface ProcessOf {
  readonly ins: RowOf;
  readonly outs: RowOf;
  /** Fees and prices of one run [value units], without the worth of time. */
  readonly money: number;
  /** Time of one run [seconds of play]. */
  readonly seconds: number;
  /** Level a character needs. */
  readonly level: number;
  readonly flags: number;
}

/** A row while a process is described: the same one for every process, so that nothing is left over of each. */
export class RowDraft {
  length = 0;
  readonly to: number[] = [];
  readonly qty: number[] = [];
  add(item: number, amount: number): void {
    this.to[this.length] = item;
    this.qty[this.length++] = amount;
  }
  has(item: number): boolean {
    for (let k = 0; k < this.length; k++) if (this.to[k] === item) return true;
    return false;
  }
  done(): RowOf {
    return { to: this.to.slice(0, this.length), qty: this.qty.slice(0, this.length) };
  }
}
/** A process while it is described. */
export class Draft {
  readonly ins = new RowDraft();
  readonly outs = new RowDraft();
  money = 0;
  seconds = 0;
  level = 0;
  flags = 0;
  done(): ProcessOf {
    const { money, seconds, level, flags } = this;
    return { ins: this.ins.done(), outs: this.outs.done(), money, seconds, level, flags };
  }
}

/** Flags of a process in use: those given and those that follow. */
export const flagsOf = ({ ins, flags }: Pick<ProcessOf, "ins" | "flags">): number => inUse(flags, ins.qty.includes(0));
const inUse = (flags: number, keeps: boolean): number => flags | ALIVE | (keeps ? KEEPS : 0);

/**
 * CsrRows of numbers, one for each row, in one array: row r stands at start[r] .. end[r]. A row that outgrows its place
 * moves
 * to the end; when more than half of the array is waste it is packed again.
 */
export class CsrRows {
  /** As long as no row has moved, one array seen from two places: a row ends where the next one starts. */
  start: Int32Array;
  end: Int32Array;
  to: Int32Array;
  /** Absent where only the link counts. */
  qty: Float64Array | null;
  private used: number;
  private waste = 0;
  /** Room of rows that have more than they fill. */
  private readonly room = new Map<number, number>();

  /** @param ptr  row r stands at ptr[r] .. ptr[r + 1] */
  constructor(ptr: Int32Array, to: Int32Array, qty: Float64Array | null) {
    this.start = ptr.subarray(0, -1);
    this.end = ptr.subarray(1);
    this.to = to;
    this.qty = qty;
    this.used = to.length;
  }

  /** Lets go of all rows. */
  release(): void {
    this.start = this.end = this.to = new Int32Array(0);
    this.qty = null;
  }

  get bytes(): number {
    const ends = this.shared ? 4 : this.end.byteLength;
    return this.start.byteLength + ends + this.to.byteLength + (this.qty?.byteLength ?? 0);
  }
  /** Whether no row has changed: those of a relation seen from its other side ascend then. */
  get asBuilt(): boolean {
    return this.shared;
  }
  private get shared(): boolean {
    return this.start.length > 0 && this.start.buffer === this.end.buffer;
  }
  /** Before a row moves or gets another length. */
  private part(): void {
    if (this.shared) [this.start, this.end] = [this.start.slice(), this.end.slice()];
  }

  /** Makes room for rows up to a number; new ones are empty. */
  grow(rows: number): void {
    if (rows <= this.start.length) return;
    this.start = widened(this.start, rows);
    this.end = widened(this.end, rows);
  }

  set(row: number, to: readonly number[], qty?: readonly number[]): void {
    const at = this.place(row, to.length);
    this.to.set(to, at);
    if (this.qty && qty) this.qty.set(qty, at);
    if (this.end[row] === at + to.length) return;
    this.part();
    this.end[row] = at + to.length;
  }

  /** Adds one number to a row. */
  push(row: number, value: number): void {
    const length = this.end[row] - this.start[row];
    const room = this.room.get(row) ?? length;
    if (length + 1 > room) {
      const [from, until] = [this.start[row], this.end[row]];
      const at = this.place(row, length + 1 + (length >> 1));
      this.to.copyWithin(at, from, until);
      this.qty?.copyWithin(at, from, until);
      this.end[row] = at + length;
    }
    this.part();
    this.to[this.end[row]++] = value;
  }

  /** Takes one number out of a row; the last one takes its place. */
  drop(row: number, value: number): void {
    const at = this.to.subarray(this.start[row], this.end[row]).indexOf(value);
    if (at < 0) return;
    this.part();
    const length = this.end[row] - this.start[row];
    if (!this.room.has(row)) this.room.set(row, length);
    this.to[this.start[row] + at] = this.to[--this.end[row]];
  }

  /** Where the row starts, with room for so many. What stood there is left to be copied or overwritten. */
  private place(row: number, length: number): number {
    const room = this.room.get(row) ?? this.end[row] - this.start[row];
    if (length <= room) {
      this.room.set(row, room);
      return this.start[row];
    }
    this.waste += room;
    if (this.used + length > this.to.length) this.widen(length);
    const at = this.used;
    this.used += length;
    this.room.set(row, length);
    this.part();
    this.start[row] = at;
    this.end[row] = at;
    return at;
  }

  private widen(more: number): void {
    const size = Math.ceil((this.used + more) * 1.25) + 16;
    this.to = widened(this.to, size);
    if (this.qty) this.qty = widened(this.qty, size);
  }

  /** True where packing again pays. */
  get wasteful(): boolean {
    return this.waste > 1024 && this.waste * 2 > this.used;
  }
}

/** Room for a number of rows, and some more. */
const widened = <T extends Int32Array | Float64Array | Uint8Array | Int16Array>(array: T, size: number): T =>
  wider(array, Math.max(size, Math.ceil(array.length * 1.25)));

export class Network {
  items: number;
  processes: number;
  /** Process → what must be at hand, with the amount that is used up on balance (0: kept). */
  readonly ins: CsrRows;
  /** Process → what it yields on balance. */
  readonly outs: CsrRows;
  /** Item → processes that need it at hand. */
  readonly consumers: CsrRows;
  private turnedOuts: CsrRows | null = null;
  money: Float64Array;
  seconds: Float64Array;
  level: Int16Array;
  flags: Uint8Array;

  constructor(
    items: number,
    ins: CsrRows,
    outs: CsrRows,
    of: { money: Float64Array; seconds: Float64Array; level: Int16Array; flags: Uint8Array },
  ) {
    this.items = items;
    this.processes = of.money.length;
    this.ins = ins;
    this.outs = outs;
    this.consumers = turned(ins, items);
    this.money = of.money;
    this.seconds = of.seconds;
    this.level = of.level;
    this.flags = of.flags;
  }

  /** Item → processes that yield it. */
  get producers(): CsrRows {
    this.turnedOuts ??= turned(this.outs, this.items);
    return this.turnedOuts;
  }

  /** Bytes of all arrays. */
  get bytes(): number {
    return (
      this.ins.bytes +
      this.outs.bytes +
      this.consumers.bytes +
      this.producers.bytes +
      this.money.byteLength +
      this.seconds.byteLength +
      this.level.byteLength +
      this.flags.byteLength
    );
  }
  get wasteful(): boolean {
    return [this.ins, this.outs, this.consumers, this.producers].some((lists) => lists.wasteful);
  }

  /** A new item's number. */
  addItem(): number {
    const item = this.items++;
    this.consumers.grow(this.items);
    this.producers.grow(this.items);
    return item;
  }
  /** A new process's number; it is dead until `rewrite`. */
  addProcess(): number {
    const p = this.processes++;
    this.ins.grow(this.processes);
    this.outs.grow(this.processes);
    if (this.money.length < this.processes) {
      this.money = widened(this.money, this.processes);
      this.seconds = widened(this.seconds, this.processes);
      this.level = widened(this.level, this.processes);
      this.flags = widened(this.flags, this.processes);
    }
    return p;
  }

  /** Writes a process again; null takes it out. In proportion to its lines and those of its items. */
  rewrite(p: number, of: ProcessOf | null): void {
    const { ins, outs, consumers, producers } = this;
    for (let k = ins.start[p]; k < ins.end[p]; k++) consumers.drop(ins.to[k], p);
    for (let k = outs.start[p]; k < outs.end[p]; k++) producers.drop(outs.to[k], p);
    ins.set(p, of?.ins.to ?? [], of?.ins.qty ?? []);
    outs.set(p, of?.outs.to ?? [], of?.outs.qty ?? []);
    for (const i of of?.ins.to ?? []) consumers.push(i, p);
    for (const i of of?.outs.to ?? []) producers.push(i, p);
    this.money[p] = of?.money ?? 0;
    this.seconds[p] = of?.seconds ?? 0;
    this.level[p] = of?.level ?? 0;
    this.flags[p] = of ? flagsOf(of) : 0;
  }

  /** Expected units of an item from one run. */
  yieldOf(p: number, item: number): number {
    const { start, end, to, qty } = this.outs;
    for (let k = start[p]; k < end[p]; k++) if (to[k] === item) return (qty as Float64Array)[k];
    return 0;
  }
}

/** The same relation seen from the other side, links only. */
function turned(rows: CsrRows, columns: number): CsrRows {
  const { start, end, to } = rows;
  const ptr = new Int32Array(columns + 1);
  for (let r = 0; r < start.length; r++) for (let k = start[r]; k < end[r]; k++) ptr[to[k] + 1]++;
  for (let c = 0; c < columns; c++) ptr[c + 1] += ptr[c];
  const fill = ptr.slice(0, columns);
  const back = new Int32Array(ptr[columns]);
  for (let r = 0; r < start.length; r++) for (let k = start[r]; k < end[r]; k++) back[fill[to[k]]++] = r;
  return new CsrRows(ptr, back, null);
}

/** Collects processes one after the other, then builds the network. */
export class NetworkBuilder {
  private readonly insPtr: Growing<Int32Array>;
  private readonly outsPtr: Growing<Int32Array>;
  private readonly insTo = new Growing(Int32Array);
  private readonly insQty = new Growing(Float64Array);
  private readonly outsTo = new Growing(Int32Array);
  private readonly outsQty = new Growing(Float64Array);
  private readonly money = new Growing(Float64Array);
  private readonly seconds = new Growing(Float64Array);
  private readonly level = new Growing(Int16Array);
  private readonly flags = new Growing(Uint8Array);
  constructor(private readonly items: number) {
    this.insPtr = new Growing(Int32Array);
    this.outsPtr = new Growing(Int32Array);
    this.insPtr.push(0);
    this.outsPtr.push(0);
  }
  add({ ins, outs, ...of }: ProcessOf): void {
    const { draft } = this;
    draft.ins.length = draft.outs.length = 0;
    for (const [k, i] of ins.to.entries()) draft.ins.add(i, ins.qty[k]);
    for (const [k, i] of outs.to.entries()) draft.outs.add(i, outs.qty[k]);
    this.addDraft(Object.assign(draft, of));
  }
  private readonly draft = new Draft();
  addDraft({ ins, outs, money, seconds, level, flags }: Draft): void {
    let keeps = false;
    for (let k = 0; k < ins.length; k++) {
      this.insTo.push(ins.to[k]);
      this.insQty.push(ins.qty[k]);
      if (ins.qty[k] === 0) keeps = true;
    }
    for (let k = 0; k < outs.length; k++) {
      this.outsTo.push(outs.to[k]);
      this.outsQty.push(outs.qty[k]);
    }
    this.insPtr.push(this.insTo.length);
    this.outsPtr.push(this.outsTo.length);
    this.money.push(money);
    this.seconds.push(seconds);
    this.level.push(level);
    this.flags.push(inUse(flags, keeps));
  }
  build(): Network {
    const ins = new CsrRows(this.insPtr.done(), this.insTo.done(), this.insQty.done());
    const outs = new CsrRows(this.outsPtr.done(), this.outsTo.done(), this.outsQty.done());
    return new Network(this.items, ins, outs, {
      money: this.money.done(),
      seconds: this.seconds.done(),
      level: this.level.done(),
      flags: this.flags.done(),
    });
  }
}

/** Numbers that come one after the other, in pieces that get larger, so that making room copies nothing. */
class Growing<T extends Int32Array | Float64Array | Int16Array | Uint8Array> {
  length = 0;
  private pieces: T[] = [];
  private last: T;
  private filled = 0;
  constructor(private readonly kind: new (n: number) => T) {
    this.last = new kind(SMALLEST_PIECE);
  }
  push(value: number): void {
    if (this.filled === this.last.length) {
      this.pieces.push(this.last);
      this.last = new this.kind(Math.min(2 * this.last.length, LARGEST_PIECE));
      this.filled = 0;
    }
    this.last[this.filled++] = value;
    this.length++;
  }
  /** All of them; nothing is left here. */
  done(): T {
    const all = new this.kind(this.length);
    let at = 0;
    for (const piece of this.pieces) {
      all.set(piece as never, at);
      at += piece.length;
    }
    all.set(this.last.subarray(0, this.filled) as never, at);
    this.pieces = [];
    return all;
  }
}
const SMALLEST_PIECE = 64;
const LARGEST_PIECE = 2 ** 14;

/**
 * The same network with items and processes numbered in another order, so that what is used together stands together.
 * The old
 * one is taken apart on the way, so that the two never stand in memory side by side.
 * @param items      old numbers in their new order
 * @param processes  likewise
 */
export function renumbered(network: Network, items: Int32Array, processes: Int32Array): Network {
  const place = new Int32Array(network.items);
  items.forEach((old, now) => {
    place[old] = now;
  });
  const rows = (lists: CsrRows): CsrRows => {
    const ptr = new Int32Array(processes.length + 1);
    processes.forEach((p, r) => {
      ptr[r + 1] = ptr[r] + lists.end[p] - lists.start[p];
    });
    const to = new Int32Array(ptr[processes.length]);
    const qty = new Float64Array(to.length);
    let at = 0;
    for (const p of processes)
      for (let k = lists.start[p]; k < lists.end[p]; k++) {
        to[at] = place[lists.to[k]];
        qty[at++] = (lists.qty as Float64Array)[k];
      }
    lists.release();
    return new CsrRows(ptr, to, qty);
  };
  network.consumers.release();
  const picked = <T extends Float64Array | Int16Array | Uint8Array>(array: T): T => {
    const out = new (array.constructor as new (n: number) => T)(processes.length);
    processes.forEach((p, r) => {
      out[r] = array[p];
    });
    return out;
  };
  return new Network(network.items, rows(network.ins), rows(network.outs), {
    money: picked(network.money),
    seconds: picked(network.seconds),
    level: picked(network.level),
    flags: picked(network.flags),
  });
}
