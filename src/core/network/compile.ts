/** From a catalogue to its recipe network, and from a changed catalogue to the processes that must be written anew. */
import type { Catalogue } from "../catalogue/catalogue";
import { held } from "../catalogue/inheritance";
import { IdTable } from "../catalogue/ids";
import type { Id } from "../schema/id";
import type { Recipe, Source } from "../kinds/index";
import { wider } from "../numbers/arrays";
import { sign, toNumber } from "../numbers/fraction";
import { expected, netYield, type Process } from "./expected";
import {
  ALIVE,
  FREE,
  GAINS,
  type Network,
  NetworkBuilder,
  type ProcessOf,
  renumbered,
  SALVAGE,
  SOURCE,
} from "./network";
import { Reach } from "../analysis/reach";

/** What ids of processes are told apart by: a recipe and a source may have the same. */
const GROUPS = { recipe: 0, source: 1 } as const;

/** A network whose items and processes are records. Numbers stay with their records while it is open. */
export class Compiled {
  /** Per item its own level, and what a player gets for one (0: it can't be sold). */
  levels = new Int16Array(0);
  sells = new Float64Array(0);
  /** Currencies by their number; the first is the one that value units stand for. */
  readonly currencies: readonly (Id | null)[];
  /** Items that were taken out. */
  private readonly gone = new Set<number>();

  /**
   * @param items      ids of the network's items, by their numbers
   * @param processes  ids of its recipes and sources, likewise
   */
  constructor(
    public catalogue: Catalogue,
    readonly network: Network,
    private readonly items: IdTable,
    private readonly processes: IdTable,
  ) {
    this.currencies = currenciesOf(catalogue);
  }

  /** null: taken out. */
  idOf(item: number): Id | null {
    return this.gone.has(item) ? null : this.items.idOf(item);
  }
  numberOf(id: Id): number | undefined {
    const item = this.items.get(id);
    return item === undefined || this.gone.has(item) ? undefined : item;
  }
  /** The recipe or source behind a process; null: taken out or retired. */
  process(p: number): Process | null {
    const there = this.behind(p);
    const record = there && this.catalogue.records[there.of].get(there.id);
    return record ? ({ of: there.of, record } as Process) : null;
  }
  /** Kind and id of that record, which are quicker to come by. */
  behind(p: number): { readonly of: Process["of"]; readonly id: Id } | null {
    if (p < 0 || p >= this.processes.size || !(this.network.flags[p] & ALIVE)) return null;
    return { of: this.processes.groupOf(p) === GROUPS.source ? "source" : "recipe", id: this.processes.idOf(p) };
  }
  processId(p: number): Id {
    return this.processes.idOf(p);
  }
  processOf(of: Process["of"], id: Id): number | undefined {
    return this.processes.get(id, GROUPS[of]);
  }
  /** Below 0 where the record of one process comes before that of the other in the order of ids. */
  compare(p: number, q: number): number {
    return this.processes.compare(p, q);
  }

  /** Gives an item a number, or its former one back. */
  addItem(id: Id): number {
    const i = this.items.add(id);
    if (i >= this.network.items) this.network.addItem();
    this.gone.delete(i);
    return i;
  }
  dropItem(item: number): void {
    this.gone.add(item);
  }
  addProcess(of: Process["of"], id: Id): number {
    const p = this.processes.add(id, GROUPS[of]);
    if (p >= this.network.processes) this.network.addProcess();
    return p;
  }
}

/** The recipe or source behind a process that is in use. */
export function processAt(compiled: Compiled, p: number): Process {
  const process = compiled.process(p);
  if (!process) throw new RangeError(`Process ${p} is not in use.`);
  return process;
}

/** Which of two processes counts where both do equally well: a matter of their records, not of their numbers. */
export const before = (compiled: Compiled, p: number, q: number): boolean => compiled.compare(p, q) < 0;

/**
 * Compiles a catalogue. Retired recipes are left out. Numbers follow the order in which things come within reach, so
 * that
 * what is used together stands together. Linear in the number of lines.
 */
export function compile(catalogue: Catalogue): Compiled {
  const given = new IdTable(catalogue.records.item.size);
  for (const id of catalogue.records.item.keys()) given.add(id);
  const listed = new IdTable(catalogue.records.recipe.size + catalogue.records.source.size);
  const builder = new NetworkBuilder(given.size);
  const numberOf = (id: Id) => given.get(id) as number;
  const add = (process: Process) => {
    listed.add(process.record.id, GROUPS[process.of]);
    builder.add(describe(catalogue, numberOf, process));
  };
  for (const record of catalogue.records.source.values()) add({ of: "source", record });
  for (const record of catalogue.records.recipe.values())
    if (record.status !== "retired") add({ of: "recipe", record });
  const plain = builder.build();
  const order = new Reach(plain, undefined, true).order();
  const compiled = new Compiled(
    catalogue,
    renumbered(plain, order.items, order.processes),
    given.reordered(order.items),
    listed.reordered(order.processes),
  );
  readItems(compiled);
  return compiled;
}

/** The currency that is worth one value unit stands for the unit itself; null where there is none. */
function currenciesOf({ records: { currency } }: Catalogue): (Id | null)[] {
  const all = [...currency.values()];
  const unit = all.find((c) => c.worth === 1);
  return [unit?.id ?? null, ...all.filter((c) => c !== unit).map((c) => c.id)];
}

