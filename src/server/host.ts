/** The engines: one per open pantry, in a thread of its own, fed by committed changes only. */
import type { EntityManager } from "@mikro-orm/postgresql";
import type { Board, LiveEvent } from "../core/analysis/board";
import type { Catalogue } from "../core/catalogue/catalogue";
import { apply } from "../core/catalogue/changes";
import type { Id } from "../core/catalogue/records";
import { type Committed, commit, keepMoved, type Submission } from "../store/commit";
import { listen } from "../store/listen";
import { changesAfter, listPantries, loadCatalogue, type PantryHead } from "../store/load";
import { connect, migrate, type Orm } from "../store/orm";
import { type Questions, Thread, ThreadLost } from "./thread";

/** An engine that nobody asked anything for so long is closed; it opens again when somebody does. */
const IDLE = 30 * 60_000;

class Engine {
  private readonly watchers = new Set<{ changed: (event: LiveEvent) => void; astray: () => void }>();
  private last: Promise<unknown> = Promise.resolve();
  /** When it was last used [ms since 1970]. */
  used = Date.now();

  private constructor(
    private readonly orm: Orm,
    readonly pantry: Id,
    /** What the thread's readings are readings of. */
    public catalogue: Catalogue,
    private thread: Thread,
  ) {}

  static async open(orm: Orm, pantry: Id): Promise<Engine | null> {
    const catalogue = await loadCatalogue(orm.em.fork() as EntityManager, pantry);
    return catalogue && new Engine(orm, pantry, catalogue, await Thread.open(catalogue));
  }

  /** @param astray  called where changes were missed: what is shown must be read anew */
  watch(changed: (event: LiveEvent) => void, astray: () => void): () => void {
    const watcher = { changed, astray };
    this.watchers.add(watcher);
    return () => this.watchers.delete(watcher);
  }
  get watched(): boolean {
    return this.watchers.size > 0;
  }

  /** Asks the thread; where it is gone, a new one is opened on the stored pantry and asked once more. */
  async ask<Q extends keyof Questions>(ask: Q, question: Questions[Q]["question"]): Promise<Questions[Q]["answer"]> {
    this.used = Date.now();
    try {
      return await this.thread.ask(ask, question);
    } catch (error) {
      if (!(error instanceof ThreadLost) || ask === "fail") throw error;
      await this.inTurn(() => (this.thread.lost ? this.restart() : Promise.resolve()));
      return this.thread.ask(ask, question);
    }
  }

  /** The board and the catalogue it is of. */
  async state(): Promise<{ catalogue: Catalogue; board: Board }> {
    for (let tries = 0; tries < 20; tries++) {
      const board = await this.ask("board", {});
      // Answers come in order, so the two differ only where a change came in between.
      if (board.revision === this.catalogue.revision) return { catalogue: this.catalogue, board };
      await this.last.catch(() => undefined);
    }
    throw new Error("The pantry changes faster than it can be read. Try again in a moment.");
  }

  /** Reads the changes that are not in yet and follows them. One at a time. */
  advance(): Promise<void> {
    return this.inTurn(() => this.follow());
  }

  private inTurn(work: () => Promise<void>): Promise<void> {
    const next = this.last.then(work);
    this.last = next.catch(() => undefined);
    return next;
  }

  private async follow(): Promise<void> {
    const em = this.orm.em.fork() as EntityManager;
    if (this.thread.lost) return this.restart();
    for (const change of await changesAfter(em, this.pantry, this.catalogue.revision)) {
      const outcome = apply(this.catalogue, change.edits);
      // The stored records are the truth; a change that does not fit them means this copy went astray.
      if (!outcome.ok || outcome.catalogue.revision !== change.revision) return this.restart();
      const ripple = await this.thread.ask("follow", { edits: change.edits, revision: change.revision }).catch(() => null);
      if (!ripple) return this.restart();
      this.catalogue = outcome.catalogue;
      if (!change.moved) await keepMoved(em, this.pantry, change.revision, ripple.moved);
      const event = { change: { ...change, moved: ripple.moved }, ripple };
      for (const { changed } of this.watchers) changed(event);
    }
  }

  /** A new thread on what is stored. */
  private async restart(): Promise<void> {
    const fresh = await loadCatalogue(this.orm.em.fork() as EntityManager, this.pantry);
    if (!fresh) throw new Error(`Pantry ${this.pantry} is gone.`);
    const thread = await Thread.open(fresh);
    const before = this.thread;
    this.thread = thread;
    this.catalogue = fresh;
    await before.end();
    for (const { astray } of this.watchers) astray();
  }

