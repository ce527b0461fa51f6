/**
 * Records of one kind as bytes rather than objects: about a seventh of the memory, for pantries of hundreds of
 * thousands.
 */
import { wider } from "../numbers/arrays";
import { type AnyRecord, definition, type Kind } from "../kinds/index";
import { ByteReader, ByteWriter } from "../schema/bytes";
import type { Id } from "../schema/id";
import { IdTable, type IdTableParts } from "./ids";

/** Bytes are kept in pages of this size, so that making room copies little; the last one begins small. */
const PAGE = 2 ** 24;
const FIRST_ROOM = 2 ** 16;
/** So many records that were written since are kept as objects before they become bytes too. */
const LOOSE = 50_000;
/** So many that were asked for one by one are kept at hand; a power of two. */
const RECENT = 512;

const [writer, reader] = [new ByteWriter(), new ByteReader()];

/** A record as bytes, good until the next one: which fields say something, then what they say. Its id is not among them. */
export function packRecord(kind: Kind, record: AnyRecord): Uint8Array {
  definition(kind).pack(record, writer);
  return writer.taken();
}

/** The record whose bytes begin at a place. */
export const unpackRecord = (kind: Kind, id: Id, bytes: Uint8Array, at = 0): AnyRecord =>
  definition(kind).unpack(id, reader.from(bytes, at)) as unknown as AnyRecord;

/** All of a set of binary records, to be sent to another thread. */
export interface BinaryParts {
  readonly kind: Kind;
  readonly ids: IdTableParts;
  readonly starts: Uint32Array;
  readonly pages: readonly Uint8Array[];
  readonly used: number;
  readonly loose: ReadonlyMap<number, AnyRecord>;
  readonly gone: ReadonlySet<number>;
}

/**
 * A map from ids to records. What it gives out is made from bytes each time, but for what was lately written or asked
 * for.
 */
export class BinaryRecords<V extends AnyRecord = AnyRecord> {
  private ids = new IdTable();
  private starts = new Uint32Array(0);
  private pages: Uint8Array[] = [];
  /** Bytes in use, those left over at the ends of pages included. */
  private used = 0;
  private loose = new Map<number, V>();
  private gone = new Set<number>();
  /**
   * Records that were asked for lately, each at the slot of its place's last digits. Not a map that is cleared: what such
   * a map held before points to what it holds now, so that a collector of young objects takes none of them away.
   */
  private readonly recent = new Array<V | undefined>(RECENT).fill(undefined);
  private readonly recentPlaces = new Int32Array(RECENT).fill(-1);
  /** The record that was made last while going through them: whoever looks at it asks for it again by its id. */
  private passed: { readonly place: number; readonly record: V } | null = null;

  constructor(
    private readonly kind: Kind,
    records: Iterable<V> = [],
  ) {
    for (const record of records) this.add(record);
  }

  /** Makes bytes of a record at once. */
  add(record: V): void {
    const n = this.ids.add(record.id);
    this.gone.delete(n);
    this.forget(n);
    this.passed = null;
    this.loose.delete(n);
    this.keep(n, record);
  }

  get size(): number {
    return this.ids.size - this.gone.size;
  }
  /** Bytes of all arrays and pages. */
  get bytes(): number {
    return this.ids.bytes + this.starts.byteLength + this.pages.reduce((sum, page) => sum + page.byteLength, 0);
  }

  get(id: Id): V | undefined {
    const n = this.ids.get(id);
    if (n === undefined || this.gone.has(n)) return undefined;
    if (this.passed?.place === n) return this.passed.record;
    const there = this.atHand(n);
    if (there) return there;
    const record = this.made(n);
    this.recent[n % RECENT] = record;
    this.recentPlaces[n % RECENT] = n;
    return record;
  }
  private atHand(n: number): V | undefined {
    if (this.loose.size) {
      const loose = this.loose.get(n);
      if (loose) return loose;
    }
    return this.recentPlaces[n % RECENT] === n ? this.recent[n % RECENT] : undefined;
  }
  private forget(n: number): void {
    if (this.recentPlaces[n % RECENT] !== n) return;
    this.recentPlaces[n % RECENT] = -1;
    this.recent[n % RECENT] = undefined;
  }
  has(id: Id): boolean {
    const n = this.ids.get(id);
    return n !== undefined && !this.gone.has(n);
  }

  set(id: Id, record: V): this {
    const n = this.ids.add(id);
    this.gone.delete(n);
    this.forget(n);
    this.passed = null;
    this.loose.set(n, record);
    if (this.loose.size > LOOSE) {
      for (const [at, each] of this.loose) this.keep(at, each);
      this.loose.clear();
    }
    return this;
  }
  delete(id: Id): boolean {
    const n = this.ids.get(id);
    if (n === undefined || this.gone.has(n)) return false;
    this.gone.add(n);
    this.loose.delete(n);
    this.forget(n);
    this.passed = null;
    return true;
  }

  /** How many places there are, those of records that were taken out included. */
  get places(): number {
    return this.ids.size;
  }
  /** What stands at a place; undefined: it was taken out. */
  idAt(place: number): Id | undefined {
    return this.gone.has(place) ? undefined : this.ids.idOf(place);
  }
  at(place: number): V | undefined {
    if (this.gone.has(place)) return undefined;
    const there = this.atHand(place);
    if (there) return there;
    const record = this.made(place);
    this.passed = { place, record };
    return record;
  }

  /** For another thread; shares what it holds with this one until it is copied. */
  parts(): BinaryParts {
    const { kind, starts, pages, used, loose, gone } = this;
    return { kind, ids: this.ids.parts(), starts, pages, used, loose, gone };
  }
  static of<V extends AnyRecord>({ kind, ids, starts, pages, used, loose, gone }: BinaryParts): BinaryRecords<V> {
    const records = new BinaryRecords<V>(kind);
    records.ids = IdTable.of(ids);
    [records.starts, records.pages, records.used] = [starts as typeof records.starts, [...pages], used];
    [records.loose, records.gone] = [new Map(loose) as Map<number, V>, new Set(gone)];
    return records;
  }

  private made(n: number): V {
    const page = Math.floor(this.starts[n] / PAGE);
    const from = this.starts[n] - page * PAGE;
    return unpackRecord(this.kind, this.ids.idOf(n), this.pages[page], from) as V;
  }

  /** Makes bytes of a record. Those of what stood there before are left behind. */
  private keep(n: number, record: V): void {
    const bytes = packRecord(this.kind, record);
    if (this.used + PAGE > 2 ** 32)
      throw new RangeError(`There is no room for more records of this kind than ${this.size}.`);
    if (bytes.length > PAGE) throw new RangeError(`${record.key} is larger than ${PAGE} bytes.`);
    const left = this.pages.length * PAGE - this.used;
    if (bytes.length > left) {
      this.used += left;
      this.pages.push(new Uint8Array(FIRST_ROOM));
    }
    const [page, at] = [this.pages.length - 1, this.used % PAGE];
    if (at + bytes.length > this.pages[page].length)
      this.pages[page] = wider(this.pages[page], Math.min(PAGE, Math.ceil((at + bytes.length) * 1.5)));
    if (n >= this.starts.length) {
      const room = Math.ceil(n * 1.25) + 16;
      this.starts = wider(this.starts, room);
    }
    this.pages[page].set(bytes, at);
    this.starts[n] = this.used;
    this.used += bytes.length;
  }
}
