/** "Make 20 of these": whole runs of every process, what to bring and buy, in which order, and what is left over. */
import { solve as solveProgramme } from "yalps";
import { type Compiled, processAt } from "../network/compile";
import { SOURCE } from "../network/network";
import { fuelOf, type Node } from "../process/node";
import { TooMany } from "../budget/budget";
import { fewestRuns, perRun } from "./chances";
import type { Measure } from "./cost";
import { policyOrder } from "./policy";
import type { Readings } from "./readings";

export interface BasketEntry {
  /** Item → units. */
  readonly make: ReadonlyMap<number, number>;
  /** What is there already, item → units. */
  readonly stock?: ReadonlyMap<number, number>;
  /** Chance with which each step gives enough by itself, such as 0.9; absent: chances count by their expectation. */
  readonly confidence?: number;
  /** What the plan should be cheap in; value if absent. */
  readonly measure?: Measure;
}

export interface PlanStep {
  readonly process: number;
  readonly runs: number;
  /** In so many turns, between which other steps give back what it takes; absent: all at once. */
  readonly turns?: number;
}

export interface Plan {
  /** In an order in which each finds what it needs: sources first. */
  readonly steps: readonly PlanStep[];
  /** Units of each item that sources give, by the steps above. */
  readonly shopping: ReadonlyMap<number, number>;
  /**
   * Units that must be brought because they are needed at hand and come back: stations, tools that last, what a run
   * takes and gives back. What is in stock, or was made by an earlier step, need not be.
   */
  readonly needed: ReadonlyMap<number, number>;
  /** Units taken out of the stock. */
  readonly taken: ReadonlyMap<number, number>;
  /** Units that are over in the end, in expectation; the stock that was not touched is not counted. */
  readonly left: ReadonlyMap<number, number>;
  /** Value units, and seconds of play; per station the seconds it is busy. */
  readonly value: number;
  readonly seconds: number;
  readonly busy: ReadonlyMap<number, number>;
  /** True where no cheaper whole numbers of runs exist: every combination was ruled out. */
  readonly best: boolean;
}

/** Why there is no plan: an item that can't be had, or of which there is not so much. */
export type NoPlan = { readonly no: "way" | "more"; readonly item: number };

/** So often circles of cheapest ways are opened one after the other. */
const MOST_CIRCLES = 8;
/** Most processes that are put to a whole-number programme. */
const MOST_EXACT = 60;
const TINY = 1e-9;
/** Seconds count so little beside value that they only decide between plans of equal value. */
const TIE = 1e-6;

/**
 * Demand is rolled up from what is wanted to sources along the cheapest ways, consumers first; of each item the stock
 * and
 * what other steps leave over is used before anything is run, and runs are rounded up once for all that need the item.
 * So it
 * is never dearer than rounding up for each need by itself.
 *
 * Where chances count by expectation and few processes can take part, a whole-number programme over all of them (yalps,
 * branch and bound) looks for something cheaper; what it finds is taken if it adds up and can be carried out in some
 * order.
 */
export function planFor(readings: Readings, wanted: BasketEntry): Plan | NoPlan {
  const measure = wanted.measure ?? "value";
  for (const item of wanted.make.keys())
    if (!readings.reach.items[item] && (wanted.stock?.get(item) ?? 0) < (wanted.make.get(item) as number))
      return { no: "way", item };
  const shared = rollUp(readings, wanted, measure, { leftovers: true });
  // What a step leaves over may be what it is made of itself: then no one could begin.
  // Something that comes back may be brought for it, once.
  const begins = "no" in shared || carriedOut(readings, shared, wanted)?.enough === true;
  const rolled =
    begins || wanted.confidence !== undefined ? shared : rollUp(readings, wanted, measure, { leftovers: false });
  // Where the cheapest ways use up more of a gift than there is, other ones may do.
  if ("no" in rolled && rolled.no === "way") return rolled;
  const exact = wanted.confidence === undefined ? wholeNumbers(readings, wanted, measure) : null;
  if ("no" in rolled) {
    if (exact) return written(readings, wanted, exact.runs, exact.proven);
    const plain = rollUp(readings, wanted, measure, { leftovers: false, plain: true });
    return "no" in plain ? rolled : written(readings, wanted, plain, false);
  }
  if (!exact) return written(readings, wanted, rolled, false);
  const cheaper = price(readings, exact.runs, measure) < price(readings, rolled, measure) - TINY;
  return written(readings, wanted, cheaper ? exact.runs : rolled, exact.proven);
}

