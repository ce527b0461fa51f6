/** What opening or taking apart gives: exactly, and by so many seeded rolls beside it. */
import { atLeast, chanceOfNone, expectedOf, fewestRuns, work } from "../analysis/chances";
import { quantile } from "../analysis/outcomes";
import type { Catalogue } from "../catalogue/catalogue";
import { ANYTHING, type Draws, type Tables, thingsIn } from "../network/box";
import type { HeldUse } from "../catalogue/uses";
import { seeded } from "../numbers/seeded";
import { Budget, TooMany } from "../budget/budget";
import type { Id } from "../schema/id";
import { distributionOf, roller } from "./chance-box";

export interface ThingOdds {
  /** "item:ID" or "currency:ID". */
  readonly thing: string;
  readonly mean: number;
  /** Chance of any of it. */
  readonly any: number;
  /** Amounts that a tenth, half and nine tenths of all openings stay at or below. */
  readonly low: number;
  readonly middle: number;
  readonly high: number;
  /** Openings for at least so many of it with 50, 90 and 99%; null: never, or too many to tell. */
  readonly tries: readonly (number | null)[];
  /** Amounts and their chances, as far as they are told apart. */
  readonly bars: readonly { readonly amount: number; readonly p: number }[];
}
export interface Odds {
  readonly things: readonly ThingOdds[];
  /** Chance that nothing comes at all. */
  readonly nothing: number;
  /** Things of which there are too many amounts to tell apart. */
  readonly untold: readonly string[];
}
export const SURE = [0.5, 0.9, 0.99] as const;
const MOST_BARS = 60;

/** Products of probabilities of all things of one opening together: about a second. */
const ODDS_STEPS = 3e8;

/** @param wanted  how many of each thing are wanted, for how many openings they take */
export function oddsOf(box: Draws, tables: Tables, level: number, wanted: number): Odds {
  const untold: string[] = [];
  const all = thingsIn(box, tables, level);
  // So many for each, whatever the others took: what is told of one thing does not hang on another.
  const share = ODDS_STEPS / (all.length + 1);
  const things = all.flatMap((thing): ThingOdds[] => {
    try {
      const steps = work(share);
      const d = distributionOf(box, thing, tables, level, steps);
      const step = Number(d.step.n) / Number(d.step.d);
      const bars = [...d.p].map((p, k) => ({ amount: (d.from + k) * step, p })).filter(({ p }) => p > 1e-9);
      return [
        {
          thing,
          mean: expectedOf(d),
          any: 1 - chanceOfNone(d),
          low: quantile(d, 0.1),
          middle: quantile(d, 0.5),
          high: quantile(d, 0.9),
          tries: SURE.map((sure) => fewestRuns(d, wanted, sure, { most: 100_000, steps })),
          bars: bars.slice(0, MOST_BARS),
        },
      ];
    } catch (thrown) {
      if (!(thrown instanceof TooMany)) throw thrown;
      untold.push(thing);
      return [];
    }
  });
  let nothing = 0;
  try {
    nothing = chanceOfNone(distributionOf(box, ANYTHING, tables, level, work(share)));
  } catch (thrown) {
    if (!(thrown instanceof TooMany)) throw thrown;
  }
  return { things, nothing, untold };
}
/** Chance of at least an amount of a thing in one opening. */
export const chanceOfAtLeast = (box: Draws, thing: string, amount: number, tables: Tables, level: number): number =>
  atLeast(distributionOf(box, thing, tables, level), amount);

/** So many seeded openings: of each thing its mean and how often any came, and how often nothing did. */
export interface Rolled {
  readonly times: number;
  readonly things: readonly { readonly thing: string; readonly mean: number; readonly any: number }[];
  readonly nothing: number;
}
/** Most entries and draws of one request for rolls: some seconds. */
const ROLL_STEPS = 1e8;

/**
 * @param progress  asked now and then; false stops it
 * @returns as many as were asked for, or as fit within the steps
 */
export function rolls(
  box: Draws,
  tables: Tables,
  level: number,
  times: number,
  seed: number,
  progress?: (done: number) => boolean,
): Rolled {
  const things = thingsIn(box, tables, level);
  const roll = roller(box, tables, level, things, new Budget(ROLL_STEPS));
  const random = seeded(seed);
  const sums = new Float64Array(things.length);
  const any = new Float64Array(things.length);
  const into = new Float64Array(things.length);
  let [nothing, done] = [0, 0];
  for (; done < times; done++) {
    if (progress && done % 500 === 499 && !progress(done)) break;
    into.fill(0);
    try {
      roll(random, into);
    } catch (thrown) {
      if (!(thrown instanceof TooMany)) throw thrown;
      break;
    }
    let none = true;
    for (let k = 0; k < into.length; k++) {
      if (into[k] <= 0) continue;
      sums[k] += into[k];
      any[k]++;
      none = false;
    }
    if (none) nothing++;
  }
  const share = (n: number) => (done ? n / done : 0);
  return {
    times: done,
    things: things.map((thing, k) => ({ thing, mean: share(sums[k]), any: share(any[k]) })),
    nothing: share(nothing),
  };
}

/** All that a use gives and draws, as one box; amounts that hang on who uses it count as for them. */
export function boxOfUse(use: HeldUse, amountOf: (effect: HeldUse["effects"][number]) => number): Draws {
  const always: Draws["always"][number][] = [];
  const chances: Draws["chances"][number][] = [];
  for (const effect of use.effects) {
    const { does, chance } = effect;
    const what =
      does.is === "draw"
        ? ({ is: "table", table: does.table } as const)
        : does.is === "give"
          ? ({ is: "item", item: does.item } as const)
          : does.is === "pay"
            ? ({ is: "currency", currency: does.currency } as const)
            : null;
    if (!what) continue;
    const amount = amountOf(effect);
    const content = { what, min: amount, max: amount, from: null, to: null };
    if (chance >= 1) always.push(content);
    else chances.push({ ...content, chance });
  }
  if (use.leaves !== null && use.fate !== "kept")
    always.push({ what: { is: "item", item: use.leaves }, min: 1, max: 1, from: null, to: null });
  return { always, chances, draws: [] };
}

/** Tables that a box opens, however far down: what a worker needs to roll it. */
export function tablesIn(catalogue: Catalogue, box: Draws): Map<Id, Draws> {
  const found = new Map<Id, Draws>();
  const look = (of: Draws): void => {
    for (const part of [...of.always, ...of.chances, ...of.draws.flatMap((d) => d.entries)]) {
      if (part.what.is !== "table" || found.has(part.what.table)) continue;
      const inner = catalogue.records.table.get(part.what.table);
      if (!inner) continue;
      found.set(part.what.table, { always: inner.always, chances: inner.chances, draws: inner.draws });
      look(inner);
    }
  };
  look(box);
  return found;
}
