/** Buying and selling: shops have stock, which comes again in time, and buy their wares back. */
import { held } from "../catalogue/inheritance";
import type { Source } from "../kinds/index";
import { sayQuantity } from "../numbers/format";
import { formatTicks } from "../numbers/ticks";
import { type Offer, offersOf, paidBack, runsInWorld } from "../process/wares";
import type { Id } from "../schema/id";
import type { StepResult, Play } from "./play";

const no = (message: string): StepResult => ({ ok: false, message });

/** What of a stock is sold, and the tick at which it is full again. */
export interface Sold {
  readonly times: number;
  readonly fullAt: number;
}
const keyOf = ({ source, at }: Offer): string => `${source.id} ${at}`;

/** How often a ware can be bought now. */
function leftOf(play: Play, offer: Offer): number {
  const { stock } = offer.ware;
  const sold = play.sold.get(keyOf(offer));
  if (stock !== null) return sold && play.tick < sold.fullAt ? stock - sold.times : stock;
  const runs = runsInWorld(offer.source);
  return runs === null ? Number.POSITIVE_INFINITY : runs - (sold?.times ?? 0);
}
function sell(play: Play, offer: Offer, times: number): void {
  const { stock, restock } = offer.ware;
  const before = play.sold.get(keyOf(offer));
  const begun = before && play.tick < before.fullAt ? before : null;
  const fullAt = begun?.fullAt ?? (stock !== null && restock ? play.tick + restock : Number.POSITIVE_INFINITY);
  play.sold.set(keyOf(offer), { times: (begun?.times ?? 0) + times, fullAt });
}

/** Why a ware can't be bought so often now, or null. */
function problemOf(play: Play, offer: Offer, times: number): string | null {
  const { records, pantry } = play.catalogue;
  const { source, level, price, currency, ware } = offer;
  const name = records.item.get(offer.item)?.name ?? "";
  if (level > play.user.level)
    return `${source.name} sells ${name} from level ${level}; ${play.user.subject.name} has ${play.user.level}.`;
  const left = leftOf(play, offer);
  if (left < times) {
    const again = ware.restock ? ` It restocks in ${formatTicks(fullIn(play, offer), pantry.ticksPerSecond)}.` : "";
    return `${source.name} has ${left > 0 ? `only ${sayQuantity(left * offer.amount)}` : "no"} ${name} left.${again}`;
  }
  const purse = currency === null ? Number.POSITIVE_INFINITY : (play.bag.money.get(currency) ?? 0);
  if (purse + 1e-9 < price * times)
    return `${source.name} charges ${sayQuantity(price * times)} ${records.currency.get(currency as Id)?.name ?? ""}, but there is ${sayQuantity(purse)}.`;
  return null;
}
const fullIn = (play: Play, offer: Offer): number =>
  Math.max(0, (play.sold.get(keyOf(offer))?.fullAt ?? 0) - play.tick);

/**
 * Buys so much of an item, or more where it is sold by several.
 * @param from  the shop; null: the cheapest that can sell it now
 */
export function buy(play: Play, item: Id, amount: number, from: Source | null): StepResult {
  const { records } = play.catalogue;
  const name = records.item.get(item)?.name ?? "";
  const offers = (from ? [from] : [...records.source.values()])
    .flatMap(offersOf)
    .filter((o) => o.item === item && o.amount > 0);
  play.budget.take(records.source.size + offers.length);
  if (!offers.length) return no(from ? `${from.name} does not sell ${name}.` : `No shop sells ${name}.`);
  const times = ({ amount: each }: Offer) => Math.ceil(amount / each - 1e-9);
  const cost = (o: Offer) =>
    o.price * times(o) * (o.currency === null ? 1 : (records.currency.get(o.currency)?.worth ?? 1));
  offers.sort((a, b) => cost(a) - cost(b) || (a.source.key < b.source.key ? -1 : 1));
  const problems = offers.map((o) => problemOf(play, o, times(o)));
  const can = problems.indexOf(null);
  if (can < 0) return no(problems[0] ?? "");
  const offer = offers[can];
  const bag = play.bag.copy();
  if (offer.currency !== null) bag.pay(offer.currency, offer.price * times(offer));
  const put = bag.put(item, offer.amount * times(offer), play.wornOf(item));
  if (put.refused > 0) return no(`${sayQuantity(put.refused)} ${name} didn't fit. ${put.message}`);
  play.bag.become(bag);
  sell(play, offer, times(offer));
  play.advance(play.tick + offer.source.ticks * times(offer));
  return { ok: true };
}

/** Sells so much of an item. @param to  the shop; null: the one that pays most */
export function sellBack(play: Play, item: Id, amount: number, to: Source | null): StepResult {
  const { catalogue, bag } = play;
  const { records } = catalogue;
  const record = records.item.get(item);
  const name = record?.name ?? "";
  if (record && held(catalogue, record, "sellable").value === false) return no(`${name} can't be sold.`);
  const worth = (o: Offer) =>
    (paidBack(o) ?? 0) * (o.currency === null ? 1 : (records.currency.get(o.currency)?.worth ?? 1));
  const [best] = (to ? [to] : [...records.source.values()])
    .flatMap(offersOf)
    .filter((o) => o.item === item && paidBack(o) !== null)
    .sort((a, b) => worth(b) - worth(a) || (a.source.key < b.source.key ? -1 : 1));
  play.budget.take(records.source.size);
  if (!best) return no(to ? `${to.name} does not buy ${name}.` : `No shop buys ${name}.`);
  if (best.currency === null) return no(`${best.source.name} pays in value units, which can't be carried.`);
  const brings = (paidBack(best) as number) * amount;
  const full = bag.purseProblem(best.currency, brings);
  if (full !== null) return no(full);
  if (!bag.take(item, amount)) return no(`There are ${sayQuantity(bag.count(item))} ${name} in the bag.`);
  bag.earn(best.currency, brings);
  return { ok: true };
}
