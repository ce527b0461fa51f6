/**
 * How the server carries people who write at once: throughput and waiting of 1, 4, 10, 20 and 50 editors, each sending its
 * next change when the last was acknowledged, alone and with others following. In multiples of one editor.
 */
import { spawn } from "node:child_process";
import { mkdirSync, mkdtempSync, rmSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { say, summary } from "./measure";

const EDITORS = [1, 4, 10, 20, 50];
const FOLLOWERS = 200;
const SECONDS = Number(process.env.SECONDS ?? 6);

interface Item {
  readonly id: string;
  readonly sell: number | null;
}

const freePort = (): Promise<number> =>
  new Promise((done) => {
    const server = createServer();
    server.listen(0, "127.0.0.1", () => {
      const { port } = server.address() as { port: number };
      server.close(() => done(port));
    });
  });

const run = (args: readonly string[], env: object): Promise<void> =>
  new Promise((done, fail) => {
    const child = spawn(process.execPath, args, {
      env: { ...process.env, ...env },
      stdio: ["ignore", "ignore", "inherit"],
    });
    child.on("exit", (code) => (code === 0 ? done() : fail(new Error(`${args.join(" ")} ended with ${code}`))));
  });

/** Opens event streams that read and forget; resolves once all have begun. */
async function follow(base: string, count: number): Promise<() => void> {
  const ending = new AbortController();
  await Promise.all(
    Array.from({ length: count }, async () => {
      const response = await fetch(`${base}/events`, { signal: ending.signal });
      const reader = response.body?.getReader();
      await reader?.read();
      void (async () => {
        while (reader && !(await reader.read()).done);
      })().catch(() => undefined);
    }),
  );
  return () => ending.abort();
}

interface Load {
  readonly perSecond: number;
  readonly median: number;
  readonly p99: number;
}

/** So many editors, each with an item of its own, for so many seconds. */
async function load(base: string, items: readonly Item[], editors: number): Promise<Load> {
  const times: number[] = [];
  const end = performance.now() + SECONDS * 1000;
  await Promise.all(
    items.slice(0, editors).map(async (item, k) => {
      let from = (
        (await (await fetch(`${base}/changes?of=${item.id}&most=1`)).json()) as { edits: { to: number }[] }[]
      )[0]?.edits[0]?.to;
      from ??= item.sell as number;
      for (let n = 1; performance.now() < end; n++) {
        const to = 1 + ((k * 7 + n) % 50);
        if (to === from) continue;
        const began = performance.now();
        const answer = await fetch(`${base}/changes`, {
          method: "POST",
          headers: { "content-type": "application/json", "x-salty-author": `Editor${k}` },
          body: JSON.stringify({
            edits: [{ op: "set", kind: "item", id: item.id, field: "sell", from: from ?? null, to }],
          }),
        });
        if (!answer.ok) throw new Error(`${answer.status}: ${await answer.text()}`);
        await answer.arrayBuffer();
        times.push(performance.now() - began);
        from = to;
      }
    }),
  );
  const sorted = [...times].sort((a, b) => a - b);
  return {
    perSecond: times.length / SECONDS,
    median: summary(times).median,
    p99: sorted[Math.floor(sorted.length * 0.99)],
  };
}

async function pantry(base: string, name: string): Promise<void> {
  const { records } = (await (await fetch(base)).json()) as { records: { item: Item[] } };
  const items = records.item;
  say(`\n${name}: ${items.length} items`);
  await load(base, items, 4);
  const alone = await load(base, items, 1);
  say("  editors    changes a second    × one      median      99th    99th × median of one");
  let most = alone;
  for (const editors of EDITORS) {
    const got = editors === 1 ? alone : await load(base, items, editors);
    most = got;
    say(
      `  ${String(editors).padStart(7)} ${got.perSecond.toFixed(0).padStart(19)} ${(got.perSecond / alone.perSecond).toFixed(1).padStart(8)} ${got.median.toFixed(0).padStart(8)} ms ${got.p99.toFixed(0).padStart(6)} ms ${(got.p99 / alone.median).toFixed(1).padStart(12)}`,
    );
  }
  const stop = await follow(base, FOLLOWERS);
  const followed = await load(base, items, 50);
  stop();
  say(
    `  50 editors with ${FOLLOWERS} windows following: ${(followed.perSecond / most.perSecond).toFixed(2)} of the throughput without, 99th percentile ${(followed.p99 / alone.median).toFixed(1)} × median of one`,
  );
}

const folder = mkdtempSync(join(tmpdir(), "salty-load-"));
mkdirSync(folder, { recursive: true });
const port = await freePort();
const program = spawn(process.execPath, ["scripts/start.mjs"], {
  env: { ...process.env, SALTY_DATA: join(folder, "data"), DATABASE_URL: "", PORT: String(port) },
  stdio: ["ignore", "pipe", "inherit"],
});
let said = "";
program.stdout.on("data", (text: Buffer) => {
  said += text;
});
try {
  const end = Date.now() + 300_000;
  while (!(await fetch(`http://127.0.0.1:${port}/api/health`).catch(() => null))?.ok) {
    if (Date.now() > end || program.exitCode !== null) throw new Error(`The program did not start:\n${said}`);
    await new Promise((done) => setTimeout(done, 200));
  }
  await run(["dist/salty.mjs", "generate", join(folder, "large.json"), "--items", "10000"], {});
  await run(["dist/salty.mjs", "import", join(folder, "large.json"), "--pantry", "large"], {
    SALTY_DATA: join(folder, "data"),
    DATABASE_URL: "",
  });
  const api = `http://127.0.0.1:${port}/api/pantries`;
  await pantry(`${api}/brackwater_reach`, "the demo");
  await pantry(`${api}/large`, "a large pantry");
} finally {
  program.kill("SIGTERM");
  await new Promise((done) => program.once("exit", done));
  rmSync(folder, { recursive: true, force: true });
}
