/** All readings, in the order in which they are followed. A new reading is one entry here, and one line of the list. */
import { CHECK_SETTINGS } from "../checklist/index";
import { before, type Compiled } from "../network/compile";
import { components } from "../network/components";
import { MEMBER, GAINS, SALVAGE, SOURCE } from "../network/network";
import { Causes } from "./causes";
import { LeastCost } from "./cost";
import { Endless } from "./endless";
import { type GainReport, gains } from "./gain";
import { Layers } from "./layers";
import { type Loop, loops } from "./loops";
import { outsOf, sameLines } from "./network-delta";
import { type Supply, supplyOf } from "./supply";
import { Prices } from "./prices";
import { Reach } from "../network/reach";
import type { Reading, Start, ReadingStep } from "./reading";

/** Levels are counted in these steps, so that a derivation can grow within one level. */
export const LEVEL = 2 ** 20;

const NO_ITEMS: ReadonlySet<number> = new Set();
const ANYTHING: ReadonlySet<number> = new Set([-1]);
const NO_COSTS: ReadonlyMap<number, number> = new Map();

/** What can be had at all. */
export const reach: Reading<Reach, { readonly items: readonly number[]; readonly processes: ReadonlySet<number> }> = {
  name: "reach",
  after: [],
  still: { items: [], processes: NO_ITEMS },
  start: ({ compiled }) => new Reach(compiled.network),
  overdelete: (state, { network }) => state.overdelete(network.relined),
  /** Items that came within reach or went out of it, or whose cause may be another; processes written or turned. */
  follow: (state, { network }) => ({ state, moved: state.rederive(network.rewrites.map((r) => r.p)) }),
};

/** What can be had without gifts and stock that runs out; what moved is limited processes that may count otherwise. */
export const endless: Reading<Endless, readonly number[]> = {
  name: "endless",
  after: [reach],
  still: [],
  start: ({ compiled }) => new Endless(compiled),
  follow(state, { compiled, network, edits }) {
    const lines = network.relined.length + network.linked.size + network.added.length + network.removed.length > 0;
    return { state, moved: state.follow(compiled, { lines, limits: edits.some((e) => e.kind === "source") }) };
  },
};

/** Least cost of one of every item; what moved is the items with what they cost before. */
function leastCost(
  name: string,
  anew: readonly string[],
  rules: (on: Start) => Omit<ConstructorParameters<typeof LeastCost>[1], "reach" | "endless">,
): Reading<LeastCost, ReadonlyMap<number, number>> {
  return {
    name,
    after: [reach, endless],
    anew,
    still: NO_COSTS,
    start: (on) =>
      new LeastCost(on.compiled.network, { ...rules(on), reach: on.state(reach), endless: on.state(endless) }),
    // A process whose lines are the same and whose own cost did not change moves nothing in this measure.
    overdelete(state, { network, compiled }) {
      const own = (of: (typeof network.rewrites)[number]["of"]) =>
        of ? of.money * state.rules.perMoney + of.seconds * state.rules.perSecond : -1;
      const concerned = network.rewrites
        .filter((r) => !sameLines(compiled.network, r) || own(r.of) !== state.own(r.p))
        .map((r) => r.p);
      state.overdelete(concerned);
      return concerned;
    },
    // A rewritten process that did not concern this measure may still fire no longer, or fire now.
    follow(state, step, overdeleted) {
      const concerned = overdeleted as readonly number[];
      const done = new Set(concerned);
      const turned = [...step.moved(reach).processes, ...step.moved(endless)].filter((p) => !done.has(p));
      state.overdelete(turned);
      return { state, moved: state.rederive([...concerned, ...turned]) };
    },
  };
}
const perSecond = ({ catalogue }: Start) => catalogue.pantry.labourPerHour / 3600;
const LABOUR = ["pantry.labourPerHour"];
export const value = leastCost("value", LABOUR, (on) => ({ perMoney: 1, perSecond: perSecond(on) }));
export const time = leastCost("time", [], () => ({ perMoney: 0, perSecond: 1 }));
/** In value, as if there were no salvage. */
export const bare = leastCost("bare", LABOUR, (on) => ({ perMoney: 1, perSecond: perSecond(on), without: SALVAGE }));

/** A step of a way in its number; below it counts by how many tags it goes, so that the number grows by these too. */
export const STEP = 1024;
function waysOf({ compiled }: Start, least: LeastCost): Layers {
  const { network } = compiled;
  const { outs } = network;
  return new Layers(network, {
    usedOnly: true,
    counts: (p, item) => {
      if (!least.counts(p) || least.shuts(p, item)) return false;
      for (let k = outs.start[p]; k < outs.end[p]; k++)
        if (outs.to[k] === item) return least.bears(k, least.runCost(p)) === least.cost[item];
      return false;
    },
    gives: (p, most) => (network.flags[p] & SOURCE ? 0 : most + (network.flags[p] & MEMBER ? 1 : STEP)),
    least: () => 0,
    before: (p, q) => before(compiled, p, q),
  });
}

