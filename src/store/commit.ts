/** Writes a change: all of it or none, in one transaction with its revision and its notice to everybody. */
import type { EntityManager } from "@mikro-orm/postgresql";
import type { Scalar } from "../core/schema/field";
import type { Id } from "../core/schema/id";
import type { Pantry } from "../core/kinds/index";
import type { LoggedText } from "./load";
import type { Orm } from "./orm";
import type { Prepared, Refused, Write } from "./prepare";
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
export class PantryGone extends Error {}

/** Thrown within the transaction, so that a pantry made for a change that is refused is not left behind. */
class TakenBack extends Error {
  constructor(readonly refused: Refused) {
    super("refused");
  }
}

/** Makes the change ready for the pantry at exactly this revision, reading through the transaction where it must. */
export type Preparing = (em: EntityManager, revision: number) => Promise<Prepared | Refused>;

/** Makes a pantry without records. @returns false where its key is taken */
export async function createPantry(em: EntityManager, pantry: Pantry): Promise<boolean> {
  return (await query(em, insertPantry(SETTINGS_TABLE), SETTINGS.toRow(pantry).values)).length > 0;
}

/** Takes a pantry out with everything in it, its log too, and tells everybody. @returns false where it is not there */
export const deletePantry = (orm: Orm, pantry: Id): Promise<boolean> =>
  orm.em.fork().transactional(async (tx) => {
    const em = tx as EntityManager;
    const gone = await query(em, 'delete from "pantry" where "id" = ? returning "id"', [pantry]);
    if (gone.length) await notify(em, pantry, -1);
    return gone.length > 0;
  });

const notify = (em: EntityManager, pantry: Id, revision: number): Promise<unknown> =>
  query(em, "select pg_notify(?, ?)", [CHANNEL, JSON.stringify({ pantry, revision })]);

/**
 * Locks the pantry, has the change made ready for the revision it is at, and writes it.
 * @param make  a pantry to make first, in the same transaction
 * @throws PantryGone where there is no such pantry
 */
export async function commit(
  orm: Orm,
  pantry: Id,
  { author, note, undoes }: Submission,
  preparing: Preparing,
  make?: Pantry,
): Promise<Committed> {
  try {
    return await orm.em.fork().transactional(async (tx) => {
      const em = tx as EntityManager;
      if (make && !(await createPantry(em, make)))
        throw new Error(`The key “${make.key}” was taken just now. Try again.`);
      const [head] = await query(em, 'select "revision" from "pantry" where "id" = ? for update', [pantry]);
      if (!head) throw new PantryGone("The pantry was deleted in the meantime.");
      const before = head.revision as number;
      const prepared = await preparing(em, before);
      if (!prepared.ok && make) throw new TakenBack(prepared);
      if (!prepared.ok || !prepared.size) return prepared.ok ? { ok: true as const, revision: before } : prepared;
      for (const write of prepared.writes) await carryOut(em, pantry, write);
      const { edits, size } = prepared;
      const change = {
        revision: before + 1,
        author,
        at: new Date().toISOString(),
        note: prepared.note ?? note,
        undoes: undoes ?? null,
        size,
        edits,
        moved: null,
      };
      const { revision } = change;
      await query(
        em,
        'insert into "change" ("pantry_id", "revision", "author", "at", "note", "undoes", "edits", "size") values (?, ?, ?, ?, ?, ?, ?::jsonb, ?)',
        [pantry, revision, author, change.at, change.note, change.undoes, edits, size],
      );
      await query(
        em,
        'insert into "change_touch" ("pantry_id", "revision", "record") select ?, ?, jsonb_array_elements_text(?::jsonb)',
        [pantry, revision, prepared.touched],
      );
      await query(em, 'update "pantry" set "revision" = ? where "id" = ?', [revision, pantry]);
      await notify(em, pantry, revision);
      return { ok: true as const, revision, change };
    });
  } catch (error) {
    if (error instanceof TakenBack) return error.refused;
    if (!takenKey(error)) throw error;
    return {
      ok: false,
      conflicts: [],
      faults: [
        {
          kind: "pantry",
          id: pantry,
          key: "",
          field: "key",
          says: "Another pantry has this key already. Choose one that is free.",
        },
      ],
    };
  }
}

/** Keys of records are held apart by the rules; only those of pantries meet first in the database. */
const takenKey = (error: unknown): boolean =>
  (error as { code?: string }).code === "23505" &&
  (error as { constraint?: string }).constraint === "pantry_key_unique";

async function carryOut(em: EntityManager, pantry: Id, write: Write): Promise<void> {
  if (write.do === "settings") {
    await query(em, updatePantry(SETTINGS_TABLE), [...(JSON.parse(write.values) as Scalar[]), pantry]);
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

/** Keeps what a change moved beside it, for the log. @param moved  JSON */
export const keepMoved = (em: EntityManager, pantry: Id, revision: number, moved: string): Promise<unknown> =>
  query(em, 'update "change" set "moved" = ?::jsonb where "pantry_id" = ? and "revision" = ?', [
    moved,
    pantry,
    revision,
  ]);
