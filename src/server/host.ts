/** The open pantries of this process. */
import type { EntityManager } from "@mikro-orm/postgresql";
import anyAscii from "any-ascii";
import { transliterateBy } from "../core/schema/names";
import type { Id } from "../core/schema/id";
import type { Pantry } from "../core/kinds/index";
import { createPantry, deletePantry } from "../store/commit";
import { listen } from "../store/listen";
import { listPantries, type PantrySummary, summarisePantries, type PantryHead, pantryByKey } from "../store/load";
import { putPicture, type StoredPicture } from "../store/pictures";
import { connect, migrate, type Orm } from "../store/orm";
import { Engine } from "./engine";
import { Pool } from "./pool";
import type { AnalysisQuestions } from "./questions";
import { Ration } from "./ration";

transliterateBy(anyAscii);

/** An engine that no one asked anything for so long is closed; it opens again when someone does. */
const IDLE = 30 * 60_000;
/** So long the list of all pantries waits for the findings of one [ms]. */
const COUNTING = 400;
export type Counted = AnalysisQuestions["counts"]["answer"];
/** Bytes of all bodies that are being read. */
const BODIES = 256 * 2 ** 20;

export class Host {
  private readonly engines = new Map<Id, Engine>();
  /** Engines by the keys that their pantries had when they were last looked up. */
  private readonly byKey = new Map<string, Engine>();
  private readonly closers = new Set<() => void>();
  /** What was last found in each pantry; kept when its engine is closed. */
  private readonly counted = new Map<Id, Counted>();
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

  static async open(url: string, threads = Number(process.env.SALTY_ENGINES) || 40): Promise<Host> {
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
  /** Every pantry, with its findings as far as this process knows them. */
  async summaries(): Promise<(PantrySummary & { readonly findings: Counted | null })[]> {
    const pantries = await summarisePantries(this.em);
    await Promise.all(
      pantries.map(async ({ id, revision }) => {
        const engine = this.engines.get(id);
        if (!engine?.analysis.running || this.counted.get(id)?.revision === revision) return;
        const counts = await engine.ask("counts", {}, { limit: COUNTING }).catch(() => null);
        if (counts) this.counted.set(id, counts);
      }),
    );
    return pantries.map((pantry) => ({ ...pantry, findings: this.counted.get(pantry.id) ?? null }));
  }
  /** A pantry by its key; null when there is none, as for what is no key. */
  head = async (key: string): Promise<PantryHead | null> =>
    /^[a-z0-9_]{1,90}$/.test(key) ? pantryByKey(this.em, key) : null;

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
    const head = await this.head(key);
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
    this.counted.delete(pantry);
    this.byKey.delete(engine?.key ?? "");
    await engine?.end();
  }

  /** @returns false where its key is taken */
  /** Keeps a picture of a pantry. @returns why not, or null */
  keepPicture = (pantry: Id, picture: StoredPicture): Promise<string | null> => putPicture(this.orm, pantry, picture);
  makePantry = (pantry: Pantry): Promise<boolean> => createPantry(this.em, pantry);

  /** Deletes a pantry and everything in it. @returns false where someone else did already */
  async deletePantry(pantry: Id): Promise<boolean> {
    const deleted = await deletePantry(this.orm, pantry);
    await this.forget(pantry);
    return deleted;
  }

  /** Forgets engines that no one watches and no one asked anything for a while. */
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
