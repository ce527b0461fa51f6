/**
 * A bound on work and memory, counted rather than timed: the same question ends at the same place on every machine.
 *
 * A step is about 0.1 µs of plain work: one product of probabilities, one look at a formula, one entry rolled. Sizes are
 * reserved before anything is allocated.
 */

/** Thrown where something needs more steps, or more memory, than it may use. */
export class TooMany extends RangeError {}

export class Budget {
  private used = 0;

  /**
   * @param steps  work that may be done
   * @param bytes  memory that may be reserved at the same time
   * @param whole  the budget that this one is a part of: what is used here is used there too
   */
  constructor(
    readonly steps: number,
    private bytes: number = Number.POSITIVE_INFINITY,
    private readonly whole: Budget | null = null,
  ) {}

  /** Steps taken so far. */
  get spent(): number {
    return this.used;
  }
  get left(): number {
    return this.steps - this.used;
  }

  /** @throws TooMany when the steps are used up, here or in the whole */
  take(steps: number): void {
    this.used += steps;
    if (!(this.used <= this.steps)) throw new TooMany("This needs more steps than allowed.");
    this.whole?.take(steps);
  }

  /** Reserves memory before it is allocated. @throws TooMany where there is not so much left */
  reserve(bytes: number): void {
    this.bytes -= bytes;
    if (!(this.bytes >= 0)) throw new TooMany("This needs more memory than allowed.");
    this.whole?.reserve(bytes);
  }

  /** A part of this budget with a limit of its own. */
  part(steps: number): Budget {
    return new Budget(Math.min(steps, this.left), Number.POSITIVE_INFINITY, this);
  }
}
