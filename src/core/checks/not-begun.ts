/** What a new pantry does not have yet: said once, instead of once for each item that lacks it. */
import type { Catalogue } from "../catalogue/catalogue";
import type { RuleId } from "../checklist/index";
import { anySays } from "../process/traits";
import type { WholeCheck } from "./check";

export const hasSources = ({ records }: Catalogue): boolean => records.source.size > 0;
export const hasRecipes = ({ records }: Catalogue): boolean => records.recipe.size > 0;
export const hasPrices = (catalogue: Catalogue): boolean => anySays(catalogue, "sell");

const notBegun = (id: RuleId, begun: (catalogue: Catalogue) => boolean, message: string): WholeCheck => ({
  id,
  reads: [],
  concerns: (catalogue) => catalogue.records.item.size > 0 && !begun(catalogue),
  concernsAll: true,
  *find() {
    yield { subject: [], message, evidence: { type: "names", names: [] }, fixes: [] };
  },
});

export const noSources = notBegun(
  "no-sources",
  hasSources,
  "There is no source yet, so nothing is obtainable. Add one in Setup, and unobtainable items are listed.",
);
export const noRecipes = notBegun(
  "no-recipes",
  hasRecipes,
  "There is no recipe yet. Add one, and dead ends are listed.",
);
export const noPrices = notBegun(
  "no-prices",
  hasPrices,
  "No item has a sell price yet. Give one a price, and dead ends are listed.",
);
/** Rules of what a pantry does not have yet. */
export const NOT_BEGUN: readonly string[] = [noSources, noRecipes, noPrices].map(({ id }) => id);
