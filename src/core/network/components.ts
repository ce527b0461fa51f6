/**
 * Strongly connected components of items and processes, without recursion (Tarjan 1972, in the memory of Pearce 2016).
 */
import { KEEPS, type Network } from "./network";

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
  const { start: userStart, end: userEnd, to: userTo } = network.consumers;
  const { start: outStart, end: outEnd, to: outTo } = network.outs;
  const { start: inStart, end: inEnd, to: inTo } = network.ins;
  const inQty = network.ins.qty as Float64Array;
  const { flags } = network;
  // Where everything that is needed is used up, needing and using up are the same, and no link needs a second look.
  const used = links === "uses" && anyKeeps(flags, network.processes);
  /**
   * 0: not seen yet. While a node is open, the least index of an open node that is reached from it; indices count from
   * 1 and
   * are given out again. Then its component, counted down from the number of nodes, which is above all indices in use.
   */
  const low = new Int32Array(nodes);
  /** The way down to where the search stands: nodes, where to go on in their rows, and the indices they began with. */
  const [path, next, born] = [new Int32Array(nodes), new Int32Array(nodes), new Int32Array(nodes)];
  /** Nodes that are left but still open. */
  const open = new Int32Array(nodes);
  let [depth, opened, index, component] = [0, 0, 1, nodes];

  for (let root = 0; root < nodes; root++) {
    if (low[root] !== 0) continue;
    enter(root);
    while (depth > 0) {
      const d = depth - 1;
      const v = path[d];
      let least = low[v];
      let k = next[d];
      let found = -1;
      if (v < n) {
        for (const stop = inside && !inside[v] ? 0 : userEnd[v]; k < stop; k++) {
          const q = userTo[k];
          const there = low[q + n];
          // Links that could change nothing are not looked at more closely.
          if ((there !== 0 && there >= least) || (alive && !alive[q]) || (used && flags[q] & KEEPS && !usesUp(q, v)))
            continue;
          if (there === 0) {
            found = q + n;
            break;
          }
          least = there;
        }
      } else {
        const p = v - n;
        for (const stop = alive && !alive[p] ? 0 : outEnd[p]; k < stop; k++) {
          const w = outTo[k];
          const there = low[w];
          if ((there !== 0 && there >= least) || (inside && !inside[w])) continue;
          if (there === 0) {
            found = w;
            break;
          }
          least = there;
        }
      }
      low[v] = least;
      if (found >= 0) {
        next[d] = k;
        enter(found);
        continue;
      }
      depth--;
      if (least !== born[d]) {
        open[opened++] = v;
        continue;
      }
      index--;
      for (; opened > 0 && low[open[opened - 1]] >= least; index--) low[open[--opened]] = component;
      low[v] = component--;
    }
  }
  for (let v = 0; v < nodes; v++) low[v] = nodes - low[v];
  return { of: low, count: nodes - component };

  function enter(v: number): void {
    path[depth] = v;
    next[depth] = v < n ? userStart[v] : outStart[v - n];
    born[depth++] = index;
    low[v] = index++;
  }

  function usesUp(p: number, item: number): boolean {
    for (let k = inStart[p]; k < inEnd[p]; k++) if (inTo[k] === item) return inQty[k] > 0;
    return false;
  }
}

function anyKeeps(flags: Uint8Array, processes: number): boolean {
  for (let p = 0; p < processes; p++) if (flags[p] & KEEPS) return true;
  return false;
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
