/** All readings of a catalogue, kept up to date from one revision to the next. */
import type { Catalogue } from "../catalogue/catalogue";
import type { Edit } from "../catalogue/edit";
import type { Id } from "../schema/id";
import { before, type Compiled, compile, follow, readItems, type Rewrite } from "../network/compile";
import { ALIVE, flagsOf, GAINS, SALVAGE, SOURCE } from "../network/network";
import { type Cause, Causes } from "./causes";
import { LeastCost, type Measure } from "./cost";
import { type GainReport, gains } from "./gain";
import { Layers, NEVER } from "./layers";
import { type Loop, loops } from "./loops";
import { Prices } from "./prices";
import { Reach } from "./reach";

/** Levels are counted in these steps, so that a derivation can grow within one level. */
export const LEVEL = 2 ** 20;

/** What moved in the readings from one revision to the next; numbers are those of the network. */
export interface Shift {
  /** True where everything was computed anew: then nothing else is listed. */
  readonly anew: boolean;
  /** Items whose cost moved, with what it was. */
  readonly value: ReadonlyMap<number, number>;
  readonly time: ReadonlyMap<number, number>;
  readonly bare: ReadonlyMap<number, number>;
  /** Items whose cheapest way or the length of it moved. */
  readonly ways: ReadonlySet<number>;
  readonly levels: ReadonlySet<number>;
  /** Items that came within reach or went out of it, or whose cause may be another. */
  readonly reach: readonly number[];
  /** Processes that were written anew, that fire now or no longer. */
  readonly processes: ReadonlySet<number>;
  /** Items that any line of those processes names, before or after. */
  readonly linked: ReadonlySet<number>;
  readonly added: readonly number[];
  readonly removed: readonly number[];
  /** The items taken out, by id. */
  readonly gone: readonly Id[];
  /** Items whose level or sell price moved. */
  readonly priced: readonly number[];
  /** True where loops were looked for again. */
  readonly gain: boolean;
  /** Items whose cause of being out of reach was looked for again. */
  readonly causes: ReadonlySet<number>;
  /** True where an item was added, removed, or has another name or status. */
  readonly renamed: boolean;
}

/** Above this share of all processes written anew, starting over is quicker. */
const MANY = 0.05;

/**
 * Where the search fails it is as if it had stopped at its limits, and the failure is told: a pantry opens in any case.
 */
function soughtGains(...of: Parameters<typeof gains>): GainReport {
  try {
    return gains(...of);
  } catch (error) {
    return { gains: [], even: [], complete: false, columns: 0, failed: (error as Error).message };
  }
}

export class Readings {
  compiled!: Compiled;
  reach!: Reach;
  /** Least cost in value, in time, and in value as if there were no salvage. */
  value!: LeastCost;
  time!: LeastCost;
  bare!: LeastCost;
  /** The cheapest way in value: `by` and the number of recipes one after the other. */
  ways!: Layers;
  /** Lowest level at which an item can be had, in steps of LEVEL. */
  levels!: Layers;
  gain!: GainReport;
  loops!: readonly Loop[];
  private lost!: Causes;
  private prices!: Prices;
  /** The cheapest way in time, and items where it may be another since it was last asked for. */
  private quick: Layers | null = null;
  private readonly slow = new Set<number>();
  private credits: { [M in Measure]: LeastCost | null } = { value: null, time: null };

  /** @param of  a catalogue, or one that was compiled already */
  constructor(of: Catalogue | Compiled) {
    this.start("network" in of ? of : compile(of));
  }

  get catalogue(): Catalogue {
    return this.compiled.catalogue;
  }
  get network(): Compiled["network"] {
    return this.compiled.network;
  }
  /** Why items can't be had. */
  get causes(): ReadonlyMap<number, Cause> {
    return this.lost.of;
  }
  get revision(): number {
    return this.catalogue.revision;
  }

