/**
 * The engines of this process: one per pantry in use, each in a thread of its own as long as there is room; fed by
 * committed changes only.
 */
import type { EntityManager } from "@mikro-orm/postgresql";
import anyAscii from "any-ascii";
import { transliterateBy } from "../core/schema/names";
import type { Id } from "../core/schema/id";
import type { Pantry } from "../core/kinds/index";
import {
  type Committed,
  commitAll,
  createPantry,
  deletePantry,
  keepMoved,
  PantryGone,
  type Submission,
} from "../store/commit";
import { listen } from "../store/listen";
import { EDITS_IN_PART, type Write } from "../store/prepare";
import { changesAfter, type LoggedText, listPantries, loadTexts, type PantryHead, pantryByKey } from "../store/load";
import { connect, migrate, type Orm } from "../store/orm";
import { type Pooled, Pool } from "./pool";
import type { Followed, Questions, Writes } from "./questions";
import { Ration } from "./ration";
import { EngineFailed, GivenUp, Thread, ThreadLost, TookTooLong, TooBusy } from "./thread";
import type { Intent, Readied } from "./use-cases/intents";
import type { Patience, Submitted, Writer } from "./use-cases/writing";

transliterateBy(anyAscii);

/** An engine that nobody asked anything for so long is closed; it opens again when somebody does. */
const IDLE = 30 * 60_000;
/** Changes of one pantry that may wait for each other. */
const MOST_WAITING = 200;
/** Bytes of all bodies that are being read. */
const BODIES = 256 * 2 ** 20;

/**
 * What every open view is told: a change with its ripple as JSON, that it must read anew, or that the pantry is gone.
 */
export type WindowNotice =
  | { readonly tell: "change"; readonly revision: number; readonly json: string }
  | { readonly tell: "anew"; readonly revision: number }
  | { readonly tell: "gone" };

/** A change that somebody waits for. */
interface Waiting {
  readonly submission: Submission;
  readonly intent: Intent;
  readonly patience: Patience;
  readonly done: (submitted: Submitted) => void;
  readonly fail: (error: Error) => void;
}
/** Most changes that are written together, and most edits of them. */
const MOST_TOGETHER = 64;
const MOST_EDITS_TOGETHER = 2_000;
/** Changes that were written together are followed one by one where that is likely to take no longer [ms]. */
const ONE_BY_ONE = 100;
/** So long after a turn those whom it answered are waited for at most [ms]. */
const MOST_GATHERING = 40;
/** What a bundle that can't be read makes of the pantry. */
const NOTHING = { ok: false as const, issues: [], conflicts: [] };

/** Questions about what only this one thread knows. */
const NEVER_AGAIN: ReadonlySet<keyof Questions> = new Set(["committed", "more"]);

