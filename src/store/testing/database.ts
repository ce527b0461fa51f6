/** A database of its own for each test file, on the server that TEST_DATABASE_URL names (npm test starts one). */
import { randomBytes } from "node:crypto";
import { Client } from "pg";

export async function freshDatabase(): Promise<{ url: string; drop: () => Promise<void> }> {
  const server = process.env.TEST_DATABASE_URL;
  if (!server) throw new Error("TEST_DATABASE_URL is not set. Run the tests with npm test, or npm run db:test to start a server for them.");
  const name = `salty_test_${randomBytes(5).toString("hex")}`;
  const run = async (sql: string) => {
    const client = new Client({ connectionString: server });
    await client.connect();
    try {
      await client.query(sql);
    } finally {
      await client.end();
    }
  };
  await run(`create database ${name}`);
  const url = new URL(server);
  url.pathname = `/${name}`;
  return { url: url.href, drop: () => run(`drop database if exists ${name} with (force)`) };
}
