/** Where recipes go in circles, and what going round does. */
import { type Compiled, processAt } from "../network/compile";
import { type Round, rounds } from "../network/components";
import { type Network, NetworkBuilder } from "../network/network";
import type { GainReport } from "./gain";
import type { Gain } from "./rounds";
import type { LoopStep } from "./trade";

export type Verdict = "stuck" | "gaining" | "even" | "lossy";

export interface Loop {
  readonly items: readonly number[];
  readonly steps: readonly LoopStep[];
  readonly verdict: Verdict;
  /** The proof, for a gaining loop. */
  readonly gain: Gain | null;
  /** For a stuck loop: true when a tool or station closes the circle rather than ingredients alone. */
  readonly byTool: boolean;
  /**
   * For a stuck loop: its first item by key, and those that having it would not open: if all can be had, it is open.
   */
  readonly breaks: readonly number[];
  /** Few of those that together open all of it. */
  readonly opening: readonly number[];
}

/** Every stuck circle, every loop that gains or comes out even, and in small pantries circles that lose. */
export function loops(compiled: Compiled, closed: readonly Loop[], report: GainReport): Loop[] {
  const itemsOf = (runs: readonly { readonly step: LoopStep }[]) => {
    const { ins, outs } = compiled.network;
    const [taken, given] = [new Set<number>(), new Set<number>()];
    for (const { step } of runs) {
      if (step.run === "sale") taken.add(step.item);
      else {
        for (let k = ins.start[step.process]; k < ins.end[step.process]; k++)
          if ((ins.qty as Float64Array)[k] > 0) taken.add(ins.to[k]);
        for (let k = outs.start[step.process]; k < outs.end[step.process]; k++) given.add(outs.to[k]);
      }
    }
    const round = [...given].filter((i) => taken.has(i));
    return (round.length ? round : [...given]).sort((a, b) =>
      (compiled.nodeOf(a) as string) < (compiled.nodeOf(b) as string) ? -1 : 1,
    );
  };
  const round = (verdict: Verdict, gain: Gain | null, runs: readonly { readonly step: LoopStep }[]): Loop => ({
    items: itemsOf(runs),
    steps: runs.map((r) => r.step),
    verdict,
    gain,
    byTool: false,
    breaks: [],
    opening: [],
  });
  const stuck = new Set(closed.flatMap((l) => l.items));
  const told = [
    ...closed,
    ...report.gains.map((g) => round("gaining", g, g.runs)),
    ...report.even.map((e) => round("even", null, e.runs)),
  ].filter((l) => l.verdict !== "even" || !l.items.every((i) => stuck.has(i)));
  return [...told, ...lossyCircles(compiled, told)];
}

/** Larger circles tell a designer nothing: salvage ties most of a pantry together. */
const MOST_ITEMS = 40;
/** In larger networks circles that lose are not looked for. */
const MOST_PROCESSES = 3_000;

/** Circles of ingredients in which nothing gains, comes out even or is stuck, smallest first. Linear. */
function lossyCircles(compiled: Compiled, told: readonly Loop[]): Loop[] {
  const { network } = compiled;
  if (network.processes > MOST_PROCESSES) return [];
  const taken = new Set(told.flatMap((l) => l.items));
  const byId = (a: number, b: number) => ((compiled.nodeOf(a) as string) < (compiled.nodeOf(b) as string) ? -1 : 1);
  return rounds(network, { links: "uses" })
    .filter((r) => r.items.length <= MOST_ITEMS && !r.items.some((i) => taken.has(i)))
    .map(
      (r): Loop => ({
        items: r.items.sort(byId),
        steps: inRecordOrder(compiled, r.processes).map((process): LoopStep => ({ run: "process", process })),
        verdict: "lossy",
        gain: null,
        byTool: false,
        breaks: [],
        opening: [],
      }),
    )
    .sort((a, b) => a.items.length - b.items.length || byId(a.items[0], b.items[0]));
}

/**
 * Circles with no way in: items that stay out of reach even if everything outside their circle could be had. The circle
 * is
 * drawn through ingredients, tools and stations. In proportion to the items given.
 * @param lost  items out of reach, with all that lie downstream of them there
 */
