/**
 * Imports in multiples of what COPY takes for the same rows in the same run; undoing one, and opening the engine of it,
 * likewise. ITEMS=100000 chooses the size; memory is the importing process's own, at its highest.
 */
import { spawn } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { gzipSync } from "node:zlib";
import type { EntityManager } from "@mikro-orm/postgresql";
import { Client } from "pg";
import { from as copyFrom, to as copyTo } from "pg-copy-streams";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { LocalWriter } from "../src/cli/local-writer";
import { Readings } from "../src/core/analysis/readings";
import { packed } from "../src/core/catalogue/catalogue";
import { Engine } from "../src/core/engine/engine";
import { newId } from "../src/core/schema/id";
import { editsAt, loadTexts, type PantryHead, pantryByKey } from "../src/store/load";
import { catalogueFrom } from "../src/store/texts";
import { deletePantry } from "../src/store/commit";
import { connect, type Orm } from "../src/store/orm";
import { say, time } from "./measure";

const ITEMS = Number(process.env.ITEMS ?? 10_000);
const url = process.env.DATABASE_URL as string;
const folder = mkdtempSync(join(tmpdir(), "salty-import-"));

/** Runs the command line; milliseconds, and the most memory it held [MB] where the system tells. */
function salty(...args: string[]): Promise<{ readonly ms: number; readonly memory: number }> {
  const began = performance.now();
  const child = spawn(process.execPath, ["dist/salty.mjs", ...args], { stdio: ["ignore", "ignore", "pipe"] });
  let [memory, said] = [0, ""];
  child.stderr.on("data", (text: Buffer) => {
    said += text;
  });
  const look = setInterval(() => {
    try {
      const kilobytes = /VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${child.pid}/status`, "utf8"))?.[1];
      memory = Math.max(memory, Number(kilobytes ?? 0) / 1024);
    } catch {
      // It has ended, or this system has no such file.
    }
  }, 50);
  return new Promise((done, fail) =>
    child.on("exit", (code) => {
      clearInterval(look);
      if (code === 0) done({ ms: performance.now() - began, memory });
      else fail(new Error(`salty ${args.join(" ")} ended with ${code}: ${said}`));
    }),
  );
}

/** The rows of a pantry in every table but its own, as COPY writes them. */
async function rowsOf(client: Client, pantry: string): Promise<ReadonlyMap<string, Buffer>> {
  const { rows } = await client.query<{ name: string; columns: string }>(
    `select table_name as name, string_agg(format('%I', column_name), ',' order by column_name <> 'pantry_id', ordinal_position) as columns
     from information_schema.columns where table_schema = 'public' and table_name <> 'pantry' group by 1 having bool_or(column_name = 'pantry_id')`,
  );
  const found = new Map<string, Buffer>();
  for (const { name, columns } of rows) {
    const chunks: Buffer[] = [];
    const stream = client.query(
      copyTo(`copy (select ${columns} from "${name}" where pantry_id = '${pantry}') to stdout`),
    );
    for await (const chunk of stream) chunks.push(chunk as Buffer);
    found.set(`"${name}" (${columns})`, Buffer.concat(chunks));
  }
  return found;
}

/** Milliseconds that COPY takes for rows of another pantry, in one transaction. */
async function copied(orm: Orm, client: Client, from: string, rows: ReadonlyMap<string, Buffer>): Promise<number> {
  const to = newId();
  const ready = [...rows].map(
    ([table, text]) => [table, Buffer.from(text.toString("latin1").replaceAll(from, to), "latin1")] as const,
  );
  const { rows: columns } = await client.query<{ names: string }>(
    `select string_agg(format('%I', column_name), ',') as names from information_schema.columns where table_name = 'pantry' and column_name not in ('id', 'key')`,
  );
  const began = performance.now();
  await client.query("begin");
  await client.query(
    `insert into pantry (id, key, ${columns[0].names}) select '${to}', 'copied', ${columns[0].names} from pantry where id = '${from}'`,
  );
  for (const [table, text] of ready)
    await pipeline(Readable.from([text]), client.query(copyFrom(`copy ${table} from stdin`)));
  await client.query("commit");
  const took = performance.now() - began;
  await deletePantry(orm, to);
  return took;
}

/** From the database to what the first view is sent, beside the engine's own full analysis without checks. */
async function opening(orm: Orm, head: PantryHead): Promise<{ readonly ms: number; readonly analysis: number }> {
  const began = performance.now();
  const texts = await loadTexts(orm.em.fork() as EntityManager, head.id);
  if (!texts) throw new Error("The pantry is gone.");
  const engine = new Engine(catalogueFrom(texts));
  const { catalogue } = engine;
  gzipSync(JSON.stringify({ ...packed(catalogue, { bytes: false }), model: engine.model() }), { level: 3 });
  const ms = performance.now() - began;
  return { ms, analysis: time(() => new Readings(catalogue).revision, 2).median };
}

const file = join(folder, "bundle.json");
const client = new Client({ connectionString: url });
await client.connect();
try {
  await salty("generate", file, "--items", String(ITEMS));
  await salty("setup");
  const given = await salty("import", file, "--pantry", "given");
  const orm = await connect(url);
  const head = await pantryByKey(orm.em.fork() as EntityManager, "given");
  if (!head) throw new Error("The import left nothing.");
  const rows = await rowsOf(client, head.id);
  const unit = await copied(orm, client, head.id, rows);
  const times = (ms: number) => `${(ms / 1000).toFixed(1).padStart(7)} s ${(ms / unit).toFixed(2).padStart(8)} × COPY`;
  const bytes = [...rows.values()].reduce((sum, text) => sum + text.length, 0);
  say(`${ITEMS} items: ${(bytes / 1e6).toFixed(0)} MB of rows, which COPY takes in ${(unit / 1000).toFixed(1)} s`);
  say(`  import                ${times(given.ms)}, ${given.memory.toFixed(0)} MB at most`);
  const edits = await editsAt(orm.em.fork() as EntityManager, head.id, 1);
  const began = performance.now();
  await new LocalWriter(orm, head.id).submit({ author: "bench", note: "", undoes: 1 }, { do: "undo", edits });
  say(`  undoing it            ${times(performance.now() - began)}`);
  const emptied = performance.now();
  await deletePantry(orm, head.id);
  say(`  removing the pantry   ${times(performance.now() - emptied)}`);
  await salty("import", file, "--pantry", "again");
  const again = await pantryByKey(orm.em.fork() as EntityManager, "again");
  const opened = await opening(orm, again as PantryHead);
  say(
    `  opening               ${(opened.ms / 1000).toFixed(1).padStart(7)} s ${(opened.ms / opened.analysis).toFixed(2).padStart(8)} × the full analysis without checks (${(opened.analysis / 1000).toFixed(1)} s)`,
  );
  const removed = performance.now();
  await deletePantry(orm, (again as PantryHead).id);
  say(`  removing it, filled   ${times(performance.now() - removed)}`);
  await orm.close(true);
} finally {
  await client.end();
  rmSync(folder, { recursive: true, force: true });
}