  private start(compiled: Compiled): void {
    const { network, catalogue } = compiled;
    this.compiled = compiled;
    const reach = new Reach(network);
    this.reach = reach;
    const perSecond = catalogue.pantry.labourPerHour / 3600;
    this.value = new LeastCost(network, { perMoney: 1, perSecond, reach });
    this.time = new LeastCost(network, { perMoney: 0, perSecond: 1, reach });
    this.bare = new LeastCost(network, { perMoney: 1, perSecond, reach, without: SALVAGE });
    this.ways = this.waysOf(this.value);
    this.quick = null;
    this.levels = new Layers(network, {
      usedOnly: false,
      counts: (p) => reach.fires(p),
      gives: (p, most) => Math.max(network.level[p] * LEVEL, most) + 1,
      least: (item) => this.compiled.levels[item] * LEVEL,
      before: (p, q) => before(this.compiled, p, q),
    });
    this.lost = new Causes(compiled, reach);
    this.prices = new Prices(compiled, reach, this.lost.opening);
    this.gain = soughtGains(compiled, reach, this.prices);
    this.loops = loops(compiled, this.lost.stuck, this.gain);
    this.forget();
  }

  private waysOf(least: LeastCost): Layers {
    const { network } = this;
    const { outs } = network;
    return new Layers(network, {
      usedOnly: true,
      counts: (p, item) => {
        if (!least.counts(p)) return false;
        for (let k = outs.start[p]; k < outs.end[p]; k++)
          if (outs.to[k] === item) return least.bears(p, k, least.runCost(p)) === least.cost[item];
        return false;
      },
      gives: (p, most) => (network.flags[p] & SOURCE ? 0 : most + 1),
      least: () => 0,
      before: (p, q) => before(this.compiled, p, q),
    });
  }

  /** The same as `ways` in time. Found when it is asked for. */
  get quickest(): Layers {
    this.quick ??= this.waysOf(this.time);
    if (this.slow.size) this.quick.settle(this.slow);
    this.slow.clear();
    return this.quick;
  }

  private forget(): void {
    this.credits.value = this.credits.time = null;
  }

  /**
   * Least cost with side outputs credited at their own plain least cost; see LeastCost. Computed when it is asked for.
   */
  credited(measure: Measure): LeastCost {
    const plain = this[measure];
    const found = this.credits[measure] ?? new LeastCost(this.network, { ...plain.rules, credit: plain });
    this.credits[measure] = found;
    return found;
  }

  /** The process by which an item is cheapest; −1: it can't be had. */
  by(measure: Measure, item: number): number {
    return (measure === "value" ? this.ways : this.quickest).by[item];
  }

  /**
   * The same, but where the cheapest way goes round in a circle, the process by which the circle is entered or kept up.
   */
  chosen(measure: Measure, item: number): number {
    const ways = measure === "value" ? this.ways : this.quickest;
    return ways.value[item] === NEVER ? this[measure].via[item] : ways.by[item];
  }

  /**
   * Number of recipes one after the other behind an item; sources count 0. null: it can't be had, or its cheapest way
   * goes
   * round in a circle that gets cheaper at every round, so that it has no end.
   */
  steps(item: number): number | null {
    return this.ways.value[item] === NEVER ? null : this.ways.value[item];
  }

