/** Measures the engine as ratios in one run: every reading as a multiple of one plain pass over the same arrays. */
import { mkdirSync, writeFileSync } from "node:fs";
import { boardOf, rippleOf } from "../src/core/analysis/board";
import { leastCost } from "../src/core/analysis/cost";
import { gains } from "../src/core/analysis/gain";
import { loops } from "../src/core/analysis/loops";
import { obtainable } from "../src/core/analysis/obtainable";
import { readingsOf } from "../src/core/analysis/readings";
import { emptyCatalogue } from "../src/core/catalogue/catalogue";
import { apply, setField } from "../src/core/catalogue/changes";
import { newId } from "../src/core/catalogue/names";
import { planImport } from "../src/core/exchange/read";
import { components } from "../src/core/network/components";
import { compile, type Network } from "../src/core/network/network";
import { generate } from "../src/demo/generate";
import { NEW_PANTRY } from "../src/core/catalogue/records";

const SIZES = (process.env.SIZES ?? "1000,10000").split(",").map(Number);

/** One sequential pass over the compressed rows, both directions. */
function floor({ uses, makes, needs, usedBy, madeBy, neededBy }: Network): number {
  let sum = 0;
  for (const rows of [uses, makes, needs, usedBy, madeBy, neededBy])
    for (let r = 0; r + 1 < rows.ptr.length; r++) for (let k = rows.ptr[r]; k < rows.ptr[r + 1]; k++) sum += rows.qty[k] * rows.to[k];
  return sum;
}

interface Timing {
  readonly median: number;
  readonly low: number;
  readonly high: number;
}
let sink = 0;
/** Milliseconds of a call: median, lowest and highest of several after a warm-up. */
function time(work: () => unknown, runs = 9): Timing {
  const times: number[] = [];
  for (let i = 0; i < runs + 2; i++) {
    const began = performance.now();
    sink += work() ? 1 : 0;
    if (i >= 2) times.push(performance.now() - began);
  }
  times.sort((a, b) => a - b);
  return { median: times[times.length >> 1], low: times[0], high: times[times.length - 1] };
}

const report: Record<string, unknown>[] = [];
for (const items of SIZES)
  for (const wanted of [0, 5]) {
    const empty = emptyCatalogue({ id: newId(), key: "bench", name: "Bench", ...NEW_PANTRY });
    const plan = planImport(empty, JSON.stringify(generate({ items, seed: 1, loops: wanted })));
    const outcome = apply(empty, plan.edits);
    if (!outcome.ok) throw new Error("the generated pantry was refused");
    const { catalogue } = outcome;
    const planted = [...catalogue.recipe.values()].filter((r) => r.key.startsWith("planted_")).length;
    const network = compile(catalogue);
    const readings = readingsOf(catalogue);
    const state = { board: boardOf(catalogue, readings), readings };
    const [item] = [...catalogue.item.values()];
    const edited = apply(catalogue, [setField(catalogue, "item", item.id, "level", 99)]);
    if (!edited.ok) throw new Error("edit");
    const base = time(() => floor(network), 25);
    const rows: [string, Timing][] = [
      ["compile", time(() => compile(catalogue))],
      ["obtainable", time(() => obtainable(network))],
      ["components", time(() => components(network, network.usedBy).count)],
      ["least cost", time(() => leastCost(network, readings.own.value))],
      ["gaining loops", time(() => gains(network, readings.reach))],
      ["loops", time(() => loops(network, readings.reach, readings.gain))],
      ["all readings", time(() => readingsOf(catalogue), 5)],
      ["readings, checks, board", time(() => boardOf(catalogue), 5)],
      ["an item's edit, with ripple", time(() => rippleOf(state.board, boardOf(edited.catalogue, readingsOf(edited.catalogue, readings), state)), 5)],
    ];
    const lines = catalogue.recipe.size && [...catalogue.recipe.values()].reduce((t, r) => t + r.lines.length, 0);
    const bytes = [network.uses, network.makes, network.needs, network.usedBy, network.madeBy, network.neededBy].reduce((t, r) => t + r.ptr.byteLength + r.to.byteLength + r.qty.byteLength, 0);
    console.log(`\n${items} items, ${catalogue.recipe.size} recipes, ${lines} lines, ${planted} loops planted, ${readings.gain.gains.length} found${readings.gain.complete ? "" : " (search stopped)"}; ${(bytes / items).toFixed(0)} bytes of arrays an item`);
    console.log(`  ${"".padEnd(30)}${"× one pass".padStart(12)}${"low".padStart(9)}${"high".padStart(9)}`);
    for (const [name, t] of rows) console.log(`  ${name.padEnd(30)}${(t.median / base.median).toFixed(1).padStart(12)}${(t.low / base.median).toFixed(1).padStart(9)}${(t.high / base.median).toFixed(1).padStart(9)}`);
    report.push({ items, planted, found: readings.gain.gains.length, bytesPerItem: bytes / items, floor: base, ratios: Object.fromEntries(rows.map(([name, t]) => [name, { median: t.median / base.median, low: t.low / base.median, high: t.high / base.median }])) });
  }
mkdirSync("bench/results", { recursive: true });
writeFileSync("bench/results/latest.json", `${JSON.stringify({ node: process.version, report }, null, 1)}\n`);
console.log(`\nWritten to bench/results/latest.json${sink < 0 ? "!" : ""}`);
