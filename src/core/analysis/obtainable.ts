/** Which items a player can have at all, and for the others the nearest cause. */
import type { Network } from "../network/network";

export interface Obtainable {
  /** Per item 1 when it can be had. */
  readonly items: Uint8Array;
  /** Per item the process that first gave it, −1: none. Following it always ends at sources: a well-founded proof. */
  readonly first: Int32Array;
  /** Per process 1 when everything it needs can be had. */
  readonly processes: Uint8Array;
}

/**
 * Least fixed point by forward chaining with a counter per process (Dowling and Gallier 1984).
 * Ingredients, tools and stations alike must be at hand. Linear in the number of lines.
 * @param given  items taken as obtainable from the start (1), for "what if we had …"
 */
export function obtainable(network: Network, given?: Uint8Array, alive?: Uint8Array): Obtainable {
  const { needs, makes, neededBy } = network;
  const processes = new Uint8Array(network.processes.length);
  const items = new Uint8Array(network.items.length);
  const first = new Int32Array(network.items.length).fill(-1);
  const missing = new Int32Array(network.processes.length);
  const queue: number[] = [];
  const reach = (item: number, by: number) => {
    if (items[item]) return;
    items[item] = 1;
    first[item] = by;
    queue.push(item);
  };
  const fire = (p: number) => {
    processes[p] = 1;
    for (let k = makes.ptr[p]; k < makes.ptr[p + 1]; k++) reach(makes.to[k], p);
  };
  if (given) for (let i = 0; i < given.length; i++) if (given[i]) reach(i, -1);
  for (let p = 0; p < missing.length; p++) {
    missing[p] = needs.ptr[p + 1] - needs.ptr[p];
    if (missing[p] === 0 && (!alive || alive[p])) fire(p);
  }
  for (let at = 0; at < queue.length; at++) {
    const item = queue[at];
    for (let k = neededBy.ptr[item]; k < neededBy.ptr[item + 1]; k++) {
      const p = neededBy.to[k];
      if (--missing[p] === 0 && (!alive || alive[p])) fire(p);
    }
  }
  return { items, first, processes };
}

/** Why an item can't be had: the few items to which somebody must give a source, recipe or way in. */
export interface Cause {
  /** Items nothing makes, or one item of each closed circle. */
  readonly leaves: readonly number[];
  /** The process that would work if the leaves could be had; −1: nothing makes the item. */
  readonly by: number;
}

/**
 * For each item out of reach a small set of leaf causes whose repair would unblock it.
 * A leaf is an item that nothing makes, or (circle) an item of a closed circle, which then counts as the place to break it.
 * Chosen process by process with the fewest causes counted as a sum, so a cause shared by two inputs is counted twice: the
 * set is a small one, not always the smallest (that question is NP-hard).
 */
export function causes(network: Network, reach: Obtainable, circles: readonly (readonly number[])[]): Map<number, Cause> {
  const { needs, makes, neededBy, madeBy } = network;
  const weight = new Float64Array(network.items.length).fill(Number.POSITIVE_INFINITY);
  const by = new Int32Array(network.items.length).fill(-1);
  const missing = new Int32Array(network.processes.length);
  const total = new Float64Array(network.processes.length);
  const layers: number[][] = [[], []];
  for (let p = 0; p < missing.length; p++) for (let k = needs.ptr[p]; k < needs.ptr[p + 1]; k++) if (!reach.items[needs.to[k]]) missing[p]++;
  const put = (item: number, w: number, process: number) => {
    if (reach.items[item] || w >= weight[item]) return;
    weight[item] = w;
    by[item] = process;
    layers[w] ??= [];
    layers[w].push(item);
  };
  for (let i = 0; i < reach.items.length; i++) if (madeBy.ptr[i] === madeBy.ptr[i + 1]) put(i, 1, -1);
  const settled = new Uint8Array(network.items.length);
  const settle = () => {
    for (let w = 1; w < layers.length; w++) {
      for (const item of layers[w] ?? []) {
        if (settled[item] || weight[item] !== w) continue;
        settled[item] = 1;
        for (let k = neededBy.ptr[item]; k < neededBy.ptr[item + 1]; k++) {
          const p = neededBy.to[k];
          total[p] += w;
          if (--missing[p] === 0) for (let m = makes.ptr[p]; m < makes.ptr[p + 1]; m++) put(makes.to[m], total[p], p);
        }
      }
      layers[w] = [];
    }
  };
  settle();
  for (const circle of circles) {
    if (circle.some((i) => settled[i])) continue;
    put(circle[0], 1, -1);
    settle();
  }
  const found = new Map<number, Cause>();
  for (let i = 0; i < weight.length; i++) {
    if (reach.items[i]) continue;
    const leaves = new Set<number>();
    const seen = new Set([i]);
    for (const at of seen) {
      const p = by[at];
      if (p < 0) leaves.add(at);
      else for (let k = needs.ptr[p]; k < needs.ptr[p + 1]; k++) if (!reach.items[needs.to[k]]) seen.add(needs.to[k]);
    }
    found.set(i, { leaves: [...leaves], by: by[i] });
  }
  return found;
}
