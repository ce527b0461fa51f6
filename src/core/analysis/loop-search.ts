/** The search for loops that gain or come out even: exact answers, floats only where they save work. */
import {
  add,
  divide,
  effort,
  type Fraction,
  fraction,
  multiply,
  negate,
  ONE,
  sign,
  subtract,
  toNumber,
  ZERO,
} from "../numbers/fraction";
import { Steps, TooMany } from "../numbers/steps";
import { approximate, EXACT, maximise } from "./simplex";

/** A process with its exact net yield per item. */
export interface Column {
  readonly process: number;
  readonly net: ReadonlyMap<number, Fraction>;
}

/** What the search asks of a network; columns and rows have whatever numbers it gives them. */
export interface Nets {
  /**
   * Columns that may gain; every other one loses at least the margin under the worths, so that every loop holds one of
   * these.
   */
  readonly first: Iterable<number>;
  column(c: number): Column;
  /** Rows and amounts of a column as plain numbers, with the signs of the exact ones. */
  near(c: number): readonly (readonly [row: number, amount: number])[];
  /** Columns that may add to a row, and those that may take from it. */
  producers(row: number): Iterable<number>;
  consumers(row: number): Iterable<number>;
  /** About what one of a row is worth: where the prices start. */
  worth(row: number): number;
  /** Whether that is how it stays: money. */
  fixed(row: number): boolean;
}

export interface FoundLoops {
  /** Supports that gain, each minimal: without any of its processes the others don't gain. */
  readonly gaining: readonly (readonly Column[])[];
  /** Minimal supports that come round with exactly what they took. */
  readonly even: readonly (readonly Column[])[];
  /** Columns that programmes were given. */
  readonly columns: number;
  /** False where the search stopped at its limits. */
  readonly complete: boolean;
}

const MOST_LOOPS = 40;
const MOST_PARTS = 120;
const MOST_PROGRAMMES = 600;
const MOST_ROUNDS = 80;
/** Steps of elimination that one search may take in all: some tenths of a second. */
const MOST_STEPS = 2e8;
/** The same of one that only asks whether there is any: it is asked many times over. */
const FEW_STEPS = 2e7;
/** Columns that a programme in fractions may have. */
const MOST_EXACT = 16;
/** Columns added to a programme at a time. */
const BATCH = 20;
/** Share of its inputs' worth that every column must lose under the prices, so that rounding can't hide a gain. */
const MARGIN = 2 ** -16;
/** How often the dearest output of a column is lowered before it is left as it is. */
const LOWERINGS = 8;
/** Columns that are gone through when a price is lowered and what follows from it. */
const FAR = 60;
/** A sum whose terms cancel to less than this share of them is worked out in fractions. */
const DOUBT = 1e-9;

/**
 * Every support that loses nothing contains a violator: a column that no prices could make lossy. As long as there is
 * one, one of them is taken, all minimal supports through it are looked for by leaving out, in turn, each process of one
 * that was found (the hitting-set tree of Reiter 1987), and the violator is put aside. So loops that share nothing do not
 * multiply the work. First those that gain, then, with what gains put aside, those that come out even.
 *
 * Only what lies around the violators is looked at: a column comes in when it could help. Limits: 40 loops of a kind, 120
 * processes in them, 600 programmes, 2e8 steps of elimination.
 */
export function searchLoops(nets: Nets): FoundLoops {
  const field = new Field(nets);
  const whole = new Search(field);
  const gaining = searchFor(whole, (search) => search.any(), true);
  if (!gaining.complete) return { gaining: gaining.found, even: [], columns: field.given.size, complete: false };
  const around = searchFor(whole, (search) => search.round(), false);
  // What comes round is minimal but for gaining loops within it: those were found already, with what lies around them.
  const gains = gaining.found.map((loop) => new Set(loop.map((c) => c.process)));
  const even = around.found.filter((loop) => {
    const own = new Set(loop.map((c) => c.process));
    return !gains.some((g) => [...g].every((p) => own.has(p)));
  });
  return { gaining: gaining.found, even, columns: field.given.size, complete: around.complete };
}

/** Whether anything gains; true also where that could not be ruled out. */
export function anyGains(nets: Nets): boolean {
  try {
    return new Search(new Field(nets, FEW_STEPS)).any() !== null;
  } catch (error) {
    if (error instanceof TooMany) return true;
    throw error;
  }
}

function searchFor(
  whole: Search,
  ask: (search: Search) => Support,
  gains: boolean,
): { found: Column[][]; complete: boolean } {
  const found: Column[][] = [];
  try {
    return { found, complete: searchInto(found, whole, ask, gains) };
  } catch (error) {
    // What was found until then stands.
    if (error instanceof TooMany) return { found, complete: false };
    throw error;
  }
}

