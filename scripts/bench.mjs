#!/usr/bin/env node
/**
 * npm run bench: bundles bench/bench.ts and runs it. SIZES=1000,10000,100000 chooses the pantries.
 * npm run bench -- load: how the server carries people who write at once, against the production build.
 */
import { join } from "node:path";
import { run } from "./lib/say.mjs";
import { checkNode, command, ensureBuild, ensureCli, ensureDependencies, root } from "./lib/setup.mjs";

run(async () => {
  checkNode();
  ensureDependencies();
  const { build } = await import("esbuild");
  const load = process.argv[2] === "load";
  if (load) {
    await ensureCli();
    ensureBuild();
  }
  const outfile = join(root, load ? "dist/load.mjs" : "dist/bench.mjs");
  await build({
    absWorkingDir: root,
    entryPoints: [load ? "bench/load.ts" : "bench/bench.ts"],
    bundle: true,
    platform: "node",
    format: "esm",
    target: "node20",
    packages: "external",
    outfile,
    logLevel: "warning",
  });
  process.exit(command(process.execPath, [outfile]));
});
