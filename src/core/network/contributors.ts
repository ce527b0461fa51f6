/** Who contributes processes to the network. A new contributor is one entry here. */
import type { Catalogue } from "../catalogue/catalogue";
import type { Kind } from "../kinds/index";
import type { Id } from "../schema/id";
import { besideHeat, burnProcesses } from "./heat";
import { besideKit } from "../process/kit";
import { besideMaker } from "../process/maker";
import { besideMembers, besideTagged, memberProcesses } from "./member-processes";
import { type Contributor, contributor, type ProcessSpec } from "./process";
import { recipeProcesses } from "./recipe-processes";
import { sourceProcesses } from "./source-processes";
import { besideTraits } from "../process/traits";
import { besideUses, besideTaught, useProcesses } from "./use-processes";

/** Recipes, or sources, that draw from tables, where a table became another one. */
function* besideTables(
  kind: "recipe" | "source",
  { records }: Catalogue,
  touched: ReadonlyMap<Kind, ReadonlySet<Id>>,
): Generator<Id> {
  if (!touched.has("table")) return;
  for (const record of records[kind].values()) if (record.tables.length) yield record.id;
}

const source = contributor({
  kind: "source",
  processes: sourceProcesses,
  *beside(before, next, touched) {
    yield* besideTables("source", next, touched);
    yield* besideMaker("source", before, next, touched);
    yield* besideKit(next, touched);
  },
});

const recipe = contributor({
  kind: "recipe",
  processes: recipeProcesses,
  *beside(before, next, touched) {
    yield* besideTaught(before, next, touched);
    yield* besideTraits(before, next, touched);
    yield* besideTagged(before, next, touched);
    yield* besideTables("recipe", next, touched);
    yield* besideMaker("recipe", before, next, touched);
  },
});

/** All of them; the one list where the others are empty, as they are for most items. */
function joined(...lists: readonly (readonly ProcessSpec[])[]): readonly ProcessSpec[] {
  const some = lists.filter((list) => list.length > 0);
  return some.length < 2 ? (some[0] ?? []) : some.flat();
}

/** Uses that give something or leave something of the item; what it counts as; and its burning. */
const item = contributor({
  kind: "item",
  processes: (record, catalogue) =>
    joined(useProcesses(record, catalogue), memberProcesses(record, catalogue), burnProcesses(record, catalogue)),
  *beside(before, next, touched) {
    yield* besideUses(before, next, touched);
    yield* besideMembers(before, next, touched);
    yield* besideHeat(before, next, touched);
  },
});

export const CONTRIBUTORS: readonly Contributor[] = [source, recipe, item];
