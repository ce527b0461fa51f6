/**
 * The same questions asked of plain objects and Maps, as one would write them first: what the flat arrays are held
 * against.
 */
import type { Network } from "../src/core/network/network";

interface Row {
  readonly item: string;
  readonly quantity: number;
}
interface Process {
  readonly ins: Row[];
  readonly outs: Row[];
  readonly own: number;
  readonly money: number;
  readonly seconds: number;
  readonly level: number;
  readonly flags: number;
}
export interface Plain {
  readonly processes: Process[];
  /** Both directions, as in the arrays. */
  readonly consumers: Map<string, Process[]>;
  readonly producers: Map<string, Process[]>;
  readonly items: string[];
}

export function plainOf(network: Network): Plain {
  const rows = ({ start, end, to, qty }: Network["ins"], p: number): Row[] =>
    Array.from({ length: end[p] - start[p] }, (_, k) => ({
      item: `item ${to[start[p] + k]}`,
      quantity: (qty as Float64Array)[start[p] + k],
    }));
  const { seconds, money, level, flags } = network;
  const processes = Array.from(
    { length: network.processes },
    (_, p): Process => ({
      ins: rows(network.ins, p),
      outs: rows(network.outs, p),
      own: seconds[p] / 60,
      money: money[p],
      seconds: seconds[p],
      level: level[p],
      flags: flags[p],
    }),
  );
  const by = (side: "ins" | "outs") => {
    const map = new Map<string, Process[]>();
    for (const process of processes)
      for (const { item } of process[side]) {
        const list = map.get(item);
        if (list) list.push(process);
        else map.set(item, [process]);
      }
    return map;
  };
  return {
    processes,
    consumers: by("ins"),
    producers: by("outs"),
    items: Array.from({ length: network.items }, (_, i) => `item ${i}`),
  };
}

/** Obtainable items and their least costs, label-correcting. */
export function plainCost({ processes, consumers }: Plain): Map<string, number> {
  const cost = new Map<string, number>();
  let open = new Set(processes);
  while (open.size) {
    const next = new Set<Process>();
    for (const process of open) {
      if (process.ins.some((r) => !cost.has(r.item))) continue;
      const t = process.ins.reduce((sum, r) => sum + r.quantity * (cost.get(r.item) as number), process.own);
      for (const { item, quantity } of process.outs) {
        if (t / quantity >= (cost.get(item) ?? Number.POSITIVE_INFINITY)) continue;
        cost.set(item, t / quantity);
        for (const user of consumers.get(item) ?? []) next.add(user);
      }
    }
    open = next;
  }
  return cost;
}
