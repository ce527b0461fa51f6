/** Writes a change: all of it or none, in one transaction with its revision and its notice to everybody. */
import type { EntityManager } from "@mikro-orm/postgresql";
import type { Moved } from "../core/analysis/board";
import type { Catalogue } from "../core/catalogue/catalogue";
import { recordAt } from "../core/catalogue/catalogue";
import { apply, type Edit, type Outcome } from "../core/catalogue/changes";
import { type AnyRecord, type Id, type Item, type ItemType, type Kind, KINDS, type Line, type Pantry, type Recipe, type Source } from "../core/catalogue/records";
import { ChangeRow, ChangeTouchRow, CurrencyRow, ItemRow, ItemStatRow, ItemTagRow, PantryRow, RarityRow, RecipeLineRow, RecipeRow, SourceLineRow, SourceRow, StatRow, TagRow, TypeRow, TypeStatRow } from "./entities";
import { query } from "./load";
import type { Orm } from "./orm";

export const CHANNEL = "salty_change";

export interface Submission {
  readonly author: string;
  readonly note: string;
  readonly edits: readonly Edit[];
  readonly undoes?: number;
}

export type Committed = { readonly ok: true; readonly revision: number; readonly edits: readonly Edit[] } | Extract<Outcome, { ok: false }>;

/** Makes a pantry without records. @throws when its key is taken */
export async function createPantry(em: EntityManager, pantry: Pantry): Promise<void> {
  await em.insert(PantryRow as never, { ...pantry, revision: 0 } as never);
}

/**
 * Locks the pantry, brings the catalogue to the locked revision, applies the edits and writes what they touched.
 * @param catalogueAt  gives the catalogue at exactly this revision, reading through the transaction
 */
export function commit(orm: Orm, pantry: Id, submission: Submission, catalogueAt: (em: EntityManager, revision: number) => Promise<Catalogue>): Promise<Committed> {
  return orm.em.fork().transactional(async (tx) => {
    const em = tx as EntityManager;
    const [head] = await query(em, "select revision from pantry where id = ? for update", [pantry]);
    if (!head) throw new Error(`There is no pantry ${pantry}.`);
    const catalogue = await catalogueAt(em, head.revision as unknown as number);
    const outcome = apply(catalogue, submission.edits);
    if (!outcome.ok) return outcome;
    if (!outcome.edits.length) return { ok: true, revision: catalogue.revision, edits: [] };
    const next = outcome.catalogue;
    await write(em, next, outcome.edits);
    await em.insert(ChangeRow as never, { pantry, revision: next.revision, author: submission.author, at: new Date(), note: submission.note, undoes: submission.undoes ?? null, edits: outcome.edits, size: outcome.edits.length, moved: null } as never);
    const touched = [...new Set(outcome.edits.map((e) => (e.op === "set" ? e.id : e.record.id)))];
    for (let at = 0; at < touched.length; at += 2000) await em.insertMany(ChangeTouchRow as never, touched.slice(at, at + 2000).map((record) => ({ pantry, revision: next.revision, record })) as never);
    await query(em, "update pantry set revision = ? where id = ? returning revision", [next.revision, pantry]);
    await query(em, "select pg_notify(?, ?)", [CHANNEL, JSON.stringify({ pantry, revision: next.revision })]);
    return { ok: true, revision: next.revision, edits: outcome.edits };
  });
}

/** Keeps what a change moved beside it, for the log. */
export const keepMoved = (em: EntityManager, pantry: Id, revision: number, moved: Moved): Promise<unknown> =>
  query(em, 'update "change" set moved = ?::jsonb where pantry_id = ? and revision = ? returning revision', [JSON.stringify(moved), pantry, revision]);

const TABLES: { readonly [K in Kind]: unknown } = { currency: CurrencyRow, rarity: RarityRow, stat: StatRow, tag: TagRow, type: TypeRow, item: ItemRow, recipe: RecipeRow, source: SourceRow };

async function write(em: EntityManager, next: Catalogue, edits: readonly Edit[]): Promise<void> {
  const put = new Map<Kind, Map<Id, AnyRecord>>();
  const gone = new Map<Kind, Set<Id>>();
  let settings = false;
  for (const edit of edits) {
    if (edit.op === "set" && edit.kind === "pantry") {
      settings = true;
      continue;
    }
    const kind = edit.kind as Kind;
    const id = edit.op === "set" ? edit.id : edit.record.id;
    const record = recordAt(next, kind, id);
    if (record) put.set(kind, (put.get(kind) ?? new Map()).set(id, record));
    else gone.set(kind, (gone.get(kind) ?? new Set()).add(id));
  }
  if (settings) {
    const { id, ...values } = next.pantry;
    await em.nativeUpdate(PantryRow as never, { id } as never, values as never);
  }
  for (const kind of [...KINDS].reverse()) {
    const ids = gone.get(kind);
    if (ids) await em.nativeDelete(TABLES[kind] as never, { id: { $in: [...ids] } } as never);
  }
  for (const kind of KINDS) {
    const records = put.get(kind);
    if (records) await putAll(em, next.pantry.id, kind, [...records.values()]);
  }
}

/** Inserts or replaces records with what hangs on them, in batches. */
async function putAll(em: EntityManager, pantry: Id, kind: Kind, records: readonly AnyRecord[]): Promise<void> {
  for (let at = 0; at < records.length; at += 500) {
    const batch = records.slice(at, at + 500);
    const ids = batch.map((r) => r.id);
    const rows = batch.map((record) => {
      const { tags: _, stats: __, lines: ___, ...columns } = record as unknown as Record<string, unknown>;
      return { ...columns, pantry };
    });
    await em.upsertMany(TABLES[kind] as never, rows as never);
    em.clear();
    const children = async (table: unknown, owner: string, list: object[]) => {
      await em.nativeDelete(table as never, { [owner]: { $in: ids } } as never);
      for (let c = 0; c < list.length; c += 1000) await em.insertMany(table as never, list.slice(c, c + 1000) as never);
    };
    const lines = (owner: string) => (batch as unknown as (Recipe | Source)[]).flatMap((r) => r.lines.map(({ draw, ...l }: Line, position) => ({ [owner]: r.id, position, ...l, draw: draw?.group ?? null, times: draw?.times ?? null, weight: draw?.weight ?? null, drawOf: draw?.of ?? null })));
    const stats = (owner: string) => (batch as unknown as (Item | ItemType)[]).flatMap((r) => Object.entries(r.stats).map(([stat, value]) => ({ [owner]: r.id, stat, value })));
    if (kind === "recipe") await children(RecipeLineRow, "recipe", lines("recipe"));
    if (kind === "source") await children(SourceLineRow, "source", lines("source"));
    if (kind === "type") await children(TypeStatRow, "type", stats("type"));
    if (kind === "item") {
      await children(ItemStatRow, "item", stats("item"));
      await children(ItemTagRow, "item", (batch as Item[]).flatMap((i) => i.tags.map((tag, position) => ({ item: i.id, tag, position }))));
    }
  }
}
