/** How many threads there may be: who needs one more makes room by ending the one that was used least recently. */
import { Failure } from "./failures";

export interface Pooled {
  /** When it was last used [ms since 1970]. */
  readonly used: number;
  readonly running: boolean;
  /** It can't be ended right now. */
  readonly working: boolean;
  /** Ends its thread; it opens again when someone asks. */
  park(): Promise<void>;
}

const WAIT = 30_000;

export class Pool {
  private readonly pooled = new Set<Pooled>();
  private readonly waiting: (() => void)[] = [];
  /** Threads that are being opened. */
  private coming = 0;

  constructor(readonly most: number) {}

  get size(): number {
    return [...this.pooled].filter((l) => l.running).length;
  }

  /** Room for one thread, which `work` opens. @throws Failure "too busy" where none becomes free in half a minute */
  async admit<T>(engine: Pooled, work: () => Promise<T>): Promise<T> {
    this.pooled.add(engine);
    const end = Date.now() + WAIT;
    while (this.size + this.coming >= this.most) {
      const free = [...this.pooled].filter((l) => l.running && !l.working).sort((a, b) => a.used - b.used)[0];
      if (free) await free.park();
      else if (Date.now() > end)
        throw new Failure("too busy", "Too many pantries are in use at once. Try again in a moment.");
      else
        await new Promise<void>((done) => {
          this.waiting.push(done);
          setTimeout(done, 250).unref();
        });
    }
    this.coming++;
    try {
      return await work();
    } finally {
      this.coming--;
      this.freed();
    }
  }

  /** Someone has nothing to do any more. */
  freed(): void {
    this.waiting.shift()?.();
  }
  leave(engine: Pooled): void {
    this.pooled.delete(engine);
    this.freed();
  }
}
