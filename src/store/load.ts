/** Reads pantries and their log. A whole catalogue comes as texts, so that a thread can make it of them. */
import { type EntityManager, raw } from "@mikro-orm/postgresql";
import type { LoggedChange, Moved } from "../core/history/log";
import type { Catalogue } from "../core/catalogue/catalogue";
import type { Edit } from "../core/catalogue/edit";
import type { Id } from "../core/schema/id";
import { type Kind, KINDS } from "../core/kinds/index";
import type { Scalar } from "../core/schema/field";
import { query, selectPantry, selectRows } from "./sql";
import { ChangePartRow, ChangeRow, ChangeTouchRow, PantryRow, type PantryRowOf } from "./entities";
import { catalogueFrom, type LoggedText, type PantryTexts } from "./texts";
import { SETTINGS, SETTINGS_TABLE, type Table, TABLES } from "./tables";

export interface PantryHead {
  readonly id: Id;
  readonly key: string;
  readonly name: string;
  readonly revision: number;
}

const HEAD_FIELDS = ["id", "key", "name", "revision"] as const;
const head = ({ id, key, name, revision }: PantryRowOf): PantryHead => ({ id: id as Id, key, name, revision });

/** Rows are read as they are now: what the manager has read before is not asked. */
const NOW = { disableIdentityMap: true } as const;

export const listPantries = async (em: EntityManager): Promise<PantryHead[]> =>
  (await em.find(PantryRow, {}, { fields: HEAD_FIELDS, orderBy: { name: "asc", key: "asc" }, ...NOW })).map(head);

export interface PantrySummary extends PantryHead {
  readonly items: number;
  /** null: nothing has changed yet. */
  readonly last: { readonly author: string; readonly at: string } | null;
}

/** Every pantry with the number of its items and its last change. */
export async function summarisePantries(em: EntityManager): Promise<PantrySummary[]> {
  const heads = await listPantries(em);
  if (!heads.length) return [];
  const counts = await query(
    em,
    'select "pantry_id" as pantry, count(*)::int as items from "item" group by "pantry_id"',
    [],
  );
  const items = new Map(counts.map((row) => [row.pantry as string, row.items as number]));
  const changes = await em.find(
    ChangeRow,
    { $or: heads.map(({ id, revision }) => ({ pantry: id, revision })) } as never,
    { fields: ["pantry", "revision", "author", "at"] as never, ...NOW },
  );
  const last = new Map(
    changes.map((row) => {
      const { pantry, author, at } = row as unknown as { pantry: string | { id: string }; author: string; at: Date };
      return [typeof pantry === "string" ? pantry : pantry.id, { author, at: at.toISOString() }] as const;
    }),
  );
  return heads.map((of) => ({ ...of, items: items.get(of.id) ?? 0, last: last.get(of.id) ?? null }));
}

export async function pantryByKey(em: EntityManager, key: string): Promise<PantryHead | null> {
  const found = await em.findOne(PantryRow, { key }, { fields: HEAD_FIELDS, ...NOW });
  return found && head(found);
}

/** null when there is no such pantry. Repeatable read: all tables at one moment. */
export function loadTexts(em: EntityManager, pantry: Id): Promise<PantryTexts | null> {
  return em.transactional((tx) => readTexts(tx as EntityManager, pantry), {
    isolationLevel: "repeatable read" as never,
    readOnly: true,
  });
}

/** The same within a transaction that keeps others from writing. */
export async function readTexts(em: EntityManager, pantry: Id): Promise<PantryTexts | null> {
  const [row] = await query(em, selectPantry(SETTINGS_TABLE), [pantry]);
  if (!row) return null;
  const kinds: Partial<Record<Kind, { rows: string; parts: string[] }>> = {};
  for (const kind of KINDS) {
    const text = async (table: Table) => (await query(em, selectRows(table), [pantry]))[0].rows as string;
    const rows = await text(TABLES[kind]);
    const parts: string[] = [];
    for (const part of TABLES[kind].parts) parts.push(await text(part));
    kinds[kind] = { rows, parts };
  }
  const values = SETTINGS.shape.columns.map((c) => row[c.name] as Scalar);
  const settings = SETTINGS.fromRow({ values, parts: [] });
  return { revision: row.revision as number, pantry: settings, kinds: kinds as PantryTexts["kinds"] };
}

/** The catalogue as it stands; null when there is no such pantry. */
export async function loadCatalogue(em: EntityManager, pantry: Id): Promise<Catalogue | null> {
  const texts = await loadTexts(em, pantry);
  return texts && catalogueFrom(texts);
}

