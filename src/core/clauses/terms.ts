/** What one run asks for beside the things in its lines. Clauses add to it; costs, plans and trials read nothing else. */
import type { Id } from "../schema/id";

export interface Terms {
  /** Time, in ticks, and heat, in ticks of something burning: of a whole batch. */
  ticks: number;
  heat: number;
  /** Runs that go at once, in the time and the heat of one. */
  batch: number;
  /** Paid for each run, in the currency; null: in value units. */
  price: number;
  currency: Id | null;
  /** Level that a character needs; 0: any. */
  level: number;
  /** Item that must be owned and is kept, because it teaches how; null: none. */
  teacher: Id | null;
}

export const noTerms = (): Terms => ({
  ticks: 0,
  heat: 0,
  batch: 1,
  price: 0,
  currency: null,
  level: 0,
  teacher: null,
});
