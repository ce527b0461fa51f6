#!/usr/bin/env node
/** npm test: checks, unit and database tests, then the journeys in a real browser on the production build. */
import { existsSync, mkdirSync, readFileSync, rmSync } from "node:fs";
import { join } from "node:path";
import { ensureChromium } from "./lib/browser.mjs";
import { endGroup, startGroup } from "./lib/group.mjs";
import { startCluster } from "./lib/postgres.mjs";
import { run, say } from "./lib/say.mjs";
import { checkNode, ensureBuild, ensureCli, ensureDependencies, root } from "./lib/setup.mjs";

const results = join(root, "test-results");
const totals = { passed: 0, failed: 0, skipped: 0 };
/** What runs now, as a process group of its own: the runner and all that its tests start. */
let running = null;
/** Whether someone broke the tests off: then nothing more is started. */
let interrupted = false;

run(async () => {
  checkNode();
  ensureDependencies();
  const { checkAll } = await import("./check.mjs");
  checkAll();
  const chromium = ensureChromium();
  await ensureCli();
  let cluster = null;
  let url = process.env.DATABASE_URL;
  if (!url) {
    cluster = await startCluster("postgres-test");
    url = cluster.url("postgres");
    say("test database started");
  }
  const stop = () => cluster?.started && cluster.stop();
  for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"])
    process.on(signal, () => {
      if (interrupted) return;
      interrupted = true;
      say(`interrupted by ${signal}: ending what was started`);
      endGroup(running?.pid).then(() => {
        stop();
        process.exit(1);
      });
    });
  try {
    rmSync(results, { recursive: true, force: true });
    mkdirSync(results, { recursive: true });
    const env = { ...process.env, TEST_DATABASE_URL: url, CHROMIUM: chromium, DATABASE_URL: "", FORCE_COLOR: "0" };
    say("unit and database tests");
    await vitest("unit.json", ["core", "components", "store", "fuzz"], env);
    ensureBuild();
    say("what the production build answers");
    await vitest("served.json", ["served"], env);
    say("journeys in the browser");
    for (const project of ["journeys", "survival"]) {
      const report = `${project}.json`;
      await runner("playwright", ["test", "--project", project], { ...env, E2E_REPORT: join(results, report) });
      count(report, ({ stats }) => ({
        passed: stats.expected,
        failed: stats.unexpected + stats.flaky,
        skipped: stats.skipped,
      }));
    }
  } finally {
    stop();
  }
  console.log(`${totals.passed} passed, ${totals.failed} failed${totals.skipped ? `, ${totals.skipped} skipped` : ""}`);
  process.exit(totals.failed || !totals.passed ? 1 : 0);
});

/** Tests of some projects, counted. */
async function vitest(report, projects, env) {
  const args = ["run", "--reporter=default", "--reporter=json", `--outputFile.json=${join(results, report)}`];
  await runner("vitest", [...args, ...projects.flatMap((name) => ["--project", name])], env);
  count(report, (r) => ({
    passed: r.numPassedTests,
    failed:
      r.numFailedTests +
      (r.testResults ?? []).filter((f) => f.status === "failed" && !f.assertionResults.length).length,
    skipped: r.numPendingTests + r.numTodoTests,
  }));
}

/** A runner that dies without its report counts as one failure. */
async function runner(name, args, env) {
  running = startGroup(join(root, "node_modules/.bin", name), args, {
    cwd: root,
    stdio: ["ignore", "inherit", "inherit"],
    env,
  });
  const status = await running.ended;
  running = null;
  if (status !== 0) say(`${name} ended with ${status}`);
  runner.status = status;
  // Nothing more is started while everything ends.
  if (interrupted) await new Promise(() => {});
}

function count(file, read) {
  const path = join(results, file);
  if (!existsSync(path)) {
    totals.failed++;
    return;
  }
  const { passed, failed, skipped } = read(JSON.parse(readFileSync(path, "utf8")));
  totals.passed += passed;
  totals.failed += failed || (runner.status !== 0 ? 1 : 0);
  totals.skipped += skipped;
}
