/** The same questions put to general-purpose libraries, beside ours. */
import * as graphlib from "@dagrejs/graphlib";
import highsLoader from "highs";
import { solve } from "yalps";
import { gains } from "../src/core/analysis/gain";
import { Prices } from "../src/core/analysis/prices";
import { Reach } from "../src/core/analysis/reach";
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

/** The gain question as one programme over all processes, put to general solvers, beside ours; on a pantry they can take. */
export async function solverTimes(): Promise<{ readonly pureOverOurs: number; readonly compiledOverOurs: number }> {
  const { compiled } = largeNetwork({ items: 400, seed: 2, loops: 2 });
  const { network } = compiled;
  const reach = new Reach(network);
  const prices = new Prices(compiled, reach);
  const columns = Array.from({ length: network.processes }, (_, p) => p).filter((p) => prices.takesPart(p));
  const net = columns.map((p) => {
    const row = new Map<number, number>();
    for (let k = network.ins.start[p]; k < network.ins.end[p]; k++) row.set(network.ins.to[k], -(network.ins.qty as Float64Array)[k]);
    for (let k = network.outs.start[p]; k < network.outs.end[p]; k++) row.set(network.outs.to[k], (row.get(network.outs.to[k]) ?? 0) + (network.outs.qty as Float64Array)[k]);
    return row;
  });
  const ours = time(() => gains(compiled, reach).gains.length + 1, 9).median;
  const variables = Object.fromEntries(columns.map((p, c) => [`x${p}`, { ...Object.fromEntries([...net[c]].map(([i, q]) => [`r${i}`, q])), one: 1, goal: [...net[c]].reduce((t, [i, q]) => t + q * prices.price[i], 0) }]));
  const rows = [...new Set(net.flatMap((row) => [...row.keys()]))];
  const pure = time(() => solve({ direction: "maximize", objective: "goal", constraints: { ...Object.fromEntries(rows.map((i) => [`r${i}`, { min: 0 }])), one: { max: 1 } }, variables }).status, 3).median;
  const number = (q: number) => `${q < 0 ? "-" : "+"} ${Math.abs(q).toPrecision(15)}`;
  const text = `Maximize\n obj: ${columns.map((p, c) => `${number([...net[c]].reduce((t, [i, q]) => t + q * prices.price[i], 0))} x${p}`).join(" ")}\nSubject To\n${rows.map((i) => ` r${i}: ${columns.flatMap((p, c) => (net[c].has(i) ? [`${number(net[c].get(i) as number)} x${p}`] : [])).join(" ")} >= 0`).join("\n")}\n one: ${columns.map((p) => `+ x${p}`).join(" ")} <= 1\nEnd`;
  const highs = await highsLoader();
  const compiledSolver = time(() => highs.solve(text).Status, 3).median;
  return { pureOverOurs: pure / ours, compiledOverOurs: compiledSolver / ours };
}
