/** The columns and rows that a search for loops has come to. */
import { type Fraction, ZERO } from "../numbers/fraction";
import { Budget } from "../budget/budget";
import type { Column } from "./support";

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

/** Steps of elimination that one search may take in all: some tenths of a second. */
const MOST_STEPS = 2e8;

export interface Entries {
  readonly rows: readonly number[];
  readonly near: readonly number[];
}

/** The columns and rows that searches have come to, numbered as they come; shared by all of them. */
export class Field {
  programmes = 0;
  readonly steps: Budget;
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
    this.steps = new Budget(steps);
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
