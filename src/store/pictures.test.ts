import type { EntityManager } from "@mikro-orm/postgresql";
import { afterAll, beforeAll, expect, it } from "vitest";
import { type Id, newId } from "../core/schema/id";
import { pantry as testPantry } from "../core/testing/kitchen";
import { commit, createPantry } from "./commit";
import { connect, migrate, type Orm } from "./orm";
import { pictureName } from "./picture-name";
import { keepPictures, missingPictures, MOST_PICTURES, pictureOf, picturesOf, putPicture } from "./pictures";
import { freshDatabase } from "./testing/database";

let orm: Orm;
let database: Awaited<ReturnType<typeof freshDatabase>>;
const em = () => orm.em.fork() as EntityManager;

beforeAll(async () => {
  database = await freshDatabase();
  orm = await connect(database.url);
  await migrate(orm);
});
afterAll(async () => {
  await orm.close(true);
  await database.drop();
});

const made = async (): Promise<Id> => {
  const pantry = { ...testPantry(), id: newId(), key: `p_${newId()}` };
  await createPantry(em(), pantry);
  return pantry.id;
};
const picture = (n: number) => {
  const bytes = Buffer.from(`picture ${n}`);
  return { name: pictureName(bytes), type: "image/png" as const, bytes };
};
const keep = (pantry: Id, from: number, to: number) =>
  em().transactional((tx) =>
    keepPictures(
      tx as EntityManager,
      pantry,
      Array.from({ length: to - from }, (_, k) => picture(from + k)),
    ),
  );

it("keeps the same picture once, whoever brings it at the same moment, and each for its own pantry", async () => {
  const [mine, other] = [await made(), await made()];
  const said = await Promise.all(Array.from({ length: 8 }, () => putPicture(orm, mine, picture(1))));
  expect(said).toEqual(Array(8).fill(null));
  await keep(mine, 0, 3);
  const names = [0, 1, 2, 3].map((n) => picture(n).name);
  expect(await missingPictures(em(), mine, names)).toEqual([names[3]]);
  expect(await missingPictures(em(), other, names)).toEqual(names);
  expect(Buffer.from((await pictureOf(em(), mine, names[1]))?.bytes ?? []).toString()).toBe("picture 1");
  expect(await pictureOf(em(), other, names[1])).toBeNull();
  const out: { name: string; base64: string }[] = [];
  for await (const each of picturesOf(em(), mine, names)) out.push(each);
  expect(out.map((p) => [p.name, Buffer.from(p.base64, "base64").toString()]).sort()).toEqual(
    [0, 1, 2].map((n) => [names[n], `picture ${n}`]).sort(),
  );
});

it("has so many and no more, also where several come at once, and says so", async () => {
  const pantry = await made();
  for (let at = 0; at < MOST_PICTURES - 2; at += 1000) await keep(pantry, at, Math.min(at + 1000, MOST_PICTURES - 2));
  const said = await Promise.all([1, 2, 3, 4].map((n) => putPicture(orm, pantry, picture(MOST_PICTURES + n))));
  expect(said.filter((s) => s === null)).toHaveLength(2);
  expect(said.find(Boolean)).toContain(`${MOST_PICTURES} pictures`);
  expect(await putPicture(orm, pantry, picture(0))).toBeNull();
  const refused = await commit(orm, pantry, { author: "Ida", note: "" }, async () => {
    const read = {
      ...picture(MOST_PICTURES + 9),
      base64: Buffer.from("more").toString("base64"),
      place: "pictures[0]",
    };
    return {
      answers: [{ ok: true, size: 0, edits: "[]", touched: "[]" }],
      writes: [{ do: "pictures", pictures: [read] }],
    };
  });
  expect(refused).toMatchObject({ ok: false, issues: [{ path: "pictures" }] });
  expect(await putPicture(orm, newId(), picture(1))).toContain("was deleted");
});
