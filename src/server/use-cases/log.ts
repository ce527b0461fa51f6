/** Reading the log. */
import type { EntityManager } from "@mikro-orm/postgresql";
import type { LoggedChange } from "../../core/history/log";
import type { Id } from "../../core/schema/id";
import { changeAt, changesBefore, changesOf, editsAt } from "../../store/load";
import type { LoggedText } from "../../store/texts";

/** Largest number of a revision. */
export const NEWEST = 2 ** 31 - 1;
const isRevision = (revision: number): boolean => Number.isInteger(revision) && revision > 0 && revision < NEWEST;

/**
 * Changes, newest first.
 * @param of      the history of one record
 * @param before  only changes below this revision
 */
export const changes = (
  em: EntityManager,
  pantry: Id,
  { of, before = NEWEST, most = 50 }: { readonly of?: Id; readonly before?: number; readonly most?: number },
): Promise<readonly LoggedChange[]> =>
  of === undefined ? changesBefore(em, pantry, before, most) : changesOf(em, pantry, of, most);

/** One change with its edits, of a large one the first thousand; null where there is none. */
export const changeOf = async (em: EntityManager, pantry: Id, revision: number): Promise<LoggedText | null> =>
  isRevision(revision) ? changeAt(em, pantry, revision) : null;

/** All edits of a change, in pieces; null where there is none. */
export async function allEditsOf(em: EntityManager, pantry: Id, revision: number): Promise<readonly string[] | null> {
  const pieces = isRevision(revision) ? await editsAt(em, pantry, revision) : [];
  return pieces.length ? pieces : null;
}
