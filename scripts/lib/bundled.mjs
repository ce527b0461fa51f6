/** One of our TypeScript files as a file that Node runs. */
import { join } from "node:path";
import { root } from "./setup.mjs";

/** @returns {Promise<string>} where it stands */
export async function bundled(entry, to) {
  const { build } = await import("esbuild");
  const outfile = join(root, to);
  await build({
    absWorkingDir: root,
    entryPoints: [entry],
    bundle: true,
    platform: "node",
    format: "esm",
    target: "node20",
    packages: "external",
    outfile,
    logLevel: "warning",
  });
  return outfile;
}
