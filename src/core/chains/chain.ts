/** The chain of one item: what it is made of, down to what comes into the world, and what it is used for, as plain data. */
import { breakdown } from "../analysis/breakdown";
import type { LeastCost, Measure } from "../analysis/cost";
import type { By } from "../analysis/item-costs";
import type { Readings } from "../analysis/readings";
import { policyOrder } from "../analysis/policy";
import { processAt } from "../network/compile";
import { ALIVE, SALVAGE } from "../network/network";
import type { Node } from "../process/node";

/** One of the ways to come by something. */
export interface ChainAlternative {
  /** What it is switched by: kind, id and part of a process. */
  readonly key: string;
  readonly by: By;
  readonly name: string;
  /** Of one unit, in the measure; null: it can't be gone. */
  readonly cost: number | null;
}

export interface ChainNode {
  readonly node: Node;
  /** Column: 0 for what comes into the world or can't be had, above it what is made of columns before. */
  readonly column: number;
  /** Units for one of the item; null where it is not made of it, or that can't be told. */
  readonly amount: number | null;
  /** One unit in the measure, along the least way; null: it can't be had. */
  readonly cost: number | null;
  /** What it adds to the cost of one of the item, its own inputs included. */
  readonly share: number | null;
  /** The way that is drawn; null: there is none. */
  readonly way: ChainAlternative | null;
  /** Others, cheapest first. */
  readonly others: readonly ChainAlternative[];
  /** Stands behind the item: made of it. */
  readonly onward: boolean;
  /** Needed and kept: a tool that lasts, a station, what teaches. Its own chain is folded. */
  readonly kept: boolean;
  /** Of what can't be had: what is missing behind it. */
  readonly causes: readonly Node[];
}

export interface Link {
  readonly from: Node;
  readonly to: Node;
  /** Units of `from` that go into it for one of the item (onward: for one of `to`); 0: needed and kept; null: can't be told. */
  readonly amount: number | null;
  /** In the measure, of what it is for. */
  readonly share: number | null;
  /** Closes a loop: it leads back to an earlier column, or to its own. */
  readonly back: boolean;
}

export interface Chain {
  readonly item: Node;
  readonly measure: Measure;
  /** Of one of the item along the ways that are drawn; null: it can't be had. */
  readonly cost: number | null;
  readonly things: readonly ChainNode[];
  readonly links: readonly Link[];
  /** Things that were left out: too thin or too far. */
  readonly folded: number;
  /** Switches that could not be gone, because the way would go round forever. */
  readonly refused: readonly string[];
}

export interface Ask {
  readonly measure: Measure;
  /** Ways in place of the least, by their keys. */
  readonly ways: readonly string[];
  /** How many columns of what it is used for. */
  readonly onward: number;
  /** How many things at most. */
  readonly most: number;
}
export const ASKED: Ask = { measure: "value", ways: [], onward: 1, most: 80 };
export const MOST_THINGS = 1_000;
/** Others that are told of a thing. */
const MOST_OTHERS = 12;

