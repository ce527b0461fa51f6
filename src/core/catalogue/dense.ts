/** Records of one kind as bytes rather than objects: about a tenth of the memory, for pantries of hundreds of thousands. */
import { decode, encode } from "@msgpack/msgpack";
import { wider } from "../numbers/arrays";
import { IdTable, type IdTableParts } from "./ids";
import { type AnyRecord, atRest, type Draw, FIELDS, type Id, type Kind, type Line, ROLES } from "./records";

/** Bytes are kept in pages of this size, so that making room copies nothing. */
const PAGE = 2 ** 24;
/** So many records that were written since are kept as objects before they become bytes too. */
const LOOSE = 50_000;
/** So many that were asked for one by one are kept at hand. */
const RECENT = 4_096;

/** What a line is as a list: what stands at rest at its end is left out. */
type PackedLine = readonly [role: number, item: Id, min: number, max?: number, chance?: number, uses?: number | null, draw?: Draw];

const packLine = ({ role, item, min, max, chance, uses, draw }: Line): PackedLine => {
  const at = ROLES.indexOf(role);
  if (draw) return [at, item, min, max, chance, uses, draw];
  if (uses !== null) return [at, item, min, max, chance, uses];
  if (chance !== 1) return [at, item, min, max, chance];
  return max === min ? [at, item, min] : [at, item, min, max];
};
const unpackLine = ([role, item, min, max = min, chance = 1, uses = null, draw]: PackedLine): Line => ({ role: ROLES[role], item, min, max, chance, uses, ...(draw ? { draw } : {}) });

interface Shape {
  readonly field: string;
  readonly choices: readonly string[] | null;
  readonly lines: boolean;
  readonly rest: unknown;
}
const shapes = new Map<Kind, readonly Shape[]>();
function shapeOf(kind: Kind): readonly Shape[] {
  let shape = shapes.get(kind);
  if (!shape) {
    const rest = atRest(kind) as { readonly [field: string]: unknown };
    shape = Object.entries(FIELDS[kind]).map(([field, of]) => ({ field, choices: of.as === "choice" ? of.of : null, lines: of.as === "lines", rest: rest[field] }));
    shapes.set(kind, shape);
  }
  return shape;
}

const resting = (value: unknown, rest: unknown): boolean => value === rest || (typeof value === "object" && value !== null && typeof rest === "object" && rest !== null && Object.keys(value).length === 0);

/** A record as bytes: which fields say something, then what they say. Its id is not among them. */
export function packRecord(kind: Kind, record: AnyRecord): Uint8Array {
  let said = 0;
  const values: unknown[] = [0];
  shapeOf(kind).forEach(({ field, choices, lines, rest }, k) => {
    const value = (record as unknown as { readonly [field: string]: unknown })[field];
    if (resting(value, rest)) return;
    said |= 1 << k;
    values.push(choices ? choices.indexOf(value as string) : lines ? (value as Line[]).map(packLine) : value);
  });
  values[0] = said;
  return encode(values);
}

export function unpackRecord(kind: Kind, id: Id, bytes: Uint8Array): AnyRecord {
  const values = decode(bytes) as [number, ...unknown[]];
  const record: { [field: string]: unknown } = { id };
  let next = 1;
  shapeOf(kind).forEach(({ field, choices, lines, rest }, k) => {
    if (!(values[0] & (1 << k))) record[field] = rest;
    else {
      const value = values[next++];
      record[field] = choices ? choices[value as number] : lines ? (value as PackedLine[]).map(unpackLine) : value;
    }
  });
  return record as unknown as AnyRecord;
}

/** All of a dense set of records, to be sent to another thread. */
export interface DenseParts {
  readonly kind: Kind;
  readonly ids: IdTableParts;
  readonly starts: Float64Array;
  readonly sizes: Uint32Array;
  readonly pages: readonly Uint8Array[];
  readonly used: number;
  readonly loose: ReadonlyMap<number, AnyRecord>;
  readonly gone: ReadonlySet<number>;
}

