import { supply } from "../analysis/registry";
import { allLines } from "../kinds/ways";
import { sayQuantity } from "../numbers/format";
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
      const more = short.length > 1 ? ` So do ${short.length - 1} others.` : "";
      yield {
        subject: of,
        with: short.map(recipeRef),
        says: `A world never holds more than ${sayQuantity(most)} ${of.name}, and ${first.name} takes ${sayQuantity(needs(first))}.${more}`,
        evidence: { type: "lines", inputs: [of], recipes: short.slice(0, 20).map(recipeRef) },
        fixes: [
          { says: `Give ${of.name} a source without an end`, do: "source", item },
          { says: `Open ${first.name}`, do: "open", kind: "recipe", id: first.id },
        ],
      };
    }
  },
};
