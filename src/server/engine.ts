/**
 * An open pantry: its records in one process, its readings in another, both fed by committed changes only; the views that
 * follow it; and whoever writes into it.
 */
import type { EntityManager } from "@mikro-orm/postgresql";
import type { Id } from "../core/schema/id";
import { type Committed, commitAll, keepMoved, PantryGone, type Submission } from "../store/commit";
import { changesAfter, loadTexts, readTexts } from "../store/load";
import type { LoggedText, PantryTexts } from "../store/texts";
import type { Orm } from "../store/orm";
import { EDITS_IN_PART, type Write } from "../store/prepare";
import { Analysis, type AnalysisOwner, PATIENCE } from "./analysis";
import { EngineChild } from "./engine-child";
import { Failure, failureOf } from "./failures";
import type { Pool, Pooled } from "./pool";
import { strangeIcons } from "./use-cases/icons";
import type { AnalysisQuestions, Followed, RecordQuestions, Writes } from "./questions";
import type { Intent, Readied } from "./use-cases/intents";
import type { Patience, Submitted, Writer } from "./use-cases/writing";
import { type Waiting, WriteQueue } from "./write-queue";

/**
 * What every open view is told: a change with its ripple as JSON, that it must read again, or that the pantry is gone.
 */
export type WindowNotice =
  | { readonly tell: "change"; readonly revision: number; readonly json: string }
  | { readonly tell: "anew"; readonly revision: number }
  | { readonly tell: "gone" };

/** What a bundle that can't be read makes of the pantry. */
const NOTHING = { ok: false as const, issues: [], conflicts: [] };

/** Whether a failure may be due to one change of several: the engine or the database refused, and nothing was written. */
const mayBeOneAlone = (error: unknown): boolean =>
  ["lost", "engine failed", "too long", "pictures full"].includes(failureOf(error) ?? "") ||
  (error as { code?: string }).code?.startsWith("23") === true;

type Reads = Exclude<keyof AnalysisQuestions, "open" | "follow" | "model">;

export class Engine implements Pooled, Writer, AnalysisOwner {
  private readonly watchers = new Set<(told: WindowNotice) => void>();
  private records: EngineChild<"records"> | null = null;
  private opening: Promise<EngineChild<"records">> | null = null;
  readonly analysis = new Analysis(this);
  private last: Promise<unknown> = Promise.resolve();
  private advancing: Promise<void> | null = null;
  private readonly queue = new WriteQueue(
    (work) => this.inTurn(work),
    (batch) => this.write(batch),
  );
  private waiting = 0;
  private asking = 0;
  /** The last committed revision that the process with the records has. */
  revision: number;
  /** The last revision whose changes views were told, with or without consequences. */
  private told: number;
  used = Date.now();
  gone = false;
  /** The pantry's key, as far as it is known to be so still. */
  key: string | null = null;
  private zipped: { readonly of: string; readonly body: Uint8Array } | null = null;

  constructor(
    private readonly orm: Orm,
    private readonly pool: Pool,
    readonly pantry: Id,
    revision: number,
  ) {
    this.revision = revision;
    this.told = revision;
  }

  get running(): boolean {
    return this.records !== null && !this.records.lost;
  }
  /** Readings that no one waits for can be computed later. */
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
  anew(): void {
    this.zipped = null;
    this.tell({ tell: "anew", revision: this.revision });
  }

  async park(): Promise<void> {
    this.records?.end();
    this.records = null;
    this.zipped = null;
    this.analysis.park();
  }
  /** Ends it for good: no one finds the pantry any more. Needs nothing of its processes. */
  async end(): Promise<void> {
    this.gone = true;
    this.tell({ tell: "gone" });
    this.pool.leave(this);
    this.analysis.end();
    await this.park();
  }

  async load(): Promise<PantryTexts> {
    const texts = this.gone ? null : await loadTexts(this.orm.em.fork() as EntityManager, this.pantry);
    if (!texts) throw new PantryGone("This pantry no longer exists.");
    return texts;
  }

  /** The process with the records, opened on what is stored where there is none. */
  private async opened(): Promise<EngineChild<"records">> {
    if (this.records && !this.records.lost) return this.records;
    this.opening ??= this.pool
      .admit(this, async () => this.openOn(await this.load()))
      .finally(() => {
        this.opening = null;
      });
    return this.opening;
  }

  private async openOn(texts: PantryTexts): Promise<EngineChild<"records">> {
    const lost = this.records;
    this.records = await EngineChild.open(texts, "records");
    this.zipped = null;
    // Whoever watches was not told what happened in between.
    const missed = texts.revision !== this.revision;
    this.revision = texts.revision;
    this.told = texts.revision;
    if (missed) this.analysis.reopen();
    else this.analysis.start();
    if (missed || lost) this.anew();
    return this.records;
  }

  /** Work that keeps the pantry open while it goes on. */
  private async using<T>(work: () => Promise<T>): Promise<T> {
    this.used = Date.now();
    this.asking++;
    try {
      return await work();
    } finally {
      this.asking--;
      this.pool.freed();
    }
  }

