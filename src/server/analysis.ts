/**
 * The readings of an open pantry, in a process of their own that follows what is committed. It may be behind: then
 * changes are answered all the same, and readers are told so. A process that dies over a pantry twice is not tried again
 * before something else is committed.
 */
import type { AnalysisState } from "../core/engine/read-model";
import type { Id } from "../core/schema/id";
import type { LoggedText, PantryTexts } from "../store/texts";
import { EDITS_IN_PART } from "../store/prepare";
import { EngineChild } from "./engine-child";
import { Failure, failureOf } from "./failures";
import type { AnalysisQuestions, Followed } from "./questions";
import type { Patience } from "./use-cases/writing";

/** Changes that wait together are followed one by one where that is likely to take no longer [ms]. */
const ONE_BY_ONE = 100;
/** So long a change may be followed; then the process is ended and opened again on what is stored [ms]. */
const FOLLOWING = 60_000;
/** After so long, and twice as long as opening took, following is given up for the next edit [ms]. */
const CANCELLED_AFTER = 4_000;
/**
 * So long people wait for readings that are behind [ms]: whoever changed something (then it is answered without its
 * consequences), readers, and those who open a pantry.
 */
export const PATIENCE = { changers: 500, readers: 600, openers: 3_000 };
/** Deaths in a row after which a pantry's readings are not tried again. */
const MOST_DEATHS = 2;
/** Answers that are kept for readers who come while the readings are behind, and the largest of them [bytes of JSON]. */
const [MOST_KEPT, LARGEST_KEPT] = [200, 200_000];

export interface AnalysisOwner {
  readonly pantry: Id;
  /** The last committed revision. */
  readonly revision: number;
  /** Reads what is stored; throws where there is no such pantry. */
  load(): Promise<PantryTexts>;
  /** Changes were followed, together. */
  followed(changes: readonly LoggedText[], what: Followed): void;
  /** Readings are there of a revision for which no ripple leads from those before, or are stopped. */
  anew(): void;
}

type Reads = Exclude<keyof AnalysisQuestions, "open" | "follow" | "model">;
/** Questions that move the readings to another catalogue and back. */
const PROBES: ReadonlySet<string> = new Set<Reads>(["whatIf", "since", "costTrend"]);

export class Analysis {
  private child: EngineChild<"analysis"> | null = null;
  private working: Promise<void> | null = null;
  private pending: LoggedText[] = [];
  private waiters: { readonly revision: number; readonly done: (there: boolean) => void }[] = [];
  private stopped: { readonly revision: number; readonly why: string } | null = null;
  private deaths = 0;
  private ended = false;
  /** False while no one wants the readings: the process has made room for another pantry's. */
  private wanted = false;
  /** When what is being followed was begun; 0: nothing is. */
  private began = 0;
  private cancelled = false;
  private openTook = 0;
  /** How long following takes, smoothed [ms]. */
  private following = 0;
  private model: { readonly revision: number; readonly body: Uint8Array } | null = null;
  private readonly kept = new Map<string, unknown>();
  /** What the readings are of; -1: there are none. */
  revision = -1;

  constructor(private readonly owner: AnalysisOwner) {}

  get running(): boolean {
    return this.child !== null && !this.child.lost;
  }
  get state(): AnalysisState {
    const { revision } = this;
    if (this.stopped) return { revision, state: "stopped", why: this.stopped.why };
    return { revision, state: revision >= this.owner.revision ? "done" : "computing" };
  }

  /** For how long the readings have been behind; 0: they are not [ms]. */
  get behindFor(): number {
    return this.state.state === "done" ? 0 : performance.now() - this.since;
  }
  private since = 0;

  /** Begins to work where there is something to be done; never waits. */
  start(): void {
    this.wanted = true;
    if (this.ended || this.stopped || this.working) return;
    this.since = performance.now();
    this.working = this.work().finally(() => {
      this.working = null;
      if (this.pending.length && this.wanted && !this.stopped && !this.ended) this.start();
    });
  }

  /** Follows what was committed, as soon as it can; where no one wants the readings they are opened later. */
  follow(changes: readonly LoggedText[]): void {
    this.pending.push(...changes);
    if (this.stopped) {
      // What stopped it may be taken back: one more try.
      this.stopped = null;
      this.deaths = MOST_DEATHS - 1;
    }
    if (this.began && performance.now() - this.began > Math.max(CANCELLED_AFTER, 2 * this.openTook)) {
      this.cancelled = true;
      this.child?.end();
    }
    this.start();
  }

  /** Starts from what is stored: what was committed can't be followed change by change. */
  reopen(): void {
    this.cancelled = true;
    this.child?.end();
    this.pending = [];
    this.start();
  }

  /** Whether the readings are those of a revision within so many milliseconds. */
  until(revision: number, patience: number): Promise<boolean> {
    if (this.revision >= revision) return Promise.resolve(true);
    if (this.stopped || patience <= 0) return Promise.resolve(false);
    return new Promise((done) => {
      const timer = setTimeout(() => waiter.done(false), patience);
      const waiter = {
        revision,
        done: (there: boolean) => {
          clearTimeout(timer);
          this.waiters = this.waiters.filter((w) => w !== waiter);
          done(there);
        },
      };
      this.waiters.push(waiter);
    });
  }
  private settle(): void {
    for (const { revision, done } of [...this.waiters])
      if (this.stopped || this.revision >= revision) done(this.revision >= revision);
  }

