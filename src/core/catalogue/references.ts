/** Who refers to a record, found through an index of references that is kept up to date from change to change. */
import { wider } from "../numbers/arrays";
import { type AnyRecord, definition, type Kind, KINDS, type Recipe, type RecordOf, type Source } from "../kinds/index";
import { allLines } from "../kinds/ways";
import type { Role } from "../notation/roles";
import { type Field, referred } from "../schema/field";
import { half, type Id, idFrom } from "../schema/id";
import { type Catalogue, recordsOf } from "./catalogue";
import { IdTable } from "./ids";
import { buildBy, type Collecting, type Index, type PersistentMap } from "./persistent-map";

type Values = Readonly<Record<string, unknown>>;
interface ReferenceQuery {
  readonly size: number;
  keys(): Iterable<Id>;
}

/** Ids of one kind of record → the records that refer to them. */
class ReferenceIndex {
  private readonly to = new IdTable();
  /** The two halves of the id of each record that refers to something, as often as it was added. */
  private from = new Uint32Array(32);
  private sources = 0;
  /** The first reference of each of them: those of one record stand together. */
  private firsts = new Int32Array(16);
  /** Last reference to a record, plus one, by its number; and for each reference the one before it. */
  private last = new Int32Array(16);
  private before = new Int32Array(16);
  private size = 0;
  /** References that were taken back; they stay in the chains and are passed over when asked. */
  private gone = 0;

  constructor(readonly kind: Kind) {}

  /** Whether so much was taken back that building it again is better. */
  get worn(): boolean {
    return this.gone > 1_000 + this.size / 2;
  }

  add(record: AnyRecord, was?: AnyRecord): void {
    if (!was) {
      this.link(record.id, idsOf(this.kind, record));
      return;
    }
    const [old, ids] = [idsOf(this.kind, was), idsOf(this.kind, record)];
    this.link(
      record.id,
      [...ids].filter((id) => !old.has(id)),
    );
    for (const id of old) if (!ids.has(id)) this.gone++;
  }
  remove(was: AnyRecord): void {
    this.gone += idsOf(this.kind, was).size;
  }

  /** Gives back the room that was made for more, once all records are in. */
  settled(): this {
    this.from = this.from.slice(0, this.sources * 2);
    this.before = this.before.slice(0, this.size);
    this.firsts = this.firsts.slice(0, this.sources);
    this.last = this.last.slice(0, this.to.size);
    return this;
  }

  private link(source: Id, targets: Iterable<Id>): void {
    const first = this.size;
    for (const target of targets) {
      const at = this.to.add(target);
      if (at >= this.last.length) this.last = wider(this.last, Math.ceil(at * 1.5) + 16);
      if (this.size === this.before.length) this.before = wider(this.before, Math.ceil(this.size * 1.5) + 16);
      this.before[this.size] = this.last[at];
      this.last[at] = ++this.size;
    }
    if (this.size === first) return;
    const n = this.sources++;
    if (n === this.firsts.length) {
      this.firsts = wider(this.firsts, Math.ceil(n * 1.5) + 16);
      this.from = wider(this.from, this.firsts.length * 2);
    }
    this.firsts[n] = first;
    this.from[n * 2] = half(source, 0);
    this.from[n * 2 + 1] = half(source, 6);
  }
  /** The record that a reference is of: the last one that begins no later. */
  private sourceOf(reference: number): Id {
    let [low, high] = [0, this.sources - 1];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (this.firsts[middle] <= reference) low = middle;
      else high = middle - 1;
    }
    return idFrom(this.from[low * 2], this.from[low * 2 + 1]);
  }

  /** Records that refer to the target, or once did; each once. Most who ask want the first few. */
  *candidates(target: Id): Generator<Id> {
    const told = new Set<Id>();
    const at = this.to.get(target);
    for (let k = at === undefined ? 0 : this.last[at]; k > 0; k = this.before[k - 1]) {
      const id = this.sourceOf(k - 1);
      if (told.has(id)) continue;
      told.add(id);
      yield id;
    }
  }
}

/** The fields of each kind that may refer to anything. */
const referringFields = new Map<Kind, readonly (readonly [string, Field])[]>();
function fieldsThatRefer(kind: Kind): readonly (readonly [string, Field])[] {
  let there = referringFields.get(kind);
  if (!there) {
    there = Object.entries(definition(kind).fields).filter(([, field]) => field.targets.length > 0);
    referringFields.set(kind, there);
  }
  return there;
}

function idsOf(kind: Kind, record: AnyRecord): ReadonlySet<Id> {
  const ids = new Set<Id>();
  const add = (_: string, id: Id) => ids.add(id);
  const fields = fieldsThatRefer(kind);
  for (let k = 0; k < fields.length; k++) {
    const value = (record as unknown as Values)[fields[k][0]];
    if (value === null || (Array.isArray(value) && !value.length)) continue;
    fields[k][1].references(value, add);
  }
  return ids;
}