/** @returns whether it was gone through to the end */
function searchInto(found: Column[][], whole: Search, ask: (search: Search) => Support, gains: boolean): boolean {
  const { field } = whole;
  const known = new Set<string>();
  let complete = true;
  let parts = 0;
  field.programmes = 0;
  for (let search = whole; ; ) {
    const some = ask(search);
    if (some === "unsure") complete = false;
    if (some === null || some === "unsure") return complete;
    const violator = search.violators.find((c) => some.includes(c)) as number;
    const branches: number[][] = [[]];
    const tried = new Set<string>();
    for (let at = 0; at < branches.length; at++) {
      if (found.length >= MOST_LOOPS || parts >= MOST_PARTS || field.programmes >= MOST_PROGRAMMES) return false;
      const narrowed = at ? search.without(branches[at]) : search;
      const hint = at ? ask(narrowed) : some;
      const support = hint && narrowed.through(violator, hint === "unsure" ? [] : hint);
      if (support === "unsure") complete = false;
      if (!support || support === "unsure") continue;
      const loop = gains
        ? shrink(
            support.map((c) => field.column(c)),
            totalNet,
            { steps: field.steps },
          )?.map((column) => support.find((c) => field.column(c) === column) as number)
        : support;
      if (loop) {
        const key = [...loop].sort((a, b) => a - b).join();
        if (!known.has(key)) {
          found.push(loop.map((c) => field.column(c)));
          parts += loop.length;
        }
        known.add(key);
      }
      for (const c of loop ?? support) {
        if (c === violator) continue;
        const next = [...branches[at], c].sort((a, b) => a - b);
        if (tried.has(next.join())) continue;
        tried.add(next.join());
        branches.push(next);
      }
    }
    search = search.without([violator]);
  }
}

type Goal = (c: number) => Fraction;
/** Columns of a support; null: there is none, proved; "unsure": neither could be shown within the limits. */
type Support = number[] | null | "unsure";

interface Entries {
  readonly rows: readonly number[];
  readonly near: readonly number[];
}

/** The columns and rows that searches have come to, numbered as they come; shared by all of them. */
class Field {
  programmes = 0;
  readonly steps: Steps;
  /** Columns that some programme was given. */
  readonly given = new Set<number>();
  /** Per row where its price starts, and the dual of the programme at hand: zero but for the rows that are held. */
  readonly start: number[] = [];
  readonly dual: number[] = [];
  held: readonly number[] = [];
  private readonly names: number[] = [];
  private readonly index = new Map<number, number>();
  private readonly loaded = new Map<number, Entries>();
  private readonly sides = { producers: [] as (readonly number[])[], consumers: [] as (readonly number[])[] };
  private readonly exact = new Map<number, ReadonlyMap<number, Fraction>>();

  constructor(
    readonly nets: Nets,
    steps = MOST_STEPS,
  ) {
    this.steps = new Steps(steps);
  }

  private row(name: number): number {
    let row = this.index.get(name);
    if (row === undefined) {
      row = this.names.push(name) - 1;
      this.index.set(name, row);
      this.start.push(this.nets.worth(name));
      this.dual.push(0);
    }
    return row;
  }

  entries(c: number): Entries {
    let entries = this.loaded.get(c);
    if (!entries) {
      const near = this.nets.near(c);
      entries = { rows: near.map(([name]) => this.row(name)), near: near.map(([, amount]) => amount) };
      this.loaded.set(c, entries);
    }
    return entries;
  }

  /** The columns that add to a row, or take from it. */
  side(side: "producers" | "consumers", row: number): readonly number[] {
    const known = this.sides[side];
    known[row] ??= [...this.nets[side](this.names[row])].filter((c) => {
      const { rows, near } = this.entries(c);
      const k = rows.indexOf(row);
      return k >= 0 && (side === "producers" ? near[k] > 0 : near[k] < 0);
    });
    return known[row];
  }

  fixed(row: number): boolean {
    return this.nets.fixed(this.names[row]);
  }

  /** Takes the duals of another programme in place of those that are held. */
  hold(duals: readonly (readonly [row: number, dual: number])[]): void {
    for (const row of this.held) this.dual[row] = 0;
    for (const [row, dual] of duals) this.dual[row] = dual;
    this.held = duals.map(([row]) => row);
  }

  column(c: number): Column {
    return this.nets.column(c);
  }
  /** The exact net of a column per row. */
  net(c: number): ReadonlyMap<number, Fraction> {
    let net = this.exact.get(c);
    if (!net) {
      const of = this.column(c).net;
      net = new Map(this.entries(c).rows.map((row) => [row, of.get(this.names[row]) ?? ZERO]));
      this.exact.set(c, net);
    }
    return net;
  }
}

