/** Making, taking apart and gathering with a bag: all that is needed is looked at first, and nothing is taken before. */
import { recordsOf } from "../catalogue/catalogue";
import type { Catalogue } from "../catalogue/catalogue";
import type { Index } from "../catalogue/persistent-map";
import type { Recipe, Source, Use } from "../kinds/index";
import type { Line } from "../notation/line";
import { sayQuantity } from "../numbers/format";
import type { Id } from "../schema/id";
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
  const needed = new Map<Id, number>();
  for (const { role, item, max } of recipe.lines)
    if (role === "ingredient" || role === "tool") needed.set(item, (needed.get(item) ?? 0) + max);
  const missing = [...needed].flatMap(([item, amount]) => {
    const there = bag.count(item);
    return there + 1e-9 < amount ? [`${sayQuantity(amount - there)} ${name(item)}`] : [];
  });
  const fee = recipe.feeCurrency === null ? 0 : recipe.fee;
  const purse = recipe.feeCurrency === null ? 0 : (bag.money.get(recipe.feeCurrency) ?? 0);
  if (purse + 1e-9 < fee)
    missing.push(`${sayQuantity(fee - purse)} ${catalogue.records.currency.get(recipe.feeCurrency as Id)?.name ?? ""}`);
  return missing.length ? `Missing: ${missing.join(", ")}.` : null;
}

/** Makes something once, or takes it apart; stations are taken to be at hand. */
export function make(play: Play, recipe: Recipe): Outcome {
  const wrong = makingProblem(play, recipe);
  if (wrong) return no(wrong);
  const bag = play.bag.copy();
  for (const line of recipe.lines) {
    if (line.role === "ingredient" && play.chance(line.chance)) bag.take(line.item, rolled(play, line));
    if (line.role === "tool" && line.uses !== null) {
      const gone = bag.wear(line.item, 1, line.uses);
      if (gone > 0) play.spent.set(line.item, (play.spent.get(line.item) ?? 0) + gone);
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