/** Takes from the queue what is written next: an import or an undo alone, edits of several people together. */
function nextBatch(queue: Waiting[]): Waiting[] {
  const batch: Waiting[] = [];
  let edits = 0;
  for (const { intent } of queue) {
    const size = intent.do === "edit" ? intent.edits.length : Number.POSITIVE_INFINITY;
    if (batch.length && (batch.length === MOST_TOGETHER || edits + size > MOST_EDITS_TOGETHER)) break;
    edits += size;
    batch.push(queue[batch.length]);
  }
  queue.splice(0, batch.length);
  return batch;
}

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
  private waiting = 0;
  private asking = 0;
  /** Changes that are not begun yet. */
  private readonly queue: Waiting[] = [];
  private scheduled = false;
  /** How many changes the last turn wrote, and when [ms]. */
  private lastTurn = { size: 0, ended: 0, took: 0 };
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
    return this.waiting > 0 || this.asking > 0 || this.queue.length > 0;
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
    if (this.waiting >= MOST_WAITING)
      return Promise.reject(new TooBusy("More people write into this pantry than it can take. Try again in a moment."));
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
    if (this.queue.length >= MOST_WAITING)
      return Promise.reject(new TooBusy("More people write into this pantry than it can take. Try again in a moment."));
    return new Promise((done, fail) => {
      this.queue.push({ submission, intent, patience, done, fail });
      this.writeSoon();
    });
  }

  /** Has the queue written in the next turn, unless that is so already. */
  private writeSoon(): void {
    if (this.scheduled) return;
    this.scheduled = true;
    const failAll = (error: Error) => {
      for (const { fail } of this.queue.splice(0)) fail(error);
    };
    this.inTurn(async () => {
      await this.gather();
      // Whoever comes while these are written is in the next turn.
      this.scheduled = false;
      const batch = nextBatch(this.queue);
      const began = performance.now();
      await this.write(batch);
      const ended = performance.now();
      this.lastTurn = { size: batch.length, ended, took: ended - began };
      if (this.queue.length) this.writeSoon();
    }).catch((error: Error) => {
      this.scheduled = false;
      failAll(error);
    });
  }

  /**
   * Waits a moment for as many changes as the last turn had: people answered together send their next ones together, and
   * whoever just missed a turn would wait for a whole one. Where nobody does, the next turn does not wait.
   */
  private async gather(): Promise<void> {
    const { size, ended, took } = this.lastTurn;
    const end = ended + Math.min(MOST_GATHERING, took / 4);
    while (this.queue.length < size && performance.now() < end) await new Promise(setImmediate);
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
      // Looked at again before each: one may take longer than those before it.
      if (performance.now() - began + this.following * (batch.length - from) > ONE_BY_ONE) k = batch.length;
      const changes = batch.slice(from, k).flatMap((_, n) => changeOf(from + n) ?? []);
      if (changes.length) await this.follow(changes, moved);
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

export class Host {
  private readonly engines = new Map<Id, Engine>();
  /** Engines by the keys that their pantries had when they were last looked up. */
  private readonly byKey = new Map<string, Engine>();
  private readonly closers = new Set<() => void>();
  private readonly stopListening: () => Promise<void>;
  private readonly sweep: NodeJS.Timeout;
  private listening = false;
  readonly pool: Pool;
  readonly bodies = new Ration(BODIES);

  private constructor(
    readonly orm: Orm,
    url: string,
    threads: number,
  ) {
    this.pool = new Pool(threads);
    this.sweep = setInterval(() => void this.closeIdle(), 60_000);
    this.sweep.unref();
    this.stopListening = listen(
      url,
      ({ pantry, revision }) => void this.heard(pantry as Id, revision),
      () => {
        this.listening = true;
        for (const engine of this.engines.values()) void engine.advance().catch(() => undefined);
      },
    );
  }

  static async open(url: string, threads = Number(process.env.SALTY_ENGINES) || 12): Promise<Host> {
    const orm = await connect(url);
    await migrate(orm);
    return new Host(orm, url, Math.max(1, Math.floor(threads)));
  }

  /** Reads the first pantries ahead, so that the first person to open one does not wait for it. */
  async warm(): Promise<void> {
    for (const { key } of (await this.pantries()).slice(0, 2)) await (await this.engine(key))?.snapshot(true);
  }

  get em(): EntityManager {
    return this.orm.em.fork() as EntityManager;
  }
  pantries = (): Promise<PantryHead[]> => listPantries(this.em);

  /**
   * The engine of a pantry by its key; null when there is none.
   * @param upToDate  whether what other processes wrote must be in already; whoever writes brings it in anyhow
   */
  async engine(key: string, { upToDate = true } = {}): Promise<Engine | null> {
    const known = upToDate || !this.listening ? undefined : this.byKey.get(key);
    if (known && known.key === key && !known.gone) {
      known.used = Date.now();
      return known;
    }
    const head = await pantryByKey(this.em, key);
    if (!head) return null;
    let engine = this.engines.get(head.id);
    if (!engine) {
      engine = new Engine(this.orm, this.pool, head.id, head.revision);
      this.engines.set(head.id, engine);
    }
    // Notices may be late or, for a moment, lost: the head says whether something is missing.
    if (upToDate) await engine.advance(head.revision);
    engine.key = key;
    this.byKey.set(key, engine);
    engine.used = Date.now();
    return engine;
  }

  private async heard(pantry: Id, revision: number): Promise<void> {
    const engine = this.engines.get(pantry);
    if (!engine) return;
    if (revision >= 0) await engine.advance(revision).catch(() => undefined);
    else await this.forget(pantry);
  }

  private async forget(pantry: Id): Promise<void> {
    const engine = this.engines.get(pantry);
    this.engines.delete(pantry);
    this.byKey.delete(engine?.key ?? "");
    await engine?.end();
  }

  /** @returns false where its key is taken */
  makePantry = (pantry: Pantry): Promise<boolean> => createPantry(this.em, pantry);

  /** Deletes a pantry and everything in it. @returns false where somebody else did already */
  async deletePantry(pantry: Id): Promise<boolean> {
    const deleted = await deletePantry(this.orm, pantry);
    await this.forget(pantry);
    return deleted;
  }

  /** Forgets engines that nobody watches and nobody asked anything for a while. */
  async closeIdle(now = Date.now()): Promise<void> {
    for (const [pantry, engine] of this.engines) {
      if (engine.watched || engine.working || now - engine.used < IDLE) continue;
      this.engines.delete(pantry);
      this.byKey.delete(engine.key ?? "");
      this.pool.leave(engine);
      await engine.park();
    }
  }
  /** Pantries whose engines are open. */
  get open(): readonly Id[] {
    return [...this.engines.keys()];
  }

  /** Something to end when the process ends, such as an event stream. */
  whenClosing(close: () => void): () => void {
    this.closers.add(close);
    return () => this.closers.delete(close);
  }
  get streams(): number {
    return this.closers.size;
  }
  closeStreams(): void {
    for (const close of this.closers) close();
  }

  get ready(): boolean {
    return this.listening;
  }

  async close(): Promise<void> {
    this.closeStreams();
    clearInterval(this.sweep);
    for (const engine of this.engines.values()) await engine.park();
    await this.stopListening();
    await this.orm.close(true);
  }
}

const shared = globalThis as unknown as { saltyHost?: Promise<Host> };
/** The host of this process, opened at first use. */
export function host(): Promise<Host> {
  if (!shared.saltyHost) {
    const url = process.env.DATABASE_URL;
    shared.saltyHost = url
      ? Host.open(url)
      : Promise.reject(new Error("DATABASE_URL is not set. Start with npm start, which sets it."));
    shared.saltyHost.catch(() => {
      shared.saltyHost = undefined;
    });
  }
  return shared.saltyHost;
}
/** The host if it was opened; never opens one. */
export const openHost = (): Promise<Host> | undefined => shared.saltyHost;
