/** What a ripple changes in a model of before: costs, new findings and findings that are resolved. */
import type { Finding } from "../checks/check";
import type { Id } from "../schema/id";
import { isSameCost, type ReadModel, type Ripple } from "./read-model";

export interface CostMove {
  readonly id: Id;
  /** Value units; null: unobtainable. */
  readonly from: number | null;
  readonly to: number | null;
}
export interface Effects {
  /** The largest change first: before all what can be obtained now, or no longer. */
  readonly costs: readonly CostMove[];
  readonly opened: readonly Finding[];
  readonly closed: readonly Finding[];
}

/** @param isOpen  whether a finding is one that no one accepted */
export function effectsOf(model: ReadModel, ripple: Ripple, isOpen: (finding: Finding) => boolean): Effects {
  const put = new Set(ripple.put.map((f) => f.fingerprint));
  const dropped = new Set(ripple.drop);
  const touched =
    put.size || dropped.size ? model.findings.filter((f) => put.has(f.fingerprint) || dropped.has(f.fingerprint)) : [];
  const before = new Set(touched.map((f) => f.fingerprint));
  return {
    costs: costMoves(model, ripple.figures),
    opened: ripple.put.filter((f) => !before.has(f.fingerprint) && isOpen(f)),
    closed: touched.filter((f) => !put.has(f.fingerprint) && isOpen(f)),
  };
}

export function costMoves(model: ReadModel, figures: Ripple["figures"]): CostMove[] {
  return figures
    .flatMap(([id, now]): CostMove[] => {
      const [from, to] = [model.figures.get(id)?.value ?? null, now?.value ?? null];
      return now === null || isSameCost(from, to) ? [] : [{ id, from, to }];
    })
    .sort((a, b) => sizeOf(b) - sizeOf(a));
}
const sizeOf = ({ from, to }: CostMove): number =>
  from === null || to === null ? Number.POSITIVE_INFINITY : Math.abs(Math.log((to + 1e-9) / (from + 1e-9)));

/** An item that costs something else in one scenario than in another. */
export interface ComparedCost {
  readonly id: Id;
  /** Value units; null: unobtainable. */
  readonly now: number | null;
  /** One for each scenario. */
  readonly costs: readonly (number | null)[];
}

/** Items of which scenarios do not all say the same, the largest difference first. */
export function comparedCosts(model: ReadModel, scenarios: readonly Ripple["figures"][]): ComparedCost[] {
  const each = scenarios.map((figures) => new Map(figures));
  const items = new Set(scenarios.flatMap((figures) => figures.map(([id]) => id)));
  return [...items]
    .flatMap((id): ComparedCost[] => {
      const now = model.figures.get(id)?.value ?? null;
      const costs = each.map((of) => (of.has(id) ? (of.get(id)?.value ?? null) : now));
      return costs.every((cost) => isSameCost(cost, costs[0])) ? [] : [{ id, now, costs }];
    })
    .sort((a, b) => spread(b) - spread(a));
}
const spread = ({ costs }: ComparedCost): number => {
  const known = costs.filter((cost) => cost !== null);
  if (known.length < costs.length) return Number.POSITIVE_INFINITY;
  return Math.log((Math.max(...known) + 1e-9) / (Math.min(...known) + 1e-9));
};
