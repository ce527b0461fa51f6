#!/usr/bin/env node
/** npm run db:test: a database server for tests, until Ctrl+C. Prints the variable to set. */
import { startCluster } from "./lib/postgres.mjs";
import { run } from "./lib/say.mjs";

run(async () => {
  const cluster = await startCluster("postgres-test");
  console.log(`TEST_DATABASE_URL=${cluster.url("postgres")}`);
  const end = () => {
    if (cluster.started) cluster.stop();
    process.exit(0);
  };
  for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, end);
  setInterval(() => undefined, 60_000);
});
