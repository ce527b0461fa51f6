/** The figures of all items in flat arrays, as they were last told. */
import type { Id } from "../schema/id";
import type { Compiled } from "../network/compile";
import { wider } from "../numbers/arrays";
import { type Figures, sameFigures } from "./read-model";
import { levelOf } from "../analysis/progression";
import type { Delta, Readings } from "../analysis/readings";
import { levels, reach, time, value, ways } from "../analysis/registry";

/** An item with what its figures were and are; null: it was not or is no longer there. */
export type MovedFigures = readonly [id: Id, then: Figures | null, now: Figures | null];

const finite = (x: number): number | null => (Number.isFinite(x) ? x : null);
const natural = (n: number): number | null => (n < 0 ? null : n);

/** By the numbers of one compiled network, 28 bytes an item. */
export class FigureTable {
  private readonly compiled: Compiled;
  /** Value units and seconds; infinite where it can't be had, NaN where there is no such item. */
  private value = new Float64Array(0);
  private time = new Float64Array(0);
  /** Process, number of recipes and level; −1: none. */
  private by = new Int32Array(0);
  private steps = new Int32Array(0);
  private level = new Int32Array(0);

  constructor(readings: Readings) {
    this.compiled = readings.compiled;
    this.grow();
    for (let i = 0; i < readings.network.items; i++) this.read(readings, i);
  }

  /** Figures of an item by its number; null: there is no such item. */
  at(i: number): Figures | null {
    if (!(i < this.value.length) || Number.isNaN(this.value[i])) return null;
    return {
      value: finite(this.value[i]),
      time: finite(this.time[i]),
      by: this.by[i] < 0 ? null : this.compiled.processId(this.by[i]),
      steps: natural(this.steps[i]),
      level: natural(this.level[i]),
    };
  }

  *all(): Generator<[Id, Figures]> {
    for (let i = 0; i < this.compiled.network.items; i++) {
      const [id, figures] = [this.compiled.idOf(i), this.at(i)];
      if (id !== null && figures) yield [id, figures];
    }
  }

  /** Follows a change of the readings within the same compiled network. */
  follow(readings: Readings, delta: Delta): MovedFigures[] {
    this.grow();
    const moved: MovedFigures[] = [];
    const open = new Set<number>([
      ...delta.of(value).keys(),
      ...delta.of(time).keys(),
      ...delta.of(ways),
      ...delta.of(levels),
      ...delta.of(reach).items,
      ...delta.network.added,
    ]);
    for (const i of open) {
      const id = this.compiled.idOf(i);
      if (id === null) continue;
      const then = this.at(i);
      this.read(readings, i);
      const now = this.at(i);
      if (!then || !now || !sameFigures(then, now)) moved.push([id, then, now]);
    }
    delta.network.removed.forEach((i, k) => {
      const then = this.at(i);
      this.value[i] = Number.NaN;
      if (then) moved.push([delta.network.gone[k], then, null]);
    });
    return moved;
  }

  /** What moved between two networks with numbers of their own. */
  *since(before: FigureTable): Generator<MovedFigures> {
    for (const [id, now] of this.all()) {
      const there = before.compiled.numberOf(id);
      const then = there === undefined ? null : before.at(there);
      if (!then || !sameFigures(then, now)) yield [id, then, now];
    }
    for (const [id, then] of before.all()) if (this.compiled.numberOf(id) === undefined) yield [id, then, null];
  }

  private read(readings: Readings, i: number): void {
    if (this.compiled.idOf(i) === null) {
      this.value[i] = Number.NaN;
      return;
    }
    this.value[i] = readings.value.cost[i];
    this.time[i] = readings.time.cost[i];
    this.by[i] = readings.by("value", i);
    this.steps[i] = readings.steps(i) ?? -1;
    this.level[i] = levelOf(readings, i) ?? -1;
  }

  private grow(): void {
    const { items } = this.compiled.network;
    const known = this.value.length;
    if (items <= known) return;
    const room = known ? Math.ceil(items * 1.25) : items;
    [this.value, this.time] = [wider(this.value, room).fill(Number.NaN, known), wider(this.time, room)];
    [this.by, this.steps, this.level] = [wider(this.by, room), wider(this.steps, room), wider(this.level, room)];
  }
}
