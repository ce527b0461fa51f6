/** Reads pantries and their log. A whole catalogue comes as texts, so that a thread can make it of them. */
import type { EntityManager } from "@mikro-orm/postgresql";
import type { LoggedChange, Moved } from "../core/history/log";
import { type Catalogue, catalogueOf } from "../core/catalogue/catalogue";
import type { Edit } from "../core/catalogue/edit";
import type { Id } from "../core/schema/id";
import { definition, type Kind, KINDS, type Pantry } from "../core/kinds/index";
import type { Scalar } from "../core/schema/field";
import { query, selectPantry, selectRows } from "./sql";
import { recordsFrom, type Row, SETTINGS, SETTINGS_TABLE, type Table, TABLES } from "./tables";

export interface PantryHead {
  readonly id: Id;
  readonly key: string;
  readonly name: string;
  readonly revision: number;
}

export async function listPantries(em: EntityManager): Promise<PantryHead[]> {
  return (await query(
    em,
    'select "id", "key", "name", "revision" from "pantry" order by "name", "key"',
  )) as unknown as PantryHead[];
}

export async function pantryByKey(em: EntityManager, key: string): Promise<PantryHead | null> {
  const [head] = await query(em, 'select "id", "key", "name", "revision" from "pantry" where "key" = ?', [key]);
  return (head as unknown as PantryHead | undefined) ?? null;
}

/** A whole pantry at one revision: of each kind its rows and those of its parts, each a JSON list of lists. */
export interface PantryTexts {
  readonly revision: number;
  readonly pantry: Pantry;
  readonly kinds: { readonly [K in Kind]: { readonly rows: string; readonly parts: readonly string[] } };
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
  const [head] = await query(em, selectPantry(SETTINGS_TABLE), [pantry]);
  if (!head) return null;
  const kinds: Partial<Record<Kind, { rows: string; parts: string[] }>> = {};
  for (const kind of KINDS) {
    const text = async (table: Table) => (await query(em, selectRows(table), [pantry]))[0].rows as string;
    const rows = await text(TABLES[kind]);
    const parts: string[] = [];
    for (const part of TABLES[kind].parts) parts.push(await text(part));
    kinds[kind] = { rows, parts };
  }
  const values = SETTINGS.shape.columns.map((c) => head[c.name] as Scalar);
  const settings = SETTINGS.fromRow({ values, parts: [] });
  return { revision: head.revision as number, pantry: settings, kinds: kinds as PantryTexts["kinds"] };
}

export function catalogueFrom({ revision, pantry, kinds }: PantryTexts): Catalogue {
  return catalogueOf(revision, pantry, (kind) => {
    const { rows, parts } = kinds[kind];
    return recordsFrom(
      definition(kind),
      JSON.parse(rows),
      parts.map((part) => JSON.parse(part)),
    );
  });
}

/** The catalogue as it stands; null when there is no such pantry. */
export async function loadCatalogue(em: EntityManager, pantry: Id): Promise<Catalogue | null> {
  const texts = await loadTexts(em, pantry);
  return texts && catalogueFrom(texts);
}

/** A change of the log whose edits (of a large one the first), and what they moved, are JSON still. */
export type LoggedText = Omit<LoggedChange, "edits" | "moved"> & {
  readonly edits: string;
  readonly moved: string | null;
};

const HEAD = 'c."revision", c."author", c."at", c."note", c."undoes", c."size"';
const head = (r: Row) => ({
  revision: r.revision as number,
  author: r.author as string,
  at: new Date(r.at as string).toISOString(),
  note: r.note as string,
  undoes: r.undoes as number | null,
  size: r.size as number,
});
const loggedText = (r: Row): LoggedText => ({ ...head(r), edits: r.edits as string, moved: r.moved as string | null });
const logged = (r: Row): LoggedChange => ({
  ...head(r),
  edits: r.edits as unknown as Edit[],
  moved: r.moved as unknown as Moved | null,
});

/** Changes after a revision, oldest first. */
export const changesAfter = async (em: EntityManager, pantry: Id, revision: number): Promise<LoggedText[]> =>
  (
    await query(
      em,
      `select ${HEAD}, c."edits"::text as edits, c."moved"::text as moved from "change" c where c."pantry_id" = ? and c."revision" > ? order by c."revision"`,
      [pantry, revision],
    )
  ).map(loggedText);

export async function changeAt(em: EntityManager, pantry: Id, revision: number): Promise<LoggedText | null> {
  const [row] = await query(
    em,
    `select ${HEAD}, c."edits"::text as edits, c."moved"::text as moved from "change" c where c."pantry_id" = ? and c."revision" = ?`,
    [pantry, revision],
  );
  return row ? loggedText(row) : null;
}

/** All edits of a change, in pieces, each JSON; none where there is no such change. */
export async function editsAt(em: EntityManager, pantry: Id, revision: number): Promise<string[]> {
  const rows = await query(
    em,
    `select 0 as part, c."edits"::text as edits from "change" c where c."pantry_id" = ? and c."revision" = ?
     union all select p."part", p."edits"::text from "change_part" p where p."pantry_id" = ? and p."revision" = ? order by 1`,
    [pantry, revision, pantry, revision],
  );
  return rows.map((r) => r.edits as string);
}

/** An import of thousands of records, or few edits of very much, are listed without their edits. Bytes as stored. */
const LISTED = `${HEAD}, c."moved", case when c."size" <= 200 and pg_column_size(c."edits") <= 16000 then c."edits" else '[]'::jsonb end as edits`;

/** A page of the log, newest first, below a revision. */
export const changesBefore = async (
  em: EntityManager,
  pantry: Id,
  before: number,
  most: number,
): Promise<LoggedChange[]> =>
  (
    await query(
      em,
      `select ${LISTED} from "change" c where c."pantry_id" = ? and c."revision" < ? order by c."revision" desc limit ?`,
      [pantry, before, most],
    )
  ).map(logged);

/** Changes that touched a record, newest first. */
export const changesOf = async (em: EntityManager, pantry: Id, record: Id, most: number): Promise<LoggedChange[]> =>
  (
    await query(
      em,
      `select ${LISTED} from "change" c join "change_touch" t on t."pantry_id" = c."pantry_id" and t."revision" = c."revision"
       where t."pantry_id" = ? and t."record" = ? order by c."revision" desc limit ?`,
      [pantry, record, most],
    )
  ).map(logged);
