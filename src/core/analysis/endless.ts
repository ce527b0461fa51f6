/** What can be had without end, and what comes only from gifts and from stock that runs out. */
import type { Compiled } from "../network/compile";
import { ALIVE } from "../network/network";

/** How often each process can run in a world, where that is limited: gifts, and wares without restock. */
export function limitsOf(compiled: Compiled): Map<number, number> {
  const limits = new Map<number, number>();
  for (const { id, kind, runs, wares } of compiled.catalogue.records.source.values()) {
    if (kind !== "gift" && runs === null && !wares.some((w) => w.stock !== null && w.restock === 0)) continue;
    for (const p of compiled.processesOf("source", id)) {
      const limit = compiled.process(p)?.spec.limit;
      if (limit !== undefined) limits.set(p, limit);
    }
  }
  return limits;
}

/** Items within reach by some processes, and those that fire (forward chaining, O(L)). */
export function chained(
  { network }: Compiled,
  counts: (p: number) => boolean,
): { readonly items: Uint8Array; readonly processes: Uint8Array } {
  const { ins, outs, consumers, flags } = network;
  const [items, processes] = [new Uint8Array(network.items), new Uint8Array(network.processes)];
  const missing = new Int32Array(network.processes);
  const queue: number[] = [];
  const fire = (p: number) => {
    processes[p] = 1;
    for (let k = outs.start[p]; k < outs.end[p]; k++)
      if (!items[outs.to[k]]) {
        items[outs.to[k]] = 1;
        queue.push(outs.to[k]);
      }
  };
  const alive = (p: number) => (flags[p] & ALIVE) !== 0 && counts(p);
  for (let p = 0; p < network.processes; p++) {
    missing[p] = ins.end[p] - ins.start[p];
    if (missing[p] === 0 && alive(p)) fire(p);
  }
  for (let i = queue.pop(); i !== undefined; i = queue.pop())
    for (let k = consumers.start[i]; k < consumers.end[i]; k++)
      if (--missing[consumers.to[k]] === 0 && alive(consumers.to[k])) fire(consumers.to[k]);
  return { items, processes };
}

/**
 * A gift is no way to price what can be had without it: its process counts, in costs, only for what comes no other way.
 * Where nothing is limited it holds nothing and costs nothing.
 */
export class Endless {
  limits: ReadonlyMap<number, number> = new Map();
  /** Per item 1 where it can be had without limited processes; null: nothing is limited. */
  items: Uint8Array | null = null;

  constructor(compiled: Compiled) {
    this.refresh(compiled);
  }
  /** Whether a process is no way to an item: it is limited, and the item can be had without. */
  shuts(p: number, item: number): boolean {
    return this.items !== null && this.limits.has(p) && this.items[item] === 1;
  }
  /** @returns limited processes, those that were and those that are, where anything may be otherwise now */
  refresh(compiled: Compiled): number[] {
    const before = this.limits;
    this.limits = limitsOf(compiled);
    if (!this.limits.size && !before.size) return [];
    const { limits } = this;
    this.items = limits.size ? chained(compiled, (p) => !limits.has(p)).items : null;
    return [...new Set([...before.keys(), ...limits.keys()])];
  }
}
