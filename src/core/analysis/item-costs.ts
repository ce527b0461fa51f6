/** What one unit of an item costs in both measures, what that consists of, and what salvaging it gives back; as plain data. */
import type { Id } from "../catalogue/records";
import { breakdown } from "./breakdown";
import type { Measure } from "./cost";
import type { Readings } from "./readings";
import { salvageReturns } from "./salvage";

/** A recipe or source, named as records are. */
export interface By {
  readonly kind: "recipe" | "source";
  readonly id: Id;
}

export interface CostSide {
  /** Value units, or seconds of play. */
  readonly cost: number;
  readonly by: By;
  /** True where the cheapest way goes round through the item itself. */
  readonly circular: boolean;
  readonly base: readonly { readonly item: Id; readonly by: By; readonly quantity: number; readonly cost: number }[];
  readonly work: readonly { readonly by: By; readonly runs: number; readonly cost: number }[];
}

export interface ItemCosts {
  /** null: it can't be had. */
  readonly value: CostSide | null;
  readonly time: CostSide | null;
  readonly salvages: readonly { readonly recipe: Id; readonly cost: number | null; readonly back: number; readonly unpriced: readonly Id[] }[];
}

/** @returns null where there is no such item */
export function itemCosts(readings: Readings, id: Id): ItemCosts | null {
  const { network } = readings;
  const item = network.index.get(id);
  if (item === undefined) return null;
  const by = (process: number): By => ({ kind: network.processes[process].of, id: network.processes[process].record.id });
  const side = (measure: Measure): CostSide | null => {
    const least = readings[measure];
    const parts = breakdown(network, readings.own[measure], least, item);
    return parts && {
      cost: least.cost[item],
      by: by(least.by[item]),
      circular: least.circular.has(item),
      base: parts.base.map((b) => ({ item: network.items[b.item], by: by(b.process), quantity: b.quantity, cost: b.cost })),
      work: parts.work.map((w) => ({ by: by(w.process), runs: w.runs, cost: w.cost })),
    };
  };
  const salvages = salvageReturns(network, readings.own.value)
    .filter(({ process }) => network.processes[process].record.lines.some((l) => l.role === "ingredient" && l.item === id))
    .map(({ process, cost, back, unpriced }) => ({ recipe: by(process).id, cost: Number.isFinite(cost) ? cost : null, back, unpriced: unpriced.map((i) => network.items[i]) }));
  return { value: side("value"), time: side("time"), salvages };
}