  /**
   * Follows a change. In proportion to what moves; where much is written anew, or something that everything depends on,
   * all
   * is computed again. What it holds afterwards is what a new `Readings` of the catalogue would hold.
   */
  advance(next: Catalogue, edits: readonly Edit[]): Shift {
    const touched = { items: new Set<Id>(), recipes: new Set<Id>(), sources: new Set<Id>() };
    let [types, everything, renamed] = [false, false, false];
    for (const edit of edits) {
      const id = edit.op === "set" ? edit.id : edit.record.id;
      if (edit.kind === "item") {
        touched.items.add(id);
        if (edit.op !== "set" || edit.field === "name" || edit.field === "status") renamed = true;
      }
      if (edit.kind === "recipe") touched.recipes.add(id);
      else if (edit.kind === "source") touched.sources.add(id);
      else if (edit.kind === "type") types = true;
      else if (edit.kind === "currency") everything = true;
      else if (
        edit.kind === "pantry" &&
        edit.op === "set" &&
        (edit.field === "ticksPerSecond" || edit.field === "labourPerHour")
      )
        everything = true;
    }
    if (
      everything ||
      touched.recipes.size + touched.sources.size > Math.max(20, MANY * this.network.processes) ||
      this.network.wasteful
    ) {
      this.start(compile(next));
      return { ...STILL, anew: true };
    }
    const { compiled, network, reach } = this;
    const gone = [...touched.items].filter((id) => compiled.numberOf(id) !== undefined && !next.records.item.has(id));
    const { rewrites, added, removed } = follow(compiled, next, touched);
    const priced = readItems(
      compiled,
      types ? undefined : [...touched.items].flatMap((id) => compiled.numberOf(id) ?? []).concat(removed),
    );
    const real = rewrites.filter((r) => !this.sameProcess(r));
    const ps = real.map((r) => r.p);
    const linked = new Set<number>();
    const link = () => {
      for (const p of ps)
        for (const rows of [network.ins, network.outs])
          for (let k = rows.start[p]; k < rows.end[p]; k++) linked.add(rows.to[k]);
    };
    link();
    const made = this.outsOf(rewrites.map((r) => r.p));
    const costs = [this.value, this.time, this.bare];
    // A process whose lines are the same and whose own cost did not change moves nothing in that measure.
    const concerned = costs.map((least) =>
      real.filter((r) => !this.sameLines(r) || this.ownOf(least, r) !== least.own(r.p)).map((r) => r.p),
    );
    const relined = real.filter((r) => !this.sameLines(r)).map((r) => r.p);
    reach.loosen(relined);
    costs.forEach((least, m) => {
      least.loosen(concerned[m]);
    });
    for (const { p, of } of real) network.rewrite(p, of);
    link();
    const shifted = reach.settle(ps);
    // In a measure that a rewritten process did not concern, it may still fire no longer, or fire now.
    const turned = costs.map((_, m) => {
      const done = new Set(concerned[m]);
      return [...shifted.processes].filter((p) => !done.has(p));
    });
    const moved = costs.map((least, m) => {
      least.loosen(turned[m]);
      return least.settle([...concerned[m], ...turned[m]]);
    });
    const changed = shifted.processes;
    const ways = this.ways.settle(this.doubtfulWays(this.ways, moved[0], changed, linked, this.value));
    if (this.quick)
      for (const i of this.doubtfulWays(this.quick, moved[1], changed, linked, this.time)) this.slow.add(i);
    const lifted = this.levels.settle(
      new Set([...linked, ...this.turnedOuts(changed), ...priced, ...added, ...removed]),
    );
    if (changed.size || moved[0].size) this.forget();
    // What loops say depends on more of a recipe than its expected amounts: its key, and its ranges and chances.
    const retold =
      this.gain.gains.length + this.gain.even.length > 0 &&
      edits.some(
        (e) =>
          (e.op !== "set" || e.field === "key" || e.field === "lines") && (e.kind === "recipe" || e.kind === "source"),
      );
    const renumbered =
      this.causes.size > 0 && edits.some((e) => e.op === "set" && e.field === "key" && e.kind === "item");
    const causes = renumbered
      ? this.lost.again()
      : this.lost.settle([...shifted.items, ...made, ...this.outsOf(changed), ...added, ...removed]);
    const gain = this.followGain(ps, real, priced, added, retold);
    if (gain || causes.size || changed.size) this.loops = loops(compiled, this.lost.stuck, this.gain);
    return {
      anew: false,
      value: moved[0],
      time: moved[1],
      bare: moved[2],
      ways,
      levels: lifted,
      reach: shifted.items,
      processes: changed,
      linked,
      added,
      removed,
      gone,
      priced,
      gain,
      causes,
      renamed,
    };
  }