const batchOf = ({ compiled }: Readings, p: number): number => processAt(compiled, p).spec.batch ?? 1;
/** Runs with those that a last batch would have room for: time and heat are those of whole batches. */
function whole(readings: Readings, p: number, runs: number): number {
  const batch = batchOf(readings, p);
  return Math.ceil(runs / batch) * batch;
}
/** Seconds that so many runs of a process take. */
export const secondsOf = (readings: Readings, p: number, runs: number): number =>
  whole(readings, p, runs) * readings.network.seconds[p];
/** Units of the k-th of its inputs that so many runs take. */
export function takenBy(readings: Readings, p: number, k: number, runs: number): number {
  const { ins } = readings.network;
  const heat = fuelOf(readings.compiled.nodeOf(ins.to[k]) as Node) !== undefined;
  return (ins.qty as Float64Array)[k] * (heat ? whole(readings, p, runs) : runs);
}

type Runs = ReadonlyMap<number, number>;

function price(readings: Readings, runs: Runs, measure: Measure): number {
  const own = (of: Measure, p: number, n: number) => {
    const money = of === "value" ? readings.network.money[p] : 0;
    return n * money + whole(readings, p, n) * (readings[of].own(p) - money);
  };
  const other = measure === "value" ? "time" : "value";
  return [...runs].reduce((t, [p, n]) => t + own(measure, p, n) + TIE * own(other, p, n), 0);
}

const up = (x: number): number => Math.ceil(x - TINY * Math.max(1, x));

/**
 * The way that each item is made, and items with consumers first. Where the cheapest ways go round in a circle, as those
 * do that get cheaper at every round, its items are made as they first came within reach: that ends at sources.
 */
function policy(readings: Readings, measure: Measure, from: readonly number[], plain: boolean) {
  const { network, reach, endless } = readings;
  const round = new Set<number>();
  const first = (item: number): number => (endless.items?.[item] ? endless.first[item] : reach.first[item]);
  const chosen = (item: number): number => (round.has(item) ? first(item) : readings.chosen(measure, item));
  let by = plain ? first : chosen;
  for (let tries = 0; ; tries++) {
    const order = policyOrder(network, by, from);
    const circles = order.filter((group) => group.length > 1);
    if (!circles.length || by === first) return { by, order: order.reverse() };
    for (const item of circles.flat()) round.add(item);
    // New ways may lead into new circles: those all things first came by have none.
    if (tries === MOST_CIRCLES) by = first;
  }
}

/**
 * @param leftovers  what else a step gives is used for other needs
 * @param plain  everything is made as it first came within reach, be that dear
 */
function rollUp(
  readings: Readings,
  { make, stock, confidence }: BasketEntry,
  measure: Measure,
  { leftovers, plain = false }: { readonly leftovers: boolean; readonly plain?: boolean },
): Runs | NoPlan {
  const { network, compiled } = readings;
  const { ins, outs } = network;
  const [used, made] = [ins.qty as Float64Array, outs.qty as Float64Array];
  const have = new Map(stock);
  const demand = new Map(make);
  const runs = new Map<number, number>();
  const { by, order } = policy(readings, measure, [...make.keys()], plain);
  for (const group of order) {
    for (const item of group) {
      const held = have.get(item) ?? 0;
      const short = (demand.get(item) ?? 0) - held;
      demand.delete(item);
      have.set(item, Math.max(0, -short));
      if (short <= TINY) continue;
      const p = by(item);
      if (p < 0 || group.length > 1) return { no: "way", item };
      const n = runsOf(p, item, short);
      if (n === null) return { no: "way", item };
      runs.set(p, (runs.get(p) ?? 0) + n);
      // Levels at which a source gives other things are one source.
      const { limits, groups } = readings.endless;
      if (limits.has(p)) {
        const group = groups.get(p) ?? [p];
        const all = group.reduce((t, each) => t + (runs.get(each) ?? 0), 0);
        if (all > (limits.get(p) as number)) return { no: "more", item };
      }
      for (let k = outs.start[p]; leftovers && k < outs.end[p]; k++) {
        const over = n * made[k] - (outs.to[k] === item ? short : 0);
        have.set(outs.to[k], (have.get(outs.to[k]) ?? 0) + Math.max(0, over));
      }
      for (let k = ins.start[p]; k < ins.end[p]; k++)
        if (used[k] > 0) demand.set(ins.to[k], (demand.get(ins.to[k]) ?? 0) + takenBy(readings, p, k, n));
    }
  }
  return runs;

  /** The fewest runs that give enough, in expectation or with the confidence. */
  function runsOf(p: number, item: number, short: number): number | null {
    const expected = up(short / network.yieldOf(p, item));
    if (confidence === undefined) return expected;
    try {
      return fewestRuns(perRun(processAt(compiled, p).spec.lines, compiled.nodeOf(item) as string), short, confidence, {
        most: 1e7,
        about: expected,
      });
    } catch (error) {
      if (!(error instanceof TooMany)) throw error;
      return expected;
    }
  }
}

