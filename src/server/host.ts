/** The engines: one per open pantry, fed by committed changes only. The one place with state in the process. */
import type { EntityManager } from "@mikro-orm/postgresql";
import { type Board, type LiveEvent, rippleOf } from "../core/analysis/board";
import { boardOf } from "../core/analysis/engine";
import { type Readings, readingsOf } from "../core/analysis/readings";
import type { Catalogue } from "../core/catalogue/catalogue";
import { apply } from "../core/catalogue/changes";
import type { Id } from "../core/catalogue/records";
import { type Committed, commit, keepMoved, type Submission } from "../store/commit";
import { listen } from "../store/listen";
import { changesAfter, listPantries, loadCatalogue, type PantryHead } from "../store/load";
import { connect, migrate, type Orm } from "../store/orm";

/** A catalogue with its readings: always of the same revision. */
export interface State {
  readonly catalogue: Catalogue;
  readonly readings: Readings;
  readonly board: Board;
}

class Engine {
  private readonly watchers = new Set<(event: LiveEvent) => void>();
  private last: Promise<unknown> = Promise.resolve();

  constructor(
    private readonly orm: Orm,
    readonly pantry: Id,
    public state: State,
  ) {}

  watch(watcher: (event: LiveEvent) => void): () => void {
    this.watchers.add(watcher);
    return () => this.watchers.delete(watcher);
  }

  /** Reads the changes that are not in yet and follows them. One at a time. */
  advance(): Promise<void> {
    const next = this.last.then(() => this.follow());
    this.last = next.catch(() => undefined);
    return next;
  }

  private async follow(): Promise<void> {
    const em = this.orm.em.fork() as EntityManager;
    for (const change of await changesAfter(em, this.pantry, this.state.catalogue.revision)) {
      const outcome = apply(this.state.catalogue, change.edits);
      if (!outcome.ok || outcome.catalogue.revision !== change.revision) {
        // The stored records are the truth; a change that does not fit them means this copy went astray.
        const fresh = await loadCatalogue(em, this.pantry);
        if (fresh) this.state = stateOf(fresh);
        return;
      }
      const before = this.state.board;
      this.state = stateOf(outcome.catalogue);
      const ripple = rippleOf(before, this.state.board);
      if (!change.moved) await keepMoved(em, this.pantry, change.revision, ripple.moved);
      const event = { change: { ...change, moved: ripple.moved }, ripple };
      for (const watcher of this.watchers) watcher(event);
    }
  }

  submit(submission: Submission): Promise<Committed> {
    return commit(this.orm, this.pantry, submission, (em, revision) => this.catalogueAt(em, revision));
  }

  private async catalogueAt(em: EntityManager, revision: number): Promise<Catalogue> {
    let catalogue = this.state.catalogue;
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
}

const stateOf = (catalogue: Catalogue): State => {
  const readings = readingsOf(catalogue);
  return { catalogue, readings, board: boardOf(catalogue) };
};

export class Host {
  private readonly engines = new Map<Id, Promise<Engine | null>>();
  private readonly closers = new Set<() => void>();
  private readonly deaf: () => Promise<void>;
  private listening = false;

  private constructor(
    readonly orm: Orm,
    url: string,
  ) {
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
      engine = loadCatalogue(this.em, head.id).then((catalogue) => (catalogue ? new Engine(this.orm, head.id, stateOf(catalogue)) : null));
      engine.catch(() => this.engines.delete(head.id));
      this.engines.set(head.id, engine);
    }
    const ready = await engine;
    // Notices may be late or, for a moment, lost: the head says whether something is missing.
    if (ready && ready.state.catalogue.revision < head.revision) await ready.advance();
    return ready;
  }

  private async catchUp(pantry: Id): Promise<void> {
    const engine = await this.engines.get(pantry)?.catch(() => null);
    await engine?.advance().catch(() => undefined);
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