  private sameLines({ p, of }: Rewrite): boolean {
    const { network } = this;
    if (!of) return false;
    if (p >= network.flags.length || network.flags[p] !== flagsOf(of)) return false;
    const alike = (
      { start, end, to, qty }: typeof network.ins,
      row: { to: readonly number[]; qty: readonly number[] },
    ) =>
      end[p] - start[p] === row.to.length &&
      row.to.every((i, k) => to[start[p] + k] === i && (qty as Float64Array)[start[p] + k] === row.qty[k]);
    return alike(network.ins, of.ins) && alike(network.outs, of.outs);
  }
  private sameProcess(r: Rewrite): boolean {
    const { network } = this;
    if (!r.of) return (network.flags[r.p] & ALIVE) === 0;
    return (
      this.sameLines(r) &&
      network.money[r.p] === r.of.money &&
      network.seconds[r.p] === r.of.seconds &&
      network.level[r.p] === r.of.level
    );
  }
  private ownOf(least: LeastCost, { of }: Rewrite): number {
    return of ? of.money * least.rules.perMoney + of.seconds * least.rules.perSecond : -1;
  }

  private outsOf(ps: Iterable<number>): number[] {
    const { outs } = this.network;
    const items: number[] = [];
    for (const p of ps) for (let k = outs.start[p]; k < outs.end[p]; k++) items.push(outs.to[k]);
    return items;
  }

  /** Outputs of processes that fire now, and those that had come by ones that no longer do. */
  private turnedOuts(ps: Iterable<number>): number[] {
    const { outs } = this.network;
    const items: number[] = [];
    for (const p of ps)
      for (let k = outs.start[p]; k < outs.end[p]; k++)
        if (this.levels.by[outs.to[k]] === p || this.reach.fires(p)) items.push(outs.to[k]);
    return items;
  }

  /** Items whose cheapest way may be another. */
  private doubtfulWays(
    ways: Layers,
    moved: ReadonlyMap<number, number>,
    changed: ReadonlySet<number>,
    linked: ReadonlySet<number>,
    least: LeastCost,
  ): ReadonlySet<number> {
    const { users, outs } = this.network;
    const doubtful = new Set<number>([...linked, ...moved.keys()]);
    const seen = new Set<number>();
    const look = (p: number) => {
      if (seen.has(p)) return;
      seen.add(p);
      const run = least.counts(p) ? least.runCost(p) : -1;
      // An output whose cost stands may lose this way or gain it; if neither, it does not matter to it.
      for (let m = outs.start[p]; m < outs.end[p]; m++) {
        const o = outs.to[m];
        if (ways.by[o] === p || (run >= 0 && least.bears(p, m, run) === least.cost[o])) doubtful.add(o);
      }
    };
    for (const p of changed) look(p);
    for (const i of moved.keys()) for (let k = users.start[i]; k < users.end[i]; k++) look(users.to[k]);
    return doubtful;
  }

  /** @returns false where the loops can't have changed */
  private followGain(
    ps: readonly number[],
    real: readonly Rewrite[],
    priced: readonly number[],
    added: readonly number[],
    retold: boolean,
  ): boolean {
    const { compiled, reach } = this;
    if (!ps.length && !priced.length && !added.length && !retold) return false;
    const before = this.gain;
    const quiet = before.gains.length === 0 && before.even.length === 0 && before.complete;
    const alone = real.some((r) => ((r.of?.flags ?? 0) & GAINS) !== 0);
    const held = this.prices.repair(ps, priced);
    if (held && quiet && !alone && this.prices.clean) return false;
    // Repaired prices may find more seeds than there are: where that leads to a loop, or past the limits, better ones
    // decide.
    const good = held && before.complete && !(quiet && !this.prices.clean);
    if (good) this.gain = soughtGains(compiled, reach, this.prices, before);
    if (!good || !this.gain.complete) {
      this.prices = new Prices(compiled, reach, this.lost.opening);
      this.gain = soughtGains(compiled, reach, this.prices, before);
    }
    return true;
  }
}

const STILL: Shift = {
  anew: false,
  value: new Map(),
  time: new Map(),
  bare: new Map(),
  ways: new Set(),
  levels: new Set(),
  reach: [],
  processes: new Set(),
  linked: new Set(),
  added: [],
  removed: [],
  gone: [],
  priced: [],
  gain: false,
  causes: new Set(),
  renamed: false,
};

/** Everything that can be computed from a catalogue. */
export const readingsOf = (catalogue: Catalogue): Readings => new Readings(catalogue);
