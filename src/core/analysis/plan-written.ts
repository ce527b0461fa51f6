/** A plan as plain data, by the ids of what is in it; and what is asked of one. */
import { processAt } from "../network/compile";
import { MEMBER } from "../network/network";
import type { Node } from "../process/node";
import type { Kind } from "../kinds/index";
import type { Id } from "../schema/id";
import type { Measure } from "./cost";
import { type NoPlan, planFor, secondsOf, takenBy } from "./plan";
import type { Readings } from "./readings";

export interface AskedPlan {
  /** Items with how many are wanted, and how many are there. */
  readonly make: readonly (readonly [Id, number])[];
  readonly stock: readonly (readonly [Id, number])[];
  readonly measure: Measure;
  /** Absent: chances count by their expectation. */
  readonly confidence?: number;
}
/** Most items of a basket, and of a stock; and most of one. */
export const MOST_IN_BASKET = 100;
export const MOST_WANTED = 1e6;

type Amounts = readonly (readonly [Node, number])[];
export interface PlannedStep {
  readonly kind: Kind;
  readonly id: Id;
  readonly name: string;
  readonly runs: number;
  /** In so many turns, between which other steps give back what it takes; absent: all at once. */
  readonly turns?: number;
  readonly seconds: number;
  readonly takes: Amounts;
  readonly gives: Amounts;
}
export interface WrittenPlan {
  readonly steps: readonly PlannedStep[];
  readonly shopping: Amounts;
  readonly needed: Amounts;
  readonly taken: Amounts;
  readonly left: Amounts;
  readonly busy: Amounts;
  readonly value: number;
  readonly seconds: number;
  readonly best: boolean;
}
/** null: one of the items is not there. */
export type PlanAnswer = WrittenPlan | { readonly no: NoPlan["no"]; readonly item: Node } | null;

/** Why there is none, in a sentence. */
export const sayNoPlan = (name: string, no: NoPlan["no"]): string =>
  no === "way"
    ? `${name} is unobtainable.`
    : `A world does not have that much ${name}: its only sources are one-time or limited.`;

export function writtenPlan(readings: Readings, { make, stock, measure, confidence }: AskedPlan): PlanAnswer {
  const { compiled, network } = readings;
  const numbered = (amounts: AskedPlan["make"]): Map<number, number> | null => {
    const found = new Map<number, number>();
    for (const [id, n] of amounts) {
      const i = compiled.numberOf(id);
      if (i === undefined) return null;
      found.set(i, (found.get(i) ?? 0) + n);
    }
    return found;
  };
  const [wanted, there] = [numbered(make), numbered(stock)];
  if (!wanted || !there) return null;
  const plan = planFor(readings, { make: wanted, stock: there, measure, confidence });
  const node = (i: number) => compiled.nodeOf(i) as Node;
  if ("no" in plan) return { no: plan.no, item: node(plan.item) };
  const amounts = (of: ReadonlyMap<number, number>): Amounts => [...of].map(([i, n]) => [node(i), n]);
  const row = ({ start, end, to, qty }: typeof network.ins, p: number, of: (k: number) => number): Amounts =>
    Array.from({ length: end[p] - start[p] }, (_, k) => start[p] + k).flatMap((k) =>
      (qty as Float64Array)[k] > 0 ? [[node(to[k]), of(k)] as const] : [],
    );
  return {
    // That an item is any with a tag is no step; what it stands for is told by the step that takes it.
    steps: plan.steps
      .filter(({ process }) => !(network.flags[process] & MEMBER))
      .map(({ process: p, runs, turns }) => {
        const { kind, record } = processAt(compiled, p);
        return {
          kind,
          id: record.id,
          name: record.name,
          runs,
          ...(turns === undefined ? {} : { turns }),
          seconds: secondsOf(readings, p, runs),
          takes: named(row(network.ins, p, (k) => takenBy(readings, p, k, runs))),
          gives: row(network.outs, p, (k) => runs * (network.outs.qty as Float64Array)[k]),
        };
      }),
    shopping: amounts(plan.shopping),
    needed: amounts(plan.needed),
    taken: amounts(plan.taken),
    left: amounts(plan.left),
    busy: amounts(plan.busy),
    value: plan.value,
    seconds: plan.seconds,
    best: plan.best,
  };

  /** Any item with a tag, as the items that the plan uses for it where it is one alone. */
  function named(taken: Amounts): Amounts {
    if ("no" in plan) return taken;
    return taken.map(([thing, n]) => {
      const i = compiled.numberOf(thing) as number;
      const members = plan.steps.filter(({ process: p }) => network.flags[p] & MEMBER && network.yieldOf(p, i) > 0);
      const only = members.length === 1 ? members[0].process : -1;
      return [only < 0 ? thing : node(network.ins.to[network.ins.start[only]]), n] as const;
    });
  }
}
