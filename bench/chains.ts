/** Measures chains: what is asked of the engine, beside one reading of all costs, and the drawing of 300 things. */
import { isMainThread, parentPort, Worker, workerData } from "node:worker_threads";
import { mkdirSync, writeFileSync } from "node:fs";
import { Readings } from "../src/core/analysis/readings";
import { ASKED, type Chain, chainOf } from "../src/core/chains/chain";
import { layoutOf } from "../src/core/chains/layout";
import type { Node } from "../src/core/process/node";
import { compile } from "../src/core/network/compile";
import { largeCatalogue } from "./pantry";
import { say, time, type Timing } from "./measure";

if (!isMainThread) parentPort?.postMessage(time(() => layoutOf(workerData as Chain, "cost"), 15));
else await measured();

async function measured(): Promise<void> {
  const { catalogue } = largeCatalogue({ items: 10_000, seed: 7 } as never);
  const readings = new Readings(catalogue);
  const whole = time(() => new Readings(compile(catalogue)).value, 3);
  const ask = { ...ASKED, onward: 2, most: 300 };
  const deepest = [...catalogue.records.item.keys()]
    .map((id) => [id, readings.steps(readings.compiled.numberOf(id) as number) ?? 0] as const)
    .sort((a, b) => b[1] - a[1])
    .slice(0, 40)
    .flatMap(([id]) => chainOf(readings, id as Node, ask) ?? [])
    .sort((a, b) => b.things.length - a.things.length)[0];
  const reading = time(() => chainOf(readings, deepest.item, ask), 9);
  // In a thread of its own, as in the browser: beside nothing else that is held in memory.
  const drawing = await new Promise<Timing>((done, fail) => {
    const thread = new Worker(new URL(import.meta.url), { workerData: deepest });
    thread.once("message", done);
    thread.once("error", fail);
  });
  say(`a chain of ${deepest.things.length} things and ${deepest.links.length} ribbons, of 10,000 items`);
  say(`  asked for: ${reading.median.toFixed(1)} ms, 1/${Math.round(whole.median / reading.median)} of all readings`);
  say(
    `  drawn: ${drawing.median.toFixed(1)} ms (${drawing.low.toFixed(1)} to ${drawing.high.toFixed(1)}); the bar for 300 is 200 ms`,
  );
  mkdirSync("bench/results", { recursive: true });
  writeFileSync(
    "bench/results/chains.json",
    `${JSON.stringify({ things: deepest.things.length, links: deepest.links.length, read: reading.median, drawn: drawing.median }, null, 2)}\n`,
  );
}
