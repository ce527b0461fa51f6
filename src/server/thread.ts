/** The other end of an engine's thread: questions go in, answers come out, in order. */
import { join } from "node:path";
import { Worker } from "node:worker_threads";
import type { Board, Ripple } from "../core/analysis/board";
import type { ItemCosts } from "../core/analysis/item-costs";
import { type Catalogue, type Packed, packed } from "../core/catalogue/catalogue";
import type { Edit, Outcome } from "../core/catalogue/changes";
import type { Id } from "../core/catalogue/records";

export type WhatIf = { readonly ok: true; readonly revision: number; readonly edits: readonly Edit[]; readonly ripple: Ripple } | Extract<Outcome, { ok: false }>;

/** What may be asked, and what comes back. */
export interface Questions {
  open: { question: { readonly catalogue: Packed }; answer: number };
  follow: { question: { readonly edits: readonly Edit[]; readonly revision: number }; answer: Ripple };
  board: { question: object; answer: Board };
  costs: { question: { readonly item: Id }; answer: (ItemCosts & { readonly revision: number }) | null };
  whatIf: { question: { readonly edits: readonly Edit[] }; answer: WhatIf };
  /** Ends the thread at once, as a crash would; for tests. */
  fail: { question: object; answer: never };
}
export type Question = { [Q in keyof Questions]: { readonly ask: Q } & Questions[Q]["question"] }[keyof Questions];
export type Answer = { readonly id: number; readonly value: unknown } | { readonly id: number; readonly failed: string };

/** Thrown to whoever waits for a thread that is gone. */
export class ThreadLost extends Error {}
/** Thrown where the engine itself refuses. */
export class EngineFailed extends Error {}

const file = (): string => join(/* turbopackIgnore: true */ process.cwd(), "dist/engine.mjs");

export class Thread {
  private readonly worker: Worker;
  private readonly waiting = new Map<number, { done: (value: never) => void; fail: (error: Error) => void }>();
  private next = 0;
  /** True from the moment the thread is gone. */
  lost = false;

  private constructor() {
    this.worker = new Worker(file());
    this.worker.unref();
    this.worker.on("message", (said: Answer) => {
      const wait = this.waiting.get(said.id);
      this.waiting.delete(said.id);
      if ("failed" in said) wait?.fail(new EngineFailed(said.failed));
      else wait?.done(said.value as never);
    });
    const gone = (why: string) => {
      this.lost = true;
      for (const { fail } of this.waiting.values()) fail(new ThreadLost(`The engine's thread ended: ${why}`));
      this.waiting.clear();
    };
    this.worker.on("error", (error) => gone(error.message));
    this.worker.on("exit", (code) => gone(`code ${code}`));
  }

  /** A thread with the engine of a catalogue. */
  static async open(catalogue: Catalogue): Promise<Thread> {
    const thread = new Thread();
    await thread.ask("open", { catalogue: packed(catalogue, { bytes: true }) });
    return thread;
  }

  ask<Q extends keyof Questions>(ask: Q, question: Questions[Q]["question"]): Promise<Questions[Q]["answer"]> {
    if (this.lost) return Promise.reject(new ThreadLost("The engine's thread is gone."));
    return new Promise((done, fail) => {
      const id = this.next++;
      this.waiting.set(id, { done: done as never, fail });
      this.worker.postMessage({ id, question: { ask, ...question } });
    });
  }

  async end(): Promise<void> {
    this.lost = true;
    await this.worker.terminate();
  }
}
