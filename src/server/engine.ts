/**
 * An open pantry: its engine in a thread of its own, fed by committed changes only; the views that follow it; and whoever
 * writes into it.
 */
import type { EntityManager } from "@mikro-orm/postgresql";
import type { Id } from "../core/schema/id";
import { type Committed, commitAll, keepMoved, PantryGone, type Submission } from "../store/commit";
import { changesAfter, type LoggedText, loadTexts } from "../store/load";
import type { Orm } from "../store/orm";
import { EDITS_IN_PART, type Write } from "../store/prepare";
import type { Pool, Pooled } from "./pool";
import type { Followed, Questions, Writes } from "./questions";
import { EngineFailed, GivenUp, Thread, ThreadLost, TookTooLong } from "./thread";
import type { Intent, Readied } from "./use-cases/intents";
import type { Patience, Submitted, Writer } from "./use-cases/writing";
import { MOST_WAITING, tooBusy, type Waiting, WriteQueue } from "./write-queue";

/**
 * What every open view is told: a change with its ripple as JSON, that it must read anew, or that the pantry is gone.
 */
export type WindowNotice =
  | { readonly tell: "change"; readonly revision: number; readonly json: string }
  | { readonly tell: "anew"; readonly revision: number }
  | { readonly tell: "gone" };

/** Changes that were written together are followed one by one where that is likely to take no longer [ms]. */
const ONE_BY_ONE = 100;
/** What a bundle that can't be read makes of the pantry. */
const NOTHING = { ok: false as const, issues: [], conflicts: [] };

/** Questions about what only this one thread knows. */
const NEVER_AGAIN: ReadonlySet<keyof Questions> = new Set(["committed", "more"]);

/** Whether a failure may be due to one change of several: the engine or the database refused, and nothing was written. */
const mayBeOneAlone = (error: unknown): boolean =>
  error instanceof ThreadLost ||
  error instanceof EngineFailed ||
  error instanceof TookTooLong ||
  (error as { code?: string }).code?.startsWith("23") === true;

export class Engine implements Pooled, Writer {
  private readonly watchers = new Set<(told: WindowNotice) => void>();
  private thread: Thread | null = null;
  private opening: Promise<Thread> | null = null;
  private last: Promise<unknown> = Promise.resolve();
  private readonly queue = new WriteQueue(
    (work) => this.inTurn(work),
    (batch) => this.write(batch),
  );
  private waiting = 0;
  private asking = 0;
  /** How long following takes, smoothed [ms]. */
  private following = 0;
  /** What the thread's readings are readings of, and what views were last told. */
  revision: number;
  used = Date.now();
  gone = false;
  /** The pantry's key, as far as it is known to be so still. */
  key: string | null = null;
  private zipped: { revision: number; body: Uint8Array } | null = null;

  constructor(
    private readonly orm: Orm,
    private readonly pool: Pool,
    readonly pantry: Id,
    revision: number,
  ) {
    this.revision = revision;
  }

  get running(): boolean {
    return this.thread !== null && !this.thread.lost;
  }
  get working(): boolean {
    return this.waiting > 0 || this.asking > 0 || this.queue.size > 0;
  }
  get watched(): boolean {
    return this.watchers.size > 0;
  }
  watch(watcher: (told: WindowNotice) => void): () => void {
    this.watchers.add(watcher);
    return () => this.watchers.delete(watcher);
  }
  private tell(told: WindowNotice): void {
    for (const watcher of this.watchers) watcher(told);
  }

  async park(): Promise<void> {
    const { thread } = this;
    this.thread = null;
    this.zipped = null;
    await thread?.end();
  }
  /** Ends it for good: nobody finds the pantry any more. */
  async end(): Promise<void> {
    this.gone = true;
    this.tell({ tell: "gone" });
    this.pool.leave(this);
    await this.park();
  }

  /** The thread, opened on what is stored where there is none. */
  private async opened(): Promise<Thread> {
    if (this.thread && !this.thread.lost) return this.thread;
    this.opening ??= this.pool
      .lodge(this, () => this.open())
      .finally(() => {
        this.opening = null;
      });
    return this.opening;
  }

  private async open(): Promise<Thread> {
    const texts = this.gone ? null : await loadTexts(this.orm.em.fork() as EntityManager, this.pantry);
    if (!texts) throw new PantryGone("There is no such pantry any more.");
    const lost = this.thread;
    this.thread = await Thread.open(texts);
    this.zipped = null;
    // Whoever watches was not told what happened in between.
    const missed = lost !== null || texts.revision !== this.revision;
    this.revision = texts.revision;
    if (missed) this.tell({ tell: "anew", revision: this.revision });
    return this.thread;
  }

