#!/usr/bin/env node
/** npm run check: types, format, lint, wording and the import rules. */
import { spawnSync } from "node:child_process";
import { join } from "node:path";
import { Missing, run, say } from "./lib/say.mjs";
import { checkNode, command, ensureDependencies, root } from "./lib/setup.mjs";
import { badPhrases } from "./lib/wording.mjs";

const bin = (name) => join(root, "node_modules/.bin", name);

export function checkAll() {
  const steps = [
    ["types", [bin("tsc"), "--noEmit", "-p", "."]],
    ["format", [bin("biome"), "format", "."]],
    ["lint", [bin("biome"), "lint", "--error-on-warnings", "."]],
  ];
  for (const [name, [file, ...args]] of steps) {
    say(name);
    if (command(file, args) !== 0) throw new Missing(`The ${name} check failed; its own message is above.`);
  }
  say("wording");
  const phrases = badPhrases();
  for (const { place, text, better } of phrases) console.error(`  ${place}: “${text}” Better: ${better}.`);
  if (phrases.length)
    throw new Missing(`${phrases.length} texts use phrases that nobody says (scripts/lib/phrases.mjs).`);
  say("import rules");
  const { stdout, status } = spawnSync(bin("depcruise"), ["src", "--output-type", "json"], {
    cwd: root,
    encoding: "utf8",
    maxBuffer: 1 << 28,
  });
  const { summary } = JSON.parse(stdout);
  // A cruiser that can't read TypeScript finds nothing and says so with exit code 0.
  if (summary.totalCruised < 100)
    throw new Missing(`The import check read only ${summary.totalCruised} modules: it did not read the code.`);
  for (const v of summary.violations) console.error(`  ${v.rule.name}: ${v.from} → ${v.to}`);
  if (status !== 0 || summary.violations.length)
    throw new Missing(`${summary.violations.length} imports go the wrong way (docs/architecture.md).`);
  say(`${summary.totalCruised} modules, every import goes down`);
}

if (process.argv[1]?.endsWith("check.mjs"))
  run(async () => {
    checkNode();
    ensureDependencies();
    checkAll();
  });
