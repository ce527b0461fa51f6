/**
 * Records of one kind as bytes rather than objects: about a seventh of the memory, for pantries of hundreds of
 * thousands.
 */
import { Decoder, Encoder } from "@msgpack/msgpack";
import { wider } from "../numbers/arrays";
import { half, idFrom, IdTable, type IdTableParts } from "./ids";
import { type AnyRecord, atRest, type Field, FIELDS, type Id, type Kind, type Line, ROLES } from "./records";

/** Bytes are kept in pages of this size, so that making room copies nothing. */
const PAGE = 2 ** 24;
/** So many records that were written since are kept as objects before they become bytes too. */
const LOOSE = 50_000;
/** So many that were asked for one by one are kept at hand. */
const RECENT = 4_096;

/** What a line says beyond its role, item and least amount; added to the role's number. */
const [MAX, CHANCE, USES, DRAW] = [4, 8, 16, 32];

/** Lines one after the other as numbers: role and what more is said, the item's two halves, amounts. */
function packLines(lines: readonly Line[]): number[] {
  const all: number[] = [];
  for (const { role, item, min, max, chance, uses, draw } of lines) {
    all.push(
      ROLES.indexOf(role) +
        (max === min ? 0 : MAX) +
        (chance === 1 ? 0 : CHANCE) +
        (uses === null ? 0 : USES) +
        (draw ? DRAW : 0),
      half(item, 0),
      half(item, 6),
      min,
    );
    if (max !== min) all.push(max);
    if (chance !== 1) all.push(chance);
    if (uses !== null) all.push(uses);
    if (draw) all.push(draw.group, draw.times, draw.weight, draw.of);
  }
  return all;
}
function unpackLines(all: readonly number[]): Line[] {
  const lines: Line[] = [];
  for (let k = 0; k < all.length; ) {
    const [says, item, min] = [all[k], idFrom(all[k + 1], all[k + 2]), all[k + 3]];
    k += 4;
    const max = says & MAX ? all[k++] : min;
    const chance = says & CHANCE ? all[k++] : 1;
    const uses = says & USES ? all[k++] : null;
    const line = { role: ROLES[says & 3], item, min, max, chance, uses };
    if (!(says & DRAW)) lines.push(line);
    else {
      lines.push({ ...line, draw: { group: all[k], times: all[k + 1], weight: all[k + 2], of: all[k + 3] } });
      k += 4;
    }
  }
  return lines;
}

/** How a field's value becomes numbers and texts, and back. */
const FORMS: {
  readonly [As in Field["as"]]?: {
    readonly pack: (value: never, of: Field) => unknown;
    readonly unpack: (packed: never, of: Field) => unknown;
  };
} = {
  choice: {
    pack: (value: string, of) => (of as { of: readonly string[] }).of.indexOf(value),
    unpack: (n: number, of) => (of as { of: readonly string[] }).of[n],
  },
  ref: { pack: (id: Id) => [half(id, 0), half(id, 6)], unpack: ([high, low]: [number, number]) => idFrom(high, low) },
  refs: {
    pack: (ids: readonly Id[]) => ids.flatMap((id) => [half(id, 0), half(id, 6)]),
    unpack: (all: readonly number[]) =>
      Array.from({ length: all.length / 2 }, (_, k) => idFrom(all[2 * k], all[2 * k + 1])),
  },
  stats: {
    pack: (stats: { readonly [id: string]: number }) =>
      Object.entries(stats).flatMap(([id, value]) => [half(id, 0), half(id, 6), value]),
    unpack: (all: readonly number[]) => {
      const stats: { [id: string]: number } = {};
      for (let k = 0; k < all.length; k += 3) stats[idFrom(all[k], all[k + 1])] = all[k + 2];
      return stats;
    },
  },
  lines: { pack: packLines, unpack: unpackLines },
};

interface Shape {
  readonly field: string;
  readonly of: Field;
  readonly form: (typeof FORMS)["ref"] | null;
  readonly rest: unknown;
}
const shapes = new Map<Kind, readonly Shape[]>();
function shapeOf(kind: Kind): readonly Shape[] {
  let shape = shapes.get(kind);
  if (!shape) {
    const rest = atRest(kind) as { readonly [field: string]: unknown };
    shape = Object.entries(FIELDS[kind] as { readonly [field: string]: Field }).map(([field, of]) => ({
      field,
      of,
      form: FORMS[of.as] ?? null,
      rest: rest[field],
    }));
    shapes.set(kind, shape);
  }
  return shape;
}

const resting = (value: unknown, rest: unknown): boolean =>
  value === rest ||
  (typeof value === "object" &&
    value !== null &&
    typeof rest === "object" &&
    rest !== null &&
    Object.keys(value).length === 0);

const [encoder, decoder] = [new Encoder(), new Decoder()];

/**
 * A record as bytes, good until the next one: which fields say something, then what they say. Its id is not among them.
 */
export function packRecord(kind: Kind, record: AnyRecord): Uint8Array {
  let said = 0;
  const values: unknown[] = [0];
  shapeOf(kind).forEach(({ field, of, form, rest }, k) => {
    const value = (record as unknown as { readonly [field: string]: unknown })[field];
    if (resting(value, rest)) return;
    said |= 1 << k;
    values.push(form ? form.pack(value as never, of) : value);
  });
  values[0] = said;
  return encoder.encodeSharedRef(values);
}

export function unpackRecord(kind: Kind, id: Id, bytes: Uint8Array): AnyRecord {
  const values = decoder.decode(bytes) as [number, ...unknown[]];
  const record: { [field: string]: unknown } = { id };
  const shape = shapeOf(kind);
  for (let k = 0, next = 1; k < shape.length; k++) {
    const { field, of, form, rest } = shape[k];
    const packed = values[0] & (1 << k) ? values[next++] : undefined;
    record[field] = packed === undefined ? rest : form ? form.unpack(packed as never, of) : packed;
  }
  return record as unknown as AnyRecord;
}

/** All of a dense set of records, to be sent to another thread. */
export interface DenseParts {
  readonly kind: Kind;
  readonly ids: IdTableParts;
  readonly starts: Uint32Array;
  readonly sizes: Uint32Array;
  readonly pages: readonly Uint8Array[];
  readonly used: number;
  readonly loose: ReadonlyMap<number, AnyRecord>;
  readonly gone: ReadonlySet<number>;
}

/**
 * A map from ids to records. What it gives out is made from bytes each time, but for what was lately written or asked
 * for.
 */
export class DenseRecords<V extends AnyRecord = AnyRecord> {
  private ids = new IdTable();
  private starts = new Uint32Array(0);
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
    for (const record of records) this.add(record);
  }

  /** Makes bytes of a record at once. */
  add(record: V): void {
    const n = this.ids.add(record.id);
    this.gone.delete(n);
    this.recent.delete(n);
    this.loose.delete(n);
    this.keep(n, record);
  }

  get size(): number {
    return this.ids.size - this.gone.size;
  }
  /** Bytes of all arrays and pages. */
  get bytes(): number {
    return (
      this.ids.bytes +
      this.starts.byteLength +
      this.sizes.byteLength +
      this.pages.reduce((sum, page) => sum + page.byteLength, 0)
    );
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
    [records.starts, records.sizes, records.pages, records.used] = [
      starts as typeof records.starts,
      sizes as typeof records.sizes,
      [...pages],
      used,
    ];
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
    if (this.used + PAGE > 2 ** 32)
      throw new RangeError(`There is no room for more records of this kind than ${this.size}.`);
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
