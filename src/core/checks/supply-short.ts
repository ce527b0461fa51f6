import { supply } from "../analysis/registry";
import { allLines } from "../kinds/ways";
import { sayQuantity, count } from "../numbers/format";
import { type FindingDraft, itemRef, recipeRef, recipesAround, type WholeCheck } from "./check";

/** One run takes more of something than a world ever holds. */
export const supplyShort: WholeCheck = {
  id: "supply-short",
  reads: [supply],
  *find(context): Generator<FindingDraft> {
    const { compiled, supply: supplies } = context.readings;
    for (const i of supplies.limited) {
      const item = compiled.idOf(i);
      if (item === null) continue;
      const most = supplies.most(i);
      if (most === Number.POSITIVE_INFINITY) continue;
      const needs = (recipe: Parameters<typeof allLines>[0]) =>
        allLines(recipe)
          .filter((l) => l.item === item && l.role !== "output")
          .reduce((sum, l) => Math.max(sum, l.min), 0);
      const short = recipesAround(context, item, "consumers").filter((r) => needs(r) > most + 1e-9);
      if (!short.length) continue;
      const of = itemRef(context, i);
      const [first] = short;
      const more =
        short.length > 1
          ? ` ${count(short.length - 1, "other recipe")} ${short.length > 2 ? "need" : "needs"} more too.`
          : "";
      yield {
        subject: of,
        with: short.map(recipeRef),
        message: `Only ${sayQuantity(most)} ${of.name} can exist in a world, but ${first.name} needs ${sayQuantity(needs(first))}.${more}`,
        evidence: { type: "lines", inputs: [of], recipes: short.slice(0, 20).map(recipeRef) },
        size: short.reduce((worst, recipe) => Math.max(worst, needs(recipe)), 0) / most,
        fixes: [
          { message: `Add an unlimited source for ${of.name}`, do: "source", item },
          { message: `Open ${first.name}`, do: "open", kind: "recipe", id: first.id },
        ],
      };
    }
  },
};