/** Items whose cheapest way may be another. */
function doubtfulWays(
  step: ReadingStep,
  ways: Layers,
  least: LeastCost,
  moved: ReadonlyMap<number, number>,
): Set<number> {
  const { consumers, outs } = step.compiled.network;
  const doubtful = new Set<number>([...step.network.linked, ...moved.keys()]);
  const seen = new Set<number>();
  const look = (p: number) => {
    if (seen.has(p)) return;
    seen.add(p);
    const run = least.counts(p) ? least.runCost(p) : -1;
    // An output whose cost stands may lose this way or gain it; if neither, it does not matter to it.
    for (let m = outs.start[p]; m < outs.end[p]; m++) {
      const o = outs.to[m];
      if (ways.by[o] === p || (run >= 0 && least.bears(m, run) === least.cost[o])) doubtful.add(o);
    }
  };
  for (const p of step.moved(reach).processes) look(p);
  for (const i of moved.keys()) for (let k = consumers.start[i]; k < consumers.end[i]; k++) look(consumers.to[k]);
  return doubtful;
}

/** The cheapest way in value: by which process, and the number of recipes one after the other. */
export const ways: Reading<Layers, ReadonlySet<number>> = {
  name: "ways",
  after: [reach, value],
  still: NO_ITEMS,
  start: (on) => waysOf(on, on.state(value)),
  follow: (state, step) => ({
    state,
    moved: state.rederive(doubtfulWays(step, state, step.state(value), step.moved(value))),
  }),
};

/** The cheapest way in time, found when it is asked for. */
export class Quickest {
  private layers: Layers | null = null;
  private readonly doubtful = new Set<number>();
  constructor(
    private readonly on: Start,
    private readonly least: LeastCost,
  ) {}
  get(): Layers {
    this.layers ??= waysOf(this.on, this.least);
    if (this.doubtful.size) this.layers.rederive(this.doubtful);
    this.doubtful.clear();
    return this.layers;
  }
  doubt(step: ReadingStep): void {
    if (!this.layers) return;
    for (const i of doubtfulWays(step, this.layers, this.least, step.moved(time))) this.doubtful.add(i);
  }
}
export const quickest: Reading<Quickest, null> = {
  name: "quickest",
  after: [reach, time],
  still: null,
  start: (on) => new Quickest(on, on.state(time)),
  follow(state, step) {
    state.doubt(step);
    return { state, moved: null };
  },
};

/** Lowest level at which an item can be had, in steps of LEVEL. */
export const levels: Reading<Layers, ReadonlySet<number>> = {
  name: "levels",
  after: [reach],
  still: NO_ITEMS,
  start(on) {
    const { compiled } = on;
    const { network } = compiled;
    const within = on.state(reach);
    return new Layers(network, {
      usedOnly: false,
      counts: (p) => within.fires(p),
      gives: (p, most) => Math.max(network.level[p] * LEVEL, most) + 1,
      least: (item) => compiled.levels[item] * LEVEL,
      before: (p, q) => before(compiled, p, q),
    });
  },
  follow(state, step) {
    const { linked, priced, added, removed } = step.network;
    const { outs } = step.compiled.network;
    const within = step.state(reach);
    const open = new Set([...linked, ...priced, ...added, ...removed]);
    // Outputs of processes that fire now, and those that had come by ones that no longer do.
    for (const p of step.moved(reach).processes)
      for (let k = outs.start[p]; k < outs.end[p]; k++)
        if (state.by[outs.to[k]] === p || within.fires(p)) open.add(outs.to[k]);
    return { state, moved: state.rederive(open) };
  },
};

/** Why items can't be had; what moved is the items whose cause was looked for again. */
export const causes: Reading<Causes, ReadonlySet<number>> = {
  name: "causes",
  after: [reach],
  reads: ["item.key"],
  still: NO_ITEMS,
  start: (on) => new Causes(on.compiled, on.state(reach)),
  follow(state, step) {
    const { made, added, removed } = step.network;
    const { items, processes } = step.moved(reach);
    const renumbered =
      state.of.size > 0 && step.edits.some((e) => e.op === "set" && e.field === "key" && e.kind === "item");
    const open = [...items, ...made, ...outsOf(step.compiled.network, processes), ...added, ...removed];
    return { state, moved: renumbered ? state.again() : state.rederive(open) };
  },
};

/** Combinations of runs that give more than they take. */
export interface Gaining {
  readonly report: GainReport;
  readonly prices: Prices;
}
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
/**
 * Prices that begin with what would open closed circles, as they have to where nothing leads in; where those don't
 * prove that nothing gains, prices without may: in closed circles of a clean pantry dear things come down too slowly.
 */
function pricesFor(compiled: Compiled, within: Reach, opening: readonly number[]): Prices {
  const prices = new Prices(compiled, within, opening);
  if (prices.clean || !opening.length) return prices;
  const plain = new Prices(compiled, within);
  return plain.clean ? plain : prices;
}
/**
 * Whether processes that changed lie apart from everything that was searched for loops, and nothing beyond that seems to
 * gain: loops lie within one strongly connected component, so that what was found there, or not settled, stands. Money
 * joins all components: where it can go round they are not told apart.
 * @param violators  those before the change
 */
