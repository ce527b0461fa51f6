/** All readings of a catalogue, kept up to date from one revision to the next. */
import type { Catalogue } from "../catalogue/catalogue";
import type { Edit } from "../catalogue/edit";
import { type Compiled, compile } from "../network/compile";
import type { Cause } from "./causes";
import type { LeastCost, Measure } from "./cost";
import type { GainReport } from "./gain";
import { type Layers, NEVER } from "./layers";
import type { Loop } from "./loops";
import {
  NETWORK_ANEW,
  NETWORK_READS,
  type NetworkDelta,
  networkDelta,
  NO_DELTA,
  rewrite,
  touchedBy,
} from "./network-delta";
import type { Reach } from "../network/reach";
import { covers, type Reading, type Start, type ReadingStep } from "./reading";
import {
  bare,
  causes,
  endless,
  gaining,
  levels,
  quickest,
  reach,
  READINGS,
  supply,
  time,
  UNREAD,
  value,
  verdicts,
  ways,
  STEP,
} from "./registry";
import type { Endless } from "./endless";
import type { Supply } from "./supply";

/** What moved from one revision to the next, in the network and in each reading. */
export interface Delta {
  /** True where everything was computed again: then nothing else is listed. */
  readonly anew: boolean;
  readonly network: NetworkDelta;
  of<M>(reading: Reading<unknown, M>): M;
}
const ANEW: Delta = { anew: true, network: NO_DELTA, of: (reading) => reading.still };

/** Above this share of all processes written again, starting over is quicker. */
const MANY = 0.05;

/** Whether an edit can't be followed: a reading says so, or none reads what it sets. */
export function startsAnew(edit: Edit, compiled: Pick<Compiled, "contributors">, readings = READINGS): boolean {
  if (covers(NETWORK_ANEW, edit) || readings.some((r) => covers(r.anew ?? [], edit))) return true;
  const known = [...NETWORK_READS, ...compiled.contributors.map((c) => c.kind), ...UNREAD];
  return !covers(known, edit) && !readings.some((r) => covers(r.reads ?? [], edit));
}

export class Readings {
  compiled!: Compiled;
  private readonly states = new Map<Reading, unknown>();

  /** @param of  a catalogue, or one that was compiled already */
  constructor(of: Catalogue | Compiled) {
    this.start("network" in of ? of : compile(of));
  }

  /** What a reading found. */
  state<S>(of: Reading<S>): S {
    return this.states.get(of) as S;
  }

  get catalogue(): Catalogue {
    return this.compiled.catalogue;
  }
  get network(): Compiled["network"] {
    return this.compiled.network;
  }
  get revision(): number {
    return this.catalogue.revision;
  }
  get reach(): Reach {
    return this.state(reach);
  }
  get value(): LeastCost {
    return this.state(value);
  }
  get time(): LeastCost {
    return this.state(time);
  }
  get bare(): LeastCost {
    return this.state(bare);
  }
  get ways(): Layers {
    return this.state(ways);
  }
  get levels(): Layers {
    return this.state(levels);
  }
  get gain(): GainReport {
    return this.state(gaining).report;
  }
  get loops(): readonly Loop[] {
    return this.state(verdicts);
  }
  /** What can be had without gifts and stock that runs out. */
  get endless(): Endless {
    return this.state(endless);
  }
  /** How many of an item a world can ever hold. */
  get supply(): Supply {
    return this.state(supply).get();
  }
  /** Why items can't be had. */
  get causes(): ReadonlyMap<number, Cause> {
    return this.state(causes).of;
  }
  /** The same as `ways` in time. Found when it is asked for. */
  get quickest(): Layers {
    return this.state(quickest).get();
  }
  /** The process by which an item is cheapest; −1: it can't be had. */
  by(measure: Measure, item: number): number {
    // An item that nothing makes yet may have come after the way was found.
    return (measure === "value" ? this.ways : this.quickest).by[item] ?? -1;
  }

  /**
   * The same, but where the cheapest way goes round in a circle, the process by which the circle is entered or kept up.
   */
  chosen(measure: Measure, item: number): number {
    const by = measure === "value" ? this.ways : this.quickest;
    return (by.value[item] === NEVER ? this[measure].via[item] : by.by[item]) ?? -1;
  }

  /**
   * Number of recipes one after the other behind an item; sources count 0. null: it can't be had, or its cheapest way
   * goes round in a circle that gets cheaper at every round, so that it has no end.
   */
  steps(item: number): number | null {
    return this.ways.value[item] === NEVER ? null : Math.floor(this.ways.value[item] / STEP);
  }

  private get on(): Start {
    const { compiled } = this;
    return { compiled, catalogue: compiled.catalogue, state: (of) => this.state(of) };
  }

  private start(compiled: Compiled): void {
    this.compiled = compiled;
    for (const reading of READINGS) this.states.set(reading, reading.start(this.on));
  }

  /** Whether following edits means to start again: some can't be followed, and very many are not worth it. */
  restarts(edits: readonly Edit[], touched = touchedBy(edits)): boolean {
    const { compiled } = this;
    const written = compiled.contributors.reduce((sum, { kind }) => sum + (touched.get(kind)?.size ?? 0), 0);
    return edits.some((edit) => startsAnew(edit, compiled)) || written > Math.max(20, MANY * this.network.processes);
  }

  /**
   * Follows a change. In proportion to what moves; where much is written again, or something that everything depends on,
   * all is computed again. What it holds afterwards is what a new `Readings` of the catalogue would hold.
   */
  advance(next: Catalogue, edits: readonly Edit[]): Delta {
    const { compiled } = this;
    const touched = touchedBy(edits);
    if (this.restarts(edits, touched) || this.network.wasteful) {
      this.start(compile(next, compiled.contributors));
      return ANEW;
    }
    const network = networkDelta(compiled, next, edits, touched);
    const moved = new Map<Reading, unknown>();
    const of = <M>(reading: Reading<unknown, M>): M => moved.get(reading) as M;
    const step: ReadingStep = { ...this.on, edits, network, moved: of };
    const overdeleted = READINGS.map((reading) => reading.overdelete?.(this.state(reading), step));
    rewrite(compiled.network, network);
    for (const [k, reading] of READINGS.entries()) {
      const found = reading.follow(this.state(reading), step, overdeleted[k]);
      this.states.set(reading, found.state);
      moved.set(reading, found.moved);
    }
    return { anew: false, network, of };
  }
}

/** Everything that can be computed from a catalogue. */
export const readingsOf = (catalogue: Catalogue): Readings => new Readings(catalogue);