  /** Asks the readings; see Analysis. Where the process is lost before it answers, one more is asked. */
  ask<Q extends Reads>(
    ask: Q,
    question: AnalysisQuestions[Q]["question"],
    patience: Patience = {},
  ): Promise<AnalysisQuestions[Q]["answer"]> {
    return this.using(async () => {
      await this.opened();
      try {
        return await this.analysis.ask(ask, question, patience);
      } catch (error) {
        if (failureOf(error) !== "lost" || this.gone) throw error;
        return this.analysis.ask(ask, question, patience);
      }
    });
  }

  /** The whole pantry as a bundle. */
  bundle(patience: Patience): Promise<RecordQuestions["bundle"]["answer"]> {
    return this.using(async () => (await this.opened()).ask("bundle", {}, patience));
  }

  /** All records and readings as JSON, zipped where asked for; made once per revision then. */
  snapshot(zip: boolean): Promise<Uint8Array> {
    return this.using(async () => {
      const records = await this.opened();
      const model = await this.analysis.modelSoon();
      const analysis = JSON.stringify(this.analysis.state);
      const of = `${this.revision} ${analysis}`;
      if (zip && this.zipped?.of === of && this.running) return this.zipped.body;
      const { body } = await records.ask("snapshot", { model, analysis, zip });
      if (zip) this.zipped = { of, body };
      return body;
    });
  }

  /** One after the other. */
  private inTurn<T>(work: () => Promise<T>): Promise<T> {
    this.waiting++;
    const next = this.last.then(work).finally(() => {
      this.waiting--;
      this.pool.freed();
    });
    this.last = next.catch(() => undefined);
    return next;
  }

  /** Reads the changes of other processes that are not in yet. Whoever asks at the same time shares one reading. */
  async advance(revision = Number.POSITIVE_INFINITY): Promise<void> {
    if (revision <= this.revision) return;
    const under = this.advancing;
    await under?.catch(() => undefined);
    if (revision <= this.revision) return;
    this.advancing ??= this.inTurn(async () => {
      if (revision <= this.revision) return;
      if (!this.running && !this.opening) {
        // No one asks for readings now: views read again, which opens it.
        this.key = null;
        if (Number.isFinite(revision)) {
          this.revision = revision;
          this.told = revision;
          this.anew();
        }
        return;
      }
      await this.opened();
      await this.bring(this.orm.em.fork() as EntityManager);
    }).finally(() => {
      this.advancing = null;
    });
    return this.advancing;
  }

  /** Applies what is committed beyond what the records have. */
  private async bring(em: EntityManager): Promise<void> {
    for (const change of await changesAfter(em, this.pantry, this.revision)) {
      // Reading a large change piece by piece would take longer than reading what stands there now.
      if (change.size > EDITS_IN_PART) return this.restart(em);
      try {
        await (this.records as EngineChild<"records">).ask("apply", { edits: change.edits, revision: change.revision });
        this.took([change]);
      } catch (error) {
        if (failureOf(error) === "pantry gone") throw error;
        // The stored records are the truth; a change that does not fit them means this copy went astray.
        return this.restart(em);
      }
    }
  }

  /** The records have these changes; the readings follow. */
  private took(changes: readonly LoggedText[]): void {
    this.revision = changes[changes.length - 1].revision;
    if (changes.some(({ edits, size }) => size > EDITS_IN_PART || edits.includes('"pantry"'))) this.key = null;
    this.analysis.follow(changes);
  }

  /** Views are told changes with their consequences, once; what was told without them already, consequences alone. */
  followed(changes: readonly LoggedText[], { ripple, moved }: Followed): void {
    const { revision } = changes[changes.length - 1];
    const one = changes.length === 1;
    if (ripple === null) this.anew();
    else {
      const fresh = changes.filter((c) => c.revision > this.told);
      this.tell({ tell: "change", revision, json: eventJson(fresh, one ? moved : "null", ripple) });
    }
    this.told = Math.max(this.told, revision);
    // What several changes moved together is not what each of them moved: then none says so.
    if (one && changes[0].moved === null)
      void keepMoved(this.orm.em.fork() as EntityManager, this.pantry, [[revision, moved]]).catch(() => undefined);
  }

  /** Views are told what was committed while its consequences are still being computed. */
  private tellEarly(changes: readonly LoggedText[]): void {
    const fresh = changes.filter((c) => c.revision > this.told);
    if (!fresh.length) return;
    const { revision } = fresh[fresh.length - 1];
    this.told = revision;
    if (fresh.some((c) => c.size > EDITS_IN_PART)) this.anew();
    else this.tell({ tell: "change", revision, json: eventJson(fresh, "null", "null") });
  }

  /** A new process on what is stored, read through a transaction where there is one: others may be waiting for its lock. */
  private async restart(em: EntityManager): Promise<void> {
    this.records?.end();
    const texts = await readTexts(em, this.pantry);
    if (!texts) throw new PantryGone("This pantry no longer exists.");
    await this.openOn(texts);
  }

