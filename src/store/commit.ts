/** Writes a change: all of it or none, in one transaction with its revision and its notice to everybody. */
import type { EntityManager } from "@mikro-orm/postgresql";
import { recordIssue } from "../core/catalogue/rules";
import type { Scalar } from "../core/schema/field";
import type { Id } from "../core/schema/id";
import { KINDS, type Pantry } from "../core/kinds/index";
import { copyInto } from "./copy";
import type { LoggedText } from "./load";
import type { Orm } from "./orm";
import type { Batch, Refused, Write } from "./prepare";
import { deleteRows, insertPantry, insertRows, query, updatePantry, upsertRows } from "./sql";
import { SETTINGS, SETTINGS_TABLE, TABLES } from "./tables";

export const CHANNEL = "salty_change";

export interface Submission {
  readonly author: string;
  readonly note: string;
  readonly undoes?: number;
}

/** `change` is absent where there was nothing to write. */
export type Committed = { readonly ok: true; readonly revision: number; readonly change?: LoggedText } | Refused;

/** Thrown where the pantry was deleted in the meantime. */
export class PantryGone extends Error {
  /** By which it is known wherever it comes from; see server/failures.ts. */
  readonly failure = "pantry gone";
}

/** Thrown within the transaction, so that a pantry made for a change that is refused is not left behind. */
class TakenBack extends Error {
  constructor(readonly refused: Refused) {
    super("refused");
  }
}

/**
 * Makes changes ready for the pantry at exactly this revision, reading through the transaction where it must; one answer
 * for each submission.
 */
export type Preparing = (em: EntityManager, revision: number) => Promise<Batch>;

/** Makes a pantry without records. @returns false where its key is taken */
export async function createPantry(em: EntityManager, pantry: Pantry): Promise<boolean> {
  return (await query(em, insertPantry(SETTINGS_TABLE), SETTINGS.toRow(pantry).values)).length > 0;
}

/** Tables of a pantry's rows, those that refer to others before what they refer to. */
const REFERRING_FIRST: readonly string[] = [
  "change_touch",
  "change_part",
  "change",
  ...KINDS.flatMap((kind) => TABLES[kind].parts.map((part) => part.name)),
  ...[...KINDS].reverse().map((kind) => TABLES[kind].name),
];

/** Takes a pantry out with everything in it, its log too, and tells everybody. @returns false where it is not there */
export const deletePantry = (orm: Orm, pantry: Id): Promise<boolean> =>
  orm.em.fork().transactional(async (tx) => {
    const em = tx as EntityManager;
    await query(em, 'select 1 from "pantry" where "id" = ? for update', [pantry]);
    const gone = await takeOut(em, pantry);
    if (gone) await notify(em, pantry, -1);
    return gone;
  });

/** The same within a transaction, which is then to be committed. */
export async function takeOut(em: EntityManager, pantry: Id): Promise<boolean> {
  // Table by table: where the pantry's row goes first, each row that follows it is looked for among all that are left.
  for (const table of REFERRING_FIRST) await query(em, `delete from "${table}" where "pantry_id" = ?`, [pantry]);
  const gone = await query(em, 'delete from "pantry" where "id" = ? returning "id"', [pantry]);
  await planForAny(em);
  return gone.length > 0;
}

/**
 * Has foreign keys checked by plans that do for any pantry, until the transaction ends. The database may not know yet
 * that there is this one, takes it for empty, and goes through all of its rows at every check.
 */
const planForAny = (em: EntityManager): Promise<unknown> => query(em, "set local plan_cache_mode = force_generic_plan");

const notify = (em: EntityManager, pantry: Id, revision: number): Promise<unknown> =>
  query(em, "select pg_notify(?, ?)", [CHANNEL, JSON.stringify({ pantry, revision })]);

/**
 * Locks the pantry, has changes made ready for the revision it is at, and writes them in order: all of them in one
 * transaction, each with a revision of its own.
 * @param make  a pantry to make first, in the same transaction; where a change is refused it is not made either
 * @returns one outcome for each submission, in their order
 * @throws PantryGone where there is no such pantry
 */
