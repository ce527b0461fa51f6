/**
 * Column generation (Ford, Fulkerson 1958): few columns at a time, whose duals price the others. Prices under which a
 * column loses prove that it is in no loop alone; they are lowered until as few as possible gain.
 */
import { add, type Fraction, fraction, multiply, negate, ONE, sign, toNumber, ZERO } from "../numbers/fraction";
import type { Field } from "./column-field";
import { approximate, EXACT, maximise } from "./simplex";
import { exactly, MOST_EXACT, shrink, solveExactly, split, sum, vertex, type Column } from "./support";

const MOST_ROUNDS = 80;
/** Columns added to a programme at a time. */
const BATCH = 20;
/** Share of its inputs' worth that every column must lose under the prices, so that rounding can't hide a gain. */
const MARGIN = 2 ** -16;
/** How often the dearest output of a column is lowered before it is left as it is. */
const LOWERINGS = 8;
/** Columns that are gone through when a price is lowered and what follows from it. */
const FAR = 60;
/** A sum whose terms cancel to less than this share of them is computed in fractions. */
const DOUBT = 1e-9;

type Goal = (c: number) => Fraction;
/** Columns of a support; null: there is none, proved; "unsure": neither could be shown within the limits. */
export type Support = number[] | null | "unsure";

/** One search over the columns that are not put aside. */
export class Search {
  /** Columns that gain under the prices, or nearly; the prices prove that every support contains one. */
  readonly violators: readonly number[];
  /** Per row, as far as it was lowered. */
  private readonly lowered: number[];
  private readonly exactPrice = new Map<number, Fraction>();
  private readonly worths = new Map<number, Fraction>();

  constructor(
    readonly field: Field,
    private readonly aside: ReadonlySet<number> = new Set(),
    /** A search with more columns, whose prices hold for fewer all the more. */
    wider?: Search,
  ) {
    this.lowered = wider ? wider.lowered.slice() : [];
    const unsettled = this.lower(wider ? wider.violators : [...new Set(field.nets.first)]);
    field.hold([]);
    this.violators = unsettled.filter((c) => this.value(c, 1).sum > (-MARGIN / 2) * this.size(c));
  }

  /** The same search with some more columns put aside. */
  without(columns: readonly number[]): Search {
    return new Search(this.field, new Set([...this.aside, ...columns]), this);
  }

  private price(row: number): number {
    return this.lowered[row] ?? this.field.start[row];
  }

  /**
   * Lowers prices until as few columns as possible gain: where the outputs are worth more than the inputs (less a
   * margin),
   * the most valuable output is lowered to that, then wherever that went in. A column lowered more than 8 times is left
   * as it
   * is, and no price falls below a thousandth of its start: prices that collapse make programmes no one can solve.
   * Where it
   * would go far, it is not begun at all.
   * @param first  columns that may gain; all others lose
   * @returns columns that were left
   */
  private lower(first: readonly number[]): number[] {
    const times = new Map<number, number>();
    const left = new Set<number>();
    for (const c of first) {
      if (this.aside.has(c) || left.has(c)) continue;
      const [was, tries] = [new Map<number, number>(), new Map<number, number>()];
      const more = this.cascade(c, (d) => tries.get(d) ?? times.get(d) ?? 0, tries, was);
      if (more) {
        for (const d of more) left.add(d);
        for (const [d, n] of tries) times.set(d, n);
      } else {
        // Everything is put back as it was.
        for (const [row, price] of was) this.lowered[row] = price;
        times.set(c, LOWERINGS);
        left.add(c);
      }
    }
    return [...left].sort((a, b) => a - b);
  }

