#!/usr/bin/env node
/** npm run bench: bundles bench/bench.ts and runs it. SIZES=1000,10000,100000 chooses the pantries. */
import { join } from "node:path";
import { run } from "./lib/say.mjs";
import { checkNode, command, ensureDependencies, root } from "./lib/setup.mjs";

run(async () => {
  checkNode();
  ensureDependencies();
  const { build } = await import("esbuild");
  const outfile = join(root, "dist/bench.mjs");
  await build({
    absWorkingDir: root,
    entryPoints: ["bench/bench.ts"],
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
