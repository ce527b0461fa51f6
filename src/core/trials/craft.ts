/** Making, taking apart and gathering with a bag: runs are rolled. What is missing is looked at first; nothing is taken before. */
import type { Catalogue } from "../catalogue/catalogue";
import { around } from "../catalogue/surroundings";
import { rangeOf } from "../analysis/chances";
import type { Item, Recipe, Source } from "../kinds/index";
import { type ItemLine, type Line, line, outputsOf } from "../notation/line";
import { boxOfLines, splitThing, thingsIn } from "../network/box";
import { list, sayQuantity } from "../numbers/format";
import { toNumber } from "../numbers/fraction";
import { formatTicks } from "../numbers/ticks";
import { givenLines, kitMoney } from "../process/kit";
import { type Fuel, fuelOf, mayBurn } from "../process/burning";
import { containerOf } from "../process/containers";
import { linesFor } from "../process/maker";
import { makersOf } from "../process/makers";
import { membersOf } from "../process/members";
import { type Node, nodeOf, sayNode, tagOf } from "../process/node";
import { type RecipeRun, recipeRuns } from "../process/run";
import { runsInWorld } from "../process/wares";
import { isTaught } from "../process/teaching";
import type { Id } from "../schema/id";
import { roller } from "./chance-box";
import type { StepResult, Play } from "./play";

type Bag = Play["bag"];
const no = (message: string): StepResult => ({ ok: false, message });

/** Why a recipe can't be made now by any of its ways: everything that is missing for the first of them. */
export const makingProblem = (play: Play, recipe: Recipe): string | null => nextRun(play, recipe).problem;

interface NextRun {
  readonly run: RecipeRun;
  readonly allotted: Allotted;
  readonly problem: string | null;
}
/** The first run of a recipe that can be made now; without one the recipe's own, with what is missing for it. */
function nextRun(play: Play, recipe: Recipe): NextRun {
  let first: NextRun | null = null;
  for (const run of runsOf(play, recipe)) {
    const allotted = allot(play, run);
    const problem = problemOf(play, run, allotted);
    const next = { run, allotted, problem };
    if (!problem) return next;
    first ??= next;
  }
  return first as NextRun;
}
/** The runs of a recipe; of each way those first whose station is in the bag or named as at hand. */
function runsOf({ catalogue, bag, runs, stations }: Play, recipe: Recipe): readonly RecipeRun[] {
  let all = runs.get(recipe.id);
  if (!all) {
    all = recipeRuns(recipe, catalogue);
    runs.set(recipe.id, all);
  }
  if (all.length < 2) return all;
  const here = ({ station: { named } }: RecipeRun) =>
    Number(named !== null && (bag.count(named.id) > 0 || stations?.has(named.id) === true));
  return [...all].sort((a, b) => a.way - b.way || here(b) - here(a));
}

/** How many more of what was made last go in its batch, which takes no more time and heat. */
const roomIn = ({ going, tick }: Play, run: RecipeRun): number =>
  going?.run === run && going.until === tick ? going.room : 0;

function problemOf(play: Play, run: RecipeRun, { missing: nodes, left }: Allotted): string | null {
  const { catalogue, bag, user } = play;
  const { records, pantry } = catalogue;
  const { recipe, terms } = run;
  if (recipe.status === "retired") return `${recipe.name} is retired.`;
  if (terms.level > user.level) return `It needs level ${terms.level}; ${user.subject.name} has ${user.level}.`;
  const knows = play.taught.has(recipe.id) || (terms.teacher !== null && play.owned(terms.teacher) > 0);
  if (!knows && (terms.teacher !== null || isTaught(catalogue, recipe.id))) {
    const from = terms.teacher === null ? "" : ` from ${records.item.get(terms.teacher)?.name ?? terms.teacher}`;
    return `${user.subject.name} has not learned it${from}.`;
  }
  const away = stationsAway(play, run);
  if (away.length) return `${list(away)} ${away.length === 1 ? "is" : "are"} not available.`;
  const missing = [...nodes].map(([node, amount]) => `${sayQuantity(amount)} ${sayNode(around(catalogue), node)}`);
  if (terms.currency !== null) {
    const purse = bag.money.get(terms.currency) ?? 0;
    if (purse + 1e-9 < terms.price)
      missing.push(`${sayQuantity(terms.price - purse)} ${records.currency.get(terms.currency)?.name ?? ""}`);
  }
  const there = fuelsIn(play, run, left).reduce((sum, { fuel, count }) => sum + fuel.ticks * count, 0);
  const cold = heatFor(play, run) - there;
  if (cold > 0) missing.push(`fuel for another ${formatTicks(cold, pantry.ticksPerSecond)}`);
  return missing.length ? `Missing: ${missing.join(", ")}.` : null;
}

/** Stations of a run that are neither named as at hand nor in the bag. */
function stationsAway({ catalogue, bag, stations }: Play, { lines }: RecipeRun): string[] {
  if (stations === null) return [];
  const here = (id: Id) => stations.has(id) || bag.count(id) > 0;
  return lines
    .filter((l) => l.role === "station")
    .flatMap((l) => {
      const node = nodeOf(l);
      const tag = tagOf(node);
      const there = tag === null ? here(node) : membersOf(catalogue, tag).some(({ id }) => here(id));
      return there ? [] : sayNode(around(catalogue), node);
    });
}

