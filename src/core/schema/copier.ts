/**
 * Copies of objects, quick whatever their layouts. The engine of the language learns at each place in the source which
 * layouts come by: a place that copies more than four of them asks the slow way each time, at five to ten times the cost.
 * So there are many such places, and everything that makes copies of one value is given one of them.
 */
type Copier = <T extends object>(value: T) => { -readonly [N in keyof T]: T[N] };

const PLACES: readonly Copier[] = [
  (value) => ({ ...value }),
  (value) => ({ ...value }),
  (value) => ({ ...value }),
  (value) => ({ ...value }),
  (value) => ({ ...value }),
  (value) => ({ ...value }),
  (value) => ({ ...value }),
  (value) => ({ ...value }),
  (value) => ({ ...value }),
  (value) => ({ ...value }),
  (value) => ({ ...value }),
  (value) => ({ ...value }),
  (value) => ({ ...value }),
  (value) => ({ ...value }),
  (value) => ({ ...value }),
  (value) => ({ ...value }),
  (value) => ({ ...value }),
  (value) => ({ ...value }),
  (value) => ({ ...value }),
  (value) => ({ ...value }),
  (value) => ({ ...value }),
  (value) => ({ ...value }),
  (value) => ({ ...value }),
  (value) => ({ ...value }),
  (value) => ({ ...value }),
  (value) => ({ ...value }),
  (value) => ({ ...value }),
  (value) => ({ ...value }),
  (value) => ({ ...value }),
  (value) => ({ ...value }),
  (value) => ({ ...value }),
  (value) => ({ ...value }),
];
let given = 0;

/** A function that copies an object; to be kept for copies of the same value. */
export const copier = (): Copier => PLACES[given++ % PLACES.length];
