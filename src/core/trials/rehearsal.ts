/** Steps that give what a recipe takes and make it once, to try it without gathering first. */
import type { Catalogue } from "../catalogue/catalogue";
import type { Recipe, Trial } from "../kinds/index";
import { type Fuel, fuelOf, mayBurn } from "../process/burning";
import { membersOf } from "../process/members";
import { nodeOf, tagOf } from "../process/node";
import { recipeRuns } from "../process/run";
import type { Id } from "../schema/id";

type TrialStep = Trial["steps"][number];

export function rehearsalOf(catalogue: Catalogue, recipe: Recipe): TrialStep[] {
  const [run] = recipeRuns(recipe, catalogue);
  const amounts = new Map<Id, number>();
  const add = (id: Id, n: number) => amounts.set(id, (amounts.get(id) ?? 0) + n);
  for (const line of run.lines) {
    if (line.role !== "ingredient" && line.role !== "tool") continue;
    const node = nodeOf(line);
    const tag = tagOf(node);
    const item = tag === null ? node : membersOf(catalogue, tag)[0]?.id;
    if (item) add(item, Math.ceil(line.max));
  }
  const [teacher] = run.teachers;
  if (teacher) add(teacher, 1);
  const fuel = run.terms.heat > 0 ? fuelFor(catalogue, run.station.fuel) : null;
  if (fuel) add(fuel.id, Math.ceil(run.terms.heat / fuel.ticks));
  const step = (does: TrialStep["does"]): TrialStep => ({ does, holds: null, refused: false });
  return [
    ...[...amounts].map(([item, amount]) => step({ is: "get", item, amount })),
    step({ is: "make", recipe: recipe.id, times: 1 }),
  ];
}

/** The first thing by key that may burn there. */
function fuelFor(catalogue: Catalogue, tag: Id | null): (Fuel & { readonly id: Id }) | null {
  let found: { readonly key: string; readonly of: Fuel & { readonly id: Id } } | null = null;
  for (const item of catalogue.records.item.values()) {
    if (!mayBurn(item, tag) || (found && item.key > found.key)) continue;
    const fuel = fuelOf(catalogue, item);
    if (fuel) found = { key: item.key, of: { ...fuel, id: item.id } };
  }
  return found?.of ?? null;
}