  submit(submission: Submission): Promise<Committed> {
    this.used = Date.now();
    return commit(this.orm, this.pantry, submission, (em, revision) => this.catalogueAt(em, revision));
  }

  private async catalogueAt(em: EntityManager, revision: number): Promise<Catalogue> {
    let { catalogue } = this;
    if (catalogue.revision === revision) return catalogue;
    for (const change of await changesAfter(em, this.pantry, catalogue.revision)) {
      const outcome = apply(catalogue, change.edits);
      if (!outcome.ok) break;
      catalogue = outcome.catalogue;
    }
    if (catalogue.revision === revision) return catalogue;
    const fresh = await loadCatalogue(this.orm.em.fork() as EntityManager, this.pantry);
    if (!fresh || fresh.revision !== revision) throw new Error(`Pantry ${this.pantry} can't be read at revision ${revision}.`);
    return fresh;
  }

  end(): Promise<void> {
    return this.thread.end();
  }
}

export class Host {
  private readonly engines = new Map<Id, Promise<Engine | null>>();
  private readonly closers = new Set<() => void>();
  private readonly deaf: () => Promise<void>;
  private readonly sweep: NodeJS.Timeout;
  private listening = false;

  private constructor(
    readonly orm: Orm,
    url: string,
  ) {
    this.sweep = setInterval(() => void this.closeIdle(), 60_000);
    this.sweep.unref();
    this.deaf = listen(
      url,
      ({ pantry }) => void this.catchUp(pantry as Id),
      () => {
        this.listening = true;
        for (const pantry of this.engines.keys()) void this.catchUp(pantry);
      },
    );
  }

  static async open(url: string): Promise<Host> {
    const orm = await connect(url);
    await migrate(orm);
    return new Host(orm, url);
  }

  /** Reads every pantry ahead, so that the first person to open one does not wait for it. */
  async warm(): Promise<void> {
    for (const { key } of await this.pantries()) await this.engine(key);
  }

  get em(): EntityManager {
    return this.orm.em.fork() as EntityManager;
  }

  pantries = (): Promise<PantryHead[]> => listPantries(this.em);

  /** The engine of a pantry by its key; null when there is none. */
  async engine(key: string): Promise<Engine | null> {
    const head = (await this.pantries()).find((p) => p.key === key);
    if (!head) return null;
    let engine = this.engines.get(head.id);
    if (!engine) {
      engine = Engine.open(this.orm, head.id);
      engine.catch(() => this.engines.delete(head.id));
      this.engines.set(head.id, engine);
    }
    const ready = await engine;
    // Notices may be late or, for a moment, lost: the head says whether something is missing.
    if (ready && ready.catalogue.revision < head.revision) await ready.advance();
    if (ready) ready.used = Date.now();
    return ready;
  }

  private async catchUp(pantry: Id): Promise<void> {
    const engine = await this.engines.get(pantry)?.catch(() => null);
    await engine?.advance().catch(() => undefined);
  }

  /** Closes engines that nobody watches and nobody asked anything for a while. */
  async closeIdle(now = Date.now()): Promise<void> {
    for (const [pantry, opening] of this.engines) {
      const engine = await opening.catch(() => null);
      if (!engine || engine.watched || now - engine.used < IDLE) continue;
      this.engines.delete(pantry);
      await engine.end();
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

  closeStreams(): void {
    for (const close of this.closers) close();
  }

  get ready(): boolean {
    return this.listening;
  }

  async close(): Promise<void> {
    this.closeStreams();
    clearInterval(this.sweep);
    for (const opening of this.engines.values()) await (await opening.catch(() => null))?.end();
    await this.deaf();
    await this.orm.close(true);
  }
}

export type { Engine };

const shared = globalThis as unknown as { saltyHost?: Promise<Host> };

/** The host of this process, opened at first use. */
export function host(): Promise<Host> {
  if (!shared.saltyHost) {
    const url = process.env.DATABASE_URL;
    shared.saltyHost = url ? Host.open(url) : Promise.reject(new Error("DATABASE_URL is not set. Start with npm start, which sets it."));
    shared.saltyHost.catch(() => {
      shared.saltyHost = undefined;
    });
  }
  return shared.saltyHost;
}

/** The host if it was opened; never opens one. */
export const openHost = (): Promise<Host> | undefined => shared.saltyHost;
