/**
 * The changes of one pantry that wait to be written, and who is written with whom. Works in turns: whoever comes while
 * changes are written is in the next turn.
 */
import type { Submission } from "../store/commit";
import { Failure } from "./failures";
import type { Intent } from "./use-cases/intents";
import type { Patience, Submitted } from "./use-cases/writing";

/** Changes of one pantry that may wait for each other. */
const MOST_WAITING = 200;
/** Most changes that are written together, and most edits of them. */
const MOST_TOGETHER = 64;
const MOST_EDITS_TOGETHER = 2_000;
/** So long those whom the last turn answered are waited for at most, and so long where no one comes [ms]. */
const MOST_GATHERING = 80;
const MOST_PAUSE = 12;

/** A change that someone waits for. */
export interface Waiting {
  readonly submission: Submission;
  readonly intent: Intent;
  readonly patience: Patience;
  readonly done: (submitted: Submitted) => void;
  readonly fail: (error: Error) => void;
}

const tooBusy = (): Failure =>
  new Failure("too busy", "Too many people are saving to this pantry at once. Try again in a moment.");

/** A turn: when it ended, how long it took [ms], and how many it answered or left waiting. */
interface Turn {
  readonly ended: number;
  readonly took: number;
  readonly people: number;
}

export class WriteQueue {
  private readonly waiting: Waiting[] = [];
  private scheduled = false;
  /** Called when a change comes. */
  private came: (() => void) | null = null;
  private last: Turn = { ended: Number.NEGATIVE_INFINITY, took: 0, people: 0 };
  /** How many waited when the first of this turn's changes was answered. */
  private left = 0;

  /**
   * @param inTurn  runs work once what was begun before has ended
   * @param write   writes and answers a turn's changes; never fails for one of them alone
   */
  constructor(
    private readonly inTurn: (work: () => Promise<void>) => Promise<void>,
    private readonly write: (batch: readonly Waiting[]) => Promise<void>,
  ) {}

  /** How many are not begun yet. */
  get size(): number {
    return this.waiting.length;
  }

  /** Whoever gives up leaves the queue. @throws Failure "too busy" where too many wait already */
  submit(submission: Submission, intent: Intent, patience: Patience): Promise<Submitted> {
    if (this.waiting.length >= MOST_WAITING) return Promise.reject(tooBusy());
    if (patience.signal?.aborted) return Promise.reject(new Failure("given up", "Nothing was saved."));
    return new Promise((done, fail) => {
      const waiting = { submission, intent, patience, done, fail };
      this.waiting.push(waiting);
      patience.signal?.addEventListener("abort", () => {
        const at = this.waiting.indexOf(waiting);
        if (at < 0) return;
        this.waiting.splice(at, 1);
        fail(new Failure("given up", "The request was cancelled; nothing was saved."));
      });
      this.came?.();
      this.writeSoon();
    });
  }

  /** Said by the writer when it is about to answer the first of a turn: whoever waits now is not one of those. */
  answering(): void {
    this.left = this.waiting.length;
  }

  /** Has the queue written in the next turn, unless that is so already. */
  private writeSoon(): void {
    if (this.scheduled) return;
    this.scheduled = true;
    this.inTurn(async () => {
      await this.gather();
      // Whoever comes while these are written is in the next turn.
      this.scheduled = false;
      const batch = this.nextBatch();
      const began = performance.now();
      this.left = 0;
      await this.write(batch);
      const ended = performance.now();
      this.last = { ended, took: ended - began, people: batch.length + this.left };
      if (this.waiting.length) this.writeSoon();
    }).catch((error: Error) => {
      this.scheduled = false;
      for (const { fail } of this.waiting.splice(0)) fail(error);
    });
  }

  /**
   * Waits a moment for those whom the last turn answered, beside those who wait already: people answered together send
   * their next changes together, and two groups that take turns wait twice as long as one. Where no one comes, the next
   * turn does not wait.
   */
  private async gather(): Promise<void> {
    const { people, ended, took } = this.last;
    const began = performance.now();
    if (began - ended > Math.min(MOST_GATHERING, took)) return;
    const end = began + MOST_GATHERING;
    while (this.waiting.length < Math.min(people, MOST_TOGETHER)) {
      const patience = Math.min(MOST_PAUSE, end - performance.now());
      if (patience <= 0 || !(await this.another(patience))) return;
    }
  }

  /** Whether another change comes within so many milliseconds. */
  private another(patience: number): Promise<boolean> {
    return new Promise((done) => {
      const timer = setTimeout(() => done(false), patience);
      this.came = () => {
        clearTimeout(timer);
        done(true);
      };
    });
  }

  /** Takes from the queue what is written next: an import or an undo alone, edits of several people together. */
  private nextBatch(): Waiting[] {
    const batch: Waiting[] = [];
    let edits = 0;
    for (const { intent } of this.waiting) {
      const size = intent.do === "edit" ? intent.edits.length : Number.POSITIVE_INFINITY;
      if (batch.length && (batch.length === MOST_TOGETHER || edits + size > MOST_EDITS_TOGETHER)) break;
      edits += size;
      batch.push(this.waiting[batch.length]);
    }
    this.waiting.splice(0, batch.length);
    return batch;
  }
}
