/**
 * A character while time goes on: resources that move in straight lines between events, conditions, stats worked out anew
 * from what is worn and what conditions do.
 */
import type { Catalogue } from "../catalogue/catalogue";
import type { Condition, Item, Resource, TrialSubject } from "../kinds/index";
import type { Id } from "../schema/id";
import { about, type Figure, type Reckoner, type Speaking } from "./reckon";
import { type Share, type Total, totals, within } from "./worn";

/** A resource of a character. Between events it is `value + rate · (tick - at)`, within least and most. */
export interface Pool {
  readonly of: Resource;
  value: number;
  at: number;
  /** A tick. */
  rate: number;
  most: number;
  /** Harm a tick, beside what comes back by itself. */
  harm: number;
  /** Ticks and values of the line that it went. */
  readonly ticks: number[];
  readonly values: number[];
  restored: number;
  drained: number;
  /** What was restored beyond the most. */
  wasted: number;
}

export interface ActiveCondition {
  readonly of: Condition;
  layers: number;
  since: number;
  /** Tick at which it ends; Infinity until it is cleared. */
  until: number;
  /** What it makes of stats, for one layer, as it was when it was applied. */
  changes: readonly { readonly stat: Id; readonly how: "add" | "multiply" | "set"; readonly by: number }[];
  /** Told apart from what it was before it was cleared and applied again. */
  readonly number: number;
}
/** A time for which a condition stood, with so many layers. */
export interface Bar {
  readonly condition: Id;
  readonly from: number;
  to: number;
  readonly layers: number;
}

export class Body implements Figure {
  readonly level: number;
  readonly pools: Pool[] = [];
  private readonly poolAt = new Map<Id, number>();
  readonly conditions: ActiveCondition[] = [];
  readonly bars: Bar[] = [];
  private stats: Map<Id, number> = new Map();
  private readonly forGood = new Map<Id, number>();
  private base: Map<Id, Total>;
  private applied = 0;
  private readonly catalogue: Catalogue;

  /** @param now  the tick it is, asked whenever a resource is read */
  constructor(
    readonly reckoner: Reckoner,
    readonly subject: TrialSubject,
    public worn: readonly Item[],
    private readonly now: () => number,
    level = subject.level,
  ) {
    this.catalogue = reckoner.catalogue;
    this.level = level;
    this.base = totals(reckoner, subject, worn, level);
    for (const id of subject.resources) {
      const of = this.catalogue.records.resource.get(id);
      if (!of) continue;
      this.poolAt.set(id, this.pools.length);
      const pool = { of, value: 0, at: 0, rate: 0, most: 0, harm: 0, restored: 0, drained: 0, wasted: 0 };
      this.pools.push({ ...pool, ticks: [], values: [] });
    }
    this.restat();
    const self = about(this);
    for (const pool of this.pools) {
      const start = reckoner.value(pool.of.start, "stats", self, pool.most);
      pool.value = Math.min(Math.max(start, pool.of.min), pool.most);
      pool.ticks.push(0);
      pool.values.push(pool.value);
    }
  }

  stat(id: Id): number {
    return this.stats.get(id) ?? 0;
  }
  pool(id: Id): Pool | undefined {
    const at = this.poolAt.get(id);
    return at === undefined ? undefined : this.pools[at];
  }
  resource(id: Id): number {
    const pool = this.pool(id);
    return pool ? valueAt(pool, this.now()) : 0;
  }
  most(id: Id): number {
    return this.pool(id)?.most ?? 0;
  }
  has(condition: Id): boolean {
    return this.conditions.some((c) => c.of.id === condition);
  }

  wear(worn: readonly Item[]): void {
    this.worn = worn;
    this.base = totals(this.reckoner, this.subject, worn, this.level);
    this.restat();
  }

