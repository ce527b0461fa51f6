import { afterAll, beforeAll } from "vitest";
import { freshDatabase } from "../src/store/testing/database";
import { PATIENCE } from "../src/server/analysis";
import { type Host, host } from "../src/server/host";
import { answersThrough } from "./answers";
import { here } from "./door";

let database: Awaited<ReturnType<typeof freshDatabase>>;
let one: Host;
beforeAll(async () => {
  // As patient as on a machine that is busy with other things.
  Object.assign(PATIENCE, { changers: 120_000, readers: 120_000, openers: 120_000 });
  database = await freshDatabase();
  process.env.DATABASE_URL = database.url;
  one = await host();
});
afterAll(async () => {
  await one.close();
  await database.drop();
});

answersThrough(() => here);
