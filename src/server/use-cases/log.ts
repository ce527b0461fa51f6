/** Reading the log. */
import type { EntityManager } from "@mikro-orm/postgresql";
import type { LoggedChange } from "../../core/history/log";
import { type Id, isId } from "../../core/schema/id";
import { changeAt, changesBefore, changesOf, editsAt, type LoggedText } from "../../store/load";

const NEWEST = 2 ** 31 - 1;
const isRevision = (revision: number): boolean => Number.isInteger(revision) && revision > 0 && revision < NEWEST;

export interface LogQuery {
  /** The history of one record. */
  readonly of?: string;
  /** Only changes below this revision. */
  readonly before?: number;
  readonly most?: number;
}

/** Changes, newest first; see LogQuery. */
export async function changes(
  em: EntityManager,
  pantry: Id,
  { of, before, most }: LogQuery,
): Promise<readonly LoggedChange[]> {
  const limit = Math.min(200, Math.max(1, Math.floor(most ?? 50) || 50));
  if (of !== undefined) return isId(of) ? changesOf(em, pantry, of, limit) : [];
  return changesBefore(em, pantry, Math.min(NEWEST, Math.max(0, Math.floor(before ?? NEWEST) || NEWEST)), limit);
}

/** One change with its edits, of a large one the first thousand; null where there is none. */
export const changeOf = async (em: EntityManager, pantry: Id, revision: number): Promise<LoggedText | null> =>
  isRevision(revision) ? changeAt(em, pantry, revision) : null;

/** All edits of a change, in pieces; null where there is none. */
export async function allEditsOf(em: EntityManager, pantry: Id, revision: number): Promise<readonly string[] | null> {
  const pieces = isRevision(revision) ? await editsAt(em, pantry, revision) : [];
  return pieces.length ? pieces : null;
}
