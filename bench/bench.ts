/** Measures the engine as ratios in one run: every reading as a multiple of one plain pass over the same arrays. */
import { mkdirSync, writeFileSync } from "node:fs";
import * as graphlib from "@dagrejs/graphlib";
import highsLoader from "highs";
import { solve } from "yalps";
import { Engine } from "../src/core/analysis/engine";
import { LeastCost } from "../src/core/analysis/cost";
import { gains } from "../src/core/analysis/gain";
import { Layers } from "../src/core/analysis/layers";
import { Prices } from "../src/core/analysis/prices";
import { Reach } from "../src/core/analysis/reach";
import { Readings } from "../src/core/analysis/readings";
import { emptyCatalogue } from "../src/core/catalogue/catalogue";
import { apply, type Edit, invert, setField, type Value } from "../src/core/catalogue/changes";
import { newId } from "../src/core/catalogue/names";
import { NEW_PANTRY } from "../src/core/catalogue/records";
import { planImport } from "../src/core/exchange/read";
import { components } from "../src/core/network/components";
import type { Lists, Network } from "../src/core/network/network";
import { seeded } from "../src/core/numbers/seeded";
import { generate } from "../src/demo/generate";
import { largeNetwork } from "./pantry";
import { plainCost, plainOf } from "./plain";

const SIZES = (process.env.SIZES ?? "1000,10000,100000,1000000").split(",").map(Number);
/** Larger pantries are measured as networks only: their records would need more memory than the engine itself. */
const MOST_RECORDS = 100_000;

/** One sequential pass over the rows, both directions. */
const floor = ({ ins, outs, users, makers }: Network): number => amounts(ins) + amounts(outs) + links(users) + links(makers);

function amounts({ start, end, to, qty }: Lists): number {
  const q = qty as Float64Array;
  let sum = 0;
  for (let r = 0; r < start.length; r++) for (let k = start[r], e = end[r]; k < e; k++) sum += q[k] * to[k];
  return sum;
}
function links({ start, end, to }: Lists): number {
  let sum = 0;
  for (let r = 0; r < start.length; r++) for (let k = start[r], e = end[r]; k < e; k++) sum += to[k];
  return sum;
}

interface Timing {
  readonly median: number;
  readonly low: number;
  readonly high: number;
}
let sink = 0;
const summary = (times: number[]): Timing & { p95: number } => {
  times.sort((a, b) => a - b);
  return { median: times[times.length >> 1], low: times[0], high: times[times.length - 1], p95: times[Math.floor(times.length * 0.95)] };
};
/** Milliseconds of a call: median, lowest and highest of several after a warm-up. */
function time(work: () => unknown, runs: number): Timing {
  const times: number[] = [];
  for (let i = 0; i < runs + 1; i++) {
    const began = performance.now();
    sink += work() ? 1 : 0;
    if (i >= 1) times.push(performance.now() - began);
  }
  return summary(times);
}

const say = (text: string) => console.log(text);
const table = (rows: readonly [string, Timing][], unit: number) => {
  say(`  ${"".padEnd(44)}${"× one pass".padStart(12)}${"low".padStart(9)}${"high".padStart(9)}`);
  for (const [name, t] of rows) say(`  ${name.padEnd(44)}${(t.median / unit).toFixed(2).padStart(12)}${(t.low / unit).toFixed(2).padStart(9)}${(t.high / unit).toFixed(2).padStart(9)}`);
};
const ratios = (rows: readonly [string, Timing][], unit: number) => Object.fromEntries(rows.map(([name, t]) => [name, { median: t.median / unit, low: t.low / unit, high: t.high / unit }]));

const report: Record<string, unknown>[] = [];
const grown: { items: number; full: number }[] = [];

