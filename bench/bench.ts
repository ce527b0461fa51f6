/** Measures the engine as ratios in one run: every reading as a multiple of one plain pass over the same arrays. */
import { mkdirSync, writeFileSync } from "node:fs";
import { isMainThread, parentPort, workerData } from "node:worker_threads";
import { LeastCost } from "../src/core/analysis/cost";
import { gains } from "../src/core/analysis/gain";
import { Layers } from "../src/core/analysis/layers";
import { Prices } from "../src/core/analysis/prices";
import { Reach } from "../src/core/network/reach";
import { Readings } from "../src/core/analysis/readings";
import { components } from "../src/core/network/components";
import type { Network } from "../src/core/network/network";
import { inProcess, inThread, type Job } from "./apart";
import { graphTimes, type SolverTimes, solverTimes } from "./beside";
import { type EditTimes, editTimes } from "./edits";
import { type Full, fullAnalysis } from "./full";
import { floor, heldBy, multiples, part, say, table, type Timing, time } from "./measure";
import { largeNetwork } from "./pantry";
import { performancePage } from "./page";
import { plainCost, plainOf } from "./plain";

/** Up to this size others are measured beside ours, and single edits. */
const MOST_BESIDE = 100_000;

const file = import.meta.url;
const asked: Job | undefined = isMainThread ? process.argv[2] && JSON.parse(process.argv[2]) : workerData;
if (!asked) await main();
else if (!isMainThread) parentPort?.postMessage(graphTimes(asked.items));
else
  process.send?.(
    asked.job === "full"
      ? fullAnalysis(asked.items)
      : asked.job === "edits"
        ? editTimes(asked.items)
        : readings(asked.items),
  );

async function main(): Promise<void> {
  const sizes = (process.env.SIZES ?? "1000,10000,100000,1000000").split(",").map(Number);
  const report: { [name: string]: unknown }[] = [];
  const grown: { items: number; readings: number; full: number }[] = [];
  for (const items of sizes) {
    const { entry, allMs, one } = await inProcess<Measured>(file, { job: "readings", items });
    const full = await inProcess<Full>(file, { job: "full", items });
    const mb = (bytes: number) => `${(bytes / 1e6).toFixed(0)} MB`;
    say(
      `  the full analysis with all checks: ${(full.fullMs / one).toFixed(0)} × one pass (${(full.firstMs / one).toFixed(0)} the first time), ${full.findings} findings, ${full.deadlocksFound} of ${full.deadlocks} deadlocks and ${full.gains} gaining loops among them; the process held ${mb(full.peakBytes)} at most and ${mb(full.heldBytes)} in the end, records included`,
    );
    Object.assign(entry, { full: { ...full, ratio: full.fullMs / one } });
    grown.push({ items, readings: allMs, full: full.fullMs });
    if (items <= MOST_BESIDE) {
      const graph = await inThread<ReturnType<typeof graphTimes>>(file, { job: "graph", items });
      say(`  components by a graph library: ${(graph.library / graph.ours).toFixed(1)} times as long`);
      Object.assign(entry, { libraryOverComponents: graph.library / graph.ours, edits: await edits(items) });
    }
    report.push(entry);
  }
  const [small, large] = [grown.find((g) => g.items === 10_000), grown.at(-1)];
  const growth = (of: "readings" | "full") =>
    small && large && large !== small ? Math.log(large[of] / small[of]) / Math.log(large.items / small.items) : null;
  const exponents = { readings: growth("readings"), full: growth("full") };
  if (exponents.full !== null)
    say(
      `\ngrowth exponent from 10000 to ${large?.items} items: ${exponents.readings?.toFixed(2)} of all readings, ${exponents.full.toFixed(2)} of the full analysis with all checks`,
    );
  const programmes = await solverTimes();
  const times = ({ pureOverOurs, compiledOverOurs }: SolverTimes) =>
    `a solver in TypeScript takes ${pureOverOurs.toFixed(1)} times as long as ours, a compiled one ${compiledOverOurs.toFixed(1)} times`;
  say(
    `\n400 items as one linear programme: of the gain question ${times(programmes.gain)}, neither proves in fractions nor names every loop; of least costs ${times(programmes.cost)}, with the same result`,
  );
  if (process.env.WRITE) {
    writeFileSync("docs/performance.md", performancePage(report as never, exponents, programmes));
    say("\nWritten to docs/performance.md");
  }
  mkdirSync("bench/results", { recursive: true });
  writeFileSync(
    "bench/results/latest.json",
    `${JSON.stringify({ node: process.version, exponents, report, programmes }, null, 1)}\n`,
  );
  say("\nWritten to bench/results/latest.json");
}

interface Measured {
  readonly entry: { [name: string]: unknown };
  /** Milliseconds of all readings, and of one pass. */
  readonly allMs: number;
  readonly one: number;
}

