/** Dependencies and builds: done when missing or stale, skipped otherwise. Uses nothing but Node. */
import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { dirname, join, resolve } from "node:path";
import { fileURLToPath } from "node:url";
import { Missing, say } from "./say.mjs";

export const root = resolve(dirname(fileURLToPath(import.meta.url)), "../..");
export const dataDir = () => (process.env.SALTY_DATA ? resolve(process.env.SALTY_DATA) : join(root, ".data"));

export function checkNode() {
  const [major, minor] = process.versions.node.split(".").map(Number);
  if (major < 20 || (major === 20 && minor < 19))
    throw new Missing(`Node ${process.versions.node} is too old: 20.19 or newer is needed.`);
}

function* files(path) {
  if (!existsSync(path)) return;
  if (statSync(path).isFile()) yield path;
  else
    for (const name of readdirSync(path).sort())
      if (!name.startsWith("_") && !/\.test\.tsx?$/.test(name)) yield* files(join(path, name));
}

/** One hash over the contents of files and folders. */
export function hashOf(...paths) {
  const hash = createHash("sha256");
  for (const path of paths)
    for (const file of files(join(root, path))) hash.update(file.slice(root.length)).update(readFileSync(file));
  return hash.digest("hex");
}

const fresh = (stamp, hash) => existsSync(stamp) && readFileSync(stamp, "utf8") === hash;
const mark = (stamp, hash) => {
  mkdirSync(dirname(stamp), { recursive: true });
  writeFileSync(stamp, hash);
};

export function command(file, args, options = {}) {
  const { status, error } = spawnSync(file, args, { cwd: root, stdio: "inherit", ...options });
  if (error) throw error;
  return status ?? 1;
}

export function ensureDependencies() {
  const stamp = join(root, "node_modules/.salty-installed");
  const hash = hashOf("package-lock.json");
  if (fresh(stamp, hash)) return;
  say("installing dependencies (npm ci)");
  const npm = process.env.npm_execpath;
  const status = npm
    ? command(process.execPath, [npm, "ci", "--no-audit", "--no-fund"])
    : command("npm", ["ci", "--no-audit", "--no-fund"]);
  if (status !== 0) throw new Missing("npm ci failed. It needs the npm registry; its own message is above.");
  mark(stamp, hash);
}

/** The command line, dist/salty.mjs, and the engine's thread, dist/engine.mjs. */
export async function ensureCli() {
  const stamp = join(root, "dist/.salty-built");
  const hash = hashOf(
    "src/core",
    "src/store",
    "src/cli",
    "src/server",
    "src/demo",
    "scripts/lib/setup.mjs",
    "package-lock.json",
  );
  if (fresh(stamp, hash) && existsSync(join(root, "dist/salty.mjs")) && existsSync(join(root, "dist/engine.mjs")))
    return;
  const { build } = await import("esbuild");
  await build({
    absWorkingDir: root,
    entryPoints: { salty: "src/cli/salty.ts", engine: "src/server/engine-main.ts" },
    bundle: true,
    platform: "node",
    format: "esm",
    target: "node20",
    packages: "external",
    splitting: true,
    outdir: "dist",
    outExtension: { ".js": ".mjs" },
    logLevel: "warning",
  });
  mark(stamp, hash);
}

/** Whether some program builds here at this moment. */
const building = () => existsSync(join(root, ".next/lock"));

/** The production build of the application. */
export function ensureBuild() {
  const stamp = join(root, ".next/.salty-built");
  const hash = hashOf("src", "next.config.ts", "postcss.config.mjs", "tsconfig.json", "package-lock.json");
  if (fresh(stamp, hash)) return;
  say("building the application (next build, about a minute)");
  const build = () =>
    command(process.execPath, [join(root, "node_modules/next/dist/bin/next"), "build"], {
      env: { ...process.env, NEXT_TELEMETRY_DISABLED: "1", NODE_ENV: "production" },
    });
  let status = build();
  // Another program may be building the same: it is waited for.
  for (let tries = 0; status !== 0 && tries < 30 && building(); tries++) {
    Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 4000);
    if (fresh(stamp, hash)) return;
    if (!building()) status = build();
  }
  if (status !== 0) throw new Missing("The build failed; its own message is above.");
  mark(stamp, hash);
}