for (const items of SIZES) {
  const runs = items > 300_000 ? 3 : items > 30_000 ? 5 : 9;
  const before = process.memoryUsage().arrayBuffers;
  const clean = largeNetwork({ items, seed: 1, deadlocks: Math.ceil(items / 1000) });
  const { compiled } = clean;
  const { network } = compiled;
  const one = time(() => floor(network), 25).median;
  const reach = new Reach(network);
  const cost = () => new LeastCost(network, { perMoney: 1, perSecond: 60 / 3600, reach });
  const prices = new Prices(compiled, reach);
  const found = gains(compiled, reach, prices);
  const costTime = time(cost, runs);
  const full = time(() => new Readings(compiled).loops.length + 1, Math.max(3, runs - 4));
  const rows: [string, Timing][] = [
    ["certificate check", time(() => prices.prove(), runs)],
    ["obtainable", time(() => new Reach(network), runs)],
    ["components", time(() => components(network, { links: "uses" }).count, runs)],
    ["least cost", costTime],
    ["levels", time(() => new Layers(network, { usedOnly: false, counts: (p) => reach.fires(p), gives: (_, most) => most + 1, least: () => 0, before: (p, q) => p < q }), runs)],
    ["gaining loops, clean", time(() => gains(compiled, reach), runs)],
    ["all readings (both costs, salvage, loops)", full],
  ];
  say(`\n${items} items, ${network.processes} processes, ${clean.lines} lines; one pass ${one.toFixed(2)} ms; ${(network.bytes / items).toFixed(0)} bytes of arrays an item, ${(network.bytes / clean.lines).toFixed(1)} a line; certified clean: ${prices.clean}, ${found.columns} columns`);
  table(rows, one);
  grown.push({ items, full: full.median });
  say(`  gain analysis of the clean pantry: ${(rows[5][1].median / costTime.median).toFixed(2)} times its cost run`);
  const stuck = new Readings(compiled).loops.filter((l) => l.verdict === "stuck").length;

  const planted = largeNetwork({ items, seed: 2, loops: 5 });
  const plantedReach = new Reach(planted.compiled.network);
  const plantedTime = time(() => gains(planted.compiled, plantedReach), Math.min(3, runs));
  const told = gains(planted.compiled, plantedReach);
  const inLoops = new Set(told.gains.flatMap((g) => g.runs.flatMap(({ step }) => (step.run === "process" ? [step.process] : []))));
  const missed = [...planted.seeds].filter((p) => !inLoops.has(p)).length;
  const invented = told.gains.filter((g) => !g.runs.some(({ step }) => step.run === "process" && planted.seeds.has(step.process))).length;
  say(`  planted ${planted.planted} loops and ${clean.deadlocks} deadlocks: ${planted.planted - missed} and ${stuck} found, ${invented} invented${told.complete ? "" : " (search stopped)"}; ${told.columns} columns of ${planted.compiled.network.processes}; ${(plantedTime.median / one).toFixed(1)} × one pass`);
  const entry: Record<string, unknown> = { items, processes: network.processes, lines: clean.lines, bytesPerItem: network.bytes / items, bytesPerLine: network.bytes / clean.lines, floorMs: one, ratios: ratios(rows, one), gainOverCost: rows[5][1].median / costTime.median, planted: { loops: planted.planted, missed, invented, columns: told.columns, complete: told.complete, deadlocks: clean.deadlocks, stuckFound: stuck, ratio: plantedTime.median / one }, heapMB: process.memoryUsage().heapUsed / 1e6, arraysMB: (process.memoryUsage().arrayBuffers - before) / 1e6 };

  if (items <= MOST_RECORDS) {
    const plain = plainOf(network);
    const slow = time(() => plainCost(plain).size, Math.min(3, runs));
    const flat = time(() => new LeastCost(network, { perMoney: 1, perSecond: 1 / 60, reach: new Reach(network) }), runs);
    const graph = new graphlib.Graph({ directed: true });
    for (let p = 0; p < network.processes; p++) {
      const node = `p${p}`;
      for (let k = network.ins.start[p]; k < network.ins.end[p]; k++) graph.setEdge(String(network.ins.to[k]), node);
      for (let k = network.outs.start[p]; k < network.outs.end[p]; k++) graph.setEdge(node, String(network.outs.to[k]));
    }
    let library: number | null = null;
    try {
      library = time(() => graphlib.alg.tarjan(graph).length, 1).median;
    } catch {
      // It recurses, and its stack does not reach that far.
    }
    say(`  reach and cost on plain objects and Maps: ${(slow.median / flat.median).toFixed(1)} times as long; components by a graph library: ${library === null ? "overflows its stack" : `${(library / rows[2][1].median).toFixed(1)} times as long`}`);
    entry.plainOverFlat = slow.median / flat.median;
    entry.libraryOverComponents = library === null ? null : library / rows[2][1].median;
    entry.edits = edits(items, full.median);
  }
  report.push(entry);
}

const [small, large] = [grown.find((g) => g.items === 10_000), grown.at(-1)];
const exponent = small && large && large !== small ? Math.log(large.full / small.full) / Math.log(large.items / small.items) : null;
if (exponent !== null) say(`\ngrowth exponent of all readings from 10000 to ${large?.items} items: ${exponent.toFixed(2)}`);
const programmes = await againstSolvers();
mkdirSync("bench/results", { recursive: true });
writeFileSync("bench/results/latest.json", `${JSON.stringify({ node: process.version, exponent, report, programmes }, null, 1)}\n`);
say(`\nWritten to bench/results/latest.json${sink < 0 ? "!" : ""}`);

