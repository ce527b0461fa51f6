/** Edits that several checks offer as a way to fix. */
import { gainsAtAll } from "../analysis/gain";
import { Reach } from "../network/reach";
import { type Catalogue, withRecords } from "../catalogue/catalogue";
import { type Edit, setField, type Value } from "../catalogue/edit";
import { newId, type Id } from "../schema/id";
import { withDefaults, type Recipe, type Source } from "../kinds/index";
import { type Line, line as makeLine, sayNamed } from "../notation/line";
import { around } from "../catalogue/surroundings";
import { PersistentMap } from "../catalogue/persistent-map";
import { FreeKeys } from "../editing/new-names";
import { replaceEverywhere } from "../editing/replace";
import { compile } from "../network/compile";
import { membersOf } from "../process/members";
import { sayCost, sayPercent, sayQuantity } from "../numbers/format";
import type { Fix, Ref } from "./check";

export const setLines = (catalogue: Catalogue, kind: "recipe" | "source", id: Id, lines: readonly Line[]): Edit =>
  setField(catalogue, kind, id, "lines", lines as unknown as Value);

/** Takes lines out of a record. */
export const withoutLine = (
  catalogue: Catalogue,
  kind: "recipe" | "source",
  { id, lines }: { readonly id: Id; readonly lines: readonly Line[] },
  out: Line,
  message: string,
): Fix => ({
  message,
  do: "edit",
  edits: [
    setLines(
      catalogue,
      kind,
      id,
      lines.filter((l) => l !== out),
    ),
  ],
});

/** A gathering source of one item, 30 seconds a run, for the designer to adjust. */
export function newSource(catalogue: Catalogue, item: Id): Source {
  const name = `Gather ${catalogue.records.item.get(item)?.name ?? "item"}`;
  return withDefaults("source", {
    id: newId(),
    key: new FreeKeys(catalogue).next("source", name),
    name,
    lines: [makeLine("output", item)],
    ticks: 30 * catalogue.pantry.ticksPerSecond,
  });
}

/** The edits of a ready-made way to fix; none where it only opens something. */
export function editsOf(catalogue: Catalogue, fix: Fix): readonly Edit[] {
  if (fix.do === "edit") return fix.edits;
  if (fix.do === "source") return [{ op: "add", kind: "source", record: newSource(catalogue, fix.item) }];
  if (fix.do !== "merge") return [];
  const given = fix.others.flatMap((id) => catalogue.records.item.get(id) ?? []);
  return given.flatMap((record) => [
    ...replaceEverywhere(catalogue, "item", record.id, fix.keep),
    fix.after === "remove"
      ? { op: "remove" as const, kind: "item" as const, record }
      : setField(catalogue, "item", record.id, "status", "retired"),
  ]);
}

/** A changed line, in words: "Render skins: give 5 Coarse salt instead of 6". */
function lowered(catalogue: Catalogue, recipe: Recipe, at: number, after: Line): Fix {
  const before = recipe.lines[at];
  const item = sayNamed(before, around(catalogue));
  const message =
    before.chance !== after.chance
      ? `${recipe.name}: ${sayQuantity(before.max)} ${item} at ${sayPercent(after.chance)} instead of ${sayPercent(before.chance)}`
      : `${recipe.name}: give ${sayQuantity(after.max)} ${item} instead of ${before.min === before.max ? "" : `${before.min} to `}${sayQuantity(before.max)}`;
  return {
    message,
    do: "edit",
    edits: [
      setLines(
        catalogue,
        "recipe",
        recipe.id,
        recipe.lines.map((l, k) => (k === at ? after : l)),
      ),
    ],
  };
}

/**
 * Ways to close a gaining loop by giving less, gentlest first, each tried on the loop's own recipes before it is
 * offered:
 * the largest whole quantity, or chance in steps of 5%, with which they no longer gain.
 */
export function closeLoop(catalogue: Catalogue, recipes: readonly Recipe[]): Fix[] {
  const options: { fix: Fix; loss: number }[] = [];
  for (const recipe of recipes)
    recipe.lines.forEach((line, at) => {
      if (line.role !== "output" || line.chance <= 0 || line.draw || line.bonus) return;
      // What a recipe only hands back should go on coming back whole, where another way closes the loop.
      const returned = recipe.lines.some((l) => l.role === "ingredient" && l.item === line.item) ? 1 : 0;
      const closes = (after: Line) =>
        !stillGains(
          catalogue,
          recipes.map((r) => (r === recipe ? { ...r, lines: r.lines.map((l, k) => (k === at ? after : l)) } : r)),
        );
      const whole = largest(Math.ceil(line.max) - 1, (n) => closes({ ...line, min: Math.min(line.min, n), max: n }));
      const chance = largest(Math.ceil(Math.min(1, line.chance) * 20) - 1, (n) => closes({ ...line, chance: n / 20 }));
      if (whole > 0)
        options.push({
          fix: lowered(catalogue, recipe, at, { ...line, min: Math.min(line.min, whole), max: whole }),
          loss: returned + 1 - whole / line.max,
        });
      if (chance > 0)
        options.push({
          fix: lowered(catalogue, recipe, at, { ...line, chance: chance / 20 }),
          loss: returned + 1 - chance / 20 / line.chance + 0.01,
        });
    });
  return options
    .sort((a, b) => a.loss - b.loss)
    .slice(0, 3)
    .map((o) => o.fix);
}

/** A sell price, in steps of a hundredth, at which a loop that leaves so many value units a round leaves none. */
export function sellForLess(
  catalogue: Catalogue,
  { of, times, sells }: { readonly of: Ref; readonly times: number; readonly sells: number },
  left: number,
): Fix[] {
  const fair = Math.floor((sells - left / times) * 100 + 1e-6) / 100;
  return fair > 0
    ? [
        {
          message: `Sell ${of.name} for ${sayCost(fair)} instead of ${sayCost(sells)}`,
          do: "edit",
          edits: [setField(catalogue, "item", of.id, "sell", fair)],
        },
      ]
    : [];
}

/** The largest n in 1..most that satisfies a test which holds for all smaller n too; 0: none. */
function largest(most: number, test: (n: number) => boolean): number {
  let [low, high] = [0, most];
  while (low < high) {
    const middle = Math.ceil((low + high) / 2);
    if (test(middle)) low = middle;
    else high = middle - 1;
  }
  return low;
}

function stillGains(catalogue: Catalogue, recipes: readonly Recipe[]): boolean {
  const items = new Map(
    recipes.flatMap((r) =>
      r.lines.flatMap((l) => {
        const all = l.any === undefined ? [catalogue.records.item.get(l.item)] : [...membersOf(catalogue, l.any)];
        return all.flatMap((i) => (i ? [[i.id, i] as const] : []));
      }),
    ),
  );
  // Prices are left out: what a sale brings is another matter.
  for (const [id, item] of items) items.set(id, { ...item, sell: 0 });
  for (const { taughtBy } of recipes) {
    const teacher = taughtBy && catalogue.records.item.get(taughtBy);
    if (teacher) items.set(taughtBy, teacher);
  }
  const compiled = compile(
    withRecords(catalogue, {
      item: new PersistentMap(items),
      recipe: new PersistentMap(recipes.map((r) => [r.id, r])),
      source: new PersistentMap(),
    }),
  );
  return gainsAtAll(compiled, new Reach(compiled.network));
}
