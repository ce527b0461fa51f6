/** Writes a change: all of it or none, in one transaction with its revision and its notice to everyone. */
import type { EntityManager } from "@mikro-orm/postgresql";
import { recordIssue } from "../core/catalogue/rules";
import type { Scalar } from "../core/schema/field";
import type { Id } from "../core/schema/id";
import { KINDS, type Pantry } from "../core/kinds/index";
import { copyInto } from "./copy";
import { locked } from "./lock";
import type { Orm } from "./orm";
import { keepPictures, PicturesFull } from "./pictures";
import type { Batch, Refused, Write } from "./prepare";
import type { LoggedText } from "./texts";
import { deleteRows, insertRows, query, upsertRows } from "./sql";
import { ChangePartRow, ChangeRow, ChangeTouchRow, PantryRow, type PantryRowOf, PictureRow, rowName } from "./entities";
import { SETTINGS, TABLES } from "./tables";

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
  const made = em
    .createQueryBuilder(PantryRow)
    .insert({ ...settingsOf(SETTINGS.toRow(pantry).values), revision: 0 })
    .onConflict(["key"])
    .ignore();
  return (await made).affectedRows > 0;
}
/** The settings of a pantry by their columns, which are properties of its row. */
const settingsOf = (values: readonly Scalar[]) =>
  Object.fromEntries(SETTINGS.shape.columns.map((column, k) => [column.name, values[k]])) as unknown as Omit<
    PantryRowOf,
    "revision"
  >;

/** Rows of a pantry, those that refer to others before what they refer to. */
const REFERRING_FIRST: readonly string[] = [
  ...[ChangeTouchRow, ChangePartRow, ChangeRow, PictureRow].map((entity) => entity.meta.className),
  ...KINDS.flatMap((kind) => TABLES[kind].parts.map((part) => rowName(part.name))),
  ...[...KINDS].reverse().map((kind) => rowName(TABLES[kind].name)),
];

/** Takes a pantry out with everything in it, its log too, and tells everyone. @returns false where it is not there */
export const deletePantry = (orm: Orm, pantry: Id): Promise<boolean> =>
  orm.em.fork().transactional(async (tx) => {
    const em = tx as EntityManager;
    await locked(em, pantry);
    const gone = await takeOut(em, pantry);
    if (gone) await notify(em, pantry, -1);
    return gone;
  });

/** The same within a transaction, which is then to be committed. */
export async function takeOut(em: EntityManager, pantry: Id): Promise<boolean> {
  // Table by table: where the pantry's row goes first, each row that follows it is looked for among all that are left.
  for (const entity of REFERRING_FIRST) await em.nativeDelete(entity, { pantry });
  const gone = await em.nativeDelete(PantryRow, { id: pantry });
  await planForAny(em);
  return gone > 0;
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
      if (make && !(await createPantry(em, make))) throw new Error(`The key “${make.key}” was just taken. Try again.`);
      const head = await locked(em, pantry);
      if (!head) throw new PantryGone("The pantry was deleted.");
      let { revision } = head;
      const { answers, writes } = await preparing(em, revision);
      const changes: LoggedText[] = [];
      const touched: { revision: number; record: string }[] = [];
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
        for (const record of JSON.parse(prepared.touched) as string[]) touched.push({ revision, record });
        return { ok: true, revision, change };
      });
      const filled = new Map<string, number>();
      for await (const write of writes) {
        await carryOut(em, pantry, write);
        if (write.do === "copy") filled.set(write.table, (filled.get(write.table) ?? 0) + lines(write.rows));
      }
      // Pictures may come alone: the records named them already.
      if (!changes.length) return outcomes;
      await analyse(em, filled);
      await em.insertMany(
        ChangeRow,
        changes.map(({ edits, at, moved: _, ...change }) => ({
          ...change,
          pantry,
          at: new Date(at),
          edits: JSON.parse(edits),
        })),
      );
      await em.insertMany(
        ChangeTouchRow,
        touched.map((touch) => ({ ...touch, pantry })),
      );
      head.revision = revision;
      await em.flush();
      await notify(em, pantry, revision);
      await planForAny(em);
      return outcomes;
    });
  } catch (error) {
    if (error instanceof TakenBack) return [error.refused];
    if (submissions.length > 1) throw error;
    if (error instanceof PicturesFull) return [refusedFor(pantry, "pictures", error.message)];
    if (!takenKey(error)) throw error;
    return [refusedFor(pantry, "key", "Another pantry already has this key. Choose a free one.")];
  }
}
const refusedFor = (pantry: Id, path: string, message: string): Refused => ({
  ok: false,
  conflicts: [],
  issues: [recordIssue("pantry", pantry, "", path, message)],
});

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

/** Keys of records are held apart by the rules; only those of pantries meet first in the database. */
const takenKey = (error: unknown): boolean =>
  (error as { code?: string }).code === "23505" &&
  (error as { constraint?: string }).constraint === "pantry_key_unique";

async function carryOut(em: EntityManager, pantry: Id, write: Write): Promise<void> {
  if (write.do === "settings") {
    await em.nativeUpdate(PantryRow, { id: pantry }, settingsOf(JSON.parse(write.values) as Scalar[]));
    return;
  }
  if (write.do === "pictures") {
    const pictures = write.pictures.map((p) => ({ ...p, bytes: Buffer.from(p.base64, "base64") }));
    await keepPictures(em, pantry, pictures);
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
export async function keepMoved(
  em: EntityManager,
  pantry: Id,
  moved: readonly (readonly [number, string])[],
): Promise<void> {
  for (const [revision, text] of moved)
    await em.nativeUpdate(ChangeRow, { pantry, revision }, { moved: JSON.parse(text) });
}
