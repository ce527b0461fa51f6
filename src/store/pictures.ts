/** Pictures of a pantry, by the hash of their bytes: the same one is kept once. */
import { type EntityManager, raw } from "@mikro-orm/postgresql";
import { PICTURE_TYPES, type PictureType } from "../core/pictures/picture";
import type { Id } from "../core/schema/id";
import { PictureRow } from "./entities";
import { locked } from "./lock";
import type { Orm } from "./orm";

/** Most pictures of one pantry. */
export const MOST_PICTURES = 5000;
/** And of their bytes: a bundle with all of them is still a text that can be read. */
const MOST_BYTES = 192 * 2 ** 20;

export interface StoredPicture {
  /** The name that an icon says. */
  readonly name: string;
  readonly type: PictureType;
  readonly bytes: Uint8Array;
}

/** Thrown where a pantry has as many pictures as it may have. */
export class PicturesFull extends Error {
  /** By which it is known wherever it comes from; see server/failures.ts. */
  readonly failure = "pictures full";
}

const hashOf = (name: string): string => name.replace(/^own-/, "");

/**
 * Keeps pictures, within the manager's transaction, which holds the lock on the pantry. One that is there stays as it is.
 * @throws PicturesFull
 */
export async function keepPictures(em: EntityManager, pantry: Id, pictures: readonly StoredPicture[]): Promise<void> {
  const missing = new Set(
    await missingPictures(
      em,
      pantry,
      pictures.map((p) => p.name),
    ),
  );
  const fresh = pictures.filter((p) => missing.delete(p.name));
  if (!fresh.length) return;
  const [held] = await em
    .createQueryBuilder(PictureRow)
    .select([raw("count(*)::int as number"), raw("coalesce(sum(octet_length(bytes)), 0)::float8 as bytes")])
    .where({ pantry })
    .execute<{ number: number; bytes: number }[]>("all");
  const bytes = fresh.reduce((sum, p) => sum + p.bytes.length, held.bytes);
  if (held.number + fresh.length > MOST_PICTURES)
    throw new PicturesFull(`A pantry can have at most ${MOST_PICTURES} pictures of its own.`);
  if (bytes > MOST_BYTES)
    throw new PicturesFull(`The pictures of a pantry can use at most ${MOST_BYTES / 2 ** 20} MB.`);
  await em.insertMany(
    PictureRow,
    fresh.map((p) => ({ pantry, hash: hashOf(p.name), type: p.type, bytes: Buffer.from(p.bytes) })),
  );
}

/** Keeps one by itself. @returns why not, or null. A pantry that is gone has no pictures */
export const putPicture = (orm: Orm, pantry: Id, picture: StoredPicture): Promise<string | null> =>
  orm.em
    .fork()
    .transactional(async (tx) => {
      const em = tx as EntityManager;
      if (!(await locked(em, pantry))) return "The pantry was deleted.";
      await keepPictures(em, pantry, [picture]);
      return null;
    })
    .catch((error: unknown) => {
      if (error instanceof PicturesFull) return error.message;
      throw error;
    });

export async function pictureOf(em: EntityManager, pantry: Id, name: string): Promise<StoredPicture | null> {
  const row = await em.findOne(PictureRow, { pantry, hash: hashOf(name) }, { disableIdentityMap: true });
  const type = PICTURE_TYPES.find((t) => t === row?.type);
  return row && type ? { name, type, bytes: row.bytes } : null;
}

/** Names asked about, or pictures read, at once. */
const TOGETHER = 1000;
const READ_TOGETHER = 16;

/** Those of some names that no picture of the pantry has. */
export async function missingPictures(em: EntityManager, pantry: Id, names: readonly string[]): Promise<string[]> {
  const missing: string[] = [];
  for (let at = 0; at < names.length; at += TOGETHER) {
    const some = names.slice(at, at + TOGETHER);
    const rows = await em.find(
      PictureRow,
      { pantry, hash: { $in: some.map(hashOf) } },
      { fields: ["hash"], disableIdentityMap: true },
    );
    const there = new Set(rows.map((row) => row.hash));
    missing.push(...some.filter((name) => !there.has(hashOf(name))));
  }
  return missing;
}

/** Pictures by their names, a few at a time, as they stand in a bundle; those that are not there are left out. */
export async function* picturesOf(
  em: EntityManager,
  pantry: Id,
  names: readonly string[],
): AsyncGenerator<{ readonly name: string; readonly base64: string }> {
  for (let at = 0; at < names.length; at += READ_TOGETHER) {
    const hash = { $in: names.slice(at, at + READ_TOGETHER).map(hashOf) };
    const rows = await em.find(PictureRow, { pantry, hash }, { orderBy: { hash: "asc" }, disableIdentityMap: true });
    for (const row of rows) yield { name: `own-${row.hash}`, base64: Buffer.from(row.bytes).toString("base64") };
  }
}
