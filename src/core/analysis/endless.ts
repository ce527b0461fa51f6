/** What can be had without end, and what comes only from gifts and from stock that runs out. */
import type { Index } from "../catalogue/persistent-map";
import type { Source } from "../kinds/index";
import type { Compiled } from "../network/compile";
import { ALIVE, KEEPS } from "../network/network";
import { askedTags, membersOf, vesselsAmong } from "../process/members";
import { nodeOfTag } from "../process/node";
import { runsOut } from "../process/wares";
import type { Id } from "../schema/id";

const isLimited = ({ kind, runs, wares }: Source): boolean => kind === "gift" || runs !== null || wares.some(runsOut);
/** Sources that give only so often: few among very many. */
const LIMITED: Index<Source, ReadonlySet<Id>> = {
  lasting: true,
  build: (sources) => new Set([...sources.values()].flatMap((s) => (isLimited(s) ? [s.id] : []))),
  follow(limited, _, changes) {
    let next: Set<Id> | null = null;
    for (const [id, source] of changes) {
      const is = source !== undefined && isLimited(source);
      if (is === (next ?? limited).has(id)) continue;
      next ??= new Set(limited);
      if (is) next.add(id);
      else next.delete(id);
    }
    return next ?? limited;
  },
};

/** How often each process can run in a world, where that is limited: gifts, and wares without restock. */
export function limitsOf(compiled: Compiled): Map<number, number> {
  const limits = new Map<number, number>();
  for (const group of limitedGroups(compiled)) for (const { p, limit } of group) limits.set(p, limit);
  return limits;
}
/** Processes that share one limit: those of a source whose tables give other things at some levels. */
function groupsOf(compiled: Compiled): Map<number, readonly number[]> {
  const groups = new Map<number, readonly number[]>();
  for (const group of limitedGroups(compiled))
    if (group.length > 1)
      for (const { p } of group)
        groups.set(
          p,
          group.map((each) => each.p),
        );
  return groups;
}
function* limitedGroups(compiled: Compiled): Generator<readonly { readonly p: number; readonly limit: number }[]> {
  for (const id of compiled.catalogue.records.source.index(LIMITED)) {
    const runs: { p: number; limit: number }[] = [];
    for (const p of compiled.processesOf("source", id)) {
      const { limit, ware } = compiled.process(p)?.spec ?? {};
      if (limit === undefined) continue;
      if (ware) yield [{ p, limit }];
      else runs.push({ p, limit });
    }
    if (runs.length) yield runs;
  }
}

interface Chained {
  readonly items: Uint8Array;
  readonly processes: Uint8Array;
  /** Per item the process that first gave it, −1: none. Following it ends at sources. */
  readonly first: Int32Array;
}
/**
 * Items within reach by some processes, and those that fire (forward chaining, O(L)).
 * @param kept  false: what is only needed at hand is taken to be there
 */
export function chained({ network }: Compiled, counts: (p: number) => boolean, kept = true): Chained {
  const { ins, outs, consumers, flags } = network;
  const [items, processes] = [new Uint8Array(network.items), new Uint8Array(network.processes)];
  const missing = new Int32Array(network.processes);
  const first = new Int32Array(network.items).fill(-1);
  const queue: number[] = [];
  const fire = (p: number) => {
    processes[p] = 1;
    for (let k = outs.start[p]; k < outs.end[p]; k++)
      if (!items[outs.to[k]]) {
        items[outs.to[k]] = 1;
        first[outs.to[k]] = p;
        queue.push(outs.to[k]);
      }
  };
  const alive = (p: number) => (flags[p] & ALIVE) !== 0 && counts(p);
  for (let p = 0; p < network.processes; p++) {
    missing[p] = ins.end[p] - ins.start[p];
    if (!kept) for (let k = ins.start[p]; k < ins.end[p]; k++) if ((ins.qty as Float64Array)[k] === 0) missing[p]--;
    if (missing[p] === 0 && alive(p)) fire(p);
  }
  const usesUp = (p: number, item: number): boolean => {
    for (let k = ins.start[p]; k < ins.end[p]; k++) if (ins.to[k] === item) return (ins.qty as Float64Array)[k] > 0;
    return false;
  };
  for (let i = queue.pop(); i !== undefined; i = queue.pop())
    for (let k = consumers.start[i]; k < consumers.end[i]; k++) {
      if (!kept && flags[consumers.to[k]] & KEEPS && !usesUp(consumers.to[k], i)) continue;
      if (--missing[consumers.to[k]] === 0 && alive(consumers.to[k])) fire(consumers.to[k]);
    }
  return { items, processes, first };
}

/**
 * A gift is no way to price what can be had without it: its process counts, in costs, only for what comes no other way.
 * Nor is what uses a gift up a way to price what can be made forever. Where nothing is limited it holds nothing and
 * costs nothing.
 */