function elsewhere(
  compiled: Compiled,
  { prices, report }: Gaining,
  violators: ReadonlySet<number>,
  changed: readonly number[],
): boolean {
  if (prices.trades) return false;
  const { network } = compiled;
  const searched = new Set(violators);
  for (const { runs } of [...report.gains, ...report.even])
    for (const { step } of runs) if (step.run === "process") searched.add(step.process);
  if (changed.some((p) => searched.has(p))) return false;
  const { of } = components(network, { links: "uses" });
  const region = new Set([...searched].map((p) => of[network.items + p]));
  const within = (p: number) => region.has(of[network.items + p]);
  return !changed.some(within) && [...prices.violators].every(within);
}

/** What moved is whether loops were looked for again. */
export const gaining: Reading<Gaining, boolean> = {
  name: "gaining",
  after: [reach, causes],
  // What loops say depends on more of a recipe than its expected amounts: its key, and its ranges and chances.
  reads: ["recipe.key", "recipe.lines", "source.key", "source.lines"],
  still: false,
  start(on) {
    const prices = pricesFor(on.compiled, on.state(reach), on.state(causes).opening);
    return { prices, report: soughtGains(on.compiled, on.state(reach), prices) };
  },
  follow(state, step) {
    const { network, compiled, edits } = step;
    const { report: known } = state;
    const kinds = new Set<string>(compiled.contributors.map((c) => c.kind));
    const retold =
      known.gains.length + known.even.length > 0 &&
      edits.some((e) => kinds.has(e.kind) && (e.op !== "set" || e.field === "key" || e.field === "lines"));
    const ps = network.rewrites.map((r) => r.p);
    if (!ps.length && !network.priced.length && !network.added.length && !retold) return { state, moved: false };
    const within = step.state(reach);
    const quiet = known.gains.length === 0 && known.even.length === 0 && known.complete;
    const alone = network.rewrites.some((r) => ((r.of?.flags ?? 0) & GAINS) !== 0);
    let { prices } = state;
    let report = known;
    const violators = new Set(prices.violators);
    const held = prices.repair(ps, network.priced);
    if (held && quiet && !alone && prices.clean) return { state, moved: false };
    if (held && !alone && !retold && elsewhere(compiled, state, violators, ps)) return { state, moved: false };
    // Repaired prices may find more violated constraints than there are: where that leads to a loop, or past the limits,
    // better ones decide.
    const good = held && known.complete && !(quiet && !prices.clean);
    if (good) report = soughtGains(compiled, within, prices, known);
    if (!good || !report.complete) {
      prices = pricesFor(compiled, within, step.state(causes).opening);
      report = soughtGains(compiled, within, prices, known);
    }
    return { state: { prices, report }, moved: true };
  },
};

/** Every loop with its verdict: gaining, even, or stuck. */
export const verdicts: Reading<readonly Loop[], null> = {
  name: "loops",
  after: [reach, causes, gaining],
  still: null,
  start: (on) => loops(on.compiled, on.state(causes).stuck, on.state(gaining).report),
  follow(state, step) {
    const moved = step.moved(gaining) || step.moved(causes).size || step.moved(reach).processes.size;
    return { state: moved ? this.start(step) : state, moved: null };
  },
};

/** Limited supply, found when it is asked for. */
export class Supplies {
  private found: Supply | null = null;
  constructor(private readonly on: Start) {}
  get(): Supply {
    this.found ??= supplyOf(this.on.compiled, this.on.state(endless));
    return this.found;
  }
}
/** What moves is not told: where anything is written again, everything may be. */
export const supply: Reading<Supplies, ReadonlySet<number>> = {
  name: "supply",
  after: [reach, endless],
  still: NO_ITEMS,
  start: (on) => new Supplies(on),
  follow: (state, step) =>
    // A limit is no row of the network.
    step.network.rewrites.length || step.edits.some((e) => e.kind === "source")
      ? { state: new Supplies(step), moved: ANYTHING }
      : { state, moved: NO_ITEMS },
};

export const READINGS: readonly Reading[] = [
  reach,
  endless,
  value,
  time,
  bare,
  ways,
  quickest,
  levels,
  causes,
  gaining,
  verdicts,
  supply,
];

/** Edits that no reading reads. What is neither here nor read by a reading starts all again: nothing is ever stale. */
export const UNREAD: readonly string[] = [
  "rarity",
  "stat",
  "tag",
  "slot",
  "cooldown",
  "situation",
  "field",
  "constant",
  "resource",
  "signal",
  "exclusion",
  "condition",
  "subject",
  "payback",
  "trial",
  "view",
  "wordlist",
  "series",
  "mapping",
  "severity",
  "point",
  "decision",
  "scenario",
  "pantry.overflow",
  "pantry.name",
  "pantry.key",
  ...Object.keys(CHECK_SETTINGS).map((name) => `pantry.${name}`),
];
