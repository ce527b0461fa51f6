/** From a catalogue to its recipe network, and from a changed catalogue to the processes that must be written anew. */
import { type Catalogue, held } from "../catalogue/catalogue";
import type { Id, Recipe, Source } from "../catalogue/records";
import { sign, toNumber } from "../numbers/fraction";
import { expected, netYield, type Process } from "./expected";
import { FREE, GAINS, type Network, NetworkBuilder, type ProcessOf, renumbered, SALVAGE, SOURCE } from "./network";
import { Reach } from "../analysis/reach";

/** A network whose items and processes are records. Numbers stay with their records while it is open. */
export interface Compiled {
  catalogue: Catalogue;
  readonly network: Network;
  /** Per number the item; null: taken out. */
  readonly items: (Id | null)[];
  readonly index: Map<Id, number>;
  /** Per number the recipe or source; null: taken out or retired. */
  readonly processes: (Process | null)[];
  /** Per item its own level, and what a player gets for one (0: it can't be sold). */
  levels: Int16Array;
  sells: Float64Array;
  /** Currencies by their number; the first is the one that value units stand for. */
  currencies: readonly (Id | null)[];
  readonly processIndex: { readonly recipe: Map<Id, number>; readonly source: Map<Id, number> };
}

/** The recipe or source behind a process that is in use. */
export function processAt(compiled: Compiled, p: number): Process {
  const process = compiled.processes[p];
  if (!process) throw new RangeError(`Process ${p} is not in use.`);
  return process;
}

/** Which of two processes counts where both do equally well: a matter of their records, not of their numbers. */
export const before = (compiled: Compiled, p: number, q: number): boolean => processAt(compiled, p).record.id < processAt(compiled, q).record.id;

/**
 * Compiles a catalogue. Retired recipes are left out. Numbers follow the order in which things come within reach, so that
 * what is used together stands together. Linear in the number of lines.
 */
export function compile(catalogue: Catalogue): Compiled {
  const given = [...catalogue.item.keys()];
  const place = new Map(given.map((id, i) => [id, i]));
  const listed: Process[] = [];
  for (const record of catalogue.source.values()) listed.push({ of: "source", record });
  for (const record of catalogue.recipe.values()) if (record.status !== "retired") listed.push({ of: "recipe", record });
  const builder = new NetworkBuilder(given.length);
  for (const process of listed) builder.add(describe(catalogue, place, process));
  const plain = builder.build();
  const order = new Reach(plain).order();
  const network = renumbered(plain, order.items, order.processes);
  const items = Array.from(order.items, (i) => given[i]);
  const processes = Array.from(order.processes, (p) => listed[p]);
  const processIndex = { recipe: new Map<Id, number>(), source: new Map<Id, number>() };
  processes.forEach(({ of, record }, p) => { processIndex[of].set(record.id, p); });
  const compiled: Compiled = { catalogue, network, items, index: new Map(items.map((id, i) => [id, i])), processes, processIndex, levels: new Int16Array(0), sells: new Float64Array(0), currencies: currenciesOf(catalogue) };
  readItems(compiled);
  return compiled;
}

/** The currency that is worth one value unit stands for the unit itself; null where there is none. */
function currenciesOf({ currency }: Catalogue): (Id | null)[] {
  const all = [...currency.values()];
  const unit = all.find((c) => c.worth === 1);
  return [unit?.id ?? null, ...all.filter((c) => c !== unit).map((c) => c.id)];
}

/** Number of a currency; null and what does not exist count as value units. */
export const currencyAt = (compiled: Compiled, currency: Id | null): number => Math.max(0, currency === null ? 0 : compiled.currencies.indexOf(currency));

/** Reads levels and sell prices anew. @returns items that have others than before */
export function readItems(compiled: Compiled, only?: Iterable<number>): number[] {
  const { catalogue, items, network } = compiled;
  if (compiled.levels.length < network.items) {
    const size = Math.ceil(network.items * 1.25);
    const [levels, sells] = [new Int16Array(size), new Float64Array(size)];
    levels.set(compiled.levels);
    sells.set(compiled.sells);
    [compiled.levels, compiled.sells] = [levels, sells];
  }
  const changed: number[] = [];
  for (const i of only ?? items.keys()) {
    const id = items[i];
    const item = id === null ? undefined : catalogue.item.get(id);
    const level = item ? (held(catalogue, item, "level").value ?? 0) : 0;
    const sell = item && item.status !== "retired" ? (held(catalogue, item, "sell").value ?? 0) : 0;
    if (compiled.levels[i] === level && compiled.sells[i] === sell) continue;
    compiled.levels[i] = level;
    compiled.sells[i] = sell;
    changed.push(i);
  }
  return changed;
}