/**
 * The cheapest whole numbers of runs over everything that can take part; null where there is too much of it or no
 * answer.
 */
function wholeNumbers(
  readings: Readings,
  { make, stock }: BasketEntry,
  measure: Measure,
): { readonly runs: Runs; readonly proven: boolean } | null {
  const { network, reach } = readings;
  const { ins, outs, producers } = network;
  const items = new Set(make.keys());
  const processes = new Set<number>();
  for (const item of items)
    for (let k = producers.start[item]; k < producers.end[item]; k++) {
      const p = producers.to[k];
      // What runs out is no way to what can be had without it.
      if (!reach.fires(p) || readings.endless.shuts(p, item)) continue;
      processes.add(p);
      if (processes.size > MOST_EXACT) return null;
      for (let m = ins.start[p]; m < ins.end[p]; m++) if ((ins.qty as Float64Array)[m] > 0) items.add(ins.to[m]);
    }
  const { limits, groups } = readings.endless;
  const rowOf = (p: number) => `r${Math.min(...(groups.get(p) ?? [p]))}`;
  const constraints: { [row: string]: { min?: number; max?: number } } = Object.fromEntries(
    [...items].map((i) => [`i${i}`, { min: (make.get(i) ?? 0) - (stock?.get(i) ?? 0) }]),
  );
  for (const p of processes) if (limits.has(p)) constraints[rowOf(p)] = { max: limits.get(p) };
  const variables = Object.fromEntries(
    [...processes].map((p) => {
      const row: Record<string, number> = { cost: price(readings, new Map([[p, 1]]), measure) };
      for (let k = ins.start[p]; k < ins.end[p]; k++)
        if ((ins.qty as Float64Array)[k] > 0) row[`i${ins.to[k]}`] = -(ins.qty as Float64Array)[k];
      for (let k = outs.start[p]; k < outs.end[p]; k++)
        if (items.has(outs.to[k])) row[`i${outs.to[k]}`] = (row[`i${outs.to[k]}`] ?? 0) + (outs.qty as Float64Array)[k];
      if (limits.has(p)) row[rowOf(p)] = 1;
      return [`p${p}`, row];
    }),
  );
  const answer = solveProgramme(
    { direction: "minimize", objective: "cost", constraints, variables, integers: true },
    { timeout: 400, maxIterations: 20_000, tolerance: 0 },
  );
  if (answer.status !== "optimal") return null;
  const runs = new Map(
    answer.variables.map(([name, n]) => [Number(name.slice(1)), Math.round(n)] as const).filter(([, n]) => n > 0),
  );
  // What a last batch does not fill is no matter of sums.
  const proven = [...processes].every((p) => batchOf(readings, p) === 1);
  return carriedOut(readings, runs, { make, stock })?.enough ? { runs, proven } : null;
}

/** Runs in an order in which each finds what it uses, and what must be brought so that they can begin. */
interface Carried {
  readonly steps: readonly PlanStep[];
  readonly brought: ReadonlyMap<number, number>;
  /** Whether what is wanted is there in the end. */
  readonly enough: boolean;
}
/** So many turns are followed one by one; what is left then goes on as it went. */
const MOST_TURNS = 20_000;

/**
 * An order in which the runs find what they use, or null. Runs of one process may be split. Where none of them can go
 * on, the rest goes in turns: what is wanted is made one by one, each time with as little as it takes, and what only its
 * own making would give back is brought. So a lamp that is filled again and again is there once. Nothing is brought where
 * what goes round grows.
 */
