/** Making, taking apart and gathering with a bag: all that is needed is looked at first, and nothing is taken before. */
import { recordsOf } from "../catalogue/catalogue";
import type { Catalogue } from "../catalogue/catalogue";
import type { Index } from "../catalogue/persistent-map";
import type { Recipe, Source, Use } from "../kinds/index";
import type { Line } from "../notation/line";
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

/** Why a recipe can't be made now: everything that is missing. */
export function makingProblem(play: Play, recipe: Recipe): string | null {
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
  return missing.length ? `Missing: ${missing.join(", ")}.` : null;
}

/** Everything that goes in or is worn, each of it counted once: what is named first, then any items with tags. */
function missingFor({ catalogue, bag }: Play, { lines }: Recipe): string[] {
  const needed = new Map<Node, number>();
  for (const line of lines)
    if (line.role === "ingredient" || line.role === "tool")
      needed.set(nodeOf(line), (needed.get(nodeOf(line)) ?? 0) + line.max);
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

/** Takes so much of what a line names out of the bag: of any items with a tag those that lie there first. */
function takeOf({ catalogue }: Play, bag: Play["bag"], line: Line, amount: number): void {
  let rest = amount;
  for (const id of candidates(catalogue, bag, nodeOf(line))) {
    const n = Math.min(rest, bag.count(id));
    if (n > 0) bag.take(id, n);
    rest -= n;
  }
}

/** Makes something once, or takes it apart; stations are taken to be at hand. */
export function make(play: Play, recipe: Recipe): Outcome {
  const wrong = makingProblem(play, recipe);
  if (wrong) return no(wrong);
  const { catalogue } = play;
  const bag = play.bag.copy();
  const named = [...recipe.lines].sort((a, b) => Number(a.any !== undefined) - Number(b.any !== undefined));
  for (const line of named) {
    if (line.role === "ingredient" && play.chance(line.chance)) takeOf(play, bag, line, rolled(play, line));
    if (line.role === "tool" && line.uses !== null) {
      const [tool] = candidates(catalogue, bag, nodeOf(line));
      const gone = tool ? bag.wear(tool, 1, line.uses) : 0;
      if (gone > 0) play.spent.set(tool, (play.spent.get(tool) ?? 0) + gone);
    }
  }
  if (recipe.feeCurrency !== null) bag.pay(recipe.feeCurrency, recipe.fee);
  return given(play, bag, recipe.lines, recipe.ticks);
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
  return given(play, bag, source.lines, source.ticks);
}

function given(play: Play, bag: Play["bag"], lines: readonly Line[], ticks: number): Outcome {
  const { catalogue, user } = play;
  const box = boxOfLines(lines);
  const things = thingsIn(box, catalogue.records.table, user.level);
  const into = new Float64Array(things.length);
  roller(box, catalogue.records.table, user.level, things)(() => play.uniform(), into);
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