function collectReferences(kind: Kind): Collecting<AnyRecord, ReferenceIndex> {
  const index = new ReferenceIndex(kind);
  return { add: (record) => index.add(record), done: () => index.settled() };
}
/** The index of who refers to whom, of the records of a kind. */
export const referencesFrom = (kind: Kind): Index<AnyRecord, unknown> =>
  INDEXES.get(kind) as Index<AnyRecord, ReferenceIndex>;
const INDEXES = new Map<Kind, Index<AnyRecord, ReferenceIndex>>(
  KINDS.map((kind) => [
    kind,
    {
      build: buildBy<AnyRecord, ReferenceIndex>(() => collectReferences(kind)),
      collect: () => collectReferences(kind),
      follow(index, before, changes) {
        for (const [id, record] of changes) {
          const was = before.get(id);
          if (record) index.add(record, was);
          else if (was) index.remove(was);
        }
        return index.worn ? null : index;
      },
    },
  ]),
);

/** Kinds with a field that may refer to a kind. */
const referring = new Map<Kind, Kind[]>();
function kindsReferringTo(kind: Kind): readonly Kind[] {
  let there = referring.get(kind);
  if (!there) {
    there = KINDS.filter((of) => Object.values(definition(of).fields).some((field) => field.targets.includes(kind)));
    referring.set(kind, there);
  }
  return there;
}

export interface Referrer {
  /** The record that is referred to. */
  readonly id: Id;
  readonly kind: Kind;
  readonly record: AnyRecord;
  /** The first field that refers to it, as people call it. */
  readonly field: string;
}

/** Every record that refers to one of the given ids of a kind, once for each it refers to. */
export function* referrersTo(catalogue: Catalogue, kind: Kind, wanted: ReferenceQuery): Generator<Referrer> {
  if (!wanted.size) return;
  for (const of of kindsReferringTo(kind)) {
    const records = recordsOf(catalogue, of) as unknown as PersistentMap<AnyRecord>;
    const index = records.index(INDEXES.get(of) as Index<AnyRecord, ReferenceIndex>);
    for (const id of wanted.keys())
      for (const from of index.candidates(id)) {
        const record = records.get(from);
        const field = record && fieldReferringTo(of, record, kind, id);
        if (field) yield { id, kind: of, record, field };
      }
  }
}

function fieldReferringTo(of: Kind, record: AnyRecord, kind: Kind, id: Id): string | null {
  for (const [name, field] of Object.entries(definition(of).fields)) {
    if (!field.targets.includes(kind)) continue;
    if (referred(field, (record as unknown as Values)[name]).some((to) => to.id === id && to.kind === kind))
      return field.options.within ?? name;
  }
  return null;
}

type Lined<K extends Kind> = RecordOf<K> & { readonly lines: readonly { readonly item?: Id; readonly role: Role }[] };

/** Recipes that ask for any item with a tag, be it an ingredient, a tool or a station. */
export function* recipesAsking(catalogue: Catalogue, tag: Id): Generator<Recipe> {
  const index = catalogue.records.recipe.index(INDEXES.get("recipe") as never) as ReferenceIndex;
  for (const id of index.candidates(tag)) {
    const recipe = catalogue.records.recipe.get(id);
    if (recipe && allLines(recipe).some((l) => l.any === tag)) yield recipe;
  }
}
/** Recipes in which an item goes in, or is a tool or station, by any of their ways. */
export function* recipesTaking(catalogue: Catalogue, item: Id): Generator<Recipe> {
  const index = catalogue.records.recipe.index(INDEXES.get("recipe") as never) as ReferenceIndex;
  for (const id of index.candidates(item)) {
    const recipe = catalogue.records.recipe.get(id);
    if (recipe && allLines(recipe).some((l) => l.item === item && l.role !== "output")) yield recipe;
  }
}
/** Recipes, or sources, in which an item stands in one of the given roles; by any of their ways. */
export function* recordsWith<K extends "recipe" | "source">(
  catalogue: Catalogue,
  kind: K,
  item: Id,
  roles: readonly Role[],
): Generator<Lined<K>> {
  const records = recordsOf(catalogue, kind) as unknown as PersistentMap<Lined<K>>;
  const index = records.index(INDEXES.get(kind) as never) as ReferenceIndex;
  for (const id of index.candidates(item)) {
    const record = records.get(id);
    // A shop gives its wares.
    if (record && "wares" in record && roles.includes("output"))
      if ((record as unknown as Source).wares.some((w) => w.item === item)) {
        yield record;
        continue;
      }
    const lines = record && ("variants" in record ? allLines(record as unknown as Recipe) : record.lines);
    if (lines?.some((l) => l.item === item && roles.includes(l.role))) yield record as Lined<K>;
  }
}