/** What each line of a run gets of the bag, and what is missing. */
interface Allotted {
  readonly of: ReadonlyMap<Line, readonly { readonly item: Id; readonly amount: number }[]>;
  readonly missing: ReadonlyMap<Node, number>;
  /** How many of an item the lines leave in the bag. */
  readonly left: (item: Id) => number;
}

/** Everything counts once: for what is named first, then for any items with tags, those with the fewest choices first. */
function allot({ catalogue, bag }: Play, { lines }: RecipeRun): Allotted {
  const asked = lines
    .filter(({ role }) => role === "ingredient" || role === "tool")
    .map((each) => ({ each, items: candidates(catalogue, bag, nodeOf(each)) }))
    .sort((a, b) => Number(!!a.each.any) - Number(!!b.each.any) || (a.each.any ? a.items.length - b.items.length : 0));
  const rest = new Map<Id, number>();
  const left = (item: Id): number => rest.get(item) ?? bag.count(item);
  const of = new Map<Line, { item: Id; amount: number }[]>();
  const missing = new Map<Node, number>();
  for (const { each, items } of asked) {
    let more = each.max;
    const got: { item: Id; amount: number }[] = [];
    for (const item of items) {
      const amount = Math.min(more, left(item));
      if (amount <= 0) continue;
      rest.set(item, left(item) - amount);
      got.push({ item, amount });
      more -= amount;
    }
    of.set(each, got);
    if (more > 1e-9) missing.set(nodeOf(each), (missing.get(nodeOf(each)) ?? 0) + more);
  }
  return { of, missing, left };
}

/** Items of the bag that will do, in the order in which they lie there. */
function candidates(catalogue: Catalogue, bag: Bag, node: Node): Id[] {
  const tag = tagOf(node);
  if (tag === null) return [node];
  const there = new Set(bag.stacks.map((s) => s.item));
  return [...there].filter((id) => {
    const item = catalogue.records.item.get(id);
    return item?.status !== "retired" && item?.tags.includes(tag);
  });
}

/** Heat that a run must be given: what still burns at its sort of station, and what its batch has, is there already. */
const heatFor = (play: Play, run: RecipeRun): number =>
  roomIn(play, run) > 0 ? 0 : Math.max(0, run.terms.heat - (play.heat.get(run.station.fuel) ?? 0));

interface FuelThere {
  readonly item: Item;
  readonly fuel: Fuel;
  readonly count: number;
}
/** What may burn for a run and is not needed for anything else: what burns shortest first. */
function fuelsIn({ catalogue, bag }: Play, run: RecipeRun, left: (item: Id) => number): FuelThere[] {
  if (run.terms.heat <= 0) return [];
  return [...new Set(bag.stacks.map((s) => s.item))]
    .flatMap((id): FuelThere[] => {
      const item = catalogue.records.item.get(id);
      const fuel = item && mayBurn(item, run.station.fuel) ? fuelOf(catalogue, item) : null;
      const count = Math.floor(left(id) + 1e-9);
      return item && fuel && count > 0 ? [{ item, fuel, count }] : [];
    })
    .sort((a, b) => a.fuel.ticks - b.fuel.ticks || (a.item.id < b.item.id ? -1 : 1));
}

/** Burns as much as a run takes. @returns what goes on burning, and what is left of what was burned */
function burn(play: Play, bag: Bag, run: RecipeRun, { left }: Allotted): { rest: number; ashes: ItemLine[] } {
  const before = play.heat.get(run.station.fuel) ?? 0;
  const ashes: ItemLine[] = [];
  let more = heatFor(play, run);
  if (roomIn(play, run) > 0) return { rest: before, ashes };
  let rest = Math.max(0, before - run.terms.heat);
  for (const { item, fuel, count } of more > 0 ? fuelsIn(play, run, left) : []) {
    const n = Math.min(Math.ceil(more / fuel.ticks), count);
    if (n <= 0) break;
    bag.take(item.id, n);
    more -= n * fuel.ticks;
    if (fuel.ash !== null && fuel.ashes > 0) ashes.push(line("output", fuel.ash, n * fuel.ashes));
  }
  rest += Math.max(0, -more);
  return { rest, ashes };
}