  /**
   * Asks the thread; where it is gone before it was begun or crashes, a new one is opened on the stored pantry and
   * asked once more.
   */
  async ask<Q extends keyof Questions>(
    ask: Q,
    question: Questions[Q]["question"],
    patience: Patience = {},
  ): Promise<Questions[Q]["answer"]> {
    this.used = Date.now();
    this.asking++;
    try {
      const thread = await this.opened();
      try {
        return await thread.ask(ask, question, patience);
      } catch (error) {
        if (!(error instanceof ThreadLost) || NEVER_AGAIN.has(ask) || this.gone) throw error;
        return await (await this.opened()).ask(ask, question, patience);
      }
    } finally {
      this.asking--;
      this.pool.freed();
    }
  }

  /** All records and readings as JSON, zipped where asked for; made once per revision then. */
  async snapshot(zip: boolean): Promise<Uint8Array> {
    if (!zip) return (await this.ask("snapshot", { zip })).body;
    if (this.zipped?.revision === this.revision && this.running) return this.zipped.body;
    this.zipped = await this.ask("snapshot", { zip });
    return this.zipped.body;
  }

  /** One after the other, and never more at once than can be done soon. */
  private inTurn<T>(work: () => Promise<T>): Promise<T> {
    if (this.waiting >= MOST_WAITING) return Promise.reject(tooBusy());
    this.waiting++;
    const next = this.last.then(work).finally(() => {
      this.waiting--;
      this.pool.freed();
    });
    this.last = next.catch(() => undefined);
    return next;
  }

  /** Reads the changes of other processes that are not in yet. */
  advance(revision = Number.POSITIVE_INFINITY): Promise<void> {
    if (revision <= this.revision) return Promise.resolve();
    return this.inTurn(async () => {
      if (revision <= this.revision) return;
      if (!this.running && !this.opening) {
        // Nobody asks for readings now: views read anew, which opens it.
        this.key = null;
        if (Number.isFinite(revision)) {
          this.revision = revision;
          this.tell({ tell: "anew", revision });
        }
        return;
      }
      await this.bring(this.orm.em.fork() as EntityManager);
    });
  }

  /** Follows what is committed beyond what the thread has. */
  private async bring(em: EntityManager): Promise<void> {
    await this.opened();
    for (const change of await changesAfter(em, this.pantry, this.revision)) {
      // Reading a large change piece by piece would take longer than reading what stands there now.
      if (change.size > EDITS_IN_PART) return this.restart();
      try {
        const followed = await this.ask("follow", { edits: change.edits, revision: change.revision });
        this.took([change], followed);
        if (change.moved === null)
          await keepMoved(em, this.pantry, [[change.revision, followed.moved]]).catch(() => undefined);
      } catch (error) {
        if (error instanceof PantryGone) throw error;
        // The stored records are the truth; a change that does not fit them means this copy went astray.
        return this.restart();
      }
    }
  }

  /** What several changes moved together is not what each of them moved: then none says so. */
  private took(changes: readonly LoggedText[], { ripple, moved }: Followed): void {
    const { revision } = changes[changes.length - 1];
    this.revision = revision;
    if (changes.some(({ edits, size }) => size > EDITS_IN_PART || edits.includes('"pantry"'))) this.key = null;
    if (ripple === null || changes.some(({ size }) => size > EDITS_IN_PART)) {
      this.tell({ tell: "anew", revision });
      return;
    }
    const logged = changes.map(
      ({ edits, ...head }) =>
        `${JSON.stringify(head).slice(0, -1)},"moved":${changes.length === 1 ? moved : null},"edits":${edits}}`,
    );
    this.tell({ tell: "change", revision, json: `{"changes":[${logged.join(",")}],"ripple":${ripple}}` });
  }

  /** A new thread on what is stored. */
  private async restart(): Promise<void> {
    await this.thread?.end();
    await this.opened();
  }

  /**
   * Makes a change of what is intended, commits it and follows it. Changes that wait at the same time are made one behind
   * the other and committed together, each with its own revision, refusal or conflict. Once a change is committed it
   * counts, whatever becomes of the following: views that were not told read anew.
   */
  submit(submission: Submission, intent: Intent, patience: Patience = {}): Promise<Submitted> {
    this.used = Date.now();
    return this.queue.submit(submission, intent, patience);
  }

