/** Making, taking apart and gathering with a bag: all that is needed is looked at first, and nothing is taken before. */
import { recordsOf } from "../catalogue/catalogue";
import type { Catalogue } from "../catalogue/catalogue";
import type { Index } from "../catalogue/persistent-map";
import { held } from "../catalogue/inheritance";
import type { Item, Recipe, Source, Use } from "../kinds/index";
import { waysOf } from "../kinds/ways";
import { type ItemLine, type Line, line } from "../notation/line";
import { formatTicks } from "../numbers/ticks";
import { linesFor } from "../network/maker";
import { vesselOf } from "../network/traits";
import { sayQuantity } from "../numbers/format";
import type { Id } from "../schema/id";
import { type Node, nodeOf, sayNode, tagOf } from "../network/node";
import { around } from "../catalogue/surroundings";
import { boxOfLines, splitThing, thingsIn } from "../network/box";
import { roller } from "./chance-box";
import type { Outcome, Play } from "./play";

const no = (says: string): Outcome => ({ ok: false, says });

/** Recipes that uses teach. */
const TAUGHT: Index<Use, ReadonlySet<Id>> = {
  build: (uses) =>
    new Set(
      [...uses.values()].flatMap((u) => u.effects.flatMap(({ does }) => (does.is === "teach" ? [does.recipe] : []))),
    ),
  follow: () => null,
};
export const isTaught = (catalogue: Catalogue, recipe: Id): boolean =>
  recordsOf(catalogue, "use").index(TAUGHT).has(recipe);

/** Why a recipe can't be made now by any of its ways: everything that is missing for the first of them. */
export const makingProblem = (play: Play, recipe: Recipe): string | null => wayNow(play, recipe).problem;

/** The first way of a recipe that can be gone now; without one the recipe itself, with what is missing. */
function wayNow(
  play: Play,
  recipe: Recipe,
): { readonly way: Recipe; readonly at: number; readonly problem: string | null } {
  let first: string | null = null;
  for (const [at, each] of waysOf(recipe).entries()) {
    const way = at ? { ...recipe, ...each } : recipe;
    const problem = problemOf(play, way, roomIn(play, recipe, at));
    if (!problem) return { way, at, problem };
    first ??= problem;
  }
  return { way: recipe, at: 0, problem: first };
}

/** How many more of what was made last go in its batch, which takes no more time and heat. */
const roomIn = ({ going, tick }: Play, recipe: Recipe, way: number): number =>
  going?.recipe === recipe.id && going.way === way && going.until === tick ? going.room : 0;

function problemOf(play: Play, recipe: Recipe, room: number): string | null {
  const { catalogue, bag, user } = play;
  const name = (id: Id) => catalogue.records.item.get(id)?.name ?? id;
  if (recipe.status === "retired") return `${recipe.name} is retired.`;
  if ((recipe.level ?? 0) > user.level)
    return `It needs level ${recipe.level}; ${user.subject.name} has ${user.level}.`;
  const knows = play.taught.has(recipe.id) || (recipe.taughtBy !== null && play.owned(recipe.taughtBy) > 0);
  if (!knows && (recipe.taughtBy !== null || isTaught(catalogue, recipe.id)))
    return `${user.subject.name} has not learned it${recipe.taughtBy ? ` from ${name(recipe.taughtBy)}` : ""}.`;
  const missing = missingFor(play, recipe);
  const fee = recipe.feeCurrency === null ? 0 : recipe.fee;
  const purse = recipe.feeCurrency === null ? 0 : (bag.money.get(recipe.feeCurrency) ?? 0);
  if (purse + 1e-9 < fee)
    missing.push(`${sayQuantity(fee - purse)} ${catalogue.records.currency.get(recipe.feeCurrency as Id)?.name ?? ""}`);
  const cold = (room > 0 ? 0 : recipe.heat) - play.heat - burningIn(play).reduce((sum, { ticks }) => sum + ticks, 0);
  if (cold > 0) missing.push(`something that burns for ${formatTicks(cold, catalogue.pantry.ticksPerSecond)} more`);
  return missing.length ? `Missing: ${missing.join(", ")}.` : null;
}

/** What lies in the bag and burns, with how long all of it does: what burns shortest first. */
function burningIn({ catalogue, bag }: Play): { readonly item: Item; readonly one: number; readonly ticks: number }[] {
  return [...new Set(bag.stacks.map((s) => s.item))]
    .flatMap((id) => {
      const item = catalogue.records.item.get(id);
      const one = item ? (held(catalogue, item, "burns").value ?? 0) : 0;
      return item && one > 0 ? [{ item, one, ticks: one * Math.floor(bag.count(id)) }] : [];
    })
    .sort((a, b) => a.one - b.one || (a.item.id < b.item.id ? -1 : 1));
}

/** Burns as much as it takes; what a fuel gives beyond that is left for the next time. @returns what is left of it */
function burn(play: Play, bag: Play["bag"], heat: number): { readonly rest: number; readonly ashes: ItemLine[] } {
  let rest = play.heat - heat;
  const ashes: ItemLine[] = [];
  for (const { item, one, ticks } of rest < 0 ? burningIn(play) : []) {
    const n = Math.min(Math.ceil(-rest / one), ticks / one);
    if (n <= 0) continue;
    bag.take(item.id, n);
    rest += n * one;
    const ash = held(play.catalogue, item, "ash").value;
    if (ash !== null) ashes.push(line("output", ash, n));
  }
  return { rest: Math.max(0, rest), ashes };
}

