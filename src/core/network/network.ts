/** The recipe network: items and processes (recipes and sources) as flat typed arrays. */
import type { Catalogue } from "../catalogue/catalogue";
import type { Id, Line, Recipe, Source } from "../catalogue/records";
import { add, divide, type Fraction, fraction, fromNumber, multiply, negate, sign, toNumber, ZERO } from "../numbers/fraction";

export type Process = { readonly of: "recipe"; readonly record: Recipe } | { readonly of: "source"; readonly record: Source };

/** Compressed rows: entries of row r stand at ptr[r] .. ptr[r + 1]. */
export interface Rows {
  readonly ptr: Int32Array;
  readonly to: Int32Array;
  /** Same length as `to`; absent where only the link counts. */
  readonly qty: Float64Array;
}

export interface Network {
  readonly catalogue: Catalogue;
  readonly items: readonly Id[];
  readonly index: ReadonlyMap<Id, number>;
  readonly processes: readonly Process[];
  /** Process → items it uses up on balance in one run, expected amounts. What comes back is netted out. */
  readonly uses: Rows;
  /** Process → items it yields on balance in one run, expected amounts. */
  readonly makes: Rows;
  /** Process → items that must be at hand: everything that goes in, tools and stations. */
  readonly needs: Rows;
  /** The three relations seen from the item. */
  readonly usedBy: Rows;
  readonly madeBy: Rows;
  readonly neededBy: Rows;
  /** Fees and prices of one run [value units], without the worth of time. */
  readonly money: Float64Array;
  /** Time of one run [seconds of play]. */
  readonly seconds: Float64Array;
  /** 1 where a run uses something up, even if it comes back: such a process can be part of a gaining loop. */
  readonly consumes: Uint8Array;
}

const within = (chance: number): number => Math.min(1, Math.max(0, chance));

/** Expected amount of a line in one run, as a plain number. A tool counts by its wear, a station not at all. */
export function expected(line: Line): number {
  if (line.role === "station") return 0;
  const amount = ((line.min + line.max) / 2) * within(line.chance);
  return line.role === "tool" ? (line.uses === null ? 0 : amount / line.uses) : amount;
}

/** The same, exactly as typed. */
export function expectedExactly(line: Line): Fraction {
  if (line.role === "station" || (line.role === "tool" && line.uses === null)) return ZERO;
  const amount = divide(multiply(add(fromNumber(line.min), fromNumber(line.max)), fromNumber(within(line.chance))), fraction(2n));
  return line.uses === null ? amount : divide(amount, fraction(BigInt(line.uses)));
}

/** Exact net yield of one run for every item that does not come out even: negative is used up. */
export function netYield(process: Process): Map<Id, Fraction> {
  const net = new Map<Id, Fraction>();
  for (const line of process.record.lines) {
    const amount = expectedExactly(line);
    net.set(line.item, add(net.get(line.item) ?? ZERO, line.role === "output" ? amount : negate(amount)));
  }
  for (const [item, amount] of net) if (sign(amount) === 0) net.delete(item);
  return net;
}

/** Compiles a catalogue. Retired recipes are left out. Linear in the number of lines. */
export function compile(catalogue: Catalogue): Network {
  const items = [...catalogue.item.keys()];
  const index = new Map(items.map((id, i) => [id, i]));
  const processes: Process[] = [];
  for (const record of catalogue.source.values()) processes.push({ of: "source", record });
  for (const record of catalogue.recipe.values()) if (record.status !== "retired") processes.push({ of: "recipe", record });

  const uses = new Growing();
  const makes = new Growing();
  const needs = new Growing();
  const money = new Float64Array(processes.length);
  const seconds = new Float64Array(processes.length);
  const consumes = new Uint8Array(processes.length);
  const worth = (currency: Id | null) => (currency === null ? 1 : (catalogue.currency.get(currency)?.worth ?? 1));

  processes.forEach((process, p) => {
    const { record } = process;
    const recipe = process.of === "recipe" ? process.record : null;
    money[p] = recipe ? recipe.fee * worth(recipe.feeCurrency) : (record as Source).price * worth((record as Source).currency);
    seconds[p] = record.ticks / catalogue.pantry.ticksPerSecond;
    const seen = new Set<Id>();
    let repeated = false;
    for (const line of record.lines) {
      if (seen.has(line.item)) repeated = true;
      seen.add(line.item);
      if (line.role !== "output" && expected(line) > 0) consumes[p] = 1;
    }
    if (repeated) for (const [id, amount] of netYield(process)) (sign(amount) < 0 ? uses : makes).push(index.get(id) as number, Math.abs(toNumber(amount)));
    else
      for (const line of record.lines) {
        const amount = expected(line);
        if (amount > 0) (line.role === "output" ? makes : uses).push(index.get(line.item) as number, amount);
      }
    seen.clear();
    for (const line of record.lines) {
      if (line.role === "output" || seen.has(line.item) || (line.role === "ingredient" && line.max === 0)) continue;
      seen.add(line.item);
      needs.push(index.get(line.item) as number, 1);
    }
    uses.close();
    makes.close();
    needs.close();
  });
  const rows = [uses, makes, needs].map((g) => g.rows());
  const [usedBy, madeBy, neededBy] = rows.map((r) => transpose(r, items.length));
  return { catalogue, items, index, processes, uses: rows[0], makes: rows[1], needs: rows[2], usedBy, madeBy, neededBy, money, seconds, consumes };
}

class Growing {
  private readonly ptr = [0];
  private readonly to: number[] = [];
  private readonly qty: number[] = [];
  push(to: number, qty: number): void {
    this.to.push(to);
    this.qty.push(qty);
  }
  close(): void {
    this.ptr.push(this.to.length);
  }
  rows = (): Rows => ({ ptr: Int32Array.from(this.ptr), to: Int32Array.from(this.to), qty: Float64Array.from(this.qty) });
}

/** The same relation seen from the other side; within a row, entries keep their order. */
export function transpose(rows: Rows, columns: number): Rows {
  const ptr = new Int32Array(columns + 1);
  for (const c of rows.to) ptr[c + 1]++;
  for (let c = 0; c < columns; c++) ptr[c + 1] += ptr[c];
  const fill = ptr.slice(0, columns);
  const to = new Int32Array(rows.to.length);
  const qty = new Float64Array(rows.to.length);
  for (let r = 0; r + 1 < rows.ptr.length; r++)
    for (let k = rows.ptr[r]; k < rows.ptr[r + 1]; k++) {
      const at = fill[rows.to[k]]++;
      to[at] = r;
      qty[at] = rows.qty[k];
    }
  return { ptr, to, qty };
}
