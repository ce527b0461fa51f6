/**
 * How the server carries people who write at once: throughput and waiting of 1, 4, 10, 20 and 50 editors, each sending its
 * next change when the last was acknowledged, alone and with others following. In multiples of one editor.
 */
import { Agent, request } from "node:http";
import { say, summary } from "./measure";
import { withProgram } from "./program";

const EDITORS = [1, 4, 10, 20, 50];
const FOLLOWERS = 200;
const SECONDS = Number(process.env.SECONDS ?? 6);

interface Item {
  readonly id: string;
  readonly sell: number | null;
}

/** Opens event streams that read and forget; resolves once all have begun. */
async function follow(base: string, count: number): Promise<() => void> {
  const agent = new Agent();
  await Promise.all(
    Array.from(
      { length: count },
      () =>
        new Promise<void>((done, fail) => {
          const sent = request(`${base}/events`, { agent }, (answer) => answer.on("data", () => done()));
          sent.on("error", fail).end();
        }),
    ),
  );
  return () => agent.destroy();
}

/** Sends a change, with as little work as can be: fifty editors' own machines are not what is measured. */
function post(url: string, author: string, body: string, agent: Agent): Promise<void> {
  const headers = {
    "content-type": "application/json",
    "content-length": Buffer.byteLength(body),
    "x-salty-author": author,
  };
  return new Promise((done, fail) => {
    const sent = request(url, { method: "POST", headers, agent }, (answer) => {
      let said = "";
      answer.setEncoding("utf8").on("data", (text: string) => {
        said += text;
      });
      answer.on("end", () => (answer.statusCode === 200 ? done() : fail(new Error(`${answer.statusCode}: ${said}`))));
    });
    sent.on("error", fail).end(body);
  });
}

interface Load {
  readonly perSecond: number;
  readonly median: number;
  readonly p99: number;
}

/** What an item is sold for now. */
async function priceOf(base: string, item: Item): Promise<number> {
  const [change] = (await (await fetch(`${base}/changes?of=${item.id}&most=1`)).json()) as {
    edits: { to: number }[];
  }[];
  return change?.edits[0]?.to ?? (item.sell as number);
}

/** So many editors, each with an item of its own, for so many seconds. What they start from is read before the clock runs. */
async function load(base: string, items: readonly Item[], editors: number): Promise<Load> {
  const times: number[] = [];
  const edited = items.slice(0, editors);
  const prices = await Promise.all(edited.map((item) => priceOf(base, item)));
  const agent = new Agent({ keepAlive: true });
  const end = performance.now() + SECONDS * 1000;
  await Promise.all(
    edited.map(async (item, k) => {
      let from = prices[k];
      for (let n = 1; performance.now() < end; n++) {
        const to = 1 + ((k * 7 + n) % 50);
        if (to === from) continue;
        const began = performance.now();
        const edit = { op: "set", kind: "item", id: item.id, field: "sell", from: from ?? null, to };
        await post(`${base}/changes`, `Editor${k}`, JSON.stringify({ edits: [edit] }), agent);
        times.push(performance.now() - began);
        from = to;
      }
    }),
  );
  agent.destroy();
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

await withProgram(async (program) => {
  await program.import(10_000, "large");
  await pantry(`${program.base}/api/pantries/brackwater_reach`, "the demo");
  await pantry(`${program.base}/api/pantries/large`, "a large pantry");
});