/** @returns null where there is no such item */
export function chainOf(readings: Readings, item: Node, ask: Ask): Chain | null {
  const { compiled, network } = readings;
  const byKey = byKeyIn(readings);
  const root = compiled.numberOf(item);
  if (root === undefined) return null;
  const least = readings[ask.measure];
  const switched = new Map<number, number>();
  const refused: string[] = [];
  for (const key of ask.ways) {
    const p = processOf(readings, key);
    if (p === undefined) continue;
    for (const i of outputsOf(readings, p)) {
      if (!Number.isFinite(least.runCost(p))) continue;
      switched.set(i, p);
      if (!ends(readings, least, root, chosenBy(readings, ask.measure, switched))) {
        switched.delete(i);
        refused.push(key);
      }
    }
  }
  const by = chosenBy(readings, ask.measure, switched);
  const parts = breakdown(least, by, root);
  const demand = parts?.demand ?? new Map<number, number>([[root, 1]]);
  const behind = parts ? new Set(demand.keys()) : missingBehind(readings, root, ask.most);
  const way = (i: number): number => (by(i) >= 0 ? by(i) : firstWay(readings, i));
  const cost = parts ? [...parts.base, ...parts.work].reduce((sum, x) => sum + x.cost, 0) : null;

  // The heaviest stay where there are too many.
  const weight = (i: number): number => (demand.get(i) ?? 0) * (Number.isFinite(least.cost[i]) ? least.cost[i] : 1);
  const kept = new Set<number>();
  for (const i of behind) {
    const p = way(i);
    if (p < 0) continue;
    const { start, end, to } = network.ins;
    const qty = network.ins.qty as Float64Array;
    for (let k = start[p]; k < end[p]; k++) if (qty[k] === 0 && !behind.has(to[k])) kept.add(to[k]);
  }
  const before = [...behind].sort((a, b) => weight(b) - weight(a) || byKey(a, b));
  const tools = [...kept].sort((a, b) => byKey(a, b));
  const shown = new Set([root, ...before.slice(0, ask.most)]);
  for (const i of tools) if (shown.size < ask.most) shown.add(i);
  let folded = behind.size + kept.size - shown.size;

  const columns = columnsOf(readings, shown, kept, way);
  const rootColumn = columns.get(root) ?? 0;
  const onward = new Map<number, number>();
  let edge = [root];
  for (let far = 1; far <= ask.onward && edge.length; far++) {
    const next: number[] = [];
    for (const i of edge)
      for (const { to } of madeOf(readings, i)) {
        if (shown.has(to) || onward.has(to)) continue;
        if (shown.size + onward.size >= ask.most) folded++;
        else {
          onward.set(to, far);
          next.push(to);
        }
      }
    edge = next;
  }
  for (const [i, far] of onward) columns.set(i, rootColumn + far);

  const links: Link[] = [];
  const link = (from: number, to: number, amount: number | null, share: number | null) => {
    const back = (columns.get(from) as number) >= (columns.get(to) as number);
    links.push({ from: nodeAt(from), to: nodeAt(to), amount, share, back });
  };
  const nodeAt = (i: number): Node => compiled.nodeOf(i) as Node;
  const finite = (x: number): number | null => (Number.isFinite(x) ? x : null);
  for (const i of shown) {
    const p = kept.has(i) ? -1 : way(i);
    if (p < 0) continue;
    const { start, end, to } = network.ins;
    const qty = network.ins.qty as Float64Array;
    const runs = parts ? (demand.get(i) ?? 0) / network.yieldOf(p, i) : null;
    for (let k = start[p]; k < end[p]; k++)
      if (shown.has(to[k])) {
        const amount = qty[k] === 0 ? 0 : runs === null ? null : runs * qty[k];
        link(to[k], i, amount, amount === null ? null : finite(amount * (amount ? least.cost[to[k]] : 0)));
      }
  }
  for (const i of [root, ...onward.keys()])
    for (const { to, amount } of madeOf(readings, i))
      if (onward.has(to)) link(i, to, amount, finite(amount * (amount ? least.cost[i] : 0)));

  const wayOf = (i: number, p: number): ChainAlternative => wayAt(readings, least, i, p);
  const things = [...shown, ...onward.keys()].sort(byKey).map((i): ChainNode => {
    const isKept = kept.has(i);
    const drawn = isKept ? by(i) : way(i);
    // A tag may have ten thousand members: only those that are told are looked at closely.
    const others = waysTo(readings, i)
      .filter((p) => p !== drawn)
      .map((p) => [p, costBy(least, i, p)] as const)
      .sort(([p, a], [q, b]) => (a === b ? compiled.compare(p, q) : a - b))
      .slice(0, MOST_OTHERS)
      .map(([p]) => wayOf(i, p));
    const amount = onward.has(i) || isKept || !parts ? null : (demand.get(i) ?? null);
    return {
      node: nodeAt(i),
      column: columns.get(i) as number,
      amount: i === root ? 1 : amount,
      cost: finite(least.cost[i]),
      share: amount === null ? null : finite(amount * least.cost[i]),
      way: drawn >= 0 ? wayOf(i, drawn) : null,
      others,
      onward: onward.has(i),
      kept: isKept,
      causes: (readings.causes.get(i)?.leaves ?? []).map(nodeAt),
    };
  });
  return { item, measure: ask.measure, cost, things, links, folded, refused };
}

/** The same order in every database. */
const byKeyIn =
  ({ compiled }: Readings) =>
  (a: number, b: number): number =>
    compiled.keyOf(a) < compiled.keyOf(b) ? -1 : 1;

const chosenBy =
  (readings: Readings, measure: Measure, switched: ReadonlyMap<number, number>) =>
  (i: number): number =>
    switched.get(i) ?? readings.chosen(measure, i);

/** Whether everything along the ways comes to an end: nothing is made only of itself. */
function ends(readings: Readings, least: LeastCost, root: number, by: (i: number) => number): boolean {
  const parts = breakdown(least, by, root);
  if (!parts) return false;
  const { network } = readings;
  // A circle that nothing enters, or that takes more of itself than it gives, has no sensible demand.
  for (const group of policyOrder(network, by, [root]))
    for (const i of group) {
      const amount = parts.demand.get(i) ?? 0;
      if (!(amount >= 0 && amount < 1e12)) return false;
      if (group.length > 1 && !group.some((each) => entered(each, new Set(group)))) return false;
    }
  const sum = [...parts.base, ...parts.work].reduce((total, x) => total + x.cost, 0);
  return Number.isFinite(sum);

  function entered(i: number, group: ReadonlySet<number>): boolean {
    const p = by(i);
    const { start, end, to } = network.ins;
    const qty = network.ins.qty as Float64Array;
    for (let k = start[p]; k < end[p]; k++) if (qty[k] > 0 && !group.has(to[k])) return true;
    return least.own(p) > 0;
  }
}

