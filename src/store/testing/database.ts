/** A database of its own for each test file, on the server that TEST_DATABASE_URL names (npm test starts one). */
import { randomBytes } from "node:crypto";
import { Client } from "pg";

/** Like the program's: it owns its databases and nothing else. */
const ROLE = "salty_tester";

export async function freshDatabase(
  name = `salty_test_${randomBytes(5).toString("hex")}`,
): Promise<{ url: string; admin: string; drop: () => Promise<void> }> {
  const server = process.env.TEST_DATABASE_URL;
  if (!server)
    throw new Error(
      "TEST_DATABASE_URL is not set. Run the tests with npm test, or npm run db:test to start a server for them.",
    );
  if (!/^[a-z0-9_]+$/.test(name)) throw new Error(`“${name}” is no name for a test's database.`);
  const run = async <T>(work: (client: Client) => Promise<T>) => {
    const client = new Client({ connectionString: server });
    await client.connect();
    try {
      return await work(client);
    } finally {
      await client.end();
    }
  };
  const drop = () => run((admin) => admin.query(`drop database if exists ${name} with (force)`)).then(() => undefined);
  await drop();
  const mayMakeRoles = await run(async (admin) => {
    const { rows } = await admin.query<{ super: boolean }>(
      "select rolsuper as super from pg_roles where rolname = current_user",
    );
    if (!rows[0]?.super) return false;
    await admin.query(
      `do $$ begin create role ${ROLE} login password '${ROLE}'; exception when duplicate_object or unique_violation then null; end $$`,
    );
    return true;
  });
  await run((admin) => admin.query(`create database ${name}${mayMakeRoles ? ` owner ${ROLE}` : ""}`));
  const url = new URL(server);
  url.pathname = `/${name}`;
  const admin = url.href;
  if (mayMakeRoles) [url.username, url.password] = [ROLE, ROLE];
  return { url: url.href, admin, drop };
}
