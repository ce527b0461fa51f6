/** Trials that fail, and trials that were not run because they need more work than a pantry's trials may take. */
import { Budget } from "../budget/budget";
import { around } from "../catalogue/surroundings";
import type { Catalogue } from "../catalogue/catalogue";
import type { Edit } from "../catalogue/edit";
import type { Trial } from "../kinds/index";
import { sayQuantity } from "../numbers/format";
import type { Id } from "../schema/id";
import { formatStep } from "../notation/trial-line";
import { canTouch, hangsOn } from "../trials/touch";
import { runTrial, TRIAL_STEPS } from "../trials/run";
import { type CheckContext, type FindingCache, perRecord, ref } from "./check";

/** Steps that all trials of a pantry may take together: about half a second. */
export const ALL_TRIALS = 3 * TRIAL_STEPS;

/** What became of a trial with so many steps at its disposal. */
interface Run {
  readonly trial: Trial;
  readonly on: ReadonlySet<Id>;
  readonly given: number;
  readonly spent: number;
  readonly failed: number;
  readonly message: string;
  readonly ok: boolean;
  readonly stopped: boolean;
}

/**
 * The trials of a pantry, run in the order of their keys within one budget: each takes what it needs of what those
 * before it left. So what is found of a trial is the same whatever was edited before, and an edit runs those again that
 * it can touch.
 */
class TrialBoard {
  private runs = new Map<Id, Run>();
  constructor(private catalogue: Catalogue) {
    this.runAll();
  }

  of(trial: Id): Run | undefined {
    return this.runs.get(trial);
  }

  at(catalogue: Catalogue): void {
    if (catalogue === this.catalogue) return;
    this.catalogue = catalogue;
    this.runs = new Map();
    this.runAll();
  }

  /** Follows edits. @returns trials of which something else is to be said now */
  follow(catalogue: Catalogue, edits: readonly Edit[]): Id[] {
    if (catalogue === this.catalogue) return [];
    this.catalogue = catalogue;
    const before = this.runs;
    this.runs = new Map(
      [...before].filter(
        ([id, { trial, on }]) => catalogue.records.trial.get(id) === trial && !edits.some((e) => canTouch(e, on)),
      ),
    );
    this.runAll();
    return [...this.runs.values()].flatMap((run) => (before.get(run.trial.id) === run ? [] : run.trial.id));
  }

  private runAll(): void {
    const { catalogue } = this;
    const trials = [...catalogue.records.trial.values()].sort((a, b) => (a.key < b.key ? -1 : 1));
    let left = ALL_TRIALS;
    for (const trial of trials) {
      const given = Math.min(TRIAL_STEPS, left);
      let run = this.runs.get(trial.id);
      // One that ended needs no more than it took; one that was stopped would be stopped again with as little.
      if (!run || (run.stopped ? run.given !== given : run.spent > given)) {
        const on = run?.on ?? hangsOn(catalogue, trial);
        const budget = new Budget(given);
        const { ok, stopped, failed, message } =
          given < LEAST ? { ok: false, stopped: true, failed: 0, message: "" } : runTrial(catalogue, trial, budget);
        run = { trial, on, given, spent: Math.min(given, budget.spent), failed, message, ok, stopped };
        this.runs.set(trial.id, run);
      }
      left -= run.spent;
    }
  }
}
/** With fewer steps than these a trial is not begun. */
const LEAST = 10_000;

const boards = new WeakMap<FindingCache, TrialBoard>();
function boardOf({ told, catalogue }: CheckContext): TrialBoard {
  const board = boards.get(told) ?? new TrialBoard(catalogue);
  boards.set(told, board);
  return board;
}
function runOf(context: CheckContext, trial: Trial): Run | undefined {
  const board = boardOf(context);
  board.at(context.catalogue);
  return board.of(trial.id);
}

/** A trial of which a step fails, or of which something does not hold. */
export const trialFails = perRecord<"trial">({
  id: "trial-fails",
  reads: [],
  per: ["trial"],
  also: (context, _, edits) => boardOf(context).follow(context.catalogue, edits),
  *at(context, trial) {
    const run = runOf(context, trial);
    if (!run || run.ok || run.stopped) return;
    yield {
      subject: ref(context.catalogue, "trial", trial.id),
      message: `${trial.name} fails${run.failed < 0 ? "" : ` at step ${run.failed + 1}`}: ${run.message}`,
      evidence: { type: "names", names: stepOf(context.catalogue, run) },
      fixes: [{ message: `Open ${trial.name}`, do: "open", kind: "trial", id: trial.id }],
    };
  },
});

/** A trial that needs more work than there is for it: no one knows whether it holds. */
export const trialNotRun = perRecord<"trial">({
  id: "trial-not-run",
  reads: [],
  per: ["trial"],
  // Asked after the one above, which follows the board.
  also: ({ catalogue }) => catalogue.records.trial.keys(),
  *at(context, trial) {
    const run = runOf(context, trial);
    if (!run?.stopped) return;
    const alone = run.given === TRIAL_STEPS;
    yield {
      subject: ref(context.catalogue, "trial", trial.id),
      message: alone
        ? `The trial ${trial.name} was stopped: it needs more than ${sayQuantity(run.given)} steps${run.failed < 0 ? "" : ` at step ${run.failed + 1}`}.`
        : `The trial ${trial.name} was not run: the trials before it left only ${sayQuantity(run.given)} of ${sayQuantity(ALL_TRIALS)} steps.`,
      evidence: {
        type: "names",
        names: alone
          ? [
              ...stepOf(context.catalogue, run),
              "Use shorter waits, fewer repetitions or smaller tables, or split the trial.",
            ]
          : ["Shorten or remove trials whose keys come before it."],
      },
      fixes: [{ message: `Open ${trial.name}`, do: "open", kind: "trial", id: trial.id }],
    };
  },
});

/** The step that fails, as it is typed. */
function stepOf(catalogue: Catalogue, { trial, failed }: Run): string[] {
  const step = trial.steps[failed];
  return step ? [formatStep(step, around(catalogue))] : [];
}
