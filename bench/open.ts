/** Opens the generator's pantry with all checks, and tells how that went; for a child with a limit on its memory. */
import { Engine } from "../src/core/engine/engine";
import { largeCatalogue } from "./pantry";

const items = Number(process.argv[2]);
const { catalogue } = largeCatalogue({ items, seed: 1, deadlocks: Math.ceil(items / 1000) });
const engine = new Engine(catalogue);
const model = engine.model();
process.send?.({
  complete: model.complete,
  gains: model.findings.filter((f) => f.rule === "gaining-loop").length,
  stuck: model.findings.filter((f) => f.rule === "stuck-loop").length,
  findings: model.findings.length,
  steps: engine.steps,
  peakBytes: process.resourceUsage().maxRSS * 1024,
});