function carriedOut(
  readings: Readings,
  runs: Runs,
  { make, stock }: Pick<BasketEntry, "make" | "stock">,
): Carried | null {
  const { ins, outs } = readings.network;
  const [used, made] = [ins.qty as Float64Array, outs.qty as Float64Array];
  const have = new Map(stock);
  const left = new Map(runs);
  const steps: PlanStep[] = [];
  const brought = new Map<number, number>();
  const run = (process: number, n: number): void => {
    for (let k = ins.start[process]; k < ins.end[process]; k++)
      if (used[k] > 0) add(have, ins.to[k], -takenBy(readings, process, k, n));
    for (let k = outs.start[process]; k < outs.end[process]; k++) add(have, outs.to[k], n * made[k]);
    steps.push({ process, runs: n });
    const rest = (left.get(process) as number) - n;
    if (rest > 0) left.set(process, rest);
    else left.delete(process);
  };
  for (let moved = true; moved && left.size; ) {
    moved = false;
    for (const [process, most] of left) {
      let n = most;
      for (let k = ins.start[process]; k < ins.end[process]; k++) {
        if (!(used[k] > 0)) continue;
        const one = takenBy(readings, process, k, 1);
        const fits = Math.floor((have.get(ins.to[k]) ?? 0) / one + TINY);
        n = Math.min(n, one > used[k] ? fits * batchOf(readings, process) : fits);
      }
      if (n <= 0) continue;
      run(process, n);
      moved = true;
    }
  }
  if (left.size && (grows(readings, runs, make) || !inTurns())) return null;
  const enough = [...make].every(([i, n]) => (have.get(i) ?? 0) - (brought.get(i) ?? 0) >= n - TINY * Math.max(1, n));
  return { steps, brought, enough };

  function inTurns(): boolean {
    const net = netOf(readings, runs);
    const givers = new Map<number, number[]>();
    for (const p of left.keys())
      for (let k = outs.start[p]; k < outs.end[p]; k++) givers.set(outs.to[k], [...(givers.get(outs.to[k]) ?? []), p]);
    const begun = new Set<number>();
    let turns = 0;
    /** One turn of a process, with all that it takes. @returns false where that can neither be made nor brought */
    const turn = (p: number): boolean => {
      begun.add(p);
      const n = Math.min(left.get(p) as number, batchOf(readings, p));
      for (let short = true; short; ) {
        short = false;
        for (let k = ins.start[p]; k < ins.end[p]; k++) {
          const lacks = used[k] > 0 ? takenBy(readings, p, k, n) - (have.get(ins.to[k]) ?? 0) : 0;
          if (lacks <= TINY) continue;
          short = true;
          const giver = givers.get(ins.to[k])?.find((q) => left.has(q) && !begun.has(q));
          if (giver !== undefined) {
            if (!turn(giver)) return false;
          } else if ((net.get(ins.to[k]) ?? 0) < -TINY) return false;
          else for (const map of [have, brought]) add(map, ins.to[k], lacks);
        }
      }
      run(p, n);
      begun.delete(p);
      turns++;
      return true;
    };
    while (left.size) {
      const next = [...left.keys()].find((p) => [...make.keys()].some((i) => readings.network.yieldOf(p, i) > 0));
      if (!turn(next ?? ([...left.keys()][0] as number))) return false;
      // No one follows a million turns: what goes on after so many goes on to the end.
      if (turns > MOST_TURNS) for (const [p, n] of [...left]) run(p, n);
    }
    return true;
  }
}

/** What runs leave of each thing, all in all; below 0 they use it up. */
function netOf(readings: Readings, runs: Runs): Map<number, number> {
  const { ins, outs } = readings.network;
  const net = new Map<number, number>();
  for (const [p, n] of runs) {
    for (let k = ins.start[p]; k < ins.end[p]; k++)
      if ((ins.qty as Float64Array)[k] > 0) add(net, ins.to[k], -takenBy(readings, p, k, n));
    for (let k = outs.start[p]; k < outs.end[p]; k++) add(net, outs.to[k], n * (outs.qty as Float64Array)[k]);
  }
  return net;
}

