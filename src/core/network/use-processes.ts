/** What uses are to the network: an item goes, and what it gives, draws or leaves comes. */
import type { Catalogue } from "../catalogue/catalogue";
import { itemAmount } from "../catalogue/item-number";
import { itemsBelow } from "../catalogue/types";
import { type HeldUse, usesOf } from "../catalogue/uses";
import type { Item, Kind, Use } from "../kinds/index";
import { line } from "../notation/line";
import { ownersOf, taughtRecipes } from "../process/teaching";
import type { Id } from "../schema/id";
import { aliasOf } from "./alias";
import { levelsOf, splitThing } from "./box";
import { tableMeans } from "./table-means";
import type { Flow, ProcessSpec } from "./process";

/** Most levels at which a use is a process of its own. */
const MOST_LEVELS = 12;

/**
 * One process for each use of an item that gives, draws or leaves something, in the order of its uses; where tables give
 * other things from some level on, one for each such level.
 */
export function useProcesses(item: Item, catalogue: Catalogue): readonly ProcessSpec[] {
  if (item.status === "retired" || !catalogue.records.use.size) return [];
  return usesOf(catalogue, item).flatMap((use) => {
    if (use.leaves === null && !use.effects.some(({ does }) => does.is === "draw" || does.is === "give")) return [];
    const inputs = inputsOf(catalogue, item, use);
    const { price, currency } = chargeOf(catalogue, item, use);
    return levelsIn(catalogue, use).flatMap((level): ProcessSpec[] => {
      const outputs = outputsOf(catalogue, item, use, level);
      if (!outputs.length) return [];
      return [
        {
          sort: "use",
          lines: [...inputs, ...outputs],
          needs: [],
          price,
          currency,
          ticks: use.windup,
          level,
          as: { kind: "use", record: calledOf(use.use, item) },
        },
      ];
    });
  });
}

/** What a use charges on average: in the currency that it names first, others by what they are worth. */
function chargeOf(catalogue: Catalogue, item: Item, use: HeldUse): Pick<ProcessSpec, "price" | "currency"> {
  const worth = (id: Id) => catalogue.records.currency.get(id)?.worth ?? 1;
  let currency: Id | null = null;
  let price = 0;
  for (const { does, amount, chance } of use.effects) {
    if (does.is !== "charge") continue;
    currency ??= does.currency;
    const n = Math.max(0, itemAmount(catalogue, item, amount) ?? 0) * chance;
    price += does.currency === currency ? n : (n * worth(does.currency)) / worth(currency);
  }
  return { price, currency };
}

function levelsIn(catalogue: Catalogue, use: HeldUse): number[] {
  const levels = new Set([use.level]);
  for (const { does } of use.effects) {
    const table = does.is === "draw" ? catalogue.records.table.get(does.table) : undefined;
    for (const level of table ? levelsOf(table, catalogue.records.table, use.level, MOST_LEVELS) : [])
      levels.add(level);
  }
  return [...levels].sort((a, b) => a - b).slice(0, MOST_LEVELS);
}

function inputsOf(catalogue: Catalogue, item: Item, use: HeldUse): Flow[] {
  const own =
    use.fate === "used up"
      ? line("ingredient", item.id, use.count)
      : line("tool", item.id, 1, 1, 1, use.fate === "worn" ? use.count : null);
  const taken = use.effects.flatMap(({ does, amount, chance }) => {
    const n = does.is === "take" ? itemAmount(catalogue, item, amount) : null;
    return does.is === "take" && n !== null && n > 0 ? [line("ingredient", does.item, n, n, chance)] : [];
  });
  return [own, ...taken];
}

