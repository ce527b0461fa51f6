/** The database the commands speak to. */
import { existsSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { listPantries, type PantryHead } from "../store/load";
import { connect, migrate, type Orm } from "../store/orm";
import { Unreadable } from "./failure";

/** DATABASE_URL, or the database that npm start runs in this folder. */
function databaseUrl(): string {
  if (process.env.DATABASE_URL) return process.env.DATABASE_URL;
  const file = join(process.env.SALTY_DATA ?? join(process.cwd(), ".data"), "database.json");
  if (existsSync(file)) return (JSON.parse(readFileSync(file, "utf8")) as { url: string }).url;
  throw new Unreadable("There is no database yet. Run npm start in the project's folder first, or set DATABASE_URL.");
}

export async function withDatabase<T>(work: (orm: Orm, heads: PantryHead[]) => Promise<T>): Promise<T> {
  const orm = await connect(databaseUrl());
  try {
    await migrate(orm).catch((error: Error) => {
      throw new Unreadable(`The database isn't responding: ${error.message}. Is it running? npm start starts it.`);
    });
    return await work(orm, await listPantries(orm.em.fork() as never));
  } finally {
    await orm.close(true);
  }
}