  /** A stat with where each part of it comes from. */
  total(id: Id): Total {
    const shares: Share[] = [...(this.base.get(id)?.shares ?? [])];
    const good = this.forGood.get(id);
    if (good) shares.push({ kind: "for good", id: null, name: "changed for good", value: good });
    for (const { of, layers, changes } of this.conditions)
      for (const change of changes)
        if (change.stat === id)
          shares.push({
            kind: "condition",
            id: of.id,
            name: of.name,
            how: change.how,
            value:
              change.how === "add" ? change.by * layers : change.how === "multiply" ? change.by ** layers : change.by,
          });
    return { value: this.stat(id), shares };
  }

  /** Works stats out anew, and what hangs on them: what is worn, then changes for good, added, multiplied, set. */
  restat(): void {
    const before = this.stats;
    const stats = new Map<Id, number>();
    for (const [id, { value }] of this.base) stats.set(id, value);
    for (const [id, by] of this.forGood) stats.set(id, (stats.get(id) ?? 0) + by);
    let touched = this.forGood.size > 0;
    for (const { layers, changes } of this.conditions)
      for (const { stat, how, by } of changes) if (how === "add") stats.set(stat, (stats.get(stat) ?? 0) + by * layers);
    for (const { layers, changes } of this.conditions)
      for (const { stat, how, by } of changes)
        if (how === "multiply") stats.set(stat, (stats.get(stat) ?? 0) * by ** layers);
    // Of several that set a stat the stronger one does, and of equals the newer.
    const by = [...this.conditions].sort((a, b) => a.of.strength - b.of.strength || a.number - b.number);
    for (const { changes } of by) for (const { stat, how, by: to } of changes) if (how === "set") stats.set(stat, to);
    touched ||= this.conditions.some((c) => c.changes.length > 0);
    if (touched)
      for (const [id, value] of stats) {
        const stat = this.catalogue.records.stat.get(id);
        if (stat) stats.set(id, within(stat, value));
      }
    this.stats = stats;
    if (before.size === 0 || !sameNumbers(before, stats)) this.repool();
  }

  /** Most and recovery of all resources anew. */
  private repool(): void {
    const self = about(this);
    const t = this.now();
    const second = this.catalogue.pantry.ticksPerSecond;
    for (const pool of this.pools)
      pool.most = Math.max(pool.of.min, this.reckoner.value(pool.of.most, "stats", self, 100));
    for (const pool of this.pools) {
      this.settle(pool, t);
      if (pool.value > pool.most) this.put(pool, pool.most);
      pool.rate = this.reckoner.value(pool.of.recovery, "recovery", self, 0) / second - pool.harm;
    }
  }

  /** Brings a resource to a tick, with the place where it met its least or most. */
  settle(pool: Pool, tick: number): void {
    if (tick === pool.at) return;
    const value = valueAt(pool, tick);
    if (pool.rate !== 0) {
      const limit = pool.rate > 0 ? pool.most : pool.of.min;
      const met = pool.at + Math.ceil((limit - pool.value) / pool.rate - 1e-9);
      if (value === limit && met > pool.at && met < tick) this.mark(pool, met, limit);
      this.mark(pool, tick, value);
    }
    [pool.value, pool.at] = [value, tick];
  }
  private mark({ ticks, values }: Pool, tick: number, value: number): void {
    const last = values.length - 1;
    if (last > 0 && values[last] === value && values[last - 1] === value) ticks[last] = tick;
    else if (last < 0 || ticks[last] !== tick || values[last] !== value) {
      ticks.push(tick);
      values.push(value);
    }
  }
  private put(pool: Pool, value: number): void {
    this.mark(pool, pool.at, pool.value);
    pool.value = value;
    this.mark(pool, pool.at, value);
  }

  setHarm(pool: Pool, perTick: number): void {
    this.settle(pool, this.now());
    pool.rate += pool.harm - perTick;
    pool.harm = perTick;
  }

  /** @returns what was restored of an amount; below 0 of it drains */
  restore(id: Id, amount: number): number {
    const pool = this.pool(id);
    if (!pool || amount === 0) return 0;
    this.settle(pool, this.now());
    const value = Math.min(Math.max(pool.value + amount, pool.of.min), pool.most);
    const moved = value - pool.value;
    if (amount > 0) {
      pool.restored += moved;
      pool.wasted += amount - moved;
    } else pool.drained -= moved;
    if (moved !== 0) this.put(pool, value);
    return moved;
  }

