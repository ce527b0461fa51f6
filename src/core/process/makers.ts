/** The recipes that make an item: salvage, which has others as its purpose, left out. */
import type { Catalogue } from "../catalogue/catalogue";
import type { Recipe } from "../kinds/index";
import { allLines } from "../kinds/ways";
import { outputsOf } from "../notation/line";
import type { Id } from "../schema/id";

export const makersOf = ({ records }: Catalogue, item: Id): Recipe[] =>
  [...records.recipe.values()].filter(
    (r) => r.status !== "retired" && r.kind !== "salvage" && outputsOf(allLines(r)).some((l) => l.item === item),
  );
