/**
 * The set of things to wear that is best for chosen weights, under a level and a limit of cost. Exact, by branch and bound:
 * what adds up is bounded by the Lagrangian relaxation of the cost limit (a multiple-choice knapsack, Sinha and Zoltners
 * 1979), what does not (products, highest, lowest, stats with a range) by intervals.
 */
import type { Catalogue } from "../catalogue/catalogue";
import { held, heldStat } from "../catalogue/inheritance";
import type { Item, TrialSubject } from "../kinds/index";
import { type Budget, TooMany } from "../budget/budget";
import type { Id } from "../schema/id";
import { Reckoner } from "./reckon";
import { baseOf, blocksOf, combined, slotOf, within } from "./worn";

export interface SetRequest {
  /** What a point of a stat counts for; below 0 where less of it is better. */
  readonly weights: ReadonlyMap<Id, number>;
  readonly level: number;
  /** Most that all of it may cost; Infinity: whatever it costs. */
  readonly most: number;
}
export interface WornSet {
  readonly items: readonly Id[];
  readonly score: number;
  readonly cost: number;
}
export interface BestSet {
  readonly best: WornSet;
  /** The best of all others; null where there is none. */
  readonly next: WornSet | null;
  /** How many sets were looked at. */
  readonly looked: number;
}

/** Multipliers of the cost at which the relaxation is computed. */
const MULTIPLIERS = 48;
/** Sets that are looked at before it is given up. */
const MOST_LOOKED = 20_000_000;

interface Candidate {
  readonly id: Id;
  readonly slot: number;
  readonly blocks: readonly number[];
  readonly cost: number;
  /** Of what adds up: its weighed sum. */
  readonly plain: number;
  /** Values of the other stats; NaN where it says nothing of one. */
  readonly others: readonly number[];
}
interface Bounded {
  readonly weight: number;
  readonly how: "sum" | "product" | "highest" | "lowest";
  readonly base: number | null;
  readonly range: { readonly min: number | null; readonly max: number | null };
}

/**
 * @param costOf  cost of an item, Infinity where it can't be had
 * @throws TooMany where more sets had to be looked at than there is patience for
 */
