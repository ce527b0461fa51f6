#!/usr/bin/env node
/** npm start: everything from an empty machine to a served pantry; npm run dev: the same with reloading. */
import { spawn } from "node:child_process";
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { createConnection } from "node:net";
import { join } from "node:path";
import { alive, ensureDatabase, startCluster } from "./lib/postgres.mjs";
import { Missing, run, say } from "./lib/say.mjs";
import { checkNode, dataDir, ensureBuild, ensureCli, ensureDependencies, root } from "./lib/setup.mjs";

const dev = process.argv.includes("--dev");
const host = process.env.HOST || "127.0.0.1";
let cluster = null;
let server = null;
let ending = false;
let watch = null;
const own = () => join(dataDir(), "programs", String(process.pid));

for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"]) process.on(signal, () => end(0));

run(async () => {
  checkNode();
  ensureDependencies();
  await ensureCli();
  mkdirSync(join(dataDir(), "programs"), { recursive: true });
  let url = process.env.DATABASE_URL;
  if (!url) {
    cluster = await startCluster();
    url = await ensureDatabase(cluster, "salty_pantry");
    writeFileSync(join(dataDir(), "database.json"), `${JSON.stringify({ url })}\n`, { mode: 0o600 });
    say(cluster.started ? "database started" : "database was running already");
  } else say("using the database that DATABASE_URL names");
  writeFileSync(own(), "");
  await cli(["setup"], url);
  if (!dev) ensureBuild();
  const port = await choosePort();
  serve(url, port);
  await ready(port);
  console.log(
    `\n  Salty Pantry is served at http://${host === "0.0.0.0" ? "localhost" : host}:${port}\n  Ctrl+C ends it.\n`,
  );
  watch = setInterval(() => {
    try {
      if (cluster && !ending && cluster.revive()) say("the database had gone and was started again");
    } catch (error) {
      console.error(error.message);
    }
  }, 1000);
}).catch(() => end(1));

function cli(args, url) {
  return new Promise((done, fail) => {
    const child = spawn(process.execPath, [join(root, "dist/salty.mjs"), ...args], {
      cwd: root,
      stdio: "inherit",
      env: { ...process.env, DATABASE_URL: url },
    });
    child.on("exit", (code) =>
      code === 0 ? done() : fail(new Missing("The database could not be set up; the reason is above.")),
    );
  });
}

const taken = (port) =>
  new Promise((done) => {
    const socket = createConnection({ port, host: host === "0.0.0.0" ? "127.0.0.1" : host }, () => {
      socket.destroy();
      done(true);
    });
    socket.on("error", () => done(false));
  });

/**
 * PORT as asked for, or the first free one from 3000 on. A server that a killed program left behind ends by itself in a
 * second.
 */
async function choosePort() {
  const wanted = Number(process.env.PORT || 3000);
  for (let tries = 0; tries < 12; tries++) {
    if (!(await taken(wanted))) return wanted;
    if (tries >= 3 && !process.env.PORT) break;
    await new Promise((r) => setTimeout(r, 250));
  }
  if (process.env.PORT)
    throw new Missing(
      `Port ${wanted} is in use by another program. End that one, or choose another: PORT=3100 npm start`,
    );
  for (let port = wanted + 1; port < wanted + 50; port++)
    if (!(await taken(port))) {
      say(`port ${wanted} is in use, taking ${port}`);
      return port;
    }
  throw new Missing(`Ports ${wanted} to ${wanted + 49} are all in use. Choose one: PORT=… npm start`);
}

function serve(url, port) {
  const args = dev
    ? [join(root, "node_modules/next/dist/bin/next"), "dev", "-p", String(port), "-H", host]
    : [join(root, "scripts/serve.mjs")];
  const env = {
    ...process.env,
    PORT: String(port),
    HOST: host,
    DATABASE_URL: url,
    SALTY_PARENT: String(process.pid),
    NEXT_TELEMETRY_DISABLED: "1",
    NODE_ENV: dev ? "development" : "production",
  };
  server = spawn(process.execPath, args, { cwd: root, stdio: ["ignore", dev ? "inherit" : "ignore", "inherit"], env });
  server.on("exit", (code, signal) => {
    if (ending) return;
    say(`the server ended unexpectedly (${signal ?? code}); starting it again`);
    setTimeout(() => !ending && serve(url, port), 500);
  });
}

async function ready(port) {
  const until = Date.now() + 90_000;
  while (Date.now() < until && !ending) {
    const ok = await fetch(`http://${host === "0.0.0.0" ? "127.0.0.1" : host}:${port}/api/health`).then(
      (r) => r.ok,
      () => false,
    );
    if (ok) return;
    await new Promise((r) => setTimeout(r, 100));
  }
  if (!ending) throw new Missing("The server did not become ready within 90 s.");
}

/** Ends what was started, the server first. The database stays up while another program of this folder uses it. */
async function end(code) {
  if (ending) return;
  ending = true;
  if (watch) clearInterval(watch);
  const child = server;
  if (child && child.exitCode === null && child.signalCode === null) {
    await new Promise((done) => {
      const force = setTimeout(() => child.kill("SIGKILL"), 900);
      child.once("exit", () => {
        clearTimeout(force);
        done();
      });
      child.kill("SIGTERM");
    });
  }
  rmSync(own(), { force: true });
  if (cluster && !others()) cluster.stop();
  process.exit(code);
}

function others() {
  const dir = join(dataDir(), "programs");
  if (!existsSync(dir)) return false;
  return readdirSync(dir).some((name) => {
    const running = alive(Number(name)) && isNode(Number(name));
    if (!running) rmSync(join(dir, name), { force: true });
    return running;
  });
}

function isNode(pid) {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, "utf8").includes("start.mjs");
  } catch {
    return true;
  }
}
