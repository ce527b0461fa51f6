/** The full analysis of a large pantry: compiled, all readings, loops with proofs, both costs and every check. */
import { Engine } from "../src/core/engine/engine";
import { collect, time } from "./measure";
import { largeCatalogue } from "./pantry";

export interface Full {
  /**
   * Milliseconds from the records to everything the views show, once the machine has compiled what it runs; of very large
   * pantries, where that is nothing beside the whole, the first time.
   */
  readonly fullMs: number;
  /** The first time, in a process that has just begun: what opening a pantry takes. */
  readonly firstMs: number;
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

/** Openings before the time is taken, as far as they fit into so many milliseconds. */
const [WARM_RUNS, WARM_MS] = [16, 5_000];

export function fullAnalysis(items: number): Full {
  const deadlocks = Math.ceil(items / 1000);
  const { catalogue } = largeCatalogue({ items, seed: 1, deadlocks });
  let engine: Engine | null = null;
  const open = () => {
    engine = null;
    engine = new Engine(catalogue);
    return engine.revision;
  };
  collect();
  const began = performance.now();
  open();
  const firstMs = performance.now() - began;
  // What runs often is compiled in several steps: a small pantry is opened until all of it is.
  for (let run = 0; run < WARM_RUNS && performance.now() - began < WARM_MS; run++) open();
  const fullMs = items > 300_000 ? firstMs : time(open, 3).median;
  const peakBytes = process.resourceUsage().maxRSS * 1024;
  collect();
  const { heapUsed, arrayBuffers } = process.memoryUsage();
  const { readings } = engine as unknown as Engine;
  // Of a million items as objects all findings would take more than everything else.
  const counts = (engine as unknown as Engine).counts();
  return {
    fullMs,
    firstMs,
    peakBytes,
    heldBytes: heapUsed + arrayBuffers,
    findings: [...counts.values()].reduce((sum, n) => sum + n, 0),
    deadlocks,
    deadlocksFound: counts.get("stuck-loop") ?? 0,
    complete: readings.gain.complete,
    gains: counts.get("gaining-loop") ?? 0,
  };
}
