/**
 * A character while time goes on: resources that move in straight lines between events, conditions, stats computed again
 * from what is worn and what conditions do.
 */
import type { Catalogue } from "../catalogue/catalogue";
import type { Condition, Item, Resource, TrialSubject } from "../kinds/index";
import type { Id } from "../schema/id";
import { about, type Figure, type Reckoner } from "./reckon";
import { type Share, type Total, totals } from "./worn";

/** A resource of a character. Between events it is `value + rate · (tick - at)`, within least and most. */
export interface Pool {
  readonly of: Resource;
  /** Its most and what comes back in a second, as they stand for the character. */
  readonly mostOf: (() => number) | null;
  readonly recoveryOf: (() => number) | null;
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
  changes: readonly {
    readonly stat: Id;
    readonly how: "add" | "multiply" | "set";
    readonly by: number;
    readonly at: number;
  }[];
  /** The ticks at which its layers end, first ones first, where each has its own time; else empty. */
  ends: readonly number[];
  /** Told apart from what it was before it was cleared and applied again. */
  readonly number: number;
  /** The time for which it has stood with so many layers. */
  bar: Bar;
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
  /** Stats by numbers of their own: what each comes to without changes, and now. */
  private readonly statAt = new Map<Id, number>();
  private bases: number[] = [];
  private values: number[] = [];
  /** The steps that each stat went, from its first value on. */
  readonly steps = new Map<Id, { readonly ticks: number[]; readonly values: number[] }>();
  private readonly lows: number[] = [];
  private readonly highs: number[] = [];
  private readonly forGood = new Map<Id, number>();
  /** Conditions that hold for as long as something is carried. */
  private readonly carried = new Set<Id>();
  private base: Map<Id, Total> = new Map();
  private applied = 0;
  /** What formulas over the character alone are asked with. */
  private readonly self = about(this);
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
    this.rebase();
    for (const id of subject.resources) {
      const of = this.catalogue.records.resource.get(id);
      if (!of) continue;
      this.poolAt.set(id, this.pools.length);
      const getter = (kept: string | null, scope: "stats" | "recovery") => {
        const get = kept === null ? null : reckoner.get(kept, scope);
        return get && (() => get(this.self));
      };
      const [mostOf, recoveryOf] = [getter(of.most, "stats"), getter(of.recovery, "recovery")];
      const pool = {
        of,
        mostOf,
        recoveryOf,
        value: 0,
        at: 0,
        rate: 0,
        most: 0,
        harm: 0,
        restored: 0,
        drained: 0,
        wasted: 0,
      };
      this.pools.push({ ...pool, ticks: [], values: [] });
    }
    this.restat(true);
    const { self } = this;
    for (const pool of this.pools) {
      const start = reckoner.value(pool.of.start, "stats", self, pool.most);
      pool.value = Math.min(Math.max(start, pool.of.min), pool.most);
      pool.ticks.push(0);
      pool.values.push(pool.value);
    }
  }

  stat(id: Id): number {
    const at = this.statAt.get(id);
    return at === undefined ? 0 : this.values[at];
  }
  /** The number of a stat, given where it has none yet. */
  private placeOf(id: Id): number {
    let at = this.statAt.get(id);
    if (at === undefined) {
      at = this.bases.length;
      this.statAt.set(id, at);
      const { min = null, max = null } = this.catalogue.records.stat.get(id) ?? {};
      this.lows.push(min ?? Number.NEGATIVE_INFINITY);
      this.highs.push(max ?? Number.POSITIVE_INFINITY);
      this.bases.push(0);
      this.values.push(0);
    }
    return at;
  }
  private rebase(): void {
    this.base = totals(this.reckoner, this.subject, this.worn, this.level);
    this.bases.fill(0);
    for (const [id, { value }] of this.base) {
      const at = this.placeOf(id);
      this.bases[at] = value;
    }
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
    return this.active(condition) !== undefined;
  }
  active(condition: Id): ActiveCondition | undefined {
    const { conditions } = this;
    for (let k = 0; k < conditions.length; k++) if (conditions[k].of.id === condition) return conditions[k];
    return undefined;
  }

  wear(worn: readonly Item[]): void {
    this.worn = worn;
    this.rebase();
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

  /** Works stats out again, and what hangs on them: what is worn, then changes for good, added, multiplied, set. */
  private restat(first = false): void {
    const { conditions } = this;
    for (const id of this.forGood.keys()) this.placeOf(id);
    const values = this.bases.slice();
    for (const [id, by] of this.forGood) values[this.placeOf(id)] += by;
    let [multiplies, sets] = [false, false];
    for (let c = 0; c < conditions.length; c++) {
      const { layers, changes } = conditions[c];
      for (let k = 0; k < changes.length; k++) {
        const change = changes[k];
        if (change.how === "add") values[change.at] += change.by * layers;
        else if (change.how === "multiply") multiplies = true;
        else sets = true;
      }
    }
    if (multiplies)
      for (const { layers, changes } of conditions)
        for (const { how, by, at } of changes) if (how === "multiply") values[at] *= by ** layers;
    if (sets) {
      // Of several that set a stat the stronger one does, and of equals the newer.
      const by = [...conditions].sort((a, b) => a.of.strength - b.of.strength || a.number - b.number);
      for (const { changes } of by) for (const { how, by: to, at } of changes) if (how === "set") values[at] = to;
    }
    let moved = first;
    for (let k = 0; k < values.length; k++) {
      values[k] = Math.min(Math.max(values[k], this.lows[k]), this.highs[k]);
      moved ||= values[k] !== this.values[k];
    }
    const before = this.values;
    this.values = values;
    if (!moved) return;
    for (const [id, at] of this.statAt) if (first || values[at] !== before[at]) this.stepTo(id, values[at]);
    this.repool();
  }
  private stepTo(id: Id, value: number): void {
    const line = this.steps.get(id);
    if (line) {
      line.ticks.push(this.now());
      line.values.push(value);
    } else this.steps.set(id, { ticks: [this.now()], values: [value] });
  }

  /** Most and recovery of all resources again. */
  private repool(): void {
    const t = this.now();
    const second = this.catalogue.pantry.ticksPerSecond;
    for (const pool of this.pools) {
      // As it was up to now, before its most is another.
      this.settle(pool, t);
      pool.most = Math.max(pool.of.min, pool.mostOf ? pool.mostOf() : 100);
    }
    for (const pool of this.pools) {
      if (pool.value > pool.most) this.put(pool, pool.most);
      pool.rate = (pool.recoveryOf ? pool.recoveryOf() : 0) / second - pool.harm;
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
    if (pool.harm > 0) pool.drained += harmed(pool, value, tick - pool.at);
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
    const there = this.active(of.id);
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
    const addsUp = of.twice === "add up";
    const most = addsUp ? of.layers : 1;
    const apart = addsUp && of.layersEnd === "each its own";
    let there = this.active(of.id);
    if (there) {
      this.close(there, t);
      if (of.twice === "extend") there.until += ticks;
      else if (of.twice === "keep the longer") there.until = Math.max(there.until, t + ticks);
      else there.until = t + ticks;
      if (addsUp) there.layers = Math.min(most, there.layers + layers);
    } else {
      for (const rival of this.rivals(of)) this.end(rival, true);
      const bar = { condition: of.id, from: t, to: Number.POSITIVE_INFINITY, layers: 0 };
      there = {
        of,
        layers: Math.min(most, layers),
        since: t,
        until: t + ticks,
        ends: [],
        changes: [],
        number: ++this.applied,
        bar,
      };
      this.conditions.push(there);
    }
    if (apart) {
      // Beyond the most, those that would end first make way.
      const fresh = new Array<number>(Math.min(layers, most)).fill(t + ticks);
      there.ends = [...there.ends, ...fresh].sort((a, b) => a - b).slice(-most);
      there.until = there.ends[there.ends.length - 1];
    }
    if (this.carried.has(of.id)) there.until = Number.POSITIVE_INFINITY;
    const had = there.changes;
    there.changes = of.changes.map(({ stat, how, by }) => ({
      stat,
      how,
      by: this.reckoner.value(by, "bearer", this.self, how === "multiply" ? 1 : 0),
      at: this.placeOf(stat),
    }));
    there.bar = { condition: of.id, from: t, to: Number.POSITIVE_INFINITY, layers: there.layers };
    this.bars.push(there.bar);
    if (had.length || there.changes.length) this.restat();
    return there;
  }
  /** What time has come for: all of a condition, or those of its layers whose own time is over. */
  expire(active: ActiveCondition): void {
    const t = this.now();
    if (active.until <= t) {
      this.end(active);
      return;
    }
    const left = active.ends.filter((end) => end > t);
    if (left.length === active.ends.length || !this.conditions.includes(active)) return;
    this.close(active, t);
    active.ends = left;
    active.layers = left.length;
    active.bar = { condition: active.of.id, from: t, to: Number.POSITIVE_INFINITY, layers: active.layers };
    this.bars.push(active.bar);
    if (active.changes.length) this.restat();
  }

  /**
   * Conditions of what is carried hold without an end, and end with it.
   * @returns those that began
   */
  carry(wanted: ReadonlySet<Id>): ActiveCondition[] {
    for (const active of [...this.conditions])
      if (this.carried.has(active.of.id) && !wanted.has(active.of.id)) this.end(active, true);
    const began: ActiveCondition[] = [];
    for (const id of wanted) {
      const of = this.catalogue.records.condition.get(id);
      if (!of || this.carried.has(id)) continue;
      const there = this.active(id);
      const active = there ?? this.apply(of, Number.POSITIVE_INFINITY, 1);
      if (!active) continue;
      active.until = Number.POSITIVE_INFINITY;
      this.carried.add(id);
      if (!there) began.push(active);
    }
    return began;
  }

  /** @param forced  also where it holds because something is carried */
  end(active: ActiveCondition, forced = false): void {
    const at = this.conditions.indexOf(active);
    if (at < 0) return;
    if (this.carried.has(active.of.id)) {
      if (!forced) return;
      this.carried.delete(active.of.id);
    }
    this.conditions.splice(at, 1);
    this.close(active, this.now());
    if (active.changes.length) this.restat();
  }
  private close({ bar }: ActiveCondition, tick: number): void {
    if (bar.to === Number.POSITIVE_INFINITY) bar.to = tick;
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

/** What steady harm took of a resource in some ticks: where it was at its least, only what it recovered. */
function harmed({ value: before, rate, harm }: Pool, after: number, ticks: number): number {
  if (rate >= 0) return harm * ticks;
  const recovery = rate + harm;
  const gone = before - after + Math.max(0, recovery) * ticks;
  return (gone * harm) / (harm + Math.max(0, -recovery));
}

export function valueAt({ value, at, rate, most, of }: Pool, tick: number): number {
  if (rate === 0 || tick === at) return value;
  const moved = value + rate * (tick - at);
  // Harm does not lift what stands above, nor does recovery lower it.
  return rate > 0 ? Math.max(value, Math.min(moved, most)) : Math.min(value, Math.max(moved, of.min));
}
