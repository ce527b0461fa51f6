import { around } from "../catalogue/surroundings";
import type { Trial } from "../kinds/index";
import type { Id } from "../schema/id";
import { formatStep } from "../notation/trial-line";
import { canTouch, hangsOn } from "../trials/touch";
import { runTrial } from "../trials/run";
import { perRecord, ref } from "./check";

/** What each trial hung on when it was run last; a record is another object once it is edited. */
const hung = new WeakMap<Trial, ReadonlySet<Id>>();

/** A trial of which a step fails, or of which something does not hold. */
export const trialFails = perRecord<"trial">({
  id: "trial-fails",
  reads: [],
  per: ["trial"],
  *also({ catalogue }, _, edits) {
    for (const trial of catalogue.records.trial.values()) {
      const on = hung.get(trial);
      if (!on || edits.some((edit) => canTouch(edit, on))) yield trial.id;
    }
  },
  *at({ catalogue }, trial) {
    hung.set(trial, hangsOn(catalogue, trial));
    const { ok, failed, says } = runTrial(catalogue, trial);
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