  changeForGood(stat: Id, by: number, limit: number | null): number {
    const now = this.forGood.get(stat) ?? 0;
    const to =
      limit === null
        ? now + by
        : by > 0
          ? Math.max(now, Math.min(now + by, limit))
          : Math.min(now, Math.max(now + by, limit));
    if (to === now) return 0;
    this.forGood.set(stat, to);
    this.restat();
    return to - now;
  }

  /** What applying a condition would do: nothing at all, or why. */
  wouldApply(of: Condition): boolean {
    const there = this.conditions.find((c) => c.of.id === of.id);
    if (there) return of.twice !== "ignore";
    return !this.rivals(of).some((c) => c.of.strength > of.strength);
  }
  private rivals(of: Condition): ActiveCondition[] {
    return of.exclusion === null
      ? []
      : this.conditions.filter((c) => c.of.id !== of.id && c.of.exclusion === of.exclusion);
  }

  /**
   * @param ticks  how long; Infinity until it is cleared
   * @returns the condition as it stands now; null where a stronger one keeps it away or it is ignored
   */
  apply(of: Condition, ticks: number, layers: number): ActiveCondition | null {
    if (!this.wouldApply(of)) return null;
    const t = this.now();
    const most = of.twice === "add up" ? of.layers : 1;
    let there = this.conditions.find((c) => c.of.id === of.id);
    if (there) {
      this.close(there, t);
      if (of.twice === "extend") there.until += ticks;
      else if (of.twice === "keep the longer") there.until = Math.max(there.until, t + ticks);
      else there.until = t + ticks;
      if (of.twice === "add up") there.layers = Math.min(most, there.layers + layers);
    } else {
      for (const rival of this.rivals(of)) this.end(rival);
      there = { of, layers: Math.min(most, layers), since: t, until: t + ticks, changes: [], number: ++this.applied };
      this.conditions.push(there);
    }
    const self = about(this);
    there.changes = of.changes.map(({ stat, how, by }) => ({
      stat,
      how,
      by: this.reckoner.value(by, "bearer", self, how === "multiply" ? 1 : 0),
    }));
    this.bars.push({ condition: of.id, from: t, to: Number.POSITIVE_INFINITY, layers: there.layers });
    this.restat();
    return there;
  }
  end(active: ActiveCondition): void {
    const at = this.conditions.indexOf(active);
    if (at < 0) return;
    this.conditions.splice(at, 1);
    this.close(active, this.now());
    this.restat();
  }
  private close({ of }: ActiveCondition, tick: number): void {
    const bar = this.bars.findLast((b) => b.condition === of.id);
    if (bar && bar.to === Number.POSITIVE_INFINITY) bar.to = tick;
  }

  /** Ends all lines and bars at a tick. */
  finish(tick: number): void {
    for (const pool of this.pools) {
      this.settle(pool, tick);
      this.mark(pool, tick, pool.value);
    }
    for (const bar of this.bars) if (bar.to === Number.POSITIVE_INFINITY) bar.to = tick;
  }
}

export function valueAt({ value, at, rate, most, of }: Pool, tick: number): number {
  if (rate === 0 || tick === at) return value;
  const moved = value + rate * (tick - at);
  // Harm does not lift what stands above, nor does recovery lower it.
  return rate > 0 ? Math.max(value, Math.min(moved, most)) : Math.min(value, Math.max(moved, of.min));
}

function sameNumbers(a: ReadonlyMap<Id, number>, b: ReadonlyMap<Id, number>): boolean {
  if (a.size !== b.size) return false;
  for (const [id, value] of a) if (b.get(id) !== value) return false;
  return true;
}

/** What formulas of a use ask, where nobody is acted on but the user. */
export const speaking = (user: Figure, target: Figure, item: Item | null): Speaking => ({ user, target, item });
