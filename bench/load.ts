/**
 * How the server carries people who write at once: throughput and waiting of 1, 4, 10, 20 and 50 editors, each sending its
 * next change when the last was acknowledged, alone and with others following. In multiples of one editor.
 */
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

await withProgram(async (program) => {
  await program.import(10_000, "large");
  await pantry(`${program.base}/api/pantries/brackwater_reach`, "the demo");
  await pantry(`${program.base}/api/pantries/large`, "a large pantry");
});