/** Every reading of a clean pantry, as multiples of one pass. */
function readings(items: number): Measured {
  const runs = items > 300_000 ? 3 : items > 30_000 ? 5 : 9;
  const clean = largeNetwork({ items, seed: 1, deadlocks: Math.ceil(items / 1000) });
  const { compiled } = clean;
  const { network } = compiled;
  const one = time(() => floor(network), 25).median;
  const reach = new Reach(network);
  const prices = new Prices(compiled, reach);
  const { columns } = gains(compiled, reach, prices);
  const costTime = time(() => new LeastCost(network, { perMoney: 1, perSecond: 60 / 3600, reach }), runs);
  const full = time(() => new Readings(compiled).loops.length + 1, Math.max(3, runs - 4));
  const gainTime = time(() => gains(compiled, reach), runs);
  const rows: [string, Timing][] = [
    ["certificate check", time(() => prices.prove(), runs)],
    ["obtainable", time(() => new Reach(network), runs)],
    ["components", time(() => components(network, { links: "uses" }).count, runs)],
    ["least cost", costTime],
    [
      "levels",
      time(
        () =>
          new Layers(network, {
            usedOnly: false,
            counts: (p) => reach.fires(p),
            gives: (_, most) => most + 1,
            least: () => 0,
            before: (p, q) => p < q,
          }),
        runs,
      ),
    ],
    ["gaining loops, clean", gainTime],
    ["all readings (both costs, salvage, loops)", full],
  ];
  const gainOverCost = gainTime.median / costTime.median;
  const stuck = new Readings(compiled).loops.filter((l) => l.verdict === "stuck").length;
  say(
    `\n${items} items, ${network.processes} processes, ${clean.lines} lines; one pass ${one.toFixed(2)} ms; ${(network.bytes / items).toFixed(0)} bytes of arrays an item, ${(network.bytes / clean.lines).toFixed(1)} a line; certified clean: ${prices.clean}, ${columns} columns`,
  );
  table(rows, one);
  say(
    `  gain analysis of the clean pantry: ${gainOverCost.toFixed(2)} times its cost run; ${stuck} of ${clean.deadlocks} deadlocks found`,
  );
  const entry = {
    items,
    processes: network.processes,
    lines: clean.lines,
    bytesPerItem: network.bytes / items,
    bytesPerLine: network.bytes / clean.lines,
    floorMs: one,
    ratios: multiples(rows, one),
    gainOverCost,
    deadlocks: clean.deadlocks,
    stuckFound: stuck,
  };
  return {
    one,
    allMs: full.median,
    entry: { ...entry, planted: planted(items, one), ...(items <= MOST_BESIDE ? plain(network, runs) : {}) },
  };
}

/** Reach and cost on plain objects and Maps. */
function plain(network: Network, runs: number): { [name: string]: number } {
  const flat = time(
    () => new LeastCost(network, { perMoney: 1, perSecond: 1 / 60, reach: new Reach(network) }),
    runs,
  ).median;
  const held = heldBy(() => plainOf(network));
  const slow = time(() => plainCost(held.of).size, 3).median;
  const found = { plainOverFlat: slow / flat, plainBytesOverArrays: held.bytes / network.bytes };
  say(
    `  reach and cost on plain objects and Maps: ${found.plainOverFlat.toFixed(1)} times as long, in ${found.plainBytesOverArrays.toFixed(1)} times the memory`,
  );
  return found;
}

/** Loops that were planted: found or missed, and whether others were invented. */
function planted(items: number, one: number): { [name: string]: unknown } {
  const large = largeNetwork({ items, seed: 2, loops: 5 });
  const reach = new Reach(large.compiled.network);
  const took = time(() => gains(large.compiled, reach), 3);
  const told = gains(large.compiled, reach);
  const processes = (g: (typeof told.gains)[number]) =>
    g.runs.flatMap(({ step }) => (step.run === "process" ? [step.process] : []));
  const inLoops = new Set(told.gains.flatMap(processes));
  const seeds = new Set([...large.seeds].map((id) => large.compiled.processesOf("recipe", id)[0]));
  const missed = [...seeds].filter((p) => !inLoops.has(p)).length;
  const invented = told.gains.filter((g) => !processes(g).some((p) => seeds.has(p))).length;
  say(
    `  ${large.planted} planted loops: ${large.planted - missed} found, ${invented} invented, ${told.complete ? "that there are no more is proved" : "search stopped"}; ${told.columns} columns of ${large.compiled.network.processes} processes; ${(took.median / one).toFixed(1)} × one pass`,
  );
  return {
    loops: large.planted,
    missed,
    invented,
    columns: told.columns,
    complete: told.complete,
    ratio: took.median / one,
  };
}

async function edits(items: number): Promise<EditTimes> {
  const times = await inProcess<EditTimes>(file, { job: "edits", items });
  say(
    `  one edit, as a part of the full analysis with all checks (${times.fullMs.toFixed(0)} ms, of which readings ${times.readingsMs.toFixed(0)} ms):`,
  );
  for (const [name, t] of Object.entries(times.kinds))
    say(
      `    ${name.padEnd(40)} readings ${part(t.readings).padStart(9)} (p95 ${part(t.readingsP95)}), with the ripple of all checks ${part(t.ripple).padStart(8)} (p95 ${part(t.rippleP95)}); writing it into the catalogue ${t.writingMs.toFixed(2)} ms`,
    );
  return times;
}
