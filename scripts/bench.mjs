#!/usr/bin/env node
/**
 * npm run bench: the engine. SIZES=1000,10000,100000 chooses the pantries; -- --write writes docs/performance.md.
 * npm run bench -- load: how the production build carries people who write at once.
 * npm run bench -- import: imports beside COPY, against a database server of its own. ITEMS=100000 chooses the size.
 * npm run bench -- trials: trying things out, beside plain loops and plain JavaScript.
 * npm run bench -- chains: the chain of one item of 10,000, and drawing 300 things.
 * npm run bench -- ways: a pantry with variants, patterns, heat, tags, vessels and all, beside a plain one.
 * npm run bench -- window: what a window does per key and edit, in Chromium. SIZES as above.
 */
import { mkdirSync } from "node:fs";
import { join } from "node:path";
import { ensureChromium } from "./lib/browser.mjs";
import { bundled } from "./lib/bundled.mjs";
import { ensureDatabase, startCluster } from "./lib/postgres.mjs";
import { Missing, run } from "./lib/say.mjs";
import { checkNode, command, ensureBuild, ensureCli, ensureDependencies, root } from "./lib/setup.mjs";

const BENCHES = {
  engine: { entry: "bench/bench.ts" },
  load: { entry: "bench/load.ts", program: true },
  import: { entry: "bench/import.ts", commands: true },
  trials: { entry: "bench/trials.ts" },
  ways: { entry: "bench/ways.ts" },
  chains: { entry: "bench/chains.ts" },
  window: { entry: "bench/window.ts", program: true, browser: true },
};

run(async () => {
  checkNode();
  ensureDependencies();
  const words = process.argv.slice(2);
  const write = words.includes("--write");
  const name = words.find((word) => word !== "--write") ?? "engine";
  const bench = Object.hasOwn(BENCHES, name) ? BENCHES[name] : null;
  if (!bench) throw new Missing(`There is no bench “${name}”. There are: ${Object.keys(BENCHES).join(", ")}.`);
  if (bench.program || bench.commands) await ensureCli();
  if (bench.program) ensureBuild();
  if (bench.browser) process.env.CHROMIUM = ensureChromium();
  const outfile = await bundled(bench.entry, `dist/bench-${name}.mjs`);
  if (!bench.commands)
    process.exit(command(process.execPath, [outfile], { env: { ...process.env, WRITE: write ? "1" : "" } }));
  mkdirSync(join(root, ".data"), { recursive: true });
  const cluster = await startCluster("postgres-bench");
  const database = `bench_${process.pid}`;
  try {
    const url = await ensureDatabase(cluster, database);
    process.exitCode = command(process.execPath, [outfile], { env: { ...process.env, DATABASE_URL: url } });
  } finally {
    cluster.stop();
  }
});
