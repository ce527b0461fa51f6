/** Strongly connected components of items and processes, without recursion (Tarjan 1972). */
import type { Network } from "./network";

export interface Graph {
  /** What counts as a link into a process: everything it needs, or only what it uses up. */
  readonly links: "needs" | "uses";
  /** Limits the graph to some processes. */
  readonly alive?: Uint8Array;
  /** Limits it to some items. */
  readonly inside?: Uint8Array;
}

/**
 * Components of the bipartite graph item → process → item. Nodes 0 .. items−1 are items, then processes.
 * @returns for every node the number of its component; nodes outside the graph get components of their own
 * Linear in the number of lines.
 */
export function components(network: Network, { links, alive, inside }: Graph): { of: Int32Array; count: number } {
  const n = network.items;
  const nodes = n + network.processes;
  const { start: userStart, end: userEnd, to: userTo } = network.users;
  const { start: outStart, end: outEnd, to: outTo } = network.outs;
  const { start: inStart, end: inEnd, to: inTo } = network.ins;
  const inQty = network.ins.qty as Float64Array;
  /** 0: not seen yet; otherwise the time it was seen at, while it is open; −1: it has its component. */
  const low = new Int32Array(nodes);
  const of = new Int32Array(nodes);
  const next = new Int32Array(nodes);
  const path = new Int32Array(nodes);
  const open = new Int32Array(nodes);
  const seen = new Int32Array(nodes);
  let [depth, opened, clock, count] = [0, 0, 0, 0];
  const used = links === "uses";

  for (let root = 0; root < nodes; root++) {
    if (seen[root] !== 0) continue;
    path[depth++] = root;
    while (depth > 0) {
      const v = path[depth - 1];
      const isItem = v < n;
      const p = v - n;
      let k: number;
      if (seen[v] === 0) {
        seen[v] = low[v] = ++clock;
        open[opened++] = v;
        k = isItem ? userStart[v] : outStart[p];
      } else k = next[v];
      const stop = isItem ? (inside && !inside[v] ? 0 : userEnd[v]) : alive && !alive[p] ? 0 : outEnd[p];
      let least = low[v];
      let deeper = false;
      for (; k < stop; k++) {
        let w: number;
        if (isItem) {
          const q = userTo[k];
          w = q + n;
          // Links that could change nothing are not looked at more closely.
          if (seen[w] < 0 || (seen[w] > 0 && low[w] >= least) || (alive && !alive[q]) || (used && !usesUp(q, v))) continue;
        } else {
          w = outTo[k];
          if (inside && !inside[w]) continue;
        }
        if (seen[w] === 0) {
          path[depth++] = w;
          deeper = true;
          break;
        }
        if (seen[w] > 0 && low[w] < least) least = low[w];
      }
      low[v] = least;
      next[v] = k;
      if (deeper) continue;
      depth--;
      if (least !== seen[v]) continue;
      for (let w = open[--opened]; ; w = open[--opened]) {
        of[w] = count;
        seen[w] = -1;
        if (w === v) break;
      }
      count++;
    }
  }
  return { of, count };

  function usesUp(p: number, item: number): boolean {
    for (let k = inStart[p]; k < inEnd[p]; k++) if (inTo[k] === item) return inQty[k] > 0;
    return false;
  }
}

export interface Round {
  readonly items: number[];
  readonly processes: number[];
}

/** Components that hold at least one process and one item: the places where something goes round. */
export function rounds(network: Network, graph: Graph): Round[] {
  const { of, count } = components(network, graph);
  const n = network.items;
  const size = new Int32Array(count);
  for (const c of of) size[c]++;
  const groups = new Map<number, Round>();
  for (let v = 0; v < of.length; v++) {
    if (size[of[v]] < 2) continue;
    let group = groups.get(of[v]);
    if (!group) {
      group = { items: [], processes: [] };
      groups.set(of[v], group);
    }
    if (v < n) group.items.push(v);
    else group.processes.push(v - n);
  }
  return [...groups.values()];
}