/** Most processes among which it is looked for what grows. */
const MOST_IN_CIRCLES = 200;
/**
 * Whether something in a circle of the runs grows by going round, whatever else is used up for it, as dough does: that
 * is made, and not brought; nor is anything to make some of itself. A lamp that is filled and burns down is the same lamp. True also where there are too many
 * processes to say.
 */
function grows({ network }: Readings, runs: Runs, make: BasketEntry["make"]): boolean {
  const { ins, outs, flags } = network;
  const columns = [...runs.keys()].filter((p) => !(flags[p] & SOURCE));
  if (columns.length > MOST_IN_CIRCLES) return true;
  const inputs = (p: number) => usedBy(network, p);
  const outputs = (p: number) => [...outs.to.subarray(outs.start[p], outs.end[p])];
  const after = new Map<number, Set<number>>();
  for (const p of columns) for (const i of inputs(p)) after.set(i, new Set([...(after.get(i) ?? []), ...outputs(p)]));
  const reached = new Map<number, ReadonlySet<number>>();
  for (const i of after.keys()) {
    const seen = new Set(after.get(i));
    for (const j of seen) for (const k of after.get(j) ?? []) seen.add(k);
    reached.set(i, seen);
  }
  const round = (i: number, j: number) => reached.get(i)?.has(j) && reached.get(j)?.has(i);
  if ([...make.keys()].some((i) => round(i, i))) return true;
  const constraints: { [row: string]: { min?: number; max?: number } } = { runs: { max: 1 } };
  const variables: { [name: string]: { [row: string]: number } } = {};
  for (const p of columns) {
    if (!inputs(p).some((i) => outputs(p).some((j) => round(i, j)))) continue;
    const column: { [row: string]: number } = { all: 0, runs: 1 };
    const put = (i: number, by: number) => {
      if (!round(i, i)) return;
      constraints[`i${i}`] = { min: 0 };
      column[`i${i}`] = (column[`i${i}`] ?? 0) + by;
      column.all += by;
    };
    for (let k = ins.start[p]; k < ins.end[p]; k++) put(ins.to[k], -(ins.qty as Float64Array)[k]);
    for (let k = outs.start[p]; k < outs.end[p]; k++) put(outs.to[k], (outs.qty as Float64Array)[k]);
    variables[`v${p}`] = column;
  }
  const { status, result } = solveProgramme({ direction: "maximize", objective: "all", constraints, variables });
  return status !== "optimal" || result > 1e-6;
}
const usedBy = ({ ins }: Readings["network"], p: number): number[] =>
  Array.from({ length: ins.end[p] - ins.start[p] }, (_, k) => ins.start[p] + k).flatMap((k) =>
    (ins.qty as Float64Array)[k] > 0 ? [ins.to[k]] : [],
  );

/** Turns of each process together, in the order in which they begin. */
function together(steps: readonly PlanStep[]): PlanStep[] {
  const by = new Map<number, { runs: number; turns: number }>();
  for (const { process, runs } of steps) {
    const there = by.get(process) ?? { runs: 0, turns: 0 };
    by.set(process, { runs: there.runs + runs, turns: there.turns + 1 });
  }
  return [...by].map(([process, { runs, turns }]) => ({ process, runs, ...(turns > 1 ? { turns } : {}) }));
}

