/** Pictures of a pantry, by the hash of their bytes: the same one is kept once. */
import type { EntityManager } from "@mikro-orm/postgresql";
import { PICTURE_TYPES, type PictureType } from "../core/pictures/picture";
import type { Id } from "../core/schema/id";
import { PantryRow, PictureRow } from "./entities";

/** Most pictures of one pantry. */
export const MOST_PICTURES = 5000;

/** @returns false where the pantry has as many as it may have, or is gone */
export async function putPicture(
  em: EntityManager,
  pantry: Id,
  hash: string,
  type: PictureType,
  bytes: Uint8Array,
): Promise<boolean> {
  if (await em.count(PictureRow, { pantry, hash })) return true;
  if ((await em.count(PictureRow, { pantry })) >= MOST_PICTURES || !(await em.count(PantryRow, { id: pantry })))
    return false;
  // Somebody may bring the same one at the same moment.
  await em
    .createQueryBuilder(PictureRow)
    .insert({ pantry, hash, type, bytes: Buffer.from(bytes) })
    .onConflict(["pantry", "hash"])
    .ignore();
  return true;
}

export async function pictureOf(
  em: EntityManager,
  pantry: Id,
  hash: string,
): Promise<{ readonly type: PictureType; readonly bytes: Uint8Array } | null> {
  const row = await em.findOne(PictureRow, { pantry, hash }, { disableIdentityMap: true });
  const type = PICTURE_TYPES.find((t) => t === row?.type);
  return row && type ? { type, bytes: row.bytes } : null;
}