/** One search over the columns that are not put aside. */
class Search {
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
   * is, and no price falls below a thousandth of its start: prices that collapse make programmes nobody can solve.
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

/** Rows of the exact system over a support: item → coefficients. */
export function rowsOf(support: readonly Column[]): Map<number, Fraction[]> {
  const rows = new Map<number, Fraction[]>();
  support.forEach(({ net }, k) => {
    for (const [item, q] of net) {
      let row = rows.get(item);
      if (!row) {
        row = support.map(() => ZERO);
        rows.set(item, row);
      }
      row[k] = q;
    }
  });
  return rows;
}

type SupportGoal = (k: number, rows: ReadonlyMap<number, Fraction[]>) => Fraction;

/**
 * A point of { x ≥ 0, Sx ≥ 0, sum x ≤ 1 } where the goal is above zero, exactly; null when there is none. Above 16
 * columns
 * the basis is one that floats choose, and a "none" is theirs.
 */
export function exactly(support: readonly Column[], goal: SupportGoal, steps?: Steps): Fraction[] | null {
  const rows = rowsOf(support);
  const table = [...rows.values()];
  const goals = support.map((_, k) => goal(k, rows));
  if (support.length <= MOST_EXACT) {
    const best = maximise(
      EXACT,
      [...table.map((row) => row.map(negate)), support.map(() => ONE)],
      [...table.map(() => ZERO), ONE],
      goals,
      { steps },
    );
    return best && sign(best.value) > 0 ? best.x : null;
  }
  const near = table.map((row) => row.map((v) => -toNumber(v)));
  for (const row of near) {
    const most = Math.max(...row.map(Math.abs));
    for (let k = 0; k < row.length; k++) row[k] /= most;
  }
  const guess = approximate(near, goals.map(toNumber), steps);
  if (!guess || guess.last <= 1e-9) return null;
  const x = vertex(support.length, [...table, null], guess.basis, (k, row) => (row === null ? ONE : row[k]), steps);
  if (!x || x.some((v) => sign(v) < 0) || table.some((row) => sign(sum(row.map((v, k) => multiply(v, x[k])))) < 0))
    return null;
  return sign(sum(goals.map((g, k) => multiply(g, x[k])))) > 0 ? x : null;
}

const sum = (terms: readonly Fraction[]): Fraction => terms.reduce(add, ZERO);

/** The exact solution that a basis stands for: the last row sums to 1, every other row without slack to 0. */
function vertex<R>(
  n: number,
  rows: readonly R[],
  basis: readonly number[],
  entry: (k: number, row: R) => Fraction,
  steps?: Steps,
): Fraction[] | null {
  const { inside, tight } = split(n, rows, basis);
  const solved = solveExactly(
    tight.map((row) => [...inside.map((k) => entry(k, row)), row === rows[rows.length - 1] ? ONE : ZERO]),
    steps,
  );
  if (!solved) return null;
  const x = new Array<Fraction>(n).fill(ZERO);
  inside.forEach((k, i) => {
    x[k] = solved[i];
  });
  return x;
}

/** The columns in a basis, and the rows whose slack is not. */
function split<R>(n: number, rows: readonly R[], basis: readonly number[]): { inside: number[]; tight: R[] } {
  const loose = new Set(basis);
  return {
    inside: Array.from({ length: n }, (_, k) => k).filter((k) => loose.has(k)),
    tight: rows.filter((_, r) => !loose.has(n + r)),
  };
}

/** What a unit of column k leaves over all items: above zero over a support that loses nothing, it gains. */
export const totalNet: SupportGoal = (k, rows) => [...rows.values()].reduce((t, row) => add(t, row[k]), ZERO);

/**
 * The smallest part of a support that still reaches above zero, by leaving out one process after the other; null: it
 * never did.
 */
export function shrink(
  support: readonly Column[],
  goal: SupportGoal,
  { must, steps }: { readonly must?: Column; readonly steps?: Steps } = {},
): Column[] | null {
  const index = new Map(support.map((c, k) => [c.process, k]));
  const reach = (part: readonly Column[]): Fraction[] | null =>
    part.length
      ? exactly(part, (k, rows) => goal(must ? (index.get(part[k].process) as number) : k, rows), steps)
      : null;
  let x = reach(support);
  if (!x) return null;
  let kept = support.filter((_, k) => sign((x as Fraction[])[k]) > 0);
  for (let k = kept.length - 1; k >= 0; k--) {
    if (kept[k].process === must?.process) continue;
    x = reach(kept.filter((_, j) => j !== k));
    if (!x) continue;
    const [chosen, fewer] = [x, kept.filter((_, j) => j !== k)];
    kept = fewer.filter((_, j) => sign(chosen[j]) > 0);
    k = kept.length;
  }
  return kept;
}

/** Solves a system given as rows with the right side last; null where it has no single solution. */
function solveExactly(rows: Fraction[][], steps?: Steps): Fraction[] | null {
  const n = rows.length;
  if (rows.some((row) => row.length !== n + 1)) return null;
  const left = rows.map((row) => [...row]);
  for (let c = 0; c < n; c++) {
    const r = left.findIndex((row, k) => k >= c && sign(row[c]) !== 0);
    if (r < 0) return null;
    [left[c], left[r]] = [left[r], left[c]];
    const pivot = left[c];
    const each = steps ? effort(pivot[c]) : 0;
    const filled = pivot.reduce((n, v) => (sign(v) === 0 ? n : n + 1), 0);
    for (let k = 0; k < n; k++) {
      if (k === c || sign(left[k][c]) === 0) continue;
      steps?.take(each * filled);
      const factor = divide(left[k][c], pivot[c]);
      for (let j = c; j <= n; j++)
        if (sign(pivot[j]) !== 0) left[k][j] = subtract(left[k][j], multiply(factor, pivot[j]));
    }
  }
  return left.map((row, c) => divide(row[n], row[c]));
}