  private async work(): Promise<void> {
    while (!this.ended && !this.stopped && this.wanted) {
      try {
        if (!this.child || this.child.lost) await this.open();
        else if (
          this.pending.length ? this.pending[0].revision > this.revision + 1 : this.revision < this.owner.revision
        )
          // Something in between was missed: only what is stored has it.
          this.child.end();
        else if (!this.pending.length) return;
        else await this.followNext(this.child);
      } catch (error) {
        this.child?.end();
        this.child = null;
        if (failureOf(error) === "pantry gone") return;
        if (this.cancelled) {
          this.cancelled = false;
          continue;
        }
        this.died(error as Error);
        // The database may be away: it is tried again when someone asks.
        if (failureOf(error) === null) return;
      }
    }
  }

  private died(error: Error): void {
    if (!this.ended) console.error(`The analysis of a pantry stopped: ${error.message}`);
    if (failureOf(error) === null || ++this.deaths < MOST_DEATHS) return;
    this.stopped = { revision: this.owner.revision, why: error.message };
    this.pending = [];
    this.owner.anew();
    this.settle();
  }

  private async open(): Promise<void> {
    const began = performance.now();
    const texts = await this.owner.load();
    this.cancelled = false;
    const child = await EngineChild.open(texts, "analysis");
    if (this.ended || !this.wanted) return child.end();
    this.child = child;
    this.openTook = performance.now() - began;
    this.deaths = 0;
    this.pending = this.pending.filter((c) => c.revision > texts.revision);
    const first = this.revision === texts.revision;
    this.now(texts.revision);
    if (!first) this.owner.anew();
  }

  /** One change, or all that wait, together: that takes hardly longer than one. */
  private async followNext(child: EngineChild<"analysis">): Promise<void> {
    const alone = this.following * this.pending.length <= ONE_BY_ONE;
    const changes = alone ? this.pending.slice(0, 1) : [...this.pending];
    // Reading a large change piece by piece would take longer than reading what stands there now.
    if (changes.some((c) => c.size > EDITS_IN_PART)) {
      child.end();
      this.child = null;
      return;
    }
    const { revision } = changes[changes.length - 1];
    this.began = performance.now();
    try {
      const what = await child.ask("follow", { edits: changes.map((c) => c.edits), revision }, { limit: FOLLOWING });
      // The last weighs a third: what is quick again is noticed soon, and one slow change does not decide alone.
      this.following += (performance.now() - this.began - this.following) / 3;
      this.pending = this.pending.slice(changes.length);
      this.deaths = 0;
      this.now(revision);
      this.owner.followed(changes, what);
    } finally {
      this.began = 0;
    }
    this.settle();
  }

  private now(revision: number): void {
    this.revision = revision;
    this.kept.clear();
    this.settle();
  }

  /** The readings that views hold, as JSON: the newest where they are there soon, else the last, else none. */
  async modelSoon(): Promise<Uint8Array | null> {
    this.start();
    await this.until(this.owner.revision, this.revision < 0 ? PATIENCE.openers : PATIENCE.readers);
    const { child } = this;
    if (!child || child.lost || this.began) return this.model?.body ?? null;
    if (this.model?.revision === this.revision) return this.model.body;
    try {
      const { revision, model } = await child.ask("model", {});
      this.model = { revision, body: model };
      return model;
    } catch (error) {
      if (failureOf(error) === null) throw error;
      return this.model?.body ?? null;
    }
  }

  /**
   * Asks the readings. Where they are behind for long, what was answered last to the same question is answered again;
   * a revision in it tells.
   * @throws Failure "computing" where nothing was, "stopped" where there are no readings
   */
  async ask<Q extends Reads>(
    ask: Q,
    question: AnalysisQuestions[Q]["question"],
    patience: Patience = {},
  ): Promise<AnalysisQuestions[Q]["answer"]> {
    this.start();
    const wait = this.revision < 0 ? PATIENCE.openers : PATIENCE.readers;
    const name = JSON.stringify([ask, question]);
    if (!(await this.until(this.owner.revision, wait))) {
      const there = this.kept.get(name);
      if (there !== undefined) return there as AnalysisQuestions[Q]["answer"];
      if (patience.signal?.aborted) throw new Failure("given up", "The request was cancelled.");
      if (this.stopped) throw new Failure("stopped", stoppedSays(this.stopped.revision));
      throw new Failure("computing", `Revision ${this.owner.revision} is still being computed. Try again in a moment.`);
    }
    try {
      const answer = await (this.child as EngineChild<"analysis">).ask(ask, question as never, patience);
      if (!PROBES.has(ask) && name.length < 2_000) this.keep(name, answer);
      return answer as AnalysisQuestions[Q]["answer"];
    } catch (error) {
      // A probe that breaks off leaves the readings between two revisions.
      if (PROBES.has(ask) && failureOf(error) === "engine failed") this.reopen();
      if (failureOf(error) === "lost" || failureOf(error) === "too long") this.start();
      throw error;
    }
  }

  private keep(name: string, answer: unknown): void {
    if (JSON.stringify(answer)?.length > LARGEST_KEPT) return;
    if (this.kept.size >= MOST_KEPT) this.kept.clear();
    this.kept.set(name, answer);
  }

  /** Ends the process; it opens again when someone asks. */
  park(): void {
    this.wanted = false;
    this.cancelled = true;
    this.child?.end();
    this.child = null;
    this.pending = [];
    this.revision = -1;
    this.model = null;
    this.kept.clear();
  }
  end(): void {
    this.ended = true;
    this.park();
    for (const { done } of [...this.waiters]) done(false);
  }
}

export const stoppedSays = (revision: number): string =>
  `This pantry's analysis stopped at revision ${revision}. Undo the last change, or continue without the analysis.`;