function outputsOf(catalogue: Catalogue, item: Item, use: HeldUse, level: number): Flow[] {
  let drawn = 0;
  const outputs = use.effects.flatMap(({ does, amount, chance }): Flow[] => {
    const n = does.is === "draw" || does.is === "give" ? itemAmount(catalogue, item, amount) : null;
    if (n === null || n <= 0) return [];
    if (does.is === "give") return [line("output", does.item, n, n, chance)];
    const table = does.is === "draw" ? catalogue.records.table.get(does.table) : undefined;
    if (!table) return [];
    return [...tableMeans(catalogue).of(table, level)].flatMap(([thing, mean]) => {
      const { kind, id } = splitThing(thing);
      return kind === "item" && mean > 0 ? [average(id, mean * n * chance, ++drawn)] : [];
    });
  });
  const share = use.fate === "worn" ? 1 / use.count : 1;
  const left =
    use.leaves === null || use.fate === "kept"
      ? []
      : [line("output", use.leaves, use.fate === "used up" ? use.count : 1, undefined, share)];
  return [...outputs, ...left].filter((l) => l.min > 0);
}

/** A use of an item under the name of both: "Open Wreck crate". */
const calledOf = aliasOf((use: Use, item: Item) => `${use.name} ${item.name}`);

/** Largest denominator of a mean that is taken to be a fraction, and most draws that it is written as. */
const [FINEST, MOST_DRAWS] = [100_000, 1_000];

/**
 * An amount that comes on average, as exactly as it can be written: what is rounded up could seem to be a gain, and what is
 * rounded down makes rounds of billions of runs. As so many draws of one unit each where it is a fraction.
 */
export function average(item: Id, mean: number, group: number): Flow {
  const found = fractionNear(mean, FINEST);
  if (!found) return line("output", item, Number((mean * (1 - 1e-13)).toPrecision(12)));
  const [over, under] = found;
  if (under === 1) return line("output", item, over);
  const [times, amount] = over <= MOST_DRAWS ? [over, 1] : [1, over];
  return { ...line("output", item, amount), draw: { group, times, weight: 1, of: under } };
}

/** The simplest fraction that a number is but for rounding, by continued fractions; null where there is none. */
function fractionNear(value: number, most: number): readonly [number, number] | null {
  let [a, b, c, d] = [0, 1, 1, 0];
  let rest = value;
  for (let n = 0; n < 40; n++) {
    const whole = Math.floor(rest);
    [a, b, c, d] = [c, d, whole * c + a, whole * d + b];
    if (d > most) return null;
    if (Math.abs(c / d - value) <= 1e-13 * value) return c > 0 ? [c, d] : null;
    rest = 1 / (rest - whole);
  }
  return null;
}

/** Kinds on which the processes of uses hang, beside items and uses. */
const BESIDE: readonly Kind[] = ["table", "constant", "stat", "field"];

/** Items whose uses may do something else. */
export function* besideUses(
  before: Catalogue,
  next: Catalogue,
  touched: ReadonlyMap<Kind, ReadonlySet<Id>>,
): Generator<Id> {
  const uses = new Set<Use>();
  for (const catalogue of [before, next])
    for (const id of touched.get("use") ?? []) {
      const use = catalogue.records.use.get(id);
      if (use) uses.add(use);
    }
  if (BESIDE.some((kind) => touched.has(kind)))
    for (const use of next.records.use.values())
      if (use.effects.some(({ does }) => does.is === "draw" || does.is === "give" || does.is === "take")) uses.add(use);
  for (const use of uses) yield* ownersOf(next, use);
  const types = touched.get("type");
  if (types && (before.records.use.size || next.records.use.size)) yield* itemsBelow(next, types);
}

/** Recipes that uses teach now or taught before. */
export function* besideTaught(
  before: Catalogue,
  next: Catalogue,
  touched: ReadonlyMap<Kind, ReadonlySet<Id>>,
): Generator<Id> {
  if (!before.records.use.size && !next.records.use.size) return;
  for (const catalogue of [before, next]) {
    for (const id of touched.get("use") ?? [])
      for (const { does } of catalogue.records.use.get(id)?.effects ?? [])
        if (does.is === "teach" && next.records.recipe.has(does.recipe)) yield does.recipe;
    // Another item of a type, or one that retires, may teach what its type's uses do.
    if (touched.has("item") || touched.has("type"))
      for (const id of taughtRecipes(catalogue)) if (next.records.recipe.has(id)) yield id;
  }
}
