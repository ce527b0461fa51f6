#!/usr/bin/env node
/**
 * npm run fuzz: the fuzzers for longer than the tests run them. FUZZ_SECONDS (60) for each, FUZZ_SEED (a new one each
 * time) to begin with.
 */
import { spawnSync } from "node:child_process";
import { join } from "node:path";
import { startCluster } from "./lib/postgres.mjs";
import { run, say } from "./lib/say.mjs";
import { checkNode, ensureCli, ensureDependencies, root } from "./lib/setup.mjs";

run(async () => {
  checkNode();
  ensureDependencies();
  await ensureCli();
  const cluster = process.env.TEST_DATABASE_URL ? null : await startCluster("postgres-test");
  const seed = process.env.FUZZ_SEED || String(1 + Math.floor(Math.random() * 1e9));
  const seconds = process.env.FUZZ_SECONDS || "60";
  say(`${seconds} s for each fuzzer, from seed ${seed}`);
  const env = {
    ...process.env,
    TEST_DATABASE_URL: process.env.TEST_DATABASE_URL || cluster.url("postgres"),
    FUZZ_SEED: seed,
    FUZZ_SECONDS: seconds,
  };
  const { status } = spawnSync(
    join(root, "node_modules/.bin/vitest"),
    ["run", "--project", "fuzz", ...process.argv.slice(2)],
    { cwd: root, stdio: "inherit", env },
  );
  if (cluster?.started) cluster.stop();
  process.exit(status ?? 1);
});
