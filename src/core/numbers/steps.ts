/** A bound on work, counted in steps rather than by the clock: the same work always ends at the same place. */

/** Thrown where something would take more steps, or keep more values apart, than it may. */
export class TooMany extends RangeError {}

export class Steps {
  constructor(private left: number) {}
  /** @throws TooMany when they are used up */
  take(steps: number): void {
    this.left -= steps;
    if (!(this.left >= 0)) throw new TooMany("This takes more steps than it may.");
  }
}
