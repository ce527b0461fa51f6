/** Measures in processes and threads of their own, so that what one holds does not weigh on the others. */
import { fork } from "node:child_process";
import { fileURLToPath } from "node:url";
import { Worker } from "node:worker_threads";
import { ENGINE_ENV, engineFlags } from "../src/server/engine-flags";

export interface Job {
  readonly job: "readings" | "full" | "edits" | "graph";
  readonly items: number;
}

/**
 * Largest heap of objects in the full analysis [MB]; arrays come on top. So that garbage is cleared away rather than
 * heaped up.
 */
const HEAP = 512;

/** In another process; what it says goes to the same screen. */
export const inProcess = <T>(file: string, job: Job): Promise<T> =>
  new Promise((done, failed) => {
    const child = fork(fileURLToPath(file), [JSON.stringify(job)], {
      execArgv: engineFlags(job.job === "full" ? HEAP : 6000),
      env: { ...process.env, ...ENGINE_ENV },
    });
    let said: T | undefined;
    child.once("message", (result) => {
      said = result as T;
    });
    child.once("error", failed);
    child.once("exit", (code) =>
      said === undefined
        ? failed(new Error(`${job.job} of ${job.items} items ended with code ${code} and said nothing`))
        : done(said),
    );
  });

/** In another thread, for what recurses and needs a large stack. */
export const inThread = <T>(file: string, job: Job): Promise<T> =>
  new Promise((done, failed) => {
    const worker = new Worker(new URL(file), {
      workerData: job,
      resourceLimits: { stackSizeMb: 800, maxOldGenerationSizeMb: 6000 },
    });
    worker.once("message", done);
    worker.once("error", failed);
  });