const keyAt = (readings: Readings, p: number): string => {
  const behind = readings.compiled.behind(p);
  return behind ? `${behind.kind}.${behind.id}.${behind.part}` : "";
};
/** The process of a key; undefined where there is none any more. */
function processOf({ compiled, network }: Readings, key: string): number | undefined {
  const [kind, id, part] = key.split(".");
  const contributor = compiled.contributors.find((c) => c.kind === kind);
  if (!contributor || !/^\d{1,4}$/.test(part ?? "")) return undefined;
  const p = compiled.processesOf(contributor.kind, id as Node)[Number(part)];
  return p !== undefined && network.flags[p] & ALIVE ? p : undefined;
}

function* outputsOf({ network: { outs } }: Readings, p: number): Generator<number> {
  for (let k = outs.start[p]; k < outs.end[p]; k++) yield outs.to[k];
}
function waysTo({ network: { producers } }: Readings, i: number): number[] {
  return [...producers.to.subarray(producers.start[i], producers.end[i])];
}

/** One unit of an item by a process; Infinity where it can't be gone. */
function costBy(least: LeastCost, i: number, p: number): number {
  if (!least.counts(p)) return Number.POSITIVE_INFINITY;
  const { outs } = least.network;
  const run = least.runCost(p);
  for (let k = outs.start[p]; k < outs.end[p]; k++)
    if (outs.to[k] === i && run < Number.POSITIVE_INFINITY) return least.bears(k, run);
  return Number.POSITIVE_INFINITY;
}

function wayAt(readings: Readings, least: LeastCost, i: number, p: number): ChainAlternative {
  const { kind, record } = processAt(readings.compiled, p);
  const cost = costBy(least, i, p);
  const key = keyAt(readings, p);
  return { key, by: { kind, id: record.id }, name: record.name, cost: Number.isFinite(cost) ? cost : null };
}

/** The way that is drawn of what can't be had: the first that is no salvage. */
function firstWay(readings: Readings, i: number): number {
  const { compiled, network } = readings;
  const all = waysTo(readings, i).sort((a, b) => compiled.compare(a, b));
  return all.find((p) => !(network.flags[p] & SALVAGE)) ?? all[0] ?? -1;
}

/** What stands behind an item that can't be had, nearest first. */
function missingBehind(readings: Readings, root: number, most: number): Set<number> {
  const found = new Set([root]);
  const { ins } = readings.network;
  for (const i of found) {
    const p = readings.reach.items[i] ? readings.chosen("value", i) : firstWay(readings, i);
    if (p < 0) continue;
    for (let k = ins.start[p]; k < ins.end[p] && found.size < most; k++) found.add(ins.to[k]);
  }
  return found;
}

/** What is made of something directly, but for what takes it apart; and how much of it goes into one. */
function madeOf(readings: Readings, i: number): { readonly to: number; readonly amount: number }[] {
  const { network } = readings;
  const { consumers, ins, outs, flags } = network;
  const found = new Map<number, number>();
  for (let c = consumers.start[i]; c < consumers.end[i]; c++) {
    const p = consumers.to[c];
    if (flags[p] & SALVAGE) continue;
    let taken = 0;
    for (let k = ins.start[p]; k < ins.end[p]; k++) if (ins.to[k] === i) taken = (ins.qty as Float64Array)[k];
    for (let k = outs.start[p]; k < outs.end[p]; k++) {
      const amount = taken / (outs.qty as Float64Array)[k];
      const there = found.get(outs.to[k]);
      if (outs.to[k] !== i && (there === undefined || amount < there)) found.set(outs.to[k], amount);
    }
  }
  return [...found].map(([to, amount]) => ({ to, amount })).sort((a, b) => byKeyIn(readings)(a.to, b.to));
}

/**
 * The least columns in which everything stands behind what it is made of; a circle shares one. What is needed and kept
 * stands right before the first that needs it.
 */
function columnsOf(
  { network }: Readings,
  shown: ReadonlySet<number>,
  kept: ReadonlySet<number>,
  way: (i: number) => number,
): Map<number, number> {
  const { start, end, to } = network.ins;
  const columns = new Map<number, number>();
  const within = (i: number): number => (shown.has(i) && !kept.has(i) ? way(i) : -1);
  for (const group of policyOrder(network, within, [...shown])) {
    const own = new Set(group);
    let column = 0;
    for (const i of group) {
      const p = within(i);
      if (p < 0) continue;
      for (let k = start[p]; k < end[p]; k++)
        if (shown.has(to[k]) && !own.has(to[k])) column = Math.max(column, 1 + (columns.get(to[k]) ?? 0));
    }
    for (const i of group) columns.set(i, column);
  }
  const first = new Map<number, number>();
  for (const i of shown) {
    const p = within(i);
    if (p < 0) continue;
    for (let k = start[p]; k < end[p]; k++)
      if (kept.has(to[k])) first.set(to[k], Math.min(first.get(to[k]) ?? Infinity, columns.get(i) as number));
  }
  for (const [i, column] of first) columns.set(i, Math.max(0, column - 1));
  return columns;
}