/** A map from ids to records. What it gives out is made from bytes each time, but for what was lately written or asked for. */
export class DenseRecords<V extends AnyRecord = AnyRecord> {
  private ids = new IdTable();
  private starts = new Float64Array(0);
  private sizes = new Uint32Array(0);
  private pages: Uint8Array[] = [];
  /** Bytes in use, those left over at the ends of pages included. */
  private used = 0;
  private loose = new Map<number, V>();
  private gone = new Set<number>();
  private readonly recent = new Map<number, V>();

  constructor(
    private readonly kind: Kind,
    records: Iterable<V> = [],
  ) {
    for (const record of records) {
      const n = this.ids.add(record.id);
      this.loose.delete(n);
      this.keep(n, record);
    }
  }

  get size(): number {
    return this.ids.size - this.gone.size;
  }
  /** Bytes of all arrays and pages. */
  get bytes(): number {
    return this.ids.bytes + this.starts.byteLength + this.sizes.byteLength + this.pages.reduce((sum, page) => sum + page.byteLength, 0);
  }

  get(id: Id): V | undefined {
    const n = this.ids.get(id);
    if (n === undefined || this.gone.has(n)) return undefined;
    const there = this.loose.get(n) ?? this.recent.get(n);
    if (there) return there;
    if (this.recent.size >= RECENT) this.recent.clear();
    const record = this.made(n);
    this.recent.set(n, record);
    return record;
  }
  has(id: Id): boolean {
    const n = this.ids.get(id);
    return n !== undefined && !this.gone.has(n);
  }

  set(id: Id, record: V): this {
    const n = this.ids.add(id);
    this.gone.delete(n);
    this.recent.delete(n);
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
    this.recent.delete(n);
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
    return this.gone.has(place) ? undefined : (this.loose.get(place) ?? this.recent.get(place) ?? this.made(place));
  }

  /** For another thread; shares what it holds with this one until it is copied. */
  parts(): DenseParts {
    const { kind, starts, sizes, pages, used, loose, gone } = this;
    return { kind, ids: this.ids.parts(), starts, sizes, pages, used, loose, gone };
  }
  static of<V extends AnyRecord>({ kind, ids, starts, sizes, pages, used, loose, gone }: DenseParts): DenseRecords<V> {
    const records = new DenseRecords<V>(kind);
    records.ids = IdTable.of(ids);
    [records.starts, records.sizes, records.pages, records.used] = [starts as typeof records.starts, sizes as typeof records.sizes, [...pages], used];
    [records.loose, records.gone] = [new Map(loose) as Map<number, V>, new Set(gone)];
    return records;
  }

  private made(n: number): V {
    const page = Math.floor(this.starts[n] / PAGE);
    const from = this.starts[n] - page * PAGE;
    return unpackRecord(this.kind, this.ids.idOf(n), this.pages[page].subarray(from, from + this.sizes[n])) as V;
  }

  /** Makes bytes of a record. Those of what stood there before are left behind. */
  private keep(n: number, record: V): void {
    const bytes = packRecord(this.kind, record);
    if (bytes.length > PAGE) throw new RangeError(`${record.key} is larger than ${PAGE} bytes.`);
    const left = this.pages.length * PAGE - this.used;
    if (bytes.length > left) {
      this.used += left;
      this.pages.push(new Uint8Array(PAGE));
    }
    if (n >= this.starts.length) {
      const room = Math.ceil(n * 1.25) + 16;
      [this.starts, this.sizes] = [wider(this.starts, room), wider(this.sizes, room)];
    }
    (this.pages.at(-1) as Uint8Array).set(bytes, this.used % PAGE);
    this.starts[n] = this.used;
    this.sizes[n] = bytes.length;
    this.used += bytes.length;
  }
}
