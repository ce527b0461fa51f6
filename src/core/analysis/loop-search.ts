/** The search for loops that gain or come out even: exact answers, floats only where they save work. */
import { TooMany } from "../budget/budget";
import { Field, type Nets } from "./column-field";
import { Search, type Support } from "./column-generation";
import { type Column, shrink, totalNet } from "./support";

export interface FoundLoops {
  /** Supports that gain, each minimal: without any of its processes the others don't gain. */
  readonly gaining: readonly (readonly Column[])[];
  /** Minimal supports that come round with exactly what they took. */
  readonly even: readonly (readonly Column[])[];
  /** Columns that programmes were given. */
  readonly columns: number;
  /** False where the search stopped at its limits. */
  readonly complete: boolean;
  /** It stopped because its steps were used up: with more of them it may find more. */
  readonly exhausted: boolean;
}

const MOST_LOOPS = 40;
const MOST_PARTS = 120;
const MOST_PROGRAMMES = 600;
/** The same of one that only asks whether there is any: it is asked many times over. */
const FEW_STEPS = 2e7;

/**
 * Every support that loses nothing contains a violator: a column that no prices could make lossy. As long as there is
 * one, one of them is taken, all minimal supports through it are looked for by leaving out, in turn, each process of one
 * that was found (the hitting-set tree of Reiter 1987), and the violator is put aside. So loops that share nothing do not
 * multiply the work. First those that gain, then, with what gains put aside, those that come out even.
 *
 * Only what lies around the violators is looked at: a column comes in when it could help. Limits: 40 loops of a kind, 120
 * processes in them, 600 programmes, 2e8 steps of elimination.
 * @param steps  of elimination, fewer for a first look
 */
export function searchLoops(nets: Nets, steps?: number): FoundLoops {
  const field = new Field(nets, steps);
  const whole = new Search(field);
  const gaining = searchFor(whole, (search) => search.any(), true);
  const { exhausted } = gaining;
  if (!gaining.complete)
    return { gaining: gaining.found, even: [], columns: field.given.size, complete: false, exhausted };
  const around = searchFor(whole, (search) => search.round(), false);
  // What comes round is minimal but for gaining loops within it: those were found already, with what lies around them.
  const gains = gaining.found.map((loop) => new Set(loop.map((c) => c.process)));
  const even = around.found.filter((loop) => {
    const own = new Set(loop.map((c) => c.process));
    return !gains.some((g) => [...g].every((p) => own.has(p)));
  });
  return {
    gaining: gaining.found,
    even,
    columns: field.given.size,
    complete: around.complete,
    exhausted: around.exhausted,
  };
}

/** Whether anything gains; true also where that could not be ruled out. */
export function anyGains(nets: Nets): boolean {
  try {
    return new Search(new Field(nets, FEW_STEPS)).any() !== null;
  } catch (error) {
    if (error instanceof TooMany) return true;
    throw error;
  }
}

function searchFor(
  whole: Search,
  ask: (search: Search) => Support,
  gains: boolean,
): { found: Column[][]; complete: boolean; exhausted: boolean } {
  const found: Column[][] = [];
  try {
    return { found, complete: searchInto(found, whole, ask, gains), exhausted: false };
  } catch (error) {
    // What was found until then stands.
    if (error instanceof TooMany) return { found, complete: false, exhausted: true };
    throw error;
  }
}

/** @returns whether it was gone through to the end */
function searchInto(found: Column[][], whole: Search, ask: (search: Search) => Support, gains: boolean): boolean {
  const { field } = whole;
  const known = new Set<string>();
  let complete = true;
  let parts = 0;
  field.programmes = 0;
  for (let search = whole; ; ) {
    const some = ask(search);
    if (some === "unsure") complete = false;
    if (some === null || some === "unsure") return complete;
    const violator = search.violators.find((c) => some.includes(c)) as number;
    const branches: number[][] = [[]];
    const tried = new Set<string>();
    for (let at = 0; at < branches.length; at++) {
      if (found.length >= MOST_LOOPS || parts >= MOST_PARTS || field.programmes >= MOST_PROGRAMMES) return false;
      const narrowed = at ? search.without(branches[at]) : search;
      const hint = at ? ask(narrowed) : some;
      const support = hint && narrowed.through(violator, hint === "unsure" ? [] : hint);
      if (support === "unsure") complete = false;
      if (!support || support === "unsure") continue;
      const loop = gains
        ? shrink(
            support.map((c) => field.column(c)),
            totalNet,
            { steps: field.steps },
          )?.map((column) => support.find((c) => field.column(c) === column) as number)
        : support;
      if (loop) {
        const key = [...loop].sort((a, b) => a - b).join();
        if (!known.has(key)) {
          found.push(loop.map((c) => field.column(c)));
          parts += loop.length;
        }
        known.add(key);
      }
      for (const c of loop ?? support) {
        if (c === violator) continue;
        const next = [...branches[at], c].sort((a, b) => a - b);
        if (tried.has(next.join())) continue;
        tried.add(next.join());
        branches.push(next);
      }
    }
    search = search.without([violator]);
  }
}
