import { around } from "../catalogue/surroundings";
import type { Catalogue } from "../catalogue/catalogue";
import type { Edit } from "../catalogue/edit";
import type { Trial } from "../kinds/index";
import { formatStep } from "../notation/trial-line";
import { runTrial, type TrialRun } from "../trials/run";
import { perRecord, ref } from "./check";

/** Kinds that no trial can depend on. */
const ASIDE: ReadonlySet<string> = new Set(["view", "mapping", "series", "wordlist", "rarity", "tag", "trial"]);
/** Fields that change nothing of what happens. */
const SAID: ReadonlySet<string> = new Set(["note", "description", "icon", "help", "colour", "rarity", "tags", "key"]);
const matters = (edit: Edit): boolean =>
  !ASIDE.has(edit.kind) && !(edit.op === "set" && SAID.has(edit.field)) && edit.kind !== "pantry";

/** A trial of which a step fails, or of which something does not hold. */
export const trialFails = perRecord<"trial">({
  id: "trial-fails",
  reads: [],
  per: ["trial"],
  also: ({ catalogue }, _, edits) => (edits.some(matters) ? catalogue.records.trial.keys() : []),
  *at({ catalogue }, trial) {
    const { ok, failed, says } = trialRun(catalogue, trial);
    if (ok) return;
    const step = trial.steps[failed];
    const where = step ? `, step ${failed + 1} (${formatStep(step, around(catalogue))})` : "";
    yield {
      subject: ref(catalogue, "trial", trial.id),
      says: `The trial ${trial.name} fails${where}: ${says}`,
      evidence: { type: "names", names: [trial.name] },
      fixes: [{ says: `Open ${trial.name}`, do: "open", kind: "trial", id: trial.id }],
    };
  },
});

const runs = new WeakMap<Catalogue, Map<Trial, TrialRun>>();
/** A trial of a catalogue; run once for each. */
export function trialRun(catalogue: Catalogue, trial: Trial): TrialRun {
  const known = runs.get(catalogue) ?? new Map<Trial, TrialRun>();
  runs.set(catalogue, known);
  const there = known.get(trial);
  const run = there ?? runTrial(catalogue, trial);
  if (!there) known.set(trial, run);
  return run;
}