function written(readings: Readings, wanted: BasketEntry, runs: Runs, best: boolean): Plan {
  const { network, compiled } = readings;
  const { ins, outs, flags, seconds, money } = network;
  const { steps: ordered, brought } = carriedOut(readings, runs, wanted) ?? {
    steps: byDepth(readings, runs),
    brought: new Map<number, number>(),
  };
  const balance = new Map<number, number>();
  const shopping = new Map<number, number>();
  const busy = new Map<number, number>();
  const used = new Set<number>();
  let time = 0;
  let value = 0;
  // Step by step: what is run at two times has a last batch each time.
  for (const { process: p, runs: n } of ordered) {
    const all = whole(readings, p, n);
    value += n * money[p] + all * (readings.value.own(p) - money[p]);
    time += all * seconds[p];
    for (let k = ins.start[p]; k < ins.end[p]; k++)
      if ((ins.qty as Float64Array)[k] > 0) {
        add(balance, ins.to[k], -takenBy(readings, p, k, n));
        used.add(ins.to[k]);
      }
    for (let k = outs.start[p]; k < outs.end[p]; k++) {
      add(balance, outs.to[k], n * (outs.qty as Float64Array)[k]);
      if (flags[p] & SOURCE) add(shopping, outs.to[k], n * (outs.qty as Float64Array)[k]);
    }
    for (const line of processAt(compiled, p).spec.lines)
      if (line.role === "station") add(busy, compiled.numberOf(line.item) as number, all * seconds[p]);
  }
  for (const [item, n] of wanted.make) add(balance, item, -n);
  const taken = new Map<number, number>();
  const left = new Map<number, number>();
  for (const [item, n] of balance) {
    if (n < -TINY) taken.set(item, -n);
    else if (n > TINY) left.set(item, n);
  }
  // What is gathered or bought for something else and no one uses is left over, and nothing to go for.
  for (const item of shopping.keys()) if (!used.has(item) && !wanted.make.has(item)) shopping.delete(item);
  const there = new Map(wanted.stock);
  for (const [item, n] of brought) add(there, item, n);
  const needed = broughtFor(readings, ordered, there);
  for (const [item, n] of brought) add(needed, item, n);
  return {
    steps: brought.size ? together(ordered) : ordered,
    shopping,
    needed,
    taken,
    left,
    value,
    seconds: time,
    busy,
    best,
  };
}
const add = (map: Map<number, number>, item: number, n: number) => map.set(item, (map.get(item) ?? 0) + n);

/** The least that must be brought for steps in their order, beside what they use up: it is there again at the end. */
function broughtFor(readings: Readings, steps: readonly PlanStep[], stock: BasketEntry["stock"]): Map<number, number> {
  const { network, compiled } = readings;
  const { ins, outs } = network;
  const have = new Map(stock);
  const brought = new Map<number, number>();
  for (const { process: p, runs } of steps) {
    const used = new Map<number, number>();
    for (let k = ins.start[p]; k < ins.end[p]; k++) used.set(ins.to[k], takenBy(readings, p, k, runs));
    const together = Math.min(runs, batchOf(readings, p));
    for (const [item, held] of heldFor(compiled, p)) {
      const net = (used.get(item) ?? 0) / runs;
      // The last runs take what is left, and have besides what comes back of them.
      const back = held.lasts ? held.units - net : together * Math.max(0, held.units - net);
      const short = Math.min(back, (used.get(item) ?? 0) + back - (have.get(item) ?? 0));
      if (short <= TINY) continue;
      add(brought, item, short);
      add(have, item, short);
    }
    for (const [item, n] of used) if (n > 0) add(have, item, -n);
    for (let k = outs.start[p]; k < outs.end[p]; k++) add(have, outs.to[k], runs * (outs.qty as Float64Array)[k]);
  }
  return brought;
}

/** What one run of a process needs at hand of each thing that it gives back or keeps, and whether all runs share it. */
function heldFor(compiled: Compiled, p: number): Map<number, { units: number; lasts: boolean }> {
  const { spec } = processAt(compiled, p);
  const held = new Map<number, { units: number; lasts: boolean }>();
  const put = (node: Node, units: number, lasts: boolean) => {
    const item = compiled.numberOf(node) as number;
    const there = held.get(item) ?? { units: 0, lasts: false };
    held.set(item, { units: lasts ? Math.max(there.units, units) : there.units + units, lasts: there.lasts || lasts });
  };
  for (const line of spec.lines) {
    if (line.role === "ingredient") put(line.item, (line.chance * (line.min + line.max)) / 2, false);
    // A tool that wears out is made again as it is worn.
    else if (line.role !== "output" && line.uses === null) put(line.item, Math.max(1, line.max), true);
  }
  for (const item of spec.needs) put(item, 1, true);
  return held;
}

/** With chances planned for, expectations need not add up at every step: then by the number of recipes behind each. */
function byDepth(readings: Readings, runs: Runs): PlanStep[] {
  const { outs } = readings.network;
  const depth = (p: number) => {
    let most = 0;
    for (let k = outs.start[p]; k < outs.end[p]; k++) most = Math.max(most, readings.steps(outs.to[k]) ?? 0);
    return most;
  };
  return [...runs].sort(([a], [b]) => depth(a) - depth(b)).map(([process, n]) => ({ process, runs: n }));
}