/** Number of a currency; null and what does not exist count as value units. */
export const currencyAt = (compiled: Compiled, currency: Id | null): number =>
  Math.max(0, currency === null ? 0 : compiled.currencies.indexOf(currency));

/** Reads levels and sell prices anew. @returns items that have others than before */
export function readItems(compiled: Compiled, only?: Iterable<number>): number[] {
  const { catalogue, network } = compiled;
  if (compiled.levels.length < network.items) {
    const size = Math.ceil(network.items * 1.25);
    [compiled.levels, compiled.sells] = [wider(compiled.levels, size), wider(compiled.sells, size)];
  }
  const changed: number[] = [];
  for (const i of only ?? upTo(network.items)) {
    const id = compiled.idOf(i);
    const item = id === null ? undefined : catalogue.records.item.get(id);
    const level = item ? (held(catalogue, item, "level").value ?? 0) : 0;
    const sell = item && item.status !== "retired" ? (held(catalogue, item, "sell").value ?? 0) : 0;
    if (compiled.levels[i] === level && compiled.sells[i] === sell) continue;
    compiled.levels[i] = level;
    compiled.sells[i] = sell;
    changed.push(i);
  }
  return changed;
}

function* upTo(n: number): Generator<number> {
  for (let i = 0; i < n; i++) yield i;
}

/** What a recipe or source is to the network. What comes back in the same run is netted out. */
export function describe(catalogue: Catalogue, numberOf: (id: Id) => number, process: Process): ProcessOf {
  const { record } = process;
  const recipe = process.of === "recipe" ? process.record : null;
  const ins: [number, number][] = [];
  const outs: [number, number][] = [];
  const seen = new Set<Id>();
  let repeated = false;
  let consumes = false;
  for (const line of record.lines) {
    if (seen.has(line.item)) repeated = true;
    seen.add(line.item);
    if (line.role !== "output" && expected(line) > 0) consumes = true;
  }
  if (repeated)
    for (const [id, amount] of netYield(record.lines))
      (sign(amount) < 0 ? ins : outs).push([numberOf(id), Math.abs(toNumber(amount))]);
  else
    for (const line of record.lines) {
      const amount = expected(line);
      if (amount > 0) (line.role === "output" ? outs : ins).push([numberOf(line.item), amount]);
    }
  const uses = ins.length;
  const inside = new Set(ins.map(([i]) => i));
  const need = (id: Id) => {
    const i = numberOf(id);
    if (inside.has(i)) return;
    inside.add(i);
    ins.push([i, 0]);
  };
  for (const line of record.lines)
    if (line.role !== "output" && !(line.role === "ingredient" && line.max === 0)) need(line.item);
  if (recipe?.taughtBy) need(recipe.taughtBy);
  const worth = (currency: Id | null) =>
    currency === null ? 1 : (catalogue.records.currency.get(currency)?.worth ?? 1);
  const money = recipe
    ? recipe.fee * worth(recipe.feeCurrency)
    : (record as Source).price * worth((record as Source).currency);
  return {
    ins: { to: ins.map((e) => e[0]), qty: ins.map((e) => e[1]) },
    outs: { to: outs.map((e) => e[0]), qty: outs.map((e) => e[1]) },
    money,
    seconds: record.ticks / catalogue.pantry.ticksPerSecond,
    level: recipe?.level ?? 0,
    flags:
      (recipe ? 0 : SOURCE) |
      (recipe?.kind === "salvage" ? SALVAGE : 0) |
      (money > 0 ? 0 : !consumes ? FREE : uses === 0 && outs.length > 0 ? GAINS : 0),
  };
}

/** A process to be written anew. */
export interface Rewrite {
  readonly p: number;
  readonly of: ProcessOf | null;
}

/** Which records two catalogues differ in. */
export interface Touched {
  readonly items: ReadonlySet<Id>;
  readonly recipes: ReadonlySet<Id>;
  readonly sources: ReadonlySet<Id>;
}

/**
 * Gives new records their numbers, takes removed ones out, and tells which processes are to be written anew; `network`
 * itself
 * is only widened. Works out the processes by the new catalogue.
 */
export function follow(
  compiled: Compiled,
  next: Catalogue,
  touched: Touched,
): { rewrites: Rewrite[]; added: number[]; removed: number[] } {
  compiled.catalogue = next;
  const [added, removed]: [number[], number[]] = [[], []];
  for (const id of touched.items) {
    const there = compiled.numberOf(id);
    if (next.records.item.has(id) && there === undefined) added.push(compiled.addItem(id));
    else if (!next.records.item.has(id) && there !== undefined) {
      compiled.dropItem(there);
      removed.push(there);
    }
  }
  const rewrites: Rewrite[] = [];
  const numberOf = (id: Id) => compiled.numberOf(id) as number;
  const one = (of: "recipe" | "source", id: Id) => {
    const record: Recipe | Source | undefined = next.records[of].get(id);
    const used = record && !("status" in record && record.status === "retired") ? ({ of, record } as Process) : null;
    if (!used && compiled.processOf(of, id) === undefined) return;
    rewrites.push({ p: compiled.addProcess(of, id), of: used && describe(next, numberOf, used) });
  };
  for (const id of touched.recipes) one("recipe", id);
  for (const id of touched.sources) one("source", id);
  return { rewrites, added, removed };
}
