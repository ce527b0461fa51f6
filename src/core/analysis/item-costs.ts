/**
 * What one unit of an item costs in both measures, what that consists of, and what salvaging it gives back; as plain
 * data.
 */
import type { Kind } from "../kinds/index";
import type { Id } from "../schema/id";
import { processAt } from "../network/compile";
import { MEMBER, SALVAGE } from "../network/network";
import type { Node } from "../process/node";
import { breakdown } from "./breakdown";
import type { Measure } from "./cost";
import type { Readings } from "./readings";
import { forcedBy, levelOf, levelOfRun } from "./progression";
import { salvageReturn } from "./salvage";
import { steadyCost } from "./steady";

/** The record of a process, named as records are. */
export interface By {
  readonly kind: Kind;
  readonly id: Id;
}

export interface CostSide {
  /** Value units, or seconds of play. */
  readonly cost: number;
  /** Of one more where everything that comes back is used again; the same as `cost` where nothing is. */
  readonly reused: number;
  readonly by: By;
  /** True where the cheapest way goes round through the item itself. */
  readonly circular: boolean;
  readonly base: readonly { readonly item: Id; readonly by: By; readonly quantity: number; readonly cost: number }[];
  readonly work: readonly { readonly by: By; readonly runs: number; readonly cost: number }[];
}

/** One of several ways to have an item. */
export interface WayTo {
  readonly by: By;
  readonly name: string;
  /** Of one, by this way; null: it can't be gone. */
  readonly value: number | null;
  readonly time: number | null;
  /** What one run gives on average, and the level from which it can be gone. */
  readonly amount: number;
  readonly level: number | null;
  /** What it needs that no other way does. */
  readonly alone: readonly Node[];
}

export interface ItemCosts {
  /** Every way but salvage, cheapest first. */
  readonly ways: readonly WayTo[];
  /** null: it can't be had. */
  readonly value: CostSide | null;
  readonly time: CostSide | null;
  /** The lowest level at which it can be had, where that is above 0, and why; null: it can be had from the start, or not at all. */
  readonly level: {
    readonly level: number;
    /** What has that level itself. */
    readonly by: By;
    /** The items on the way to it, the one that is asked about first. */
    readonly path: readonly Id[];
  } | null;
  readonly salvages: readonly {
    readonly recipe: Id;
    readonly cost: number | null;
    readonly back: number;
    readonly unpriced: readonly Id[];
  }[];
}

/** Most ways that are told of one item. */
const MOST_WAYS = 40;

function waysTo(readings: Readings, item: number): WayTo[] {
  const { compiled, network, reach } = readings;
  const { ins, producers } = network;
  const all: number[] = [];
  for (let k = producers.start[item]; k < producers.end[item]; k++)
    if (!(network.flags[producers.to[k]] & (SALVAGE | MEMBER))) all.push(producers.to[k]);
  const needs = (p: number) => Array.from({ length: ins.end[p] - ins.start[p] }, (_, k) => ins.to[ins.start[p] + k]);
  const often = new Map<number, number>();
  for (const p of all) for (const i of needs(p)) often.set(i, (often.get(i) ?? 0) + 1);
  const cost = (measure: Measure, p: number) => readings[measure].runCost(p) / network.yieldOf(p, item);
  const ways = all.map((p): WayTo => {
    const { kind, record } = processAt(compiled, p);
    const fires = reach.fires(p);
    return {
      by: { kind, id: record.id },
      name: record.name,
      value: fires ? cost("value", p) : null,
      time: fires ? cost("time", p) : null,
      amount: network.yieldOf(p, item),
      level: fires ? levelOfRun(readings, p) : null,
      alone: needs(p)
        .filter((i) => often.get(i) === 1)
        .map((i) => compiled.nodeOf(i) as Node),
    };
  });
  const last = (n: number | null) => n ?? Number.POSITIVE_INFINITY;
  return ways
    .sort((a, b) => last(a.value) - last(b.value) || last(a.time) - last(b.time) || (a.name < b.name ? -1 : 1))
    .slice(0, MOST_WAYS);
}

/** @returns null where there is no such item */
export function itemCosts(readings: Readings, id: Id): ItemCosts | null {
  const { compiled, network } = readings;
  const item = compiled.numberOf(id);
  if (item === undefined) return null;
  const idOf = (i: number) => compiled.idOf(i) as Id;
  const by = (process: number): By => {
    const { kind, record } = processAt(compiled, process);
    return { kind, id: record.id };
  };
  const side = (measure: Measure): CostSide | null => {
    const least = readings[measure];
    const parts = breakdown(least, (i) => readings.chosen(measure, i), item);
    return (
      parts && {
        cost: least.cost[item],
        reused: steadyCost(readings, measure, item)?.cost ?? least.cost[item],
        by: by(readings.by(measure, item)),
        circular: parts.circular,
        base: parts.base.map((b) => ({ item: idOf(b.item), by: by(b.process), quantity: b.quantity, cost: b.cost })),
        work: parts.work
          .filter((w) => !(network.flags[w.process] & MEMBER))
          .map((w) => ({ by: by(w.process), runs: w.runs, cost: w.cost })),
      }
    );
  };
  const salvages: ItemCosts["salvages"][number][] = [];
  for (let k = network.consumers.start[item]; k < network.consumers.end[item]; k++) {
    const p = network.consumers.to[k];
    if (
      compiled.behind(p)?.kind !== "recipe" ||
      !(network.flags[p] & SALVAGE) ||
      !processAt(compiled, p).spec.lines.some((l) => l.role === "ingredient" && l.item === id)
    )
      continue;
    const { cost, back, unpriced } = salvageReturn(readings, p);
    salvages.push({ recipe: by(p).id, cost: Number.isFinite(cost) ? cost : null, back, unpriced: unpriced.map(idOf) });
  }
  salvages.sort((a, b) => (a.recipe < b.recipe ? -1 : 1));
  return { ways: waysTo(readings, item), value: side("value"), time: side("time"), level: whyLevel(), salvages };

  function whyLevel(): ItemCosts["level"] {
    const level = levelOf(readings, item as number) ?? 0;
    if (level === 0) return null;
    const { forced, path } = forcedBy(readings, item as number);
    const ids = path.flatMap((i) => compiled.idOf(i) ?? []);
    return {
      level,
      by: "process" in forced ? by(forced.process) : { kind: "item", id: ids[ids.length - 1] },
      path: ids,
    };
  }
}