/** Single edits followed by an engine, as parts of the full analysis. */
function edits(items: number, fullReadings: number): Record<string, unknown> {
  const empty = emptyCatalogue({ id: newId(), key: "bench", name: "Bench", ...NEW_PANTRY });
  const opened = apply(empty, planImport(empty, JSON.stringify(generate({ items, seed: 1 }))).edits);
  if (!opened.ok) throw new Error("the generated pantry was refused");
  const random = seeded(3);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
  const engine = new Engine(opened.catalogue);
  const full = time(() => new Engine(opened.catalogue).revision + 1, items > 30_000 ? 1 : 3).median;
  const [sources, recipes] = [[...opened.catalogue.source.values()], [...opened.catalogue.recipe.values()]];
  const kinds: [string, () => Edit][] = [
    ["price", () => setField(engine.catalogue, "source", pick(sources).id, "ticks", Math.floor(random() * 4000))],
    ["quantity", () => {
      const r = pick(recipes);
      return setField(engine.catalogue, "recipe", r.id, "lines", r.lines.map((l, k) => (k === 0 ? { ...l, min: l.min + 1, max: l.max + 1 } : l)) as unknown as Value);
    }],
    ["source removed", () => ({ op: "remove", kind: "source", record: pick(sources) })],
    ["recipe deleted", () => ({ op: "remove", kind: "recipe", record: pick(recipes) })],
    ["sell price", () => setField(engine.catalogue, "item", pick([...engine.catalogue.item.keys()]), "sell", Math.floor(random() * 99))],
  ];
  say(`  one edit, as a part of all readings (${fullReadings.toFixed(0)} ms) and, with checks, of everything (${full.toFixed(0)} ms):`);
  const result: Record<string, unknown> = { fullMs: full };
  for (const [name, make] of kinds) {
    const [readings, ripples, applied]: [number[], number[], number[]] = [[], [], []];
    for (let n = 0; n < 60; n++) {
      const edit = make();
      const began = performance.now();
      const outcome = apply(engine.catalogue, [edit]);
      applied.push(performance.now() - began);
      if (!outcome.ok || !outcome.edits.length) continue;
      const then = performance.now();
      engine.follow(outcome.catalogue, outcome.edits);
      const took = performance.now() - then;
      readings.push(engine.took);
      ripples.push(took);
      // Taken back, so that every edit is one in the same pantry.
      engine.change(invert(outcome.edits));
    }
    const [r, c] = [summary(readings), summary(ripples)];
    const part = (x: number, of: number) => `1/${Math.round(of / x)}`;
    say(`    ${name.padEnd(16)} readings ${part(r.median, fullReadings).padStart(8)} (p95 ${part(r.p95, fullReadings)}), with all checks ${part(c.median, full).padStart(8)} (p95 ${part(c.p95, full)}); writing it into the catalogue ${summary(applied).median.toFixed(2)} ms`);
    result[name] = { readings: r.median / fullReadings, readingsP95: r.p95 / fullReadings, ripple: c.median / full, rippleP95: c.p95 / full };
  }
  return result;
}

/** The gain question as one programme over all processes, put to general solvers, beside ours; on a pantry they can take. */
async function againstSolvers(): Promise<Record<string, number>> {
  const { compiled } = largeNetwork({ items: 400, seed: 2, loops: 2 });
  const { network } = compiled;
  const reach = new Reach(network);
  const prices = new Prices(compiled, reach);
  const columns = Array.from({ length: network.processes }, (_, p) => p).filter((p) => prices.takesPart(p));
  const net = columns.map((p) => {
    const row = new Map<number, number>();
    for (let k = network.ins.start[p]; k < network.ins.end[p]; k++) row.set(network.ins.to[k], -(network.ins.qty as Float64Array)[k]);
    for (let k = network.outs.start[p]; k < network.outs.end[p]; k++) row.set(network.outs.to[k], (row.get(network.outs.to[k]) ?? 0) + (network.outs.qty as Float64Array)[k]);
    return row;
  });
  const ours = time(() => gains(compiled, reach).gains.length + 1, 9).median;
  const variables = Object.fromEntries(columns.map((p, c) => [`x${p}`, { ...Object.fromEntries([...net[c]].map(([i, q]) => [`r${i}`, q])), one: 1, goal: [...net[c]].reduce((t, [i, q]) => t + q * prices.price[i], 0) }]));
  const rows = [...new Set(net.flatMap((row) => [...row.keys()]))];
  const pure = time(() => solve({ direction: "maximize", objective: "goal", constraints: { ...Object.fromEntries(rows.map((i) => [`r${i}`, { min: 0 }])), one: { max: 1 } }, variables }).status, 3).median;
  const number = (q: number) => `${q < 0 ? "-" : "+"} ${Math.abs(q).toPrecision(15)}`;
  const text = `Maximize\n obj: ${columns.map((p, c) => `${number([...net[c]].reduce((t, [i, q]) => t + q * prices.price[i], 0))} x${p}`).join(" ")}\nSubject To\n${rows.map((i) => ` r${i}: ${columns.flatMap((p, c) => (net[c].has(i) ? [`${number(net[c].get(i) as number)} x${p}`] : [])).join(" ")} >= 0`).join("\n")}\n one: ${columns.map((p) => `+ x${p}`).join(" ")} <= 1\nEnd`;
  const highs = await highsLoader();
  const compiledSolver = time(() => highs.solve(text).Status, 3).median;
  say(`\nthe gain question of 400 items as one programme: a solver in TypeScript takes ${(pure / ours).toFixed(1)} times as long as ours, a compiled one ${(compiledSolver / ours).toFixed(1)} times; neither proves in fractions nor names every loop`);
  return { pureOverOurs: pure / ours, compiledOverOurs: compiledSolver / ours };
}