/** Makes something once, or takes it apart. */
export function make(play: Play, recipe: Recipe): StepResult {
  const { run, allotted, problem } = nextRun(play, recipe);
  if (problem) return no(problem);
  const { catalogue } = play;
  const { terms, station } = run;
  const bag = play.bag.copy();
  const back: ItemLine[] = [];
  const gone = (of: Line, item: Id, amount: number) => {
    const container = containerOf(catalogue, of, item);
    if (container !== null && amount > 0) back.push(line("output", container, amount));
  };
  for (const [of, got] of allotted.of) {
    if (of.role === "ingredient") {
      if (!play.chance(of.chance)) continue;
      let more = rolled(play, of);
      for (const { item, amount } of got) {
        const n = Math.min(more, amount);
        if (n <= 0) break;
        bag.take(item, n);
        gone(of, item, n);
        more -= n;
      }
    } else if (of.uses !== null) {
      const [tool] = got;
      const worn = tool ? bag.wear(tool.item, rolled(play, of), of.uses) : 0;
      if (!tool || worn <= 0) continue;
      play.spent.set(tool.item, (play.spent.get(tool.item) ?? 0) + worn);
      gone(of, tool.item, worn);
    }
  }
  if (terms.currency !== null) bag.pay(terms.currency, terms.price);
  const { rest, ashes } = burn(play, bag, run, allotted);
  const room = roomIn(play, run);
  const more = station.extra > 0 && play.chance(station.extra) ? outputsOf(run.lines).filter((l) => !l.draw) : [];
  const lines = [...run.lines, ...more, ...back, ...ashes];
  const outcome = given(play, bag, { lines, tables: recipe.tables }, room > 0 ? 0 : terms.ticks);
  if (!outcome.ok) return outcome;
  play.heat.set(station.fuel, rest);
  play.going = { run, until: play.tick, room: (room > 0 ? room : terms.batch) - 1 };
  return outcome;
}

/** One run of a source. */
export function run(play: Play, source: Source): StepResult {
  const { user, ran } = play;
  if ((source.level ?? 0) > user.level)
    return no(`${source.name} needs level ${source.level}; ${user.subject.name} has ${user.level}.`);
  const [times, most] = [ran.get(source.id) ?? 0, runsInWorld(source)];
  if (most !== null && times >= most)
    return no(`${source.name} can happen only ${most === 1 ? "once" : `${most} times`} in a world.`);
  const bag = play.bag.copy();
  if (source.price > 0 && source.currency !== null && !bag.pay(source.currency, source.price)) {
    const { name } = play.catalogue.records.currency.get(source.currency) ?? { name: "" };
    return no(
      `It costs ${sayQuantity(source.price)} ${name}, but there is ${sayQuantity(bag.money.get(source.currency) ?? 0)}.`,
    );
  }
  for (const [id, n] of kitMoney(source, play.catalogue)) {
    const full = bag.purseProblem(id, n);
    if (full !== null) return no(full);
    bag.earn(id, n);
  }
  const outcome = given(play, bag, { ...source, lines: givenLines(source, play.catalogue) }, source.ticks);
  if (outcome.ok) ran.set(source.id, times + 1);
  return outcome;
}

/** Makes so much of an item by the one recipe that makes it. */
export function makeItem(play: Play, item: Id, amount: number): StepResult {
  const { records } = play.catalogue;
  const makers = makersOf(play.catalogue, item);
  play.budget.take(records.recipe.size);
  const name = records.item.get(item)?.name ?? "";
  if (!makers.length) return no(`No recipe makes ${name}.`);
  if (makers.length > 1)
    return no(`${list(makers.map((r) => r.name))} make ${name}. Enter the recipe, such as make ${makers[0].name}.`);
  const before = play.bag.count(item);
  for (let made = 0; made + 1e-9 < amount; made = play.bag.count(item) - before) {
    play.budget.take(1);
    const outcome = make(play, makers[0]);
    if (!outcome.ok)
      return no(made > 0 ? `${outcome.message} (${sayQuantity(made)} of ${sayQuantity(amount)})` : outcome.message);
    if (play.bag.count(item) - before <= made && makers[0].lines.every((l) => l.chance >= 1 && !l.draw))
      return no(`${makers[0].name} makes no more ${name} than it takes.`);
  }
  return { ok: true };
}

function given(play: Play, bag: Bag, { lines, tables }: Pick<Recipe, "lines" | "tables">, ticks: number): StepResult {
  const { catalogue, user } = play;
  const box = boxOfLines(
    linesFor(lines, (stat) => user.stat(stat)),
    tables,
  );
  const things = thingsIn(box, catalogue.records.table, user.level);
  const into = new Float64Array(things.length);
  play.budget.take(things.length + lines.length);
  roller(box, catalogue.records.table, user.level, things, play.budget)(() => play.uniform(), into);
  for (const [k, thing] of things.entries()) {
    const { kind, id } = splitThing(thing);
    if (into[k] === 0) continue;
    if (kind === "currency") {
      const full = bag.purseProblem(id, into[k]);
      if (full !== null) return no(full);
      bag.earn(id, into[k]);
      continue;
    }
    const put = bag.put(id, into[k], play.wornOf(id));
    if (put.refused > 0)
      return no(`${sayQuantity(put.refused)} ${catalogue.records.item.get(id)?.name ?? ""} didn't fit. ${put.message}`);
  }
  play.bag.become(bag);
  play.advance(play.tick + ticks);
  return { ok: true };
}

/** How much a line takes: each amount of its range is equally likely. */
function rolled(play: Play, { min, max }: Line): number {
  if (min === max) return max;
  const { step, count } = rangeOf(min, max);
  return Math.min(max, min + toNumber(step) * Math.floor(play.uniform() * count));
}
