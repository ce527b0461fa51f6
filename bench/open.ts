/** Opens the generator's pantry with all checks, and tells how that went; for a child with a limit on its memory. */
import { Engine } from "../src/core/engine/engine";
import { collect } from "./measure";
import { largeCatalogue } from "./pantry";

const items = Number(process.argv[2]);
const { catalogue } = largeCatalogue({ items, seed: 1, deadlocks: Math.ceil(items / 1000) });
const engine = new Engine(catalogue);
const counts = engine.counts();
collect();
const { heapUsed, arrayBuffers } = process.memoryUsage();
process.send?.({
  complete: engine.readings.gain.complete,
  gains: counts.get("gaining-loop") ?? 0,
  stuck: counts.get("stuck-loop") ?? 0,
  steps: engine.steps,
  heldBytes: heapUsed + arrayBuffers,
  peakBytes: process.resourceUsage().maxRSS * 1024,
});
