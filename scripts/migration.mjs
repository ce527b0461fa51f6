#!/usr/bin/env node
/** npm run db:migration NAME: writes the migration from the tables as they are to what the kinds say. */
import { randomBytes } from "node:crypto";
import { existsSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { bundled } from "./lib/bundled.mjs";
import { startCluster } from "./lib/postgres.mjs";
import { Missing, run, say } from "./lib/say.mjs";
import { checkNode, ensureDependencies, root } from "./lib/setup.mjs";

const folder = join(root, "src/store/migrations");

run(async () => {
  checkNode();
  ensureDependencies();
  const name = process.argv[2] ?? "";
  if (!/^[a-z]+(-[a-z0-9]+)*$/.test(name))
    throw new Missing("A migration needs a name in words joined by “-”: npm run db:migration -- conditions");
  const number = String(1 + readdirSync(folder).filter((f) => /^\d{4}-/.test(f)).length).padStart(4, "0");
  const outfile = await bundled("src/store/difference.ts", "dist/difference.mjs");
  const { difference } = await import(pathToFileURL(outfile));
  const cluster = process.env.TEST_DATABASE_URL ? null : await startCluster("postgres-test");
  const server = process.env.TEST_DATABASE_URL || cluster.url("postgres");
  try {
    const { Client } = (await import("pg")).default;
    const admin = new Client({ connectionString: server });
    await admin.connect();
    const scratch = `salty_migration_${randomBytes(4).toString("hex")}`;
    await admin.query(`create database ${scratch}`);
    let found;
    try {
      const url = new URL(server);
      url.pathname = `/${scratch}`;
      found = await difference(url.href);
    } finally {
      await admin.query(`drop database ${scratch} with (force)`);
      await admin.end();
    }
    const { statements, warnings } = found;
    if (!statements.length) {
      say("the tables are what the kinds say: there is nothing to migrate");
      return;
    }
    write(number, name, statements, warnings);
    for (const warning of warnings) say(`look at this: ${warning}`);
  } finally {
    if (cluster?.started) cluster.stop();
  }
});

function write(number, name, statements, warnings) {
  const title = `${number}-${name}`;
  const file = join(folder, `${title}.ts`);
  if (existsSync(file)) throw new Missing(`${file} is there already.`);
  const cls = name.replace(/(^|-)([a-z])/g, (_, __, c) => c.toUpperCase());
  const lines = statements.map((s) => `    this.addSql(\`${s.replace(/[`\\$]/g, "\\$&")}\`);`);
  writeFileSync(
    file,
    `/** ${name.replaceAll("-", " ")}. Written once, never edited. */
import { Migration } from "@mikro-orm/migrations";

export class ${cls} extends Migration {
  override async up(): Promise<void> {
${warnings.map((w) => `    // Look at this by hand; it ${w}\n`).join("")}${lines.join("\n")}
  }
}
`,
  );
  const index = join(folder, "index.ts");
  const text = readFileSync(index, "utf8")
    .replace(/\n\nexport const/, `\nimport { ${cls} } from "./${title}";\n\nexport const`)
    .replace(/\n\];/, `\n  { name: "${title}", class: ${cls} },\n];`);
  writeFileSync(index, text);
  say(`written: src/store/migrations/${title}.ts, and a line in its index`);
}
