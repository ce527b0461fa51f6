/** Pictures of a pantry, by the hash of their bytes: the same one is kept once. */
import type { EntityManager } from "@mikro-orm/postgresql";
import { PICTURE_TYPES, type PictureType } from "../core/pictures/picture";
import type { Id } from "../core/schema/id";
import { query } from "./sql";

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
  const [there] = await query(em, 'select 1 as there from "picture" where "pantry_id" = ? and "hash" = ?', [
    pantry,
    hash,
  ]);
  if (there) return true;
  const rows = await query(
    em,
    `insert into "picture" ("pantry_id", "hash", "type", "bytes") select p."id", ?, ?, decode(?, 'base64') from "pantry" p
     where p."id" = ? and (select count(*) from "picture" q where q."pantry_id" = p."id") < ?
     on conflict ("pantry_id", "hash") do nothing returning "hash"`,
    [hash, type, Buffer.from(bytes).toString("base64"), pantry, MOST_PICTURES],
  );
  return rows.length > 0;
}

export async function pictureOf(
  em: EntityManager,
  pantry: Id,
  hash: string,
): Promise<{ readonly type: PictureType; readonly bytes: Uint8Array } | null> {
  const [row] = await query(
    em,
    `select "type", encode("bytes", 'base64') as bytes from "picture" where "pantry_id" = ? and "hash" = ?`,
    [pantry, hash],
  );
  const type = PICTURE_TYPES.find((t) => t === row?.type);
  return type ? { type, bytes: Buffer.from(row.bytes as string, "base64") } : null;
}
