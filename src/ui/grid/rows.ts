/** Rows of a list in order, kept from one version of the records to the next instead of sorted again. */
import type { Id } from "@/core/schema/id";

export interface Row {
  readonly id: Id;
}
export interface RowRules<R> {
  keep(row: R): boolean;
  /** Below 0: a stands before b. Never 0 for two rows. */
  compare(a: R, b: R): number;
}

/** Up to this share of all rows a change is worked in row by row. */
const FEW = 0.02;

/**
 * The rows after some changed: those are taken out, and put in where they belong now.
 * @param before   rows in order
 * @param changed  rows that are others, came or went, or whose place may be another
 * @param now      what stands there now
 */
export function moved<R extends Row>(
  before: readonly R[],
  changed: ReadonlySet<Id>,
  now: { get(id: Id): R | undefined },
  { keep, compare }: RowRules<R>,
): readonly R[] {
  if (!changed.size) return before;
  const rest = before.filter((row) => !changed.has(row.id));
  const fresh = [...changed]
    .flatMap((id) => now.get(id) ?? [])
    .filter(keep)
    .sort(compare);
  if (!fresh.length) return rest;
  const all: R[] = [];
  let at = 0;
  for (const row of fresh) {
    let [low, high] = [at, rest.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (compare(rest[middle], row) < 0) low = middle + 1;
      else high = middle;
    }
    for (; at < low; at++) all.push(rest[at]);
    all.push(row);
  }
  for (; at < rest.length; at++) all.push(rest[at]);
  return all;
}

/** Rows of one list, as they were last asked for. `S`: what they are made of. */
export class KeptRows<R extends Row, S> {
  private last: { readonly of: S; readonly under: readonly unknown[]; readonly rows: readonly R[] } | null = null;

  /**
   * @param of     what the rows are made of
   * @param under  everything else that the rules depend on: where one is another, all is sorted again
   */
  rows(
    of: S,
    under: readonly unknown[],
    rules: RowRules<R> & {
      /** Rows that may be others than they were before; null: no one knows. */
      changedSince(before: S): ReadonlySet<Id> | null;
      get(id: Id): R | undefined;
      /** All rows in order. */
      anew(): readonly R[];
    },
  ): readonly R[] {
    const { last } = this;
    const kept = last && last.under.length === under.length && last.under.every((x, k) => Object.is(x, under[k]));
    const changed = kept ? rules.changedSince(last.of) : null;
    const few = changed && last && changed.size <= Math.max(20, FEW * last.rows.length);
    const rows = few ? moved(last.rows, changed, rules, rules) : rules.anew();
    this.last = { of, under, rows };
    return rows;
  }
}

/** Ids of several sets; null where one is not known. */
export function union(...sets: readonly (ReadonlySet<Id> | null)[]): ReadonlySet<Id> | null {
  const all = new Set<Id>();
  for (const set of sets) {
    if (!set) return null;
    for (const id of set) all.add(id);
  }
  return all;
}
