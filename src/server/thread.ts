/**
 * The other end of an engine's thread: questions wait here and go in one by one, so that one nobody waits for any more
 * is never begun.
 */
import { join } from "node:path";
import { Worker } from "node:worker_threads";
import type { PantryTexts } from "../store/load";
import type { ThreadMessage, Question, Questions } from "./questions";
import type { Patience } from "./use-cases/writing";

/** Thrown to whoever waits for a thread that is gone. */
export class ThreadLost extends Error {}
/** Thrown where the engine itself refuses. */
export class EngineFailed extends Error {}
/** Thrown where an answer takes longer than it may; the thread is ended then. */
export class TookTooLong extends Error {}
/** Thrown to whoever gave up waiting. */
export class GivenUp extends Error {}
/** Thrown where more wait already than can be answered soon. */
export class TooBusy extends Error {}

interface Waiting {
  readonly question: Question;
  readonly limit: number;
  readonly progress: Patience["progress"];
  readonly done: (value: never) => void;
  readonly fail: (error: Error) => void;
}

const MOST_WAITING = 500;
const LIMIT = 60_000;
/** So much a thread may hold before it is ended in the others' stead [MB]. */
const MEMORY = 4_096;

const file = (): string => join(/* turbopackIgnore: true */ process.cwd(), "dist/engine.mjs");

export class Thread {
  private readonly worker: Worker;
  private readonly queue: Waiting[] = [];
  private current: Waiting | null = null;
  private timer: NodeJS.Timeout | null = null;
  /** True from the moment the thread is gone. */
  lost = false;

  private constructor() {
    this.worker = new Worker(file(), { resourceLimits: { maxOldGenerationSizeMb: MEMORY } });
    this.worker.unref();
    this.worker.on("message", (said: ThreadMessage) => {
      const { current } = this;
      if ("progress" in said) {
        current?.progress?.(said.progress);
        return;
      }
      this.next();
      if ("failed" in said) current?.fail(new EngineFailed(said.failed));
      else current?.done(said.value as never);
    });
    this.worker.on("error", (error) => this.gone(new ThreadLost(`The engine's thread ended: ${error.message}`)));
    this.worker.on("exit", (code) => this.gone(new ThreadLost(`The engine's thread ended: code ${code}`)));
  }

  /** A thread with the engine of a pantry. */
  static async open(texts: PantryTexts): Promise<Thread> {
    const thread = new Thread();
    await thread.ask("open", { texts }, { limit: 10 * LIMIT });
    return thread;
  }

  get busy(): boolean {
    return this.current !== null || this.queue.length > 0;
  }

  ask<Q extends keyof Questions>(
    ask: Q,
    question: Questions[Q]["question"],
    { limit = LIMIT, signal, progress }: Patience = {},
  ): Promise<Questions[Q]["answer"]> {
    if (this.lost) return Promise.reject(new ThreadLost("The engine's thread is gone."));
    if (this.queue.length >= MOST_WAITING)
      return Promise.reject(
        new TooBusy("More is asked of this pantry than can be answered soon. Try again in a moment."),
      );
    if (signal?.aborted) return Promise.reject(new GivenUp("Nobody waits for this any more."));
    return new Promise((done, fail) => {
      const waiting: Waiting = {
        question: { ask, ...question } as Question,
        limit,
        progress,
        done: done as never,
        fail,
      };
      this.queue.push(waiting);
      signal?.addEventListener("abort", () => {
        const at = this.queue.indexOf(waiting);
        if (at >= 0) this.queue.splice(at, 1);
        fail(new GivenUp("Nobody waits for this any more."));
      });
      if (!this.current) this.next();
    });
  }

  private next(): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    this.current = this.queue.shift() ?? null;
    if (!this.current) return;
    const { limit, question } = this.current;
    this.timer = setTimeout(() => {
      this.gone(new TookTooLong(`This took longer than ${Math.round(limit / 1000)} s and was ended.`));
      void this.worker.terminate();
    }, limit);
    this.timer.unref();
    this.worker.postMessage(question);
  }

  private gone(why: Error): void {
    if (this.timer) clearTimeout(this.timer);
    this.lost = true;
    this.current?.fail(why);
    this.current = null;
    // What was not begun can be asked of another thread.
    for (const { fail } of this.queue.splice(0)) fail(new ThreadLost("The engine's thread is gone."));
  }

  async end(): Promise<void> {
    this.gone(new ThreadLost("The engine's thread was ended."));
    await this.worker.terminate();
  }
}