/** What a recipe or source is to the network. What comes back in the same run is netted out. */
export function describe(catalogue: Catalogue, index: ReadonlyMap<Id, number>, process: Process): ProcessOf {
  const { record } = process;
  const recipe = process.of === "recipe" ? process.record : null;
  const ins: [number, number][] = [];
  const outs: [number, number][] = [];
  const at = (id: Id) => index.get(id) as number;
  const seen = new Set<Id>();
  let repeated = false;
  let consumes = false;
  for (const line of record.lines) {
    if (seen.has(line.item)) repeated = true;
    seen.add(line.item);
    if (line.role !== "output" && expected(line) > 0) consumes = true;
  }
  if (repeated) for (const [id, amount] of netYield(record.lines)) (sign(amount) < 0 ? ins : outs).push([at(id), Math.abs(toNumber(amount))]);
  else
    for (const line of record.lines) {
      const amount = expected(line);
      if (amount > 0) (line.role === "output" ? outs : ins).push([at(line.item), amount]);
    }
  const uses = ins.length;
  const inside = new Set(ins.map(([i]) => i));
  const need = (id: Id) => {
    const i = at(id);
    if (inside.has(i)) return;
    inside.add(i);
    ins.push([i, 0]);
  };
  for (const line of record.lines) if (line.role !== "output" && !(line.role === "ingredient" && line.max === 0)) need(line.item);
  if (recipe?.taughtBy) need(recipe.taughtBy);
  const worth = (currency: Id | null) => (currency === null ? 1 : (catalogue.currency.get(currency)?.worth ?? 1));
  const money = recipe ? recipe.fee * worth(recipe.feeCurrency) : (record as Source).price * worth((record as Source).currency);
  return {
    ins: { to: ins.map((e) => e[0]), qty: ins.map((e) => e[1]) },
    outs: { to: outs.map((e) => e[0]), qty: outs.map((e) => e[1]) },
    money,
    seconds: record.ticks / catalogue.pantry.ticksPerSecond,
    level: recipe?.level ?? 0,
    flags: (recipe ? 0 : SOURCE) | (recipe?.kind === "salvage" ? SALVAGE : 0) | (money > 0 ? 0 : !consumes ? FREE : uses === 0 && outs.length > 0 ? GAINS : 0),
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
 * Gives new records their numbers, takes removed ones out, and tells which processes are to be written anew; `network` itself
 * is only widened. Works out the processes by the new catalogue.
 */
export function follow(compiled: Compiled, next: Catalogue, touched: Touched): { rewrites: Rewrite[]; added: number[]; removed: number[] } {
  const { network, items, index, processes, processIndex } = compiled;
  compiled.catalogue = next;
  const [added, removed]: [number[], number[]] = [[], []];
  for (const id of touched.items) {
    const there = index.get(id);
    if (next.item.has(id) && there === undefined) {
      const i = network.addItem();
      items[i] = id;
      index.set(id, i);
      added.push(i);
    } else if (!next.item.has(id) && there !== undefined) {
      items[there] = null;
      index.delete(id);
      removed.push(there);
    }
  }
  const rewrites: Rewrite[] = [];
  const one = (of: "recipe" | "source", id: Id) => {
    const record: Recipe | Source | undefined = next[of].get(id);
    const used = record && !("status" in record && record.status === "retired") ? ({ of, record } as Process) : null;
    let p = processIndex[of].get(id);
    if (p === undefined) {
      if (!used) return;
      p = network.addProcess();
      processIndex[of].set(id, p);
    }
    processes[p] = used;
    rewrites.push({ p, of: used && describe(next, index, used) });
  };
  for (const id of touched.recipes) one("recipe", id);
  for (const id of touched.sources) one("source", id);
  return { rewrites, added, removed };
}
