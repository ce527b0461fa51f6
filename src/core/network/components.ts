/** Strongly connected components of items and processes, without recursion (Tarjan 1972). */
import type { Network, Rows } from "./network";

/**
 * Components of the bipartite graph item → process → item.
 * Nodes 0 .. items−1 are items, then processes. `into` are an item's outgoing links (usedBy, or neededBy for
 * requirements too). `alive` limits the graph to some processes.
 * @returns for every node the number of its component; nodes of dead processes get components of their own
 * Linear in the number of lines.
 */
export function components(network: Network, into: Rows, alive?: Uint8Array): { of: Int32Array; count: number } {
  const n = network.items.length;
  const nodes = n + network.processes.length;
  const low = new Int32Array(nodes);
  const order = new Int32Array(nodes).fill(-1);
  const of = new Int32Array(nodes).fill(-1);
  const next = new Int32Array(nodes);
  const path: number[] = [];
  const open: number[] = [];
  let clock = 0;
  let count = 0;
  const degreeStart = (v: number) => (v < n ? into.ptr[v] : network.makes.ptr[v - n]);
  const degreeEnd = (v: number) => (v < n ? into.ptr[v + 1] : alive && !alive[v - n] ? network.makes.ptr[v - n] : network.makes.ptr[v - n + 1]);
  const target = (v: number, k: number) => (v < n ? into.to[k] + n : network.makes.to[k]);

  for (let root = 0; root < nodes; root++) {
    if (order[root] >= 0) continue;
    path.push(root);
    while (path.length) {
      const v = path[path.length - 1];
      if (order[v] < 0) {
        order[v] = low[v] = clock++;
        next[v] = degreeStart(v);
        open.push(v);
      }
      let deeper = false;
      while (next[v] < degreeEnd(v)) {
        const w = target(v, next[v]);
        if (w >= n && alive && !alive[w - n]) {
          next[v]++;
          continue;
        }
        if (order[w] < 0) {
          path.push(w);
          deeper = true;
          break;
        }
        if (of[w] < 0 && low[w] < low[v]) low[v] = low[w];
        next[v]++;
      }
      if (deeper) continue;
      path.pop();
      if (low[v] === order[v]) {
        for (let w = open.pop() as number; ; w = open.pop() as number) {
          of[w] = count;
          if (w === v) break;
        }
        count++;
      }
    }
  }
  return { of, count };
}

/** Components that hold at least one process and one item: the places where something goes round. */
export function rounds(network: Network, into: Rows, alive?: Uint8Array): { items: number[]; processes: number[] }[] {
  const { of, count } = components(network, into, alive);
  const n = network.items.length;
  const size = new Int32Array(count);
  for (const c of of) size[c]++;
  const groups = new Map<number, { items: number[]; processes: number[] }>();
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
