/** The full analysis of a large pantry: compiled, all readings, loops with proofs, both costs and every check. */
import { Engine } from "../src/core/engine/engine";
import { collect } from "./measure";
import { largeCatalogue } from "./pantry";

export interface Full {
  /** Milliseconds from the records to everything the views show. */
  readonly fullMs: number;
  /** Most that the process held at any time, records included [bytes]. */
  readonly peakBytes: number;
  /** What it holds when all is done: objects and arrays, records included [bytes]. */
  readonly heldBytes: number;
  readonly findings: number;
  readonly deadlocks: number;
  readonly deadlocksFound: number;
  /** Whether all gaining loops are named, and how many: a clean pantry has none. */
  readonly complete: boolean;
  readonly gains: number;
}

export function fullAnalysis(items: number): Full {
  const deadlocks = Math.ceil(items / 1000);
  const { catalogue } = largeCatalogue({ items, seed: 1, deadlocks });
  const times: number[] = [];
  let engine: Engine | null = null;
  for (let n = items > 300_000 ? 1 : 3; n > 0; n--) {
    engine = null;
    collect();
    const began = performance.now();
    engine = new Engine(catalogue);
    times.push(performance.now() - began);
  }
  const peakBytes = process.resourceUsage().maxRSS * 1024;
  collect();
  const { heapUsed, arrayBuffers } = process.memoryUsage();
  const model = (engine as Engine).model();
  return {
    fullMs: times.sort((a, b) => a - b)[times.length >> 1],
    peakBytes,
    heldBytes: heapUsed + arrayBuffers,
    findings: model.findings.length,
    deadlocks,
    deadlocksFound: model.findings.filter((f) => f.rule === "stuck-loop").length,
    complete: model.complete,
    gains: model.findings.filter((f) => f.rule === "gaining-loop").length,
  };
}
