/**
 * The other end of one of an engine's processes: questions wait here and go in one by one, so that one no one waits for
 * any more is never begun.
 *
 * A process of its own, not a thread: where V8 runs out of memory it ends the whole process it is in, whatever limit a
 * thread has.
 */
import { type ChildProcess, fork } from "node:child_process";
import { join } from "node:path";
import type { PantryTexts } from "../store/texts";
import { Failure } from "./failures";
import type { ChildMessage, QuestionsOf, Role } from "./questions";
import type { Patience } from "./use-cases/writing";
import { ENGINE_ENV, engineFlags } from "./engine-flags";

interface Waiting {
  readonly question: object;
  readonly limit: number;
  readonly progress: Patience["progress"];
  readonly done: (value: never) => void;
  readonly fail: (error: Error) => void;
}

const MOST_WAITING = 500;
/** So long a question may take, and the opening of a pantry [ms]. */
const LIMIT = 60_000;
const OPENING = 10 * LIMIT;

/** So much one process may hold before it is ended, for the sake of the others [MB]. */
const memoryLimit = (): number => Math.max(64, Number(process.env.SALTY_ENGINE_MEMORY) || 4_096);

const file = (): string => join(/* turbopackIgnore: true */ process.cwd(), "dist/engine.mjs");

export class EngineChild<R extends Role> {
  private readonly child: ChildProcess;
  private readonly queue: Waiting[] = [];
  private current: Waiting | null = null;
  private timer: NodeJS.Timeout | null = null;
  /** True from the moment the process is gone. */
  lost = false;

  private constructor(role: Role) {
    const most = memoryLimit();
    this.child = fork(file(), [], {
      serialization: "advanced",
      execArgv: engineFlags(most),
      stdio: ["ignore", "ignore", "inherit", "ipc"],
      env: { ...process.env, ...ENGINE_ENV, NODE_OPTIONS: "", SALTY_ROLE: role, SALTY_ENGINE_MEMORY: String(most) },
    });
    this.child.unref();
    this.child.channel?.unref();
    this.child.on("message", (said) => this.heard(said as ChildMessage));
    this.child.on("error", (error) => this.gone(new Failure("lost", `The engine's process ended: ${error.message}`)));
    this.child.on("exit", (code, signal) =>
      this.gone(new Failure("lost", `The engine's process ended: ${signal ?? `code ${code}`}`)),
    );
  }

  /** A process with a pantry. */
  static async open<R extends Role>(texts: PantryTexts, role: R): Promise<EngineChild<R>> {
    const child = new EngineChild<R>(role);
    try {
      await child.ask("open", { texts, role } as never, { limit: OPENING });
    } catch (error) {
      child.end();
      throw error;
    }
    return child;
  }

  get pid(): number | undefined {
    return this.child.pid;
  }
  get busy(): boolean {
    return this.current !== null || this.queue.length > 0;
  }

  ask<Q extends keyof QuestionsOf<R>>(
    ask: Q,
    question: QuestionsOf<R>[Q] extends { question: infer A } ? A : never,
    { limit = LIMIT, signal, progress }: Patience = {},
  ): Promise<QuestionsOf<R>[Q] extends { answer: infer A } ? A : never> {
    if (this.lost) return Promise.reject(new Failure("lost", "The engine's process has ended."));
    if (this.queue.length >= MOST_WAITING)
      return Promise.reject(new Failure("too busy", "This pantry receives too many requests. Try again in a moment."));
    if (signal?.aborted) return Promise.reject(new Failure("given up", "The request was cancelled."));
    return new Promise((done, fail) => {
      const waiting: Waiting = {
        question: { ask, ...(question as object) },
        limit,
        progress,
        done: done as never,
        fail,
      };
      this.queue.push(waiting);
      signal?.addEventListener("abort", () => {
        const at = this.queue.indexOf(waiting);
        if (at >= 0) this.queue.splice(at, 1);
        fail(new Failure("given up", "The request was cancelled."));
      });
      if (!this.current) this.next();
    });
  }

  private heard(said: ChildMessage): void {
    const { current } = this;
    if ("progress" in said) {
      current?.progress?.(said.progress);
      return;
    }
    this.next();
    if ("failed" in said) current?.fail(new Failure("engine failed", said.failed));
    else current?.done(said.value as never);
  }

  private next(): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    this.current = this.queue.shift() ?? null;
    if (!this.current) return;
    const { limit, question } = this.current;
    this.timer = setTimeout(
      () => this.stop(new Failure("too long", `This took longer than ${Math.round(limit / 1000)} s and was stopped.`)),
      limit,
    );
    this.timer.unref();
    this.child.send(question, (error) => {
      if (error) this.stop(new Failure("lost", `The engine's process can't be reached: ${error.message}`));
    });
  }

  private gone(why: Failure): void {
    if (this.timer) clearTimeout(this.timer);
    this.lost = true;
    this.current?.fail(why);
    this.current = null;
    // What was not begun can be asked of another process.
    for (const { fail } of this.queue.splice(0)) fail(new Failure("lost", "The engine's process has ended."));
  }

  private stop(why: Failure): void {
    this.gone(why);
    this.child.kill("SIGKILL");
  }

  /** Ends it at once, whatever it is doing. */
  end(): void {
    this.stop(new Failure("lost", "The engine's process was stopped."));
  }
}