export function bestSet(
  catalogue: Catalogue,
  subject: TrialSubject,
  candidates: readonly Item[],
  wanted: SetRequest,
  costOf: (item: Id) => number,
  steps?: Budget,
): BestSet {
  const reckoner = new Reckoner(catalogue);
  const slots = subject.slots.flatMap((id) => catalogue.records.slot.get(id) ?? []);
  const at = new Map(slots.map((s, k) => [s.id, k]));
  const fit = candidates.filter((item) => {
    const slot = slotOf(catalogue, item);
    const cost = costOf(item.id);
    const level = held(catalogue, item, "level").value ?? 0;
    return (
      slot !== null &&
      at.has(slot) &&
      level <= wanted.level &&
      (wanted.most === Number.POSITIVE_INFINITY || cost <= wanted.most)
    );
  });
  const weighed = [...wanted.weights]
    .filter(([, w]) => w !== 0)
    .flatMap(([id, weight]) => {
      const stat = catalogue.records.stat.get(id);
      return stat ? [{ stat, weight, base: baseOf(reckoner, subject, id, wanted.level) }] : [];
    });
  // A sum within a range adds up as long as the range can't be met.
  const adds = weighed.map(({ stat, base }) => {
    if (stat.combine !== "sum") return false;
    if (stat.min === null && stat.max === null) return true;
    let [low, high] = [base ?? 0, base ?? 0];
    for (const { id, places } of slots) {
      const values = fit
        .filter((i) => slotOf(catalogue, i) === id)
        .map((i) => heldStat(catalogue, i, stat.id).value ?? 0);
      low += places * Math.min(0, ...values);
      high += places * Math.max(0, ...values);
    }
    return low >= (stat.min ?? low) && high <= (stat.max ?? high);
  });
  const others: Bounded[] = weighed
    .filter((_, k) => !adds[k])
    .map(({ stat, weight, base }) => ({ weight, how: stat.combine, base, range: stat }));
  const fixed = weighed.reduce((t, { weight, base }, k) => t + (adds[k] ? weight * (base ?? 0) : 0), 0);
  const all = fit.map((item): Candidate => {
    const value = (k: number) => heldStat(catalogue, item, weighed[k].stat.id).value;
    const cost = costOf(item.id);
    return {
      id: item.id,
      slot: at.get(slotOf(catalogue, item) as Id) as number,
      blocks: blocksOf(catalogue, item).flatMap((id) => at.get(id) ?? []),
      cost: Number.isFinite(cost) ? cost : 0,
      plain: weighed.reduce((t, { weight }, k) => t + (adds[k] ? weight * (value(k) ?? 0) : 0), 0),
      others: weighed.flatMap((_, k) => (adds[k] ? [] : [value(k) ?? Number.NaN])),
    };
  });
  // One group for each place; those of one slot take candidates in order, so that no set is met twice.
  const groups = slots.flatMap(({ places }, slot) => {
    const own = all.filter((c) => c.slot === slot).sort((a, b) => b.plain - a.plain || (a.id < b.id ? -1 : 1));
    return own.length
      ? Array.from({ length: Math.min(places, 8) }, (_, place) => ({ slot, own, again: place > 0 }))
      : [];
  });
  const limited = Number.isFinite(wanted.most);
  const steepest = Math.max(0, ...all.map((c) => (c.cost > 0 ? Math.max(0, c.plain) / c.cost : 0)));
  const multipliers = limited
    ? [0, ...Array.from({ length: MULTIPLIERS }, (_, k) => steepest * ((k + 1) / MULTIPLIERS) ** 2)]
    : [0];
  // Most that the groups from one on can add, for each multiplier; and between what values of the others they stand.
  const ahead = multipliers.map((m) => {
    const sums = new Float64Array(groups.length + 1);
    for (let g = groups.length - 1; g >= 0; g--)
      sums[g] = sums[g + 1] + groups[g].own.reduce((most, c) => Math.max(most, c.plain - m * c.cost), 0);
    return sums;
  });
  const spans = others.map((of, k) => {
    const made: { low: number; high: number }[] = new Array(groups.length + 1);
    const none =
      of.how === "sum"
        ? 0
        : of.how === "product"
          ? 1
          : of.how === "highest"
            ? Number.NEGATIVE_INFINITY
            : Number.POSITIVE_INFINITY;
    made[groups.length] = { low: none, high: none };
    for (let g = groups.length - 1; g >= 0; g--) {
      const values = [none, ...groups[g].own.map((c) => c.others[k]).filter((v) => !Number.isNaN(v))];
      const { low, high } = made[g + 1];
      const ends = values.flatMap((v) => [joined(of.how, low, v), joined(of.how, high, v)]);
      made[g] = { low: Math.min(...ends), high: Math.max(...ends) };
    }
    return made;
  });

  let [best, next]: [WornSet | null, WornSet | null] = [null, null];
  let looked = 0;
  const chosen: Candidate[] = [];
  const taken = new Int32Array(slots.length);
  const blocked = new Int32Array(slots.length);
  const standing = others.map((of) => (of.base === null ? [] : [of.base]));

  const scoreOf = (plain: number): number =>
    others.reduce((t, of, k) => t + of.weight * within(of.range, combined(of.how, standing[k])), fixed + plain);
  const boundAt = (g: number, plain: number, left: number): number => {
    let most = Number.POSITIVE_INFINITY;
    for (let m = 0; m < multipliers.length; m++) {
      const bound = ahead[m][g] + (limited ? multipliers[m] * left : 0);
      if (bound < most) most = bound;
    }
    let sum = fixed + plain + most;
    for (const [k, of] of others.entries()) {
      const { low, high } = spans[k][g];
      const now = standing[k].length ? combined(of.how, standing[k]) : null;
      const ends = [low, high].map((end) => {
        const value = now === null ? end : joined(of.how, now, end);
        return Number.isFinite(value) ? value : 0;
      });
      if (now === null) ends.push(0);
      sum += Math.max(...ends.map((end) => of.weight * within(of.range, end)));
    }
    return sum;
  };
  const keep = (plain: number, cost: number): void => {
    const set: WornSet = { items: chosen.map((c) => c.id), score: scoreOf(plain), cost };
    if (!best || better(set, best)) [best, next] = [set, best];
    else if (!next || better(set, next)) next = set;
  };
  const go = (g: number, plain: number, cost: number, from: number): void => {
    steps?.take(1);
    if (++looked > MOST_LOOKED)
      throw new TooMany("There are too many sets to compare. Choose fewer candidates or weights.");
    if (g === groups.length) {
      keep(plain, cost);
      return;
    }
    if (next && boundAt(g, plain, wanted.most - cost) < (next as WornSet).score - 1e-9) return;
    const { own, slot } = groups[g];
    const first = groups[g].again ? from : 0;
    for (let k = first; k < own.length; k++) {
      const c = own[k];
      if (cost + c.cost > wanted.most + 1e-9 || blocked[slot] > 0 || c.blocks.some((b) => taken[b] > 0)) continue;
      chosen.push(c);
      taken[slot]++;
      for (const b of c.blocks) blocked[b]++;
      for (const [n, value] of c.others.entries()) if (!Number.isNaN(value)) standing[n].push(value);
      go(g + 1, plain + c.plain, cost + c.cost, k);
      for (const [n, value] of c.others.entries()) if (!Number.isNaN(value)) standing[n].pop();
      for (const b of c.blocks) blocked[b]--;
      taken[slot]--;
      chosen.pop();
    }
    // Nothing there, and nothing in the places of the same slot behind it.
    let skip = g + 1;
    while (skip < groups.length && groups[skip].slot === slot) skip++;
    go(skip, plain, cost, 0);
  };
  go(0, 0, 0, 0);
  return { best: best ?? { items: [], score: scoreOf(0), cost: 0 }, next, looked };
}

const better = (a: WornSet, b: WornSet): boolean =>
  a.score > b.score + 1e-12 || (Math.abs(a.score - b.score) <= 1e-12 && a.cost < b.cost);

function joined(how: Bounded["how"], a: number, b: number): number {
  if (how === "sum") return a + b;
  if (how === "product") return a * b;
  return how === "highest" ? Math.max(a, b) : Math.min(a, b);
}
