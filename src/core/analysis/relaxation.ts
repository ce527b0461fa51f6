/** Prices moved a little at each process that gains under them, until none does. */
import type { Network } from "../network/network";

/** How far past the border a process is moved, as a multiple of the way to it: between 1 and 2. */
const OVER = 1.9;
/** A process that was moved so often is put aside, where it may be. */
const MOST_TIMES = 20;

export interface Relaxed {
  /** Processes that were put aside: they may gain still. */
  readonly aside: ReadonlySet<number>;
}

/**
 * The relaxation method for linear inequalities (Agmon 1954; Motzkin and Schoenberg 1954), each price in a unit of its
 * own: where what a run gives is worth more than what it takes less a share, every price it touches moves by how much
 * it is worth in the run, what goes in up and what comes out down. Where a whole range of prices would do it ends inside
 * of it, unlike lowering what is dearest, which runs along its border. Work is bounded by `most` moves, each of which
 * looks at the processes around it.
 * @param price   per item, above zero; written into
 * @param first   processes that may gain; all others lose
 * @param margin  share of its inputs' worth that each process must lose
 * @returns null where the moves did not suffice: then the prices are of no use
 */
export function relax(
  network: Network,
  price: Float64Array,
  {
    first,
    margin,
    takesPart,
    mayBePutAside,
    floor,
    most,
  }: {
    readonly first: Iterable<number>;
    readonly margin: number;
    readonly takesPart: (p: number) => boolean;
    readonly mayBePutAside: (p: number) => boolean;
    /** Below which the price of an item does not fall. */
    readonly floor: (item: number) => number;
    readonly most: number;
  },
): Relaxed | null {
  const { ins, outs, producers, consumers, money, processes } = network;
  const [used, made] = [ins.qty as Float64Array, outs.qty as Float64Array];
  const aside = new Set<number>();
  const times = new Map<number, number>();
  // A ring: each process waits in it at most once.
  const waits = new Uint8Array(processes);
  const ring = new Uint32Array(processes + 1);
  let [head, tail] = [0, 0];
  const push = (p: number) => {
    if (waits[p] || aside.has(p) || !takesPart(p)) return;
    waits[p] = 1;
    ring[tail] = p;
    tail = tail === processes ? 0 : tail + 1;
  };
  for (const p of first) push(p);
  for (let moves = 0; head !== tail; ) {
    const p = ring[head];
    head = head === processes ? 0 : head + 1;
    waits[p] = 0;
    let [taken, given, square] = [money[p], 0, 0];
    for (let k = ins.start[p]; k < ins.end[p]; k++) {
      const worth = used[k] * price[ins.to[k]];
      taken += worth;
      square += worth * worth;
    }
    for (let k = outs.start[p]; k < outs.end[p]; k++) {
      const worth = made[k] * price[outs.to[k]];
      given += worth;
      square += worth * worth;
    }
    if (given <= taken * (1 - margin)) continue;
    const before = times.get(p) ?? 0;
    if (before >= MOST_TIMES && mayBePutAside(p)) {
      aside.add(p);
      continue;
    }
    if (++moves > most) return null;
    times.set(p, before + 1);
    const far = (OVER * (given - taken * (1 - 3 * margin))) / square;
    for (let k = ins.start[p]; k < ins.end[p]; k++) {
      const item = ins.to[k];
      if (!(used[k] > 0)) continue;
      price[item] = Math.min(1e200, price[item] * (1 + Math.min(1, far * used[k] * price[item])));
      for (let m = producers.start[item]; m < producers.end[item]; m++) push(producers.to[m]);
    }
    for (let k = outs.start[p]; k < outs.end[p]; k++) {
      const item = outs.to[k];
      const lower = price[item] * Math.max(0.5, 1 - far * made[k] * price[item]);
      price[item] = Math.max(lower, floor(item), 1e-100);
      for (let m = consumers.start[item]; m < consumers.end[item]; m++) push(consumers.to[m]);
    }
    push(p);
  }
  return { aside };
}