export class Endless {
  limits: ReadonlyMap<number, number> = new Map();
  /** Processes that share their limit with others, each with all of them. */
  groups: ReadonlyMap<number, readonly number[]> = new Map();
  /** Per item 1 where it can be had without limited processes; null: nothing is limited. */
  items: Uint8Array | null = null;

  /** Per item the process by which it first comes without limited ones, −1: none. */
  first: Int32Array = new Int32Array(0);
  /** Per item 1 where it can be made again and again: nothing limited is used up for it, though it may be needed. */
  private lasting: Uint8Array = NOTHING;
  /** Processes that use up what is limited. */
  private drains: ReadonlySet<number> = new Set();
  /** Any with a tag in a vessel that is limited, where what comes in another, or in nothing, is not. */
  private aside: ReadonlySet<number> = new Set();
  /** Processes that take an item for any with a tag that is limited, where others with it are not. */
  private choices: ReadonlySet<number> = new Set();

  constructor(compiled: Compiled) {
    this.refresh(compiled, limitsOf(compiled));
  }
  /** Whether a process is no way to an item: it can run only so often, and the item can be had without. */
  shuts(p: number, item: number): boolean {
    if (this.items === null) return false;
    if (this.limits.has(p)) return this.items[item] === 1;
    if (this.choices.has(p)) return true;
    return this.drains.has(p) && (this.lasting[item] === 1 || this.aside.has(item));
  }
  /**
   * After a change. As long as every line and every limit is what it was, so is all of this.
   * @param lines   whether lines of any process changed
   * @param limits  whether limits may have
   * @returns processes that can run only so often, before and now, where anything may be otherwise now
   */
  follow(compiled: Compiled, { lines, limits: mayDiffer }: { lines: boolean; limits: boolean }): readonly number[] {
    if (!lines && !mayDiffer) return [];
    const limits = limitsOf(compiled);
    if (!lines && limits.size === this.limits.size && [...limits].every(([p, n]) => this.limits.get(p) === n))
      return [];
    return this.refresh(compiled, limits);
  }

  private refresh(compiled: Compiled, all: ReadonlyMap<number, number>): number[] {
    const before = [...this.limits.keys(), ...this.drains, ...this.choices, ...this.givers(compiled)];
    this.limits = all;
    this.groups = groupsOf(compiled);
    this.drains = new Set();
    this.aside = this.choices = new Set();
    if (!this.limits.size) {
      this.items = null;
      return before;
    }
    const { limits } = this;
    ({ items: this.items, first: this.first } = chained(compiled, (p) => !limits.has(p)));
    const fires = chained(compiled, () => true).processes;
    this.lasting = chained(compiled, (p) => fires[p] === 1 && !limits.has(p), false).items;
    this.drains = this.draining(compiled, fires);
    [this.aside, this.choices] = this.outlasted(compiled);
    return [...new Set([...before, ...limits.keys(), ...this.drains, ...this.choices, ...this.givers(compiled)])];
  }

  /** What is limited of any with a tag of which some is not: its nodes, and processes that take an item for it. */
  private outlasted(compiled: Compiled): [nodes: ReadonlySet<number>, processes: ReadonlySet<number>] {
    const { catalogue, network } = compiled;
    const [nodes, processes] = [new Set<number>(), new Set<number>()];
    for (const tag of askedTags(catalogue).keys()) {
      const all = vesselsAmong(catalogue, tag).map((vessel) => compiled.numberOf(nodeOfTag(tag, vessel)) as number);
      if (!all.some((n) => this.lasting[n])) continue;
      for (const n of all) if (!this.lasting[n]) nodes.add(n);
      for (const { id } of membersOf(catalogue, tag)) {
        const i = compiled.numberOf(id) as number;
        const { start, end, to } = network.consumers;
        for (let k = start[i]; !this.lasting[i] && k < end[i]; k++)
          if (compiled.process(to[k])?.spec.chosen?.some(([of, item]) => of === tag && item === id))
            processes.add(to[k]);
      }
    }
    return [nodes, processes];
  }
  /** What counts as what is aside. */
  private *givers({ network: { producers } }: Compiled): Generator<number> {
    for (const n of this.aside) yield* producers.to.subarray(producers.start[n], producers.end[n]);
  }

  private draining({ network: { ins, processes } }: Compiled, fires: Uint8Array): ReadonlySet<number> {
    const found = new Set<number>();
    for (let p = 0; p < processes; p++)
      for (let k = ins.start[p]; fires[p] && k < ins.end[p]; k++)
        if ((ins.qty as Float64Array)[k] > 0 && !this.lasting[ins.to[k]]) found.add(p);
    return found;
  }
}
const NOTHING = new Uint8Array(0);