  /** @returns columns that were left; null: it goes too far */
  private cascade(
    first: number,
    times: (c: number) => number,
    tries: Map<number, number>,
    was: Map<number, number>,
  ): number[] | null {
    const { field, aside, lowered } = this;
    const left: number[] = [];
    const queue = [first];
    for (let at = 0; at < queue.length; at++) {
      const c = queue[at];
      const before = times(c);
      if (before >= LOWERINGS || aside.has(c)) continue;
      if (at > FAR) return null;
      const { rows, near } = field.entries(c);
      let [inputs, outputs, best, bestWorth] = [0, 0, -1, 0];
      for (let k = 0; k < rows.length; k++) {
        const worth = near[k] * this.price(rows[k]);
        if (worth < 0) inputs -= worth;
        else outputs += worth;
        if (worth > bestWorth) [best, bestWorth] = [k, worth];
      }
      if (outputs <= inputs * (1 - MARGIN) || best < 0) continue;
      const row = rows[best];
      const settled = !field.fixed(row);
      tries.set(c, settled ? before + 1 : LOWERINGS);
      if (!settled || before + 1 === LOWERINGS) left.push(c);
      if (!settled) continue;
      if (!was.has(row)) was.set(row, this.price(row));
      const wanted = (bestWorth - (outputs - inputs * (1 - 2 * MARGIN))) / near[best];
      lowered[row] = Math.max(wanted, field.start[row] / 1000);
      // Whoever is not looked at again loses enough as it is: its inputs stay, and its outputs can only get cheaper.
      for (const user of field.side("consumers", row)) if (times(user) < LOWERINGS) queue.push(user);
      // Lowering one output may not have been enough.
      queue.push(c);
    }
    return left;
  }

  /** Worth of what a column takes in. */
  private size(c: number): number {
    const { rows, near } = this.field.entries(c);
    let size = 0;
    for (let k = 0; k < rows.length; k++) if (near[k] < 0) size -= near[k] * this.price(rows[k]);
    return size;
  }

  private worth(c: number): Fraction {
    let worth = this.worths.get(c);
    if (!worth) {
      worth = sum([...this.field.net(c)].map(([row, q]) => multiply(q, this.priceOf(row))));
      this.worths.set(c, worth);
    }
    return worth;
  }

  private worthNear(c: number): number {
    const { rows, near } = this.field.entries(c);
    let worth = 0;
    for (let k = 0; k < rows.length; k++) worth += near[k] * this.price(rows[k]);
    return worth;
  }

  private priceOf(row: number): Fraction {
    const price = this.exactPrice.get(row) ?? dyadic(this.price(row));
    this.exactPrice.set(row, price);
    return price;
  }

  /** A support that gains, or null: nothing does. */
  any(): Support {
    return this.best(this.violators, (c) => this.worth(c), 1);
  }
  /** A support that comes round without loss, or null. */
  round(): Support {
    // The prices take at least half the margin from every other column, so a quarter more leaves those below zero.
    return this.best(this.violators, (c) => add(this.worth(c), dyadic((MARGIN / 4) * this.size(c))), 1);
  }
  /** A support with the given column that loses nothing, and of which nothing can be left out; null: there is none. */
  through(violator: number, hint: readonly number[]): Support {
    const support = this.best([violator, ...hint], (c) => (c === violator ? ONE : ZERO), 0);
    if (!support || support === "unsure") return support;
    const kept = shrink(
      support.map((c) => this.column(c)),
      (k) => (support[k] === violator ? ONE : ZERO),
      { must: this.column(violator), steps: this.field.steps },
    );
    return kept?.map((column) => column.process) ?? null;
  }
  /** With rows for items and the column's own number for its process. */
  private column(c: number): Column {
    return { process: c, net: this.field.net(c) };
  }

