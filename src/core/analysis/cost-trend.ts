/** How an item's cost came about, as plain data. */
import type { LevelCost } from "./cost-by-level";

/** What an item cost from a revision on; null: it could not be had. */
export interface CostAt {
  readonly revision: number;
  /** Value units. */
  readonly value: number | null;
  /** Seconds of play. */
  readonly time: number | null;
}

export interface CostTrend {
  readonly revision: number;
  /** See Engine.costHistory; null: it can't be told. */
  readonly history: readonly CostAt[] | null;
  readonly levels: readonly LevelCost[];
  /** Higher levels were left out. */
  readonly moreLevels: boolean;
}
