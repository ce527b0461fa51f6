/** The same questions put to general-purpose libraries, beside ours. */
import * as graphlib from "@dagrejs/graphlib";
import highsLoader from "highs";
import { solve } from "yalps";
import { LeastCost } from "../src/core/analysis/cost";
import { gains } from "../src/core/analysis/gain";
import { Prices } from "../src/core/analysis/prices";
import { Reach } from "../src/core/network/reach";
import { components } from "../src/core/network/components";
import { time } from "./measure";
import { largeNetwork } from "./pantry";

/** Components by a graph library and by ours. It recurses, so it needs a thread with a large stack. */
export function graphTimes(items: number): { readonly library: number; readonly ours: number } {
  const { network } = largeNetwork({ items, seed: 1, deadlocks: Math.ceil(items / 1000) }).compiled;
  const ours = time(() => components(network, { links: "uses" }).count, 5).median;
  const graph = new graphlib.Graph({ directed: true });
  for (let p = 0; p < network.processes; p++) {
    const node = `p${p}`;
    for (let k = network.ins.start[p]; k < network.ins.end[p]; k++) graph.setEdge(String(network.ins.to[k]), node);
    for (let k = network.outs.start[p]; k < network.outs.end[p]; k++) graph.setEdge(node, String(network.outs.to[k]));
  }
  return { library: time(() => graphlib.alg.tarjan(graph).length, 2).median, ours };
}

/** A programme as both solvers take it: rows of at least or at most so much. */
interface Programme {
  readonly goal: ReadonlyMap<string, number>;
  readonly rows: readonly { readonly of: ReadonlyMap<string, number>; readonly min?: number; readonly max?: number }[];
}
export interface SolverTimes {
  readonly pureOverOurs: number;
  readonly compiledOverOurs: number;
}

/** Both solvers beside ours. @param best  the optimum, or null where it is not compared */
async function beside({ goal, rows }: Programme, ours: () => unknown, best: number | null): Promise<SolverTimes> {
  const own = time(ours, 9).median;
  const names = [...new Set([...goal.keys(), ...rows.flatMap((r) => [...r.of.keys()])])];
  const variables = Object.fromEntries(
    names.map((name) => [name, { goal: goal.get(name) ?? 0 } as Record<string, number>]),
  );
  rows.forEach(({ of }, r) => {
    for (const [name, q] of of) variables[name][`r${r}`] = q;
  });
  const constraints = Object.fromEntries(
    rows.map(({ min, max }, r) => [`r${r}`, max === undefined ? { min } : { max }]),
  );
  const pure = () => solve({ direction: "maximize", objective: "goal", constraints, variables });
  const sum = (of: ReadonlyMap<string, number>) =>
    [...of].map(([name, q]) => `${q < 0 ? "-" : "+"} ${Math.abs(q).toPrecision(15)} ${name}`).join(" ");
  const text = `Maximize\n obj: ${sum(goal)}\nSubject To\n${rows.map(({ of, min, max }, r) => ` r${r}: ${sum(of)} ${max === undefined ? `>= ${min}` : `<= ${max}`}`).join("\n")}\nEnd`;
  const highs = await highsLoader();
  const compiled = () => highs.solve(text);
  const near = (found: number) => best === null || Math.abs(found - best) <= 1e-6 * Math.abs(best);
  if (!near(pure().result) || !near(compiled().ObjectiveValue))
    throw new Error("a general solver finds another optimum than ours");
  return {
    pureOverOurs: time(() => pure().result, 3).median / own,
    compiledOverOurs: time(() => compiled().ObjectiveValue, 3).median / own,
  };
}

/**
 * The gain question as one programme over all processes, and least costs as another, of a pantry that general solvers
 * can take.
 */
export async function solverTimes(): Promise<{ readonly gain: SolverTimes; readonly cost: SolverTimes }> {
  return { gain: await gainTimes(), cost: await costTimes() };
}

async function gainTimes(): Promise<SolverTimes> {
  const { compiled } = largeNetwork({ items: 400, seed: 2, loops: 2 });
  const { network } = compiled;
  const reach = new Reach(network);
  const prices = new Prices(compiled, reach);
  const columns = Array.from({ length: network.processes }, (_, p) => p).filter((p) => prices.takesPart(p));
  const rows = new Map<number, Map<string, number>>();
  const goal = new Map<string, number>();
  for (const p of columns) {
    let worth = 0;
    for (const [lists, sign] of [
      [network.ins, -1],
      [network.outs, 1],
    ] as const)
      for (let k = lists.start[p]; k < lists.end[p]; k++) {
        const [item, q] = [lists.to[k], sign * (lists.qty as Float64Array)[k]];
        const row = rows.get(item) ?? new Map<string, number>();
        rows.set(item, row);
        row.set(`x${p}`, (row.get(`x${p}`) ?? 0) + q);
        worth += q * prices.price[item];
      }
    goal.set(`x${p}`, worth);
  }
  const one = new Map(columns.map((p) => [`x${p}`, 1]));
  return beside(
    { goal, rows: [...[...rows.values()].map((of) => ({ of, min: 0 })), { of: one, max: 1 }] },
    () => gains(compiled, reach).gains.length + 1,
    null,
  );
}

/**
 * Least costs are the largest prices at which no output is worth more than the run that gives it: the optimum must be
 * ours.
 */
async function costTimes(): Promise<SolverTimes> {
  const { network } = largeNetwork({ items: 400, seed: 2 }).compiled;
  const ours = () => new LeastCost(network, { perMoney: 1, perSecond: 1 / 60, reach: new Reach(network) });
  const rows: { of: Map<string, number>; max: number }[] = [];
  const { ins, outs } = network;
  for (let p = 0; p < network.processes; p++)
    for (let m = outs.start[p]; m < outs.end[p]; m++) {
      const of = new Map([[`c${outs.to[m]}`, (outs.qty as Float64Array)[m]]]);
      for (let k = ins.start[p]; k < ins.end[p]; k++)
        of.set(`c${ins.to[k]}`, (of.get(`c${ins.to[k]}`) ?? 0) - (ins.qty as Float64Array)[k]);
      rows.push({ of, max: network.money[p] + network.seconds[p] / 60 });
    }
  const goal = new Map(Array.from({ length: network.items }, (_, i) => [`c${i}`, 1]));
  return beside(
    { goal, rows },
    ours,
    ours().cost.reduce((sum, c) => sum + c, 0),
  );
}
