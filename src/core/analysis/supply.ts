/** Limited supply: how many of an item one world can ever hold, where all of it comes from gifts and stock that runs out. */
import { solve } from "yalps";
import type { Compiled } from "../network/compile";
import { chained, type Endless } from "./endless";

/** Most processes that may take part in one bound; beyond it is not told. */
const MOST_COLUMNS = 400;
/** Above this a bound counts as none: rounding is far below it. */
const ENDLESS = 1e12;
const TOLERANCE = 1e-9;

export interface Supply {
  /** Most of an item that a world can ever hold at once; Infinity: without limit. Items out of reach have none. */
  most(item: number): number;
  /** Items within reach that can't be had without limit. */
  readonly limited: readonly number[];
}

const ENDLESSLY: Supply = { most: () => Number.POSITIVE_INFINITY, limited: [] };

/**
 * What can be had without limited processes is without limit (forward chaining, O(L)). For anything else the most is a
 * linear programme over the processes that give or take limited things: runs ≥ 0, limited ones at most so often, and of
 * no limited thing more is taken than comes. Unbounded programmes are without limit: a circle that gains.
 */
export function supplyOf(compiled: Compiled, { limits, groups, items: endless }: Endless): Supply {
  if (!endless) return ENDLESSLY;
  const { network } = compiled;
  const within = chained(compiled, () => true);
  const limited: number[] = [];
  for (let i = 0; i < network.items; i++)
    if (within.items[i] && !endless[i] && compiled.idOf(i) !== null) limited.push(i);
  const found = new Map<number, number>();
  const most = (item: number): number => {
    if (!within.items[item]) return 0;
    if (endless[item]) return Number.POSITIVE_INFINITY;
    let there = found.get(item);
    if (there === undefined) {
      there = bound(compiled, item, { limits, groups }, endless, within.processes);
      found.set(item, there);
    }
    return there;
  };
  return { most, limited };
}

/** The programme for one item. Only what lies behind it takes part. */
function bound(
  { network }: Compiled,
  item: number,
  { limits, groups }: Pick<Endless, "limits" | "groups">,
  endless: Uint8Array,
  fires: Uint8Array,
): number {
  const { ins, outs, producers } = network;
  const rows = new Set([item]);
  const columns = new Set<number>();
  const open = [item];
  for (let i = open.pop(); i !== undefined; i = open.pop())
    for (let k = producers.start[i]; k < producers.end[i]; k++) {
      const p = producers.to[k];
      if (!fires[p] || columns.has(p)) continue;
      if (columns.size === MOST_COLUMNS) return Number.POSITIVE_INFINITY;
      columns.add(p);
      for (let m = ins.start[p]; m < ins.end[p]; m++)
        if (!endless[ins.to[m]] && !rows.has(ins.to[m])) {
          rows.add(ins.to[m]);
          open.push(ins.to[m]);
        }
    }
  const variables: { [name: string]: { [row: string]: number } } = {};
  const constraints: { [row: string]: { min?: number; max?: number } } = {};
  for (const i of rows) if (i !== item) constraints[`i${i}`] = { min: 0 };
  for (const p of columns) {
    const of: { [row: string]: number } = {};
    const put = (i: number, by: number) => {
      const row = i === item ? "most" : `i${i}`;
      if (rows.has(i)) of[row] = (of[row] ?? 0) + by;
    };
    for (let k = outs.start[p]; k < outs.end[p]; k++) put(outs.to[k], (outs.qty as Float64Array)[k]);
    for (let k = ins.start[p]; k < ins.end[p]; k++) put(ins.to[k], -(ins.qty as Float64Array)[k]);
    const limit = limits.get(p);
    if (limit !== undefined) {
      const row = `p${Math.min(...(groups.get(p) ?? [p]))}`;
      of[row] = 1;
      constraints[row] = { max: limit };
    }
    variables[`v${p}`] = of;
  }
  const { status, result } = solve({ direction: "maximize", objective: "most", constraints, variables });
  if (status !== "optimal" || result > ENDLESS) return Number.POSITIVE_INFINITY;
  return Math.round(result / TOLERANCE) * TOLERANCE;
}
