/** Reading the log. */
import type { EntityManager } from "@mikro-orm/postgresql";
import type { LoggedChange } from "../../core/history/log";
import type { Id } from "../../core/schema/id";
import { changeAt, changesAfter, changesBefore, changesOf, editsAt, sizesAfter } from "../../store/load";
import { EDITS_IN_PART } from "../../store/prepare";
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

/** Edits that may lie between two revisions that are compared. */
export const MOST_SINCE = 20_000;

/** All edits after a revision by change, oldest first, in pieces of JSON. */
export async function editsSince(
  em: EntityManager,
  pantry: Id,
  revision: number,
): Promise<readonly { readonly revision: number; readonly edits: readonly string[] }[] | "too many"> {
  const sizes = await sizesAfter(em, pantry, revision, MOST_SINCE + 1);
  if (sizes.reduce((sum, { size }) => sum + size, 0) > MOST_SINCE) return "too many";
  const found: { revision: number; edits: readonly string[] }[] = [];
  for (const change of await changesAfter(em, pantry, revision)) {
    const inParts = change.size > EDITS_IN_PART;
    found.push({
      revision: change.revision,
      edits: inParts ? await editsAt(em, pantry, change.revision) : [change.edits],
    });
  }
  return found;
}

/**
 * Edits of the last changes, oldest first: as many changes as are asked for, and fewer where they hold more edits than
 * are gone back over.
 */
export async function lastEdits(em: EntityManager, pantry: Id, most: number) {
  const last = await changesBefore(em, pantry, NEWEST, most);
  let edits = 0;
  let from = last.length ? last[0].revision : 0;
  for (const { revision, size } of last) {
    edits += size;
    if (edits > MOST_SINCE) break;
    from = revision - 1;
  }
  const found = await editsSince(em, pantry, from);
  return found === "too many" ? [] : found;
}