export async function commitAll(
  orm: Orm,
  pantry: Id,
  submissions: readonly Submission[],
  preparing: Preparing,
  make?: Pantry,
): Promise<Committed[]> {
  try {
    return await orm.em.fork().transactional(async (tx) => {
      const em = tx as EntityManager;
      if (make && !(await createPantry(em, make)))
        throw new Error(`The key “${make.key}” was taken just now. Try again.`);
      const [head] = await query(em, 'select "revision" from "pantry" where "id" = ? for update', [pantry]);
      if (!head) throw new PantryGone("The pantry was deleted in the meantime.");
      let revision = head.revision as number;
      const { answers, writes } = await preparing(em, revision);
      const changes: LoggedText[] = [];
      const touched: [number, string][] = [];
      const outcomes = answers.map((prepared, k): Committed => {
        if (!prepared.ok) {
          if (make) throw new TakenBack(prepared);
          return prepared;
        }
        if (!prepared.size) return { ok: true, revision };
        revision++;
        const { author, note, undoes } = submissions[k];
        const { edits, size } = prepared;
        const at = new Date().toISOString();
        const change = {
          revision,
          author,
          at,
          note: prepared.note ?? note,
          undoes: undoes ?? null,
          size,
          edits,
          moved: null,
        };
        changes.push(change);
        touched.push([revision, prepared.touched]);
        return { ok: true, revision, change };
      });
      if (!changes.length) return outcomes;
      const filled = new Map<string, number>();
      for await (const write of writes) {
        await carryOut(em, pantry, write);
        if (write.do === "copy") filled.set(write.table, (filled.get(write.table) ?? 0) + lines(write.rows));
      }
      await analyse(em, filled);
      await query(em, LOG, [
        pantry,
        listOf(
          changes.map(({ edits, ...c }) => [c.revision, c.author, c.at, c.note, c.undoes, c.size, edits] as const),
        ),
      ]);
      await query(em, TOUCH, [pantry, listOf(touched)]);
      await query(em, 'update "pantry" set "revision" = ? where "id" = ?', [revision, pantry]);
      await notify(em, pantry, revision);
      await planForAny(em);
      return outcomes;
    });
  } catch (error) {
    if (error instanceof TakenBack) return [error.refused];
    if (!takenKey(error) || submissions.length > 1) throw error;
    return [
      {
        ok: false,
        conflicts: [],
        issues: [
          recordIssue("pantry", pantry, "", "key", "Another pantry has this key already. Choose one that is free."),
        ],
      },
    ];
  }
}

const lines = (rows: string): number => rows.split("\n").length - 1;
/** Rows from which on the database is told how large a table has become. */
const MANY_ROWS = 2_000;
/**
 * Has the database look at tables that were filled. Foreign keys are checked when the transaction is committed, row by
 * row, by plans that were made when the tables were small: 100,000 checks by a plan for a small table take an hour.
 */
async function analyse(em: EntityManager, filled: ReadonlyMap<string, number>): Promise<void> {
  for (const [table, rows] of filled) if (rows >= MANY_ROWS) await query(em, `analyze "${table}"`, []);
}

/** One change alone. */
export const commit = async (
  orm: Orm,
  pantry: Id,
  submission: Submission,
  preparing: Preparing,
  make?: Pantry,
): Promise<Committed> => (await commitAll(orm, pantry, [submission], preparing, make))[0];

const LOG =
  'insert into "change" ("pantry_id", "revision", "author", "at", "note", "undoes", "size", "edits") select ?, (v->>0)::int, v->>1, (v->>2)::timestamptz, v->>3, (v->>4)::int, (v->>5)::int, v->6 from jsonb_array_elements(?::jsonb) as r(v)';
const TOUCH =
  'insert into "change_touch" ("pantry_id", "revision", "record") select ?, (v->>0)::int, jsonb_array_elements_text(v->1) from jsonb_array_elements(?::jsonb) as r(v)';
/** Rows as one JSON list; the last of each is JSON already. */
const listOf = (rows: readonly (readonly (string | number | null)[])[]): string =>
  `[${rows.map((row) => `[${[...row.slice(0, -1).map((v) => JSON.stringify(v)), row[row.length - 1]].join(",")}]`).join(",")}]`;

/** Keys of records are held apart by the rules; only those of pantries meet first in the database. */
const takenKey = (error: unknown): boolean =>
  (error as { code?: string }).code === "23505" &&
  (error as { constraint?: string }).constraint === "pantry_key_unique";

async function carryOut(em: EntityManager, pantry: Id, write: Write): Promise<void> {
  if (write.do === "settings") {
    await query(em, updatePantry(SETTINGS_TABLE), [...(JSON.parse(write.values) as Scalar[]), pantry]);
    return;
  }
  if (write.do === "copy") {
    await copyInto(em, write.table, write.rows);
    return;
  }
  const table = TABLES[write.kind];
  if (write.do === "remove") {
    await query(em, deleteRows(table.name, "id"), [pantry, write.ids]);
    return;
  }
  await query(em, upsertRows(table), [pantry, write.rows]);
  for (const [k, part] of table.parts.entries()) {
    if (write.kept !== "[]") await query(em, deleteRows(part.name, part.owner), [pantry, write.kept]);
    if (write.parts[k] !== "[]") await query(em, insertRows(part), [pantry, write.parts[k]]);
  }
}

/** Keeps what changes moved beside them, for the log. @param moved  revisions with JSON */
export const keepMoved = (
  em: EntityManager,
  pantry: Id,
  moved: readonly (readonly [number, string])[],
): Promise<unknown> =>
  query(
    em,
    'update "change" c set "moved" = v->1 from jsonb_array_elements(?::jsonb) as r(v) where c."pantry_id" = ? and c."revision" = (v->>0)::int',
    [listOf(moved), pantry],
  );