export function stuckLoops(compiled: Compiled, lost: readonly number[]): Loop[] {
  const { network } = compiled;
  const { outs, producers, ins } = network;
  const made = lost.filter((i) => producers.start[i] < producers.end[i]);
  if (!made.length) return [];
  const key = (i: number) => compiled.keyOf(i);
  const found = roundsAmong(network, made).flatMap(({ items, processes }) => {
    const { closed, breaks, opening } = leftOut(items, processes);
    if (!closed.length) return [];
    const own = new Set(closed);
    const has = ({ start, end, to }: typeof outs, p: number) => {
      for (let k = start[p]; k < end[p]; k++) if (own.has(to[k])) return true;
      return false;
    };
    const around = processes.filter((p) => has(outs, p) && has(ins, p));
    const byKey = inRecordOrder(compiled, around);
    return [
      {
        items: closed,
        steps: byKey.map((process): LoopStep => ({ run: "process", process })),
        verdict: "stuck" as const,
        gain: null,
        byTool: closesByTool(compiled, byKey, own),
        breaks,
        opening,
      },
    ];
  });
  return found.sort((a, b) => a.items.length - b.items.length || (key(a.items[0]) < key(b.items[0]) ? -1 : 1));

  /**
   * Items of the circle that can't be had even with everything outside of it, and those of them that stand as causes:
   * the first, and what that does not open; then few of these that open all.
   */
  function leftOut(
    items: readonly number[],
    processes: readonly number[],
  ): { closed: number[]; breaks: number[]; opening: number[] } {
    const waiting = new Set(items);
    const missing = new Map<number, number>();
    const come: number[] = [];
    const have = (i: number) => {
      if (waiting.delete(i)) come.push(i);
    };
    const fire = (p: number) => {
      for (let k = outs.start[p]; k < outs.end[p]; k++) have(outs.to[k]);
    };
    const goOn = () => {
      for (let i = come.pop(); i !== undefined; i = come.pop())
        for (let k = network.consumers.start[i]; k < network.consumers.end[i]; k++) {
          const p = network.consumers.to[k];
          const n = missing.get(p) ?? 0;
          if (n === 0) continue;
          missing.set(p, n - 1);
          if (n === 1) fire(p);
        }
    };
    // Everything that makes one of them, also from outside: whatever needs none of them fires at once.
    const near = new Set(processes);
    for (const i of items) for (let k = producers.start[i]; k < producers.end[i]; k++) near.add(producers.to[k]);
    for (const p of near) {
      let n = 0;
      for (let k = ins.start[p]; k < ins.end[p]; k++) if (waiting.has(ins.to[k])) n++;
      missing.set(p, n);
    }
    for (const p of near) if (missing.get(p) === 0) fire(p);
    goOn();
    const closed = [...waiting].sort((a, b) => (key(a) < key(b) ? -1 : 1));
    // What the first does not open by itself stands for itself: one item after the other would make long lists of what
    // to give.
    if (closed.length) have(closed[0]);
    goOn();
    const breaks = closed.filter((i, k) => k === 0 || waiting.has(i));
    const opening = breaks.filter((i, k) => {
      if (k > 0 && !waiting.has(i)) return false;
      have(i);
      goOn();
      return true;
    });
    return { closed, breaks, opening };
  }
}

/** Components of some items and the processes that make them, drawn through everything that is needed. */
function roundsAmong(network: Network, items: readonly number[]): Round[] {
  const { ins, outs, producers } = network;
  const place = new Map(items.map((i, at) => [i, at]));
  const processes = [
    ...new Set(items.flatMap((i) => Array.from(producers.to.subarray(producers.start[i], producers.end[i])))),
  ];
  const builder = new NetworkBuilder(items.length);
  const among = ({ start, end, to }: typeof ins, p: number) => {
    const inside = Array.from(to.subarray(start[p], end[p])).flatMap((i) => place.get(i) ?? []);
    return { to: inside, qty: inside.map(() => 1) };
  };
  for (const p of processes)
    builder.add({ ins: among(ins, p), outs: among(outs, p), money: 0, seconds: 0, level: 0, flags: 0 });
  return rounds(builder.build(), { links: "needs" }).map((r) => ({
    items: r.items.map((at) => items[at]),
    processes: r.processes.map((at) => processes[at]),
  }));
}

const inRecordOrder = (compiled: Compiled, ps: readonly number[]): number[] =>
  [...ps].sort((a, b) => compiled.compare(a, b));

/** Without its tools and stations the circle would be open. */
function closesByTool(compiled: Compiled, producers: readonly number[], own: ReadonlySet<number>): boolean {
  const at = (id: string) => compiled.numberOf(id as never) as number;
  for (const p of producers) {
    const ingredients = processAt(compiled, p).spec.lines.filter((l) => l.role === "ingredient");
    if (!ingredients.some((l) => own.has(at(l.item)))) return true;
  }
  return producers.some((p) =>
    processAt(compiled, p).spec.lines.some((l) => (l.role === "tool" || l.role === "station") && own.has(at(l.item))),
  );
}
