/** The connection to PostgreSQL, one per process. */
import { Migrator } from "@mikro-orm/migrations";
import { MikroORM } from "@mikro-orm/postgresql";
import { BoundDriver } from "./bound";
import { ENTITIES } from "./entities";
import { MIGRATIONS } from "./migrations";

export type Orm = MikroORM;

/** @throws Error when the database can't be reached, with what to do about it */
export async function connect(url: string): Promise<Orm> {
  try {
    return await MikroORM.init({
      driver: BoundDriver as never,
      entities: ENTITIES as never,
      clientUrl: url,
      pool: { min: 0, max: 16 },
      forceUtcTimezone: true,
      extensions: [Migrator],
      migrations: {
        migrationsList: MIGRATIONS,
        tableName: "migration",
        transactional: true,
        snapshot: false,
        silent: true,
      },
      discovery: { warnWhenNoEntities: false },
      debug: false,
    });
  } catch (error) {
    throw new Error(
      `The database isn't responding at ${hideSecret(url)}: ${(error as Error).message}. Is it running? "npm start" starts one; DATABASE_URL points at another.`,
    );
  }
}

export const migrate = async (orm: Orm): Promise<number> => (await orm.getMigrator().up()).length;

const hideSecret = (url: string): string => url.replace(/\/\/([^:@/]+)(:[^@]*)?@/, "//$1@");
