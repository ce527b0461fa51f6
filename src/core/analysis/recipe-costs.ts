/** What one run of a recipe costs by each of its ways, with what goes in, burns, comes back and comes out; as plain data. */
import type { Id } from "../schema/id";
import { processAt } from "../network/compile";
import { isItem, type Node } from "../process/node";
import { levelOfRun } from "./progression";
import type { Readings } from "./readings";

/** So much of something, and what all of it costs; null: it can't be had. */
export interface Priced {
  readonly thing: Node;
  readonly amount: number;
  readonly value: number | null;
}
export interface Taken extends Priced {
  /** What it is taken from where it is any with a tag, or heat: the cheapest, as much of it, and what is left of that. */
  readonly from: { readonly item: Node; readonly amount: number; readonly leaves: readonly Priced[] } | null;
}
/** One run of one way. Amounts are by expectation; what comes back of what is taken is netted out. */
export interface RunCost {
  /** As people know it: the recipe's, with the variant's and the station's where those count. */
  readonly name: string;
  /** Value units of a run with all that it takes; null: no one can run it. */
  readonly value: number | null;
  /** Seconds of play from nothing to a run. */
  readonly seconds: number | null;
  /** Of the value, fees, and what its own time is worth. */
  readonly fee: number;
  readonly work: number;
  readonly takes: readonly Taken[];
  /** Needed at hand, and kept. */
  readonly keeps: readonly Node[];
  /** What comes out, and what one of it costs by this run, bearing the whole of it. */
  readonly gives: readonly (Priced & { readonly each: number | null })[];
  readonly level: number | null;
}
export interface RecipeCosts {
  /** Those that make the first thing cheapest first. */
  readonly runs: readonly RunCost[];
}

/** Most ways that are told of one recipe. */
const MOST_RUNS = 24;

/** @returns null where there is no such recipe */
export function recipeCosts(readings: Readings, id: Id): RecipeCosts | null {
  const { compiled, network, reach, value, time } = readings;
  if (!compiled.catalogue.records.recipe.has(id)) return null;
  const { ins, outs } = network;
  const [used, made] = [ins.qty as Float64Array, outs.qty as Float64Array];
  const node = (i: number) => compiled.nodeOf(i) as Node;
  const priced = (i: number, amount: number): Priced => {
    const each = value.cost[i];
    return { thing: node(i), amount, value: each < Number.POSITIVE_INFINITY ? each * amount : null };
  };
  /** By the step that makes heat, or any with a tag, of an item. */
  const from = (i: number, amount: number): Taken["from"] => {
    const p = isItem(node(i)) ? -1 : readings.chosen("value", i);
    if (p < 0) return null;
    const runs = amount / network.yieldOf(p, i);
    const leaves: Priced[] = [];
    for (let k = outs.start[p]; k < outs.end[p]; k++)
      if (outs.to[k] !== i) leaves.push(priced(outs.to[k], runs * made[k]));
    const k = ins.start[p];
    return { item: node(ins.to[k]), amount: runs * used[k], leaves };
  };
  const runs = compiled.processesOf("recipe", id).flatMap((p): RunCost[] => {
    if (!compiled.process(p)) return [];
    const fires = reach.fires(p);
    const run = fires ? value.runCost(p) : Number.POSITIVE_INFINITY;
    const takes: Taken[] = [];
    const keeps: Node[] = [];
    for (let k = ins.start[p]; k < ins.end[p]; k++) {
      const i = ins.to[k];
      if (used[k] > 0) takes.push({ ...priced(i, used[k]), from: from(i, used[k]) });
      else keeps.push(node(i));
    }
    const gives = Array.from({ length: outs.end[p] - outs.start[p] }, (_, n) => {
      const k = outs.start[p] + n;
      return { ...priced(outs.to[k], made[k]), each: run < Number.POSITIVE_INFINITY ? run / made[k] : null };
    });
    const seconds = fires ? time.runCost(p) : Number.POSITIVE_INFINITY;
    return [
      {
        name: processAt(compiled, p).record.name,
        value: run < Number.POSITIVE_INFINITY ? run : null,
        seconds: seconds < Number.POSITIVE_INFINITY ? seconds : null,
        fee: network.money[p],
        work: value.own(p) - network.money[p],
        takes,
        keeps,
        gives,
        level: fires ? levelOfRun(readings, p) : null,
      },
    ];
  });
  // Of choices of what is taken under one name the cheapest counts.
  const best = new Map<string, RunCost>();
  for (const run of runs) {
    const there = best.get(run.name);
    if (!there || (run.value ?? Number.POSITIVE_INFINITY) < (there.value ?? Number.POSITIVE_INFINITY))
      best.set(run.name, run);
  }
  const each = ({ gives }: RunCost) => gives[0]?.each ?? Number.POSITIVE_INFINITY;
  return {
    runs: [...best.values()].sort((a, b) => (each(a) < each(b) ? -1 : Number(each(a) > each(b)))).slice(0, MOST_RUNS),
  };
}

/**
 * What one of the first thing that each recipe makes costs by that recipe, in value; null: no one can run it, or it makes
 * nothing.
 */
export function madeFor(readings: Readings, ids: readonly Id[]): (readonly [Id, number | null])[] {
  const { compiled, network, reach, value } = readings;
  return ids.map((id) => {
    const made = compiled.catalogue.records.recipe.get(id)?.lines.find((l) => l.role === "output")?.item;
    const item = made === undefined ? undefined : compiled.numberOf(made);
    let least = Number.POSITIVE_INFINITY;
    if (item !== undefined)
      for (const p of compiled.processesOf("recipe", id)) {
        const amount = network.yieldOf(p, item);
        if (amount > 0 && reach.fires(p)) least = Math.min(least, value.runCost(p) / amount);
      }
    return [id, least < Number.POSITIVE_INFINITY ? least : null] as const;
  });
}
