/** A host of this process with a database of its own, for one test file. */
import { freshDatabase } from "../../store/testing/database";
import { PATIENCE } from "../analysis";
import { type Host, host } from "../host";

/** As patient as on a machine that is busy with other things. */
export const patient = () => Object.assign(PATIENCE, { changers: 120_000, readers: 120_000, openers: 120_000 });

/** The host once it hears what is written, and what ends it with its database. */
export async function freshHost(): Promise<{
  readonly host: Host;
  readonly url: string;
  end(): Promise<void>;
}> {
  const database = await freshDatabase();
  process.env.DATABASE_URL = database.url;
  const one = await host();
  while (!one.ready) await new Promise((done) => setTimeout(done, 20));
  return {
    host: one,
    url: database.url,
    async end() {
      await one.close();
      await database.drop();
    },
  };
}
