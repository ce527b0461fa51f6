/** What a source may give how often: runs of it, and the wares of a shop with their stock. */
import type { Source } from "../kinds/index";
import type { Id } from "../schema/id";

type Ware = Source["wares"][number];

/** Whether a ware is gone for good once so many were sold. */
export const runsOut = ({ stock, restock }: Ware): boolean => stock !== null && !restock;

/** How often a source can be run in a world; null: without limit. */
export const runsInWorld = ({ kind, runs }: Pick<Source, "kind" | "runs">): number | null =>
  runs ?? (kind === "gift" ? 1 : null);

/** A ware as it is sold: so much of an item at once, for a price in a currency (null: value units). */
export interface Offer {
  readonly source: Source;
  /** Its place among the wares of the shop. */
  readonly at: number;
  readonly ware: Ware;
  readonly item: Id;
  readonly amount: number;
  readonly price: number;
  readonly currency: Id | null;
  /** Level that whoever buys it needs. */
  readonly level: number;
}

export const offersOf = (source: Source): Offer[] =>
  source.wares.map((ware, at) => ({
    source,
    at,
    ware,
    item: ware.item,
    amount: ware.amount,
    price: ware.price,
    currency: ware.currency ?? source.currency,
    level: Math.max(source.level ?? 0, ware.level ?? 0),
  }));

/** What a shop pays for one of a ware; null: it buys nothing back. */
export const paidBack = ({ source: { share }, price, amount }: Offer): number | null =>
  share === null || !(amount > 0) ? null : (share * price) / amount;
