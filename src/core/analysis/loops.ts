/** Where the network goes in circles, and what going round does. */
import { rounds } from "../network/components";
import type { Network, Rows } from "../network/network";
import type { Gain, GainReport } from "./gain";
import { type Obtainable, obtainable } from "./obtainable";

export type Verdict = "stuck" | "gaining" | "even" | "lossy";

export interface Loop {
  readonly items: readonly number[];
  readonly processes: readonly number[];
  readonly verdict: Verdict;
  /** Proofs, for a gaining loop. */
  readonly gains: readonly Gain[];
  /** For a stuck loop: true when a tool or station closes the circle rather than ingredients alone. */
  readonly byTool: boolean;
}

/** Every circle of ingredients with its verdict, and every stuck one. Stuck loops come first, lossy ones last. */
export function loops(network: Network, reach: Obtainable, report: GainReport): Loop[] {
  const stuck = stuckLoops(network, reach);
  const taken = new Set(stuck.flatMap((l) => l.items));
  const left = new Set(report.gains);
  const rest = rounds(network, network.usedBy)
    .filter(({ items }) => !items.some((i) => taken.has(i)))
    .map(({ items, processes }): Loop => {
      const inside = new Set(processes);
      const gains = [...left].filter((g) => g.runs.some((r) => inside.has(r.process)));
      for (const g of gains) left.delete(g);
      const even = report.even.some((group) => group.some((p) => inside.has(p)));
      return { items, processes, verdict: gains.length ? "gaining" : even ? "even" : "lossy", gains, byTool: false };
    });
  const alone = [...left].map((gain): Loop => ({ items: gain.net.map((n) => n.item), processes: gain.runs.map((r) => r.process), verdict: "gaining", gains: [gain], byTool: false }));
  const rank: Record<Verdict, number> = { stuck: 0, gaining: 1, even: 2, lossy: 3 };
  return [...stuck, ...alone, ...rest].sort((a, b) => rank[a.verdict] - rank[b.verdict]);
}

/**
 * Circles with no way in: items that stay out of reach even if everything outside their circle could be had. The circle is
 * drawn through ingredients, tools and stations.
 */
function stuckLoops(network: Network, reach: Obtainable): Loop[] {
  const { makes, needs } = network;
  const relevant = new Uint8Array(network.processes.length);
  for (let p = 0; p < relevant.length; p++) {
    if (reach.processes[p]) continue;
    for (let k = makes.ptr[p]; k < makes.ptr[p + 1]; k++) if (!reach.items[makes.to[k]]) relevant[p] = 1;
  }
  if (!relevant.includes(1)) return [];
  return rounds(network, outOfReach(network, reach), relevant).flatMap(({ items, processes }) => {
    const given = new Uint8Array(network.items.length).fill(1);
    for (const i of items) given[i] = 0;
    const with_ = obtainable(network, given);
    const closed = items.filter((i) => !with_.items[i]);
    if (!closed.length) return [];
    const own = new Set(closed);
    const makers = processes.filter((p) => rowHas(makes, p, own) && rowHas(needs, p, own));
    return [{ items: closed, processes: makers, verdict: "stuck" as const, gains: [], byTool: closesByTool(network, makers, own) }];
  });
}

/** neededBy, but only for items that can't be had. */
function outOfReach(network: Network, reach: Obtainable): Rows {
  const { ptr, to, qty } = network.neededBy;
  const kept: number[] = [];
  const start = new Int32Array(ptr.length);
  for (let i = 0; i + 1 < ptr.length; i++) {
    if (!reach.items[i]) for (let k = ptr[i]; k < ptr[i + 1]; k++) kept.push(k);
    start[i + 1] = kept.length;
  }
  return { ptr: start, to: Int32Array.from(kept, (k) => to[k]), qty: Float64Array.from(kept, (k) => qty[k]) };
}

const rowHas = ({ ptr, to }: Rows, row: number, own: ReadonlySet<number>): boolean => {
  for (let k = ptr[row]; k < ptr[row + 1]; k++) if (own.has(to[k])) return true;
  return false;
};

/** Without its tools and stations the circle would be open. */
function closesByTool(network: Network, makers: readonly number[], own: ReadonlySet<number>): boolean {
  const given = new Uint8Array(network.items.length).fill(1);
  for (const i of own) given[i] = 0;
  for (const p of makers) {
    const ingredients = network.processes[p].record.lines.filter((l) => l.role === "ingredient").map((l) => network.index.get(l.item) as number);
    if (!ingredients.some((i) => own.has(i))) return true;
  }
  return makers.some((p) => network.processes[p].record.lines.some((l) => (l.role === "tool" || l.role === "station") && own.has(network.index.get(l.item) as number)));
}