/** Everything that goes in or is worn, each of it counted once: what is named first, then any items with tags. */
function missingFor({ catalogue, bag }: Play, { lines }: Recipe): string[] {
  const needed = new Map<Node, number>();
  for (const each of lines)
    if (each.role === "ingredient" || each.role === "tool")
      needed.set(nodeOf(each), (needed.get(nodeOf(each)) ?? 0) + each.max);
  const left = new Map<Id, number>();
  const missing = new Map<Node, number>();
  for (const [node, amount] of [...needed].sort(([a], [b]) => Number(tagOf(a) !== null) - Number(tagOf(b) !== null))) {
    let rest = amount;
    for (const id of candidates(catalogue, bag, node)) {
      const there = left.get(id) ?? bag.count(id);
      left.set(id, Math.max(0, there - rest));
      rest -= Math.min(rest, there);
    }
    if (rest > 1e-9) missing.set(node, rest);
  }
  return [...missing].map(([node, amount]) => `${sayQuantity(amount)} ${sayNode(around(catalogue), node)}`);
}

/** Items of the bag that will do, in the order in which they lie there. */
function candidates(catalogue: Catalogue, bag: Play["bag"], node: Node): Id[] {
  const tag = tagOf(node);
  if (tag === null) return [node];
  const there = new Set(bag.stacks.map((s) => s.item));
  return [...there].filter((id) => {
    const item = catalogue.records.item.get(id);
    return item?.status !== "retired" && item?.tags.includes(tag);
  });
}

/**
 * Takes so much of what a line names out of the bag: of any items with a tag those that lie there first.
 * @returns what they are in, which comes back
 */
function takeOf({ catalogue }: Play, bag: Play["bag"], of: Line, amount: number): ItemLine[] {
  let rest = amount;
  const back: ItemLine[] = [];
  for (const id of candidates(catalogue, bag, nodeOf(of))) {
    const n = Math.min(rest, bag.count(id));
    if (n <= 0) continue;
    bag.take(id, n);
    rest -= n;
    const vessel = of.whole ? null : vesselOf(catalogue, id);
    if (vessel !== null) back.push(line("output", vessel, n));
  }
  return back;
}

/** Makes something once, or takes it apart; stations are taken to be at hand. */
export function make(play: Play, recipe: Recipe): Outcome {
  const { way, at, problem } = wayNow(play, recipe);
  if (problem) return no(problem);
  const room = roomIn(play, recipe, at);
  const { catalogue } = play;
  const bag = play.bag.copy();
  const back: ItemLine[] = [];
  const named = [...way.lines].sort((a, b) => Number(a.any !== undefined) - Number(b.any !== undefined));
  for (const each of named) {
    if (each.role === "ingredient" && play.chance(each.chance))
      back.push(...takeOf(play, bag, each, rolled(play, each)));
    if (each.role === "tool" && each.uses !== null) {
      const [tool] = candidates(catalogue, bag, nodeOf(each));
      const gone = tool ? bag.wear(tool, 1, each.uses) : 0;
      if (gone <= 0) continue;
      play.spent.set(tool, (play.spent.get(tool) ?? 0) + gone);
      const vessel = vesselOf(catalogue, tool);
      if (vessel !== null) back.push(line("output", vessel, gone));
    }
  }
  if (way.feeCurrency !== null) bag.pay(way.feeCurrency, way.fee);
  const { rest, ashes } = burn(play, bag, room > 0 ? 0 : way.heat);
  const ticks = room > 0 ? 0 : way.ticks;
  const outcome = given(play, bag, { lines: [...way.lines, ...back, ...ashes], tables: way.tables }, ticks);
  if (!outcome.ok) return outcome;
  play.heat = rest;
  play.going = { recipe: recipe.id, way: at, until: play.tick, room: (room > 0 ? room : (way.batch ?? 1)) - 1 };
  return outcome;
}

/** One run of a source. */
export function run(play: Play, source: Source): Outcome {
  const bag = play.bag.copy();
  if (source.price > 0 && source.currency !== null && !bag.pay(source.currency, source.price)) {
    const { name } = play.catalogue.records.currency.get(source.currency) ?? { name: "" };
    return no(
      `It costs ${sayQuantity(source.price)} ${name}; there is ${sayQuantity(bag.money.get(source.currency) ?? 0)}.`,
    );
  }
  return given(play, bag, source, source.ticks);
}

function given(
  play: Play,
  bag: Play["bag"],
  { lines, tables }: Pick<Recipe, "lines" | "tables">,
  ticks: number,
): Outcome {
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
    const { id } = splitThing(thing);
    if (into[k] === 0) continue;
    const put = bag.put(id, into[k], user.worn.filter((w) => w.id === id).length);
    if (put.refused > 0)
      return no(`${sayQuantity(put.refused)} ${catalogue.records.item.get(id)?.name ?? ""} would not fit. ${put.says}`);
  }
  play.bag.become(bag);
  play.advance(play.tick + ticks);
  return { ok: true };
}
const rolled = (play: Play, { min, max }: Line): number =>
  min === max ? max : min + Math.floor(play.uniform() * (max - min + 1));