  /**
   * Makes a change of what is intended, commits it and follows it. Changes that wait at the same time are made one behind
   * the other and committed together, each with its own revision, refusal or conflict. Once a change is committed it
   * counts, whatever becomes of its consequences: where they take long they are told later.
   */
  submit(submission: Submission, intent: Intent, patience: Patience = {}): Promise<Submitted> {
    this.used = Date.now();
    return this.queue.submit(submission, intent, patience);
  }

  /** Writes changes together; where that fails before anything is written, one by one, so that each fails for itself. */
  private async write(all: readonly Waiting[]): Promise<void> {
    const batch = all.filter(({ patience, fail }) => {
      if (patience.signal?.aborted) fail(new Failure("given up", "The request was cancelled; nothing was saved."));
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
          if (!this.running) await this.restart(em);
          if (this.revision < revision) await this.bring(em);
          if (this.revision !== revision) await this.restart(em);
          if (this.revision !== revision) throw new Error("The pantry can't be read at the revision it is at.");
          const patience = batch.length === 1 ? batch[0].patience : {};
          const intents = batch.map((w) => w.intent);
          const prepare = () => (this.records as EngineChild<"records">).ask("prepare", { intents }, patience);
          const made = await prepare().catch(async (error: Error) => {
            // It was gone before it was asked: no one's change is to blame.
            if (failureOf(error) !== "lost") throw error;
            await this.restart(em);
            return prepare();
          });
          const records = this.records as EngineChild<"records">;
          readied = made.readied;
          const answers = readied.map((r) => ("answer" in r ? r.answer : NOTHING));
          const of = answers.reduce((sum, a) => sum + (a.ok ? a.size : 0), 0);
          return { answers, writes: writesFrom(records, made, of, patience) };
        },
      );
      written = true;
      await this.answer(batch, outcomes, readied);
    } catch (error) {
      if (written || batch.length === 1 || !mayBeOneAlone(error)) for (const { fail } of batch) fail(error as Error);
      else for (const each of batch) await this.write([each]);
    }
  }

  /** Follows what is committed and answers whoever sent it, with its consequences where they are there soon. */
  private async answer(
    batch: readonly Waiting[],
    outcomes: readonly Committed[],
    readied: readonly Readied[],
  ): Promise<void> {
    const changes = outcomes.flatMap((o) => (o.ok && o.change ? [o.change] : []));
    // Whoever comes while it is behind for long does not wait for what came before.
    const behind = this.analysis.behindFor;
    if (changes.length) await this.adopt(changes);
    const end = performance.now() + PATIENCE.changers - behind;
    for (const [k, { done }] of batch.entries()) {
      const outcome = outcomes[k];
      const revision = outcome.ok ? (outcome.change?.revision ?? 0) : 0;
      if (revision > 0 && !(await this.analysis.until(revision, end - performance.now()))) this.tellEarly(changes);
      if (k === 0) this.queue.answering();
      const ready = readied[k];
      done("issues" in ready ? ready : { committed: outcome, plan: ready.plan });
    }
  }

  /** The process with the records takes over what it made ready. */
  private async adopt(changes: readonly LoggedText[]): Promise<void> {
    const { revision } = changes[changes.length - 1];
    if (revision <= this.revision) return;
    try {
      await (this.records as EngineChild<"records">).ask("committed", { revision });
      this.took(changes);
    } catch (error) {
      console.error(error);
      this.records?.end();
      await this.opened().catch((failed: Error) => console.error(failed.message));
    }
  }

  strange = (icons: readonly string[]): Promise<readonly string[]> =>
    strangeIcons(this.orm.em.fork() as EntityManager, this.pantry, icons);

  /** What an intent would do, without doing it. */
  plan(intent: Intent, patience: Patience = {}): Promise<Readied> {
    return this.inTurn(async () => {
      if (patience.signal?.aborted) throw new Failure("given up", "The request was cancelled.");
      return (await (await this.opened()).ask("prepare", { intents: [intent] }, patience)).readied[0];
    });
  }
}

/** What is to be written, asked for while it is written; ends with an error once no one waits for it any more. */
async function* writesFrom(
  records: EngineChild<"records">,
  first: Writes,
  of: number,
  patience: Patience,
): AsyncGenerator<Write> {
  let done = 0;
  for (let some = first; ; some = await records.ask("more", {}, patience)) {
    for (const write of some.writes) {
      if (patience.signal?.aborted) throw new Failure("given up", "The request was cancelled; nothing was saved.");
      yield write;
      done += "records" in write ? (write.records ?? 0) : 0;
      patience.progress?.({ stage: "writing", done, of });
    }
    if (!some.more) return;
  }
}

/** A LiveEvent as JSON. */
function eventJson(changes: readonly LoggedText[], moved: string, ripple: string): string {
  const logged = changes.map(
    ({ edits, ...head }) => `${JSON.stringify(head).slice(0, -1)},"moved":${moved},"edits":${edits}}`,
  );
  return `{"changes":[${logged.join(",")}],"ripple":${ripple}}`;
}