/** A row of the log as the query builder gives it. */
interface LogRow {
  readonly revision: number;
  readonly author: string;
  readonly at: string | Date;
  readonly note: string;
  readonly undoes: number | null;
  readonly size: number;
  readonly edits: unknown;
  readonly moved: unknown;
}
const said = ({ revision, author, at, note, undoes, size }: LogRow) => ({
  revision,
  author,
  at: new Date(at).toISOString(),
  note,
  undoes,
  size,
});
const loggedText = (r: LogRow): LoggedText => ({
  ...said(r),
  edits: r.edits as string,
  moved: r.moved as string | null,
});
const logged = (r: LogRow): LoggedChange => ({
  ...said(r),
  edits: r.edits as unknown as Edit[],
  moved: r.moved as unknown as Moved | null,
});

/** The log of a pantry, with its edits and what they moved as the database is to write them. */
const log = (em: EntityManager, pantry: Id, edits: string, moved: string) =>
  em
    .createQueryBuilder(ChangeRow, "c")
    .select(["revision", "author", "at", "note", "undoes", "size", raw(`${edits} as edits`), raw(`${moved} as moved`)])
    .where({ pantry });
const rows = async (of: { execute(method: "all", mapResults: boolean): Promise<unknown> }): Promise<LogRow[]> =>
  (await of.execute("all", false)) as LogRow[];

/** JSON stays text: threads and windows are sent it as it is. */
const texts = (em: EntityManager, pantry: Id) => log(em, pantry, 'c."edits"::text', 'c."moved"::text');

/** Changes after a revision, oldest first. */
export const changesAfter = async (em: EntityManager, pantry: Id, revision: number): Promise<LoggedText[]> =>
  (
    await rows(
      texts(em, pantry)
        .andWhere({ revision: { $gt: revision } })
        .orderBy({ revision: "asc" }),
    )
  ).map(loggedText);

/** Changes after a revision with the number of their edits, oldest first. */
export const sizesAfter = (
  em: EntityManager,
  pantry: Id,
  revision: number,
  most: number,
): Promise<readonly { readonly revision: number; readonly size: number }[]> =>
  em.find(
    ChangeRow,
    { pantry, revision: { $gt: revision } },
    { fields: ["revision", "size"], orderBy: { revision: "asc" }, limit: most, ...NOW },
  );

export async function changeAt(em: EntityManager, pantry: Id, revision: number): Promise<LoggedText | null> {
  const [row] = await rows(texts(em, pantry).andWhere({ revision }));
  return row ? loggedText(row) : null;
}

/** All edits of a change, in pieces, each JSON; none where there is no such change. */
export async function editsAt(em: EntityManager, pantry: Id, revision: number): Promise<string[]> {
  const first = await changeAt(em, pantry, revision);
  if (!first) return [];
  const further = (await em
    .createQueryBuilder(ChangePartRow, "p")
    .select(raw('p."edits"::text as edits'))
    .where({ pantry, revision })
    .orderBy({ part: "asc" })
    .execute("all", false)) as { edits: string }[];
  return [first.edits, ...further.map((part) => part.edits)];
}

/** An import of thousands of records, or few edits of very much, are listed without their edits. Bytes as stored. */
const BRIEF = `case when c."size" <= 200 and pg_column_size(c."edits") <= 16000 then c."edits" else '[]'::jsonb end`;
const listed = (em: EntityManager, pantry: Id) => log(em, pantry, BRIEF, 'c."moved"');

/** A page of the log, newest first, below a revision. */
export const changesBefore = async (
  em: EntityManager,
  pantry: Id,
  before: number,
  most: number,
): Promise<LoggedChange[]> => {
  const page = listed(em, pantry)
    .andWhere({ revision: { $lt: before } })
    .orderBy({ revision: "desc" })
    .limit(most);
  return (await rows(page)).map(logged);
};

/** Changes that touched a record, newest first. */
export const changesOf = async (em: EntityManager, pantry: Id, record: Id, most: number): Promise<LoggedChange[]> => {
  const touched = await em.find(
    ChangeTouchRow,
    { pantry, record },
    { fields: ["revision"], orderBy: { revision: "desc" }, limit: most, ...NOW },
  );
  const revisions = touched.map((touch) => touch.revision);
  const page = listed(em, pantry)
    .andWhere({ revision: { $in: revisions } })
    .orderBy({ revision: "desc" });
  return revisions.length ? (await rows(page)).map(logged) : [];
};