  /**
   * Maximises the goal over x ≥ 0 with Sx ≥ 0 and sum x ≤ 1 by column generation: few columns at a time, whose duals
   * price
   * the others. Floats choose the basis; what is claimed is proved: a support by the exact vertex, that there is none
   * by
   * prices under which every column loses more than rounding could hide, or by the basis's exact duals.
   * @param priced  1 where the goal is the worth (or nearly), so that columns that are no violators count below zero by
   *   themselves; else 0
   */
  private best(start: readonly number[], goal: Goal, priced: 0 | 1): Support {
    const active = [...new Set(start)];
    if (!active.length) return null;
    for (let round = 0; round < MOST_ROUNDS; round++) {
      this.field.programmes++;
      for (const c of active) this.field.given.add(c);
      const { table, rows } = this.rowsOver(active);
      // Goals in a unit of their own, so that what is dear does not make them vanish.
      const goals = active.map(
        (c) => (priced ? this.worthNear(c) : toNumber(goal(c))) / this.size(c) + (priced * MARGIN) / 4,
      );
      const unit = priced ? 1 : Math.max(...goals);
      const guess = approximate(
        table.map((row) => row.map((v) => -v)),
        goals.map((g) => g / unit),
        this.field.steps,
      );
      if (!guess) return "unsure";
      if (guess.last > 1e-7) {
        const x = this.vertex(active, rows, guess.basis);
        const support = active.filter((_, k) => x && sign(x[k]) > 0);
        if (x && sign(sum(active.map((c, k) => (sign(x[k]) > 0 ? multiply(x[k], goal(c)) : ZERO)))) > 0) return support;
        const slow = this.slowly(
          active.filter((_, k) => guess.x[k] > 1e-9),
          goal,
        );
        if (slow) return slow;
      }
      this.field.hold(rows.map((row, r) => [row, guess.duals[r] * unit * this.price(row)]));
      let added = this.better(active, goal, priced, () => false);
      if (!added.length) {
        if (guess.last <= 1e-7 && priced === 1 && this.allLose()) return null;
        const found = this.duals(active, rows, guess.basis, goal);
        const right = found && !active.some((c) => this.gainsUnder(c, found, goal));
        const exact = right ? found : this.dualsSlowly(active, rows, goal);
        if (!exact) return "unsure";
        const gains = (c: number) => this.gainsUnder(c, exact, goal);
        this.field.hold([...exact].map(([row, dual]) => [row, toNumber(dual)]));
        added = this.better(active, goal, priced, gains);
        if (!added.length) return null;
      }
      active.push(...added);
    }
    return "unsure";
  }

  /** The exact vertex of a basis over some columns, where it is one: nothing negative, nothing lost. */
  private vertex(active: readonly number[], rows: readonly number[], basis: readonly number[]): Fraction[] | null {
    const x = vertex(active.length, [...rows, null], basis, (k, row) => this.entry(active[k], row), this.field.steps);
    if (!x || x.some((v) => sign(v) < 0)) return null;
    const net = new Map<number, Fraction>();
    active.forEach((c, k) => {
      if (sign(x[k]) > 0)
        for (const [row, q] of this.field.net(c)) net.set(row, add(net.get(row) ?? ZERO, multiply(q, x[k])));
    });
    return [...net.values()].every((v) => sign(v) >= 0) ? x : null;
  }

  /** Exact duals of a basis per row, or null where they prove nothing. */
  private duals(
    active: readonly number[],
    rows: readonly number[],
    basis: readonly number[],
    goal: Goal,
  ): Map<number, Fraction> | null {
    const { inside, tight } = split(active.length, [...rows, null], basis);
    const solved = solveExactly(
      inside.map((k) => [
        ...tight.map((row) => (row === null ? ONE : negate(this.entry(active[k], row)))),
        goal(active[k]),
      ]),
      this.field.steps,
    );
    if (!solved) return null;
    const dual = new Map<number, Fraction>();
    for (const [k, row] of tight.entries()) {
      if (sign(solved[k]) < 0 || (row === null && sign(solved[k]) !== 0)) return null;
      if (row !== null) dual.set(row, solved[k]);
    }
    return dual;
  }

  /** The same from the exact programme over few columns; null where there are too many, or where something gains. */
  private dualsSlowly(active: readonly number[], rows: readonly number[], goal: Goal): Map<number, Fraction> | null {
    if (active.length > MOST_EXACT) return null;
    const best = maximise(
      EXACT,
      [...rows.map((row) => active.map((c) => negate(this.entry(c, row)))), active.map(() => ONE)],
      [...rows.map(() => ZERO), ONE],
      active.map(goal),
      { steps: this.field.steps },
    );
    return best && sign(best.value) === 0 ? new Map(rows.map((row, r) => [row, best.duals[r]])) : null;
  }

  /** Whether a column's net is worth more than nothing under exact duals and the goal. */
  private gainsUnder(c: number, dual: ReadonlyMap<number, Fraction>, goal: Goal): boolean {
    return (
      sign([...this.field.net(c)].reduce((t, [row, q]) => add(t, multiply(q, dual.get(row) ?? ZERO)), goal(c))) > 0
    );
  }

