/** A database that an older version made is migrated without loss. */
import { readFileSync } from "node:fs";
import { Client } from "pg";
import { afterAll, beforeAll, expect, it } from "vitest";
import { apply } from "../core/catalogue/apply";
import type { Catalogue } from "../core/catalogue/catalogue";
import { invert, type Edit } from "../core/catalogue/edit";
import { exportBundle } from "../core/exchange/bundle";
import { changesAfter, loadCatalogue, pantryByKey } from "./load";
import { connect, migrate, type Orm } from "./orm";
import { freshDatabase } from "./testing/database";

const at = (name: string) => readFileSync(`src/store/testing/tables-of-0003.${name}`, "utf8");
let database: Awaited<ReturnType<typeof freshDatabase>>;
let orm: Orm;

beforeAll(async () => {
  database = await freshDatabase();
  const client = new Client({ connectionString: database.url });
  await client.connect();
  await client.query(at("sql"));
  await client.end();
  orm = await connect(database.url);
});
afterAll(async () => {
  await orm?.close(true);
  await database?.drop();
});

it("a pantry in the tables of 0003 says the same to the byte, and its log can be taken back", async () => {
  expect(await migrate(orm)).toBeGreaterThan(0);
  expect((await orm.schema.getUpdateSchemaSQL({ wrap: false })).trim()).toBe("");
  const head = await pantryByKey(orm.em.fork(), "small_reach");
  if (!head) throw new Error("The pantry is gone.");
  const catalogue = (await loadCatalogue(orm.em.fork(), head.id)) as Catalogue;
  expect(catalogue.revision).toBe(2);
  // Kinds that came later have their empty lists beside it.
  expect(
    exportBundle(catalogue)
      .replace(/^ "\w+": \[\],\n/gm, "")
      .replace(/,\n "\w+": \[\](?=\n\})/g, ""),
  ).toBe(at("json"));
  const log = await changesAfter(orm.em.fork(), head.id, 0);
  expect(log.map((c) => [c.revision, c.size])).toEqual([
    [1, 24],
    [2, 2],
  ]);
  let back = catalogue;
  for (const change of [...log].reverse()) {
    const outcome = apply(back, invert(JSON.parse(change.edits) as Edit[]));
    if (!outcome.ok) throw new Error(JSON.stringify([outcome.issues, outcome.conflicts]));
    back = outcome.catalogue;
  }
  expect(Object.values(back.records).every((records) => records.size === 0)).toBe(true);
  expect(back.pantry.priceFloor).toBe(1);
});