  /** Writes changes together; where that fails before anything is written, one by one, so that each fails for itself. */
  private async write(all: readonly Waiting[]): Promise<void> {
    const batch = all.filter(({ patience, fail }) => {
      if (patience.signal?.aborted) fail(new GivenUp("Nobody waits for this any more; nothing was written."));
      return !patience.signal?.aborted;
    });
    if (!batch.length) return;
    let written = false;
    try {
      // Opened before the transaction begins: within it, no second connection is waited for.
      await this.opened();
      let readied: readonly Readied[] = [];
      const outcomes = await commitAll(
        this.orm,
        this.pantry,
        batch.map((w) => w.submission),
        async (em, revision) => {
          await this.opened();
          if (this.revision < revision) await this.bring(em);
          if (this.revision !== revision) await this.restart();
          if (this.revision !== revision) throw new Error("The pantry can't be read at the revision it is at.");
          const patience = batch.length === 1 ? batch[0].patience : {};
          const made = await this.ask("prepare", { intents: batch.map((w) => w.intent) }, patience);
          readied = made.readied;
          const answers = readied.map((r) => ("answer" in r ? r.answer : NOTHING));
          const of = answers.reduce((sum, a) => sum + (a.ok ? a.size : 0), 0);
          return { answers, writes: this.writes(made, of, patience) };
        },
      );
      written = true;
      await this.answer(batch, outcomes, readied);
    } catch (error) {
      if (written || batch.length === 1 || !mayBeOneAlone(error)) for (const { fail } of batch) fail(error as Error);
      else for (const each of batch) await this.write([each]);
    }
  }

  /** What is to be written, asked for while it is written; ends with an error once nobody waits for it any more. */
  private async *writes(first: Writes, of: number, patience: Patience): AsyncGenerator<Write> {
    let done = 0;
    for (let some = first; ; some = await this.ask("more", {}, patience)) {
      for (const write of some.writes) {
        if (patience.signal?.aborted) throw new GivenUp("Nobody waits for this any more; nothing was written.");
        yield write;
        done += "records" in write ? (write.records ?? 0) : 0;
        patience.progress?.({ stage: "writing", done, of });
      }
      if (!some.more) return;
    }
  }

  /**
   * Follows what is committed and answers whoever sent it: change by change where that is quick, so that each can say
   * what it moved; otherwise all at once, which takes hardly longer than one.
   */
  private async answer(
    batch: readonly Waiting[],
    outcomes: readonly Committed[],
    readied: readonly Readied[],
  ): Promise<void> {
    const moved: [number, string][] = [];
    const answers = batch.map(({ done }, k) => () => {
      const ready = readied[k];
      done("issues" in ready ? ready : { committed: outcomes[k], plan: ready.plan });
    });
    const changeOf = (k: number) => {
      const committed = outcomes[k];
      return committed.ok ? (committed.change ?? null) : null;
    };
    const began = performance.now();
    for (let k = 0; k < batch.length; ) {
      const from = k++;
      // Looked at again before each: one may take longer than those before it, and others may have come.
      const left = batch.length - from;
      const takes = performance.now() - began + this.following * left;
      if (takes > ONE_BY_ONE || this.queue.size > left) k = batch.length;
      const changes = batch.slice(from, k).flatMap((_, n) => changeOf(from + n) ?? []);
      if (changes.length) await this.follow(changes, moved);
      if (from === 0) this.queue.answering();
      for (const answer of answers.slice(from, k)) answer();
    }
    if (moved.length) await keepMoved(this.orm.em.fork() as EntityManager, this.pantry, moved).catch(() => undefined);
  }

  private async follow(changes: readonly LoggedText[], moved: [number, string][]): Promise<void> {
    const { revision } = changes[changes.length - 1];
    if (revision <= this.revision) return;
    const began = performance.now();
    try {
      const followed = await this.ask("committed", { revision });
      // The last weighs a third: what is quick again is noticed soon, and one slow change does not decide alone.
      this.following += (performance.now() - began - this.following) / 3;
      this.took(changes, followed);
      if (changes.length === 1) moved.push([revision, followed.moved]);
    } catch (error) {
      console.error(error);
      await this.restart().catch((failed: Error) => console.error(failed.message));
    }
  }

  /** What an intent would do, without doing it. */
  async plan(intent: Intent, patience: Patience = {}): Promise<Readied> {
    return this.inTurn(async () => (await this.ask("prepare", { intents: [intent] }, patience)).readied[0]);
  }
}