  /** What a column adds to a row; null stands for the row that limits the sum. */
  private entry(c: number, row: number | null): Fraction {
    return row === null ? ONE : (this.field.net(c).get(row) ?? ZERO);
  }

  /** The exact programme over the columns that floats judged to gain. */
  private slowly(columns: readonly number[], goal: Goal): number[] | null {
    const x = exactly(
      columns.map((c) => this.column(c)),
      (k) => goal(columns[k]),
      this.field.steps,
    );
    return x && columns.filter((_, k) => sign(x[k]) > 0);
  }

  /**
   * Columns that add to a row with a dual: only those can be worth more than the prices alone say, and of all others
   * that are no violators the prices prove that they lose.
   */
  private *touched(): Generator<number> {
    const { held, dual } = this.field;
    const seen = new Set<number>();
    for (const row of held) {
      if (!(dual[row] > 0)) continue;
      for (const c of this.field.side("producers", row)) {
        if (this.aside.has(c) || seen.has(c)) continue;
        seen.add(c);
        yield c;
      }
    }
  }

  /** True where every column loses so much under prices and duals that rounding can't matter. */
  private allLose(): boolean {
    for (const list of [this.violators, this.touched()])
      for (const c of list) {
        const { sum: worth, terms } = this.value(c, 1);
        if (worth >= -DOUBT * terms) return false;
      }
    return true;
  }

  /** Worth of a column's net under the duals held (and the prices), and of its entries regardless of sign. */
  private value(c: number, priced: 0 | 1): { sum: number; terms: number } {
    const { rows, near } = this.field.entries(c);
    const { dual } = this.field;
    let worth = 0;
    let terms = 0;
    for (let k = 0; k < rows.length; k++) {
      const term = near[k] * (priced * this.price(rows[k]) + dual[rows[k]]);
      worth += term;
      terms += Math.abs(term);
    }
    return { sum: worth, terms };
  }

  /**
   * The columns that would add most to the goal, a batch of them at most. Where floats are in doubt, `decides` is
   * asked.
   */
  private better(active: readonly number[], goal: Goal, priced: 0 | 1, decides: (c: number) => boolean): number[] {
    const inside = new Set(active);
    const found: { c: number; gain: number }[] = [];
    for (const c of this.touched()) {
      if (inside.has(c)) continue;
      const { sum: worth, terms } = this.value(c, priced);
      // What a goal may add to the worth: the quarter of the margin that rounds are given.
      const more = priced ? (MARGIN / 4) * this.size(c) : 0;
      const own = priced ? 0 : toNumber(goal(c));
      if (worth + own + more < -DOUBT * terms) continue;
      if (worth + own > DOUBT * terms + more || decides(c)) found.push({ c, gain: (worth + own) / this.size(c) });
    }
    return found
      .sort((a, b) => b.gain - a.gain)
      .slice(0, BATCH)
      .map((f) => f.c);
  }

  /** The rows in which some column takes something, as a dense table, scaled by the prices and the columns' sizes. */
  private rowsOver(columns: readonly number[]): { table: number[][]; rows: number[] } {
    const { field } = this;
    const taken = new Set<number>();
    for (const c of columns) {
      const { rows, near } = field.entries(c);
      for (let k = 0; k < rows.length; k++) if (near[k] < 0) taken.add(rows[k]);
    }
    const rows = [...taken];
    const place = new Map(rows.map((at, r) => [at, r]));
    const table = rows.map(() => new Array<number>(columns.length).fill(0));
    columns.forEach((c, at) => {
      const { rows: of, near } = field.entries(c);
      const size = this.size(c);
      for (let k = 0; k < of.length; k++) {
        const r = place.get(of[k]);
        if (r !== undefined) table[r][at] = (near[k] * this.price(of[k])) / size;
      }
    });
    return { table, rows };
  }
}

/** A positive number as the fraction it is in binary. */
function dyadic(value: number): Fraction {
  const exponent = Math.max(-1000, Math.floor(Math.log2(value)) - 52);
  const digits = BigInt(Math.round(value / 2 ** exponent));
  return exponent >= 0 ? fraction(digits << BigInt(exponent)) : fraction(digits, 1n << BigInt(-exponent));
}
